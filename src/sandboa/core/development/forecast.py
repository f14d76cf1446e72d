"""When will they pip: windows for the first, the typical and the last egg, and what follows."""

import math
from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy.special import ndtr, ndtri

from sandboa.core.development.box_temperature import BoxTemperature
from sandboa.core.development.clock import DEFAULT_CLOCK, DevelopmentClock, FloatArray
from sandboa.core.development.curve import DevelopmentCurve
from sandboa.core.development.delays import EMERGENCE, FIRST_MEAL, FIRST_SHED, Delay, later
from sandboa.core.development.order_statistics import expected_maximum
from sandboa.core.units import SECONDS_PER_DAY

#: days (1 sd) by which eggs of one clutch differ (handbook A5).
EGG_SD_DAYS: Final = 1.0
#: sd beyond which "has not pipped yet" contradicts the record rather than narrows it (assumption).
OVERDUE_SD: Final = 4.0
#: factor on the uncertainty when the dam incubates (handbook A9).
MATERNAL_FACTOR: Final = 2.0

#: Points in time over which the distributions after the pip are worked out.
_GRID: Final = 256
_QUANTILES: Final = (0.10, 0.25, 0.50, 0.75, 0.90)


@dataclass(frozen=True, slots=True)
class HatchPrior:
    """The typical egg pips when D = exp(e), e ~ Normal(mean, sd²).

    Defaults are handbook A3 (assumption until the house has its own record).
    """

    mean: float = 0.0
    sd: float = 0.045


@dataclass(frozen=True, slots=True)
class Window:
    """Five quantiles of a moment, s since epoch; p10..p90 holds 80 %, p25..p75 half."""

    p10: float
    p25: float
    p50: float
    p75: float
    p90: float

    def shifted(self, days: float) -> "Window":
        """The same window `days` later."""
        by = days * SECONDS_PER_DAY
        return Window(self.p10 + by, self.p25 + by, self.p50 + by, self.p75 + by, self.p90 + by)


@dataclass(frozen=True, slots=True)
class Forecast:
    """The forecast of one clutch as it stands at `as_of_s`.

    `day` counts from lay; `development` is D; `fraction` is p = D/exp(m), the
    share by which dimples and signs are judged; `rate_per_day` is the development
    to be expected a day from now on. The windows are None when the
    eggs never get there at the expected temperature. `overdue` says that by
    heat every egg should long have pipped: the windows are then those of
    the record alone and lie in the past.
    """

    as_of_s: float
    day: float
    development: float
    fraction: float
    measured_share: float
    log_sd: float
    rate_per_day: float
    overdue: bool
    first_pip: Window | None
    typical_pip: Window | None
    last_pip: Window | None
    emergence: Window | None
    first_shed: Window | None
    first_meal: Window | None


def forecast(
    temperature: BoxTemperature,
    eggs: int,
    *,
    clock: DevelopmentClock = DEFAULT_CLOCK,
    prior: HatchPrior | None = None,
    maternal: bool = False,
    curve: DevelopmentCurve | None = None,
) -> Forecast:
    """Forecast a clutch of `eggs` fertile eggs none of which has pipped by `as_of_s`.

    Parameters
    ----------
    temperature: the box's record and expectation.
    eggs: number of eggs still expected to pip, >= 1.
    maternal: the dam incubates; uncertainty is doubled (A9).
    curve: D(t) of `temperature` when the caller has it already.

    Raises ValueError for eggs < 1.

    Quantiles solve D(t) = exp(m + z·s) by inverting D (A4). That no egg has
    pipped yet cuts off the part of e that lies behind (A6), so no window
    reaches into the past. First and last pip are the typical pip shifted by
    the expected extreme of n eggs (A5). Source: handbook A.
    """
    prior = prior or HatchPrior()
    curve = curve or DevelopmentCurve(temperature, clock)
    spread_days = expected_maximum(eggs) * EGG_SD_DAYS
    log_sd = log_uncertainty(curve, prior) * (MATERNAL_FACTOR if maternal else 1.0)
    passed = _passed(curve, prior, log_sd, spread_days)
    overdue = passed > OVERDUE_SD
    survival = 1.0 if overdue else float(ndtr(-passed))

    typical = _typical_window(curve, prior, log_sd, survival)
    after = (
        _windows_after(curve, prior, log_sd, survival, (EMERGENCE, FIRST_SHED, FIRST_MEAL))
        if typical
        else (None, None, None)
    )
    return Forecast(
        as_of_s=temperature.as_of_s,
        day=(temperature.as_of_s - temperature.start_s) / SECONDS_PER_DAY,
        development=curve.now,
        fraction=curve.now / math.exp(prior.mean),
        measured_share=temperature.measured_share,
        log_sd=log_sd,
        rate_per_day=curve.future_rate_per_day,
        overdue=overdue,
        first_pip=typical.shifted(-spread_days) if typical else None,
        typical_pip=typical,
        last_pip=typical.shifted(spread_days) if typical else None,
        emergence=after[0],
        first_shed=after[1],
        first_meal=after[2],
    )


def log_uncertainty(curve: DevelopmentCurve, prior: HatchPrior) -> float:
    """Sd of ln D at the typical pip: clutches differ, probes err, gaps are guesses.

    A probe that is wrong by d °C the whole time is wrong by d/(T - T0) in
    ln D. Each probe enters once, weighted by the time it speaks for; all that
    was not measured, the time still to come included, is one more source of
    ±0.7 °C. Source: handbook A3.
    """
    temperature, clock = curve.temperature, curve.clock
    target = math.exp(prior.mean)
    end_s = curve.time_of(target)
    days: dict[tuple[str, str, float], float] = {}
    for stretch in temperature.stretches:
        until = stretch.end_s if end_s is None else min(stretch.end_s, end_s)
        if until > stretch.start_s:
            probe = (
                (stretch.provenance, stretch.name, stretch.sd_c)
                if stretch.measured
                else ("estimated", "", temperature.estimated_sd_c)
            )
            days[probe] = days.get(probe, 0.0) + (until - stretch.start_s) / SECONDS_PER_DAY
    if end_s is not None and end_s > temperature.as_of_s:
        ahead = ("estimated", "", temperature.estimated_sd_c)
        days[ahead] = days.get(ahead, 0.0) + (end_s - temperature.as_of_s) / SECONDS_PER_DAY
    errors = (sd_c * n / clock.sum_c_days / target for (_, _, sd_c), n in days.items())
    return math.sqrt(prior.sd**2 + sum(error**2 for error in errors))


def _passed(curve: DevelopmentCurve, prior: HatchPrior, log_sd: float, spread_days: float) -> float:
    """z below which e is ruled out: the first egg would have pipped already."""
    first_egg = curve.at(curve.temperature.as_of_s + spread_days * SECONDS_PER_DAY)
    return (math.log(first_egg) - prior.mean) / log_sd if first_egg > 0 else -math.inf


def _typical_window(
    curve: DevelopmentCurve, prior: HatchPrior, log_sd: float, survival: float
) -> Window | None:
    # The upper tail is used throughout: 1 - q of what survives is exact there.
    z = [-float(ndtri((1.0 - q) * survival)) for q in _QUANTILES]
    times = [curve.time_of(math.exp(prior.mean + log_sd * zq)) for zq in z]
    if any(t is None for t in times):
        return None
    return Window(*(float(t) for t in times if t is not None))


def _windows_after(
    curve: DevelopmentCurve,
    prior: HatchPrior,
    log_sd: float,
    survival: float,
    delays: tuple[Delay, ...],
) -> tuple[Window | None, ...]:
    """Windows of the events after the typical pip, each following the one before."""
    z_low = -float(ndtri(min(1.0 - 1e-12, 0.9995 * survival)))
    z_high = -float(ndtri(0.0005 * survival))
    start_s = curve.time_of(math.exp(prior.mean + log_sd * z_low))
    end_s = curve.time_of(math.exp(prior.mean + log_sd * z_high))
    if start_s is None or end_s is None:
        return (None,) * len(delays)
    longest = sum(delay.quantile_days(0.9995) for delay in delays)
    grid = np.linspace(0.0, (end_s - start_s) / SECONDS_PER_DAY + longest, _GRID)
    cumulative = _pip_distribution(curve, prior, log_sd, survival, start_s, grid)
    windows: list[Window | None] = []
    for delay in delays:
        cumulative = later(grid, cumulative, delay)
        days = np.interp(_QUANTILES, cumulative, grid)
        windows.append(Window(*(start_s + float(d) * SECONDS_PER_DAY for d in days)))
    return tuple(windows)


def _pip_distribution(
    curve: DevelopmentCurve,
    prior: HatchPrior,
    log_sd: float,
    survival: float,
    start_s: float,
    grid_days: FloatArray,
) -> FloatArray:
    """Cumulative probability of the typical pip at start + grid (days)."""
    ahead = (start_s - curve.temperature.as_of_s) / SECONDS_PER_DAY + grid_days
    reached = curve.now + ahead * curve.future_rate_per_day
    behind = ahead < 0
    if behind.any():
        as_of = curve.temperature.as_of_s
        reached[behind] = [curve.at(as_of + float(a) * SECONDS_PER_DAY) for a in ahead[behind]]
    z = (np.log(np.maximum(reached, 1e-9)) - prior.mean) / log_sd
    return np.asarray(np.clip(1.0 - ndtr(-z) / survival, 0.0, 1.0))
