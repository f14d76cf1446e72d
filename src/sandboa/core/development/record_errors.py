"""By how much the record of a clutch may be off: probes err, gaps are guesses (rule A3)."""

import math
from dataclasses import dataclass
from typing import Final

from sandboa.core.development.box_temperature import BoxTemperature, Stretch
from sandboa.core.development.curve import DevelopmentCurve
from sandboa.core.development.sources import Provenance
from sandboa.core.development.windows import HatchPrior
from sandboa.core.units import SECONDS_PER_DAY

#: Whatever was not measured errs together, as one source.
_ESTIMATED: Final = None
#: What is to come errs by itself as well; so does what was before they came here.
_AHEAD: Final = 0
_BEFORE: Final = 1


@dataclass(frozen=True, slots=True)
class RecordErrors:
    """By how much the record of a clutch may be off, sds of ln D at the typical pip.

    `by_probe` is of each probe that spoke for it, `other` of all that nobody measured.
    """

    by_probe: dict[str, float]
    other: float

    @property
    def main_probe(self) -> str | None:
        """The probe on whose error most depends; None without one."""
        return max(self.by_probe, key=lambda probe: (self.by_probe[probe], probe), default=None)

    def sd(self, besides: str | None = None) -> float:
        """All of them together, one probe left out."""
        probes = (sd for probe, sd in self.by_probe.items() if probe != besides)
        return math.hypot(self.other, *probes)


def log_uncertainty(curve: DevelopmentCurve, prior: HatchPrior) -> float:
    """Sd of ln D at the typical pip: clutches differ, probes err, gaps are guesses (rule A3)."""
    return math.hypot(prior.sd, record_errors(curve, math.exp(prior.mean)).sd(prior.probe))


def record_errors(curve: DevelopmentCurve, target: float = 1.0) -> RecordErrors:
    """By how much D may be off when it reaches `target`, at the typical pip.

    A probe that is wrong by d °C the whole time is wrong by d/(T - T0) in
    ln D. Each probe enters once, weighted by the time it speaks for, wherever it hung; all that
    was not measured is one more source of ±0.7 °C. The time still to come
    belongs to that, unless a probe measured lately what is expected: then it
    shares the probe's error and has ±0.2 °C of its own. A lay time that is only known as
    between two widens it as a uniform one does, and so does what nobody measured before the eggs
    came. Source: rule A3.
    """
    temperature, clock = curve.temperature, curve.clock
    end_s = curve.time_of(target)
    degree_days: dict[str | int | None, float] = {}
    for stretch in temperature.stretches:
        until = stretch.end_s if end_s is None else min(stretch.end_s, end_s)
        if until > stretch.start_s:
            probe, sd_c = _source_of(stretch, temperature)
            days = (until - stretch.start_s) / SECONDS_PER_DAY
            degree_days[probe] = degree_days.get(probe, 0.0) + sd_c * days
    if end_s is not None and end_s > temperature.as_of_s:
        days = (end_s - temperature.as_of_s) / SECONDS_PER_DAY
        expected = temperature.future
        if expected.probe is None:
            degree_days[_ESTIMATED] = degree_days.get(_ESTIMATED, 0.0) + expected.sd_c * days
        else:
            # Expected because a probe measured it: where that errs, the expectation does too.
            own = expected.probe_sd_c * days
            degree_days[expected.probe] = degree_days.get(expected.probe, 0.0) + own
            degree_days[_AHEAD] = expected.sd_c * days
    scale = clock.sum_c_days * target
    return RecordErrors(
        {probe: days / scale for probe, days in degree_days.items() if isinstance(probe, str)},
        math.hypot(
            _sd_at_lay(curve) / target,
            *(days / scale for probe, days in degree_days.items() if not isinstance(probe, str)),
        ),
    )


def _source_of(stretch: Stretch, temperature: BoxTemperature) -> tuple[str | int | None, float]:
    """Who errs in a stretch, and by how much (1 sd, °C)."""
    if stretch.provenance is Provenance.BEFORE:
        # By torch it is known how far they were, however warm they had been.
        known = temperature.earlier.development_sd is not None
        return _BEFORE, 0.0 if known else stretch.sd_c
    if stretch.measured:
        return stretch.name, stretch.sd_c
    return _ESTIMATED, temperature.estimated_sd_c


def _sd_at_lay(curve: DevelopmentCurve) -> float:
    """1 sd of D because nobody knows when they were laid: the width of a uniform time, or what a
    torch left open."""
    earlier, stretches = curve.temperature.earlier, curve.temperature.stretches
    if earlier.development_sd is not None:
        return earlier.development_sd
    if earlier.span_s == 0.0:
        return 0.0
    began_c = stretches[0].began_c if stretches else curve.temperature.future_c
    rate = float(curve.clock.rate_per_day(began_c))
    return rate * earlier.span_s / SECONDS_PER_DAY / math.sqrt(12.0)
