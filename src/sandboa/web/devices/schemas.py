"""Requests and responses of this place."""

from typing import Annotated

from pydantic import BaseModel, Field

from sandboa.services.probes import devices
from sandboa.web.schemas.common import ActResponse, Moment, RequestSchema


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
