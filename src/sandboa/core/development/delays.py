"""What follows the pip, and how long after: emergence, first shed, first meal."""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.normal import quantile
from sandboa.core.units import Z80

#: Standard normal quantiles at the middles of 24 equal shares of probability.
_MIDPOINTS: Final = np.array([quantile((n + 0.5) / 24) for n in range(24)])


@dataclass(frozen=True, slots=True)
class Delay:
    """A lognormal waiting time: `median_days`, and `sigma` of its logarithm."""

    median_days: float
    sigma: float

    @classmethod
    def within(cls, low_days: float, high_days: float) -> "Delay":
        """The one whose middle 80 % lies between two waiting times (days), 0 < low < high."""
        spread = math.log(high_days / low_days)
        return cls(math.sqrt(low_days * high_days), spread / (2.0 * Z80))

    def nodes_days(self) -> FloatArray:
        """Equally likely waiting times (days), shape (24,), by quantile midpoints."""
        return np.asarray(self.median_days * np.exp(self.sigma * _MIDPOINTS))

    def quantile_days(self, probability: float) -> float:
        """Waiting time not exceeded with `probability` (days)."""
        return float(self.median_days * np.exp(self.sigma * quantile(probability)))


#: days between two points of a grid are one of these: what a waiting time does to a grid is then
#: worked out once.
STEPS_DAYS: Final = tuple(2.0**power * part for power in range(-6, 5) for part in (1.0, 1.25, 1.5))


def even_grid(start_days: float, end_days: float, points: int) -> FloatArray:
    """An even grid from `start_days` to `end_days` or beyond it, shape (points,)."""
    wanted = (end_days - start_days) / (points - 1)
    step = next((step for step in STEPS_DAYS if step >= wanted), wanted)
    return np.asarray(start_days + step * np.arange(points), dtype=np.float64)


def later(grid_days: FloatArray, cumulative: FloatArray, *delays: Delay) -> FloatArray:
    """Cumulative distribution of an event that follows another one after `delays`, one by one.

    `cumulative` is the earlier event's distribution on the even `grid_days` (shape (n,)): one, or
    several of shape (k, n); so is the result. The waiting time is summed over its quantile
    midpoints, no random sampling: each midpoint is shared between the two steps of the grid
    beside it, which makes the sum one convolution.
    """
    step = float(grid_days[1] - grid_days[0])
    return np.asarray(cumulative @ _convolution(delays, round(step, 9), len(grid_days)))


@lru_cache(maxsize=64)
def _convolution(delays: tuple[Delay, ...], step_days: float, points: int) -> FloatArray:
    """The matrix by which `later` multiplies, shape (points, points)."""
    if len(delays) > 1:
        first = _convolution(delays[:1], step_days, points)
        return np.asarray(first @ _convolution(delays[1:], step_days, points))
    delay = delays[0]
    steps = delay.nodes_days() / step_days
    whole = steps.astype(np.intp)
    part = steps - whole
    places, shares = np.concatenate([whole, whole + 1]), np.concatenate([1.0 - part, part])
    weights = np.bincount(places, shares) / len(steps)
    shifted = np.zeros(2 * points - 1)
    kept = min(len(weights), points)
    shifted[points - 1 : points - 1 + kept] = weights[:kept]
    # Row j of the windows, from below, is the waiting time after moment j.
    return np.ascontiguousarray(np.lib.stride_tricks.sliding_window_view(shifted, points)[::-1])
