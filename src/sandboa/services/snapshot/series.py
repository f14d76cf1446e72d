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
from sandboa.services.snapshot.hourly_humidity import HourlyHumidity

#: s before the end of a record beyond which a stretch is read anew each time: a season.
_HELD_SPAN_S: Final = 150 * SECONDS_PER_DAY


@dataclass
class _HeldSeries:
    """A probe's readings from `from_s` to the end of its record as of `tip`."""

    from_s: float
    tip: readings.Tip
    series: ReadingSeries
    humidity: FloatArray


@dataclass
class SeriesCache:
    """Answers with the series of any probe; safe to share between threads."""

    humidity: HourlyHumidity = field(default_factory=HourlyHumidity)
    _series: dict[int, _HeldSeries] = field(default_factory=dict)
    _lock: Lock = field(default_factory=Lock)

    def tips(self) -> dict[int, readings.Tip]:
        """Where every probe's record ends, by probe; as of now, not of the snapshot."""
        return readings.tips()

    def newest_change(self) -> int:
        """A number that rises whenever readings are stored or taken away."""
        return readings.newest_change()

    def series(self, probe: int, from_s: float, until_s: float) -> ReadingSeries:
        """A probe's readings, from..until both included.

        What reaches to the end of the record is held, from the earliest time
        asked for; new readings are appended to it. Old stretches, those of long
        finished clutches, are read when they are asked for, and not held: as
        the means of their hours, for a season of minutes takes long to read
        and moves what has developed by less than a thousandth.
        """
        if self._long_over(until_s):
            return _by_the_hour(probe, from_s, until_s)
        return self.with_humidity(probe, from_s, until_s)[0]

    def _long_over(self, until_s: float) -> bool:
        """Whether a stretch ended a season before the newest reading of the house."""
        newest_s = readings.newest_s()
        return newest_s is not None and until_s < newest_s - _HELD_SPAN_S

    def with_humidity(
        self, probe: int, from_s: float, until_s: float
    ) -> tuple[ReadingSeries, FloatArray]:
        """As `series`, and the relative humidity 0-1 of each reading, NaN where not measured."""
        tip = readings.tip(probe)
        if tip is None:
            return ReadingSeries(np.empty(0), np.empty(0)), np.empty(0)
        with self._lock:
            held = self._series.get(probe)
            if held is None or held.from_s > from_s:
                if self._long_over(until_s):
                    times, values, humidity = readings.series(probe, from_s, until_s)
                    return ReadingSeries(times, values), humidity
                held = _read(tip, from_s)
            elif held.tip.revision != tip.revision:
                held = _extended(held, tip)
            self._series[probe] = held
            whole = held.series
            first = np.searchsorted(whole.times_s, from_s, side="left")
            return whole.between(from_s, until_s), held.humidity[
                first : np.searchsorted(whole.times_s, until_s, side="right")
            ]


def _by_the_hour(probe: int, from_s: float, until_s: float) -> ReadingSeries:
    """Hours that lie within from..until, each at its middle."""
    hours = readings.hours(probe, from_s, until_s)
    middles = hours[:, 0] + SECONDS_PER_HOUR / 2.0
    within = (middles >= from_s) & (middles <= until_s)
    return ReadingSeries(middles[within], hours[within, 2])


def _read(tip: readings.Tip, from_s: float) -> _HeldSeries:
    times, values, humidity = readings.series(tip.probe_id, from_s)
    return _HeldSeries(from_s, tip, ReadingSeries(times, values).summed(), humidity)


def _extended(held: _HeldSeries, tip: readings.Tip) -> _HeldSeries:
    """The held series with what came after it, or read anew when it changed before its end."""
    known = held.series
    if held.tip.rewrites != tip.rewrites or not len(known.times_s):
        return _read(tip, held.from_s)
    times, values, humidity = readings.series(tip.probe_id, float(known.times_s[-1]) + 1.0)
    return _HeldSeries(
        held.from_s,
        tip,
        known.followed_by(times, values),
        np.concatenate([held.humidity, humidity]),
    )
