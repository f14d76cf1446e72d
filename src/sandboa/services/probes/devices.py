"""Devices that send readings: a token each, shown once, kept as a hash, revocable."""

import secrets
from dataclasses import dataclass

from sandboa.core.act_kinds import ActKind
from sandboa.core.names import clean_name
from sandboa.records import keys
from sandboa.records.facts import Act
from sandboa.records.house import Device as Device
from sandboa.records.house import Probe, named
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import act
from sandboa.services.people.tokens import NotAllowed, hash_of

_BEGINS = "sb_"


@dataclass(frozen=True, slots=True)
class NewToken:
    """A device's token in the clear: told once, never kept."""

    device: Device
    token: str
    act: Act


def add_device(name: str, now_s: float) -> NewToken:
    """Record a device and make its token. Conflict when the name is taken."""
    name = clean_name("device", name)
    if named(Device, name) is not None:
        raise Conflict(f"there is a device {name} already")
    token = _new_token()
    with act(ActKind.DEVICE, f"Device {name} may send readings", now_s) as adding:
        device = Device.record(adding, name=name, token_hash=hash_of(token))
    return NewToken(device, token, adding)


def renew_token(entity: int, now_s: float) -> NewToken:
    """Give a device another token; the one before holds no more, whatever is undone."""
    device = find_device(entity)
    token = _new_token()
    with act(ActKind.DEVICE, f"New token for {device.name}", now_s) as renewing:
        keys.end_token(device.token_hash, now_s)
        device = device.correct(renewing, token_hash=hash_of(token))
    return NewToken(device, token, renewing)


def revoke(entity: int, now_s: float) -> Act:
    """Let a device send nothing any more. Its probes and their readings stay.

    Undone, the device is back and needs a new token.
    """
    device = find_device(entity)
    with act(ActKind.DEVICE, f"Token of {device.name} revoked", now_s) as revoking:
        for probe in Probe.current(device_id=entity):
            probe.correct(revoking, device_id=None)
        keys.end_token(device.token_hash, now_s)
        device.retire(revoking)
    return revoking


def find_device(entity: int) -> Device:
    """The device with that id; NotFound otherwise."""
    device = Device.now(entity)
    if device is None:
        raise NotFound("there is no such device")
    return device


def device_of(token: str) -> Device:
    """The device a token belongs to; NotAllowed when none does."""
    if not token:
        raise NotAllowed("a device says who it is: send its token as Authorization: Bearer ...")
    token_hash = hash_of(token)
    if keys.is_ended(token_hash):
        raise NotAllowed("this token was revoked")
    device = Device.only(token_hash=token_hash)
    if device is None:
        raise NotAllowed("this token is not known here")
    return device


def may_send(name: str, token: str) -> bool:
    """Whether a device of that name holds that token: for a broker that asks for both."""
    device = named(Device, name)
    token_hash = hash_of(token)
    fits = device is not None and secrets.compare_digest(device.token_hash, token_hash)
    return fits and not keys.is_ended(token_hash)


def device_called(name: str) -> Device:
    """The device of that name; NotAllowed when there is none, or none any more."""
    device = named(Device, name)
    if device is None:
        raise NotAllowed(f'no device "{name[:60]}" may send readings here')
    return device


def _new_token() -> str:
    return _BEGINS + secrets.token_urlsafe(32)
