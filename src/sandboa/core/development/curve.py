"""Development against time, and its inverse."""

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from sandboa.core.development.box_temperature import BoxTemperature
from sandboa.core.development.clock import DevelopmentClock, FloatArray
from sandboa.core.development.reading_series import ReadingSeries
from sandboa.core.units import SECONDS_PER_DAY


@dataclass(frozen=True)
class DevelopmentCurve:
    """D(t), the integral of the clock's rate over the temperature at the box.

    D is 0 at lay, never falls, and goes on in a straight line after
    `as_of_s` at the expected temperature. Rate summation under fluctuating
    temperature: Georges et al. 2005, Physiol. Biochem. Zool. 78:18-30.
    """

    temperature: BoxTemperature
    clock: DevelopmentClock

    @cached_property
    def _parts(self) -> tuple[tuple[ReadingSeries, float], ...]:
        """All that follows each other from lay to as-of, with what is to be added to each (°C)."""
        return tuple((part, s.offset_c) for s in self.temperature.stretches for part in s.parts)

    @cached_property
    def _at_start(self) -> list[float]:
        """Development at the start of each part, and at the end of the last: k + 1 values."""
        reached = [0.0]
        for part, offset_c in self._parts:
            reached.append(reached[-1] + self._gained(part, offset_c))
        return reached

    @cached_property
    def _samples(self) -> tuple[FloatArray, FloatArray, FloatArray]:
        """Time, temperature and development at every sample; joints of parts stand twice."""
        reached = [
            start + self._since_first(part, offset_c)
            for start, (part, offset_c) in zip(self._at_start, self._parts, strict=False)
        ]
        return (
            np.concatenate([part.times_s for part, _ in self._parts]),
            np.concatenate([part.temperature_c + offset_c for part, offset_c in self._parts]),
            np.concatenate(reached),
        )

    def _gained(self, part: ReadingSeries, offset_c: float) -> float:
        """Development from the first sample to the last: by the sums kept with them, if any."""
        if self._has_straight_sums(part, offset_c):
            return float(self.clock.straight_total(part.degree_s(offset_c), part.seconds))
        return self.clock.total(part.times_s, part.temperature_c + offset_c)

    def _since_first(self, part: ReadingSeries, offset_c: float) -> FloatArray:
        """Development from the first sample to each, shape (n,)."""
        if self._has_straight_sums(part, offset_c):
            since_s = part.times_s - part.times_s[0]
            return self.clock.straight_total(part.degree_s_from_first(offset_c), since_s)
        steps = self.clock.steps(part.times_s, part.temperature_c + offset_c)
        return np.concatenate([[0.0], np.cumsum(steps)])

    def _has_straight_sums(self, part: ReadingSeries, offset_c: float) -> bool:
        """Whether degree seconds alone say what developed."""
        sums = part.sums
        return sums is not None and self.clock.is_straight(
            sums.lowest_c + offset_c, sums.highest_c + offset_c
        )

    @property
    def now(self) -> float:
        """Development reached at `as_of_s`, >= 0; the typical egg pips at 1."""
        return self._at_start[-1]

    @cached_property
    def future_rate_per_day(self) -> float:
        """Development per day to be expected after `as_of_s`."""
        return float(self.clock.rate_per_day(self.temperature.future_c))

    def at(self, time_s: float) -> float:
        """Development at `time_s`: exact, in the past and in the expected future."""
        ahead_days = (time_s - self.temperature.as_of_s) / SECONDS_PER_DAY
        if ahead_days >= 0:
            return self.now + ahead_days * self.future_rate_per_day
        if time_s <= self.temperature.start_s:
            return 0.0
        times, _, _ = self._samples
        return self._within(int(np.searchsorted(times, time_s, side="right")) - 1, time_s)

    def mean_c(self, until_s: float | None = None) -> float:
        """The steady temperature (°C) that gives what is developed by then; by default until 1.

        Where the clock runs in a straight line it is the mean temperature. At lay, and where it
        never gets to 1, it is what is expected.
        """
        if until_s is None:
            until_s = self.time_of(1.0)
        if until_s is None or until_s <= self.temperature.start_s:
            return self.temperature.future_c
        days = (until_s - self.temperature.start_s) / SECONDS_PER_DAY
        return self.clock.steady_c(self.at(until_s), days)

    def _within(self, sample: int, time_s: float) -> float:
        """Development at `time_s`, which lies between `sample` and the next."""
        times, temperature_c, reached = self._samples
        start_s, end_s = float(times[sample]), float(times[sample + 1])
        start_c, end_c = float(temperature_c[sample]), float(temperature_c[sample + 1])
        here_c = start_c + (end_c - start_c) * (time_s - start_s) / (end_s - start_s)
        days = (time_s - start_s) / SECONDS_PER_DAY
        return float(reached[sample]) + self.clock.ramp_rate_per_day(start_c, here_c) * days

    def time_of(self, development: float) -> float | None:
        """When D reaches `development` (s), or None when it never does at the expected temperature.

        In the future D is a straight line and the answer exact; in the past
        it is refined between two samples until it is right to 0.5 s.
        """
        if development > self.now:
            if self.future_rate_per_day <= 0.0:
                return None
            ahead_days = (development - self.now) / self.future_rate_per_day
            return self.temperature.as_of_s + ahead_days * SECONDS_PER_DAY
        if development <= 0.0:
            return self.temperature.start_s
        times, _, reached = self._samples
        # Summed another way, the last sample may lie a rounding below what was reached by now.
        sample = min(int(np.searchsorted(reached, development, side="left")), len(times) - 1) - 1
        low, high = float(times[sample]), float(times[sample + 1])
        while high - low > 0.5:
            middle = (low + high) / 2.0
            if self._within(sample, middle) < development:
                low = middle
            else:
                high = middle
        return high

    def times_of(self, developments: FloatArray, since_s: float | None = None) -> FloatArray | None:
        """`time_of` for many values at once, rising; a straight line between two samples.

        Of what was reached before `since_s` only that is told: times before it are `since_s`
        itself, and only the readings after it are looked at. None when the expected temperature
        never gets there.
        """
        ahead = developments > self.now
        if ahead.any() and self.future_rate_per_day <= 0.0:
            return None
        start_s = self.temperature.start_s
        times = np.full(len(developments), start_s if since_s is None else max(start_s, since_s))
        if self.temperature.stretches and not ahead.all():
            if since_s is None:
                sampled_s, _, reached = self._samples
            else:
                sampled_s, reached = self._lately(since_s)
            times = np.maximum(np.interp(developments, reached, sampled_s), times)
        if ahead.any():
            days = (developments[ahead] - self.now) / self.future_rate_per_day
            times[ahead] = self.temperature.as_of_s + days * SECONDS_PER_DAY
        return times

    def _lately(self, since_s: float) -> tuple[FloatArray, FloatArray]:
        """Time and development at every sample from just before `since_s` on."""
        times, reached = [], []
        for end, (part, offset_c) in zip(self._at_start[1:], self._parts, strict=True):
            if part.times_s[-1] < since_s:
                continue
            first = max(int(np.searchsorted(part.times_s, since_s, side="right")) - 1, 0)
            lately = part.part(first, len(part.times_s))
            gained = self._since_first(lately, offset_c)
            times.append(lately.times_s)
            # Counted back from its end, so that what was before needs no summing.
            reached.append(end - gained[-1] + gained)
        return np.concatenate(times), np.concatenate(reached)

    def samples(self) -> tuple[FloatArray, FloatArray, FloatArray]:
        """Time (s), temperature (°C) and D at every sample up to `as_of_s`, equally long."""
        if not self.temperature.stretches:
            return np.array([self.temperature.start_s]), np.zeros(0), np.zeros(1)
        return self._samples
