"""What is told at a box and on Today is carried through, and rests on what was seen."""

import pytest

from samples import DAY_S, NOW_S, close_clutch, lay_day
from sandboa.core.box import Shell, usual_places
from sandboa.core.candling import Vessels
from sandboa.core.development.bench import BenchClutch, what_if
from sandboa.core.hatching.advice import AdviceKind
from sandboa.core.methods import CuttingSchool, DamSchool, Method
from sandboa.core.rounds import DueKind, EggActKind
from sandboa.records import issued_forecasts
from sandboa.services.boxes.water import weighed_boxes
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.clutches.issued_forecasts import keep_due
from sandboa.services.clutches.methods import add_method, change_clutch_method, method_of_clutch
from sandboa.services.hatching.egg_events import see_pip
from sandboa.services.hatching.overview import hatching_clutch
from sandboa.services.lay_day import EggLaid, lay_clutch
from sandboa.services.moment.lessons import lessons
from sandboa.services.overview.today import today
from sandboa.services.probes.commands import ProbePlace, hang_probe
from sandboa.services.readings.commands import store_readings
from sandboa.services.rounds.close_visit import close_visit
from sandboa.services.rounds.due_now import boxes_of_round
from sandboa.services.rounds.visit import EggSeen
from sandboa.services.snapshot.cache import SnapshotCache
from sandboa.services.snapshot.settings import set_setting
from services.test_rounds import CODE, box, due_kinds, now, on_round, visit

__all__ = ["box"]

HOUR_S = 3600.0


def texts(house: SnapshotCache, at_s: float = NOW_S) -> str:
    (line,) = today(house.current(), at_s).boxes
    due = line.due.due if line.due else ()
    return " ".join([*(str(a.text) for a in line.attention), *(str(d.text) for d in due)])


def test_half_a_top_up_asks_for_the_rest_the_next_day(box: SnapshotCache) -> None:
    day_before = NOW_S - DAY_S
    close_visit(visit("half", 1, mass_g=1050.0, water_g=75.0), day_before)
    assert DueKind.WATER not in due_kinds(box, day_before + 2 * HOUR_S)
    (rest,) = [d for d in on_round(box).box.due if d.kind is DueKind.WATER]
    # And what it lost since then.
    assert "The rest of its water: add 85 ml" in rest.text
    close_visit(visit("rest", water_g=85.0), NOW_S)
    assert DueKind.WATER not in due_kinds(box, NOW_S + 20 * HOUR_S)


def test_what_was_felt_moves_the_water_and_is_not_asked_for_again(box: SnapshotCache) -> None:
    early = tuple(EggSeen(n, grade=2) for n in range(1, 6))
    close_visit(visit("felt", eggs=early, signs=(("medium", "barely damp"),), mass_g=1190.0), NOW_S)
    told = now(box)
    assert told.box.water is not None
    assert told.box.water.left is not None
    assert told.box.water.felt == "barely damp"
    assert "feel the medium" not in texts(box)
    before = told.box.water.left.share
    close_visit(visit("dry", rest_as_before=False, signs=(("medium", "dry"),)), NOW_S + 20 * DAY_S)
    later = clutch_page(box.current(), CODE, NOW_S + 20 * DAY_S).now.box.water
    assert later is not None
    assert later.left is not None
    assert later.left.share < min(before, 0.4)


def test_an_egg_that_was_early_is_not_sound_again_for_having_waited(box: SnapshotCache) -> None:
    close_visit(visit("creased", eggs=(EggSeen(3, grade=3),)), NOW_S)
    then = now(box).eggs[2].standing
    later_s = NOW_S + 35 * DAY_S
    waited = clutch_page(box.current(), CODE, later_s).now.eggs[2]
    assert then is not None
    assert waited.standing is not None
    # By now so deep a dent would be normal, had it come now.
    assert waited.excess == 0
    assert waited.standing.alive < then.alive
    (dents,) = [e for e in waited.standing.evidence if e.key == "sign.dents.excess"]
    assert dents.at_s == NOW_S


def test_a_creased_egg_is_on_today_until_it_was_candled(box: SnapshotCache) -> None:
    close_visit(visit("creased", eggs=(EggSeen(3, grade=3),)), NOW_S)
    assert DueKind.DENTS in due_kinds(box)
    assert "Candle egg 3" in texts(box)
    seen = EggSeen(3, vessels=Vessels.STRONG, acts=(EggActKind.SUPPORTED,))
    close_visit(visit("candled", rest_as_before=False, eggs=(seen,)), NOW_S + 60)
    assert DueKind.DENTS not in due_kinds(box, NOW_S + 120)
    egg = clutch_page(box.current(), CODE, NOW_S + 120).now.eggs[2]
    assert egg.advice is not None
    assert "missing support" not in egg.advice


def test_one_collapsed_egg_alone_is_no_dry_box(house: SnapshotCache) -> None:
    lay_clutch(lay_day(18.0, eggs=(EggLaid(0.5, 0.5),), set_up_mass_g=700.0), NOW_S - 18 * DAY_S)
    close_visit(visit("alone", eggs=(EggSeen(1, grade=4),)), NOW_S)
    egg = now(house).eggs[0]
    assert egg.scope == "egg"
    assert egg.standing is not None
    assert egg.standing.alive < 0.92
    assert "weigh it or feel the medium" in (egg.advice or "")
    # The scale says that its water is gone: then it is the box.
    weighed = visit("scale", rest_as_before=False, mass_g=560.0)
    close_visit(weighed, NOW_S + 60)
    assert clutch_page(house.current(), CODE, NOW_S + 120).now.box.judged.box.scope == "box"


def test_rough_shells_do_not_hide_a_dry_box(house: SnapshotCache) -> None:
    eggs = tuple(EggLaid(x, y, shells=(Shell.ROUGH,)) for x, y in usual_places(8))
    lay_clutch(lay_day(22.0, eggs=eggs), NOW_S - 22 * DAY_S + 60)
    close_visit(visit("rough", eggs=tuple(EggSeen(n, grade=1) for n in range(1, 8))), NOW_S)
    assert now(house).box.judged.box.scope == "box"


def test_an_egg_taken_out_unweighed_is_not_taken_for_lost_water(box: SnapshotCache) -> None:
    close_visit(visit("first", 3, mass_g=1194.0), NOW_S - 3 * DAY_S)
    close_visit(visit("out", 2, eggs=(EggSeen(2, acts=(EggActKind.REMOVED,)),)), NOW_S - 2 * DAY_S)
    close_visit(visit("light", mass_g=1194.0 - 88.0), NOW_S)
    water = now(box).box.water
    assert water is not None
    assert water.left is not None
    assert water.left.share > 0.85
    assert water.add is not None
    assert water.add.add_g <= 20


def test_a_visit_after_too_much_water_is_taken_with_its_true_weight(box: SnapshotCache) -> None:
    close_visit(visit("wet", 1, water_g=60.0), NOW_S - DAY_S)
    close_visit(visit("weighed", mass_g=1248.0), NOW_S)
    water = now(box).box.water
    assert water is not None
    assert water.left is not None
    assert water.left.share == 1.0


def advice_kinds(house: SnapshotCache) -> set[AdviceKind]:
    eggs = hatching_clutch(house.current(), CODE, NOW_S).eggs
    return {e.advice.kind for e in eggs if e.advice and e.view.pipped_s is None}


def test_a_method_nobody_chose_cuts_nothing(house: SnapshotCache) -> None:
    lay_clutch(lay_day(60.0), NOW_S - 60 * DAY_S + 60)
    assert method_of_clutch(1) is not None
    see_pip(CODE, 1, NOW_S - 600, NOW_S)
    assert advice_kinds(house) == {AdviceKind.WAIT}
    chosen = Method("Mine", cutting=CuttingSchool.AFTER_FIRST_PIP)
    change_clutch_method(CODE, chosen, NOW_S)
    assert advice_kinds(house) == {AdviceKind.WINDOW}
    told = [egg.advice for egg in hatching_clutch(house.current(), CODE, NOW_S).eggs]
    (words,) = {a.text for a in told if a and a.kind is AdviceKind.WINDOW}
    assert words.startswith("Your method allows cutting from now")
    assert "Waiting is as good" in words


def test_a_house_method_counts_as_chosen(house: SnapshotCache) -> None:
    add_method(Method("Standard", cutting=CuttingSchool.AFTER_FIRST_PIP), NOW_S, chosen=True)
    lay_clutch(lay_day(60.0), NOW_S - 60 * DAY_S + 60)
    see_pip(CODE, 1, NOW_S - 600, NOW_S)
    assert advice_kinds(house) == {AdviceKind.WINDOW}


def test_bench_and_house_give_one_answer_where_a_logger_fell_silent(house: SnapshotCache) -> None:
    """It measured 1 °C below the set point for two weeks, then nothing for ten days."""
    laid_s = NOW_S - 25 * DAY_S
    lay_clutch(lay_day(25.0), laid_s + 60)
    probe, _ = hang_probe("In the box", ProbePlace(CODE), laid_s, NOW_S)
    rows = [(int(laid_s + h * HOUR_S), 30.5, None) for h in range(1, 15 * 24)]
    store_readings(probe.entity_id, rows, "csv", "log.csv", NOW_S)
    at_home = clutch_page(house.current(), CODE, NOW_S).now.forecast
    on_bench = what_if(BenchClutch(laid_s, NOW_S, 31.5, 5, rows)).forecast
    assert at_home is not None
    assert at_home.typical_pip is not None
    assert on_bench.typical_pip is not None
    assert on_bench.development == pytest.approx(at_home.development, abs=2e-3)
    assert on_bench.typical_pip.p50 == pytest.approx(at_home.typical_pip.p50, abs=0.2 * DAY_S)
    # As if it had gone on as it was: 735 / 11.5 days.
    assert (on_bench.typical_pip.p50 - laid_s) / DAY_S == pytest.approx(735 / 11.5, abs=0.1)


def kept_by_its_dam(house: SnapshotCache, dam: str, days_ago: float, took_days: float) -> str:
    maternal = Method("Hers", dam=DamSchool.MATERNAL)
    day = lay_day(days_ago, dam=dam, method=maternal, medium=None, closing=None,
                  dry_mass_g=None, water_g=None)  # fmt: skip
    code, _ = lay_clutch(day, NOW_S - days_ago * DAY_S + 60)
    for number in range(1, 6):
        see_pip(code, number, NOW_S - (days_ago - took_days) * DAY_S + number * 60, NOW_S)
    return code


def test_a_clutch_kept_by_its_dam_is_kept_with_double_width_and_teaches_its_own_kind(
    house: SnapshotCache,
) -> None:
    code = kept_by_its_dam(house, "Tansy", 80.0, 66.0)
    lay_clutch(lay_day(80.0, dam="Borage"), NOW_S - 80 * DAY_S + 60)
    while keep_due(house.current(), NOW_S):
        pass
    told = {(t.clutch_id, t.day): t.quantiles_s for t in issued_forecasts.all_told()}
    facts = house.current()
    clutches = {c.code: c.entity_id for c in facts.clutches}
    hers, boxed = (told[clutches[c], 0][4] - told[clutches[c], 0][0] for c in (code, "26-02"))
    assert hers == pytest.approx(2 * boxed, rel=0.05)
    close_clutch(code, NOW_S - 10 * DAY_S)
    keep_due(house.current(), NOW_S)
    known = lessons(house.current())
    assert len(known.house(NOW_S).finished) == 0
    assert len(known.house(NOW_S, maternal=True).finished) == 1


def test_long_after_its_time_a_clutch_is_not_expected_to_hatch(house: SnapshotCache) -> None:
    """What is said of the clutch and of each of its eggs agrees with that none will pip."""
    code, _ = lay_clutch(lay_day(80.0), NOW_S)
    then = clutch_page(house.current(), code, NOW_S - 40 * DAY_S).now
    told = clutch_page(house.current(), code, NOW_S).now
    assert told.forecast is not None
    assert told.forecast.overdue
    assert told.expected is not None
    assert (told.expected.low, told.expected.middle) == (0, 0)
    assert then.expected is not None
    assert then.expected.middle >= 4
    for egg in told.eggs[:5]:
        assert egg.standing is not None
        assert egg.standing.alive < 0.2
        assert any("no egg of the clutch has pipped" in e.words for e in egg.standing.evidence)


def test_a_box_tells_an_egg_of_a_silent_clutch_as_its_clutch_does(house: SnapshotCache) -> None:
    code, _ = lay_clutch(lay_day(80.0), NOW_S)
    told = clutch_page(house.current(), code, NOW_S).now
    (line,) = today(house.current(), NOW_S).boxes
    (due,) = boxes_of_round(house.current(), NOW_S)
    chances = [egg.standing.alive for egg in told.eggs if egg.standing is not None]
    assert len(chances) >= 5
    assert max(chances) < 0.2
    for place in (told.box, told.boxes[0], line.box, due.box):
        assert [e.standing.alive for e in place.eggs if e.standing is not None] == chances


def test_one_pip_gives_all_its_siblings_their_hope_back(house: SnapshotCache) -> None:
    code, _ = lay_clutch(lay_day(66.0), NOW_S)
    silent = clutch_page(house.current(), code, NOW_S).now
    see_pip(code, 1, NOW_S - HOUR_S, NOW_S)
    pipped = clutch_page(house.current(), code, NOW_S).now
    one, other = silent.eggs[1].standing, pipped.eggs[1].standing
    assert one is not None
    assert other is not None
    assert one.alive < other.alive


def test_what_weighed_boxes_taught_rests_on_every_number_of_their_air(box: SnapshotCache) -> None:
    """It was kept by some numbers, by name: of the others it heard at the next weighing only."""
    close_visit(visit("weighed", 1, mass_g=1150.0), NOW_S)
    (before,) = weighed_boxes(box.current(), NOW_S)
    set_setting("box_humidity", 0.92, NOW_S)
    (after,) = weighed_boxes(box.current(), NOW_S)
    # In drier air it would have lost less: so this box loses by more than its closing.
    assert after.exchange.mean > before.exchange.mean
