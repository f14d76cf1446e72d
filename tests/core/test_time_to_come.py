"""What the weeks to come are expected to be, and how far that may be off."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.development import (
    DEFAULT_CLOCK,
    DevelopmentCurve,
    HatchPrior,
    Provenance,
    ReadingSeries,
    SetPoints,
    TemperatureSource,
    box_temperature,
    forecast,
)
from sandboa.core.development.box_temperature import KNOWN_DAYS, Ahead
from sandboa.core.development.record_errors import log_uncertainty
from sandboa.core.development.sources import (
    AHEAD_SD_C,
    CHECKED_PROBE_SD_C,
    ESTIMATED_SD_C,
    UNCHECKED_PROBE_SD_C,
)
from sandboa.core.units import SECONDS_PER_DAY

DAY = SECONDS_PER_DAY
SET = SetPoints((0.0,), (31.5,))


def source(until_day: float, sd_c: float = UNCHECKED_PROBE_SD_C, c: float = 31.5):
    times = np.arange(-8 * DAY, until_day * DAY + 1, 600.0)
    series = ReadingSeries(times, np.full(len(times), c))
    return TemperatureSource(Provenance.SHELF_PROBE, series, sd_c=sd_c, name="Lower")


def at_day(day: float, sources=(), known_by=None):
    return box_temperature(0.0, day * DAY, sources, SET, Ahead(known_by=known_by))


def window_days(temperature) -> float:
    curve = DevelopmentCurve(temperature, DEFAULT_CLOCK)
    told = forecast(curve, 6, prior=HatchPrior()).typical_pip
    return (told.p90 - told.p10) / DAY


def test_on_lay_day_a_place_nobody_measured_is_a_guess() -> None:
    expected = at_day(0).future
    assert (expected.probe, expected.sd_c) == (None, ESTIMATED_SD_C)


def test_on_lay_day_a_known_place_errs_with_the_probe_that_knows_it() -> None:
    lower = source(0)
    expected = at_day(0, [lower], lower).future
    assert (expected.sd_c, expected.probe) == (AHEAD_SD_C, "Lower")
    assert expected.probe_sd_c == UNCHECKED_PROBE_SD_C


def test_a_checked_probe_narrows_the_window_and_knowing_nothing_widens_it() -> None:
    checked, unchecked = source(0, CHECKED_PROBE_SD_C), source(0)
    guess = window_days(at_day(0))
    known = window_days(at_day(0, [unchecked], unchecked))
    best = window_days(at_day(0, [checked], checked))
    assert best < known - 0.3
    assert known < guess - 1.0


def test_the_uncertainty_of_lay_day_by_the_formula() -> None:
    lower = source(0)
    curve = DevelopmentCurve(at_day(0, [lower], lower), DEFAULT_CLOCK)
    days = 735.0 / (31.5 - 19.0)
    error = np.hypot(UNCHECKED_PROBE_SD_C, AHEAD_SD_C) * days / 735.0
    assert log_uncertainty(curve, HatchPrior()) == pytest.approx(
        np.hypot(HatchPrior().sd, error), rel=1e-3
    )


def test_three_days_at_the_box_are_enough_to_expect_by() -> None:
    assert at_day(KNOWN_DAYS - 0.5, [source(60)]).future.probe is None
    assert at_day(KNOWN_DAYS + 0.5, [source(60)]).future.probe == "Lower"


def test_a_probe_silent_for_a_week_is_expected_by_no_longer() -> None:
    fell_silent = source(20)
    assert at_day(22, [fell_silent]).future.probe == "Lower"
    assert at_day(30, [fell_silent]).future.probe is None


def test_a_power_cut_on_lay_day_is_not_taken_for_the_weeks_to_come() -> None:
    times = np.arange(-8 * DAY, 0.25 * DAY + 1, 600.0)
    values = np.where(times > 0.05 * DAY, 26.0, 31.4)
    lower = TemperatureSource(
        Provenance.SHELF_PROBE, ReadingSeries(times, values), offset_c=0.1, name="Lower"
    )
    assert at_day(0.25, [lower], lower).future_c == pytest.approx(31.5)
    # Where nothing is known of the days before, the box's own hours are all there is.
    assert at_day(0.25, [lower]).future_c == pytest.approx(26.1)


def test_after_three_days_the_box_speaks_for_itself() -> None:
    cooler = source(60, c=30.0)
    place = source(60)
    assert at_day(2.0, [cooler], place).future_c == pytest.approx(31.5)
    assert at_day(4.0, [cooler], place).future_c == pytest.approx(30.0)


@given(st.floats(0.0, 50.0), st.sampled_from([CHECKED_PROBE_SD_C, UNCHECKED_PROBE_SD_C]))
def test_measured_days_never_make_it_less_certain(day: float, sd_c: float) -> None:
    lower = source(60, sd_c)

    def uncertain(at: float) -> float:
        curve = DevelopmentCurve(at_day(at, [lower], lower), DEFAULT_CLOCK)
        return log_uncertainty(curve, HatchPrior())

    assert uncertain(day + 5.0) <= uncertain(day) + 1e-9
    assert uncertain(day) >= np.hypot(0.045, sd_c / 12.5) - 1e-6
