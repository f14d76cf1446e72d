"""Limits: what is an emergency, what harms, what is off; and exposure in degree-hours."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

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
    assert breach.since_s == pytest.approx(NOW - 7.5 * HOUR, abs=15 * 60)
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


def swinging(hours: float, middle_c: float, by_c: float, before_c: float = 31.5) -> ReadingSeries:
    """A reading a minute that goes up and down by `by_c` every 20 minutes, ending now."""
    minutes = np.arange(int(hours * 60))
    values = middle_c + by_c * np.sin(2 * np.pi * minutes / 20.0)
    before = np.full(48 * 60, before_c)
    times = NOW - 60.0 * np.arange(len(values) + len(before))[::-1]
    return ReadingSeries(times, np.concatenate([before, values]))


@pytest.mark.parametrize(
    ("middle_c", "by_c", "limit"),
    [(35.3, 0.4, Limit.HOT_EMERGENCY), (19.6, 0.5, Limit.COLD_EMERGENCY)],
)
def test_a_reading_on_the_other_side_does_not_start_an_emergency_anew(middle_c, by_c, limit):
    found = breaches(swinging(30, middle_c, by_c), 31.5, NOW)
    assert found[0].limit is limit
    assert found[0].since_s == pytest.approx(NOW - 30 * HOUR, abs=1.1 * HOUR)


def test_what_is_beyond_for_less_than_its_time_is_no_emergency() -> None:
    assert breaches(swinging(5.5, 35.3, 0.4), 31.5, NOW)[0].limit is Limit.HARM
    # Peaks above the limit around a mean below it are none: eggs feel the mean.
    half = breaches(swinging(30, 34.8, 0.4), 31.5, NOW)
    assert Limit.HOT_EMERGENCY not in {b.limit for b in half}


def test_an_emergency_that_has_cooled_ends() -> None:
    assert breaches(held((48, 31.5), (8, 35.5), (4, 31.5)), 31.5, NOW)[0].limit is Limit.SWING


@given(st.floats(34.0, 39.0), st.floats(0.5, 12.0))
def test_hotter_or_longer_is_never_less(above_c: float, hours: float) -> None:
    order = [Limit.HOT_EMERGENCY, Limit.HARM]

    def gravest(c: float, h: float) -> int:
        found = breaches(held((48, 31.5), (h, c)), 31.5, NOW)
        return min((order.index(b.limit) for b in found if b.limit in order), default=9)

    assert gravest(above_c + 1.0, hours) <= gravest(above_c, hours)
    assert gravest(above_c, hours + 1.0) <= gravest(above_c, hours)
