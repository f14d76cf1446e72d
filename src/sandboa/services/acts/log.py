"""The log: what was recorded, by whom, and whether it was taken back since."""

from dataclasses import dataclass
from typing import Final

from sandboa.core.act_kinds import ActKind
from sandboa.records import people
from sandboa.records.clutches import Clutch
from sandboa.records.facts import Act as Act
from sandboa.records.facts import acts_about, acts_lately, has_log
from sandboa.records.house import Animal
from sandboa.records.rounds import Visit
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.single_records import standing_single
from sandboa.services.acts.standing import standing_of, undone_among

#: Lines of a log where nobody says how many (assumption).
LINES: Final = 40


@dataclass(frozen=True)
class LogEntry:
    """An act as the log shows it; `by` is who recorded it, None at the machine itself.

    `visit` is the id of the visit that stands as this act recorded it, None for any other act;
    `single` whether what stands is one thing that can be told anew; `clutch` the code of the
    clutch the act is of.
    """

    act: Act
    undone: bool
    by: str | None
    visit: int | None = None
    single: bool = False
    clutch: str | None = None

    @property
    def happened_s(self) -> float:
        """When what it tells happened; where that is not known, when it was recorded."""
        at_s = self.act.at_s
        return float(self.act.recorded_s if at_s is None else at_s)


def house_log(limit: int = LINES, before: int | None = None) -> list[LogEntry]:
    """What was recorded last in the whole house, newest first; before an act where one is given."""
    return _as_log(acts_lately(limit, before))


def log_about(subject: int, limit: int = LINES, before: int | None = None) -> list[LogEntry]:
    """What was recorded of an animal, box, cabinet, clutch, egg, hatchling, pairing or probe.

    `subject` is its id; newest first. An animal that was held back has what was recorded of it as
    a hatchling in its log. NotFound for what has no log.
    """
    if not has_log(subject):
        raise NotFound("there is nothing such with a log")
    animal = Animal.now(subject)
    before_held = animal.hatchling_id if animal is not None else None
    both = (subject,) if before_held is None else (subject, before_held)
    return _as_log(acts_about(*both, limit=limit, before=before))


def _as_log(acts: list[Act]) -> list[LogEntry]:
    """The acts with whether each is taken back now, and who recorded it."""
    undone, names = undone_among(acts), people.names_of_people()
    visits = _visits(acts)
    single, codes = standing_single(acts), _codes(acts)
    return [
        LogEntry(
            act,
            undone=act.id in undone,
            by=names.get(act.person_id or 0),
            visit=visits.get(act.id),
            single=act.id in single,
            clutch=codes.get(act.clutch_id or 0),
        )
        for act in acts
    ]


def _codes(acts: list[Act]) -> dict[int, str]:
    """The codes of the clutches those acts are of, by id."""
    ids = {act.clutch_id for act in acts if act.clutch_id is not None}
    return {clutch.entity_id: clutch.code for clutch in Clutch.current(entity_id=ids)}


def _visits(acts: list[Act]) -> dict[int, int]:
    """The id of the visit that stands as an act recorded it, by the act's."""
    ids = [act.id for act in acts if act.kind == ActKind.VISIT]
    return {act: visit.entity_id for act, visit in standing_of(Visit, ids)}
