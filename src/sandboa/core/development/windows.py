"""What forecasts are made of: the prior of the typical pip, and windows of time."""

from dataclasses import dataclass
from typing import Final

from sandboa.core.units import SECONDS_PER_DAY

#: days (1 sd) by which eggs of one clutch differ (rule A5).
EGG_SD_DAYS: Final = 1.0
#: Of every window: p10..p90 holds 80 %, p25..p75 half.
QUANTILES: Final = (0.10, 0.25, 0.50, 0.75, 0.90)


@dataclass(frozen=True, slots=True)
class HatchPrior:
    """The typical egg pips when D = exp(e), e ~ Normal(mean, sd²).

    Defaults are rule A3 (assumption until the house has its own record).
    """

    mean: float = 0.0
    sd: float = 0.045


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

    def not_before(self, at_s: float) -> "Window":
        """The same window, of what is known not to have come by then."""
        return Window(*(max(q, at_s) for q in (self.p10, self.p25, self.p50, self.p75, self.p90)))
