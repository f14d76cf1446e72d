"""What is still to come of a clutch: next and last pip, next and all out, sheds and meals (A5)."""

from typing import Final

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.development.delays import Delay, even_grid, later
from sandboa.core.development.pipping import ClutchPosterior, window_from
from sandboa.core.development.rules import ForecastRules
from sandboa.core.development.windows import QUANTILES, Window
from sandboa.core.normal import log_cdf_of

#: Equally likely values of what a clutch's eggs share, and points in time, to work with.
_NODES: Final = 12
_GRID: Final = 72
#: Sds among eggs within which all of them pip, beyond doubt.
_WIDE: Final = 7.0
#: Of a waiting time, the share beyond which nothing is followed.
_LONGEST: Final = 0.9995


def pips_and_outs(
    posterior: ClutchPosterior, emergence: Delay
) -> tuple[Window | None, Window | None, Window | None, Window | None]:
    """Windows of the next pip, the last pip, the next hatchling out and all of them out.

    None where no egg is left for it. All lie after as-of. Given what the eggs of a clutch share,
    each pips by itself: none has pipped with the product of their chances to be closed, all have
    with the product of the others. Out is a waiting time after the pip (A5). Source: rule A5.
    """
    nodes = posterior.nodes(_NODES)
    grid = _grid(posterior, nodes, emergence)
    # Chances by e and time: no pip yet, all pipped, none out, all out.
    chances = np.ones((4, _NODES, _GRID))
    for days, eggs in nodes:
        pipped = _pipped(days / posterior.egg_sd_days, grid / posterior.egg_sd_days)
        out = later(grid, pipped, emergence)
        chances *= _power(np.stack([1.0 - pipped, pipped, 1.0 - out, out]), eggs)
    over_time = chances.sum(axis=1) / _NODES
    if posterior.inside_days:
        over_time[2:] *= _inside(posterior, grid, emergence)
    over_time[::2] = 1.0 - over_time[::2]
    rising = np.maximum.accumulate(over_time, axis=1)
    waited_for = (bool(nodes),) * 2 + (bool(nodes or posterior.inside_days),) * 2
    next_pip, last_pip, next_out, all_out = (
        window_from(posterior.as_of_s, np.interp(QUANTILES, cumulative, grid)) if waiting else None
        for cumulative, waiting in zip(rising, waited_for, strict=True)
    )
    return next_pip, last_pip, next_out, all_out


def shed_and_meal(posterior: ClutchPosterior, rules: ForecastRules) -> tuple[Window, Window]:
    """Windows of the first shed and the first meal of the typical hatchling, after as-of."""
    likely = posterior.typical_days[posterior.weights > 1e-9]
    delays = (rules.emergence, rules.first_shed, rules.first_meal)
    end = max(float(likely[-1]), 0.0) + sum(delay.quantile_days(_LONGEST) for delay in delays)
    grid = even_grid(float(likely[0]) - 0.1, end, _GRID)
    shed = later(grid, posterior.typical_distribution(grid), *delays[:2])
    meal = later(grid, shed, rules.first_meal)
    windows = []
    for cumulative in (shed, meal):
        days = np.interp(QUANTILES, after_now(cumulative, grid), grid)
        windows.append(window_from(posterior.as_of_s, np.maximum(days, 0.0)))
    return windows[0], windows[1]


def after_now(cumulative: FloatArray, grid_days: FloatArray) -> FloatArray:
    """A distribution over days from as-of, given that the event has not happened by then."""
    passed = float(np.interp(0.0, grid_days, cumulative))
    if passed >= 1.0 - 1e-9:
        return (grid_days >= 0.0).astype(np.float64)
    return np.asarray(np.clip((cumulative - passed) / (1.0 - passed), 0.0, 1.0))


def _grid(
    posterior: ClutchPosterior, nodes: tuple[tuple[FloatArray, int], ...], emergence: Delay
) -> FloatArray:
    """Days from as-of within which everything happens, even, shape (_GRID,)."""
    wide = _WIDE * posterior.egg_sd_days
    longest = emergence.quantile_days(_LONGEST)
    if not nodes:
        return even_grid(0.0, longest, _GRID)
    soonest = min(float(days[0]) for days, _ in nodes)
    latest = max(float(days[-1]) for days, _ in nodes)
    start = 0.0 if posterior.inside_days else max(soonest - wide, 0.0)
    return even_grid(start, max(latest, 0.0) + wide + longest, _GRID)


def _pipped(ahead: FloatArray, grid: FloatArray) -> FloatArray:
    """One egg's chance to have pipped at each moment, given that it is closed now.

    `ahead` by e and `grid` are in sds among eggs from as-of; shape (nodes, grid).
    """
    later_than = log_cdf_of(ahead[:, None] - np.concatenate([[0.0], grid]))
    return np.asarray(-np.expm1(later_than[:, 1:] - later_than[:, :1]))


def _power(base: FloatArray, exponent: int) -> FloatArray:
    """By squaring: numpy's own takes ten times as long for whole exponents."""
    result = base if exponent & 1 else np.ones_like(base)
    while exponent := exponent >> 1:
        base = base * base
        if exponent & 1:
            result = result * base
    return result


def _inside(posterior: ClutchPosterior, grid: FloatArray, emergence: Delay) -> FloatArray:
    """Chances that none, and that all, of the hatchlings in pipped eggs are out; (2, grid)."""
    outs = np.ones((2, len(grid)))
    for pipped_day in posterior.inside_days:
        # An egg seen to pip this moment has waited no time at all.
        waited = np.log(np.maximum(np.append(grid, 0.0) - pipped_day, 1e-6))
        z = (waited - np.log(emergence.median_days)) / emergence.sigma
        inside = log_cdf_of(-z)
        still = np.exp(inside[:-1] - inside[-1])
        outs *= np.stack([still, 1.0 - still])
    return outs
