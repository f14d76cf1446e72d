"""Condition house, cabinets, dams and norm on finished clutches, chance being Student's t (A7)."""

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.development.rules import DEFAULT_RULES, ForecastRules
from sandboa.core.student import quantile
from sandboa.core.units import Z80

#: How many values of chance everything is worked out at.
_VALUES: Final = 7
#: How often surprises are weighed by how far out they are, from nothing and from what is known
#: nearly; more of it moves nothing any more.
_WEIGHINGS: Final = (3, 2)
#: Chance with which a value lies below the upper end of the middle 80 %.
_UPPER: Final = 0.9


@dataclass(frozen=True)
class Conditioned:
    """What is known of k effects for each of s values of chance: `means` (s, k), `precision`
    (s, k, k), and `likely` (s,), how probable that value, of `chance` (s,), is; sum 1.

    `weights` (s, n) is what each of n clutches counts for, and `log_own` (s, n) what it has added
    to ln of `likely`.
    """

    means: FloatArray
    precision: FloatArray
    likely: FloatArray
    chance: FloatArray
    weights: FloatArray
    log_own: FloatArray

    @property
    def chance_variance(self) -> float:
        """Mean of chance squared."""
        return float(self.likely @ self.chance**2)

    def covariances(self) -> FloatArray:
        """Shape (s, k, k)."""
        return np.asarray(np.linalg.inv(self.precision))

    def mean_squares(self) -> FloatArray:
        """Mean square of each effect, shape (k,), by the likeliest chance alone."""
        best = int(self.likely.argmax())
        covariance = np.linalg.inv(self.precision[best])
        return np.asarray(self.means[best] ** 2 + np.diag(covariance))


@dataclass(frozen=True)
class Surprises:
    """ln D of n finished clutches, shape (n,), what of k effects is in each, `design` (n, k), and
    the variance each record has beside chance, `own` (n,)."""

    log_development: FloatArray
    design: FloatArray
    own: FloatArray
    rules: ForecastRules = DEFAULT_RULES

    def condition(self, sds: FloatArray, start: Conditioned | None = None) -> Conditioned:
        """Condition effects with prior `sds`, shape (k,), about zero; begin at what is known.

        Given chance, a surprise has Student's t. It is weighed by how far out it is, and the rest
        is normal conditioning; the probability of chance is Laplace's. Source: rule A7.
        """
        rules, freedom = self.rules, self.rules.chance_freedom
        chance = np.geomspace(rules.chance_low_sd, rules.chance_high_sd, _VALUES)
        # The t that has the middle 80 % of a normal, and its information on the middle, against
        # that of a normal of its scale.
        scale2 = (Z80 / quantile(_UPPER, freedom)) ** 2 * (chance[:, None] ** 2 + self.own)
        information = (freedom + 1.0) / (freedom + 3.0)
        prior = np.diag(sds**-2)
        means = np.zeros((_VALUES, len(sds))) if start is None else start.means
        for _ in range(_WEIGHINGS[0 if start is None else 1]):
            out2 = (self.log_development - means @ self.design.T) ** 2 / scale2
            weights = information * (freedom + 1.0) / (freedom + out2) / scale2
            precision = prior + self.design.T @ (weights[:, :, None] * self.design)
            right = ((weights * self.log_development) @ self.design)[:, :, None]
            means = np.asarray(np.linalg.solve(precision, right)[:, :, 0], dtype=np.float64)
        out2 = (self.log_development - means @ self.design.T) ** 2 / scale2
        tails = 0.5 * (freedom + 1.0) * np.log1p(out2 / freedom)
        log_sd = rules.chance_log_sd
        away = (np.log(chance / rules.chance_sd) + log_sd**2 / 2.0) / log_sd
        log_own = -(tails + 0.5 * np.log(scale2))
        log_likely = (
            log_own.sum(axis=1)
            - 0.5 * ((means / sds) ** 2).sum(axis=1)
            - 0.5 * np.linalg.slogdet(precision)[1]
            - 0.5 * away * away
        )
        likely = np.exp(log_likely - log_likely.max())
        return Conditioned(
            means, np.asarray(precision), likely / likely.sum(), chance, weights, log_own
        )

    def without(
        self, row: int, known: Conditioned, covariances: FloatArray
    ) -> tuple[Conditioned, FloatArray]:
        """What is known without one of the clutches, and its covariances, shape (s, k, k).

        The others count for what they count with it: then taking one out of a normal is exact
        (Sherman and Morrison), and costs a hundredth of conditioning anew. `covariances` are of
        `known`.
        """
        own, weight = self.design[row], known.weights[:, row]
        toward = covariances @ own
        left = 1.0 - weight * (toward @ own)
        surprise = self.log_development[row] - known.means @ own
        means = known.means - toward * (weight * surprise / left)[:, None]
        log_likely = np.log(np.maximum(known.likely, 1e-300)) - known.log_own[:, row]
        log_likely -= 0.5 * np.log(left)
        likely = np.exp(log_likely - log_likely.max())
        worth = (weight / left)[:, None, None]
        return (
            replace(
                known,
                means=means,
                precision=known.precision - weight[:, None, None] * np.outer(own, own),
                likely=likely / likely.sum(),
                weights=np.delete(known.weights, row, axis=1),
                log_own=np.delete(known.log_own, row, axis=1),
            ),
            covariances + worth * toward[:, :, None] * toward[:, None, :],
        )
