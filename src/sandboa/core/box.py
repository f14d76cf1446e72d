"""The box: how it is closed, what shells are like, and where the eggs lie in it."""

import math
from collections.abc import Hashable, Iterable, Sequence
from dataclasses import dataclass
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
#: Share of the box from its wall to the middle of the outermost egg (assumption: half an egg).
_EDGE: Final = 0.1
#: Steps in which a clump is moved along one side when room is looked for (assumption).
_SHIFTS: Final = 12


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
    """A mark of an egg's shell, of which it may have several; smooth is none (rule P2)."""

    SMOOTH = "smooth"
    ROUGH = "rough"
    WINDOW = "window"
    NODULE = "nodule"
    THIN = "thin"
    STAINED = "stained"
    DAMP_SPOT = "damp spot"
    MISSHAPEN = "misshapen"


def shell_marks(stored: str) -> tuple[Shell, ...]:
    """The marks of a shell from the words they are stored as, smooth is none; ValueError for a
    word that is no mark."""
    return tuple(mark for word in stored.split(",") if (mark := Shell(word)) is not Shell.SMOOTH)


def stored_marks(marks: Iterable[Shell]) -> str:
    """Those marks as they are stored: each once, in the order of `Shell`; "smooth" for none."""
    held = set(marks) - {Shell.SMOOTH}
    return ",".join(mark for mark in Shell if mark in held) or Shell.SMOOTH.value


def shell_words(marks: Iterable[Shell]) -> str:
    """ "rough, window"; "smooth" for none."""
    return stored_marks(marks).replace(",", ", ")


def is_smooth(marks: Iterable[Shell]) -> bool:
    """Whether a shell has no mark."""
    return set(marks) <= {Shell.SMOOTH}


def loses_water_fast(marks: Iterable[Shell]) -> bool:
    """Rough and windowed shells dimple a grade early (rule B)."""
    return not {Shell.ROUGH, Shell.WINDOW}.isdisjoint(marks)


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


@dataclass(frozen=True)
class LyingEgg:
    """Where an egg lies, shares of the box; eggs of one `clump` (any key) stick together."""

    x: float
    y: float
    clump: Hashable = None


def free_places(
    taken: Sequence[tuple[float, float]], eggs: Sequence[LyingEgg]
) -> list[tuple[float, float]]:
    """Places for eggs put beside those that lie at `taken`: shares of the box, in their order.

    Eggs that stick together lie to each other as they did. All others lie as eggs are usually laid
    where the box is empty; else beside each other, near its middle, where none lies yet.
    """
    clumps = [egg.clump for egg in eggs]
    stuck = {clump for clump in clumps if clump is not None and clumps.count(clump) > 1}
    if not taken and not stuck:
        return usual_places(len(eggs))
    lying = list(taken)
    found: dict[int, tuple[float, float]] = {}
    for clump in sorted(stuck, key=clumps.count, reverse=True):
        own = [number for number, egg in enumerate(eggs) if egg.clump == clump]
        moved = _shifted([(eggs[number].x, eggs[number].y) for number in own], lying)
        found.update(zip(own, moved, strict=True))
        lying.extend(moved)
    for number in range(len(eggs)):
        if number not in found:
            found[number] = _free_place(lying)
            lying.append(found[number])
    return [found[number] for number in range(len(eggs))]


def _free_place(lying: Sequence[tuple[float, float]]) -> tuple[float, float]:
    grid = usual_places(_GRID_EGGS)
    place = max(grid, key=lambda p: (min(_APART, _room(p, lying)), -math.dist(p, (0.5, 0.5))))
    while _room(place, lying) < SAME_PLACE:
        # A box so full that eggs lie on each other: a little beside the ones there.
        place = ((place[0] + 1.5 * SAME_PLACE) % 1.0, place[1])
    return place


def _shifted(
    clump: Sequence[tuple[float, float]], lying: Sequence[tuple[float, float]]
) -> list[tuple[float, float]]:
    """Eggs that stick together, moved as one to where there is most room for all of them."""
    ways = [
        [(x + across, y + along) for x, y in clump]
        for across in _shifts([x for x, _ in clump])
        for along in _shifts([y for _, y in clump])
    ]
    return max(ways, key=lambda way: (_clear(way, lying), -_from_middle(way)))


def _shifts(along: Sequence[float]) -> list[float]:
    """Ways to move a clump along one side of the box so that it stays in: shares of that side."""
    least, most = _EDGE - min(along), 1.0 - _EDGE - max(along)
    if most <= least:
        return [0.0]
    return [least + (most - least) * step / _SHIFTS for step in range(_SHIFTS + 1)]


def _clear(way: Sequence[tuple[float, float]], lying: Sequence[tuple[float, float]]) -> float:
    return min(min(_APART, _room(place, lying)) for place in way)


def _from_middle(way: Sequence[tuple[float, float]]) -> float:
    xs, ys = zip(*way, strict=True)
    return math.dist((math.fsum(xs) / len(xs), math.fsum(ys) / len(ys)), (0.5, 0.5))


def _room(place: tuple[float, float], lying: Sequence[tuple[float, float]]) -> float:
    return min((math.dist(place, other) for other in lying), default=math.inf)


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
