"""What follows the pip as distributions, and gaps found whatever the rhythm of a logger."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.development.box_temperature import _runs
from sandboa.core.development.delays import Delay, later
from sandboa.core.development.place_offsets import learned_offset_c, offset_from_set_point_c
from sandboa.core.development.reading_series import ReadingSeries
from sandboa.core.development.rules import EMERGENCE, FIRST_SHED
from sandboa.core.development.sources import RecordRules, SetPoints


def test_quantiles_of_the_known_delays() -> None:
    assert EMERGENCE.quantile_days(0.5) == pytest.approx(1.3)
    assert FIRST_SHED.quantile_days(0.1) == pytest.approx(5.0)
    assert FIRST_SHED.quantile_days(0.9) == pytest.approx(10.0)


def test_midpoints_carry_the_mean_of_the_distribution() -> None:
    mean = 1.3 * np.exp(0.4**2 / 2)
    assert EMERGENCE.nodes_days().mean() == pytest.approx(mean, rel=0.01)
    assert np.all(np.diff(EMERGENCE.nodes_days()) > 0)


@given(st.floats(0.2, 5.0), st.floats(0.05, 0.8))
def test_an_event_after_a_certain_moment_is_the_delay_itself(median: float, sigma: float) -> None:
    """A step at day 1, delayed: half of it has come by day 1 + median."""
    grid = np.linspace(0.0, 60.0, 1201)
    step = (grid >= 1.0).astype(float)
    delayed = later(grid, step, Delay(median, sigma))
    # To within a step of the grid and half the way between two midpoints.
    close = 0.06 + 0.04 * median * sigma
    assert np.interp(0.5, delayed, grid) == pytest.approx(1.0 + median, abs=close)
    assert np.all(np.diff(delayed) >= -1e-12)
    assert delayed[0] == 0.0
    assert delayed[-1] <= 1.0 + 1e-9
    assert np.all(delayed <= step + 1e-12)


@given(
    st.lists(st.sampled_from([1.0, 10.0, 60.0, 600.0, 7200.0, 7201.0, 90_000.0]), max_size=80),
)
def test_runs_are_cut_exactly_at_gaps_over_two_hours(steps: list[float]) -> None:
    """Against the plain reading of the rule, sample by sample."""
    times = np.concatenate([[0.0], np.cumsum(steps)]) if steps else np.zeros(1)
    expected, start = [], 0
    for i, step in enumerate(steps):
        if step > 7200.0:
            expected.append((start, i + 1))
            start = i + 1
    expected.append((start, len(times)))
    assert list(_runs(times, 7200.0)) == expected


def test_series_are_cut_by_time_and_checked_for_shape() -> None:
    series = ReadingSeries(np.array([0.0, 10.0, 20.0]), np.array([30.0, 31.0, 32.0]))
    assert series.between(5.0, 20.0).temperature_c.tolist() == [31.0, 32.0]
    with pytest.raises(ValueError, match="equally long"):
        ReadingSeries(np.zeros(3), np.zeros(2))


def test_the_first_set_point_also_holds_before_it() -> None:
    points = SetPoints((100.0, 200.0), (31.0, 32.0))
    assert [points.at(t) for t in (0.0, 100.0, 199.0, 200.0, 999.0)] == [31, 31, 31, 32, 32]
    assert list(points.pieces(150.0, 250.0)) == [(150.0, 200.0, 31.0), (200.0, 250.0, 32.0)]


def test_a_place_is_compared_over_the_days_the_house_has() -> None:
    times = np.arange(20 * 24) * 3600.0
    cabinet = ReadingSeries(times, np.full(len(times), 31.0))
    recent = times > times[-1] - 5 * 86_400.0
    shelf = ReadingSeries(times, np.where(recent, 31.6, 31.2))
    last_s = float(times[-1])
    assert learned_offset_c(shelf, cabinet, last_s) == pytest.approx(0.2, abs=0.1)
    short = RecordRules(offset_days=4.0)
    assert learned_offset_c(shelf, cabinet, last_s, short) == pytest.approx(0.6)
    shown = SetPoints((0.0,), (31.0,))
    assert offset_from_set_point_c(shelf, shown, last_s, short) == pytest.approx(0.6)
