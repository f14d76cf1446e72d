"""The humidity of each probe by the hour, kept at hand and read anew when its readings change."""

from dataclasses import dataclass, field
from threading import Lock

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR
from sandboa.records import readings
from sandboa.services.series.readings_used import Used, note


@dataclass(frozen=True, slots=True)
class _Held:
    """Means of hours from `from_s` on, shape (n, 2): start of the hour (s), humidity 0-1."""

    from_s: float
    revision: int
    hours: FloatArray


@dataclass
class HourlyHumidity:
    """Answers with the humidity of any probe; safe to share between threads."""

    _held: dict[int, _Held] = field(default_factory=dict)
    _lock: Lock = field(default_factory=Lock)

    def days(self, probe: int, from_s: float, until_s: float) -> list[tuple[int, float]]:
        """(start of a UTC day s, mean relative humidity 0-1) of days it was measured, in order.

        Of the hours from the one of `from_s` to the one before that of `until_s`: a reading more
        changes it once an hour. Where nothing was measured before, the hour of `until_s` counts.
        """
        before_s = until_s // SECONDS_PER_HOUR * SECONDS_PER_HOUR
        return self._days(probe, from_s, before_s - 1.0, before_s) or self._days(
            probe, from_s, until_s, None
        )

    def _days(
        self, probe: int, from_s: float, until_s: float, before_s: float | None
    ) -> list[tuple[int, float]]:
        note(Used(probe, before_s))
        tip = readings.tip(probe)
        if tip is None:
            return []
        with self._lock:
            held = self._held.get(probe)
            if held is None or held.revision != tip.revision or held.from_s > from_s:
                earliest_s = min(from_s, held.from_s) if held else from_s
                hours = readings.humidity_of_hours(probe, earliest_s)
                held = self._held[probe] = _Held(earliest_s, tip.revision, hours)
        hours = _within(held.hours, from_s, until_s)
        if not len(hours):
            return []
        days = hours[:, 0] // SECONDS_PER_DAY * SECONDS_PER_DAY
        first = np.flatnonzero(np.concatenate([[True], np.diff(days) > 0]))
        counts = np.diff(np.append(first, len(days)))
        means = np.add.reduceat(hours[:, 1], first) / counts
        return [(int(day), float(mean)) for day, mean in zip(days[first], means, strict=True)]


def _within(hours: FloatArray, from_s: float, until_s: float) -> FloatArray:
    starts = hours[:, 0]
    first = np.searchsorted(starts, from_s // SECONDS_PER_HOUR * SECONDS_PER_HOUR, side="left")
    return hours[first : np.searchsorted(starts, until_s, side="right")]
