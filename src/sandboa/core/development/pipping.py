"""Some eggs have pipped: what that says of the others (rule A6)."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.development.curve import DevelopmentCurve
from sandboa.core.development.windows import EGG_SD_DAYS, QUANTILES, HatchPrior, Window
from sandboa.core.units import SECONDS_PER_DAY

#: Standard deviations of e at which the posterior is worked out.
_Z = np.linspace(-7.0, 7.0, 281)
_GRID = 256


@dataclass(frozen=True)
class TypicalPip:
    """Posterior of the clutch's typical pip: days from as-of, rising, and their weights (sum 1).

    `remaining` eggs have not pipped by as-of.
    """

    days: FloatArray
    weights: FloatArray
    as_of_s: float
    remaining: int

    def window(self) -> Window:
        """Quantiles of the typical pip. It may lie behind: eggs beyond the middle are late ones."""
        cumulative = np.cumsum(self.weights) - self.weights / 2.0
        days = np.interp(QUANTILES, cumulative, self.days)
        return _window(self.as_of_s, days)

    def next_and_last(self) -> tuple[Window, Window]:
        """Windows of the next and the last pip still to come; both after as-of.

        Raises ValueError when no egg remains.
        """
        # Here, for only a clutch that has begun to pip needs it.
        from scipy.special import log_ndtr

        if self.remaining < 1:
            raise ValueError("every egg has pipped")
        longest = max(float(self.days[self.weights > 1e-9][-1]), 0.0) + 7.0 * EGG_SD_DAYS
        grid = np.linspace(0.0, longest, _GRID)
        ahead = self.days[:, None] / EGG_SD_DAYS
        # One egg's chance to be still closed at each moment, given that it is closed now.
        closed = np.exp(log_ndtr(ahead - grid / EGG_SD_DAYS) - log_ndtr(ahead))
        nothing_yet = self.weights @ closed**self.remaining
        all_out = self.weights @ (1.0 - closed) ** self.remaining
        return (
            _window(self.as_of_s, _inverted(1.0 - nothing_yet, grid)),
            _window(self.as_of_s, _inverted(all_out, grid)),
        )

    def distribution(self, grid_days: FloatArray) -> FloatArray:
        """Cumulative probability of the typical pip on `grid_days` from as-of."""
        cumulative = np.cumsum(self.weights)
        return np.interp(grid_days, self.days, cumulative, left=0.0, right=1.0)


def typical_pip(
    curve: DevelopmentCurve,
    prior: HatchPrior,
    log_sd: float,
    pipped_s: Sequence[float],
    eggs: int,
) -> TypicalPip | None:
    """Condition the clutch's typical pip on eggs seen pipped and on those still closed.

    Parameters: `log_sd` of e before any egg pipped; `pipped_s`, when each was
    seen (s); `eggs`, how many there are in all.

    Eggs pip around the typical one with sd 1 day (A5); an egg that is closed
    at as-of has only that to say. None when the development is never reached.
    Raises ValueError for more pips than eggs, or a pip after as-of.
    """
    # As above.
    from scipy.special import log_ndtr

    as_of_s = curve.temperature.as_of_s
    if len(pipped_s) > eggs:
        raise ValueError("more pips than eggs")
    if any(at_s > as_of_s for at_s in pipped_s):
        raise ValueError("a pip in the future")
    times = curve.times_of(np.exp(prior.mean + log_sd * _Z))
    if times is None:
        return None
    days = (times - as_of_s) / SECONDS_PER_DAY
    log_weight = -0.5 * _Z**2
    for at_s in pipped_s:
        seen = (at_s - as_of_s) / SECONDS_PER_DAY
        log_weight -= 0.5 * ((seen - days) / EGG_SD_DAYS) ** 2
    remaining = eggs - len(pipped_s)
    log_weight += remaining * log_ndtr(days / EGG_SD_DAYS)
    weights = np.exp(log_weight - log_weight.max())
    return TypicalPip(days, weights / weights.sum(), as_of_s, remaining)


def after_now(cumulative: FloatArray, grid_days: FloatArray) -> FloatArray:
    """A distribution over days from as-of, given that the event has not happened by then."""
    passed = float(np.interp(0.0, grid_days, cumulative))
    if passed >= 1.0 - 1e-9:
        return (grid_days >= 0.0).astype(np.float64)
    return np.asarray(np.clip((cumulative - passed) / (1.0 - passed), 0.0, 1.0))


def _inverted(cumulative: FloatArray, grid: FloatArray) -> FloatArray:
    rising = np.maximum.accumulate(cumulative)
    return np.interp(QUANTILES, rising, grid)


def _window(as_of_s: float, days: FloatArray) -> Window:
    return Window(*(as_of_s + float(d) * SECONDS_PER_DAY for d in days))
