"""Where eggs lay from lay on: from box to box, and with their boxes from shelf to shelf."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from sandboa.core.development.earlier_life import EarlierLife
from sandboa.records.clutches import Box, Clutch, Egg
from sandboa.services.boxes.origins import began
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True, slots=True)
class EggPath:
    """`boxes` are (from s, box) in order of time; the first from `start_s` on, the lay time.

    Eggs of a clutch with equal paths have had the same heat. `earlier` is what is known of them
    before they were measured here.
    """

    start_s: float
    boxes: tuple[tuple[float, int], ...]
    earlier: EarlierLife = field(default_factory=EarlierLife)

    @property
    def last(self) -> int:
        """The box at its end."""
        return self.boxes[-1][1]


@dataclass(frozen=True, slots=True)
class Stay:
    """A stretch (s) of a path in one box on one shelf."""

    start_s: float
    end_s: float
    box: int
    shelf: int


def path_of_egg(snapshot: Snapshot, clutch: Clutch, egg: Egg, as_of_s: float) -> EggPath:
    """An egg's way until `as_of_s`."""
    start_s, earlier = began(snapshot, clutch)
    boxes: list[tuple[float, int]] = []
    for stay in snapshot.egg(egg.entity_id).stays:
        if boxes and stay.from_s > as_of_s:
            break
        if boxes and boxes[-1][1] == stay.box_id:
            # Put elsewhere in the same box.
            continue
        from_s = max(float(stay.from_s), start_s) if boxes else start_s
        if boxes and boxes[-1][0] >= from_s:
            boxes.pop()
        boxes.append((from_s, stay.box_id))
    return EggPath(start_s, tuple(boxes), earlier)


def path_of_box(box: Box) -> EggPath:
    """The way of what has lain in a box since it was set up."""
    return EggPath(float(box.from_s), ((float(box.from_s), box.entity_id),))


def groups_by_path(
    snapshot: Snapshot, clutch: Clutch, eggs: Sequence[Egg], as_of_s: float
) -> dict[EggPath, list[Egg]]:
    """Eggs by the way they went, the way of most of them first."""
    groups: dict[EggPath, list[Egg]] = {}
    for egg in eggs:
        groups.setdefault(path_of_egg(snapshot, clutch, egg, as_of_s), []).append(egg)
    return dict(sorted(groups.items(), key=lambda item: -len(item[1])))


def stays(snapshot: Snapshot, path: EggPath, as_of_s: float) -> list[Stay]:
    """The path cut where a box, or its shelf, changes; on lay day itself one without length."""
    until_s = max(as_of_s, path.start_s)
    told = list(_pieces(snapshot, path, until_s))
    if told:
        return told
    last = snapshot.boxes[path.last]
    return [Stay(path.start_s, until_s, path.last, snapshot.shelf_at(last, until_s).entity_id)]


def _pieces(snapshot: Snapshot, path: EggPath, until_s: float) -> Iterator[Stay]:
    ends = [*(from_s for from_s, _ in path.boxes[1:]), until_s]
    for (start_s, box), end_s in zip(path.boxes, ends, strict=True):
        for left, right, place in snapshot.box(box).locations.pieces(start_s, min(end_s, until_s)):
            shelf = place if place is not None else snapshot.boxes[box].shelf_id
            yield Stay(left, right, box, shelf)
