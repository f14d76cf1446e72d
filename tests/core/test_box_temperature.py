"""The chain of sources: gaps, ends, offsets, and what the time to come is taken as."""

import itertools

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.development import (
    BoxTemperature,
    Provenance,
    ReadingSeries,
    SetPoints,
    TemperatureSource,
    box_temperature,
    learned_offset_c,
)
from sandboa.core.development.box_temperature import Ahead
from sandboa.core.development.sources import HAND_GAP_S

HOUR = 3600.0
DAY = 24 * HOUR
SET_POINTS = SetPoints((0.0,), (31.5,))


def logger(
    times_h: list[float], values: list[float], provenance: Provenance = Provenance.BOX_PROBE, **more
) -> TemperatureSource:
    series = ReadingSeries(np.array(times_h) * HOUR, np.array(values, float))
    return TemperatureSource(provenance, series, **more)


def resolve(*sources: TemperatureSource, hours: float = 24, **more) -> BoxTemperature:
    return box_temperature(0.0, hours * HOUR, sources, SET_POINTS, Ahead(**more))


def spans(temperature: BoxTemperature) -> list[tuple[str, float, float]]:
    return [(s.provenance, s.start_s / HOUR, s.end_s / HOUR) for s in temperature.stretches]


def test_without_readings_the_set_point_stands_in() -> None:
    resolved = resolve()
    assert spans(resolved) == [("set point", 0, 24)]
    assert resolved.measured_share == 0
    assert resolved.future_c == 31.5


def test_a_gap_of_two_hours_is_bridged_and_a_longer_one_goes_whole_to_the_set_point() -> None:
    bridged = resolve(logger([0, 2, 4, 6], [30, 30, 30, 30]), hours=6)
    assert bridged.measured_share == 1
    gap = resolve(logger([0, 1, 4, 5, 6], [30] * 5), hours=6)
    assert spans(gap) == [("box probe", 0, 1), ("set point", 1, 4), ("box probe", 4, 6)]
    assert gap.measured_share == pytest.approx(0.5)


def test_first_and_last_reading_hold_up_to_two_hours_to_lay_and_to_now() -> None:
    held = resolve(logger([1.5, 3, 4.5], [30, 30, 30]), hours=6)
    assert held.measured_share == 1
    late = resolve(logger([3, 4, 5], [30, 30, 30]), hours=8)
    assert spans(late) == [("set point", 0, 3), ("box probe", 3, 5), ("set point", 5, 8)]


def test_readings_before_lay_and_after_now_are_cut_at_the_edge() -> None:
    cut = resolve(logger([-1, 1, 3, 5], [28, 30, 32, 34]), hours=4)
    assert spans(cut) == [("box probe", 0, 4)]
    first, last = cut.stretches[0].temperature_c[[0, -1]]
    assert first == pytest.approx(29)
    # The reading of hour 5 is not known yet at hour 4: the one of hour 3 holds.
    assert last == pytest.approx(32)


def test_each_source_fills_only_what_better_ones_left_open() -> None:
    box = logger([0, 1, 2], [30, 30, 30])
    shelf = logger([1, 2, 3, 4, 5], [31] * 5, Provenance.SHELF_PROBE)
    cabinet = logger(
        [float(h) for h in range(9)], [32] * 9, Provenance.CABINET_PROBE, offset_c=-0.4
    )
    resolved = resolve(box, shelf, cabinet, hours=10)
    assert spans(resolved) == [
        ("box probe", 0, 2),
        ("shelf probe", 2, 5),
        ("cabinet probe", 5, 10),
    ]
    assert resolved.stretches[-1].temperature_c[0] == pytest.approx(31.6)


def test_hand_readings_stand_in_within_a_day_but_are_not_measured() -> None:
    by_hand = logger(
        [0, 24, 72], [30, 30, 30], Provenance.BY_HAND, measured=False, longest_gap_s=HAND_GAP_S
    )
    resolved = resolve(by_hand, hours=72)
    assert spans(resolved) == [("by hand", 0, 24), ("set point", 24, 72)]
    assert resolved.measured_share == 0


def test_set_point_changes_are_followed() -> None:
    changed = box_temperature(0.0, 4 * HOUR, [], SetPoints((0.0, 2 * HOUR), (31.0, 32.0)))
    assert [s.temperature_c[0] for s in changed.stretches] == [31.0, 32.0]
    assert changed.future_c == pytest.approx(31.5)


def test_future_is_the_mean_of_the_last_seven_days() -> None:
    hours = list(range(0, 15 * 24, 1))
    values = [28.0 if h < 8 * 24 else 31.0 for h in hours]
    resolved = resolve(logger(hours, values), hours=15 * 24 - 1)
    assert resolved.future_c == pytest.approx(31.0, abs=0.01)
    assert resolve(logger(hours, values), hours=48, future_c=29.0).future_c == 29.0


def test_as_of_before_lay_is_refused() -> None:
    with pytest.raises(ValueError, match="not laid yet"):
        box_temperature(10.0, 5.0, [], SET_POINTS)


def test_learned_offset_is_the_mean_difference_of_the_last_fourteen_days() -> None:
    times = np.arange(0, 30 * DAY, 600.0)
    cabinet = ReadingSeries(times, np.full(len(times), 31.5))
    shelf = ReadingSeries(times + 137, np.where(times < 16 * DAY, 20.0, 31.1))
    assert learned_offset_c(shelf, cabinet, 30 * DAY) == pytest.approx(-0.4, abs=0.01)
    nothing = ReadingSeries(np.empty(0), np.empty(0))
    assert learned_offset_c(nothing, cabinet, 30 * DAY) is None
    assert learned_offset_c(shelf, nothing, 30 * DAY) is None


@given(
    st.lists(st.floats(0, 240, allow_nan=False), min_size=0, max_size=60, unique=True),
    st.floats(1, 240),
)
def test_the_record_has_no_hole_and_no_overlap(times_h: list[float], hours: float) -> None:
    times_h = sorted({round(t, 3) for t in times_h})
    resolved = resolve(logger(times_h, [31.0] * len(times_h)), hours=hours)
    edges = [(s.start_s, s.end_s) for s in resolved.stretches]
    assert edges[0][0] == 0
    assert edges[-1][1] == pytest.approx(hours * HOUR)
    for (_, end), (start, _) in itertools.pairwise(edges):
        assert end == pytest.approx(start)
    assert 0 <= resolved.measured_share <= 1
