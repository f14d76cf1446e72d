"""What a record of temperature at the box says of heat, cold and swings (rule E, G)."""

from collections.abc import Callable
from typing import Final

import numpy as np

from sandboa.core.causes.evidence import Heat
from sandboa.core.climate.rules import DEFAULT_CLIMATE, ClimateRules
from sandboa.core.development.clock import FloatArray
from sandboa.core.units import SECONDS_PER_HOUR

#: °C above where harm begins from which a day belongs to a hot spell rather than to swings
#: (assumption).
_SPELL_ABOVE_C: Final = 1.0


def heat_record(
    times_s: FloatArray,
    temperature_c: FloatArray,
    until_s: float,
    measured: float,
    share_at: Callable[[float], float],
    climate: ClimateRules = DEFAULT_CLIMATE,
) -> Heat | None:
    """Heat, cold and swings up to `until_s`; None where there is less than a day of record.

    `times_s` (s, rising) and `temperature_c` (°C) have shape (n,); `share_at` tells the share
    developed at a time (s). Hours are
    judged by their means: an opened door is no swing of the eggs.
    """
    if len(times_s) < 2:
        return None
    start_s, end_s = float(times_s[0]), min(float(times_s[-1]), until_s)
    hours = int((end_s - start_s) // SECONDS_PER_HOUR)
    if hours < 24:
        return None
    # Four points an hour, then their mean: the record may have any rhythm.
    grid = start_s + np.arange(4 * hours) * SECONDS_PER_HOUR / 4.0
    hourly = np.interp(grid, times_s, temperature_c).reshape(hours, 4).mean(axis=1)
    # Each day with the first hour of the next: a step at midnight belongs to one of them.
    days = [hourly[hour : hour + 25] for hour in range(0, hours - 23, 24)]
    swings = np.array([float(day.max() - day.min()) for day in days])
    # A day at the edge of a hot or cold spell belongs to that, not to an unsteady cabinet.
    spell_c = climate.harm_above_c + _SPELL_ABOVE_C
    own = np.array([day.min() >= climate.slow_below_c and day.max() <= spell_c for day in days])
    swung = own & (swings > climate.swing_c)

    def span(hours: np.ndarray) -> tuple[float, float] | None:
        """Shares developed at the first and after the last of those hours."""
        if not len(hours):
            return None
        first_s, last_s = (start_s + float(h) * SECONDS_PER_HOUR for h in (hours[0], hours[-1] + 1))
        return share_at(first_s), share_at(last_s)

    return Heat(
        measured=measured,
        highest_c=float(hourly.max()),
        lowest_c=float(hourly.min()),
        hot_degree_hours=float(np.maximum(hourly - climate.harm_above_c, 0.0).sum()),
        cold_hours=float(_longest_run(hourly < climate.slow_below_c)),
        swing_days=int(swung.sum()),
        largest_swing_c=float(swings.max()),
        hot=span(np.flatnonzero(hourly > climate.harm_above_c)),
        cold=span(np.flatnonzero(hourly < climate.slow_below_c)),
        swings=span(24 * np.flatnonzero(swung)),
    )


def _longest_run(below: np.ndarray) -> int:
    """Length of the longest run of True in a (n,) array of booleans."""
    edges = np.flatnonzero(np.diff(np.concatenate([[0], below.astype(np.int8), [0]])))
    return int((edges[1::2] - edges[::2]).max()) if len(edges) else 0
