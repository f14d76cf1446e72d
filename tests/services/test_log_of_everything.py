"""Everything has its log: what was recorded of it, when that was, and what rests on it."""

import pytest

from boxes import ALONE, lying, put, visit
from samples import DAY_S, NOW_S, lay_day
from sandboa.core.candling import Vessels
from sandboa.services.acts.dependents import dependents
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.log import house_log, log_about
from sandboa.services.acts.recording import undo
from sandboa.services.animals.commands import weigh
from sandboa.services.boxes.commands import candle_egg, grade_egg, water_box
from sandboa.services.cabinets.commands import change_set_point
from sandboa.services.corrections.commands import correct_record
from sandboa.services.hatching.egg_events import see_emergence, see_pip
from sandboa.services.lay_day import lay_clutch
from sandboa.services.rounds.visit import EggSeen, FreshMedium
from sandboa.services.snapshot.cache import SnapshotCache


def kinds(subject: int, **more: int) -> list[str]:
    return [entry.act.kind for entry in log_about(subject, **more)]


def test_a_dam_a_cabinet_a_box_and_an_egg_have_their_logs(six: SnapshotCache) -> None:
    facts = six.current()
    clutch = facts.clutch_called("26-01")
    first, second = facts.eggs[clutch.entity_id][:2]
    box, cabinet = facts.box_called("26-01"), next(iter(facts.cabinets))
    weigh(clutch.dam_id, 1500.0, NOW_S, NOW_S)
    grade_egg("26-01", 1, 1, NOW_S, NOW_S)
    water_box("26-01", 30.0, NOW_S, NOW_S)
    change_set_point("North", 31.0, NOW_S, NOW_S)
    assert kinds(clutch.dam_id) == ["weigh", "lay"]
    assert kinds(first.entity_id) == ["grade", "lay"]
    assert kinds(second.entity_id) == ["lay"]
    assert kinds(box.entity_id) == ["water", "grade", "lay"]
    assert kinds(cabinet)[0] == "set point"
    assert kinds(clutch.entity_id) == ["water", "grade", "lay"]


def test_a_long_log_goes_on_where_it_ended(six: SnapshotCache) -> None:
    for grams in range(1, 8):
        water_box("26-01", float(grams), NOW_S, NOW_S)
    box = six.current().box_called("26-01").entity_id
    first = log_about(box, limit=4)
    rest = log_about(box, limit=4, before=first[-1].act.id)
    assert [e.act.id for e in (*first, *rest)] == sorted(
        (e.act.id for e in log_about(box)), reverse=True
    )
    whole = house_log(limit=3)
    assert [e.act.id for e in house_log(limit=2, before=whole[0].act.id)] == [
        e.act.id for e in whole[1:]
    ]


def test_what_has_no_log_says_so(six: SnapshotCache) -> None:
    for nothing in (999_999, 2**53):
        with pytest.raises(NotFound):
            log_about(nothing)


def test_a_line_keeps_when_it_happened_and_when_it_was_entered(six: SnapshotCache) -> None:
    late = grade_egg("26-01", 1, 1, NOW_S - 3 * DAY_S, NOW_S)
    assert (late.at_s, late.recorded_s) == (NOW_S - 3 * DAY_S, NOW_S)
    assert visit("one", days_ago=2.0, water_g=20.0).act.at_s == NOW_S - 2 * DAY_S
    assert weigh(six.current().clutches[0].dam_id, 1500.0, NOW_S, NOW_S).at_s == NOW_S
    assert undo(late.id, NOW_S).at_s is None


def test_later_weighings_rest_on_water(six: SnapshotCache) -> None:
    poured = water_box("26-01", 30.0, NOW_S - 6 * DAY_S, NOW_S)
    assert dependents(poured.id) == ()
    visit("five", days_ago=5.0, mass_g=1390.0)
    assert dependents(poured.id) == ("1 later weighing rests on it (box 26-01)",)
    visit("four", days_ago=4.0, mass_g=1385.0)
    assert dependents(poured.id) == ("2 later weighings rest on it (box 26-01)",)
    visit("three", days_ago=3.0, fresh=FreshMedium("perlite", 200.0, 1300.0))
    visit("two", days_ago=2.0, mass_g=1290.0)
    assert dependents(poured.id) == ("2 later weighings rest on it (box 26-01)",)


def test_what_rests_on_an_act_rests_on_it_once_its_correction_was_undone(
    six: SnapshotCache,
) -> None:
    poured = water_box("26-01", 30.0, NOW_S - 6 * DAY_S, NOW_S)
    visit("five", days_ago=5.0, mass_g=1390.0)
    corrected = correct_record(poured.id, {"water_g": 40.0}, NOW_S)
    assert dependents(poured.id) == ()
    undo(corrected.id, NOW_S)
    assert dependents(poured.id) == ("1 later weighing rests on it (box 26-01)",)


def test_later_visits_repeat_what_was_seen(six: SnapshotCache) -> None:
    seen = visit("five", days_ago=5.0, eggs=(EggSeen(1, grade=1),)).act
    visit("four", days_ago=4.0)
    visit("three", days_ago=3.0, rest_as_before=False)
    visit("two", days_ago=2.0)
    assert dependents(seen.id) == ('2 later visits say "as before" of what was seen (box 26-01)',)


def test_looks_rest_on_where_a_move_put_the_eggs(six: SnapshotCache) -> None:
    moving = visit("six", days_ago=6.0, moved=(put(4, 5, new=ALONE),)).act
    assert dependents(moving.id) == ()
    grade_egg("26-01", 4, 2, NOW_S - DAY_S, NOW_S)
    assert dependents(moving.id) == ("1 egg it moved was looked at since, where it put them",)
    assert lying(six, ALONE.name or "") == [4, 5]


def test_everything_of_a_box_rests_on_its_lay_day(house: SnapshotCache) -> None:
    _, laying = lay_clutch(lay_day(), NOW_S)
    assert dependents(laying.id) == ()
    visit("one", days_ago=1.0)
    visit("two", days_ago=2.0)
    assert dependents(laying.id) == ("2 visits are recorded of box 26-01",)


def test_a_pip_carries_what_came_out(six: SnapshotCache) -> None:
    pip = see_pip("26-01", 2, NOW_S - DAY_S, NOW_S)
    see_emergence("26-01", 2, NOW_S, NOW_S)
    assert dependents(pip.id) == ("egg 2 is recorded as out",)


def test_nothing_rests_on_a_look_by_torch_or_on_no_act(six: SnapshotCache) -> None:
    look = candle_egg("26-01", 1, Vessels.STRONG, None, NOW_S, NOW_S)
    assert dependents(look.id) == ()
    with pytest.raises(NotFound):
        dependents(999)
