"""The temperature at a clutch's box, wherever it stood, from the probes there were."""

import math
from collections.abc import Callable, Iterator
from itertools import pairwise

from sandboa.core.development import (
    DEFAULT_CLOCK,
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
from sandboa.core.development.place_offsets import OFFSET_DAYS
from sandboa.core.development.sources import ESTIMATED_SD_C, HAND_GAP_S, LOGGER_GAP_S
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.clutches import Clutch
from sandboa.records.house import Probe
from sandboa.services.probes.calibrated_readings import loggers_ever_at, pieces_at, record_at
from sandboa.services.snapshot.snapshot import Snapshot

#: (from s, until s, shelf)
_Stay = tuple[float, float, int]


def set_points_of(snapshot: Snapshot, clutch: Clutch, as_of_s: float) -> SetPoints:
    """The set points the clutch's box was under, in whatever cabinets it stood."""
    return _set_points(snapshot, _stays(snapshot, clutch, as_of_s), {})


def probes_of(snapshot: Snapshot, clutch: Clutch, as_of_s: float) -> list[Probe]:
    """Probes that can speak for the clutch's box now: in the box, on its shelf, in its cabinet."""
    box = snapshot.boxes[clutch.entity_id]
    shelf = snapshot.shelf_at(box, as_of_s)
    places = (box.entity_id, shelf.entity_id, shelf.cabinet_id)
    return [probe for place in places for probe in snapshot.probes_at.get(place, [])]


def development_curve(snapshot: Snapshot, clutch: Clutch, as_of_s: float) -> DevelopmentCurve:
    """D(t) of a clutch from everything measured by `as_of_s` (rule A2)."""
    return DevelopmentCurve(_temperature_at_box(snapshot, clutch, as_of_s), DEFAULT_CLOCK)


def shelf_offset_c(snapshot: Snapshot, shelf: int, as_of_s: float) -> float | None:
    """The shelf against its cabinet's probe (°C), or None when it cannot be learned."""
    from_s = _learning_from_s(snapshot, as_of_s)
    here = record_at(snapshot, shelf, from_s, as_of_s)
    there = record_at(snapshot, snapshot.shelves[shelf].cabinet_id, from_s, as_of_s)
    return learned_offset_c(here, there, as_of_s)


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
        off_c = offset_from_set_point_c(record, snapshot.set_points(cabinet), as_of_s)
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
    from_s = max(as_of_s - OFFSET_DAYS * SECONDS_PER_DAY, set_since_s)
    chain = [(shelf, Provenance.SHELF_PROBE), (cabinet, Provenance.CABINET_PROBE)]
    for place, provenance in chain if one_shelf else chain[:1]:
        for source in _sources(snapshot, place, provenance, from_s, as_of_s):
            times = source.series.times_s
            if len(times) and times[-1] - times[0] >= KNOWN_DAYS * SECONDS_PER_DAY:
                return source
    return None


def _learning_from_s(snapshot: Snapshot, as_of_s: float) -> float:
    """From when records are learned from: what is held at hand, so that nothing is read twice."""
    return min(snapshot.kept_from_s(as_of_s), as_of_s - 4 * OFFSET_DAYS * SECONDS_PER_DAY)


def _temperature_at_box(snapshot: Snapshot, clutch: Clutch, as_of_s: float) -> BoxTemperature:
    box = snapshot.boxes[clutch.entity_id]
    stays = _stays(snapshot, clutch, as_of_s)
    offsets = {shelf: shelf_offset_c(snapshot, shelf, as_of_s) for shelf in {s for *_, s in stays}}
    # Readings from before lay speak for the moment of lay.
    early_s = clutch.laid_s - LOGGER_GAP_S
    sources = [
        *_sources(snapshot, box.entity_id, Provenance.BOX_PROBE, early_s, as_of_s),
        *_over(stays, early_s, lambda start_s, end_s, shelf: _sources(
            snapshot, shelf, Provenance.SHELF_PROBE, start_s, end_s
        )),
        *_over(stays, early_s, lambda start_s, end_s, shelf: _cabinet_sources(
            snapshot, shelf, offsets[shelf], start_s, end_s
        )),
        *_by_hand(snapshot, box.entity_id, stays, as_of_s),
    ]  # fmt: skip
    set_points = _set_points(
        snapshot,
        stays,
        {
            shelf: _stand_in_offset_c(
                snapshot,
                shelf,
                offset,
                as_of_s,
                # Only while it stands there: elsewhere the box had another set point.
                (box.entity_id, stays[-1][0] if shelf == stays[-1][2] else math.inf),
            )
            for shelf, offset in offsets.items()
        },
    )
    return box_temperature(
        clutch.laid_s,
        max(as_of_s, clutch.laid_s),
        sources,
        set_points,
        Ahead(
            settled_since_s=max(
                (t for t in set_points.from_s if clutch.laid_s < t <= as_of_s), default=None
            ),
            known_by=_known_by(snapshot, stays[-1][2], as_of_s),
        ),
    )


def _stays(snapshot: Snapshot, clutch: Clutch, as_of_s: float) -> list[_Stay]:
    """Where the box stood from lay to as-of; on lay day itself one stay without length."""
    box = snapshot.boxes[clutch.entity_id]
    until_s = max(as_of_s, clutch.laid_s)
    stays = [
        (start_s, end_s, place if place is not None else box.shelf_id)
        for start_s, end_s, place in snapshot.box(box.entity_id).locations.pieces(
            clutch.laid_s, until_s
        )
    ]
    return stays or [(clutch.laid_s, until_s, snapshot.shelf_at(box, until_s).entity_id)]


def _over(
    stays: list[_Stay],
    early_s: float,
    sources_in: Callable[[float, float, int], Iterator[TemperatureSource]],
) -> Iterator[TemperatureSource]:
    """The sources of each stay in turn; the first one reaches back before lay."""
    for number, (start_s, end_s, shelf) in enumerate(stays):
        yield from sources_in(start_s if number else early_s, end_s, shelf)


def _sources(
    snapshot: Snapshot,
    place: int,
    provenance: Provenance,
    from_s: float,
    until_s: float,
) -> Iterator[TemperatureSource]:
    for probe in loggers_ever_at(snapshot, place):
        for piece in pieces_at(snapshot, probe, place, from_s, until_s):
            whole = piece.from_s <= from_s and piece.until_s >= until_s
            yield TemperatureSource(
                provenance,
                piece.series
                if whole
                else piece.series.filling(piece.from_s, piece.until_s, LOGGER_GAP_S),
                sd_c=piece.sd_c,
                offset_c=piece.offset_c,
                name=probe.name,
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
        yield TemperatureSource(
            source.provenance,
            source.series,
            sd_c=source.sd_c if known else ESTIMATED_SD_C,
            offset_c=source.offset_c + (offset_c or 0.0),
            name=source.name,
        )


def _by_hand(
    snapshot: Snapshot, box: int, stays: list[_Stay], as_of_s: float
) -> Iterator[TemperatureSource]:
    shelves = {shelf for *_, shelf in stays}
    places = [box, *shelves, *{snapshot.shelves[shelf].cabinet_id for shelf in shelves}]
    from_s = stays[0][0] - HAND_GAP_S
    for place in places:
        for probe in snapshot.probes_at.get(place, []):
            if probe.by_hand:
                yield TemperatureSource(
                    Provenance.BY_HAND,
                    snapshot.readings.series(probe.entity_id, from_s, as_of_s),
                    sd_c=ESTIMATED_SD_C,
                    measured=False,
                    longest_gap_s=HAND_GAP_S,
                    name=probe.name,
                )


def _set_points(snapshot: Snapshot, stays: list[_Stay], offsets: dict[int, float]) -> SetPoints:
    """Set points along the box's way, each shelf's learned offset added where it is given."""
    changes: dict[float, float] = {}
    for start_s, end_s, shelf in stays:
        held = snapshot.set_points(snapshot.shelves[shelf].cabinet_id)
        offset_c = offsets.get(shelf, 0.0)
        if end_s <= start_s:
            changes[start_s] = held.at(start_s) + offset_c
        for left, _, temperature_c in held.pieces(start_s, end_s):
            changes[left] = temperature_c + offset_c
    times = sorted(changes)
    differing = [times[0], *(b for a, b in pairwise(times) if changes[a] != changes[b])]
    return SetPoints(tuple(differing), tuple(changes[t] for t in differing))
