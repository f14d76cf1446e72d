"""What a judgement of a clutch rests on: as long as all of it is the same, so is the judgement."""

from collections.abc import Hashable, Iterator, Mapping

from sandboa.services.boxes.origins import stages_known
from sandboa.services.boxes.water import weighed_boxes
from sandboa.services.moment.lessons import Lessons
from sandboa.services.moment.shared_boxes import Group, groups
from sandboa.services.snapshot.kept import Same
from sandboa.services.snapshot.series import Tip
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


def of_each_group(snapshot: Snapshot) -> dict[Group, Hashable]:
    """What the judgements of clutches that share boxes rest on beside: what is recorded of them,
    and the readings of every probe that may speak for them, as of now."""
    tips = snapshot.readings.tips()
    return {
        group: (Same(*_recorded(snapshot, group)), _readings(snapshot, group, tips))
        for group in groups(snapshot).of_clutch.values()
    }


def _readings(snapshot: Snapshot, group: Group, tips: Mapping[int, Tip]) -> Hashable:
    places = _places(snapshot, group)
    return tuple(
        (probe, tips[probe].revision if probe in tips else None)
        for probe, history in snapshot.histories.probes.items()
        if not places.isdisjoint(history.locations.place)
    )


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


def _places(snapshot: Snapshot, group: Group) -> set[int]:
    """Boxes, shelves and cabinets whose air may be that of the group's eggs."""
    places = set(group.boxes)
    for box in group.boxes:
        if box in snapshot.boxes:
            locations = snapshot.box(box).locations.place
            shelves = {snapshot.boxes[box].shelf_id, *(shelf for shelf in locations if shelf)}
            places.update(snapshot.shelves[shelf].cabinet_id for shelf in shelves)
    # A cabinet's humidity may be measured on any of its shelves.
    places.update(one.entity_id for one in snapshot.shelves.values() if one.cabinet_id in places)
    return places
