"""Rate of development against temperature: the degree-day clock.

To change how fast eggs develop at a temperature, change `DevelopmentClock`;
tests/core/test_clock.py holds the known values that guard it.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from sandboa.core.units import SECONDS_PER_DAY

FloatArray = NDArray[np.float64]

#: Samples worked on at a time: a block's intermediate arrays stay in the processor's cache.
_BLOCK: Final = 32768


def _blocks(samples: int) -> Iterator[tuple[int, int]]:
    """Cut the steps between `samples` samples into (start, end) blocks that fit the cache."""
    for start in range(0, samples - 1, _BLOCK):
        yield start, min(start + _BLOCK, samples - 1)


@dataclass(frozen=True, slots=True)
class DevelopmentClock:
    """Degree-day rate r(T) = (T - zero) / sum, flat above the cap, 0 below zero.

    Attributes
    ----------
    zero_c: °C below which nothing develops (19.0; range 15-23).
    sum_c_days: °C·days from lay to the typical pip (735; range 600-900).
    cap_c: °C above which warmth no longer speeds development (33.0; range 32-35).

    Source: degree-day method; the three numbers were fitted by us to
    keeper-practice incubation times (assumption). They give 77.4 days at
    28.5 °C, 66.8 at 30.0, 60.7 at 31.1, 58.0 at 31.67 and 56.5 at 32.0.
    """

    zero_c: float = 19.0
    sum_c_days: float = 735.0
    cap_c: float = 33.0

    def rate_per_day(self, temperature_c: FloatArray | float) -> FloatArray:
        """Share of development per day at `temperature_c` (°C, any shape), >= 0."""
        effective: FloatArray = np.minimum(temperature_c, self.cap_c) - self.zero_c
        return np.maximum(effective, 0.0) * (1.0 / self.sum_c_days)

    def steady_c(self, development: float, days: float) -> float:
        """The steady temperature (°C) that gives so much development in so many days, > 0."""
        return self.zero_c + self.sum_c_days * development / days

    def ramp_rate_per_day(self, start_c: float, end_c: float) -> float:
        """Mean rate while temperature runs in a straight line from start to end (°C).

        Exact, including ramps that cross `zero_c` or `cap_c`, so that cutting
        an interval in two never changes its development.
        """
        span = end_c - start_c
        if abs(span) < 1e-9:
            return float(self.rate_per_day((start_c + end_c) / 2.0))
        return (self._area(end_c) - self._area(start_c)) / span

    def _area(self, temperature_c: float) -> float:
        """Integral of the rate over temperature, from `zero_c` up (°C/day)."""
        effective = max(min(temperature_c, self.cap_c) - self.zero_c, 0.0)
        above = max(temperature_c - self.cap_c, 0.0) * (self.cap_c - self.zero_c)
        return (effective**2 / 2.0 + above) / self.sum_c_days

    def steps(self, times_s: FloatArray, temperature_c: FloatArray) -> FloatArray:
        """Development gained between consecutive samples.

        Parameters: `times_s` (s) and `temperature_c` (°C), both shape (n,),
        temperature a straight line between samples. Returns shape (n - 1,), >= 0.

        Where all samples lie between the two kinks the trapezium is exact and
        cheap, which is nearly always; other blocks pay for their clipping.
        """
        gained = np.empty(max(len(times_s) - 1, 0))
        for start, end in _blocks(len(times_s)):
            samples = slice(start, end + 1)
            self._block(times_s[samples], temperature_c[samples], gained[start:end])
        return gained

    def total(self, times_s: FloatArray, temperature_c: FloatArray) -> float:
        """Development gained from the first sample to the last: the sum of `steps`.

        Between the kinks the rate is a straight line, so the sum is the mean
        temperature of each step times its length: one product of two arrays.
        """
        gained = 0.0
        for start, end in _blocks(len(times_s)):
            times, values = times_s[start : end + 1], temperature_c[start : end + 1]
            if self.is_straight(float(values.min()), float(values.max())):
                # Each sample speaks for half of the steps on both its sides: two passes, not three.
                degree_s = float(values[1:-1] @ (times[2:] - times[:-2]))
                degree_s += float(values[0] * (times[1] - times[0]))
                degree_s = 0.5 * (degree_s + float(values[-1] * (times[-1] - times[-2])))
                gained += float(self.straight_total(degree_s, float(times[-1] - times[0])))
            else:
                part = np.empty(end - start)
                self._block(times, values, part)
                gained += float(part.sum())
        return gained

    def is_straight(self, lowest_c: float, highest_c: float) -> bool:
        """Whether temperatures between the two (°C) reach beyond neither kink of the rate."""
        return lowest_c >= self.zero_c and highest_c <= self.cap_c

    def straight_total(
        self, degree_s: FloatArray | float, seconds: FloatArray | float
    ) -> FloatArray:
        """Development gained over so many °C·s and s, between the kinks of the rate (any shape)."""
        per_degree_s = 1.0 / SECONDS_PER_DAY / self.sum_c_days
        return np.asarray((degree_s - self.zero_c * seconds) * per_degree_s)

    def _block(self, times_s: FloatArray, temperature_c: FloatArray, gained: FloatArray) -> None:
        """`steps` of a few samples, written to `gained`."""
        seconds = times_s[1:] - times_s[:-1]
        if self.is_straight(float(temperature_c.min()), float(temperature_c.max())):
            np.add(temperature_c[1:], temperature_c[:-1], out=gained)
            gained -= 2.0 * self.zero_c
            gained *= seconds
            gained *= 0.5 / SECONDS_PER_DAY / self.sum_c_days
            return
        rate = self.rate_per_day(temperature_c)
        gained[:] = (rate[1:] + rate[:-1]) * seconds * (0.5 / SECONDS_PER_DAY)
        side = (temperature_c > self.zero_c).astype(np.int8) + (temperature_c > self.cap_c)
        for i in np.flatnonzero(side[1:] != side[:-1]).tolist():
            ramp = self.ramp_rate_per_day(float(temperature_c[i]), float(temperature_c[i + 1]))
            gained[i] = ramp * float(seconds[i]) / SECONDS_PER_DAY


#: °C at which development stops, °C·days from lay to pip, and °C above which it goes no faster
#: (rule A1, keeper practice).
DEFAULT_CLOCK: Final = DevelopmentClock()
