"""What says a temperature: probes, thermometers read by hand, set points."""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise
from typing import Final

import numpy as np

from sandboa.core.development.reading_series import ReadingSeries
from sandboa.core.units import SECONDS_PER_HOUR

#: s between readings up to which a straight line is drawn (rule A2).
LOGGER_GAP_S: Final = 2.0 * SECONDS_PER_HOUR
#: s between hand readings that still speak for the time between (assumption: read once a day).
HAND_GAP_S: Final = 26.0 * SECONDS_PER_HOUR
#: °C (1 sd) of a probe checked against a reference, and of one never checked (rule A3).
CHECKED_PROBE_SD_C: Final = 0.1
UNCHECKED_PROBE_SD_C: Final = 0.3
#: °C (1 sd) of any stretch that was not measured, the future included (rule A3).
ESTIMATED_SD_C: Final = 0.7
#: °C (1 sd) by which the mean of the weeks to come differs from what a probe measured lately,
#: beside the probe's own error: cabinets fail, rooms change (assumption: twice the 0.1 that
#: simulated cabinets show, whose rooms know no seasons).
AHEAD_SD_C: Final = 0.2
#: days whose mean is taken for the time to come (rule A2).
RECENT_DAYS: Final = 7.0
#: days of common record from which a shelf's offset is learned (rule E).
OFFSET_DAYS: Final = 14.0


@dataclass(frozen=True, slots=True)
class RecordRules:
    """Numbers in force: °C (1 sd) of what was not measured and of the time to come, days whose
    mean is taken for it, s between readings up to which a straight line is drawn, and days from
    which a place's difference to its cabinet, or to the set point, is learned."""

    estimated_sd_c: float = ESTIMATED_SD_C
    ahead_sd_c: float = AHEAD_SD_C
    recent_days: float = RECENT_DAYS
    longest_gap_s: float = LOGGER_GAP_S
    offset_days: float = OFFSET_DAYS


DEFAULT_RECORD: Final = RecordRules()


class Provenance(StrEnum):
    """Where a stretch of temperature comes from."""

    BOX_PROBE = "box probe"
    SHELF_PROBE = "shelf probe"
    CABINET_PROBE = "cabinet probe"
    BY_HAND = "by hand"
    SET_POINT = "set point"
    BEFORE = "before they came"


@dataclass(frozen=True, slots=True)
class TemperatureSource:
    """One link of the chain.

    `sd_c` is the probe's systematic error (1 sd, °C); `offset_c` is added to
    every reading; `measured` is False for what only stands in for a reading.
    `speaks_between` is from when to when (s) it counts, where it was moved or checked then: no
    sliver beside such a cut is left without a reading.
    """

    provenance: Provenance
    series: ReadingSeries
    sd_c: float = UNCHECKED_PROBE_SD_C
    offset_c: float = 0.0
    measured: bool = True
    longest_gap_s: float = LOGGER_GAP_S
    name: str = ""
    speaks_between: tuple[float, float] = (-math.inf, math.inf)


@dataclass(frozen=True, slots=True)
class SetPoints:
    """The set point over time: value i holds from `from_s[i]` on; the first also before it."""

    from_s: tuple[float, ...]
    temperature_c: tuple[float, ...]

    def at(self, time_s: float) -> float:
        """Set point in force at `time_s` (°C)."""
        place = int(np.searchsorted(self.from_s, time_s, side="right")) - 1
        return self.temperature_c[max(place, 0)]

    def pieces(self, start_s: float, end_s: float) -> Iterator[tuple[float, float, float]]:
        """Split start..end at the changes: (from, to, °C) each."""
        cuts = [start_s, *(t for t in self.from_s if start_s < t < end_s), end_s]
        for left, right in pairwise(cuts):
            yield left, right, self.at(left)
