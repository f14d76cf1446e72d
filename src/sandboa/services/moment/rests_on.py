"""What a judgement of a clutch rests on: as long as all of it is the same, so is the judgement."""

from collections.abc import Hashable, Iterator

from sandboa.services.boxes.origins import stages_known
from sandboa.services.boxes.water import weighed_boxes
from sandboa.services.moment.lessons import Lessons
from sandboa.services.moment.shared_boxes import Group, groups
from sandboa.services.snapshot.kept import Same
from sandboa.services.snapshot.snapshot import Snapshot
from sandboa.services.standings.learned import learned_standing


def of_every_clutch(snapshot: Snapshot, known: Lessons, at_s: float) -> Hashable:
    """What the judgements of all clutches rest on: the moment, the numbers of the house, its
    cabinets and probes, and what it learned."""
    histories = snapshot.histories
    return (
        at_s,
        snapshot.kept_from_s(at_s),
        Same(
            known,
            learned_standing(snapshot),
            snapshot.settings,
            snapshot.shelves,
            snapshot.cabinets,
            histories.cabinets,
            snapshot.probes,
            snapshot.probes_at,
            histories.probes,
        ),
        tuple(weighed_boxes(snapshot, at_s)),
        tuple(sorted(stages_known(snapshot).items())),
    )


def of_each_group(snapshot: Snapshot) -> dict[Group, Same]:
    """What is recorded of clutches that share boxes: what their judgements rest on beside that,
    and beside readings."""
    return {
        group: Same(*_recorded(snapshot, group))
        for group in set(groups(snapshot).of_clutch.values())
    }


def _recorded(snapshot: Snapshot, group: Group) -> Iterator[object]:
    histories = snapshot.histories
    for own in group.clutches:
        clutch, eggs = snapshot.clutch_by_id[own], snapshot.eggs.get(own)
        yield from (clutch, eggs, histories.clutches.get(own), snapshot.tasks.get(own))
        yield snapshot.animals.get(clutch.dam_id)
        yield snapshot.animals.get(clutch.sire_id) if clutch.sire_id else None
        for egg in eggs or ():
            yield histories.eggs.get(egg.entity_id)
    for box in group.boxes:
        yield snapshot.boxes.get(box)
        yield histories.boxes.get(box)
