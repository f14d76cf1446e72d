"""What is due at a box and why; and the air in it."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.air import FRESH, oxygen, oxygen_use_ml_hour
from sandboa.core.box import Closing
from sandboa.core.dimples import Scope, Urgency
from sandboa.core.errors import NotPlausible
from sandboa.core.methods import LastDays, Visits
from sandboa.core.rounds import BoxState, Due, DueKind, due_at_box
from sandboa.core.water.estimate import Exchange

DAY = 86_400.0
NOW = 20 * DAY
#: Day 20, visited two days ago, nothing wrong.
QUIET = BoxState(
    laid_s=0.0,
    last_visit_s=18 * DAY,
    visits=Visits.EVERY_7_DAYS,
    last_days=LastDays.LEAVE,
    on_grid=False,
    development=0.33,
    dents=(Scope.NONE, Urgency.NONE, ()),
    live_eggs=6,
    candled_s=tuple((n, 6 * DAY) for n in range(1, 7)),
    looked_s=18 * DAY,
)


def kinds(box: BoxState, now: float = NOW) -> list[DueKind]:
    return [due.kind for due in due_at_box(box, now)]


def only(box: BoxState) -> Due:
    (due,) = due_at_box(box, NOW)
    return due


def test_a_quiet_box_stays_shut() -> None:
    assert kinds(QUIET) == []


@pytest.mark.parametrize(
    ("visits", "days", "due"),
    [
        (Visits.SET_AND_FORGET, 60, False),
        (Visits.EVERY_14_DAYS, 13.9, False),
        (Visits.EVERY_14_DAYS, 14, True),
        (Visits.EVERY_7_DAYS, 7, True),
        (Visits.EVERY_2_3_DAYS, 2.4, False),
        (Visits.EVERY_2_3_DAYS, 2.5, True),
    ],
)
def test_the_rhythm_of_the_method(visits: Visits, days: float, due: bool) -> None:
    box = replace(QUIET, visits=visits, last_visit_s=NOW - days * DAY)
    assert (kinds(box) == [DueKind.RHYTHM]) is due


def test_a_dry_box_comes_first_and_waits_for_its_answer_once_watered() -> None:
    dents = (Scope.BOX, Urgency.TODAY, (1, 2, 3, 4))
    box = replace(QUIET, dents=dents, last_visit_s=10 * DAY)
    first = due_at_box(box, NOW)[0]
    assert (first.kind, first.urgency, first.eggs) == (DueKind.DENTS, Urgency.TODAY, (1, 2, 3, 4))
    watered = replace(QUIET, dents=dents, watered_s=18 * DAY, looked_s=18 * DAY)
    assert kinds(watered) == []
    answer = due_at_box(watered, 21.1 * DAY)[0]
    assert "rounded out" in answer.text


def test_eggs_that_came_dented_have_three_days_before_their_new_box_is_blamed() -> None:
    dents = (Scope.BOX, Urgency.TODAY, ("1", "2", "3"))
    came = replace(QUIET, dents=dents, moved_in_s=18 * DAY, looked_s=18 * DAY)
    assert kinds(came) == []
    answer = due_at_box(came, 21.1 * DAY)[0]
    assert answer.urgency is Urgency.WATCH
    assert answer.text == "Put here dented 3 days ago: look whether the eggs rounded out."
    # Watered after they came, that is what they answer.
    watered = replace(came, watered_s=19 * DAY)
    assert "Watered 3 days ago" in due_at_box(watered, 22.1 * DAY)[0].text


def test_water_is_due_ahead_of_half_and_pressing_when_dry() -> None:
    soon = replace(QUIET, water_soon_s=NOW + 1.5 * DAY, water_share=0.53)
    assert only(soon).urgency is Urgency.WATCH
    assert "53 %" in only(soon).text
    assert kinds(replace(QUIET, water_soon_s=NOW + 3 * DAY)) == []
    dry = replace(QUIET, water_soon_s=NOW - 9 * DAY, water_dry_s=NOW - DAY, water_share=0.2)
    assert only(dry).urgency is Urgency.TODAY


def test_a_box_to_be_watered_for_its_dents_is_not_asked_for_twice() -> None:
    dents = (Scope.BOX, Urgency.TODAY, (1, 2, 3, 4))
    soon = replace(QUIET, dents=dents, water_soon_s=NOW + 1.5 * DAY, water_share=0.53)
    assert kinds(soon) == [DueKind.DENTS]
    # That it is likely dry is more than the dents say.
    dry = replace(soon, water_soon_s=NOW - 9 * DAY, water_dry_s=NOW - DAY)
    assert sorted(kinds(dry)) == sorted([DueKind.DENTS, DueKind.WATER])


def test_eggs_on_watch_every_three_days() -> None:
    assert kinds(replace(QUIET, watched=((3, NOW - 2 * DAY),))) == []
    due = only(replace(QUIET, watched=((3, NOW - 3 * DAY), (1, NOW - DAY))))
    assert (due.kind, due.eggs) == (DueKind.WATCH, (3,))


def test_candling_when_unsure_at_mid_term_and_in_the_last_week() -> None:
    unsure = only(replace(QUIET, candle_again=((2, 5 * DAY),)))
    assert "egg 2" in unsure.text
    mid = replace(QUIET, development=0.5, mid_term_s=17 * DAY)
    assert only(mid).eggs == (1, 2, 3, 4, 5, 6)
    done = replace(mid, candled_s=tuple((n, 15 * DAY) for n in range(1, 7)))
    assert kinds(done) == []
    some = replace(mid, candled_s=((1, 15 * DAY), (2, None)))
    assert only(some).eggs == (2,)
    assert kinds(replace(mid, visits=Visits.SET_AND_FORGET)) == []
    last = replace(QUIET, development=0.95, first_pip_s=NOW + 5 * DAY)
    assert kinds(last) == [DueKind.CANDLE]


def test_last_week_by_the_method() -> None:
    late = replace(QUIET, first_pip_s=NOW + 5 * DAY, candled_s=((1, NOW - DAY),))
    assert kinds(late) == []
    assert kinds(replace(late, last_days=LastDays.MOVE)) == [DueKind.LAST_DAYS]
    assert "grid" in only(replace(late, on_grid=True)).text
    assert kinds(replace(late, on_grid=True, last_days_done=True)) == []
    assert kinds(replace(late, on_grid=True, first_pip_s=NOW + 9 * DAY)) == []


def test_air_is_due_when_it_is_likely_short_and_else_not_spoken_of() -> None:
    assert only(replace(QUIET, oxygen=(0.165, True))).urgency is Urgency.TODAY
    assert kinds(replace(QUIET, oxygen=(0.18, False))) == []


def test_days_that_are_over_are_counted_as_the_day_of_the_clutch_is() -> None:
    box = replace(QUIET, visits=Visits.EVERY_14_DAYS, last_visit_s=NOW - 29.6 * DAY)
    assert "Last opened 29 days ago" in only(box).text


def test_an_egg_dented_by_itself_is_due_until_somebody_candled_it() -> None:
    box = replace(QUIET, dents=(Scope.EGG, Urgency.WATCH, (3,)), look_now=(3,))
    due = only(box)
    assert (due.urgency, due.eggs) == (Urgency.TODAY, (3,))
    assert "Candle egg 3" in due.text
    assert kinds(replace(box, look_now=())) == []


def test_the_second_half_of_a_split_top_up_is_due_with_its_grams() -> None:
    due = only(replace(QUIET, rest_due=(NOW - DAY / 4, 35.0)))
    assert (due.kind, due.urgency) == (DueKind.WATER, Urgency.TODAY)
    assert "add 35 ml" in due.text


@pytest.mark.parametrize(
    ("development", "ml"), [(0.1, 0.15), (0.2, 0.3), (0.5, 1.0), (0.85, 3.0), (1.0, 3.0)]
)
def test_oxygen_use_goes_through_the_known_points(development: float, ml: float) -> None:
    assert oxygen_use_ml_hour(development) == pytest.approx(ml)


def test_many_eggs_late_in_a_sealed_box_need_air_and_few_or_early_ones_do_not() -> None:
    month = 30 * DAY
    late = oxygen([0.85] * 7, Closing.SEALED_FILM, month)
    assert late.advise_airing
    assert late.low < late.share < late.high
    # In balance, what comes in is what is used: 7 eggs, 3 ml an hour, 10 l a day.
    assert late.share == pytest.approx(FRESH - 7 * 0.003 * 24 / 10)
    assert not oxygen([0.3] * 7, Closing.SEALED_FILM, month).advise_airing
    assert not oxygen([0.85] * 7, Closing.SMALL_HOLES, month).advise_airing
    assert oxygen([0.85] * 7, Closing.SEALED_FILM, 0.0).share == FRESH


def test_a_time_before_opening_is_no_time() -> None:
    with pytest.raises(NotPlausible):
        oxygen([0.85] * 7, Closing.SEALED_FILM, -1.0)
    with pytest.raises(NotPlausible):
        oxygen_use_ml_hour(-0.1)


def test_what_weighings_taught_of_a_closing_moves_its_air_and_narrows_the_band() -> None:
    month = 30 * DAY
    by_default = oxygen([0.85] * 7, Closing.PIN_HOLES, month)
    tight = oxygen([0.85] * 7, Closing.PIN_HOLES, month, learned=Exchange(-0.6, 0.1))
    loose = oxygen([0.85] * 7, Closing.PIN_HOLES, month, learned=Exchange(0.6, 0.1))
    assert tight.share < by_default.share < loose.share
    as_usual = oxygen([0.85] * 7, Closing.PIN_HOLES, month, learned=Exchange(0.0, 0.1))
    assert as_usual.share == by_default.share
    assert as_usual.high - as_usual.low < by_default.high - by_default.low


@given(
    st.integers(1, 12), st.floats(0, 1.2), st.sampled_from(list(Closing)), st.floats(0, 60 * DAY)
)
def test_oxygen_stays_between_nothing_and_fresh_and_falls_with_time(
    eggs: int, development: float, closing: Closing, since_s: float
) -> None:
    now = oxygen([development] * eggs, closing, since_s)
    assert 0.0 <= now.low <= now.share <= now.high <= FRESH
    assert oxygen([development] * eggs, closing, since_s + DAY).share <= now.share + 1e-12


def test_half_is_gone_only_when_it_is() -> None:
    ahead = only(replace(QUIET, water_soon_s=NOW + DAY, water_share=0.53))
    assert ahead.text == "Half of its water will soon be gone. About 53 % is left."
    assert only(replace(QUIET, water_soon_s=NOW - DAY)).text == "Half of its water is gone."


@pytest.mark.parametrize(
    ("days", "urgency", "lain"),
    [(0.9, None, ""), (1.0, Urgency.WATCH, "a day"), (1.9, Urgency.WATCH, "a day"),
     (2.0, Urgency.TODAY, "2 days"), (5.5, Urgency.TODAY, "5 days")],
)  # fmt: skip
def test_a_damp_cloth_asks_to_be_taken_off(days: float, urgency: Urgency | None, lain: str) -> None:
    box = replace(QUIET, cloth_since_s=NOW - days * DAY)
    if urgency is None:
        assert kinds(box) == []
        return
    due = only(box)
    assert (due.kind, due.urgency, due.since_s) == (DueKind.CLOTH, urgency, NOW - (days - 1) * DAY)
    assert str(due.text) == f"Take the damp cloth off: it has lain on the eggs for {lain}."
