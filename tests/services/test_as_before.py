"""The rest as before: it repeats what was seen before it, whenever that was entered."""

from boxes import ALONE, now, put, visit
from samples import DAY_S, NOW_S
from sandboa.core.rounds import EggActKind
from sandboa.records.clutches import Turgor
from sandboa.services.acts.recording import undo
from sandboa.services.boxes.commands import grade_egg
from sandboa.services.hatching.egg_events import see_pip
from sandboa.services.rounds.visit import EggSeen
from sandboa.services.snapshot.cache import SnapshotCache


def looks(house: SnapshotCache, number: int, code: str = "26-01") -> list[tuple[float, int, bool]]:
    """(days ago, grade, said) of every look at an egg."""
    snapshot = house.current()
    egg = next(e for e in snapshot.eggs[snapshot.clutch_called(code).entity_id]
               if e.number == number)  # fmt: skip
    return [
        ((NOW_S - look.seen_s) / DAY_S, look.grade, look.said)
        for look in snapshot.egg(egg.entity_id).turgor
    ]


def test_what_is_entered_later_for_a_day_before_is_what_it_repeats(six: SnapshotCache) -> None:
    visit("two", days_ago=2.0)
    assert looks(six, 1) == [(2.0, 0, False)]
    grade_egg("26-01", 1, 1, NOW_S - 5 * DAY_S, NOW_S)
    assert looks(six, 1) == [(5.0, 1, True), (2.0, 1, False)]
    assert now(six).eggs[0].grade == 1
    assert Turgor.current(grade=0) == []


def test_an_egg_seen_in_the_visit_is_not_as_before(six: SnapshotCache) -> None:
    visit("four", days_ago=4.0, eggs=(EggSeen(1, grade=2),))
    visit("one", days_ago=1.0)
    assert looks(six, 1) == [(4.0, 2, True), (1.0, 2, False)]
    assert looks(six, 2) == [(4.0, 0, False), (1.0, 0, False)]


def test_a_slug_one_taken_out_and_one_that_pipped_are_not_looked_at(six: SnapshotCache) -> None:
    visit("four", days_ago=4.0, eggs=(EggSeen(2, acts=(EggActKind.REMOVED,)),))
    see_pip("26-01", 3, NOW_S - 3 * DAY_S, NOW_S)
    visit("one", days_ago=1.0)
    assert [looks(six, number) for number in (2, 6)] == [[], []]
    assert looks(six, 3) == [(4.0, 0, False)]
    assert looks(six, 4) == [(4.0, 0, False), (1.0, 0, False)]


def test_an_egg_is_looked_at_in_the_box_it_lies_in(six: SnapshotCache) -> None:
    visit("six", days_ago=6.0, moved=(put(4, new=ALONE),))
    visit("three", days_ago=3.0)
    visit("alone", box=ALONE.name or "", days_ago=1.0)
    assert looks(six, 4) == [(6.0, 0, False), (1.0, 0, False)]
    assert looks(six, 5) == [(6.0, 0, False), (3.0, 0, False)]


def test_a_visit_taken_back_was_no_look(six: SnapshotCache) -> None:
    undoing = undo(visit("one", days_ago=1.0).act.id, NOW_S)
    assert looks(six, 1) == []
    undo(undoing.id, NOW_S)
    assert looks(six, 1) == [(1.0, 0, False)]


def test_nobody_looked_where_the_rest_was_left_open(six: SnapshotCache) -> None:
    visit("one", days_ago=1.0, rest_as_before=False)
    assert looks(six, 1) == []
