"""Condition house, cabinets, dams and norm on finished clutches, chance being Student's t (A7)."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.development.rules import CHANCE_FREEDOM, CHANCE_LOG_SD, CHANCE_RANGE
from sandboa.core.units import Z80

#: Values of chance at which everything is worked out.
CHANCE: Final[FloatArray] = np.geomspace(*CHANCE_RANGE, 7, dtype=np.float64)
#: How often surprises are weighed by how far out they are, from nothing and from what is known
#: nearly; more of it moves nothing any more.
_WEIGHINGS: Final = (3, 2)
#: Scale of Student's t that has the middle 80 % of a normal of sd 1 (4 degrees of freedom).
_T_SCALE: Final = Z80 / 1.533206
#: Its information on the middle, against that of a normal of its scale: (v + 1) / (v + 3).
_T_INFORMATION: Final = (CHANCE_FREEDOM + 1.0) / (CHANCE_FREEDOM + 3.0)


@dataclass(frozen=True)
class Conditioned:
    """What is known of k effects for each of s values of chance: `means` (s, k), `precision`
    (s, k, k), and `likely` (s,), how probable that value is; sum 1."""

    means: FloatArray
    precision: FloatArray
    likely: FloatArray

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
    the variance each record has beside chance, `own` (n,). `chance_sd` is the mean of chance
    before any of them."""

    log_development: FloatArray
    design: FloatArray
    own: FloatArray
    chance_sd: float

    def condition(self, sds: FloatArray, start: Conditioned | None = None) -> Conditioned:
        """Condition effects with prior `sds`, shape (k,), about zero; begin at what is known.

        Given chance, a surprise has Student's t. It is weighed by how far out it is, and the rest
        is normal conditioning; the probability of chance is Laplace's. Source: rule A7.
        """
        scale2 = _T_SCALE**2 * (CHANCE[:, None] ** 2 + self.own)
        prior = np.diag(sds**-2)
        means = np.zeros((len(CHANCE), len(sds))) if start is None else start.means
        for _ in range(_WEIGHINGS[0 if start is None else 1]):
            out2 = (self.log_development - means @ self.design.T) ** 2 / scale2
            weights = (CHANCE_FREEDOM + 1.0) / (CHANCE_FREEDOM + out2) / scale2
            weights *= _T_INFORMATION
            precision = prior + self.design.T @ (weights[:, :, None] * self.design)
            right = ((weights * self.log_development) @ self.design)[:, :, None]
            means = np.asarray(np.linalg.solve(precision, right)[:, :, 0], dtype=np.float64)
        out2 = (self.log_development - means @ self.design.T) ** 2 / scale2
        tails = 0.5 * (CHANCE_FREEDOM + 1.0) * np.log1p(out2 / CHANCE_FREEDOM)
        away = (np.log(CHANCE / self.chance_sd) + CHANCE_LOG_SD**2 / 2.0) / CHANCE_LOG_SD
        log_likely = (
            -(tails + 0.5 * np.log(scale2)).sum(axis=1)
            - 0.5 * ((means / sds) ** 2).sum(axis=1)
            - 0.5 * np.linalg.slogdet(precision)[1]
            - 0.5 * away * away
        )
        likely = np.exp(log_likely - log_likely.max())
        return Conditioned(means, np.asarray(precision), likely / likely.sum())
