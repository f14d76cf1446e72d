"""A simulated visit as its keeper records it: exceptions only, and the box."""

from dataclasses import replace
from typing import Final

from sandboa.core.candling import Vessels
from sandboa.core.rounds import EggActKind
from sandboa.core.standing import SignKind
from sandboa.devices.simulation.fates import Glance
from sandboa.devices.simulation.season_stories import VisitStory
from sandboa.services.rounds.visit import BoxVisit, EggSeen


def visit_of(
    visit: VisitStory, key: str, code: str, at_s: float, before: dict[int, Glance]
) -> BoxVisit:
    """As a phone closes it at `at_s` (s): of the eggs what differs from the visit `before`.

    `before` is what was seen then, by egg; the rest is told to be as it was.
    """
    happened: dict[int, list[EggActKind]] = {}
    for number, what in visit.happened:
        happened.setdefault(number, []).append(EggActKind(what))
    other = {
        number
        for number, seen in visit.glances.items()
        if seen.vessels or _plainly(seen) != _plainly(before.get(number))
    }
    signs = [("lid", visit.lid), ("medium", visit.medium), ("pests", visit.pests)]
    return BoxVisit(
        key=key,
        box=code,
        opened_s=at_s - 50,
        closed_s=at_s,
        eggs=tuple(
            _seen(number, visit.glances.get(number), before.get(number), happened.get(number, []))
            for number in sorted({*other, *happened})
        ),
        signs=tuple((kind, value) for kind, value in signs if value is not None),
        mass_g=round(visit.mass_g) if visit.mass_g is not None else None,
        water_g=visit.water_g,
    )


#: What a fresh egg is taken for that nobody wrote anything of.
_NOTHING: Final = ("none", "none", "dry")


def _plainly(seen: Glance | None) -> tuple[int, str, str, str]:
    return (seen.grade, seen.mould, seen.smell, seen.wet) if seen else (0, *_NOTHING)


def _seen(
    number: int, glance: Glance | None, before: Glance | None, acts: list[EggActKind]
) -> EggSeen:
    bare = EggSeen(number, acts=tuple(acts))
    if glance is None:
        return bare
    # Exceptions only: nobody writes down that an egg still has no mould.
    kinds = (SignKind.MOULD, SignKind.SMELL, SignKind.WET)
    grade, *now = _plainly(glance)
    grade_before, *was = _plainly(before)
    signs = [
        (kind, value)
        for kind, value, old in zip(kinds, now, was, strict=True)
        if value != old or value not in _NOTHING
    ]
    if glance.movement:
        signs.append((SignKind.MOVEMENT, "seen"))
    return replace(
        bare,
        grade=None if grade == grade_before else grade,
        vessels=Vessels(glance.vessels) if glance.vessels else None,
        signs=tuple(signs),
    )
