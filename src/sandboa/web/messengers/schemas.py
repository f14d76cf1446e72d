"""Requests and responses of this place."""

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from sandboa.core.units import TemperatureUnit
from sandboa.devices.messengers.trust import LARGEST_PEM
from sandboa.services.alarms import messengers
from sandboa.services.alarms.delivery import LetterKind
from sandboa.services.alarms.trouble import Severity
from sandboa.web.requests.revisions import Revision
from sandboa.web.schemas.common import Moment, RequestSchema

MessengerKind = Literal["email", "webhook", "push", "record only"]
MinuteOfDay = Annotated[int, Field(ge=0, le=1439)]


class TargetRequest(RequestSchema):
    """Where messages go: the fields of e-mail, of a webhook, or those a browser made for its phone.
    Empty secrets stay as they are."""

    server: Annotated[str, Field(max_length=200)] | None = None
    port: int | None = None
    security: Literal["starttls", "tls", "none"] | None = None
    user: Annotated[str, Field(max_length=200)] | None = None
    password: Annotated[str, Field(max_length=400)] | None = None
    sender: Annotated[str, Field(max_length=200)] | None = None
    to: Annotated[str, Field(max_length=200)] | None = None
    url: Annotated[str, Field(max_length=2000)] | None = None
    secret: Annotated[str, Field(max_length=400)] | None = None
    authority: Annotated[str, Field(max_length=LARGEST_PEM)] | None = None
    phone_key: Annotated[str, Field(max_length=200)] | None = None


class MessengerRequest(RequestSchema):
    kind: MessengerKind
    name: Annotated[str, Field(max_length=200)]
    zone: Annotated[str, Field(max_length=60)]
    temperature_unit: TemperatureUnit = TemperatureUnit.CELSIUS
    quiet_from_min: MinuteOfDay | None = None
    quiet_until_min: MinuteOfDay | None = None
    gravity: Severity = Severity.NOTICE
    life_at_min: MinuteOfDay | None = None
    target: TargetRequest = TargetRequest()

    def said(self) -> messengers.MessengerCommand:
        return messengers.MessengerCommand(
            self.kind, self.name, self.zone, self.target.model_dump(),
            self.quiet_from_min, self.quiet_until_min, self.gravity, self.life_at_min,
            self.temperature_unit,
        )  # fmt: skip


class MessengerResponse(BaseModel):
    """A messenger; of its secrets only whether they are set, and its target to keepers alone.

    `lacking` are secrets that have to be given again before it can send.

    `sent_at` is when something last got out, `failed_at` and `failure` when and
    why something last did not, `next_try_at` when it is tried again after that.
    """

    id: int
    kind: MessengerKind
    name: str
    zone: str
    temperature_unit: TemperatureUnit
    quiet_from_min: int | None
    quiet_until_min: int | None
    gravity: Severity
    life_at_min: int | None
    target: dict[str, Any]
    lacking: list[str]
    sent_at: Moment | None
    failed_at: Moment | None
    failure: str | None
    next_try_at: Moment | None
    revision: Revision


class PushKeyResponse(BaseModel):
    """The key by which a browser knows the house that may send to it."""

    key: str


class MessageResponse(BaseModel):
    messenger: str
    kind: LetterKind
    about: str
    text: str
    at: Moment
    sent: bool
    outcome: str
