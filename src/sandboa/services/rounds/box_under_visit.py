"""A visit beside what is recorded of its box: what checks, collisions and writing work with."""

from dataclasses import dataclass

from sandboa.core.errors import NotPlausible
from sandboa.records.clutches import Box, Clutch, Egg, EggStay, box_of_egg
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.preconditions import box_called, clutch_called, egg_of
from sandboa.services.boxes.mass_ledger import BoxRows, read_rows
from sandboa.services.rounds.visit import BoxVisit


@dataclass(frozen=True)
class BoxUnderVisit:
    """The visit, its box, the box's rows, the clutches whose eggs lie in it, the eggs it
    names, and those it moves, in its order; `at_s` is door shut."""

    visit: BoxVisit
    now_s: float
    box: Box
    rows: BoxRows
    clutches: tuple[Clutch, ...]
    eggs: tuple[Egg, ...]
    moved: tuple[tuple[Egg, ...], ...]
    at_s: int

    @classmethod
    def of(cls, visit: BoxVisit, now_s: float) -> "BoxUnderVisit":
        """Read what there is.

        Raises NotFound for an unknown box, clutch or egg, NotPlausible for an
        egg that does not lie in the box then.
        """
        box = box_called(visit.box)
        at_s = int(visit.closed_s)
        clutches = clutches_in(box, at_s)
        eggs = tuple(_egg(box, clutches, seen.clutch, seen.number, at_s) for seen in visit.eggs)
        moved = tuple(
            tuple(_egg(box, clutches, code, number, at_s) for code, number in group.eggs)
            for group in visit.moved
        )
        return cls(visit, now_s, box, read_rows(box), clutches, eggs, moved, at_s)


def clutches_in(box: Box, at_s: float) -> tuple[Clutch, ...]:
    """The clutches whose eggs lay in a box at a time, by when they were laid."""
    ids = {
        egg.clutch_id
        for stay in EggStay.current(box_id=box.entity_id)
        if lies_in(stay.egg_id, box, at_s) and (egg := Egg.now(stay.egg_id)) is not None
    }
    clutches = [clutch for own in ids if (clutch := Clutch.now(own)) is not None]
    return tuple(sorted(clutches, key=lambda clutch: (clutch.laid_s, clutch.code)))


def lies_in(egg: int, box: Box, at_s: float) -> bool:
    """Whether an egg lay in the box at a time."""
    return box_of_egg(egg, at_s) == box.entity_id


def _egg(box: Box, clutches: tuple[Clutch, ...], code: str | None, number: int, at_s: float) -> Egg:
    if code is not None:
        clutch = clutch_called(code)
    elif len(clutches) == 1:
        clutch = clutches[0]
    elif clutches:
        raise NotPlausible(
            "eggs", f"eggs of several clutches lie in box {box.name}: whose is egg {number}?"
        )
    else:
        raise NotFound(f"no eggs lie in box {box.name}")
    egg = egg_of(clutch, number)
    if not lies_in(egg.entity_id, box, at_s):
        raise NotPlausible("eggs", f"egg {clutch.code}/{number} did not lie in box {box.name} then")
    return egg
