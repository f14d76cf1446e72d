"""Which clutches share boxes: what is worked out of one of them rests on all of them."""

from dataclasses import dataclass

from sandboa.services.snapshot.kept import Same
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True, slots=True)
class Group:
    """Ids of clutches whose eggs ever lay in the same boxes, and of those boxes, both in order."""

    clutches: tuple[int, ...]
    boxes: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Groups:
    """The group of every clutch and of every box that held eggs, by id."""

    of_clutch: dict[int, Group]
    of_box: dict[int, Group]


def groups(snapshot: Snapshot) -> Groups:
    """Who shares boxes with whom; held until an egg is laid or moved."""
    stamp = (Same(snapshot.clutches), Same(snapshot.eggs_of_box))
    return snapshot.kept.held("clutches that share boxes", stamp, lambda: _grouped(snapshot))


def _grouped(snapshot: Snapshot) -> Groups:
    # Each clutch is led by one of its group; a box makes one group of all who lay in it.
    leader = {clutch.entity_id: clutch.entity_id for clutch in snapshot.clutches}

    def lead(clutch: int) -> int:
        while leader[clutch] != clutch:
            leader[clutch] = clutch = leader[leader[clutch]]
        return clutch

    for eggs in snapshot.eggs_of_box.values():
        first, *others = {egg.clutch_id for egg in eggs}
        for other in others:
            leader[lead(other)] = lead(first)
    clutches: dict[int, list[int]] = {}
    boxes: dict[int, list[int]] = {}
    for clutch in leader:
        clutches.setdefault(lead(clutch), []).append(clutch)
    for box, eggs in snapshot.eggs_of_box.items():
        boxes.setdefault(lead(eggs[0].clutch_id), []).append(box)
    found = [
        Group(tuple(sorted(own)), tuple(sorted(boxes.get(led, []))))
        for led, own in clutches.items()
    ]
    return Groups(
        {clutch: group for group in found for clutch in group.clutches},
        {box: group for group in found for box in group.boxes},
    )
