"""After laying: the checklist by school, the flags, and when she is back to weight."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from samples import DAY_S, NOW_S
from sandboa.core.dam_care import (
    AftercareTask,
    LaidDam,
    TubSchool,
    Weighing,
    aftercare,
    not_eating,
    recovery,
    retained_egg,
    settled_s,
)
from sandboa.core.lay_day import Lump
from sandboa.core.units import whole_days


def listed(school=TubSchool.AT_ONCE, now_s=None, **changes):
    dam = {"maternal": False, "recovered": False, "ticked": {}, **changes}
    return aftercare(LaidDam(NOW_S, **dam), school, now_s)


def due(items, days: float) -> list[AftercareTask]:
    return [i.task for i in items if i.due(NOW_S + days * DAY_S)]


def test_the_schools_differ_in_when_the_tub_is_cleaned() -> None:
    assert AftercareTask.CLEAN in due(listed(), 0.0)
    later = listed(TubSchool.REST_FIRST)
    assert AftercareTask.CLEAN not in due(later, 6.9)
    assert AftercareTask.CLEAN in due(later, 7.0)
    (cleaning,) = [i for i in later if i.task is AftercareTask.CLEAN]
    assert cleaning.by_s == NOW_S + 14 * DAY_S


def test_a_dam_not_felt_hollow_is_felt_again_the_next_day() -> None:
    assert AftercareTask.FEEL not in {i.task for i in listed()}
    unsure = listed(hollow=False)
    assert AftercareTask.FEEL not in due(unsure, 0.4)
    assert AftercareTask.FEEL in due(unsure, 0.5)
    felt = listed(hollow=False, ticked={AftercareTask.FEEL: NOW_S + DAY_S})
    assert AftercareTask.FEEL not in due(felt, 2.0)


@pytest.mark.parametrize("task", [AftercareTask.FEEL, AftercareTask.VET])
def test_an_egg_that_may_be_left_is_settled_by_the_keepers_hand_or_a_vet(
    task: AftercareTask,
) -> None:
    assert settled_s({AftercareTask.RINSE: NOW_S}) is None
    seen = listed(hollow=False, ticked={task: NOW_S + DAY_S})
    assert AftercareTask.FEEL not in due(seen, 2.0)
    assert settled_s({task: NOW_S + DAY_S, AftercareTask.RINSE: NOW_S}) == NOW_S + DAY_S
    both = {AftercareTask.FEEL: NOW_S + 2 * DAY_S, AftercareTask.VET: NOW_S + DAY_S}
    assert settled_s(both) == NOW_S + DAY_S


def test_a_first_meal_is_offered_from_day_one_to_three() -> None:
    assert AftercareTask.FIRST_MEAL not in due(listed(), 0.9)
    assert AftercareTask.FIRST_MEAL in due(listed(), 1.0)


def test_what_is_recorded_elsewhere_ticks_its_own_line_and_asks_again() -> None:
    items = listed(weighed_s=(NOW_S + 0.1 * DAY_S,), offered_s=(NOW_S + 2 * DAY_S,))
    assert due(items, 3.0) == [AftercareTask.WATER, AftercareTask.RINSE, AftercareTask.CLEAN]
    assert AftercareTask.WEIGH in due(items, 7.2)
    assert AftercareTask.MEAL in due(items, 8.0)
    over = listed(weighed_s=(NOW_S,), offered_s=(NOW_S,), recovered=True)
    assert due(over, 30.0) == [AftercareTask.WATER, AftercareTask.RINSE, AftercareTask.CLEAN]


def test_a_brooding_dam_is_neither_rinsed_nor_cleaned_nor_flagged() -> None:
    tasks = {i.task for i in listed(maternal=True)}
    assert tasks == {AftercareTask.WATER, AftercareTask.FIRST_MEAL}
    assert not_eating(NOW_S, None, NOW_S + 40 * DAY_S, maternal=True) is None


def test_not_eating_is_said_from_day_21_and_a_meal_ends_it() -> None:
    assert not_eating(NOW_S, None, NOW_S + 20.9 * DAY_S, maternal=False) is None
    assert "21 days ago" in (not_eating(NOW_S, None, NOW_S + 21 * DAY_S, maternal=False) or "")
    assert not_eating(NOW_S, NOW_S + DAY_S, NOW_S + 30 * DAY_S, maternal=False) is None


def weighings(*rows: tuple[float, float]) -> list[Weighing]:
    return [Weighing(NOW_S + d * DAY_S, g) for d, g in rows]


def test_ten_grams_a_day_reach_the_target_on_the_day_worked_out_by_hand() -> None:
    told = recovery(weighings((0, 1300), (10, 1400), (20, 1500)), 1800.0)
    assert told
    assert told.gain_g_per_day == pytest.approx(10.0)
    assert told.expected_s == pytest.approx(NOW_S + 50 * DAY_S)
    assert told.missing_g == 300
    assert told.early_s < told.expected_s < told.late_s


def test_what_cannot_be_said_is_not_said() -> None:
    assert recovery([], 1800.0) is None
    once = recovery(weighings((0, 1300)), 1800.0)
    assert once
    assert (once.gain_g_per_day, once.expected_s, once.falling) == (None, None, False)
    close = recovery(weighings((0, 1300), (2, 1340)), 1800.0)
    assert close
    assert close.expected_s is None
    slow = recovery(weighings((0, 1300), (7, 1310)), 1800.0)
    assert slow
    assert slow.expected_s is not None
    assert slow.late_s is None


def test_falling_is_more_than_a_weighing_can_err() -> None:
    assert not recovery(weighings((0, 1300), (10, 1280)), 1800.0).falling
    assert recovery(weighings((0, 1300), (10, 1270)), 1800.0).falling
    assert recovery(weighings((0, 1300), (10, 1830)), 1800.0).reached


@given(
    st.lists(
        st.tuples(st.integers(0, 80), st.floats(800, 2500)),
        min_size=1,
        max_size=8,
        unique_by=lambda row: row[0],
    ),
    st.floats(1200, 2600),
)
def test_a_date_lies_ahead_within_its_window_and_order_plays_no_part(rows, target) -> None:
    told = recovery(weighings(*rows), target)
    assert told
    assert told == recovery(weighings(*reversed(rows)), target)
    if told.expected_s is not None:
        assert told.early_s <= told.expected_s
        assert told.late_s is None or told.expected_s <= told.late_s
        assert told.expected_s >= NOW_S


@pytest.mark.parametrize(
    ("days", "said"),
    [
        (0.2, "today. Leave her alone for some hours"),
        (1.5, "yesterday. Feel again now"),
        (2.9, "2 days ago. Feel again now"),
        (3.0, "3 days ago. Nobody felt her since"),
        (82.0, "82 days ago. Nobody felt her since"),
    ],
)
def test_a_lump_is_told_more_gravely_by_the_day_and_ends_at_the_vet(days: float, said: str) -> None:
    for lump, found in ((Lump.LEFT, "a lump was left"), (Lump.UNSURE, "not sure whether a lump")):
        told = retained_egg("Sorrel", lump, NOW_S, NOW_S + days * DAY_S)
        assert told.startswith("Sorrel: ")
        assert found in told
        assert said in told
        assert ("vet" in told) is (days >= 1)


@given(st.integers(0, 200), st.floats(0, 0.999))
def test_days_are_counted_when_they_are_over(days: int, more: float) -> None:
    assert whole_days((days + more) * DAY_S) == days
