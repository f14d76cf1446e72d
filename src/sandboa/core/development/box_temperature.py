"""What temperature the eggs had: readings, gaps, and what fills a gap.

The chain, best first: probe in the box, probe on the shelf, probe of the
cabinet plus the shelf's learned offset, thermometer read by hand, set point
plus the learned offset. Each source covers what the better ones left open.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Final

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.development.earlier_life import EarlierLife
from sandboa.core.development.sources import (
    DEFAULT_RECORD,
    ESTIMATED_SD_C,
    Provenance,
    ReadingSeries,
    RecordRules,
    SetPoints,
    TemperatureSource,
)
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR

#: days of the last week that a probe must have measured for that.
KNOWN_DAYS: Final = 3.0
#: s after a move or a new set point from which the box's own record counts again (assumption).
SETTLING_S: Final = 6.0 * SECONDS_PER_HOUR


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
class Expected:
    """How far the time to come may be off: `sd_c` of its own (1 sd, °C), and, where it is
    expected because of what a probe measured lately, that probe's error as well.
    """

    sd_c: float
    probe: str | None = None
    probe_sd_c: float = 0.0


@dataclass(frozen=True, slots=True)
class BoxTemperature:
    """Temperature at the box from lay to `as_of_s`, without holes; and what to expect after."""

    stretches: tuple[Stretch, ...]
    start_s: float
    as_of_s: float
    future_c: float
    future: "Expected" = field(default_factory=lambda: Expected(ESTIMATED_SD_C))
    estimated_sd_c: float = field(default=ESTIMATED_SD_C)
    earlier: EarlierLife = field(default_factory=EarlierLife)

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


@dataclass(frozen=True, slots=True)
class Ahead:
    """What is known of the temperature to come.

    future_c: °C from now on; by default what was usual in the last 7 days at the
        box; where it stands less than 3 days, at its place; else the set point.
    settled_since_s: when the box was moved or the set point changed last; what
        was before says nothing of the time to come (at least 6 h must follow).
    earlier: what the eggs had before they were measured here; not what is to come.
    known_by: what measured this place for days, before lay too, since the set point
        there was changed: so that what is expected is more than a guess, and a
        power cut on lay day is not taken for the weeks to come.
    record: the numbers in force for what was not measured.
    """

    future_c: float | None = None
    settled_since_s: float | None = None
    known_by: TemperatureSource | None = None
    earlier: EarlierLife = field(default_factory=EarlierLife)
    record: RecordRules = DEFAULT_RECORD


def box_temperature(
    laid_s: float,
    as_of_s: float,
    sources: Sequence[TemperatureSource],
    set_points: SetPoints,
    ahead: Ahead | None = None,
) -> BoxTemperature:
    """Resolve the chain of sources into one temperature record of the box.

    Parameters
    ----------
    laid_s, as_of_s: s since epoch, laid <= as_of. Readings after `as_of_s`
        are not used, so an old forecast can be made again.
    sources: best first; each fills what the ones before it left open.
    set_points: what stands in where no source speaks.
    ahead: what is known of the time to come, and of the time before they came here.

    Raises ValueError when `as_of_s` is before `laid_s`.

    Source: rule A2. A gap up to `longest_gap_s` is bridged by a straight
    line; at lay and at `as_of_s` the nearest reading within that time holds.
    A longer gap goes whole to the next source.
    """
    if as_of_s < laid_s:
        raise ValueError("the clutch was not laid yet at that time")
    ahead = ahead or Ahead()
    stretches = _elsewhere(laid_s, as_of_s, ahead.earlier)
    here_s = stretches[0].end_s if stretches else laid_s
    open_intervals = [(here_s, as_of_s)] if as_of_s > here_s else []
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
                np.full(2, set_point),
                Provenance.SET_POINT,
                ahead.record.estimated_sd_c,
                measured=False,
            )
            for left, right, set_point in set_points.pieces(start_s, end_s)
        )
    stretches.sort(key=lambda s: s.start_s)
    future_c = ahead.future_c
    if future_c is None:
        future_c = _usual_c(stretches, laid_s, as_of_s, ahead)
    if future_c is None:
        future_c = set_points.at(as_of_s)
    expected = _expected(stretches, as_of_s, ahead)
    return BoxTemperature(
        tuple(stretches),
        laid_s,
        as_of_s,
        future_c,
        expected,
        ahead.record.estimated_sd_c,
        ahead.earlier,
    )


def _elsewhere(laid_s: float, as_of_s: float, earlier: EarlierLife) -> list[Stretch]:
    """What the eggs had until they came: nothing that measured here spoke for them."""
    until_s = laid_s if earlier.arrived_s is None else min(earlier.arrived_s, as_of_s)
    if until_s <= laid_s:
        return []
    return [
        Stretch(
            np.array([laid_s, until_s]),
            np.full(2, earlier.temperature_c),
            Provenance.BEFORE,
            earlier.temperature_sd_c,
            measured=False,
        )
    ]


def _usual_c(
    stretches: Sequence[Stretch], laid_s: float, as_of_s: float, ahead: Ahead
) -> float | None:
    """What was usual lately at the box, or at its place while the box is new there."""
    settled_since_s, known_by = ahead.settled_since_s, ahead.known_by
    recent_s = as_of_s - ahead.record.recent_days * SECONDS_PER_DAY
    begins_s = max(laid_s, settled_since_s if settled_since_s is not None else laid_s)
    if known_by is not None and as_of_s - begins_s < KNOWN_DAYS * SECONDS_PER_DAY:
        known = known_by.series.between(recent_s, as_of_s)
        place = list(_covered(known_by, known, recent_s, as_of_s))
        usual_c = _usual_since_c(place, recent_s)
        if usual_c is not None:
            return usual_c + known_by.offset_c
    if settled_since_s is not None and settled_since_s > recent_s:
        settled = as_of_s - settled_since_s >= SETTLING_S
        return _usual_since_c(stretches, settled_since_s) if settled else None
    return _usual_since_c(stretches, recent_s)


def _held_at_ends(source: TemperatureSource, laid_s: float, as_of_s: float) -> ReadingSeries:
    """The source's readings, offset applied, with the end values held to lay and to as-of."""
    margin = source.longest_gap_s
    known = source.series.between(laid_s - margin, as_of_s)
    if len(known.times_s):
        # Readings from just before lay stay in: they speak for the moment of lay.
        known = known.filling(min(laid_s, float(known.times_s[0])), as_of_s, margin)
    if source.offset_c:
        return ReadingSeries(known.times_s, known.temperature_c + source.offset_c)
    return known


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


def _expected(stretches: Sequence[Stretch], as_of_s: float, ahead: Ahead) -> Expected:
    """What the expectation rests on: a probe that measured 3 days of the last week, or less."""
    record, known_by = ahead.record, ahead.known_by
    start_s = as_of_s - record.recent_days * SECONDS_PER_DAY
    seconds: dict[tuple[str, float], float] = {}
    for s in stretches:
        if s.measured and s.end_s > start_s:
            key = (s.name, s.sd_c)
            seconds[key] = seconds.get(key, 0.0) + s.end_s - max(s.start_s, start_s)
    if sum(seconds.values()) >= KNOWN_DAYS * SECONDS_PER_DAY:
        probe, sd_c = max(seconds, key=lambda key: seconds[key])
        return Expected(record.ahead_sd_c, probe, sd_c)
    if known_by is not None:
        return Expected(record.ahead_sd_c, known_by.name, known_by.sd_c)
    return Expected(record.estimated_sd_c)


def _usual_since_c(stretches: Sequence[Stretch], start_s: float) -> float | None:
    """What is usual in the resolved record from `start_s` on; None without any.

    The median of its hourly means: two days without a fan say nothing of the
    weeks to come once the fan turns again (assumption).
    """
    pieces = [
        _clip(
            ReadingSeries(stretch.times_s, stretch.temperature_c),
            max(start_s, stretch.start_s),
            stretch.end_s,
        )
        for stretch in stretches
        if stretch.end_s > start_s
    ]
    if not pieces:
        return None
    one = len(pieces) == 1
    times = pieces[0].times_s if one else np.concatenate([p.times_s for p in pieces])
    values = pieces[0].temperature_c if one else np.concatenate([p.temperature_c for p in pieces])
    whole_s = float(times[-1] - times[0])
    if whole_s <= 0:
        return None
    twice_degree_s = np.zeros(len(times))
    np.cumsum((values[1:] + values[:-1]) * (times[1:] - times[:-1]), out=twice_degree_s[1:])
    count = max(1, round(whole_s / SECONDS_PER_HOUR))
    edges = times[0] + np.arange(count + 1) * (whole_s / count)
    ordered = np.sort(np.diff(np.interp(edges, times, twice_degree_s)))
    middle = len(ordered) // 2
    # numpy.median says the same and takes as long as all the rest.
    return float(ordered[middle] + ordered[~middle]) / 4.0 / (whole_s / count)
