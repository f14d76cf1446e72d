"""One probe's readings, and the sums kept with them so that no question adds them up again."""

from dataclasses import dataclass
from typing import Self

import numpy as np

from sandboa.core.development.clock import FloatArray


@dataclass(frozen=True, slots=True)
class ReadingSums:
    """Sums of a record, of which a series may be a part.

    degree_s: °C·s from the record's beginning to each reading of the series, shape (n,), in
        straight lines between readings.
    lowest_c, highest_c: °C between which the whole record lies.
    """

    degree_s: FloatArray
    lowest_c: float
    highest_c: float


@dataclass(frozen=True, slots=True)
class ReadingSeries:
    """One probe's readings: `times_s`, strictly rising, and `temperature_c`, both shape (n,).

    `sums` are kept by whoever holds the record (`summed`), and follow it through every cut; what
    is asked of a series is the same without them, and takes longer.
    """

    times_s: FloatArray
    temperature_c: FloatArray
    sums: ReadingSums | None = None

    def __post_init__(self) -> None:
        if self.times_s.shape != self.temperature_c.shape or self.times_s.ndim != 1:
            raise ValueError("times and temperatures must be two equally long 1-d arrays")

    @property
    def seconds(self) -> float:
        """From the first reading to the last; needs one."""
        return float(self.times_s[-1] - self.times_s[0])

    def degree_s(self, offset_c: float = 0.0) -> float:
        """°C·s from the first reading to the last, each so much higher; needs one."""
        if self.sums is None:
            return float(self.degree_s_from_first(offset_c)[-1])
        return float(self.sums.degree_s[-1] - self.sums.degree_s[0]) + offset_c * self.seconds

    def degree_s_from_first(self, offset_c: float = 0.0) -> FloatArray:
        """°C·s from the first reading to each, each so much higher; shape (n,), n >= 1."""
        if self.sums is None:
            degree_s = _degree_s(self.times_s, self.temperature_c)
        else:
            degree_s = self.sums.degree_s - self.sums.degree_s[0]
        if offset_c:
            degree_s = degree_s + offset_c * (self.times_s - self.times_s[0])
        return np.asarray(degree_s)

    def summed(self) -> Self:
        """The same readings with their sums."""
        values = self.temperature_c
        if self.sums is not None or not len(values):
            return self
        degree_s = _degree_s(self.times_s, values)
        sums = ReadingSums(degree_s, float(values.min()), float(values.max()))
        return type(self)(self.times_s, values, sums)

    def followed_by(self, times_s: FloatArray, temperature_c: FloatArray) -> Self:
        """With later readings behind them, both shape (m,): only those are added up."""
        times = np.concatenate([self.times_s, times_s])
        values = np.concatenate([self.temperature_c, temperature_c])
        sums = self.sums
        if sums is not None and len(times_s):
            last = len(self.times_s) - 1
            added = _degree_s(times[last:], values[last:])[1:]
            sums = ReadingSums(
                np.concatenate([sums.degree_s, sums.degree_s[-1] + added]),
                min(sums.lowest_c, float(temperature_c.min())),
                max(sums.highest_c, float(temperature_c.max())),
            )
        return type(self)(times, values, sums)

    def part(self, first: int, last: int) -> Self:
        """Readings `first` up to, not including, `last` (views, nothing is copied)."""
        sums = self.sums
        if sums is not None:
            sums = ReadingSums(sums.degree_s[first:last], sums.lowest_c, sums.highest_c)
        return type(self)(self.times_s[first:last], self.temperature_c[first:last], sums)

    def between(self, start_s: float, end_s: float) -> Self:
        """The readings with start <= time <= end (views, nothing is copied)."""
        first = np.searchsorted(self.times_s, start_s, side="left")
        last = np.searchsorted(self.times_s, end_s, side="right")
        return self.part(int(first), int(last))

    def across(self, start_s: float, end_s: float) -> tuple[Self, ...]:
        """All of start..end, start < end: parts that follow each other, each of 2 samples or more.

        Cut in a straight line between two readings, and before the first or after the last the
        nearest is held; needs one reading. The readings themselves are not copied, which for a
        season of minutes would take longer than all that is asked of them.
        """
        first = int(np.searchsorted(self.times_s, start_s, side="left"))
        last = int(np.searchsorted(self.times_s, end_s, side="right"))
        start_c, end_c = np.interp([start_s, end_s], self.times_s, self.temperature_c).tolist()
        if last <= first:
            return (self._ramp(start_s, start_c, end_s, end_c),)
        parts = []
        if self.times_s[first] > start_s:
            next_s, next_c = float(self.times_s[first]), float(self.temperature_c[first])
            parts.append(self._ramp(start_s, start_c, next_s, next_c))
        if last - first > 1:
            parts.append(self.part(first, last))
        if self.times_s[last - 1] < end_s:
            past_s, past_c = float(self.times_s[last - 1]), float(self.temperature_c[last - 1])
            parts.append(self._ramp(past_s, past_c, end_s, end_c))
        return tuple(parts)

    @classmethod
    def _ramp(cls, start_s: float, start_c: float, end_s: float, end_c: float) -> Self:
        degree_s = np.array([0.0, (start_c + end_c) / 2.0 * (end_s - start_s)])
        sums = ReadingSums(degree_s, min(start_c, end_c), max(start_c, end_c))
        return cls(np.array([start_s, end_s]), np.array([start_c, end_c]), sums)


def _degree_s(times_s: FloatArray, temperature_c: FloatArray) -> FloatArray:
    """°C·s from the first sample to each, shape (n,)."""
    degree_s = np.zeros(len(times_s))
    steps = temperature_c[1:] + temperature_c[:-1]
    steps *= times_s[1:] - times_s[:-1]
    np.cumsum(steps, out=degree_s[1:])
    degree_s *= 0.5
    return degree_s
