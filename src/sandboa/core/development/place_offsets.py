"""How a place usually stands to its cabinet, and to the set point (rule A2, E)."""

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.development.reading_series import ReadingSeries
from sandboa.core.development.sources import DEFAULT_RECORD, LOGGER_GAP_S, RecordRules, SetPoints
from sandboa.core.units import SECONDS_PER_DAY


def learned_offset_c(
    place: ReadingSeries,
    cabinet: ReadingSeries,
    as_of_s: float,
    record: RecordRules = DEFAULT_RECORD,
) -> float | None:
    """Mean of place minus cabinet probe over its last days (°C), or None without common record.

    The mean is that of the middle half: two days without a fan are not how
    the shelf usually stands to the cabinet (assumption).

    When one of the two fell silent before `as_of_s`, the days (14 by default) end where it
    did. The place's readings are compared with the cabinet's straight line at
    the same moments, where the cabinet has readings within 2 h on both sides.
    Source: rule E.
    """
    known = [series.between(-np.inf, as_of_s).times_s for series in (place, cabinet)]
    if not all(len(times) for times in known):
        return None
    as_of_s = min(as_of_s, *(float(times[-1]) for times in known))
    start_s = as_of_s - record.offset_days * SECONDS_PER_DAY
    here, there = place.between(start_s, as_of_s), cabinet.between(start_s, as_of_s)
    if len(here.times_s) == 0 or len(there.times_s) < 2:
        return None
    after = np.searchsorted(there.times_s, here.times_s, side="left")
    inside = (after > 0) & (after < len(there.times_s))
    after = after[inside]
    bridged = there.times_s[after] - there.times_s[after - 1] <= LOGGER_GAP_S
    times = here.times_s[inside][bridged]
    if len(times) == 0:
        return None
    difference = here.temperature_c[inside][bridged] - np.interp(
        times, there.times_s, there.temperature_c
    )
    return _mean_of_middle_half(difference)


def offset_from_set_point_c(
    place: ReadingSeries,
    set_points: SetPoints,
    as_of_s: float,
    record: RecordRules = DEFAULT_RECORD,
) -> float | None:
    """Mean of the place's readings minus the set point in force (°C), over its last days.

    What a thermostat shows and what a probe measures are two things; when the
    probe falls silent, their usual difference still holds. None without readings.
    """
    known = place.between(-np.inf, as_of_s)
    if len(known.times_s) == 0:
        return None
    recent = known.between(known.times_s[-1] - record.offset_days * SECONDS_PER_DAY, as_of_s)
    changes = np.searchsorted(set_points.from_s, recent.times_s, side="right") - 1
    wanted = np.asarray(set_points.temperature_c)[np.maximum(changes, 0)]
    return _mean_of_middle_half(recent.temperature_c - wanted)


def _mean_of_middle_half(values: FloatArray) -> float:
    """The mean of what lies between the quartiles: exact for equal values, deaf to outliers."""
    ordered = np.sort(values)
    quarter = len(ordered) // 4
    return float(ordered[quarter : len(ordered) - quarter].mean())
