"""Messengers: the ways alarms leave the house, and what they sent."""

import json
from typing import Annotated, Any

from fastapi import APIRouter, Path

from sandboa.core.people import Role
from sandboa.core.units import TemperatureUnit
from sandboa.devices.messengers import CARRIERS, POST
from sandboa.devices.messengers.push_keys import push_keys
from sandboa.services.acts.revisions import revision_of, saved_over
from sandboa.services.alarms import delivery
from sandboa.services.alarms import messengers as messages
from sandboa.services.alarms.delivery import LetterKind
from sandboa.services.alarms.messengers import (
    Messenger,
    messengers_now,
    names_of_messengers,
    secrets_of,
)
from sandboa.services.alarms.trouble import Severity
from sandboa.services.forms.people_and_things import form_of_messenger
from sandboa.services.people.signing_in import SignedIn
from sandboa.web.house import Asking, NowS
from sandboa.web.messengers.schemas import (
    MessageResponse,
    MessengerRequest,
    MessengerResponse,
    PushKeyResponse,
)
from sandboa.web.requests.revisions import Seen
from sandboa.web.schemas.common import ActResponse, at, at_or_none
from sandboa.web.security.permissions import LOOK, RUN

router = APIRouter(prefix="/api/messengers", tags=["messengers"])


MessengerId = Annotated[int, Path(ge=1, le=2**53)]


#: Of a target; told only as "set", also to keepers.
_HIDDEN = ("password", "secret", "authority", "phone_key")


@router.get("", dependencies=[LOOK])
def get_messengers(person: Asking, now_s: NowS) -> list[MessengerResponse]:
    """Every messenger, by name, and how it fares."""
    keeper = _is_keeper(person)
    return [_told(m, now_s, keeper=keeper) for m in messengers_now()]


@router.get("/messages", dependencies=[LOOK])
def get_messages(person: Asking) -> list[MessageResponse]:
    """What was sent, tried, or only recorded, newest first; where to, to keepers alone."""
    return _messages(keeper=_is_keeper(person))


def _messages(*, keeper: bool) -> list[MessageResponse]:
    names = names_of_messengers()
    return [
        MessageResponse(
            messenger=names.get(row.messenger_id, ""),
            kind=LetterKind(row.kind),
            about=row.about,
            text=row.text,
            at=at(row.at_s),
            sent=bool(row.sent),
            outcome=row.outcome if keeper else "",
        )
        for row in delivery.sent_lately()
    ]


@router.post("", dependencies=[RUN], status_code=201)
def add_messenger(asked: MessengerRequest, now_s: NowS) -> ActResponse:
    """Let alarms go out."""
    return ActResponse.of(messages.add_messenger(asked.said(), CARRIERS, now_s))


@router.post("/push-key", dependencies=[RUN])
def get_push_key() -> PushKeyResponse:
    """The key a phone's browser subscribes with; made when it is first asked for."""
    return PushKeyResponse(key=push_keys().for_browsers)


@router.put("/{messenger}", dependencies=[RUN])
def correct_messenger(
    messenger: MessengerId, asked: MessengerRequest, seen: Seen, now_s: NowS
) -> ActResponse:
    """Correct where and when alarms go out."""
    with saved_over(seen, lambda: form_of_messenger(messages.find_messenger(messenger))):
        return ActResponse.of(messages.correct_messenger(messenger, asked.said(), CARRIERS, now_s))


@router.delete("/{messenger}", dependencies=[RUN])
def remove_messenger(messenger: MessengerId, now_s: NowS) -> ActResponse:
    """Send nothing more by this messenger."""
    return ActResponse.of(messages.remove_messenger(messenger, now_s))


@router.post("/{messenger}/trial", dependencies=[RUN], status_code=201)
def try_messenger(messenger: MessengerId, now_s: NowS) -> MessageResponse:
    """Send a trial message now, whatever the hour."""
    held = messages.find_messenger(messenger)
    delivery.try_to_send(POST, held, delivery.trial_letter(), now_s)
    return _messages(keeper=True)[0]


def _is_keeper(person: SignedIn | None) -> bool:
    return person is None or person.role is Role.KEEPER


def _target(row: Messenger, *, keeper: bool) -> tuple[dict[str, Any], list[str]]:
    """What is shown of a target, and the secrets it lacks."""
    target = json.loads(row.target)
    secrets = secrets_of(row)
    needed = target.pop(delivery.SEALED, [])
    lacking = [name for name in needed if not secrets.get(name)]
    whole = {**target, **{name: secrets.get(name) or "" for name in needed}}
    shown = {k: ("set" if v else "") if k in _HIDDEN else v for k, v in whole.items()}
    return (shown if keeper else {}), lacking


def _told(row: Messenger, now_s: float, *, keeper: bool) -> MessengerResponse:
    target, lacking = _target(row, keeper=keeper)
    state = delivery.state_of(row, now_s)
    return MessengerResponse(
        id=row.entity_id,
        kind=row.kind,  # type: ignore[arg-type]  # the table's own check
        name=row.name,
        zone=row.zone,
        temperature_unit=TemperatureUnit(row.temperature_unit),
        quiet_from_min=row.quiet_from_min,
        quiet_until_min=row.quiet_until_min,
        gravity=Severity(row.gravity),
        life_at_min=row.life_at_min,
        target=target,
        lacking=lacking,
        sent_at=at_or_none(state.sent_s),
        failed_at=at_or_none(state.failed_s),
        failure=state.failure if keeper else None,
        next_try_at=at_or_none(state.next_try_s),
        revision=revision_of(form_of_messenger(row)) if keeper else "",
    )
