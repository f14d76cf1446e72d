"""Forecast windows: known values of the rules, and what must hold for any record."""

import itertools
from dataclasses import astuple
from statistics import NormalDist

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from sandboa.core.development import (
    DEFAULT_CLOCK,
    DevelopmentCurve,
    Forecast,
    HatchPrior,
    Provenance,
    ReadingSeries,
    SetPoints,
    TemperatureSource,
    box_temperature,
    cold_spells,
    forecast,
)
from sandboa.core.units import celsius_from_fahrenheit

DAY = 86_400.0
egg_temperatures = st.floats(26.0, 33.0)


def at_set_point(set_point_c: float, day: float, eggs: int = 6, **more) -> Forecast:
    temperature = box_temperature(0.0, day * DAY, [], SetPoints((0.0,), (set_point_c,)))
    return forecast(DevelopmentCurve(temperature, DEFAULT_CLOCK), eggs, **more)


def measured(values: np.ndarray, every_s: float, set_point_c: float = 31.5, sd_c: float = 0.3):
    times = np.arange(len(values)) * every_s
    source = TemperatureSource(Provenance.BOX_PROBE, ReadingSeries(times, values), sd_c=sd_c)
    temperature = box_temperature(
        0.0, float(times[-1]), [source], SetPoints((0.0,), (set_point_c,))
    )
    return DevelopmentCurve(temperature, DEFAULT_CLOCK)


@pytest.mark.parametrize(
    ("set_point_c", "days"),
    [(28.5, 77.37), (30.0, 66.82), (31.1, 60.74), (31.67, 58.01), (32.0, 56.54)],
)
def test_the_typical_egg_pips_at_the_known_day(set_point_c: float, days: float) -> None:
    made = at_set_point(set_point_c, day=0.0)
    assert made.typical_pip.p50 / DAY == pytest.approx(days, abs=0.01)


def test_quantiles_solve_the_lognormal_exactly() -> None:
    """Set point only: s² = 0.0533² + (0.7 / 12.5)², the 90 % quantile is exp(1.2816 s) x 58.8 d."""
    made = at_set_point(31.5, day=25.0)
    log_sd = np.hypot(HatchPrior().sd, 0.7 / 12.5)
    assert made.log_sd == pytest.approx(log_sd)
    assert made.typical_pip.p90 / DAY == pytest.approx(58.8 * np.exp(1.281552 * log_sd), abs=0.02)
    assert made.typical_pip.p25 / DAY == pytest.approx(58.8 * np.exp(-0.674490 * log_sd), abs=0.02)


@pytest.mark.parametrize("n", [1, 2, 6, 12])
def test_first_and_last_pip_stand_apart_by_the_extremes_of_n_eggs(n: int) -> None:
    """Of eggs of which all else is known: the median of the largest of n normals, to 40 minutes."""
    sure = HatchPrior(sd=1e-4)
    made = forecast(measured(np.full(40 * 24 + 1, 31.5), 3600.0, sd_c=1e-4), n, prior=sure)
    apart = (made.last_pip.p50 - made.first_pip.p50) / 2.0 / DAY
    assert apart == pytest.approx(NormalDist().inv_cdf(0.5 ** (1 / n)), abs=0.028)


def simulated(log_sd: float, eggs: int, clutches: int = 200_000) -> np.ndarray:
    """Pips of many clutches by brute force: what they share, and what each egg has of its own."""
    random = np.random.default_rng(1)
    typical = 58.8 * np.exp(random.normal(0, log_sd, (clutches, 1)))
    return typical + random.normal(0, 1.0, (clutches, eggs))


def quantiles(window) -> list[float]:
    return [q / DAY for q in astuple(window)]


def test_first_and_last_pip_are_those_of_the_eggs_by_brute_force() -> None:
    made = at_set_point(31.5, day=10, eggs=6)
    pips = simulated(made.log_sd, 6)
    for window, came in ((made.first_pip, pips.min(axis=1)), (made.last_pip, pips.max(axis=1))):
        assert quantiles(window) == pytest.approx(
            list(np.percentile(came, [10, 25, 50, 75, 90])), abs=0.12
        )


def test_next_and_all_out_follow_the_pips_by_the_lognormal_delay() -> None:
    made = at_set_point(31.5, day=10, eggs=6)
    pips = simulated(made.log_sd, 6)
    outs = pips + 1.3 * np.exp(np.random.default_rng(2).normal(0, 0.4, pips.shape))
    for window, came in ((made.next_out, outs.min(axis=1)), (made.all_out, outs.max(axis=1))):
        assert quantiles(window) == pytest.approx(
            list(np.percentile(came, [10, 25, 50, 75, 90])), abs=0.12
        )


def test_eggs_that_are_further_apart_pip_further_apart() -> None:
    near = at_set_point(31.5, 10, prior=HatchPrior(egg_sd_days=0.4))
    far = at_set_point(31.5, 10, prior=HatchPrior(egg_sd_days=3.0))
    assert far.first_pip.p50 < near.first_pip.p50
    assert far.last_pip.p50 > near.last_pip.p50
    # Six normals: the first is 1.267 sd ahead in the mean.
    assert (near.typical_pip.p50 - near.first_pip.p50) / DAY == pytest.approx(0.507, abs=0.08)


def test_sheds_and_meals_come_in_order() -> None:
    made = at_set_point(31.5, day=10)
    medians = [w.p50 for w in (made.first_pip, made.next_out, made.all_out, made.first_shed)]
    assert medians == sorted(medians)
    assert 5 <= (made.first_shed.p50 - made.typical_pip.p50) / DAY - 1.3 <= 10
    assert made.first_meal.p50 > made.first_shed.p50


def test_no_window_reaches_into_the_past_while_no_egg_has_pipped() -> None:
    for day in (55.0, 58.0, 62.0, 66.0):
        made = at_set_point(31.5, day=day)
        assert not made.overdue
        for window in (made.first_pip, made.typical_pip, made.next_out, made.all_out):
            assert window.p10 >= day * DAY


def test_far_beyond_term_is_told_as_overdue_not_as_a_date() -> None:
    assert at_set_point(31.5, day=120.0).overdue


def test_an_egg_kept_too_cold_never_pips() -> None:
    values = np.full(20 * 24, 15.0)
    made = forecast(measured(values, 3600.0), 6)
    assert made.development == 0
    assert made.typical_pip is None
    assert made.first_meal is None


def test_checked_probes_narrow_the_window_and_measuring_beats_guessing() -> None:
    values = np.full(40 * 24, 31.5)
    unchecked = forecast(measured(values, 3600.0), 6)
    checked = forecast(measured(values, 3600.0, sd_c=0.1), 6)
    guessed = at_set_point(31.5, day=40.0)
    assert checked.log_sd < unchecked.log_sd < guessed.log_sd


def test_two_readings_of_one_probe_do_not_average_its_error_away() -> None:
    """The probe's error enters once: more readings of the same days change nothing."""
    hourly = forecast(measured(np.full(30 * 24 + 1, 31.5), 3600.0), 6)
    minutely = forecast(measured(np.full(30 * 24 * 60 + 1, 31.5), 60.0), 6)
    assert hourly.log_sd == pytest.approx(minutely.log_sd)


def test_maternal_incubation_doubles_the_uncertainty() -> None:
    plain, maternal = at_set_point(31.0, day=5), at_set_point(31.0, day=5, maternal=True)
    assert maternal.log_sd == pytest.approx(2 * plain.log_sd)
    assert maternal.typical_pip.p50 == pytest.approx(plain.typical_pip.p50)


def test_house_bias_moves_the_median() -> None:
    later = at_set_point(31.5, day=5, prior=HatchPrior(mean=0.03))
    assert later.typical_pip.p50 / DAY == pytest.approx(58.8 * np.exp(0.03), abs=0.01)
    assert later.fraction == pytest.approx(later.development / np.exp(0.03))


def test_no_eggs_are_refused() -> None:
    with pytest.raises(ValueError, match="at least one egg"):
        at_set_point(31.5, day=1, eggs=0)


@settings(deadline=None)
@given(egg_temperatures, egg_temperatures, st.floats(0, 50))
def test_warmer_is_never_later(a: float, b: float, day: float) -> None:
    cold, warm = sorted((a, b))
    later, sooner = at_set_point(cold, day), at_set_point(warm, day)
    assert sooner.typical_pip.p50 <= later.typical_pip.p50 + 1


@settings(deadline=None)
@given(st.floats(70.0, 92.0), st.floats(0, 40))
def test_fahrenheit_input_equals_celsius_input(fahrenheit: float, day: float) -> None:
    from sandboa.core.units import fahrenheit_from_celsius, parse_temperature

    celsius = celsius_from_fahrenheit(fahrenheit)
    assert fahrenheit_from_celsius(celsius) == pytest.approx(fahrenheit)
    assert parse_temperature(f"{fahrenheit:.6f}F") == pytest.approx(
        parse_temperature(f"{celsius:.6f} C"), abs=1e-5
    )


@settings(deadline=None)
@given(st.floats(28.0, 32.8))
def test_the_window_narrows_as_measured_days_pass(temperature_c: float) -> None:
    widths = []
    for days in (1, 10, 20, 30, 40):
        made = forecast(measured(np.full(days * 24 + 1, temperature_c), 3600.0, temperature_c), 6)
        widths.append(made.typical_pip.p90 - made.typical_pip.p10)
    assert all(later < earlier for earlier, later in itertools.pairwise(widths))


@settings(deadline=None)
@given(egg_temperatures, st.integers(1, 12), st.floats(0, 60))
def test_quantiles_are_in_order(temperature_c: float, eggs: int, day: float) -> None:
    made = at_set_point(temperature_c, day, eggs)
    for window in (made.first_pip, made.typical_pip, made.next_out, made.all_out, made.first_meal):
        assert list(astuple(window)) == sorted(astuple(window))


@settings(deadline=None, max_examples=30)
@given(st.lists(st.floats(18.0, 36.0), min_size=3, max_size=60), st.integers(2, 5))
def test_splitting_reading_intervals_changes_nothing(values: list[float], parts: int) -> None:
    """A straight line sampled more often is the same straight line."""
    times = np.arange(len(values)) * 3600.0
    finer = np.linspace(0, times[-1], (len(values) - 1) * parts + 1)
    a = measured(np.array(values), 3600.0)
    b = measured(np.interp(finer, times, values), 3600.0 / parts)
    assert a.now == pytest.approx(b.now, abs=1e-9)
    assert a.at(times[-1] / 3) == pytest.approx(b.at(times[-1] / 3), abs=1e-9)


@settings(deadline=None, max_examples=30)
@given(st.lists(st.floats(20.0, 36.0), min_size=5, max_size=80), st.floats(0.02, 0.98))
def test_time_of_inverts_development(values: list[float], share: float) -> None:
    curve = measured(np.array(values), 3600.0)
    target = share * curve.now
    assert curve.at(curve.time_of(target)) == pytest.approx(target, abs=1e-6)
    ahead = curve.now + share
    assert curve.at(curve.time_of(ahead)) == pytest.approx(ahead, abs=1e-9)


@pytest.mark.parametrize("temperature_c", [29.2, 31.11, 31.5, 31.9])
def test_time_of_what_is_reached_now_is_now_whatever_rounding_makes_of_it(
    temperature_c: float,
) -> None:
    for days in range(40, 75):
        set_points = SetPoints((0.0,), (temperature_c,))
        held = box_temperature(1.7754138e9, 1.7754138e9 + days * DAY, [], set_points)
        curve = DevelopmentCurve(held, DEFAULT_CLOCK)
        assert curve.time_of(curve.now) == pytest.approx(held.as_of_s, abs=1.0)
        assert curve.time_of(curve.now * (1 - 1e-16)) is not None


def test_a_cold_spell_is_found_and_its_delay_is_the_heat_missed() -> None:
    """Two days at 24 instead of 31.5 °C miss 2 x 7.5 degree-days: 1.2 days at 12.5 a day."""
    values = np.full(30 * 24 + 1, 31.5)
    values[10 * 24 : 12 * 24 + 1] = 24.0
    curve = measured(values, 3600.0)
    (spell,) = cold_spells(curve, SetPoints((0.0,), (31.5,)))
    assert spell.lowest_c == 24.0
    assert spell.start_s / DAY == pytest.approx(10.0)
    assert spell.delay_days == pytest.approx(1.2, abs=0.01)


def test_an_open_door_is_no_cold_spell() -> None:
    values = np.full(10 * 144 + 1, 31.5)
    values[500:504] = 25.0
    curve = measured(values, 600.0)
    assert cold_spells(curve, SetPoints((0.0,), (31.5,))) == ()
