"""Messengers: the ways alarms leave the house, and what they sent."""

import json
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Path
from pydantic import BaseModel, Field

from sandboa.devices.messengers import CARRIERS
from sandboa.journal import messages
from sandboa.records.alarms import Messenger
from sandboa.web.house import NowS
from sandboa.web.shapes import ActTold, Asked, Moment, at

router = APIRouter(prefix="/api/messengers", tags=["messengers"])

MessengerId = Annotated[int, Path(ge=1, le=2**53)]
MinuteOfDay = Annotated[int, Field(ge=0, le=1439)]
#: Of a target; told only as "set".
_SECRETS = ("password", "secret")


class TargetAsked(Asked):
    """Where messages go: the fields of e-mail, or of a webhook. Empty secrets stay as they are."""

    server: Annotated[str, Field(max_length=200)] | None = None
    port: int | None = None
    security: Literal["starttls", "tls", "none"] | None = None
    user: Annotated[str, Field(max_length=200)] | None = None
    password: Annotated[str, Field(max_length=400)] | None = None
    sender: Annotated[str, Field(max_length=200)] | None = None
    to: Annotated[str, Field(max_length=200)] | None = None
    url: Annotated[str, Field(max_length=2000)] | None = None
    secret: Annotated[str, Field(max_length=400)] | None = None


class MessengerAsked(Asked):
    kind: Literal["email", "webhook", "shelf"]
    name: Annotated[str, Field(max_length=200)]
    zone: Annotated[str, Field(max_length=60)]
    quiet_from_min: MinuteOfDay | None = None
    quiet_until_min: MinuteOfDay | None = None
    target: TargetAsked = TargetAsked()

    def said(self) -> messages.MessengerSaid:
        return messages.MessengerSaid(
            self.kind, self.name, self.zone, self.target.model_dump(),
            self.quiet_from_min, self.quiet_until_min,
        )  # fmt: skip


class MessengerTold(BaseModel):
    """A messenger; of its secrets only whether they are set."""

    id: int
    kind: Literal["email", "webhook", "shelf"]
    name: str
    zone: str
    quiet_from_min: int | None
    quiet_until_min: int | None
    target: dict[str, Any]


class MessageTold(BaseModel):
    messenger: str
    about: str
    text: str
    at: Moment
    sent: bool
    outcome: str


@router.get("")
def get_messengers() -> list[MessengerTold]:
    """Every messenger, by name."""
    return [_told(m) for m in sorted(Messenger.current(), key=lambda m: m.name.casefold())]


@router.get("/messages")
def get_messages() -> list[MessageTold]:
    """What was sent, tried, or kept on the shelf, newest first."""
    names = {m.entity: m.name for m in Messenger.select()}
    return [
        MessageTold(
            messenger=names.get(row.messenger, ""),
            about=row.about,
            text=row.text,
            at=at(row.at_s),
            sent=bool(row.sent),
            outcome=row.outcome,
        )
        for row in messages.sent_lately()
    ]


@router.post("", status_code=201)
def add_messenger(asked: MessengerAsked, now_s: NowS) -> ActTold:
    """Let alarms go out."""
    return ActTold.of(messages.add_messenger(asked.said(), CARRIERS, now_s))


@router.put("/{messenger}")
def correct_messenger(messenger: MessengerId, asked: MessengerAsked, now_s: NowS) -> ActTold:
    """Correct where and when alarms go out."""
    return ActTold.of(messages.correct_messenger(messenger, asked.said(), CARRIERS, now_s))


@router.delete("/{messenger}")
def remove_messenger(messenger: MessengerId, now_s: NowS) -> ActTold:
    """Send nothing more by this messenger."""
    return ActTold.of(messages.remove_messenger(messenger, now_s))


@router.post("/{messenger}/trial", status_code=201)
def try_messenger(messenger: MessengerId, now_s: NowS) -> MessageTold:
    """Send a trial message now, whatever the hour."""
    held = messages.find_messenger(messenger)
    messages.try_to_send(
        CARRIERS, held, "Sandboa: trial",
        "This is a trial: alarms of your cabinets will reach you like this.", now_s=now_s,
    )  # fmt: skip
    return get_messages()[0]


def _told(row: Messenger) -> MessengerTold:
    target = json.loads(row.target)
    return MessengerTold(
        id=row.entity,
        kind=row.kind,  # type: ignore[arg-type]  # the table's own check
        name=row.name,
        zone=row.zone,
        quiet_from_min=row.quiet_from_min,
        quiet_until_min=row.quiet_until_min,
        target={k: ("set" if v else "") if k in _SECRETS else v for k, v in target.items()},
    )
