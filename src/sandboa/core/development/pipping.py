"""When the eggs of a clutch pip, given those that have and those that have not (rule A6)."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Final

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.development.curve import DevelopmentCurve
from sandboa.core.development.windows import QUANTILES, HatchPrior, Window
from sandboa.core.normal import log_cdf_of, quantile
from sandboa.core.units import SECONDS_PER_DAY

#: Standard deviations of e at which the posterior is worked out.
_Z: Final = np.linspace(-7.0, 7.0, 141)
#: Chance below which it is not followed that all eggs which have not pipped are so late.
_BEYOND_DOUBT: Final = 1e-9


@dataclass(frozen=True)
class EggGroup:
    """Eggs of one clutch that have had the same heat: `eggs` that can pip or did, >= 1.

    `pipped_s`: when each of those that pipped was seen (s), none after as-of. `inside_s` are those
    among them whose hatchling is not out of its egg yet.
    """

    curve: DevelopmentCurve
    eggs: int
    pipped_s: tuple[float, ...] = ()
    inside_s: tuple[float, ...] = ()

    @property
    def closed(self) -> int:
        """How many have not pipped."""
        return self.eggs - len(self.pipped_s)


@dataclass(frozen=True)
class ClutchPosterior:
    """What is known of a clutch's pips at as-of, over a grid of e: `weights`, shape (n,), sum 1.

    `typical_days` is the mean pip of all its eggs, days from as-of, shape (n,), never falling.
    `closed` are the eggs that have not pipped: for each group of eggs with the same heat the days
    around which they would pip by e alone, shape (n,), and how many they are. `inside_days` are
    the pips, days from as-of (<= 0), of eggs whose hatchling is not out. `egg_sd_days` is by how
    much eggs of one clutch differ (1 sd). `likelihood` (0-1) is of what was seen of pips and of
    closed eggs, against the prior alone.
    """

    typical_days: FloatArray
    weights: FloatArray
    as_of_s: float
    egg_sd_days: float
    closed: tuple[tuple[FloatArray, int], ...]
    inside_days: tuple[float, ...]
    likelihood: float

    @cached_property
    def _cumulative(self) -> FloatArray:
        return np.cumsum(self.weights)

    @cached_property
    def _middles(self) -> FloatArray:
        """Cumulative weight at the middle of each value of e."""
        return np.asarray(self._cumulative - self.weights / 2.0)

    @property
    def remaining(self) -> int:
        """Eggs that have not pipped by as-of."""
        return sum(eggs for _, eggs in self.closed)

    def typical(self) -> Window:
        """Quantiles of the mean pip of all eggs, those still closed after as-of."""
        return window_from(self.as_of_s, np.interp(QUANTILES, self._middles, self.typical_days))

    def typical_distribution(self, grid_days: FloatArray) -> FloatArray:
        """Cumulative probability of the mean pip on `grid_days` from as-of."""
        return np.interp(grid_days, self.typical_days, self._cumulative, left=0.0, right=1.0)

    def nodes(self, count: int) -> tuple[tuple[FloatArray, int], ...]:
        """`closed` at `count` values of e that are equally likely, shape (count,) each."""
        places = np.arange(len(self.weights), dtype=np.float64)
        shares = (np.arange(count) + 0.5) / count
        at = np.interp(shares, self._middles, places)
        return tuple((np.interp(at, places, days), eggs) for days, eggs in self.closed)


def clutch_posterior(
    groups: Sequence[EggGroup], prior: HatchPrior, log_sd: float
) -> ClutchPosterior | None:
    """Condition a clutch's e on eggs seen pipped, softly, and on those still closed.

    Parameters: `groups`, its eggs by the heat they had, at least one; `log_sd` of e before any
    egg pipped.

    All eggs of a clutch share one e. Those of a group pip around the moment at which its curve
    reaches exp(e), with the sd among eggs of A5. An egg that is closed at as-of has only that to
    say: its likelihood is that of a pip later than now, not a cut. None when the development is
    never reached. Raises ValueError for no egg, more pips than eggs, or a pip after as-of.
    Source: rule A6.
    """
    as_of_s = groups[0].curve.temperature.as_of_s
    apart = prior.egg_sd_days
    reached = np.exp(prior.mean + log_sd * _Z)
    total = np.zeros(len(_Z))
    some_pipped = any(group.pipped_s for group in groups)
    log_likelihood = np.zeros(len(_Z))
    closed = []
    for group in groups:
        _require_possible(group, as_of_s)
        since_s = None if some_pipped else _looked_up_since_s(group, apart)
        times = group.curve.times_of(reached, since_s)
        if times is None:
            return None
        days = (times - as_of_s) / SECONDS_PER_DAY
        for at_s in group.pipped_s:
            seen = (at_s - as_of_s) / SECONDS_PER_DAY
            log_likelihood -= 0.5 * ((seen - days) / apart) ** 2
            total += seen
        if group.closed:
            log_closed = log_cdf_of(days / apart)
            log_likelihood += group.closed * log_closed
            total += group.closed * _mean_beyond_now(days, apart, log_closed)
            closed.append((days, group.closed))
    log_prior = prior.log_density(_Z)
    log_weight = log_likelihood + log_prior
    weights = np.exp(log_weight - log_weight.max())
    expected = np.exp(log_prior)
    return ClutchPosterior(
        np.maximum.accumulate(total / sum(group.eggs for group in groups)),
        weights / weights.sum(),
        as_of_s,
        apart,
        tuple(closed),
        tuple((s - as_of_s) / SECONDS_PER_DAY for group in groups for s in group.inside_s),
        float(expected @ np.exp(log_likelihood) / expected.sum()),
    )


def _looked_up_since_s(group: EggGroup, apart: float) -> float:
    """Back to when (s) a pip of a group of closed eggs may have been due.

    Eggs that would all have pipped before are ruled out by being closed: when exactly they would
    have, needs no looking up, unless pips elsewhere in the clutch speak for it.
    """
    late_sds = -quantile(_BEYOND_DOUBT ** (1.0 / group.closed))
    return group.curve.temperature.as_of_s - late_sds * apart * SECONDS_PER_DAY


def _require_possible(group: EggGroup, as_of_s: float) -> None:
    if group.eggs < 1:
        raise ValueError("a clutch needs at least one egg")
    if group.closed < 0:
        raise ValueError("more pips than eggs")
    if any(at_s > as_of_s for at_s in group.pipped_s):
        raise ValueError("a pip in the future")


def _mean_beyond_now(days: FloatArray, apart: float, log_closed: FloatArray) -> FloatArray:
    """Mean pip, days from now, of an egg due after `days` that has not pipped by now; > 0."""
    z = days / apart
    density = np.exp(-0.5 * z * z - 0.5 * np.log(2.0 * np.pi) - log_closed)
    return np.asarray(np.maximum(days + apart * density, 0.0))


def window_from(as_of_s: float, days: FloatArray) -> Window:
    """Quantiles in days from as-of as a window."""
    return Window(*(as_of_s + SECONDS_PER_DAY * days).tolist())
