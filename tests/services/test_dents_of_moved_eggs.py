"""Dents and water are the box's, and those of moved eggs are the box's they came from."""

from boxes import ALONE, now, put, visit
from samples import DAY_S, NOW_S
from sandboa.core.dimples import Scope
from sandboa.services.boxes.commands import grade_egg, water_box
from sandboa.services.overview.today import today
from sandboa.services.rounds.round_now import round_now
from sandboa.services.rounds.visit import EggSeen
from sandboa.services.snapshot.cache import SnapshotCache


def test_a_dry_box_is_the_box_and_not_the_clutch(six: SnapshotCache) -> None:
    visit("split", days_ago=12, moved=(put(1, 2, 3, new=ALONE),))
    for number in (1, 2, 3):
        grade_egg("26-01", number, 2, NOW_S, NOW_S)
    told = {box.box.name: box.judged.box for box in now(six).boxes}
    assert (told["26-01 B"].scope, told["26-01"].scope) == (Scope.BOX, Scope.NONE)
    assert told["26-01 B"].early_eggs == ("1", "2", "3")
    boxes = {b.box.box.name: b for b in today(six.current(), NOW_S).boxes}
    assert "3 of 3 eggs dented early" in str(boxes["26-01 B"].attention[0].text)
    assert not any("dented" in str(a.text) for a in boxes["26-01"].attention)


def attention(house: SnapshotCache, name: str, at_s: float = NOW_S) -> list[str]:
    boxes = {b.box.box.name: b for b in today(house.current(), at_s).boxes}
    return [str(said.text) for said in boxes[name].attention]


def due(house: SnapshotCache, name: str, at_s: float = NOW_S) -> list[str]:
    boxes = {b.box.box.box.name: b for b in round_now(house.current(), at_s).boxes}
    return [str(said.text) for said in boxes[name].box.due]


def test_eggs_that_were_dented_elsewhere_are_given_time_in_their_new_box(
    six: SnapshotCache,
) -> None:
    """The box they came from dried them; the one they lie in now has not shown itself yet."""
    dented = tuple(EggSeen(number, grade=2) for number in (1, 2, 3))
    visit("moved", days_ago=2, eggs=dented, moved=(put(1, 2, 3, new=ALONE),))
    assert any("3 of 3 eggs came here dented" in said for said in attention(six, "26-01 B"))
    assert not any("dented" in said for said in due(six, "26-01 B"))
    # After three days they are looked at, and then the box answers for what is seen.
    later_s = NOW_S + 1.1 * DAY_S
    assert any("Put here dented 3 days ago" in said for said in due(six, "26-01 B", later_s))
    grade_egg("26-01", 1, 2, later_s, later_s)
    assert any("dented early: the box is dry" in said for said in due(six, "26-01 B", later_s))


def test_one_egg_dented_elsewhere_is_not_called_dented_without_a_dry_box(
    six: SnapshotCache,
) -> None:
    visit("split", days_ago=12, moved=(put(2, 3, 4, 5, new=ALONE),))
    came = (EggSeen(1, grade=2),)
    visit("came", days_ago=1, eggs=came, moved=(put(1, to="26-01 B"),))
    assert not any("not by a dry box" in said for said in attention(six, "26-01 B"))


def test_an_egg_that_came_dented_excuses_none_that_lay_there(six: SnapshotCache) -> None:
    visit("split", days_ago=12, moved=(put(1, 2, 3, new=ALONE),))
    came = (EggSeen(4, grade=2),)
    visit("came", days_ago=0.5, eggs=came, moved=(put(4, to="26-01 B"),))
    for number in (1, 2, 3):
        grade_egg("26-01", number, 2, NOW_S, NOW_S)
    assert any("4 of 4 eggs dented early" in said for said in attention(six, "26-01 B"))


def test_water_poured_into_another_box_proves_nothing_of_an_egg(six: SnapshotCache) -> None:
    visit("split", days_ago=9, moved=(put(1, 2, 3, new=ALONE),))
    for number in (1, 2, 3):
        grade_egg("26-01", number, 2, NOW_S - 6 * DAY_S, NOW_S)
    water_box("26-01", 50.0, NOW_S - 5 * DAY_S, NOW_S)
    for number in (1, 2, 3):
        grade_egg("26-01", number, 0, NOW_S - 2 * DAY_S, NOW_S)
    assert all(box.judged.answered_water == () for box in now(six).boxes)
    water_box("26-01 B", 50.0, NOW_S - 5.5 * DAY_S, NOW_S)
    assert now(six).boxes[1].judged.answered_water == ("1", "2", "3")
