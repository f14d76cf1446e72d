"""When will they pip: windows for the first, the typical and the last egg, and what follows."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from sandboa.core.development.box_temperature import BoxTemperature, Stretch
from sandboa.core.development.clock import FloatArray
from sandboa.core.development.curve import DevelopmentCurve
from sandboa.core.development.delays import EMERGENCE, FIRST_MEAL, FIRST_SHED, Delay, later
from sandboa.core.development.none_alive import NO_DATE_FROM, none_alive
from sandboa.core.development.order_statistics import expected_maximum
from sandboa.core.development.pipping import EggGroup, TypicalPip, after_now, typical_pip
from sandboa.core.development.sources import Provenance
from sandboa.core.development.windows import EGG_SD_DAYS, QUANTILES, HatchPrior, Window
from sandboa.core.normal import cdf, cdf_of, quantile
from sandboa.core.units import SECONDS_PER_DAY

#: factor on the uncertainty when the dam incubates (rule A9).
MATERNAL_FACTOR: Final = 2.0

#: Whatever was not measured errs together, as one source.
_ESTIMATED: Final = None
#: What is to come errs by itself as well; so does what was before they came here.
_AHEAD: Final = 0
_BEFORE: Final = 1
#: Points in time over which the distributions after the pip are worked out.
_GRID: Final = 256


@dataclass(frozen=True, slots=True)
class Forecast:
    """The forecast of one clutch as it stands at `as_of_s`.

    `day` counts from lay; `development` is D; `fraction` is p = D/exp(m), the
    share by which dimples and signs are judged; `rate_per_day` is the development
    to be expected a day from now on. The windows are None when the
    eggs never get there at the expected temperature, and when the clutch is
    `overdue`. `none_alive` is the chance that no egg of it will pip (A6).

    Once `pipped` eggs have pipped, the first at `first_pipped_s`, `first_pip`
    is None: it is known; `next_pip` and `last_pip` are of the eggs still
    closed, None when there are none.
    """

    as_of_s: float
    day: float
    development: float
    fraction: float
    measured_share: float
    log_sd: float
    rate_per_day: float
    none_alive: float = 0.0
    first_pip: Window | None = None
    typical_pip: Window | None = None
    last_pip: Window | None = None
    emergence: Window | None = None
    first_shed: Window | None = None
    first_meal: Window | None = None
    pipped: int = 0
    first_pipped_s: float | None = None
    next_pip: Window | None = None

    @property
    def overdue(self) -> bool:
        """Whether so little speaks for a pip still to come that no date is told."""
        return self.none_alive >= NO_DATE_FROM


def forecast(
    curve: DevelopmentCurve,
    eggs: int,
    *,
    prior: HatchPrior | None = None,
    maternal: bool = False,
    pipped_s: Sequence[float] = (),
) -> Forecast:
    """Forecast a clutch of `eggs` fertile eggs of which those at `pipped_s` have pipped.

    Parameters
    ----------
    curve: D(t) along the box's record, and what is expected of it.
    eggs: number of eggs that can pip or have done so, >= 1.
    maternal: the dam incubates; uncertainty is doubled (A9).
    pipped_s: when each pipped egg was seen pipped (s), none after `as_of_s`.

    Raises ValueError for eggs < 1, more pips than eggs, or a pip after as-of.

    Until an egg has pipped, `none_alive` grows with the time without one; from
    80 % on no window is told.

    Quantiles solve D(t) = exp(m + z·s) by inverting D (A4). That no egg has
    pipped yet cuts off the part of e that lies behind (A6), so no window
    reaches into the past. First and last pip are the typical pip shifted by
    the expected extreme of n eggs (A5). Source: rule A.
    """
    prior = prior or HatchPrior()
    spread_days = expected_maximum(eggs) * EGG_SD_DAYS
    log_sd = log_uncertainty(curve, prior) * (MATERNAL_FACTOR if maternal else 1.0)
    if pipped_s:
        typical_egg = typical_pip([EggGroup(curve, eggs, tuple(pipped_s))], prior, log_sd)
        return _conditioned(_standing(curve, prior, log_sd), typical_egg, pipped_s)
    survival = cdf(-_passed(curve, prior, log_sd, spread_days))
    standing = replace(_standing(curve, prior, log_sd), none_alive=none_alive(survival))
    typical = None if standing.overdue else _typical_window(curve, prior, log_sd, survival)
    if typical is None:
        return standing
    after = _windows_after(curve, prior, log_sd, survival, (EMERGENCE, FIRST_SHED, FIRST_MEAL))
    return replace(
        standing,
        first_pip=typical.shifted(-spread_days),
        typical_pip=typical,
        last_pip=typical.shifted(spread_days),
        emergence=after[0],
        first_shed=after[1],
        first_meal=after[2],
    )


def forecast_clutch(
    groups: Sequence[EggGroup], *, prior: HatchPrior | None = None, maternal: bool = False
) -> Forecast:
    """Forecast a clutch whose eggs had different heat: in several boxes, or moved between them.

    Its events are those of its eggs along their own stays, sharing one e (A5). Where they stand
    is told of the largest group. Eggs of one group are forecast as `forecast` does. Raises
    ValueError for no eggs, more pips than eggs, or a pip after as-of. Source: rule A5.
    """
    prior = prior or HatchPrior()
    main = max(groups, key=lambda group: group.eggs, default=None)
    if main is None:
        raise ValueError("a clutch without eggs")
    if len(groups) == 1:
        return forecast(
            main.curve, main.eggs, prior=prior, maternal=maternal, pipped_s=main.pipped_s
        )
    # One probe often speaks for all boxes, so that errors are not averaged out (assumption).
    eggs = sum(group.eggs for group in groups)
    variance = sum(g.eggs * log_uncertainty(g.curve, prior) ** 2 for g in groups) / eggs
    log_sd = math.sqrt(variance) * (MATERNAL_FACTOR if maternal else 1.0)
    typical = typical_pip(groups, prior, log_sd)
    standing = _standing(main.curve, prior, log_sd)
    pipped_s = [at_s for group in groups for at_s in group.pipped_s]
    if pipped_s:
        return _conditioned(standing, typical, pipped_s)
    if typical is None:
        return standing
    standing = replace(standing, none_alive=none_alive(min(typical.likelihood, 1.0)))
    if standing.overdue:
        return standing
    first, last = typical.next_and_last()
    after = _after_pips(typical)
    return replace(
        standing,
        first_pip=first,
        typical_pip=typical.window().not_before(typical.as_of_s),
        last_pip=last,
        emergence=after[0],
        first_shed=after[1],
        first_meal=after[2],
    )


def _standing(curve: DevelopmentCurve, prior: HatchPrior, log_sd: float) -> Forecast:
    """Where the clutch stands, without a window yet."""
    temperature = curve.temperature
    return Forecast(
        as_of_s=temperature.as_of_s,
        day=(temperature.as_of_s - temperature.start_s) / SECONDS_PER_DAY,
        development=curve.now,
        fraction=curve.now / math.exp(prior.mean),
        measured_share=temperature.measured_share,
        log_sd=log_sd,
        rate_per_day=curve.future_rate_per_day,
    )


def _conditioned(
    standing: Forecast, typical: TypicalPip | None, pipped_s: Sequence[float]
) -> Forecast:
    """The forecast of a clutch that has begun to pip (A6)."""
    closed = typical is not None and typical.remaining > 0
    upcoming, last = typical.next_and_last() if typical and closed else (None, None)
    after = _after_pips(typical) if typical else (None, None, None)
    return replace(
        standing,
        typical_pip=typical.window() if typical else None,
        last_pip=last,
        emergence=after[0],
        first_shed=after[1],
        first_meal=after[2],
        pipped=len(pipped_s),
        first_pipped_s=min(pipped_s),
        next_pip=upcoming,
    )


def _after_pips(typical: TypicalPip) -> tuple[Window | None, ...]:
    """Windows of what follows the typical pip, as far as it is still to come."""
    likely = typical.days[typical.weights > 1e-9]
    delays = (EMERGENCE, FIRST_SHED, FIRST_MEAL)
    longest = sum(delay.quantile_days(0.9995) for delay in delays)
    start, end = float(likely[0]), max(float(likely[-1]), 0.0) + longest
    grid = np.linspace(start, end, _GRID)
    cumulative = typical.distribution(grid)
    windows: list[Window | None] = []
    for delay in delays:
        cumulative = later(grid, cumulative, delay)
        days = np.interp(QUANTILES, after_now(cumulative, grid), grid)
        windows.append(
            Window(*(typical.as_of_s + max(float(d), 0.0) * SECONDS_PER_DAY for d in days))
        )
    return tuple(windows)


def log_uncertainty(curve: DevelopmentCurve, prior: HatchPrior) -> float:
    """Sd of ln D at the typical pip: clutches differ, probes err, gaps are guesses.

    A probe that is wrong by d °C the whole time is wrong by d/(T - T0) in
    ln D. Each probe enters once, weighted by the time it speaks for, wherever it hung; all that
    was not measured is one more source of ±0.7 °C. The time still to come
    belongs to that, unless a probe measured lately what is expected: then it
    shares the probe's error and has ±0.2 °C of its own. A lay time that is only known as
    between two widens it as a uniform one does, and so does what nobody measured before the eggs
    came. Source: rule A3.
    """
    temperature, clock = curve.temperature, curve.clock
    target = math.exp(prior.mean)
    end_s = curve.time_of(target)
    degree_days: dict[str | int | None, float] = {}
    for stretch in temperature.stretches:
        until = stretch.end_s if end_s is None else min(stretch.end_s, end_s)
        if until > stretch.start_s:
            probe, sd_c = _source_of(stretch, temperature)
            days = (until - stretch.start_s) / SECONDS_PER_DAY
            degree_days[probe] = degree_days.get(probe, 0.0) + sd_c * days
    if end_s is not None and end_s > temperature.as_of_s:
        days = (end_s - temperature.as_of_s) / SECONDS_PER_DAY
        expected = temperature.future
        if expected.probe is None:
            degree_days[_ESTIMATED] = degree_days.get(_ESTIMATED, 0.0) + expected.sd_c * days
        else:
            # Expected because a probe measured it: where that errs, the expectation does too.
            own = expected.probe_sd_c * days
            degree_days[expected.probe] = degree_days.get(expected.probe, 0.0) + own
            degree_days[_AHEAD] = expected.sd_c * days
    errors = [error / clock.sum_c_days / target for error in degree_days.values()]
    errors.append(_sd_at_lay(curve) / target)
    return math.sqrt(prior.sd**2 + sum(error**2 for error in errors))


def _source_of(stretch: Stretch, temperature: BoxTemperature) -> tuple[str | int | None, float]:
    """Who errs in a stretch, and by how much (1 sd, °C)."""
    if stretch.provenance is Provenance.BEFORE:
        # By torch it is known how far they were, however warm they had been.
        known = temperature.earlier.development_sd is not None
        return _BEFORE, 0.0 if known else stretch.sd_c
    if stretch.measured:
        return stretch.name, stretch.sd_c
    return _ESTIMATED, temperature.estimated_sd_c


def _sd_at_lay(curve: DevelopmentCurve) -> float:
    """1 sd of D because nobody knows when they were laid: the width of a uniform time, or what a
    torch left open."""
    earlier, stretches = curve.temperature.earlier, curve.temperature.stretches
    if earlier.development_sd is not None:
        return earlier.development_sd
    if earlier.span_s == 0.0:
        return 0.0
    began_c = float(stretches[0].temperature_c[0]) if stretches else curve.temperature.future_c
    rate = float(curve.clock.rate_per_day(began_c))
    return rate * earlier.span_s / SECONDS_PER_DAY / math.sqrt(12.0)


def _passed(curve: DevelopmentCurve, prior: HatchPrior, log_sd: float, spread_days: float) -> float:
    """z below which e is ruled out: the first egg would have pipped already."""
    first_egg = curve.at(curve.temperature.as_of_s + spread_days * SECONDS_PER_DAY)
    return (math.log(first_egg) - prior.mean) / log_sd if first_egg > 0 else -math.inf


def _typical_window(
    curve: DevelopmentCurve, prior: HatchPrior, log_sd: float, survival: float
) -> Window | None:
    # The upper tail is used throughout: 1 - q of what survives is exact there.
    z = [-quantile((1.0 - q) * survival) for q in QUANTILES]
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
    z_low = -quantile(min(1.0 - 1e-12, 0.9995 * survival))
    z_high = -quantile(0.0005 * survival)
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
        days = np.interp(QUANTILES, cumulative, grid)
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
    return np.asarray(np.clip(1.0 - cdf_of(-z) / survival, 0.0, 1.0))
