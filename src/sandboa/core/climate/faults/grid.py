"""All probes of a cabinet on one even grid of time, as deviations from what is usual."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy.ndimage import median_filter

from sandboa.core.climate.faults.kinds import ProbeRecord
from sandboa.core.development.clock import FloatArray
from sandboa.core.development.sources import SetPoints
from sandboa.core.units import SECONDS_PER_HOUR

#: s between points of the grid; coarser when the loggers are (assumption: shows a door ajar).
STEP_S: Final = 300.0
#: days before and after a moment whose median is what is usual then (assumption).
_USUAL_BEFORE_DAYS: Final = 7.0
_USUAL_AFTER_DAYS: Final = 2.0
#: s after a new set point in which nothing is judged (assumption).
_SETTLING_S: Final = 6.0 * SECONDS_PER_HOUR


@dataclass
class Grid:
    """`times_s` (n,); per probe (rows) °C, humidity, and `off_c`, °C from what is usual there.

    NaN where there are no readings, or where they are known to be wrong.
    """

    times_s: FloatArray
    step_s: float
    names: tuple[str, ...]
    shelf: FloatArray
    in_box: np.ndarray
    temperature_c: FloatArray
    humidity: FloatArray
    off_c: FloatArray
    settled: np.ndarray

    def air(self) -> np.ndarray:
        """Which rows are probes in the air of the cabinet."""
        return ~self.in_box

    def drop(self, row: int, start_s: float, end_s: float) -> None:
        """Take a stretch of a probe out: what it says there is not the temperature."""
        wrong = (self.times_s >= start_s - self.step_s) & (self.times_s <= end_s + self.step_s)
        for values in (self.temperature_c, self.humidity, self.off_c):
            values[row, wrong] = np.nan

    def refresh(self, set_points: SetPoints) -> None:
        """Work out anew what is usual, after wrong stretches were dropped."""
        self.off_c = _off(self.times_s, self.step_s, self.temperature_c, set_points)


def on_grid(probes: Sequence[ProbeRecord], set_points: SetPoints) -> Grid | None:
    """Bring the probes' readings onto one grid: means of what falls in each step.

    None without readings.
    """
    known = [p for p in probes if len(p.times_s)]
    if not known:
        return None
    intervals = [float(np.median(np.diff(p.times_s))) for p in known if len(p.times_s) > 1]
    step_s = max([STEP_S, *(np.ceil(i / 60.0) * 60.0 for i in intervals)])
    start_s = min(float(p.times_s[0]) for p in known) // step_s * step_s
    count = int((max(float(p.times_s[-1]) for p in known) - start_s) // step_s) + 1
    times = start_s + step_s * np.arange(count)
    temperature = np.array(
        [_means(p.times_s, p.temperature_c, start_s, step_s, count) for p in known]
    )
    humidity = np.array([_means(p.times_s, p.humidity, start_s, step_s, count) for p in known])
    changes = np.array([t for t in set_points.from_s if times[0] < t <= times[-1]])
    settled = np.ones(count, dtype=bool)
    for change in changes:
        settled &= ~((times >= change - step_s) & (times < change + _SETTLING_S))
    return Grid(
        times,
        step_s,
        tuple(p.name for p in known),
        np.array([p.shelf for p in known], dtype=float),
        np.array([p.in_box for p in known], dtype=bool),
        temperature,
        humidity,
        _off(times, step_s, temperature, set_points),
        settled,
    )


def runs(flags: np.ndarray) -> list[tuple[int, int]]:
    """Stretches of True: (first, one past the last) each."""
    edges = np.flatnonzero(np.diff(np.concatenate([[0], flags.astype(np.int8), [0]])))
    return [(int(a), int(b)) for a, b in zip(edges[::2], edges[1::2], strict=True)]


def joined(flags: np.ndarray, most_apart: int) -> np.ndarray:
    """Flags with holes of up to `most_apart` steps filled."""
    filled = flags.copy()
    for (_, end), (start, _) in zip(runs(flags)[:-1], runs(flags)[1:], strict=True):
        if start - end <= most_apart:
            filled[end:start] = True
    return filled


def _means(
    times: FloatArray, values: FloatArray, start_s: float, step_s: float, count: int
) -> FloatArray:
    known = ~np.isnan(values)
    bucket = ((times[known] - start_s) // step_s).astype(int)
    total = np.bincount(bucket, values[known], count)
    counted = np.bincount(bucket, minlength=count)
    with np.errstate(invalid="ignore", divide="ignore"):
        return np.asarray(np.where(counted > 0, total / counted, np.nan))


def _off(
    times: FloatArray, step_s: float, temperature: FloatArray, set_points: SetPoints
) -> FloatArray:
    """Each probe's difference from its own usual distance to the set point."""
    wanted = np.asarray(set_points.temperature_c)[
        np.maximum(np.searchsorted(set_points.from_s, times, side="right") - 1, 0)
    ]
    distance = temperature - wanted
    return np.asarray([row - _usual(row, times, step_s) for row in distance])


def _usual(distance: FloatArray, times: FloatArray, step_s: float) -> FloatArray:
    """Median of 7 days before and 2 after, by the hour, holes bridged."""
    known = ~np.isnan(distance)
    if not known.any():
        return np.zeros(len(distance))
    every = max(1, round(SECONDS_PER_HOUR / step_s))
    hourly = np.interp(times[::every], times[known], distance[known])
    before, after = (round(d * 24) for d in (_USUAL_BEFORE_DAYS, _USUAL_AFTER_DAYS))
    # Beyond the ends the first and last days stand for what is not known.
    padded = np.concatenate([np.repeat(np.median(hourly[:72]), before + after), hourly])
    padded = np.concatenate([padded, np.repeat(np.median(hourly[-7 * 24 :]), before + after)])
    middle = median_filter(padded, size=before + after + 1, mode="nearest")
    # The filter is centred; looking back further than ahead is a shift of it.
    shift = (before - after) // 2
    first = before + after - shift
    usual = middle[first : first + len(hourly)]
    return np.asarray(np.interp(times, times[::every], usual))
