"""The temperature eggs had on their way, whatever boxes they lay in, from the probes there were."""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from itertools import pairwise

from sandboa.core.development import (
    BoxTemperature,
    DevelopmentCurve,
    Provenance,
    SetPoints,
    TemperatureSource,
    box_temperature,
    learned_offset_c,
    offset_from_set_point_c,
)
from sandboa.core.development.box_temperature import KNOWN_DAYS, Ahead
from sandboa.core.development.sources import HAND_GAP_S
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.clutches import Box
from sandboa.records.house import Probe
from sandboa.services.boxes.egg_paths import EggPath, Stay, stays
from sandboa.services.probes.calibrated_readings import loggers_ever_at, pieces_at, record_at
from sandboa.services.snapshot.snapshot import Snapshot


def set_points_of(snapshot: Snapshot, path: EggPath, as_of_s: float) -> SetPoints:
    """The set points eggs were under on their way, in whatever cabinets their boxes stood."""
    return _set_points(snapshot, stays(snapshot, path, as_of_s), {})


def probes_of(snapshot: Snapshot, boxes: Sequence[Box], as_of_s: float) -> list[Probe]:
    """Probes that can speak for boxes now: in them, on their shelves, in their cabinets."""
    shelves = [snapshot.shelf_at(box, as_of_s) for box in boxes]
    places = dict.fromkeys(
        (
            *(box.entity_id for box in boxes),
            *(shelf.entity_id for shelf in shelves),
            *(shelf.cabinet_id for shelf in shelves),
        )
    )
    return [probe for place in places for probe in snapshot.probes_at.get(place, [])]


def development_curve(snapshot: Snapshot, path: EggPath, as_of_s: float) -> DevelopmentCurve:
    """D(t) of eggs along their way from everything measured by `as_of_s` (rule A2)."""
    return DevelopmentCurve(
        _temperature_along(snapshot, path, as_of_s), snapshot.settings.rules.clock
    )


def shelf_offset_c(snapshot: Snapshot, shelf: int, as_of_s: float) -> float | None:
    """The shelf against its cabinet's probe (°C), or None when it cannot be learned."""
    from_s = _learning_from_s(snapshot, as_of_s)
    here = record_at(snapshot, shelf, from_s, as_of_s)
    there = record_at(snapshot, snapshot.shelves[shelf].cabinet_id, from_s, as_of_s)
    return learned_offset_c(here, there, as_of_s, snapshot.settings.rules.record)


def _stand_in_offset_c(
    snapshot: Snapshot,
    shelf: int,
    offset_c: float | None,
    as_of_s: float,
    in_box: tuple[int, float],
) -> float:
    """What to add to the set point where nothing measured: the box's usual difference from it.

    By what measured in the box itself, else on its shelf, else in the cabinet.
    `in_box` is the box and since when (s) it stands on this shelf.
    """
    cabinet, from_s = snapshot.shelves[shelf].cabinet_id, _learning_from_s(snapshot, as_of_s)
    box, there_s = in_box
    chain = ((box, 0.0, there_s), (shelf, 0.0, from_s), (cabinet, offset_c or 0.0, from_s))
    for place, further_c, since_s in chain:
        record = record_at(snapshot, place, since_s, as_of_s)
        off_c = offset_from_set_point_c(
            record, snapshot.set_points(cabinet), as_of_s, snapshot.settings.rules.record
        )
        if off_c is not None:
            return off_c + further_c
    return offset_c or 0.0


def _known_by(snapshot: Snapshot, shelf: int, as_of_s: float) -> TemperatureSource | None:
    """What measured the shelf, or a cabinet of one shelf, for days since it was set as it is."""
    cabinet = snapshot.shelves[shelf].cabinet_id
    one_shelf = sum(s.cabinet_id == cabinet for s in snapshot.shelves.values()) == 1
    set_since_s = max(
        (t for t in snapshot.set_points(cabinet).from_s if t <= as_of_s), default=-math.inf
    )
    offset_days = snapshot.settings.rules.record.offset_days
    from_s = max(as_of_s - offset_days * SECONDS_PER_DAY, set_since_s)
    chain = [(shelf, Provenance.SHELF_PROBE), (cabinet, Provenance.CABINET_PROBE)]
    for place, provenance in chain if one_shelf else chain[:1]:
        for source in _sources(snapshot, place, provenance, from_s, as_of_s):
            times = source.series.times_s
            if len(times) and times[-1] - times[0] >= KNOWN_DAYS * SECONDS_PER_DAY:
                return source
    return None


def _learning_from_s(snapshot: Snapshot, as_of_s: float) -> float:
    """From when records are learned from: what is held at hand, so that nothing is read twice."""
    offset_days = snapshot.settings.rules.record.offset_days
    return min(snapshot.kept_from_s(as_of_s), as_of_s - 4 * offset_days * SECONDS_PER_DAY)


def _temperature_along(snapshot: Snapshot, path: EggPath, as_of_s: float) -> BoxTemperature:
    way = stays(snapshot, path, as_of_s)
    last = way[-1]
    offsets = {
        shelf: shelf_offset_c(snapshot, shelf, as_of_s) for shelf in {stay.shelf for stay in way}
    }
    # Readings from before lay speak for the moment of lay.
    record = snapshot.settings.rules.record
    early_s = path.start_s - record.longest_gap_s
    sources = [
        *_over(_in_boxes(way), early_s, lambda stay, from_s: _sources(
            snapshot, stay.box, Provenance.BOX_PROBE, from_s, stay.end_s
        )),
        *_over(way, early_s, lambda stay, from_s: _sources(
            snapshot, stay.shelf, Provenance.SHELF_PROBE, from_s, stay.end_s
        )),
        *_over(way, early_s, lambda stay, from_s: _cabinet_sources(
            snapshot, stay.shelf, offsets[stay.shelf], from_s, stay.end_s
        )),
        *_by_hand(snapshot, way, as_of_s),
    ]  # fmt: skip
    set_points = _set_points(
        snapshot,
        way,
        {
            shelf: _stand_in_offset_c(
                snapshot,
                shelf,
                offset,
                as_of_s,
                # Only while it stands there: elsewhere the box had another set point.
                (last.box, last.start_s if shelf == last.shelf else math.inf),
            )
            for shelf, offset in offsets.items()
        },
    )
    return box_temperature(
        path.start_s,
        max(as_of_s, path.start_s),
        sources,
        set_points,
        Ahead(
            settled_since_s=max(
                (t for t in _changes(set_points, path) if path.start_s < t <= as_of_s),
                default=None,
            ),
            known_by=_known_by(snapshot, last.shelf, as_of_s),
            earlier=path.earlier,
            record=record,
        ),
    )


def _changes(set_points: SetPoints, path: EggPath) -> list[float]:
    """When what the eggs have changed: the set point, or that they came here."""
    came = path.earlier.arrived_s
    return [*set_points.from_s, *([] if came is None else [came])]


def _in_boxes(way: list[Stay]) -> list[Stay]:
    """The way by box alone, on whatever shelves it stood."""
    joined: list[Stay] = []
    for stay in way:
        if joined and joined[-1].box == stay.box:
            stay = replace(stay, start_s=joined.pop().start_s)
        joined.append(stay)
    return joined


def _over(
    way: list[Stay],
    early_s: float,
    sources_in: Callable[[Stay, float], Iterator[TemperatureSource]],
) -> Iterator[TemperatureSource]:
    """The sources of each stay in turn, from when on; the first one reaches back before lay."""
    for number, stay in enumerate(way):
        yield from sources_in(stay, stay.start_s if number else early_s)


def _sources(
    snapshot: Snapshot,
    place: int,
    provenance: Provenance,
    from_s: float,
    until_s: float,
) -> Iterator[TemperatureSource]:
    longest_gap_s = snapshot.settings.rules.record.longest_gap_s
    for probe in loggers_ever_at(snapshot, place):
        for piece in pieces_at(snapshot, probe, place, from_s, until_s):
            yield TemperatureSource(
                provenance,
                piece.series,
                sd_c=piece.sd_c,
                offset_c=piece.offset_c,
                longest_gap_s=longest_gap_s,
                name=probe.name,
                speaks_between=(piece.from_s, piece.until_s),
            )


def _cabinet_sources(
    snapshot: Snapshot,
    shelf: int,
    offset_c: float | None,
    from_s: float,
    until_s: float,
) -> Iterator[TemperatureSource]:
    """The cabinet's probes, moved to the shelf; without a known offset they are a guess there."""
    cabinet = snapshot.shelves[shelf].cabinet_id
    one_shelf = sum(s.cabinet_id == cabinet for s in snapshot.shelves.values()) == 1
    known = offset_c is not None or one_shelf
    for source in _sources(snapshot, cabinet, Provenance.CABINET_PROBE, from_s, until_s):
        yield replace(
            source,
            sd_c=source.sd_c if known else snapshot.settings.rules.record.estimated_sd_c,
            offset_c=source.offset_c + (offset_c or 0.0),
        )


def _by_hand(snapshot: Snapshot, way: list[Stay], as_of_s: float) -> Iterator[TemperatureSource]:
    shelves = dict.fromkeys(stay.shelf for stay in way)
    cabinets = dict.fromkeys(snapshot.shelves[shelf].cabinet_id for shelf in shelves)
    places = [*dict.fromkeys(stay.box for stay in way), *shelves, *cabinets]
    from_s = way[0].start_s - HAND_GAP_S
    for place in places:
        for probe in snapshot.probes_at.get(place, []):
            if probe.by_hand:
                yield TemperatureSource(
                    Provenance.BY_HAND,
                    snapshot.readings.series(probe.entity_id, from_s, as_of_s),
                    sd_c=snapshot.settings.rules.record.estimated_sd_c,
                    measured=False,
                    longest_gap_s=HAND_GAP_S,
                    name=probe.name,
                )


def _set_points(snapshot: Snapshot, way: list[Stay], offsets: dict[int, float]) -> SetPoints:
    """Set points along the way, each shelf's learned offset added where it is given."""
    changes: dict[float, float] = {}
    for stay in way:
        held = snapshot.set_points(snapshot.shelves[stay.shelf].cabinet_id)
        offset_c = offsets.get(stay.shelf, 0.0)
        if stay.end_s <= stay.start_s:
            changes[stay.start_s] = held.at(stay.start_s) + offset_c
        for left, _, temperature_c in held.pieces(stay.start_s, stay.end_s):
            changes[left] = temperature_c + offset_c
    times = sorted(changes)
    differing = [times[0], *(b for a, b in pairwise(times) if changes[a] != changes[b])]
    return SetPoints(tuple(differing), tuple(changes[t] for t in differing))
