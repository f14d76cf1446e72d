"""When a dam lays: usual windows, the keeper's own intervals, what has to be ready by then."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from samples import DAY_S, NOW_S
from sandboa.core.errors import NotPlausible
from sandboa.core.laying import (
    INTERVALS,
    Learned,
    PastInterval,
    PreparationTask,
    SeenSign,
    Sign,
    lay_forecast,
    learn,
    preparation,
    strongest_sign,
)

SHED = SeenSign(Sign.PRE_LAY_SHED, NOW_S)
OVULATION = SeenSign(Sign.OVULATION, NOW_S)
days = st.lists(st.tuples(st.integers(1, 4), st.floats(20, 50)), max_size=12)


def past(rows: list[tuple[int, float]]) -> list[PastInterval]:
    return [PastInterval(dam, d) for dam, d in rows]


@pytest.mark.parametrize(
    ("sign", "low", "middle", "high"), [(SHED, 26, 30, 38), (OVULATION, 38, 44, 54)]
)
def test_the_usual_windows_of_rule_p1(sign, low, middle, high) -> None:
    window = lay_forecast(sign, NOW_S).window
    assert window
    assert (window.p10 - NOW_S) / DAY_S == pytest.approx(low, abs=0.01)
    assert (window.p50 - NOW_S) / DAY_S == pytest.approx(middle, abs=0.01)
    assert (window.p90 - NOW_S) / DAY_S == pytest.approx(high, abs=0.01)


def test_a_shed_overrides_any_ovulation_and_off_food_forecasts_nothing() -> None:
    early = SeenSign(Sign.OVULATION, NOW_S - 17 * DAY_S)
    assert strongest_sign([early, SHED]) == SHED
    assert strongest_sign([SHED, early]) == SHED
    assert strongest_sign([SHED, SeenSign(Sign.OVULATION, NOW_S + DAY_S)]) == SHED
    again = SeenSign(Sign.PRE_LAY_SHED, NOW_S + DAY_S)
    assert strongest_sign([again, SHED]) == again
    assert strongest_sign([early, SeenSign(Sign.OVULATION, NOW_S)]).seen_s == NOW_S
    assert strongest_sign([SeenSign(Sign.OFF_FOOD, NOW_S)]) is None
    with pytest.raises(NotPlausible, match="says nothing"):
        learn(Sign.OFF_FOOD, past([(1, 30.0)]), 1)


@given(st.floats(0, 45), st.floats(-6, 6), st.floats(0.5, 1.0))
def test_no_window_reaches_into_the_past_and_quantiles_rise(gone, shift, spread) -> None:
    now_s = NOW_S + gone * DAY_S
    told = lay_forecast(SHED, now_s, Learned(shift, spread, 1, 1))
    if told.window is None:
        # Past the usual range, as the house's own clutches have moved and narrowed it.
        assert gone - shift > 30 + 8 * spread
        return
    w = told.window
    assert now_s <= w.p10 <= w.p25 <= w.p50 <= w.p75 <= w.p90


def test_long_past_the_usual_range_she_is_overdue() -> None:
    assert lay_forecast(SHED, NOW_S + 46 * DAY_S).window is not None
    assert lay_forecast(SHED, NOW_S + 47 * DAY_S).overdue


def test_one_clutch_moves_the_window_by_its_share() -> None:
    """By hand: one clutch 8 days late moves the same dam by 0.4, another dam by 0.15 of it."""
    own = learn(Sign.PRE_LAY_SHED, past([(1, 38.0)]), 1)
    other = learn(Sign.PRE_LAY_SHED, past([(1, 38.0)]), 2)
    assert own.shift_days == pytest.approx(0.40 * 8)
    assert other.shift_days == pytest.approx(0.15 * 8)
    assert own.spread == pytest.approx((1 - 0.40**2) ** 0.5)
    assert (own.of_dam, own.of_house) == (1, 1)
    assert (other.of_dam, other.of_house) == (0, 1)


def test_many_clutches_of_a_dam_bring_the_window_to_her_own() -> None:
    told = learn(Sign.PRE_LAY_SHED, past([(1, 35.0)] * 40), 1)
    assert told.shift_days == pytest.approx(5.0, abs=0.25)
    assert told.spread == pytest.approx(0.6**0.5, abs=0.02)


@given(days, st.integers(1, 4), st.randoms())
def test_learning_is_bounded_and_does_not_know_order(rows, dam, random) -> None:
    told = learn(Sign.PRE_LAY_SHED, past(rows), dam)
    shuffled = list(rows)
    random.shuffle(shuffled)
    again = learn(Sign.PRE_LAY_SHED, past(shuffled), dam)
    assert again.shift_days == pytest.approx(told.shift_days, abs=1e-9)
    off = [d - INTERVALS[Sign.PRE_LAY_SHED].median_days for _, d in rows]
    assert abs(told.shift_days) <= max(map(abs, off), default=0.0) + 1e-9
    assert 0.6**0.5 - 1e-9 <= told.spread <= 1.0


@given(days, st.floats(20, 50))
def test_another_clutch_of_the_dam_moves_the_guess_towards_it(rows, seen) -> None:
    median = INTERVALS[Sign.PRE_LAY_SHED].median_days
    before = learn(Sign.PRE_LAY_SHED, past(rows), 1)
    after = learn(Sign.PRE_LAY_SHED, past([*rows, (1, seen)]), 1)
    towards = seen - median - before.shift_days
    assert (after.shift_days - before.shift_days) * towards >= -1e-9
    assert after.spread <= before.spread + 1e-12


def test_preparation_counts_back_from_the_early_end() -> None:
    window = lay_forecast(SHED, NOW_S).window
    assert window
    told = {p.task: p for p in preparation(window)}
    assert list(told) == list(PreparationTask)
    before = {task: (window.p10 - p.from_s) / DAY_S for task, p in told.items()}
    assert before[PreparationTask.CABINET_ON] == 7
    assert before[PreparationTask.BOX_WARM] == 4
    assert (window.p10 - told[PreparationTask.CABINET_ON].by_s) / DAY_S == 2
    assert all(p.from_s < p.by_s < window.p10 for p in told.values())
