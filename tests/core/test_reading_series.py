"""Sums kept with readings: every question has the answer it has without them."""

import itertools

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.development import (
    DEFAULT_CLOCK,
    DevelopmentCurve,
    Provenance,
    ReadingSeries,
    SetPoints,
    TemperatureSource,
    box_temperature,
    forecast,
)
from sandboa.core.development.sources import LOGGER_GAP_S

DAY = 86_400.0
#: Minutes from reading to reading; a gap longer than two hours among them now and then.
steps_min = st.lists(st.sampled_from([1, 5, 10, 60, 119, 300]), min_size=3, max_size=40)
#: °C, on both sides of both kinks of the clock.
warmth_c = st.floats(15.0, 38.0)


@st.composite
def records(draw: st.DrawFn) -> ReadingSeries:
    times = np.cumsum(np.array(draw(steps_min), float)) * 60.0
    values = draw(st.lists(warmth_c, min_size=len(times), max_size=len(times)))
    return ReadingSeries(times, np.array(values))


@given(records(), st.data())
def test_carried_on_they_are_what_they_would_be_made_anew(
    record: ReadingSeries, data: st.DataObject
) -> None:
    cut = data.draw(st.integers(1, len(record.times_s)))
    begun = record.part(0, cut).summed()
    carried = begun.followed_by(record.times_s[cut:], record.temperature_c[cut:])
    anew = record.summed()
    assert carried.sums is not None
    assert anew.sums is not None
    assert np.array_equal(carried.times_s, record.times_s)
    assert carried.sums.degree_s == pytest.approx(anew.sums.degree_s)
    assert carried.sums.lowest_c == anew.sums.lowest_c == record.temperature_c.min()
    assert carried.sums.highest_c == anew.sums.highest_c == record.temperature_c.max()


@given(records(), st.floats(-0.2, 1.2), st.floats(-0.2, 1.2), st.sampled_from([0.0, -0.3]))
def test_a_stretch_is_covered_whole_and_means_the_same_with_them(
    record: ReadingSeries, one: float, other: float, offset_c: float
) -> None:
    at_s = record.times_s[0] + np.array(sorted((one, other))) * record.seconds
    if at_s[1] - at_s[0] < 1.0:
        return
    plain, summed = record.across(*at_s), record.summed().across(*at_s)
    joints = [(float(p.times_s[0]), float(p.times_s[-1])) for p in summed]
    assert joints[0][0] == at_s[0]
    assert joints[-1][1] == at_s[1]
    assert all(left[1] == right[0] for left, right in itertools.pairwise(joints))
    assert [p.degree_s(offset_c) for p in summed] == pytest.approx(
        [p.degree_s(offset_c) for p in plain], abs=1e-3
    )
    fine_s = np.linspace(*at_s, 20_001)
    fine_c = np.interp(fine_s, record.times_s, record.temperature_c) + offset_c
    by_hand = float(((fine_c[1:] + fine_c[:-1]) / 2.0 * np.diff(fine_s)).sum())
    whole = sum(p.degree_s(offset_c) for p in summed)
    assert whole == pytest.approx(by_hand, rel=1e-4)


@given(records(), st.sampled_from([0.0, 0.4]), st.sampled_from([0.0, 1200.0, 9000.0]))
def test_a_clutch_has_developed_as_far_with_them_as_without(
    record: ReadingSeries, offset_c: float, later_s: float
) -> None:
    curves = []
    for series in (record, record.summed()):
        source = TemperatureSource(Provenance.BOX_PROBE, series, offset_c=offset_c)
        as_of_s = float(record.times_s[-1]) + later_s
        temperature = box_temperature(30.0, as_of_s, [source], SetPoints((0.0,), (31.0,)))
        curves.append(DevelopmentCurve(temperature, DEFAULT_CLOCK))
    plain, summed = curves
    assert summed.now == pytest.approx(plain.now, rel=1e-9, abs=1e-12)
    assert summed.temperature.future_c == pytest.approx(plain.temperature.future_c)
    for ours, other in zip(summed.samples(), plain.samples(), strict=True):
        assert ours == pytest.approx(other, rel=1e-9, abs=1e-12)


def test_a_season_of_minutes_is_forecast_the_same_with_them_as_without() -> None:
    times = np.arange(55 * 1440) * 60.0
    record = ReadingSeries(times, 31.0 + 0.4 * np.sin(times / 5000.0))
    told = []
    for series in (record, record.summed()):
        source = TemperatureSource(Provenance.BOX_PROBE, series, offset_c=0.1)
        as_of_s = float(times[-1]) + 20.0
        temperature = box_temperature(0.0, as_of_s, [source], SetPoints((0.0,), (31.0,)))
        told.append(forecast(DevelopmentCurve(temperature, DEFAULT_CLOCK), 6))
    plain, summed = told
    assert plain.first_pip is not None
    assert summed.first_pip is not None
    assert summed.first_pip.p50 == pytest.approx(plain.first_pip.p50, abs=1.0)
    assert summed.fraction == pytest.approx(plain.fraction, rel=1e-9)


def test_nothing_of_a_season_is_copied_where_it_is_cut() -> None:
    times = np.arange(1000) * 60.0
    record = ReadingSeries(times, np.full(1000, 31.0)).summed()
    parts = record.across(-300.0, float(times[-1]) + 30.0)
    assert [len(part.times_s) for part in parts] == [2, 1000, 2]
    middle = parts[1]
    assert middle.sums is not None
    assert record.sums is not None
    assert np.shares_memory(middle.times_s, record.times_s)
    assert np.shares_memory(middle.temperature_c, record.temperature_c)
    assert np.shares_memory(middle.sums.degree_s, record.sums.degree_s)


def test_readings_that_were_cut_at_a_move_speak_up_to_it_and_no_further() -> None:
    times = np.arange(10) * 600.0
    source = TemperatureSource(
        Provenance.BOX_PROBE,
        ReadingSeries(times, np.full(10, 30.0)),
        speaks_between=(0.0, 6000.0),
    )
    resolved = box_temperature(0.0, DAY, [source], SetPoints((0.0,), (31.5,)))
    assert [(s.end_s, s.measured) for s in resolved.stretches] == [(6000.0, True), (DAY, False)]
    assert 6000.0 - times[-1] < LOGGER_GAP_S
