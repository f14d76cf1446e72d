"""What is noted of signing in, keys and exports, for keepers to look at."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.database import damage
from sandboa.records.security import SecurityEvent, events_lately, forget_events_before

#: Days an event is kept (assumption: longer than a season and the winter after it).
KEPT_DAYS: Final = 400
_LONGEST: Final = 200


class Kind(StrEnum):
    """What happened."""

    SIGNED_IN = "signed in"
    REFUSED = "refused"
    SIGNED_OUT = "signed out"
    PASSPHRASE = "passphrase"
    TOKEN = "token"
    LINK = "link"
    EXPORTED = "exported"
    RESTORED = "restored"
    PEOPLE = "people"
    BACKUP = "backup"


@dataclass(frozen=True, slots=True)
class By:
    """Who did it, from which address, with what browser; None: the machine itself."""

    person: int | None = None
    address: str = ""
    device: str = ""


HERE: Final = By()


def note(kind: Kind, text: str, by: By, now_s: float) -> None:
    """Note an event. A damaged house notes nothing: nothing is written to it."""
    if damage():
        return
    SecurityEvent.create(
        at_s=int(now_s), kind=kind.value, person_id=by.person, text=text[:_LONGEST],
        address=by.address[:_LONGEST], device=by.device[:_LONGEST],
    )  # fmt: skip
    forget_events_before(now_s - KEPT_DAYS * SECONDS_PER_DAY)


def lately(limit: int = 100, before: int | None = None) -> list[SecurityEvent]:
    """The newest events first."""
    return events_lately(limit, before)
