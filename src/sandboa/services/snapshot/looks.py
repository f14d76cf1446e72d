"""When eggs were looked at, and how dented they were: as seen, or told "the rest as before"."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.rounds import EggActKind
from sandboa.records.clutches import Egg, EggEvent, EggStay, Turgor
from sandboa.records.hatching import Pip
from sandboa.records.rounds import Visit

#: The grade of an egg that nobody had looked at when its box was found "as before": firm.
_NEVER_SEEN: Final = 0


@dataclass(frozen=True, slots=True)
class Look:
    """An egg seen at `seen_s` with turgor `grade` 0-4; `said` false where it was "as before"."""

    seen_s: float
    grade: int
    said: bool = True


def looks_at(
    egg: Egg,
    laid_s: float,
    seen: Sequence[Turgor],
    told: Iterable[float],
) -> list[Look]:
    """The looks at an egg in order of time.

    `seen` are the grades recorded, in order of time; `told` the moments (s) at which its box was
    found "as before" while it lay there. A grade recorded at such a moment is what holds. What
    is told repeats the grade before it, whichever of the two was entered first.
    """
    graded = {look.seen_s for look in seen}
    moments: list[tuple[float, int, int | None]]
    moments = [(float(look.seen_s), look.id, look.grade) for look in seen]
    moments += [(at_s, 0, None) for at_s in set(told) - graded if at_s >= laid_s and not egg.slug]
    found: list[Look] = []
    for at_s, _, grade in sorted(moments, key=lambda moment: moment[:2]):
        before = found[-1].grade if found else _NEVER_SEEN
        found.append(Look(at_s, before if grade is None else grade, said=grade is not None))
    return found


def told_as_before(
    stays: Sequence[EggStay],
    events: Iterable[EggEvent],
    pip: Pip | None,
    visits: Mapping[int, Sequence[Visit]],
) -> Iterator[float]:
    """Moments (s) at which the boxes an egg lay in were found "as before" while it was closed.

    `stays` are in order of time, `visits` by box. An egg that a visit puts elsewhere was
    looked at where it came from; one that is taken out, or has pipped, is as before no more.
    """
    ends = [float(event.at_s) for event in events if event.kind == EggActKind.REMOVED]
    closed_until_s = min([*ends, float(pip.seen_s)] if pip else ends, default=float("inf"))
    for number, stay in enumerate(stays):
        from_s = stay.from_s if number else float("-inf")
        until_s = stays[number + 1].from_s if number + 1 < len(stays) else float("inf")
        for visit in visits.get(stay.box_id, ()):
            lay_there = from_s < visit.closed_s <= until_s
            if visit.rest_as_before and lay_there and visit.closed_s < closed_until_s:
                yield float(visit.closed_s)
