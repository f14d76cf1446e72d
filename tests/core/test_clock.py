"""The development clock: known incubation times, and what must hold at any temperature."""

import itertools

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.development import DEFAULT_CLOCK
from sandboa.core.units import SECONDS_PER_DAY

temperatures = st.floats(-10, 50, allow_nan=False)


@pytest.mark.parametrize(
    ("temperature_c", "days"),
    [(28.5, 77.4), (30.0, 66.8), (31.1, 60.7), (31.67, 58.0), (32.0, 56.5)],
)
def test_days_to_pip_at_known_temperatures(temperature_c: float, days: float) -> None:
    assert 1 / DEFAULT_CLOCK.rate_per_day(temperature_c) == pytest.approx(days, abs=0.05)


def test_nothing_develops_at_or_below_zero_and_warmth_stops_helping_above_the_cap() -> None:
    assert DEFAULT_CLOCK.rate_per_day(19.0) == 0
    assert DEFAULT_CLOCK.rate_per_day(5.0) == 0
    assert DEFAULT_CLOCK.rate_per_day(36.0) == DEFAULT_CLOCK.rate_per_day(33.0)


@given(temperatures, temperatures)
def test_warmer_is_never_slower(a: float, b: float) -> None:
    cold, warm = sorted((a, b))
    assert DEFAULT_CLOCK.rate_per_day(cold) <= DEFAULT_CLOCK.rate_per_day(warm)


@given(temperatures, temperatures, st.floats(0.01, 0.99))
def test_cutting_a_ramp_in_two_changes_nothing(start: float, end: float, cut: float) -> None:
    """Also across the two kinks of the rate."""
    middle = start + cut * (end - start)
    whole = DEFAULT_CLOCK.steps(np.array([0.0, SECONDS_PER_DAY]), np.array([start, end]))
    halves = DEFAULT_CLOCK.steps(
        np.array([0.0, cut, 1.0]) * SECONDS_PER_DAY, np.array([start, middle, end])
    )
    assert halves.sum() == pytest.approx(whole.sum(), abs=1e-9)


def test_a_ramp_across_the_cap_is_exact() -> None:
    """31 to 35 °C in a day: half the time below the cap (mean 32), half at the cap."""
    gained = DEFAULT_CLOCK.steps(np.array([0.0, SECONDS_PER_DAY]), np.array([31.0, 35.0]))
    assert gained.sum() == pytest.approx((0.5 * 13 + 0.5 * 14) / 735)


@given(st.lists(temperatures, min_size=2, max_size=40))
def test_blocks_and_kinks_agree_with_the_single_ramps(values: list[float]) -> None:
    times = np.arange(len(values)) * 3600.0
    steps = DEFAULT_CLOCK.steps(times, np.array(values))
    singly = [DEFAULT_CLOCK.ramp_rate_per_day(a, b) / 24 for a, b in itertools.pairwise(values)]
    assert steps == pytest.approx(singly, abs=1e-9)
    assert DEFAULT_CLOCK.total(times, np.array(values)) == pytest.approx(sum(singly), abs=1e-9)
