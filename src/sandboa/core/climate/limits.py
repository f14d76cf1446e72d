"""Temperatures that harm: live limits, and what a record was exposed to (rule E)."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

import numpy as np

from sandboa.core.climate.rules import DEFAULT_CLIMATE, ClimateRules
from sandboa.core.development.reading_series import ReadingSeries
from sandboa.core.development.sources import LOGGER_GAP_S
from sandboa.core.units import SECONDS_PER_HOUR


class Limit(StrEnum):
    """What a place can be beyond."""

    HOT_EMERGENCY = "hot emergency"
    COLD_EMERGENCY = "cold emergency"
    HARM = "harm"
    SLOW = "slow"
    OFF_TARGET = "off target"
    SWING = "swing"


#: s a limit must be passed before it is told: an open door passes sooner (assumption).
LASTING_S: Final = 1_800.0
#: Share of the time a limit asks for by which the span it is counted in is longer (rule E).
_SPAN: Final = 0.25
#: Share of it over which readings are averaged (assumption: eggs warm and cool over half an hour).
_AVERAGED: Final = 1.0 / 12.0
_DAY_S: Final = 24.0 * SECONDS_PER_HOUR


@dataclass(frozen=True, slots=True)
class Breach:
    """A limit passed now, all but without a break since `since_s`; `extreme_c` the furthest °C."""

    limit: Limit
    since_s: float
    extreme_c: float


@dataclass(frozen=True, slots=True)
class ExposureTotals:
    """Hours and degree-hours beyond the limits, over the `hours_measured` readings speak for."""

    hours_measured: float
    hours_harmful: float
    degree_hours_harmful: float
    hours_slow: float
    degree_hours_slow: float


def breaches(
    series: ReadingSeries,
    set_point_c: float,
    now_s: float,
    rules: ClimateRules = DEFAULT_CLIMATE,
) -> list[Breach]:
    """Which limits the readings of a place pass at `now_s`, the gravest first.

    A limit is passed when the time beyond it adds up to what the limit asks,
    within a span a quarter longer: a reading on the other side, a door opened
    in between, does not start it anew. For emergencies readings are averaged
    over a twelfth of that time: eggs do not follow each of a sensor's. Silent
    for more than 2 h: nothing is known, and nothing is said. Source: rule E.
    """
    known = series.between(now_s - 3 * _DAY_S, now_s)
    if not len(known.times_s) or now_s - known.times_s[-1] > LOGGER_GAP_S:
        return []
    found = []
    values = known.temperature_c
    for above_c, lasting_s in rules.hot_emergencies:
        found += _since(known, _felt(known, lasting_s) > above_c, lasting_s, Limit.HOT_EMERGENCY)
    found = found[-1:]
    below_c, lasting_s = rules.cold_emergency
    found += _since(known, _felt(known, lasting_s) < below_c, lasting_s, Limit.COLD_EMERGENCY)
    found += _since(known, values > rules.harm_above_c, LASTING_S, Limit.HARM)
    found += _since(known, values < rules.slow_below_c, LASTING_S, Limit.SLOW)
    if not found:
        off = np.abs(values - set_point_c) > rules.off_target_c
        found += _since(known, off, LASTING_S, Limit.OFF_TARGET)
    day = known.between(now_s - _DAY_S, now_s)
    if len(day.times_s) and np.ptp(day.temperature_c) > rules.swing_c:
        found.append(Breach(Limit.SWING, float(day.times_s[0]), float(day.temperature_c.max())))
    return found


def exposure_totals(series: ReadingSeries, rules: ClimateRules = DEFAULT_CLIMATE) -> ExposureTotals:
    """What a record was exposed to; time without readings for more than 2 h is left out."""
    if len(series.times_s) < 2:
        return ExposureTotals(0.0, 0.0, 0.0, 0.0, 0.0)
    lasted = np.diff(series.times_s) / SECONDS_PER_HOUR
    lasted = np.where(lasted * SECONDS_PER_HOUR <= LOGGER_GAP_S, lasted, 0.0)
    middle = (series.temperature_c[1:] + series.temperature_c[:-1]) / 2.0
    hot, cold = middle > rules.harm_above_c, middle < rules.slow_below_c
    return ExposureTotals(
        float(lasted.sum()),
        float(lasted[hot].sum()),
        float((lasted * (middle - rules.harm_above_c))[hot].sum()),
        float(lasted[cold].sum()),
        float((lasted * (rules.slow_below_c - middle))[cold].sum()),
    )


def _since(
    known: ReadingSeries, beyond: np.ndarray, lasting_s: float, limit: Limit
) -> list[Breach]:
    times = known.times_s
    if lasting_s > 0 and not beyond[-1] and times[-1] - _last(times[beyond]) > lasting_s * _SPAN:
        return []
    # Each reading speaks until the next one; a silence of more than 2 h speaks for neither side.
    lasted = np.diff(times)
    counted = np.where(lasted <= LOGGER_GAP_S, lasted, 0.0)
    # Between two readings it is beyond as far as both are; at a crossing, half of the time.
    share = (beyond[1:].astype(float) + beyond[:-1].astype(float)) / 2.0
    start_s = times[-1] - lasting_s * (1.0 + _SPAN)
    within_span = times[1:] > start_s
    if float((counted * share)[within_span].sum()) < lasting_s:
        return []
    first = _begins(times, beyond, lasting_s * _SPAN)
    values = known.temperature_c[first:]
    if limit in (Limit.HOT_EMERGENCY, Limit.HARM):
        extreme = values.max()
    elif limit in (Limit.COLD_EMERGENCY, Limit.SLOW):
        extreme = values.min()
    else:
        extreme = values.max() if values.mean() > known.temperature_c.mean() else values.min()
    return [Breach(limit, float(times[first]), float(extreme))]


def _felt(known: ReadingSeries, lasting_s: float) -> np.ndarray:
    """°C averaged around each reading, over a twelfth of the time the limit asks for."""
    half_s = lasting_s * _AVERAGED / 2.0
    times = known.times_s
    first = np.searchsorted(times, times - half_s, side="left")
    last = np.searchsorted(times, times + half_s, side="right")
    sums = np.concatenate([[0.0], np.cumsum(known.temperature_c)])
    return np.asarray((sums[last] - sums[first]) / (last - first))


def _begins(times: np.ndarray, beyond: np.ndarray, longest_break_s: float) -> int:
    """The first reading beyond the limit after the last break longer than that."""
    out = np.flatnonzero(beyond)
    breaks = np.flatnonzero(np.diff(times[out]) > np.maximum(longest_break_s, LOGGER_GAP_S))
    return int(out[breaks[-1] + 1]) if len(breaks) else int(out[0])


def _last(times: np.ndarray) -> float:
    return float(times[-1]) if len(times) else -np.inf
