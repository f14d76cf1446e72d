"""What temperature the eggs had: readings, gaps, and what fills a gap.

The chain, best first: probe in the box, probe on the shelf, probe of the
cabinet plus the shelf's learned offset, thermometer read by hand, set point
plus the learned offset. Each source covers what the better ones left open.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from itertools import pairwise
from typing import Final

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR

#: s between readings up to which a straight line is drawn (handbook A2).
LOGGER_GAP_S: Final = 2.0 * SECONDS_PER_HOUR
#: s between hand readings that still speak for the time between (assumption: read once a day).
HAND_GAP_S: Final = 26.0 * SECONDS_PER_HOUR
#: °C (1 sd) of a probe checked against a reference, and of one never checked (handbook A3).
CHECKED_PROBE_SD_C: Final = 0.1
UNCHECKED_PROBE_SD_C: Final = 0.3
#: °C (1 sd) of any stretch that was not measured, the future included (handbook A3).
ESTIMATED_SD_C: Final = 0.7
#: days of common record from which a shelf's offset is learned (handbook E).
OFFSET_DAYS: Final = 14.0
#: days whose mean is taken for the time to come (handbook A2).
RECENT_DAYS: Final = 7.0


class Provenance(StrEnum):
    """Where a stretch of temperature comes from."""

    BOX_PROBE = "box probe"
    SHELF_PROBE = "shelf probe"
    CABINET_PROBE = "cabinet probe"
    BY_HAND = "by hand"
    SET_POINT = "set point"


@dataclass(frozen=True, slots=True)
class ReadingSeries:
    """One probe's readings: `times_s`, strictly rising, and `temperature_c`, both shape (n,)."""

    times_s: FloatArray
    temperature_c: FloatArray

    def __post_init__(self) -> None:
        if self.times_s.shape != self.temperature_c.shape or self.times_s.ndim != 1:
            raise ValueError("times and temperatures must be two equally long 1-d arrays")

    def between(self, start_s: float, end_s: float) -> "ReadingSeries":
        """The readings with start <= time <= end (views, nothing is copied)."""
        first = np.searchsorted(self.times_s, start_s, side="left")
        last = np.searchsorted(self.times_s, end_s, side="right")
        return ReadingSeries(self.times_s[first:last], self.temperature_c[first:last])


@dataclass(frozen=True, slots=True)
class TemperatureSource:
    """One link of the chain.

    `sd_c` is the probe's systematic error (1 sd, °C); `offset_c` is added to
    every reading; `measured` is False for what only stands in for a reading.
    """

    provenance: Provenance
    series: ReadingSeries
    sd_c: float = UNCHECKED_PROBE_SD_C
    offset_c: float = 0.0
    measured: bool = True
    longest_gap_s: float = LOGGER_GAP_S
    name: str = ""


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


@dataclass(frozen=True, slots=True)
class Stretch:
    """A piece of time with one provenance; temperature is straight between samples (n >= 2)."""

    times_s: FloatArray
    temperature_c: FloatArray
    provenance: Provenance
    sd_c: float
    measured: bool
    name: str = ""

    @property
    def start_s(self) -> float:
        return float(self.times_s[0])

    @property
    def end_s(self) -> float:
        return float(self.times_s[-1])

    @property
    def seconds(self) -> float:
        return self.end_s - self.start_s


@dataclass(frozen=True, slots=True)
class BoxTemperature:
    """Temperature at the box from lay to `as_of_s`, without holes; and what to expect after."""

    stretches: tuple[Stretch, ...]
    start_s: float
    as_of_s: float
    future_c: float
    estimated_sd_c: float = field(default=ESTIMATED_SD_C)

    @property
    def measured_share(self) -> float:
        """Share of the time since lay that a probe measured, 0-1 (0 on lay day itself)."""
        total = self.as_of_s - self.start_s
        if total <= 0:
            return 0.0
        return min(1.0, sum(s.seconds for s in self.stretches if s.measured) / total)

    @property
    def gaps(self) -> tuple[Stretch, ...]:
        """The stretches that no probe measured, in order of time."""
        return tuple(s for s in self.stretches if not s.measured)


def box_temperature(
    laid_s: float,
    as_of_s: float,
    sources: Sequence[TemperatureSource],
    set_points: SetPoints,
    *,
    shelf_offset_c: float = 0.0,
    future_c: float | None = None,
) -> BoxTemperature:
    """Resolve the chain of sources into one temperature record of the box.

    Parameters
    ----------
    laid_s, as_of_s: s since epoch, laid <= as_of. Readings after `as_of_s`
        are not used, so an old forecast can be made again.
    sources: best first; each fills what the ones before it left open.
    set_points: what stands in where no source speaks, plus `shelf_offset_c`.
    future_c: °C from `as_of_s` on; by default the mean of the last 7 days at
        the box (since lay when younger), or the set point on lay day.

    Raises ValueError when `as_of_s` is before `laid_s`.

    Source: handbook A2. A gap up to `longest_gap_s` is bridged by a straight
    line; at lay and at `as_of_s` the nearest reading within that time holds.
    A longer gap goes whole to the next source.
    """
    if as_of_s < laid_s:
        raise ValueError("the clutch was not laid yet at that time")
    stretches: list[Stretch] = []
    open_intervals = [(laid_s, as_of_s)] if as_of_s > laid_s else []
    for source in sources:
        known = _held_at_ends(source, laid_s, as_of_s)
        still_open: list[tuple[float, float]] = []
        for start_s, end_s in open_intervals:
            covered = list(_covered(source, known, start_s, end_s))
            stretches.extend(covered)
            still_open.extend(_left_open(covered, start_s, end_s))
        open_intervals = still_open
    for start_s, end_s in open_intervals:
        stretches.extend(
            Stretch(
                np.array([left, right]),
                np.full(2, set_point + shelf_offset_c),
                Provenance.SET_POINT,
                ESTIMATED_SD_C,
                measured=False,
            )
            for left, right, set_point in set_points.pieces(start_s, end_s)
        )
    stretches.sort(key=lambda s: s.start_s)
    if future_c is None:
        future_c = _recent_mean_c(stretches, as_of_s)
    if future_c is None:
        future_c = set_points.at(as_of_s) + shelf_offset_c
    return BoxTemperature(tuple(stretches), laid_s, as_of_s, future_c)


def learned_offset_c(place: ReadingSeries, cabinet: ReadingSeries, as_of_s: float) -> float | None:
    """Mean of place minus cabinet probe over the last 14 days (°C), or None without common record.

    The place's readings are compared with the cabinet's straight line at the
    same moments, where the cabinet has readings within 2 h on both sides.
    Source: handbook E.
    """
    start_s = as_of_s - OFFSET_DAYS * SECONDS_PER_DAY
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
    return float(difference.mean())


def _held_at_ends(source: TemperatureSource, laid_s: float, as_of_s: float) -> ReadingSeries:
    """The source's readings, offset applied, with the end values held to lay and to as-of."""
    margin = source.longest_gap_s
    known = source.series.between(laid_s - margin, as_of_s)
    times, values = known.times_s, known.temperature_c
    if len(times) == 0:
        return known
    before = times[:1] if 0 < times[0] - laid_s <= margin else times[:0]
    after = times[-1:] if 0 < as_of_s - times[-1] <= margin else times[:0]
    if len(before) or len(after):
        head, tail = np.full(len(before), laid_s), np.full(len(after), as_of_s)
        times = np.concatenate([head, times, tail])
        values = np.concatenate([values[: len(head)], values, values[len(values) - len(tail) :]])
    if source.offset_c:
        values = values + source.offset_c
    return ReadingSeries(times, values)


def _covered(
    source: TemperatureSource, known: ReadingSeries, start_s: float, end_s: float
) -> Iterator[Stretch]:
    """The parts of start..end that `known` speaks for, in order."""
    times = known.times_s
    if len(times) < 2:
        return
    for first, last in _runs(times, source.longest_gap_s):
        left, right = max(start_s, float(times[first])), min(end_s, float(times[last - 1]))
        if right <= left:
            continue
        piece = _clip(
            ReadingSeries(times[first:last], known.temperature_c[first:last]), left, right
        )
        yield Stretch(
            piece.times_s,
            piece.temperature_c,
            source.provenance,
            source.sd_c,
            source.measured,
            source.name,
        )


def _runs(times: FloatArray, longest_gap_s: float) -> Iterator[tuple[int, int]]:
    """Cut readings at every longer gap: (first, one past the last) of each run.

    Times only rise, so readings a stride apart that are close enough leave no
    room for a gap between them: only the strides that are not are looked into.
    """
    count = len(times)
    span_s = float(times[-1] - times[0])
    stride = max(1, min(count - 1, int(count * longest_gap_s / (2.0 * span_s)))) if span_s else 1
    corners = np.append(np.arange(0, count - 1, stride), count - 1)
    wide = np.flatnonzero(np.diff(times[corners]) > longest_gap_s)
    edges = [0]
    for start, end in zip(corners[wide].tolist(), corners[wide + 1].tolist(), strict=True):
        gaps = np.flatnonzero(np.diff(times[start : end + 1]) > longest_gap_s)
        edges += (gaps + start + 1).tolist()
    return pairwise([*edges, count])


def _clip(series: ReadingSeries, left: float, right: float) -> ReadingSeries:
    """Cut a gapless run to left..right, interpolating at the cuts."""
    times, values = series.times_s, series.temperature_c
    if times[0] == left and times[-1] == right:
        return series
    inner = series.between(left, right)
    ends = np.interp([left, right], times, values)
    add_left = len(inner.times_s) == 0 or inner.times_s[0] > left
    add_right = len(inner.times_s) == 0 or inner.times_s[-1] < right
    head, tail = np.array([left])[: int(add_left)], np.array([right])[: int(add_right)]
    return ReadingSeries(
        np.concatenate([head, inner.times_s, tail]),
        np.concatenate([ends[: len(head)], inner.temperature_c, ends[2 - len(tail) :]]),
    )


def _left_open(
    covered: Sequence[Stretch], start_s: float, end_s: float
) -> Iterator[tuple[float, float]]:
    reached = start_s
    for stretch in covered:
        if stretch.start_s > reached:
            yield reached, stretch.start_s
        reached = stretch.end_s
    if end_s > reached:
        yield reached, end_s


def _recent_mean_c(stretches: Sequence[Stretch], as_of_s: float) -> float | None:
    """Time-weighted mean of the last 7 days of the resolved record, or None when there is none."""
    start_s = as_of_s - RECENT_DAYS * SECONDS_PER_DAY
    seconds = degree_seconds = 0.0
    for stretch in stretches:
        if stretch.end_s <= start_s:
            continue
        piece = _clip(
            ReadingSeries(stretch.times_s, stretch.temperature_c),
            max(start_s, stretch.start_s),
            stretch.end_s,
        )
        twice = piece.temperature_c[1:] + piece.temperature_c[:-1]
        degree_seconds += float(twice @ np.diff(piece.times_s)) / 2.0
        seconds += float(piece.times_s[-1] - piece.times_s[0])
    return degree_seconds / seconds if seconds > 0 else None
