"""Limits: what is an emergency, what harms, what is off; and exposure in degree-hours."""

import numpy as np
import pytest

from sandboa.core.climate import Limit, breaches, exposure_totals
from sandboa.core.climate.thinning import thinned
from sandboa.core.development import ReadingSeries

HOUR = 3600.0
NOW = 100 * HOUR


def held(*steps: tuple[float, float]) -> ReadingSeries:
    """(hours, °C) one after the other, a reading a minute, ending now."""
    values = np.concatenate([np.full(int(hours * 60), c) for hours, c in steps])
    times = NOW - 60.0 * np.arange(len(values))[::-1]
    return ReadingSeries(times, values)


@pytest.mark.parametrize(
    ("steps", "limits"),
    [
        ([(48, 31.5)], []),
        ([(48, 31.5), (7, 35.5)], [Limit.HOT_EMERGENCY, Limit.HARM, Limit.SWING]),
        ([(48, 31.5), (5, 35.5)], [Limit.HARM, Limit.SWING]),
        ([(48, 31.5), (1.2, 37.5)], [Limit.HOT_EMERGENCY, Limit.HARM, Limit.SWING]),
        ([(30, 31.5), (25, 19.0)], [Limit.COLD_EMERGENCY, Limit.SLOW]),
        ([(30, 31.5), (23, 19.0)], [Limit.SLOW, Limit.SWING]),
        ([(30, 31.5), (2, 26.0)], [Limit.SLOW, Limit.SWING]),
        ([(30, 31.5), (2, 33.2)], [Limit.OFF_TARGET]),
        ([(30, 31.5), (0.2, 26.0)], [Limit.SWING]),
        ([(30, 31.5), (2, 26.0), (25, 31.5)], []),
    ],
)
def test_which_limits_are_passed_now(steps, limits) -> None:
    found = breaches(held(*steps), 31.5, NOW)
    assert [b.limit for b in found] == limits


def test_a_limit_is_passed_since_the_last_reading_within_it() -> None:
    breach = breaches(held((30, 31.5), (1, 37.2), (6.5, 36.0)), 31.5, NOW)[0]
    assert breach.limit is Limit.HOT_EMERGENCY
    assert breach.since_s == pytest.approx(NOW - 7.5 * HOUR, abs=61)
    assert breach.extreme_c == 37.2


def test_silence_is_no_alarm_of_temperature() -> None:
    series = held((10, 37.5))
    assert breaches(series, 31.5, NOW + 3 * HOUR) == []
    assert breaches(ReadingSeries(np.empty(0), np.empty(0)), 31.5, NOW) == []


def test_exposure_counts_time_and_degree_hours() -> None:
    totals = exposure_totals(held((10, 31.5), (4, 35.5), (5, 25.0)))
    assert totals.hours_harmful == pytest.approx(4, abs=0.05)
    assert totals.degree_hours_harmful == pytest.approx(8, abs=0.1)
    assert totals.hours_slow == pytest.approx(5, abs=0.05)
    assert totals.degree_hours_slow == pytest.approx(10, abs=0.1)


def test_thinning_keeps_every_peak_and_tells_gaps() -> None:
    times = np.arange(0.0, 1000.0, 10.0)
    times = times[(times < 300) | (times >= 400)]
    values = np.sin(times) + np.where(times == 550.0, 20.0, 0.0)
    buckets = thinned(times, values, values, 0.0, 50.0, 20)
    assert np.nanmax(buckets.high) == values.max()
    assert np.nanmin(buckets.low) == values.min()
    assert np.isnan(buckets.low[6:8]).all()
    assert not np.isnan(buckets.low[8])
    for i in range(20):
        inside = values[(times >= 50 * i) & (times < 50 * i + 50)]
        if len(inside):
            assert (buckets.low[i], buckets.high[i]) == (inside.min(), inside.max())
