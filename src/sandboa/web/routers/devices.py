"""Devices that may send readings, and their tokens."""

from typing import Annotated

from fastapi import APIRouter, Path
from pydantic import BaseModel, Field

from sandboa.records import readings
from sandboa.services.probes import devices
from sandboa.services.safekeeping.security_log import Kind, note
from sandboa.web.asked_by import AskedBy
from sandboa.web.house import NowS, TheHouse
from sandboa.web.shapes import ActResponse, Moment, RequestSchema, at_or_none

router = APIRouter(prefix="/api/devices", tags=["devices"])

DeviceId = Annotated[int, Path(ge=1, le=2**53)]


class DeviceRequest(RequestSchema):
    name: Annotated[str, Field(max_length=200)]


class DeviceResponse(BaseModel):
    """A device, its probes by name, and when anything new last came from it."""

    id: int
    name: str
    probes: list[str]
    last_received_at: Moment | None


class TokenResponse(BaseModel):
    """A token in the clear: it is never told again."""

    device: int
    name: str
    token: str
    act: ActResponse

    @classmethod
    def of(cls, made: devices.NewToken) -> "TokenResponse":
        return cls(
            device=made.device.entity_id,
            name=made.device.name,
            token=made.token,
            act=ActResponse.of(made.act),
        )


@router.get("")
def get_devices(house: TheHouse) -> list[DeviceResponse]:
    """Every device that may send, by name."""
    snapshot, tips = house.snapshot(), readings.tips()
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


@router.post("", status_code=201)
def add_device(asked: DeviceRequest, by: AskedBy, now_s: NowS) -> TokenResponse:
    """Let a device send readings; its token is told this once."""
    made = devices.add_device(asked.name, now_s)
    note(Kind.TOKEN, f"a token for {made.device.name}", by, now_s)
    return TokenResponse.of(made)


@router.post("/{device}/token", status_code=201)
def renew_token(device: DeviceId, by: AskedBy, now_s: NowS) -> TokenResponse:
    """Give a device another token; the one before holds no more, also when this is undone."""
    made = devices.renew_token(device, now_s)
    note(Kind.TOKEN, f"another token for {made.device.name}", by, now_s)
    return TokenResponse.of(made)


@router.delete("/{device}")
def revoke(device: DeviceId, by: AskedBy, now_s: NowS) -> ActResponse:
    """Let a device send nothing any more; undone, it needs a new token."""
    act = devices.revoke(device, now_s)
    note(Kind.TOKEN, act.summary, by, now_s)
    return ActResponse.of(act)
