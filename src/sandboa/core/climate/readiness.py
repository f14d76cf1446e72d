"""Is the cabinet ready for eggs? A measurement, not a date (rule P6)."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

import numpy as np

from sandboa.core.climate.rules import DEFAULT_CLIMATE, ClimateRules
from sandboa.core.development.clock import FloatArray
from sandboa.core.development.reading_series import ReadingSeries
from sandboa.core.units import SECONDS_PER_HOUR

#: h that must have been steady (rule P6).
STEADY_HOURS: Final = 48
#: °C between lowest and highest reading of all 48 h (rule P6: "never over 2").
WHOLE_SWING_C: Final = 2.0
#: h without a reading (rule P6).
GAP_HOURS: Final = 2.0
#: h back over which "since when" is looked for (assumption).
LOOK_BACK_HOURS: Final = 14 * 24


class Requirement(StrEnum):
    """What must hold over the last 48 h."""

    NO_GAP = "no gap"
    DAILY_SWING = "daily swing"
    WHOLE_SWING = "whole swing"
    MEAN = "mean"


@dataclass(frozen=True, slots=True)
class Condition:
    """One requirement now.

    `value` is hours for the gap and °C otherwise (None without readings),
    `limit` what it is held against. `since_s`: how long it has been as it is,
    as far back as 14 days tell; None when it was never otherwise in them.
    """

    requirement: Requirement
    met: bool
    value: float | None
    limit: float
    since_s: float | None


@dataclass(frozen=True, slots=True)
class Readiness:
    """`ready` when every condition is met; `since_s` tells since when it is so, or not so."""

    ready: bool
    since_s: float | None
    conditions: tuple[Condition, ...]

    @property
    def failing(self) -> tuple[Condition, ...]:
        return tuple(c for c in self.conditions if not c.met)


def readiness(
    series: ReadingSeries,
    target_c: float,
    now_s: float,
    rules: ClimateRules = DEFAULT_CLIMATE,
) -> Readiness:
    """Judge one probe's last 48 h against the target (°C) at `now_s`.

    Over the last 48 h no gap may exceed 2 h (the time since the last reading
    is one), the swing of each of the two days stays within 1.0 °C, that of
    both within 2.0 °C, and the mean within 0.5 °C of the target. "Since" is
    found by asking the same every hour of the last 14 days.

    Readings after `now_s` are not used. Without readings nothing is met.
    Source: rule P6; limits above.
    """
    hours = LOOK_BACK_HOURS
    asked = now_s - SECONDS_PER_HOUR * np.arange(hours, -1, -1.0)
    start_s = asked[0] - STEADY_HOURS * SECONDS_PER_HOUR
    known = series.between(start_s - GAP_HOURS * SECONDS_PER_HOUR, now_s)
    measures = {
        Requirement.NO_GAP: (_longest_gap_h(known, asked), GAP_HOURS),
        Requirement.DAILY_SWING: (_swing(known, asked, 24, 2), rules.ready_swing_c),
        Requirement.WHOLE_SWING: (_swing(known, asked, STEADY_HOURS, 1), WHOLE_SWING_C),
        Requirement.MEAN: (np.abs(_mean(known, asked) - target_c), rules.ready_off_c),
    }
    conditions = []
    holding = np.ones(len(asked), dtype=bool)
    for requirement, (values, limit) in measures.items():
        with np.errstate(invalid="ignore"):
            met = values <= limit + 1e-9
        holding &= met
        latest = float(values[-1])
        conditions.append(
            Condition(
                requirement,
                bool(met[-1]),
                None if np.isnan(latest) else latest,
                limit,
                _since(met, asked),
            )
        )
    return Readiness(bool(holding[-1]), _since(holding, asked), tuple(conditions))


def _since(met: np.ndarray, asked: FloatArray) -> float | None:
    """The first moment of the run of equal answers that ends now; None when it spans all."""
    changes = np.flatnonzero(met[1:] != met[:-1])
    return float(asked[changes[-1] + 1]) if len(changes) else None


def _longest_gap_h(known: ReadingSeries, asked: FloatArray) -> FloatArray:
    """Longest time without a reading that reaches into the 48 h before each moment, h.

    A record that begins inside the 48 h has a gap before its first reading.
    """
    times = known.times_s
    longest = np.full(len(asked), float(STEADY_HOURS))
    for i, moment in enumerate(asked):
        start = moment - STEADY_HOURS * SECONDS_PER_HOUR
        first = int(np.searchsorted(times, start, "right"))
        last = int(np.searchsorted(times, moment, "right"))
        if last == 0:
            continue
        before = times[first - 1] if first else start - (GAP_HOURS + 0.1) * SECONDS_PER_HOUR
        edges = np.concatenate([[before], times[first:last], [moment]])
        longest[i] = np.diff(edges).max() / SECONDS_PER_HOUR
    return longest


def _swing(known: ReadingSeries, asked: FloatArray, hours: int, blocks: int) -> FloatArray:
    """Highest minus lowest reading (°C) of the worst of `blocks` spans of `hours` before each."""
    worst = np.full(len(asked), np.nan)
    for block in range(blocks):
        ends = asked - block * hours * SECONDS_PER_HOUR
        first = np.searchsorted(known.times_s, ends - hours * SECONDS_PER_HOUR, "left")
        last = np.searchsorted(known.times_s, ends, "right")
        for i, (a, b) in enumerate(zip(first.tolist(), last.tolist(), strict=True)):
            if b > a:
                part = known.temperature_c[a:b]
                worst[i] = np.fmax(worst[i], part.max() - part.min())
    return worst


def _mean(known: ReadingSeries, asked: FloatArray) -> FloatArray:
    """Time-weighted mean (°C) of the 48 h before each moment, from the cumulative integral."""
    times, values = known.times_s, known.temperature_c
    if len(times) < 2:
        return np.full(len(asked), np.nan)
    integral = np.concatenate([[0.0], np.cumsum((values[1:] + values[:-1]) * np.diff(times) / 2)])
    end = np.clip(asked, times[0], times[-1])
    start = np.clip(asked - STEADY_HOURS * SECONDS_PER_HOUR, times[0], times[-1])
    span = end - start
    with np.errstate(invalid="ignore", divide="ignore"):
        return np.where(
            span > 0,
            (np.interp(end, times, integral) - np.interp(start, times, integral)) / span,
            np.nan,
        )
