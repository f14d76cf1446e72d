"""Closing a visit: everything seen and done at a box, recorded as one act, once for its key.

A visit has a key made by the device that closed it. Delivered again, it is
the same visit. What another device recorded meanwhile is told as a conflict;
nothing of either is lost.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from threading import Lock
from typing import Final

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.records.database import transaction
from sandboa.records.facts import Act, act_of
from sandboa.records.rounds import visit_with
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import act
from sandboa.services.rounds.box_under_visit import BoxUnderVisit
from sandboa.services.rounds.collisions import collisions
from sandboa.services.rounds.visit import BoxVisit, visit_words
from sandboa.services.rounds.visit_checks import check_visit
from sandboa.services.rounds.write_visit import write_visit

#: Visits written in one transaction (assumption: a fifth of a second's work).
TOGETHER: Final = 50

#: Held by whoever delivers while some are written. SQLite has no queue for its one writer: on a
#: slow computer a phone could miss every gap between the transactions of another for 10 s.
_WRITING: Final = Lock()


@dataclass(frozen=True, slots=True)
class Closed:
    """`known` when it had been delivered before; `conflicts` are sentences."""

    act: Act
    known: bool
    conflicts: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Refused:
    """A visit that was not stored: why, and at which field."""

    reason: str
    field: str | None


def deliver(visits: Sequence[BoxVisit], now_s: float) -> list[Closed | Refused]:
    """Record visits in their order, each once for its key; one refused does not stop the next.

    They are written some at a time, so that a phone that was offline for a
    season does not keep others waiting; whatever was written stays when the
    rest could not be, and delivering all of them again adds only the rest.
    """
    told: list[Closed | Refused] = []
    for start in range(0, len(visits), TOGETHER):
        with _WRITING, transaction():
            told += [_delivered(visit, now_s) for visit in visits[start : start + TOGETHER]]
    return told


def _delivered(visit: BoxVisit, now_s: float) -> Closed | Refused:
    try:
        return close_visit(visit, now_s)
    except NotPlausible as error:
        return Refused(str(error), error.field)
    except (NotFound, Conflict) as error:
        return Refused(str(error), None)


def close_visit(visit: BoxVisit, now_s: float) -> Closed:
    """Record a visit, once for its key.

    Raises NotFound for an unknown box, clutch, egg or shelf; NotPlausible, with the
    field, for a time before lay or ahead, a sign or grade that is none, an egg
    that is a slug or was removed, or a weighing that cannot be. Nothing is
    stored then.
    """
    if not 8 <= len(visit.key) <= 64:
        raise NotPlausible("key", "a visit's key has 8 to 64 characters")
    # The key is looked for in the transaction that writes: two deliveries at once are one visit.
    with transaction():
        known = visit_with(visit.key)
        if known is not None:
            return Closed(act_of(known), known=True, conflicts=_told(known.conflict))
        at = BoxUnderVisit.of(visit, now_s)
        check_visit(at)
        conflicts = tuple(collisions(at))
        with act(
            ActKind.VISIT,
            "; ".join(
                [*visit_words(visit), *(["collided with another device"] if conflicts else [])]
            ),
            now_s,
            at.clutches[0].entity_id if len(at.clutches) == 1 else None,
        ) as visiting:
            write_visit(visiting, at, conflicts)
    return Closed(visiting, known=False, conflicts=conflicts)


def _told(conflict: str) -> tuple[str, ...]:
    return tuple(conflict.split("\n")) if conflict else ()
