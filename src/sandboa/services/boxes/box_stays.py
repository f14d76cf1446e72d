"""Where eggs lay, cut also where the closing of their box was changed."""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise

from sandboa.core.box import BoxKind
from sandboa.services.boxes.egg_paths import EggPath, Stay, stays
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True, slots=True)
class BoxStay:
    """A stretch (s) in one box on one shelf, closed in one way; names, as they are now.

    `medium` and `closing` are None where nobody said. `hatching`: in a box for hatching, where
    nothing develops any more.
    """

    start_s: float
    end_s: float
    box: str
    medium: str | None
    closing: str | None
    cabinet: str
    shelf: str
    hatching: bool


def box_stays(snapshot: Snapshot, path: EggPath, until_s: float) -> tuple[BoxStay, ...]:
    """The way of an egg until `until_s`, at least one stretch, in order of time."""
    told = []
    for stay in stays(snapshot, path, max(until_s, path.start_s + 1.0)):
        box, shelf = snapshot.boxes[stay.box], snapshot.shelves[stay.shelf]
        told += [
            BoxStay(
                start_s,
                end_s,
                box.name,
                box.medium or None,
                closing or None,
                snapshot.cabinets[shelf.cabinet_id].name,
                shelf.name,
                box.kind == BoxKind.HATCHING,
            )
            for start_s, end_s, closing in _closings(snapshot, stay)
        ]
    return tuple(told)


def _closings(snapshot: Snapshot, stay: Stay) -> Iterator[tuple[float, float, str | None]]:
    """From, until and closing of each stretch of a stay."""
    changes = snapshot.box(stay.box).closings
    cuts = [stay.start_s, *(c.from_s for c in changes if stay.start_s < c.from_s < stay.end_s)]
    for start_s, end_s in pairwise([*cuts, stay.end_s]):
        before = [c.closing for c in changes if c.from_s <= start_s]
        yield start_s, end_s, before[-1] if before else snapshot.boxes[stay.box].closing
