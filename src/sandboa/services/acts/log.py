"""The log: what was recorded, by whom, and whether it was taken back since."""

from dataclasses import dataclass

from sandboa.records import (
    people,
)
from sandboa.records.facts import Act as Act
from sandboa.records.facts import (
    acts_lately,
)
from sandboa.services.acts.recording import undone_among


@dataclass(frozen=True)
class LogEntry:
    """An act as the log shows it; `by` is who recorded it, None at the machine itself."""

    act: Act
    undone: bool
    by: str | None


def house_log(limit: int = 40) -> list[LogEntry]:
    """What was recorded last in the whole house, newest first."""
    return as_log(acts_lately(limit))


def as_log(acts: list[Act]) -> list[LogEntry]:
    """The acts with whether each is taken back now, and who recorded it."""
    undone, names = undone_among(acts), people.names_of_people()
    return [LogEntry(act, act.id in undone, names.get(act.person_id or 0)) for act in acts]
