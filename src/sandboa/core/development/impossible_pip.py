"""A pip that cannot be by the heat that was recorded: it points to a lay date or a probe (A6)."""

import math
from dataclasses import dataclass
from typing import Final

from sandboa.core.development.curve import DevelopmentCurve
from sandboa.core.development.record_errors import log_uncertainty
from sandboa.core.development.windows import HatchPrior
from sandboa.core.messages import Difference, Message
from sandboa.core.units import SECONDS_PER_DAY

#: °C beyond which no probe is off, so that only the lay date is asked about (assumption).
_MOST_OFF_C: Final = 5.0


@dataclass(frozen=True, slots=True)
class ImpossiblePip:
    """How a pip would fit: eggs laid `days` earlier (negative: later), or a probe that reads
    `reads_low_c` too low (°C; negative: too high). `sds` is how far out it is, negative: early.
    """

    sds: float
    days: float
    reads_low_c: float

    @property
    def words(self) -> Message:
        """The question, with both answers to it."""
        days = abs(self.days)
        date = Message(
            "laid about {days:.0f} {of} {way}",
            days=days,
            of="day" if round(days) == 1 else "days",
            way="earlier" if self.days > 0 else "later",
        )
        early = "too early" if self.sds < 0 else "too late"
        if abs(self.reads_low_c) > _MOST_OFF_C:
            return Message(
                "By heat the first pip came {early}. It fits eggs {date}: is the lay date right?",
                early=early, date=date,
            )  # fmt: skip
        return Message(
            "By heat the first pip came {early}. It fits eggs {date}, or a probe that reads {off} "
            "too {way}: which of them is wrong?",
            early=early, date=date,
            off=Difference(abs(self.reads_low_c), 1),
            way="low" if self.reads_low_c > 0 else "high",
        )  # fmt: skip


def impossible_pip(
    curve: DevelopmentCurve, prior: HatchPrior, first_pip_s: float, *, maternal: bool = False
) -> ImpossiblePip | None:
    """Whether the first pip of a clutch, at `first_pip_s` (s), is too far out; None where not.

    `curve` is D(t) along the way of the egg, up to the pip or later. The sd is that of the
    forecast, with that among eggs. The lay date is moved at the clutch's own mean rate, the probe
    by what makes D at the pip exp(m). Source: rule A6.
    """
    target = math.exp(prior.mean)
    reached = max(curve.at(first_pip_s), 1e-6)
    days = max((first_pip_s - curve.temperature.start_s) / SECONDS_PER_DAY, 1e-3)
    rate = curve.at(first_pip_s) / days or curve.future_rate_per_day
    own_sd = prior.egg_sd_days * rate / target
    wider = prior.rules.maternal_factor if maternal else 1.0
    sd = math.hypot(wider * log_uncertainty(curve, prior), own_sd)
    sds = (math.log(reached) - prior.mean) / sd
    if abs(sds) <= prior.rules.asked_from_sds or rate <= 0.0:
        return None
    warmer = curve.clock.sum_c_days * rate
    return ImpossiblePip(sds, (target - reached) / rate, warmer * (target / reached - 1.0))
