"""Many readings drawn with few points: no peak is lost, nothing is made up."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.climate.thinning import thinned

readings = st.lists(
    st.tuples(st.integers(0, 10_000), st.floats(-20.0, 60.0)), min_size=1, max_size=80,
    unique_by=lambda reading: reading[0],
).map(sorted)  # fmt: skip


def drawn(rows, start_s: float, bucket_s: float, count: int):
    times = np.array([t for t, _ in rows], dtype=float)
    values = np.array([v for _, v in rows])
    return thinned(times, values, values, start_s, bucket_s, count)


@given(readings, st.integers(1, 5_000), st.integers(1, 40), st.integers(-500, 3_000))
def test_every_peak_inside_is_kept_and_nothing_is_made_up(rows, bucket_s, count, start_s) -> None:
    buckets = drawn(rows, start_s, bucket_s, count)
    inside = [v for t, v in rows if start_s <= t < start_s + count * bucket_s]
    if not inside:
        assert np.isnan(buckets.low).all()
        return
    assert np.nanmax(buckets.high) == max(inside)
    assert np.nanmin(buckets.low) == min(inside)
    told = {*buckets.low[~np.isnan(buckets.low)], *buckets.high[~np.isnan(buckets.high)]}
    assert told <= set(inside)


@given(readings, st.integers(1, 2_000))
def test_a_bucket_tells_of_its_own_time_only(rows, bucket_s) -> None:
    count = 10_001 // bucket_s + 1
    buckets = drawn(rows, 0, bucket_s, count)
    for n in range(count):
        own = [v for t, v in rows if n * bucket_s <= t < (n + 1) * bucket_s]
        if own:
            assert (buckets.low[n], buckets.high[n]) == (min(own), max(own))
        else:
            assert np.isnan([buckets.low[n], buckets.high[n]]).all()


@given(readings)
def test_hourly_lows_and_highs_thin_to_the_same_as_the_readings_themselves(rows) -> None:
    hours = sorted({t // 600 for t, _ in rows})
    of_hour = [[v for t, v in rows if t // 600 == h] for h in hours]
    rolled = thinned(
        np.array(hours, dtype=float) * 600, np.array([min(v) for v in of_hour]),
        np.array([max(v) for v in of_hour]), 0, 3_600, 3,
    )  # fmt: skip
    straight = drawn(rows, 0, 3_600, 3)
    np.testing.assert_array_equal(rolled.low, straight.low)
    np.testing.assert_array_equal(rolled.high, straight.high)


def test_by_hand() -> None:
    rows = [(0, 31.0), (59, 33.0), (60, 30.0), (240, 29.0)]
    buckets = drawn(rows, 0, 60, 4)
    assert buckets.low[:2].tolist() == [31.0, 30.0]
    assert buckets.high[:2].tolist() == [33.0, 30.0]
    assert np.isnan(buckets.low[2:]).all()


@pytest.mark.parametrize("count", [1, 3])
def test_no_reading_no_point(count: int) -> None:
    nothing = thinned(np.empty(0), np.empty(0), np.empty(0), 0.0, 60.0, count)
    assert np.isnan(nothing.low).all()
    assert nothing.high.shape == (count,)
