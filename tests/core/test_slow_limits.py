"""What no single hour shows: off target for days, slow rises, air that grew dry."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.climate.rules import ClimateRules
from sandboa.core.climate.slow_limits import (
    DAYS_BACK,
    days_off,
    dry_air_in_box,
    humidity_fall,
    lasting_off,
    slow_change_c,
)
from sandboa.core.development import ReadingSeries, SetPoints

DAY, HOUR = 86_400.0, 3_600.0
NOW = 200 * DAY
SET = SetPoints((0.0,), (31.5,))


def record(by_day: list[float]) -> ReadingSeries:
    """A reading every 10 minutes, with a wave over each day, the last day ending now."""
    times = np.arange(NOW - len(by_day) * DAY + 600.0, NOW + 1.0, 600.0)
    level = np.array(by_day)[
        np.floor((times - times[0]) / DAY).astype(int).clip(0, len(by_day) - 1)
    ]
    return ReadingSeries(times, level + 0.3 * np.sin(2 * np.pi * times / DAY))


def test_a_shelf_over_its_target_for_weeks_is_told_with_its_days() -> None:
    found = lasting_off(days_off(record([31.5] * 4 + [32.6] * 14), SET, NOW))
    assert found is not None
    assert (found.days, found.off_c) == (14, pytest.approx(1.1, abs=0.05))


@pytest.mark.parametrize(
    ("by_day", "days"),
    [
        ([31.5] * 18, None),
        ([31.5] * 16 + [32.6] * 2, None),
        ([31.5] * 15 + [32.6] * 3, 3),
        ([32.6] * 15 + [31.5], None),
        ([31.5] * 12 + [30.4] * 5, 5),
        ([32.2] * 18, None),
    ],
)
def test_three_days_off_the_same_way_are_told_and_not_one_less(by_day, days) -> None:
    found = lasting_off(days_off(record(by_day), SET, NOW))
    assert (found.days if found else None) == days


def test_a_day_nobody_measured_ends_the_run_and_days_of_another_set_point_do_not_count() -> None:
    whole = record([32.6] * 8)
    kept = (whole.times_s < NOW - 3 * DAY) | (whole.times_s > NOW - 2 * DAY)
    gap = ReadingSeries(whole.times_s[kept], whole.temperature_c[kept])
    assert lasting_off(days_off(gap, SET, NOW)) is None
    changed = SetPoints((0.0, NOW - 2.5 * DAY), (32.6, 31.5))
    assert lasting_off(days_off(whole, changed, NOW)) is None


def test_a_rise_over_two_weeks_is_told_and_a_step_is_not() -> None:
    rising = [31.2 + 0.07 * day for day in range(16)]
    assert slow_change_c(days_off(record(rising), SET, NOW)) == pytest.approx(0.91, abs=0.05)
    falling = [31.8 - 0.07 * day for day in range(16)]
    assert slow_change_c(days_off(record(falling), SET, NOW)) == pytest.approx(-0.91, abs=0.05)
    assert slow_change_c(days_off(record([31.5] * 16), SET, NOW)) is None
    assert slow_change_c(days_off(record([31.5] * 15 + [33.5]), SET, NOW)) is None
    assert slow_change_c(days_off(record([31.2, 32.5]), SET, NOW)) is None


def test_air_that_fell_against_the_week_before_is_told() -> None:
    times = np.arange(NOW - 9 * DAY, NOW, 900.0)
    damp = np.where(times > NOW - DAY, 0.42, 0.62)
    found = humidity_fall(times, damp, NOW)
    assert found is not None
    assert (round(found.before, 2), round(found.now, 2)) == (0.62, 0.42)
    assert humidity_fall(times, np.where(times > NOW - DAY, 0.50, 0.62), NOW) is None
    assert humidity_fall(times, np.full(len(times), np.nan), NOW) is None
    saturated = np.where(times > NOW - DAY, 0.84, 1.0)
    assert humidity_fall(times, saturated, NOW) is None, "97 % and more is no number"
    sooner = ClimateRules(saturated_humidity=0.90)
    fell = np.where(times > NOW - DAY, 0.80, 0.96)
    assert humidity_fall(times, fell, NOW) is not None
    assert humidity_fall(times, fell, NOW, sooner) is None, "the keeper's sensor ends at 90 %"


def test_a_box_with_dry_air_is_told_after_three_hours() -> None:
    times = np.arange(NOW - DAY, NOW, 300.0)
    for hours, told in ((4.0, True), (2.0, False)):
        humidity = np.where(times > NOW - hours * HOUR, 0.82, 0.98)
        assert (dry_air_in_box(times, humidity, NOW) is not None) is told
    assert dry_air_in_box(times[:3], np.array([0.8, 0.8, 0.8]), NOW) is None


@given(st.lists(st.floats(-0.74, 0.74), min_size=DAYS_BACK, max_size=DAYS_BACK))
def test_what_stays_near_its_target_is_never_told_as_off(days: list[float]) -> None:
    assert lasting_off(np.array(days)) is None


@given(st.lists(st.one_of(st.none(), st.floats(-6.0, 6.0)), min_size=DAYS_BACK, max_size=DAYS_BACK))
def test_too_warm_and_too_cold_are_told_alike(days: list[float | None]) -> None:
    values = np.array([np.nan if d is None else d for d in days])
    warm, cold = lasting_off(values), lasting_off(-values)
    assert (warm is None) == (cold is None)
    if warm and cold:
        assert (warm.days, warm.off_c) == (cold.days, pytest.approx(-cold.off_c))
