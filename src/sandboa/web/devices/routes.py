"""Devices that may send readings, and their tokens."""

from typing import Annotated

from fastapi import APIRouter, Path

from sandboa.services.probes import devices
from sandboa.services.safekeeping.security_log import Kind, note
from sandboa.web.devices.schemas import DeviceRequest, DeviceResponse, TokenResponse
from sandboa.web.house import NowS, TheHouse
from sandboa.web.schemas.common import ActResponse, at_or_none
from sandboa.web.security.permissions import LOOK, RUN
from sandboa.web.security.requester import AskedBy

router = APIRouter(prefix="/api/devices", tags=["devices"])


DeviceId = Annotated[int, Path(ge=1, le=2**53)]


@router.get("", dependencies=[LOOK])
def get_devices(house: TheHouse) -> list[DeviceResponse]:
    """Every device that may send, by name."""
    snapshot = house.snapshot()
    tips = snapshot.readings.tips()
    told = []
    for device in sorted(snapshot.devices.values(), key=lambda d: d.name.casefold()):
        own = [p for p in snapshot.probes.values() if p.device_id == device.entity_id]
        received = [tips[p.entity_id].received_s for p in own if p.entity_id in tips]
        told.append(
            DeviceResponse(
                id=device.entity_id,
                name=device.name,
                probes=sorted(p.name for p in own),
                last_received_at=at_or_none(max((r for r in received if r), default=None)),
            )
        )
    return told


@router.post("", dependencies=[RUN], status_code=201)
def add_device(asked: DeviceRequest, by: AskedBy, now_s: NowS) -> TokenResponse:
    """Let a device send readings; its token is told this once."""
    made = devices.add_device(asked.name, now_s)
    note(Kind.TOKEN, f"a token for {made.device.name}", by, now_s)
    return TokenResponse.of(made)


@router.post("/{device}/token", dependencies=[RUN], status_code=201)
def renew_token(device: DeviceId, by: AskedBy, now_s: NowS) -> TokenResponse:
    """Give a device another token; the one before holds no more, also when this is undone."""
    made = devices.renew_token(device, now_s)
    note(Kind.TOKEN, f"another token for {made.device.name}", by, now_s)
    return TokenResponse.of(made)


@router.delete("/{device}", dependencies=[RUN])
def revoke(device: DeviceId, by: AskedBy, now_s: NowS) -> ActResponse:
    """Let a device send nothing any more; undone, it needs a new token."""
    act = devices.revoke(device, now_s)
    note(Kind.TOKEN, act.summary, by, now_s)
    return ActResponse.of(act)
