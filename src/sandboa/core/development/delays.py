"""What follows the pip, and how long after: emergence, first shed, first meal."""

from dataclasses import dataclass
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

    def nodes_days(self) -> FloatArray:
        """Equally likely waiting times (days), shape (24,), by quantile midpoints."""
        return np.asarray(self.median_days * np.exp(self.sigma * _MIDPOINTS))

    def quantile_days(self, probability: float) -> float:
        """Waiting time not exceeded with `probability` (days)."""
        return float(self.median_days * np.exp(self.sigma * quantile(probability)))


#: pip to emergence (rule A5, keeper practice).
EMERGENCE: Final = Delay(median_days=1.3, sigma=0.4)
#: emergence to first shed: 80 % within 5-10 days (range: rule A5; shape: assumption).
FIRST_SHED: Final = Delay(median_days=50.0**0.5, sigma=float(np.log(2.0) / (2.0 * Z80)))
#: first shed to first meal: it is offered after the shed, taken within some days (assumption).
FIRST_MEAL: Final = Delay(median_days=2.0, sigma=0.6)


def later(grid_days: FloatArray, cumulative: FloatArray, delay: Delay) -> FloatArray:
    """Cumulative distribution of an event `delay` after another one.

    `cumulative` is the earlier event's distribution on the even `grid_days`
    (both shape (n,)); so is the result. The waiting time is summed over its
    quantile midpoints, no random sampling: each midpoint is shared between the
    two steps of the grid beside it, which makes the sum one convolution.
    """
    steps = delay.nodes_days() / (grid_days[1] - grid_days[0])
    whole = steps.astype(np.intp)
    part = steps - whole
    places, shares = np.concatenate([whole, whole + 1]), np.concatenate([1.0 - part, part])
    weights = np.bincount(places, shares) / len(steps)
    return np.asarray(np.convolve(cumulative, weights)[: len(grid_days)])
