"""Sensors among what is heard: what they are called, and what they say of their own health."""

from typing import NamedTuple

from sandboa.core.climate.sensor_health import battery_is_low, link_is_weak, signal_is_weak
from sandboa.core.errors import NotPlausible
from sandboa.core.messages import Message, Words
from sandboa.formats.sensor_payloads import Seems, SensorMessage
from sandboa.services.probes.heard_values import Source, all_values
from sandboa.services.snapshot.snapshot import Snapshot
from sandboa.web.background.heard import Heard


class WeakSender(NamedTuple):
    """A sensor that may soon fall silent, and why."""

    name: str
    reason: Words


def name_of(source: Source, snapshot: Snapshot) -> str | None:
    """What a source is called; None for a device that is no more."""
    if source.topic is not None:
        return source.topic
    device = snapshot.devices.get(source.device or 0)
    return device.name if device is not None else None


def weakness(message: SensorMessage) -> Words | None:
    """Why a sensor may soon fall silent, by what its message says of itself; None: nothing does."""
    for value in message.values:
        if value.number is None or value.seems is None:
            continue
        try:
            told = _weakness(value.seems, value.number)
        except NotPlausible:
            # A battery of 3000 is one in millivolts: nothing is known of how full it is.
            continue
        if told is not None:
            return told
    return None


def _weakness(seems: Seems, number: float) -> Words | None:
    if seems is Seems.BATTERY and battery_is_low(number):
        return Message("its battery is at {percent} %: change it", percent=f"{number:g}")
    if seems is Seems.BATTERY_LOW and number:
        return "it says that its battery is low: change it"
    if seems is Seems.SIGNAL and signal_is_weak(number):
        return Message("its signal is weak, {dbm} dBm: bring it nearer", dbm=f"{number:g}")
    if seems is Seems.LINK and link_is_weak(number):
        return Message("its link is weak, {quality} of 255: bring it nearer", quality=f"{number:g}")
    return None


def weak_senders(heard: Heard, snapshot: Snapshot) -> tuple[WeakSender, ...]:
    """Sensors that feed a probe and may soon fall silent, by name."""
    found = []
    feeding = {p.device_id for p in snapshot.probes.values() if p.device_id is not None}
    named: set[Source] | None = None
    for spoken in heard.spoken():
        told = weakness(spoken.message) if spoken.message is not None else None
        if told is None:
            continue
        named = set(all_values()) if named is None else named
        source = spoken.source
        if source in named or source.device in feeding:
            name = name_of(source, snapshot)
            if name is not None:
                found.append(WeakSender(name, told))
    return tuple(sorted(found, key=lambda weak: weak.name))
