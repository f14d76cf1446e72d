"""Batteries and signals that may not last a clutch: known values, edges, and what cannot be."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.climate.sensor_health import (
    BATTERY_LOW_PERCENT,
    LINK_WEAK,
    SIGNAL_WEAK_DBM,
    battery_is_low,
    link_is_weak,
    signal_is_weak,
)
from sandboa.core.errors import NotPlausible


def test_known_batteries_signals_and_links() -> None:
    assert (battery_is_low(9), battery_is_low(15), battery_is_low(16)) == (True, True, False)
    assert (signal_is_weak(-92), signal_is_weak(-88), signal_is_weak(-60)) == (True, False, False)
    assert (link_is_weak(10), link_is_weak(25), link_is_weak(120)) == (True, False, False)


@given(st.floats(0, 100), st.floats(0, 100))
def test_a_fuller_battery_is_no_lower(one: float, other: float) -> None:
    low, high = sorted((one, other))
    assert battery_is_low(low) >= battery_is_low(high)
    assert battery_is_low(one) == (one <= BATTERY_LOW_PERCENT)


@pytest.mark.parametrize(
    ("judge", "value"),
    [
        (battery_is_low, 3000.0),
        (battery_is_low, -1.0),
        (signal_is_weak, 80.0),
        (signal_is_weak, float("nan")),
        (link_is_weak, 256.0),
    ],
)
def test_what_is_no_such_value_is_refused(judge, value: float) -> None:
    with pytest.raises(NotPlausible):
        judge(value)


def test_the_limits_lie_within_what_can_be() -> None:
    assert 0 < BATTERY_LOW_PERCENT < 100
    assert -150 < SIGNAL_WEAK_DBM < 20
    assert 0 < LINK_WEAK < 255
