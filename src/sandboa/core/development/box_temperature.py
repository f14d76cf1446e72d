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
from sandboa.core.development.reading_series import ReadingSeries
from sandboa.core.development.sources import (
    DEFAULT_RECORD,
    ESTIMATED_SD_C,
    Provenance,
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
    """A piece of time with one provenance.

    `parts` follow each other without a hole, each of 2 samples or more with a straight line
    between them; `offset_c` is to be added to every sample.
    """

    parts: tuple[ReadingSeries, ...]
    provenance: Provenance
    sd_c: float
    measured: bool
    name: str = ""
    offset_c: float = 0.0

    @property
    def times_s(self) -> FloatArray:
        """At every sample, shape (n,); where two parts meet it stands twice."""
        return np.concatenate([part.times_s for part in self.parts])

    @property
    def temperature_c(self) -> FloatArray:
        """At every sample, the offset added; shape (n,)."""
        return np.concatenate([part.temperature_c for part in self.parts]) + self.offset_c

    @property
    def start_s(self) -> float:
        return float(self.parts[0].times_s[0])

    @property
    def began_c(self) -> float:
        return float(self.parts[0].temperature_c[0]) + self.offset_c

    @property
    def end_s(self) -> float:
        return float(self.parts[-1].times_s[-1])

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
        speaking = _speaking(source, laid_s, as_of_s)
        still_open: list[tuple[float, float]] = []
        for start_s, end_s in open_intervals:
            covered = list(_covered(source, speaking, start_s, end_s))
            stretches.extend(covered)
            still_open.extend(_left_open(covered, start_s, end_s))
        open_intervals = still_open
    for start_s, end_s in open_intervals:
        stretches.extend(
            Stretch(
                _steady(left, right, set_point),
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
            _steady(laid_s, until_s, earlier.temperature_c),
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
        place = list(_covered(known_by, _speaking(known_by, recent_s, as_of_s), recent_s, as_of_s))
        usual_c = _usual_since_c(place, recent_s)
        if usual_c is not None:
            return usual_c
    if settled_since_s is not None and settled_since_s > recent_s:
        settled = as_of_s - settled_since_s >= SETTLING_S
        return _usual_since_c(stretches, settled_since_s) if settled else None
    return _usual_since_c(stretches, recent_s)


@dataclass(frozen=True, slots=True)
class _Run:
    """Readings without a gap, and from when to when they speak: held to an edge that is near."""

    series: ReadingSeries
    from_s: float
    until_s: float


def _speaking(source: TemperatureSource, laid_s: float, as_of_s: float) -> list[_Run]:
    """The source's readings cut at every gap, held to lay, to as-of and to where it was cut."""
    margin = source.longest_gap_s
    from_s, until_s = source.speaks_between
    earliest_s, latest_s = max(laid_s, from_s), min(as_of_s, until_s)
    # Readings from just before lay stay in: they speak for the moment of lay.
    known = source.series.between(laid_s - margin, as_of_s)
    runs = []
    for first, last in _runs(known.times_s, margin):
        begins_s, ends_s = float(known.times_s[first]), float(known.times_s[last - 1])
        if first == 0 and 0.0 < begins_s - earliest_s <= margin:
            begins_s = earliest_s
        if last == len(known.times_s) and 0.0 < latest_s - ends_s <= margin:
            ends_s = latest_s
        runs.append(_Run(known.part(first, last), begins_s, ends_s))
    return runs


def _steady(start_s: float, end_s: float, temperature_c: float) -> tuple[ReadingSeries, ...]:
    """One temperature for a while, which nobody measured."""
    return (ReadingSeries(np.array([start_s, end_s]), np.full(2, temperature_c)),)


def _covered(
    source: TemperatureSource, runs: Sequence[_Run], start_s: float, end_s: float
) -> Iterator[Stretch]:
    """The parts of start..end that the source speaks for, in order."""
    for run in runs:
        left, right = max(start_s, run.from_s), min(end_s, run.until_s)
        if right > left:
            yield Stretch(
                run.series.across(left, right),
                source.provenance,
                source.sd_c,
                source.measured,
                source.name,
                source.offset_c,
            )


def _runs(times: FloatArray, longest_gap_s: float) -> Iterator[tuple[int, int]]:
    """Cut readings at every longer gap: (first, one past the last) of each run.

    Times only rise, so readings a stride apart that are close enough leave no
    room for a gap between them: only the strides that are not are looked into.
    """
    count = len(times)
    if not count:
        return iter(())
    span_s = float(times[-1] - times[0])
    stride = max(1, min(count - 1, int(count * longest_gap_s / (2.0 * span_s)))) if span_s else 1
    corners = np.append(np.arange(0, count - 1, stride), count - 1)
    wide = np.flatnonzero(np.diff(times[corners]) > longest_gap_s)
    edges = [0]
    for start, end in zip(corners[wide].tolist(), corners[wide + 1].tolist(), strict=True):
        gaps = np.flatnonzero(np.diff(times[start : end + 1]) > longest_gap_s)
        edges += (gaps + start + 1).tolist()
    return pairwise([*edges, count])


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
    parts = [
        (late, stretch.offset_c)
        for stretch in stretches
        for part in stretch.parts
        if part.times_s[-1] > start_s
        for late in part.across(max(start_s, float(part.times_s[0])), float(part.times_s[-1]))
    ]
    if not parts:
        return None
    times = np.concatenate([part.times_s for part, _ in parts])
    whole_s = float(times[-1] - times[0])
    count = max(1, round(whole_s / SECONDS_PER_HOUR))
    edges = times[0] + np.arange(count + 1) * (whole_s / count)
    ordered = np.sort(np.diff(np.interp(edges, times, _degree_s(parts))))
    middle = len(ordered) // 2
    # numpy.median says the same and takes as long as all the rest.
    return float(ordered[middle] + ordered[~middle]) / 2.0 / (whole_s / count)


def _degree_s(parts: Sequence[tuple[ReadingSeries, float]]) -> FloatArray:
    """°C·s since the first sample at each, of parts in their order, each with its offset."""
    reached = 0.0
    degree_s = []
    for part, offset_c in parts:
        degree_s.append(part.degree_s_from_first(offset_c) + reached)
        reached = float(degree_s[-1][-1])
    return np.concatenate(degree_s)
