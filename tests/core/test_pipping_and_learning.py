"""A6: pips seen and not seen. A8: how good it was. What a place differs by from its cabinet."""

import numpy as np
import pytest

from sandboa.core.development import (
    DEFAULT_CLOCK,
    DevelopmentCurve,
    EggGroup,
    Provenance,
    ReadingSeries,
    SetPoints,
    TemperatureSource,
    Window,
    box_temperature,
    forecast,
    forecast_clutch,
    learned_offset_c,
    offset_from_set_point_c,
    score,
)
from sandboa.core.development.box_temperature import Ahead

DAY = 86_400.0


def curve_at(day: float, temperature_c: float = 31.67) -> DevelopmentCurve:
    """A clutch on that day, measured the whole time by a checked probe."""
    times = np.arange(0.0, day * DAY + 1, 600.0)
    series = ReadingSeries(times, np.full(len(times), temperature_c))
    source = TemperatureSource(Provenance.BOX_PROBE, series, sd_c=0.1)
    temperature = box_temperature(0.0, day * DAY, [source], SetPoints((0.0,), (temperature_c,)))
    return DevelopmentCurve(temperature, DEFAULT_CLOCK)


def forecast_at(day: float, pipped_days: list[float], eggs: int = 6):
    curve = curve_at(day)
    return forecast(curve, eggs, pipped_s=[d * DAY for d in pipped_days])


def test_an_early_pip_moves_the_clutch_forward() -> None:
    before = forecast_at(54.0, [])
    after = forecast_at(54.0, [53.5])
    assert after.typical_pip.p50 < before.typical_pip.p50 - 1.0 * DAY
    assert after.typical_pip.p90 - after.typical_pip.p10 < (
        before.typical_pip.p90 - before.typical_pip.p10
    )
    assert (after.pipped, after.first_pipped_s, after.first_pip) == (1, 53.5 * DAY, None)


def test_no_window_of_a_closed_egg_reaches_into_the_past() -> None:
    for day in (54.0, 57.0, 63.0):
        told = forecast_at(day, [53.0, 53.4])
        for window in (told.next_pip, told.last_pip, told.next_out, told.all_out, told.first_shed):
            assert window.p10 >= day * DAY - 1.0
        assert told.next_pip.p50 <= told.last_pip.p50


def test_when_all_have_pipped_nothing_is_left_to_forecast_but_what_follows() -> None:
    told = forecast_at(60.0, [57.0, 58.0, 59.0], eggs=3)
    assert told.next_pip is None
    assert told.last_pip is None
    assert told.typical_pip.p10 == pytest.approx(58.0 * DAY)
    assert told.typical_pip.p90 == pytest.approx(58.0 * DAY)
    assert told.all_out.p50 > 60.0 * DAY
    assert told.first_shed.p50 > 60.0 * DAY


def test_the_order_in_which_pips_are_told_does_not_matter() -> None:
    one, other = forecast_at(56.0, [54.0, 54.6, 55.5]), forecast_at(56.0, [55.5, 54.0, 54.6])
    assert one.last_pip.p50 == pytest.approx(other.last_pip.p50)
    assert one.typical_pip.p10 == pytest.approx(other.typical_pip.p10)


@pytest.mark.parametrize(("pips", "eggs"), [([50.0, 51.0], 1), ([70.0], 6)])
def test_pips_that_cannot_be_are_refused(pips, eggs) -> None:
    with pytest.raises(ValueError, match="pip"):
        forecast_at(60.0, pips, eggs)


def test_a_score_counts_errors_and_what_the_windows_held() -> None:
    window = Window(*(d * DAY for d in (50, 53, 55, 57, 60)))
    told = score(30, [(window, 54 * DAY), (window, 59 * DAY), (window, 62 * DAY)])
    assert (told.clutches, told.in_half, told.in_eighty) == (3, 1, 2)
    assert told.bias_days == pytest.approx((1 - 4 - 7) / 3)
    assert told.error_days == pytest.approx((1 + 4 + 7) / 3)
    assert score(30, []) is None


def series(days: np.ndarray, values: np.ndarray) -> ReadingSeries:
    return ReadingSeries(days * DAY, values)


def test_offsets_are_deaf_to_two_days_without_a_fan() -> None:
    days = np.arange(0.0, 14.0, 1 / 144)
    cabinet = np.full(len(days), 31.5)
    lower = np.where((days > 5) & (days < 7), 25.0, 31.2)
    offset = learned_offset_c(series(days, lower), series(days, cabinet), 14 * DAY)
    assert offset == pytest.approx(-0.3)


def test_an_offset_is_learned_up_to_where_the_place_fell_silent() -> None:
    days = np.arange(0.0, 60.0, 1 / 24)
    cabinet = series(days, np.full(len(days), 31.5))
    lower = series(days[days < 20], np.full((days < 20).sum(), 31.1))
    assert learned_offset_c(lower, cabinet, 60 * DAY) == pytest.approx(-0.4)


def test_what_a_thermostat_shows_and_what_is_measured_differ_by_a_known_offset() -> None:
    days = np.arange(0.0, 10.0, 1 / 24)
    set_points = SetPoints((0.0, 5 * DAY), (31.0, 32.0))
    measured = series(days, np.where(days < 5, 30.6, 31.6))
    assert offset_from_set_point_c(measured, set_points, 10 * DAY) == pytest.approx(-0.4)
    empty = ReadingSeries(np.empty(0), np.empty(0))
    assert offset_from_set_point_c(empty, set_points, 10 * DAY) is None


def test_after_a_new_set_point_only_what_follows_tells_of_the_future() -> None:
    times = np.arange(0.0, 10 * DAY, 600.0)
    values = np.where(times < 9 * DAY, 31.5, 30.0)
    source = TemperatureSource(Provenance.BOX_PROBE, ReadingSeries(times, values))
    set_points = SetPoints((0.0, 9 * DAY), (31.5, 30.0))
    told = box_temperature(0.0, 10 * DAY, [source], set_points, Ahead(settled_since_s=9 * DAY))
    assert told.future_c == pytest.approx(30.0, abs=0.02)
    soon = box_temperature(0.0, 9.1 * DAY, [source], set_points, Ahead(settled_since_s=9 * DAY))
    assert soon.future_c == 30.0
    assert box_temperature(0.0, 10 * DAY, [source], set_points).future_c > 31.0


def test_closed_eggs_far_beyond_their_time_speak_fully_against_an_early_pip_elsewhere() -> None:
    """Of one clutch two eggs in the warm pipped; those in the cool are not due by that, or are."""
    cool, warm = curve_at(60.0, 30.0), curve_at(60.0, 32.0)
    pips = (52.0 * DAY, 52.5 * DAY)
    told = forecast_clutch([EggGroup(warm, 2, pips), EggGroup(cool, 6)])
    alone = forecast_clutch([EggGroup(warm, 2, pips)])
    assert told.next_pip is not None
    assert told.next_pip.p10 >= 60.0 * DAY
    # By the warm ones alone the cool ones are due on day 61 or so.
    assert told.last_pip.p50 < 66.0 * DAY
    assert alone.last_pip is None
