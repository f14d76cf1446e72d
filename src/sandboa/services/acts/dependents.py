"""What was recorded later and rests on an act: told before it is undone or corrected.

None of it forbids that (see undo_constraints for what does); a keeper should know which
other judgements move with it.
"""

from collections.abc import Callable, Iterable, Iterator

from sandboa.records.clutches import Box, Egg, EggStay, Turgor, Watering, stay_of_egg
from sandboa.records.facts import Act, FactT, act_numbered
from sandboa.records.hatching import Emergence, Hatchling, Pip
from sandboa.records.rounds import ClosingChange, MassChange, SetUp, Visit, Weighing
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.standing import standing_of


def dependents(act_id: int) -> tuple[str, ...]:
    """Sentences on what rests on an act as things stand, none where nothing does.

    Raises NotFound for an unknown act.
    """
    act = act_numbered(act_id)
    if act is None:
        raise NotFound(f"there is no act {act_id}")
    return tuple(told for ask in _ASKED for told in ask(act))


def _weighings(act: Act) -> Iterator[str]:
    """Masses on the scale that are read by what the act put into a box, took out or set up."""
    since: dict[int, int] = {}
    for table, column in (
        (Watering, "poured_s"), (MassChange, "at_s"), (SetUp, "at_s"), (EggStay, "from_s"),
        (ClosingChange, "from_s"),
    ):  # fmt: skip
        for row in _standing(table, act):
            told = row.values()
            _earliest(since, told["box_id"], told[column])
    for box, at_s in since.items():
        fresh = [row.at_s for row in SetUp.current(box_id=box) if row.at_s > at_s]
        until_s = min(fresh, default=None)
        later = [
            row
            for row in Weighing.current(box_id=box)
            if row.act_id != act.id and at_s < row.at_s and (until_s is None or row.at_s < until_s)
        ]
        if later:
            what = "weighing rests" if len(later) == 1 else "weighings rest"
            yield f"{len(later)} later {what} on it (box {_name(box)})"


def _repeats(act: Act) -> Iterator[str]:
    """Visits that told "as before" of what the act saw."""
    looks: dict[int, int] = {}
    for look in _standing(Turgor, act):
        stay = stay_of_egg(look.egg_id, look.seen_s)
        if stay is not None:
            _earliest(looks, stay.box_id, look.seen_s)
    for box, at_s in looks.items():
        later = [
            visit
            for visit in Visit.current(box_id=box)
            if visit.rest_as_before and visit.closed_s > at_s
        ]
        if later:
            what = 'visit says "as before"' if len(later) == 1 else 'visits say "as before"'
            yield f"{len(later)} later {what} of what was seen (box {_name(box)})"


def _moved_on(act: Act) -> Iterator[str]:
    """Looks at eggs since the act put them where they are."""
    moved = [stay for stay in _standing(EggStay, act) if _was_elsewhere(stay)]
    looked = {
        stay.egg_id
        for stay in moved
        for look in Turgor.current(egg_id=stay.egg_id)
        if look.seen_s > stay.from_s
    }
    if looked:
        what = "egg it moved was" if len(looked) == 1 else "eggs it moved were"
        yield f"{len(looked)} {what} looked at since, where it put them"


def _laid(act: Act) -> Iterator[str]:
    """Everything recorded in the boxes that the act set up."""
    for box in _standing(Box, act):
        visits = [v for v in Visit.current(box_id=box.entity_id) if v.act_id != act.id]
        if visits:
            what = "visit is" if len(visits) == 1 else "visits are"
            yield f"{len(visits)} {what} recorded of box {box.name}"


def _hatched(act: Act) -> Iterator[str]:
    """What came out of eggs whose pip the act saw."""
    for table, told in ((Emergence, "is recorded as out"), (Hatchling, "has its hatchling")):
        eggs = [
            Egg.now(pip.egg_id) for pip in _standing(Pip, act) if table.current(egg_id=pip.egg_id)
        ]
        yield from (f"egg {egg.number} {told}" for egg in eggs if egg is not None)


_ASKED: tuple[Callable[[Act], Iterable[str]], ...] = (
    _weighings, _repeats, _moved_on, _laid, _hatched,
)  # fmt: skip


def _standing(table: type[FactT], act: Act) -> list[FactT]:
    return [row for _, row in standing_of(table, [act.id])]


def _earliest(found: dict[int, int], box: int, at_s: int) -> None:
    found[box] = min(found.get(box, at_s), at_s)


def _was_elsewhere(stay: EggStay) -> bool:
    """Whether the egg had lain somewhere before."""
    return any(other.from_s < stay.from_s for other in EggStay.current(egg_id=stay.egg_id))


def _name(box: int) -> str:
    held = Box.now(box)
    return held.name if held is not None else "that is gone"
