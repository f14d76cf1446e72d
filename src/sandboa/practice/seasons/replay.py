"""A season as it was kept so far: its plan, and everything done, let come true again."""

from collections.abc import Iterable
from dataclasses import dataclass, field

from sandboa.devices.simulation.kept import BoxSeen, Deed, KeptSeason, Plan


@dataclass(frozen=True, slots=True)
class Done:
    """Something that was done on a day."""

    day: int
    deed: Deed


@dataclass
class Replayed:
    """A season at a day, and how each box was seen last, by place."""

    season: KeptSeason
    seen: dict[int, BoxSeen] = field(default_factory=dict)


def replay(plan: Plan, done: Iterable[Done], day: int) -> Replayed:
    """The season on that day, before its night; what was done on it is done."""
    told = Replayed(KeptSeason(plan))
    waiting = sorted(done, key=lambda one: one.day)
    at = 0
    while True:
        touched = set()
        while at < len(waiting) and waiting[at].day == told.season.day:
            deed = waiting[at].deed
            told.season.do(deed)
            if deed.box is not None:
                touched.add(deed.box)
            at += 1
        for box in touched:
            note_seen(told, box)
        if told.season.day >= day or told.season.over:
            return told
        told.season.pass_night()


def note_seen(told: Replayed, box: int) -> None:
    """Keep how a box is seen now, if it stands open."""
    seen = told.season.look(box)
    if seen is not None:
        told.seen[box] = seen
