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
class EggGroup:
    """Eggs of one clutch that have had the same heat: `eggs` that can pip or did, >= 1.

    `pipped_s`: when each of those that pipped was seen (s), none after as-of.
    """

    curve: DevelopmentCurve
    eggs: int
    pipped_s: tuple[float, ...] = ()

    @property
    def closed(self) -> int:
        """How many have not pipped."""
        return self.eggs - len(self.pipped_s)


@dataclass(frozen=True)
class TypicalPip:
    """Posterior of a clutch's typical pip: days from as-of, rising, and their weights (sum 1).

    `closed` are the eggs that have not pipped by as-of: for each group of eggs with the
    same heat the days of its own typical pip, and how many they are. `likelihood` (0-1) is of
    what was seen of pips and of closed eggs, against the prior alone.
    """

    days: FloatArray
    weights: FloatArray
    as_of_s: float
    closed: tuple[tuple[FloatArray, int], ...]
    likelihood: float = 1.0

    @property
    def remaining(self) -> int:
        """Eggs that have not pipped by as-of."""
        return sum(eggs for _, eggs in self.closed)

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
        likely = self.weights > 1e-9
        latest = max(float(days[likely][-1]) for days, _ in self.closed)
        grid = np.linspace(0.0, max(latest, 0.0) + 7.0 * EGG_SD_DAYS, _GRID)
        none_yet = np.ones((len(self.weights), _GRID))
        all_out = np.ones((len(self.weights), _GRID))
        for days, eggs in self.closed:
            ahead = days[:, None] / EGG_SD_DAYS
            # One egg's chance to be still closed at each moment, given that it is closed now.
            closed = np.exp(log_ndtr(ahead - grid / EGG_SD_DAYS) - log_ndtr(ahead))
            none_yet *= closed**eggs
            all_out *= (1.0 - closed) ** eggs
        return (
            _window(self.as_of_s, _inverted(1.0 - self.weights @ none_yet, grid)),
            _window(self.as_of_s, _inverted(self.weights @ all_out, grid)),
        )

    def distribution(self, grid_days: FloatArray) -> FloatArray:
        """Cumulative probability of the typical pip on `grid_days` from as-of."""
        cumulative = np.cumsum(self.weights)
        return np.interp(grid_days, self.days, cumulative, left=0.0, right=1.0)


def typical_pip(groups: Sequence[EggGroup], prior: HatchPrior, log_sd: float) -> TypicalPip | None:
    """Condition a clutch's typical pip on eggs seen pipped and on those still closed.

    Parameters: `groups`, its eggs by the heat they had, at least one; `log_sd` of e before any
    egg pipped.

    All eggs of a clutch share one e. Those of a group pip around the moment at which its curve
    reaches exp(e) with sd 1 day (A5); the clutch's typical pip is the mean over its eggs. An egg
    that is closed at as-of has only that to say. None when the development is never reached.
    Raises ValueError for more pips than eggs, or a pip after as-of.
    """
    # As above.
    from scipy.special import log_ndtr

    as_of_s = groups[0].curve.temperature.as_of_s
    reached = np.exp(prior.mean + log_sd * _Z)
    typical = np.zeros(len(_Z))
    log_likelihood = np.zeros(len(_Z))
    closed = []
    for group in groups:
        if group.closed < 0:
            raise ValueError("more pips than eggs")
        if any(at_s > as_of_s for at_s in group.pipped_s):
            raise ValueError("a pip in the future")
        times = group.curve.times_of(reached)
        if times is None:
            return None
        days = (times - as_of_s) / SECONDS_PER_DAY
        for at_s in group.pipped_s:
            seen = (at_s - as_of_s) / SECONDS_PER_DAY
            log_likelihood -= 0.5 * ((seen - days) / EGG_SD_DAYS) ** 2
        if group.closed:
            log_likelihood += group.closed * log_ndtr(days / EGG_SD_DAYS)
            closed.append((days, group.closed))
        typical += group.eggs * days
    expected = np.exp(-0.5 * _Z**2)
    log_weight = log_likelihood - 0.5 * _Z**2
    weights = np.exp(log_weight - log_weight.max())
    return TypicalPip(
        typical / sum(group.eggs for group in groups),
        weights / weights.sum(),
        as_of_s,
        tuple(closed),
        float(expected @ np.exp(log_likelihood) / expected.sum()),
    )


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
