"""What is recorded of closed clutches: as long as it is the same, they taught the same."""

from collections.abc import Iterator

from sandboa.services.snapshot.kept import Same
from sandboa.services.snapshot.snapshot import Snapshot


def record_of_closed(snapshot: Snapshot) -> Same:
    """Every row and history of the closed clutches, of their eggs and of boxes these lay in."""
    return snapshot.own.held("closed clutches", None, lambda: Same(*_rows(snapshot)))


def _rows(snapshot: Snapshot) -> Iterator[object]:
    eggs_of, boxes_of = snapshot.histories.eggs, snapshot.histories.boxes
    boxes: set[int] = set()
    for clutch, _ in snapshot.closed:
        eggs = snapshot.eggs.get(clutch.entity_id)
        yield from (clutch, snapshot.histories.clutches.get(clutch.entity_id), eggs)
        for egg in eggs or ():
            history = eggs_of.get(egg.entity_id)
            yield history
            if history is not None:
                boxes.update(stay.box_id for stay in history.stays)
    for box in sorted(boxes):
        yield boxes_of.get(box)
