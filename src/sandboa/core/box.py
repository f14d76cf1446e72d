"""The box: how it is closed, what shells are like, and where the eggs lie in it."""

import math
from collections.abc import Sequence
from enum import StrEnum
from typing import Final

from sandboa.core.errors import NotPlausible

#: Share of the box within which two eggs would be one (assumption).
SAME_PLACE: Final = 0.02
#: Eggs that lie in one box at most (assumption: two large clutches).
MOST_IN_BOX: Final = 30
#: Share of the box from which two eggs do not touch (assumption: about an egg's length).
_APART: Final = 0.19
#: Places that are thought of when one is looked for (assumption).
_GRID_EGGS: Final = 20


class BoxKind(StrEnum):
    """What a box is for."""

    INCUBATION = "incubation"
    #: Damp warm paper, for eggs at full term or pipped.
    HATCHING = "hatching"
    #: The dam's own tub, where she keeps her eggs.
    TUB = "tub"
    #: Eggs of another species: a place and a name, and no forecast.
    OTHER_SPECIES = "other species"


class Closing(StrEnum):
    """How the box is closed (rule D3)."""

    SEALED_FILM = "sealed film"
    PIN_HOLES = "lid with 1-2 pin holes"
    SMALL_HOLES = "lid with 3-8 holes"
    CRACKED_CORNER = "film with a cracked corner"
    LOOSE_LID = "loose lid"


class Shell(StrEnum):
    """Shell quality of an egg (rule P2)."""

    SMOOTH = "smooth"
    ROUGH = "rough"
    WINDOW = "window"
    NODULE = "nodule"
    THIN = "thin"
    STAINED = "stained"
    DAMP_SPOT = "damp spot"
    MISSHAPEN = "misshapen"

    @property
    def loses_water_fast(self) -> bool:
        """Rough and windowed shells dimple a grade early (rule B)."""
        return self in (Shell.ROUGH, Shell.WINDOW)


def usual_places(eggs: int) -> list[tuple[float, float]]:
    """Places for `eggs` eggs in rows, (x, y) as shares of the box, when the keeper gave none.

    Rows of up to four, alternate rows shifted by half an egg as eggs settle.
    """
    columns = min(4, max(1, math.ceil(math.sqrt(eggs * 1.4))))
    rows = math.ceil(eggs / columns)
    places = []
    for index in range(eggs):
        row, column = divmod(index, columns)
        in_row = min(columns, eggs - row * columns)
        shift = 0.08 if row % 2 and in_row == columns else 0.0
        x = 0.5 + (column - (in_row - 1) / 2.0) * (0.8 / columns) + shift * 0.5
        y = 0.5 + (row - (rows - 1) / 2.0) * min(0.30, 0.86 / rows)
        places.append((round(x, 4), round(y, 4)))
    return places


def free_places(taken: Sequence[tuple[float, float]], eggs: int) -> list[tuple[float, float]]:
    """Places for `eggs` more eggs beside those that lie at `taken`: shares of the box.

    In an empty box as eggs are usually laid; else beside each other, near its middle, where none
    lies yet.
    """
    if not taken:
        return usual_places(eggs)
    lying = list(taken)
    grid = usual_places(_GRID_EGGS)
    found: list[tuple[float, float]] = []
    for _ in range(eggs):
        place = max(grid, key=lambda p: (min(_APART, _room(p, lying)), -math.dist(p, (0.5, 0.5))))
        if _room(place, lying) < SAME_PLACE:
            # A box so full that eggs lie on each other: a little beside the one there.
            place = (min(place[0] + 1.5 * SAME_PLACE * len(found), 1.0), place[1])
        lying.append(place)
        found.append(place)
    return found


def _room(place: tuple[float, float], lying: Sequence[tuple[float, float]]) -> float:
    return min(math.dist(place, other) for other in lying)


def require_distinct_places(
    places: Sequence[tuple[float, float]], numbers: Sequence[int] | None = None
) -> None:
    """Raise NotPlausible when two eggs (numbered from 1, or as said) lie at the same place.

    Overlap is fine, eggs clump; two centres on one spot are a slip of the finger.
    """
    for second in range(len(places)):
        for first in range(second):
            if math.dist(places[first], places[second]) < SAME_PLACE:
                one, other = (numbers[at] if numbers else at + 1 for at in (first, second))
                raise NotPlausible(
                    "eggs", f"eggs {one} and {other} lie at the same place: move one"
                )
