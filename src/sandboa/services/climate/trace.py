"""The climate trace: a span of a cabinet's probes, thinned for drawing, raw when it is short."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from sandboa.core.climate.probe_checks import CheckKind
from sandboa.core.climate.thinning import Buckets, thinned
from sandboa.core.development.clock import FloatArray
from sandboa.core.errors import NotPlausible
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR
from sandboa.records import readings
from sandboa.records.house import Cabinet, Probe
from sandboa.services.cabinets.commands import cabinet_called
from sandboa.services.snapshot.snapshot import Snapshot

#: Points along the time axis: as many as a screen has columns (assumption).
POINTS: Final = 1_200
#: s up to which a span is read from the readings themselves, beyond it from hourly roll-ups:
#: these keep the lowest and highest reading of every hour.
_RAW_SPAN_S: Final = 4.0 * SECONDS_PER_DAY
#: s of the shortest bucket: no logger here is faster.
_SHORTEST_S: Final = 60.0
_LONGEST_SPAN_S: Final = 40.0 * 366.0 * SECONDS_PER_DAY


@dataclass(frozen=True)
class ProbeTrace:
    """One probe over the span, offsets added."""

    probe: Probe
    place: int | None
    temperature: Buckets


@dataclass(frozen=True)
class Trace:
    """Buckets of `bucket_s` from `start_s` on, the same for every probe.

    `raw` when a bucket holds single readings and not a lowest and a highest of many.
    """

    start_s: float
    bucket_s: float
    count: int
    raw: bool
    set_point_c: FloatArray
    probes: tuple[ProbeTrace, ...]


def climate_trace(
    snapshot: Snapshot, name: str, from_s: float, until_s: float, points: int = POINTS
) -> Trace:
    """The probes that hung in a cabinet over from..until, at most `points` buckets each.

    No peak is lost: each bucket tells its lowest and highest reading. Raises
    NotFound for an unknown cabinet, NotPlausible for an empty or endless span.
    """
    if not 0 < until_s - from_s <= _LONGEST_SPAN_S:
        raise NotPlausible("until", "a span ends after it begins, and within 40 years")
    cabinet = cabinet_called(name)
    raw = until_s - from_s <= _RAW_SPAN_S
    unit_s = _SHORTEST_S if raw else SECONDS_PER_HOUR
    bucket_s = max(unit_s, np.ceil((until_s - from_s) / points / unit_s) * unit_s)
    start_s = from_s // bucket_s * bucket_s
    buckets = _Buckets(start_s, float(bucket_s), int(np.ceil((until_s - start_s) / bucket_s)))
    middles = start_s + bucket_s * (np.arange(buckets.count) + 0.5)
    set_points = snapshot.cabinet(cabinet.entity_id).set_points
    wanted = (
        np.array([set_points.at(t) for t in middles])
        if set_points
        else np.full(buckets.count, np.nan)
    )
    return Trace(
        start_s,
        buckets.width_s,
        buckets.count,
        raw and bucket_s == _SHORTEST_S,
        wanted,
        tuple(
            _probe(snapshot, probe, places, buckets, raw=raw)
            for probe, places in _probes(snapshot, cabinet, from_s, until_s)
        ),
    )


def _probes(
    snapshot: Snapshot, cabinet: Cabinet, from_s: float, until_s: float
) -> list[tuple[Probe, set[int]]]:
    """Probes that hung in the cabinet within the span, and its places they may have hung in."""
    shelves = {s.entity_id for s in snapshot.shelves.values() if s.cabinet_id == cabinet.entity_id}
    places = {cabinet.entity_id, *shelves} | {
        box for box, held in snapshot.histories.boxes.items() if shelves & set(held.locations.place)
    }
    found = [
        probe
        for probe in snapshot.probes.values()
        if places
        & {place for *_, place in snapshot.probe(probe.entity_id).locations.pieces(from_s, until_s)}
    ]
    return [(probe, places) for probe in sorted(found, key=lambda p: (p.by_hand, p.name))]


@dataclass(frozen=True, slots=True)
class _Buckets:
    """Equal spans of time from `start_s` on, for each of which one low and one high are drawn."""

    start_s: float
    width_s: float
    count: int

    @property
    def end_s(self) -> float:
        return self.start_s + self.count * self.width_s


def _probe(
    snapshot: Snapshot, probe: Probe, places: set[int], buckets: _Buckets, *, raw: bool
) -> ProbeTrace:
    start_s, end_s = buckets.start_s, buckets.end_s
    if raw:
        rows = readings.single(probe.entity_id, start_s, end_s - 1)
        times, low, high = rows[:, 0], rows[:, 1], rows[:, 1]
    else:
        hours = readings.hours(probe.entity_id, start_s, end_s - 1)
        times, low, high = hours[:, 0], hours[:, 1], hours[:, 3]
    stays = snapshot.probe(probe.entity_id).locations
    inside = np.zeros(len(times), dtype=bool)
    for left, right, place in stays.pieces(start_s, end_s):
        if place in places:
            inside |= (times >= left) & (times < right)
    times, low, high = times[inside], low[inside], high[inside]
    offset_c = _offsets(snapshot, probe, times)
    return ProbeTrace(
        probe,
        stays.at(end_s),
        thinned(times, low + offset_c, high + offset_c, start_s, buckets.width_s, buckets.count),
    )


def _offsets(snapshot: Snapshot, probe: Probe, times: FloatArray) -> FloatArray:
    """°C to add to each reading: that of the last check before it."""
    checks = [c for c in snapshot.probe(probe.entity_id).checks if c.kind is CheckKind.REFERENCE]
    before = np.searchsorted([c.at_s for c in checks], times, side="right")
    return np.array([0.0, *(c.offset for c in checks)])[before]
