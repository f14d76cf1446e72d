"""Reading series kept at hand: a new reading costs its own row, not the season's."""

from dataclasses import dataclass, field
from threading import Lock
from typing import Final

import numpy as np

from sandboa.core.development import ReadingSeries
from sandboa.core.development.clock import FloatArray
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR
from sandboa.records import readings
from sandboa.records.readings import Tip as Tip
from sandboa.services.series.hourly_humidity import HourlyHumidity
from sandboa.services.series.readings_used import Used, note

#: s of which the mean stands for what was read in them: eggs follow the air in hours (assumption).
MEANS_S: Final = 600
#: s before the end of a record beyond which a stretch is read anew each time: a season.
_HELD_SPAN_S: Final = 150 * SECONDS_PER_DAY
#: s before the end of a record beyond which single readings are: what faults are looked for in.
_SINGLE_SPAN_S: Final = 90 * SECONDS_PER_DAY


@dataclass(frozen=True, slots=True)
class _HeldMeans:
    """Means of a probe's readings from `from_s` to the end of its record as of `tip`."""

    from_s: float
    tip: readings.Tip
    series: ReadingSeries


@dataclass(frozen=True, slots=True)
class _HeldSingle:
    """A probe's single readings from `from_s` to the end of its record as of `tip`.

    `rows` has time (s), °C and relative humidity (0-1, NaN where not measured), shape (n, 3).
    """

    from_s: float
    tip: readings.Tip
    rows: FloatArray


@dataclass
class SeriesCache:
    """Answers with the series of any probe; safe to share between threads."""

    humidity: HourlyHumidity = field(default_factory=HourlyHumidity)
    _means: dict[int, _HeldMeans] = field(default_factory=dict)
    _single: dict[int, _HeldSingle] = field(default_factory=dict)
    _lock: Lock = field(default_factory=Lock)

    def tips(self) -> dict[int, readings.Tip]:
        """Where every probe's record ends, by probe; as of now, not of the snapshot."""
        return readings.tips()

    def newest_change(self) -> int:
        """A number that rises whenever readings are stored or taken away."""
        return readings.newest_change()

    def series(self, probe: int, from_s: float, until_s: float) -> ReadingSeries:
        """A probe's readings, from..until both included; of those that come close, the means.

        A mean is of ten minutes, at the mean of their times; a reading that is alone in its ten
        minutes is itself. What reaches to the end of the record is held, from the earliest time
        asked for; new readings are appended to it. Old stretches, those of long finished clutches,
        are read when they are asked for, and not held: as the means of their hours, which moves
        what has developed by less than a thousandth.
        """
        if self._over_since(until_s, _HELD_SPAN_S):
            note(Used(probe, until_s))
            return _by_the_hour(probe, from_s, until_s)
        note(Used(probe))
        tip = readings.tip(probe)
        if tip is None:
            return ReadingSeries(np.empty(0), np.empty(0))
        with self._lock:
            held = self._means.get(probe)
            if held is None or held.from_s > from_s:
                held = _read_means(tip, from_s)
            elif held.tip.revision != tip.revision:
                held = _extended(held, tip)
            self._means[probe] = held
        return held.series.between(from_s, until_s)

    def single(self, probe: int, from_s: float, until_s: float) -> FloatArray:
        """A probe's single readings, from..until both included, in order.

        Time (s), °C and relative humidity (0-1, NaN where not measured), shape (n, 3).
        """
        note(Used(probe))
        tip = readings.tip(probe)
        if tip is None:
            return np.empty((0, 3))
        if self._over_since(from_s, _SINGLE_SPAN_S):
            return readings.single(probe, from_s, until_s)
        with self._lock:
            held = self._single.get(probe)
            if held is None or held.from_s > from_s or held.tip.rewrites != tip.rewrites:
                held = _HeldSingle(from_s, tip, readings.single(probe, from_s))
            elif held.tip.revision != tip.revision:
                held = _with_its_tail(held, tip)
            self._single[probe] = held
        return _between(held.rows, from_s, until_s)

    def _over_since(self, time_s: float, span_s: float) -> bool:
        """Whether a time is longer before the newest reading of the house than that."""
        newest_s = readings.newest_s()
        return newest_s is not None and time_s < newest_s - span_s


def _by_the_hour(probe: int, from_s: float, until_s: float) -> ReadingSeries:
    """Hours that lie within from..until, each at its middle."""
    hours = readings.hours(probe, from_s, until_s)
    middles = hours[:, 0] + SECONDS_PER_HOUR / 2.0
    within = (middles >= from_s) & (middles <= until_s)
    return ReadingSeries(middles[within], hours[within, 2])


def _read_means(tip: readings.Tip, from_s: float) -> _HeldMeans:
    # From where one begins, so that whoever asks from when is told the same.
    table = readings.means(tip.probe_id, from_s // MEANS_S * MEANS_S, MEANS_S)
    return _HeldMeans(from_s, tip, ReadingSeries(table[:, 0], table[:, 1]).summed())


def _extended(held: _HeldMeans, tip: readings.Tip) -> _HeldMeans:
    """The held means with what came after them, or read anew when it changed before its end."""
    known = held.series
    if held.tip.rewrites != tip.rewrites or not len(known.times_s):
        return _read_means(tip, held.from_s)
    # The last one may have been of ten minutes that were not over.
    table = readings.means(tip.probe_id, known.times_s[-1] // MEANS_S * MEANS_S, MEANS_S)
    whole = known.part(0, len(known.times_s) - 1)
    if not len(whole.times_s):
        return _read_means(tip, held.from_s)
    return _HeldMeans(held.from_s, tip, whole.followed_by(table[:, 0], table[:, 1]))


def _with_its_tail(held: _HeldSingle, tip: readings.Tip) -> _HeldSingle:
    last_s = float(held.rows[-1, 0]) if len(held.rows) else held.from_s - 1.0
    tail = readings.single(tip.probe_id, last_s + 1.0)
    return _HeldSingle(held.from_s, tip, np.concatenate([held.rows, tail]))


def _between(rows: FloatArray, from_s: float, until_s: float) -> FloatArray:
    first = np.searchsorted(rows[:, 0], from_s, side="left")
    return rows[first : np.searchsorted(rows[:, 0], until_s, side="right")]
