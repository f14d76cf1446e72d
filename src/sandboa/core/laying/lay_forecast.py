"""When a dam will lay: a window, from the strongest sign there is."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.development.windows import Window
from sandboa.core.laying.intervals import INTERVALS, Learned, Sign
from sandboa.core.normal import cdf, quantile
from sandboa.core.units import SECONDS_PER_DAY

#: sd beyond the usual interval after which the sign itself is in doubt (assumption).
OVERDUE_SD: Final = 2.6
_QUANTILES: Final = (0.10, 0.25, 0.50, 0.75, 0.90)


@dataclass(frozen=True, slots=True)
class SeenSign:
    """A sign and when it was seen (s since epoch)."""

    sign: Sign
    seen_s: float


@dataclass(frozen=True, slots=True)
class LayForecast:
    """When she will lay, by `sign`; `window` is None once she is overdue."""

    sign: Sign
    seen_s: float
    window: Window | None
    learned: Learned

    @property
    def overdue(self) -> bool:
        return self.window is None


def strongest_sign(signs: Sequence[SeenSign]) -> SeenSign | None:
    """The sign to count from: the latest pre-lay shed, else the latest ovulation, else None.

    A shed, once it is recorded, overrides an ovulation whichever was seen
    later; a shed that was not the one before laying is undone in the log.
    Source: rule P1.
    """
    forecasting = [s for s in signs if s.sign in INTERVALS]
    if not forecasting:
        return None
    return max(forecasting, key=lambda s: (s.sign == Sign.PRE_LAY_SHED, s.seen_s))


def lay_forecast(sign: SeenSign, now_s: float, learned: Learned | None = None) -> LayForecast:
    """The window in which the first egg is expected.

    Parameters
    ----------
    sign: what was seen, and when (s).
    now_s: she has not laid by then; what lies behind is cut off, so the
        window never reaches into the past.
    learned: what the house's own clutches change (see `learn`).

    Raises KeyError for a sign without an interval. The usual range of rule P1
    is taken as an 80 % window around its median (assumption).
    """
    learned = learned or Learned()
    interval = INTERVALS[sign.sign]
    gone = (now_s - sign.seen_s) / SECONDS_PER_DAY - learned.shift_days
    behind = interval.z_of(gone, learned.spread)
    if behind > OVERDUE_SD:
        return LayForecast(sign.sign, sign.seen_s, None, learned)
    survival = cdf(-behind)

    def moment(q: float) -> float:
        z = -quantile((1.0 - q) * survival)
        days = interval.days_at(z, learned.spread) + learned.shift_days
        return max(now_s, sign.seen_s + days * SECONDS_PER_DAY)

    p10, p25, p50, p75, p90 = (moment(q) for q in _QUANTILES)
    return LayForecast(sign.sign, sign.seen_s, Window(p10, p25, p50, p75, p90), learned)
