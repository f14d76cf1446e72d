"""The ribbon's pieces: nothing lost, nothing invented, gaps kept apart."""

import itertools

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from sandboa.core.development import (
    DEFAULT_CLOCK,
    DevelopmentCurve,
    Provenance,
    ReadingSeries,
    SetPoints,
    TemperatureSource,
    box_temperature,
)
from sandboa.core.development.exposure import Exposure, exposure
from sandboa.core.development.ribbon import ribbon

HOUR = 3600.0
SET_POINTS = SetPoints((0.0,), (31.5,))


def curve(times_h: list[float], values: list[float], hours: float) -> DevelopmentCurve:
    source = TemperatureSource(
        Provenance.SHELF_PROBE, ReadingSeries(np.array(times_h) * HOUR, np.array(values, float))
    )
    temperature = box_temperature(0.0, hours * HOUR, [source], SET_POINTS)
    return DevelopmentCurve(temperature, DEFAULT_CLOCK)


def test_pieces_join_from_lay_to_now_in_time_and_in_development() -> None:
    hours = [float(h) for h in range(241)]
    made = curve(hours, [31.0] * 241, 240)
    pieces = ribbon(made, SET_POINTS, pieces=24)
    assert len(pieces) == 24
    assert (pieces[0].start_s, pieces[-1].end_s) == (0.0, 240 * HOUR)
    assert pieces[0].development_start == 0
    assert pieces[-1].development_end == pytest.approx(made.now)
    for before, after in itertools.pairwise(pieces):
        assert before.end_s == after.start_s
        assert before.development_end == pytest.approx(after.development_start)
    assert all(piece.mean_c == pytest.approx(31.0) for piece in pieces)


def test_a_gap_shorter_than_a_piece_still_shows() -> None:
    hours = [float(h) for h in range(101)] + [float(h) for h in range(104, 241)]
    pieces = ribbon(curve(hours, [30.0] * len(hours), 240), SET_POINTS, pieces=10)
    gaps = [piece for piece in pieces if not piece.measured]
    assert [(g.start_s / HOUR, g.end_s / HOUR) for g in gaps] == [(100, 104)]
    assert gaps[0].provenance == Provenance.SET_POINT
    assert gaps[0].mean_c == pytest.approx(31.5)


def test_on_lay_day_there_is_no_ribbon_yet() -> None:
    assert ribbon(curve([], [], 0.0), SET_POINTS) == ()


@settings(deadline=None, max_examples=30)
@given(st.lists(st.floats(20, 36), min_size=2, max_size=60), st.integers(1, 50))
def test_the_mean_of_the_pieces_is_the_mean_of_the_record(values: list[float], count: int) -> None:
    hours = [float(h) for h in range(len(values))]
    made = curve(hours, values, hours[-1])
    pieces = ribbon(made, SET_POINTS, pieces=count)
    seconds = sum(p.end_s - p.start_s for p in pieces)
    degrees = sum(p.mean_c * (p.end_s - p.start_s) for p in pieces)
    assert degrees / seconds == pytest.approx(np.trapezoid(values, hours) / hours[-1], abs=1e-6)


@pytest.mark.parametrize(
    ("mean_c", "expected"),
    [
        (24.0, "cold"),
        (26.9, "cold"),
        (28.5, "cold"),
        (30.4, "cool"),
        (31.5, "fine"),
        (32.6, "warm"),
        (33.6, "hot"),
    ],
)
def test_exposure_classes_at_a_set_point_of_31_5(mean_c: float, expected: str) -> None:
    assert exposure(mean_c, 31.5) == expected


@given(st.floats(15, 40), st.floats(15, 40), st.floats(27, 33))
def test_warmer_is_never_a_colder_class(a: float, b: float, set_point_c: float) -> None:
    order = list(Exposure)
    low, high = sorted((a, b))
    assert order.index(exposure(low, set_point_c)) <= order.index(exposure(high, set_point_c))
