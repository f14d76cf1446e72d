"""What forecasts are made of: the prior of the typical pip, and windows of time."""

import math
from dataclasses import dataclass
from typing import Final

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.development.rules import DEFAULT_RULES, EGG_SD_DAYS, ForecastRules
from sandboa.core.units import SECONDS_PER_DAY

#: Of every window: p10..p90 holds 80 %, p25..p75 half.
QUANTILES: Final = (0.10, 0.25, 0.50, 0.75, 0.90)


@dataclass(frozen=True, slots=True)
class HatchPrior:
    """The typical egg pips when D = exp(e), e ~ Normal(mean, sd²); eggs differ by `egg_sd_days`.

    `sd` is of everything that is not known yet of a clutch, beside what its thermometers may be
    off by; what `probe` is off by was learned with the rest and is in it too. Where `sd` itself was
    learned from few clutches its tails are wider: Student's t with so many degrees of `freedom`,
    above 4. `rules` are the numbers in force. Defaults are rule A3 (assumption until the house has
    its own record).
    """

    mean: float = 0.0
    sd: float = DEFAULT_RULES.untaught_sd
    egg_sd_days: float = EGG_SD_DAYS
    probe: str | None = None
    freedom: float = math.inf
    rules: ForecastRules = DEFAULT_RULES

    def log_density(self, z: FloatArray) -> FloatArray:
        """Natural log of the density of e at `z` sds from its mean, any shape, up to a constant."""
        if math.isinf(self.freedom):
            return np.asarray(-0.5 * z * z)
        tails = np.log1p(z * z / (self.freedom - 2.0))
        return np.asarray(-0.5 * (self.freedom + 1.0) * tails)


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
