"""Pips recorded, a clutch done, what it teaches, and how the kept forecasts did."""

import pytest

from samples import DAY_S, NOW_S, close_clutch, lay_day
from sandboa.core.candling import Vessels
from sandboa.core.causes import FindingKind
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching import Fate
from sandboa.core.standing import SIGNS, SignKind, Standing, StandingScore
from sandboa.core.standing.death_time import DIES
from sandboa.records import issued_forecasts
from sandboa.records.facts import Act
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import undo
from sandboa.services.boxes.commands import candle_egg
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.clutches.issued_forecasts import keep_due, scores
from sandboa.services.hatching.egg_events import see_emergence, see_pip
from sandboa.services.hatching.fates import reopen
from sandboa.services.lay_day import lay_clutch
from sandboa.services.losses.openings import OpeningCommand, record_opening
from sandboa.services.overview.today import today
from sandboa.services.probes.commands import ProbePlace
from sandboa.services.readings.commands import read_by_hand
from sandboa.services.seasons.counted import counted_clutches
from sandboa.services.seasons.standing_scores import standing_scores
from sandboa.services.snapshot.cache import SnapshotCache
from sandboa.services.snapshot.settings import set_setting
from sandboa.services.standings.learned import learned_standing


def scored(house: SnapshotCache) -> list[StandingScore]:
    """The standings that were kept, against what came of every closed clutch."""
    snapshot = house.current()
    return standing_scores(snapshot, counted_clutches(snapshot, NOW_S + DAY_S))


def hatched(house: SnapshotCache, dam: str, days_ago: float, took_days: float) -> str:
    """A clutch that pipped after `took_days` and is done; returns its code."""
    code, _ = lay_clutch(lay_day(days_ago, dam=dam), NOW_S - days_ago * DAY_S + 60)
    for number in range(1, 6):
        pip_s = NOW_S - (days_ago - took_days) * DAY_S + number * 3600
        see_pip(code, number, pip_s, NOW_S)
    close_clutch(code, NOW_S - (days_ago - took_days - 4) * DAY_S)
    return code


def test_pips_condition_the_rest_and_all_that_is_undone(house: SnapshotCache) -> None:
    lay_clutch(lay_day(57.0), NOW_S)
    before = clutch_page(house.current(), "26-01", NOW_S).now.forecast
    seen = see_pip("26-01", 2, NOW_S - 3600, NOW_S)
    after = clutch_page(house.current(), "26-01", NOW_S).now
    assert after.forecast.pipped == 1
    assert after.forecast.next_pip.p10 >= NOW_S
    assert after.forecast.last_pip.p90 - NOW_S < before.last_pip.p90 - NOW_S
    assert [egg.pipped_s is not None for egg in after.eggs] == [
        False, True, False, False, False, False,
    ]  # fmt: skip
    (line,) = today(house.current(), NOW_S).boxes
    assert any("1 of 5 pipped" in a.text for a in line.attention)
    undo(seen.id, NOW_S)
    assert clutch_page(house.current(), "26-01", NOW_S).now.forecast.pipped == 0


def test_pips_that_cannot_be_are_refused(house: SnapshotCache) -> None:
    lay_clutch(lay_day(57.0), NOW_S)
    see_pip("26-01", 1, NOW_S, NOW_S)
    with pytest.raises(Conflict, match="already"):
        see_pip("26-01", 1, NOW_S, NOW_S)
    with pytest.raises(NotPlausible, match="slug"):
        see_pip("26-01", 6, NOW_S, NOW_S)
    with pytest.raises(NotPlausible, match="future"):
        see_pip("26-01", 2, NOW_S + DAY_S, NOW_S)
    with pytest.raises(NotPlausible, match="before clutch"):
        see_pip("26-01", 2, NOW_S - 90 * DAY_S, NOW_S)
    with pytest.raises(NotFound):
        see_pip("26-01", 9, NOW_S, NOW_S)
    close_clutch("26-01", NOW_S)
    with pytest.raises(Conflict, match="closed"):
        see_pip("26-01", 2, NOW_S, NOW_S)


def test_finished_clutches_leave_today_and_teach_the_next_one(house: SnapshotCache) -> None:
    for n, dam in enumerate(("Tansy", "Yarrow", "Lovage", "Borage", "Chervil", "Costmary")):
        hatched(house, dam, 90.0 + n, took_days=62.0)
    for _ in range(5):
        keep_due(house.current(), NOW_S)
    code, _ = lay_clutch(lay_day(10.0, dam="Hyssop"), NOW_S)
    assert [c.box.box.name for c in today(house.current(), NOW_S).boxes] == [code]
    page = clutch_page(house.current(), code, NOW_S)
    now = page.now
    assert (now.learned.clutches, now.learned.in_cabinet) == (6, 6)
    # They took about 3.6 days longer than the clock says; a part of that is believed.
    assert 1.0 < now.learned_days < 3.6
    assert now.learned.prior.mean > 0.02
    # Nobody has laid twice: of the dam nothing is said.
    (said,) = page.learned_words
    assert str(said).startswith("Your eggs need ")
    assert str(said).endswith(" days longer than the default at 31.5 °C (6 clutches).")


def test_a_dam_whose_clutches_are_early_is_said_to_be_and_how_sure_it_is(
    house: SnapshotCache,
) -> None:
    for n, dam in enumerate(("Tansy", "Lovage", "Borage", "Chervil", "Costmary", "Rue")):
        hatched(house, dam, 90.0 + n, took_days=58.8)
    for n in range(3):
        hatched(house, "Yarrow", 460.0 + 330 * n, took_days=55.5)
    for _ in range(5):
        keep_due(house.current(), NOW_S)
    code, _ = lay_clutch(lay_day(10.0, dam="Yarrow"), NOW_S)
    hers = str(clutch_page(house.current(), code, NOW_S).learned_words[1])
    assert hers.startswith("Yarrow's pip ")
    assert "early (3 clutches" in hers
    other, _ = lay_clutch(lay_day(9.0, dam="Hyssop"), NOW_S)
    assert len(clutch_page(house.current(), other, NOW_S).learned_words) == 1


def test_nothing_is_said_of_what_was_learned_before_anything_was(house: SnapshotCache) -> None:
    code, _ = lay_clutch(lay_day(10.0), NOW_S)
    assert clutch_page(house.current(), code, NOW_S).learned_words == ()


def test_first_seasons_are_scored_apart_from_later_ones(house: SnapshotCache) -> None:
    for dam, days_ago in (("Tansy", 160.0), ("Yarrow", 159.0), ("Lovage", 90.0)):
        hatched(house, dam, days_ago, took_days=60.0)
    while keep_due(house.current(), NOW_S):
        pass
    told = {(s.first_season, s.day): s.clutches for s in scores(house.current())}
    assert told[True, 0] == 2
    assert told[False, 0] == told[False, 30] == told[False, 50] == 1


def test_a_clutch_is_not_taught_by_itself(house: SnapshotCache) -> None:
    code = hatched(house, "Tansy", 90.0, took_days=62.0)
    keep_due(house.current(), NOW_S)
    assert clutch_page(house.current(), code, NOW_S).now.learned.clutches == 0


def test_forecasts_of_three_days_are_kept_once_and_scored(house: SnapshotCache) -> None:
    lay_clutch(lay_day(31.0), NOW_S - 31 * DAY_S + 60)
    keep_due(house.current(), NOW_S)
    (first, second) = issued_forecasts.all_told()
    assert (first.day, second.day) == (0, 30)
    # Day 30 was yesterday; day 0 was made up for.
    assert (first.again, second.again) == (True, False)
    keep_due(house.current(), NOW_S + 20 * DAY_S)
    told = issued_forecasts.all_told()
    assert [t.day for t in told] == [0, 30, 50]
    assert told[:2] == [first, second]
    later_s = NOW_S + 35 * DAY_S
    for number in range(1, 6):
        see_pip("26-01", number, NOW_S + 27 * DAY_S, later_s)
    close_clutch("26-01", later_s)
    keep_due(house.current(), later_s)
    by_day = {s.day: s for s in scores(house.current())}
    assert set(by_day) == {0, 30, 50}
    assert by_day[30].clutches == 1
    assert abs(by_day[30].error_days) < 3.0
    assert by_day[30].in_eighty == 1


def test_standings_are_kept_on_two_days_and_scored_by_what_hatched(house: SnapshotCache) -> None:
    code, _ = lay_clutch(lay_day(61.0), NOW_S - 61 * DAY_S + 60)
    laid_s = lay_day(61.0).laid_at.timestamp()
    at_s = laid_s + 20 * DAY_S
    candle_egg(code, 1, Vessels.BROKEN, None, at_s, at_s)
    keep_due(house.current(), laid_s + 31 * DAY_S)
    kept = issued_forecasts.all_standings_told()
    # Five fertile eggs on day 30; the slug is none.
    assert [told.day for told in kept] == [30] * 5
    assert min(told.alive for told in kept) == kept[0].alive < 0.5
    assert all(told.will_hatch < told.alive for told in kept)
    # What is seen later changes nothing of what was told.
    candle_egg(code, 1, Vessels.STRONG, None, laid_s + 40 * DAY_S, laid_s + 40 * DAY_S)
    keep_due(house.current(), laid_s + 51 * DAY_S)
    assert [row for row in issued_forecasts.all_standings_told() if row.day == 30] == kept
    assert scored(house) == []
    for number in (2, 3, 4):
        see_emergence(code, number, NOW_S - DAY_S, NOW_S)
    close_clutch(code, NOW_S, egg1=Fate.DEAD_IN_EGG, egg5=Fate.UNKNOWN)
    mid_term, last_week = scored(house)
    # Of the fifth nobody knows the end.
    assert (mid_term.day, mid_term.eggs, mid_term.hatched) == (30, 4, 3)
    assert (last_week.day, last_week.eggs) == (50, 4)
    sound = mid_term.bins[0]
    assert (sound.standing, sound.eggs, sound.hatched) == (Standing.SOUND, 3, 3)
    assert mid_term.brier < mid_term.brier_of_always
    # Of the lost one no opening tells whether it lived that day.
    assert (mid_term.alive.eggs, mid_term.alive.came) == (3, 3)
    record_opening(code, OpeningCommand(1, True, {FindingKind.STAGE: frozenset({"early"})}),
                   NOW_S, NOW_S)  # fmt: skip
    assert [(s.alive.eggs, s.alive.came) for s in scored(house)] == [(4, 3), (4, 3)]


def test_a_lesson_is_learned_anew_when_its_clutch_changes(house: SnapshotCache) -> None:
    code = hatched(house, "Tansy", 90.0, took_days=62.0)
    keep_due(house.current(), NOW_S)
    (before,) = issued_forecasts.lessons().values()
    pip = Act.select().where(Act.kind == "pip").order_by(Act.id).first()
    with pytest.raises(Conflict, match="reopen it first"):
        undo(pip.id, NOW_S)
    reopen(code, NOW_S)
    undo(pip.id, NOW_S)
    see_pip(code, 1, NOW_S - 20 * DAY_S, NOW_S)
    close_clutch(code, NOW_S)
    keep_due(house.current(), NOW_S)
    (after,) = issued_forecasts.lessons().values()
    assert after.mean_pip_s > before.mean_pip_s
    assert after.log_development > before.log_development


def test_a_reading_by_hand_from_before_the_closing_is_learned_from(house: SnapshotCache) -> None:
    hatched(house, "Tansy", 90.0, took_days=62.0)
    keep_due(house.current(), NOW_S)
    (before,) = issued_forecasts.lessons().values()
    north = ProbePlace(cabinet="North", shelf="lower")
    read_by_hand(north, NOW_S - 3600, 28.0, None, NOW_S)
    keep_due(house.current(), NOW_S)
    # An everyday one, after the closing: nothing is worked out anew.
    assert list(issued_forecasts.lessons().values()) == [before]
    for days_ago in (60, 59, 58):
        read_by_hand(north, NOW_S - days_ago * DAY_S, 28.0, None, NOW_S)
    keep_due(house.current(), NOW_S)
    (after,) = issued_forecasts.lessons().values()
    assert after.log_development < before.log_development


def test_what_was_undone_teaches_nothing(house: SnapshotCache) -> None:
    code = hatched(house, "Tansy", 90.0, took_days=62.0)
    keep_due(house.current(), NOW_S)
    assert len(issued_forecasts.lessons()) == 1
    reopen(code, NOW_S)
    for pip in Act.select().where(Act.kind == "pip"):
        undo(pip.id, NOW_S)
    keep_due(house.current(), NOW_S)
    assert issued_forecasts.lessons() == {}
    see_pip(code, 2, NOW_S - 27 * DAY_S, NOW_S)
    close_clutch(code, NOW_S)
    keep_due(house.current(), NOW_S)
    assert [lesson.eggs for lesson in issued_forecasts.lessons().values()] == [1]


def test_clutches_that_never_pipped_keep_none_from_being_learned(house: SnapshotCache) -> None:
    for n, dam in enumerate(("Yarrow", "Lovage", "Borage", "Chervil", "Costmary", "Hyssop")):
        code, _ = lay_clutch(lay_day(100.0 + n, dam=dam), NOW_S - (100 + n) * DAY_S + 60)
        close_clutch(code, NOW_S - DAY_S)
    hatched(house, "Tansy", 90.0, took_days=62.0)
    for _ in range(6):
        keep_due(house.current(), NOW_S)
    assert len(issued_forecasts.lessons()) == 1


def test_closed_eggs_move_the_weights_and_what_the_keeper_set_stays(house: SnapshotCache) -> None:
    before = learned_standing(house.current())
    assert (before.eggs, before.rules) == (0, house.current().settings.rules.standing)
    code, _ = lay_clutch(lay_day(61.0), NOW_S - 61 * DAY_S + 60)
    laid_s = lay_day(61.0).laid_at.timestamp()
    for number in (1, 2):
        candle_egg(code, number, Vessels.WEAK, None, laid_s + 30 * DAY_S, NOW_S)
    for number in (1, 2, 3, 4):
        see_emergence(code, number, NOW_S - DAY_S, NOW_S)
    close_clutch(code, NOW_S, egg5=Fate.DEAD_IN_EGG)
    told = learned_standing(house.current())
    weak = SIGNS[SignKind.VESSELS, "weak"]
    assert (told.eggs, told.by_sign[weak.key]) == (5, 2)
    assert told.rules.weight(weak) > weak.weight, "both came out"
    assert told.rules.dies == pytest.approx((60 * DIES + 1) / 65)
    set_setting(weak.key, -1.0, NOW_S)
    own = learned_standing(house.current())
    assert own.rules.weight(weak) == -1.0
    assert weak.key not in own.by_sign


def test_a_clock_the_keeper_set_moves_every_forecast_of_the_house(house: SnapshotCache) -> None:
    code, _ = lay_clutch(lay_day(10.0), NOW_S - 10 * DAY_S + 60)
    before = clutch_page(house.current(), code, NOW_S).now
    act = set_setting("clock.sum_c_days", 800.0, NOW_S)
    after = clutch_page(house.current(), code, NOW_S).now
    assert after.fraction == pytest.approx(before.fraction * 735 / 800, rel=1e-3)
    later_days = (after.forecast.typical_pip.p50 - before.forecast.typical_pip.p50) / DAY_S
    assert later_days == pytest.approx(58 * 65 / 735, abs=1.5)
    assert "Heat from lay to pip: 800" in act.summary
