"""A cabinet as it stands: shelves, boxes on them, temperatures, probes, events, its history."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.climate import ExposureTotals, exposure_totals
from sandboa.core.climate.probe_checks import CheckKind
from sandboa.core.development import Provenance, ReadingSeries
from sandboa.core.development.sources import LOGGER_GAP_S
from sandboa.core.messages import Message, Temperature, Words
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records import readings
from sandboa.records.house import Cabinet, Probe, Shelf
from sandboa.services.boxes.climate import shelf_offset_c
from sandboa.services.cabinets.commands import cabinet_called
from sandboa.services.climate.faults import CabinetFault, cabinet_faults
from sandboa.services.climate.readiness import CabinetReadiness, cabinets_readiness
from sandboa.services.clutches.box_view import BoxNow, boxes_of_others
from sandboa.services.clutches.clutch_view import boxes_standing
from sandboa.services.moment.as_of import AsOf, at_hand
from sandboa.services.probes.calibrated_readings import record_at, with_humidity_offset
from sandboa.services.snapshot.snapshot import Snapshot

#: s of which the last readings make a place's temperature now (assumption).
_NOW_S: Final = 1_800.0
EXPOSURE_DAYS: Final = 60.0


@dataclass(frozen=True, slots=True)
class TemperatureHere:
    """°C at a place, where it comes from, and the swing of the last 24 h (°C; None unmeasured)."""

    temperature_c: float | None
    source: Provenance | None
    at_s: float | None
    swing_c: float | None


@dataclass(frozen=True)
class ShelfNow:
    shelf: Shelf
    here: TemperatureHere
    offset_c: float | None
    boxes: tuple[BoxNow, ...]


@dataclass(frozen=True, slots=True)
class CabinetEvent:
    """Something the keeper did: a set point, a move, a check; `text` says it."""

    at_s: float
    kind: str
    text: Words


@dataclass(frozen=True)
class CabinetNow:
    """The Cabinet place; `at` is what its boxes were judged with."""

    at: AsOf
    cabinet: Cabinet
    set_point_c: float | None
    here: TemperatureHere
    humidity: float | None
    shelves: tuple[ShelfNow, ...]
    readiness: CabinetReadiness
    faults: tuple[CabinetFault, ...]
    events: tuple[CabinetEvent, ...]
    probes: tuple[Probe, ...]
    exposure: ExposureTotals


def cabinet_now(snapshot: Snapshot, name: str, now_s: float) -> CabinetNow:
    """Everything of a cabinet at `now_s`; NotFound when there is none of that name."""
    cabinet = cabinet_called(name)
    at = at_hand(snapshot, now_s)
    boxes = [*boxes_standing(at), *boxes_of_others(at)]
    set_points = snapshot.cabinet(cabinet.entity_id).set_points
    shelves = _shelves(snapshot, cabinet)
    here = _measured(snapshot, cabinet.entity_id, Provenance.CABINET_PROBE, now_s)
    humidity = _humidity(snapshot, cabinet, now_s)
    probes = tuple(_probes(snapshot, cabinet, shelves, now_s))
    return CabinetNow(
        at=at,
        cabinet=cabinet,
        set_point_c=set_points.at(now_s) if set_points else None,
        here=here,
        humidity=humidity,
        shelves=tuple(_shelf(snapshot, boxes, cabinet, shelf, here, now_s) for shelf in shelves),
        readiness=next(r for r in cabinets_readiness(snapshot, now_s) if r.cabinet == cabinet.name),
        faults=cabinet_faults(snapshot, cabinet, now_s),
        events=tuple(cabinet_events(snapshot, cabinet)),
        probes=probes,
        exposure=_exposure(snapshot, cabinet, shelves, now_s),
    )


def cabinet_events(snapshot: Snapshot, cabinet: Cabinet) -> Iterator[CabinetEvent]:
    """What the keeper did in a cabinet, in order of time."""
    shelves = {
        s.entity_id: s.name for s in snapshot.shelves.values() if s.cabinet_id == cabinet.entity_id
    }
    told: list[CabinetEvent] = []
    set_points = snapshot.cabinet(cabinet.entity_id).set_points
    if set_points is not None:
        for from_s, temperature_c in zip(set_points.from_s, set_points.temperature_c, strict=True):
            told.append(
                CabinetEvent(
                    from_s,
                    "set point",
                    Message("Set to {warmth}", warmth=Temperature(temperature_c)),
                )
            )
    for box in sorted(snapshot.boxes.values(), key=lambda box: box.from_s):
        stays = snapshot.box(box.entity_id).locations
        for number, (from_s, place) in enumerate(zip(stays.from_s, stays.place, strict=True)):
            if place in shelves:
                what = "moved to" if number else "set on"
                text = f"Box {box.name} {what} {shelves[place]}"
                told.append(CabinetEvent(from_s, "box", text))
            elif number and stays.place[number - 1] in shelves:
                told.append(CabinetEvent(from_s, "box", f"Box {box.name} moved away"))
    for probe in snapshot.probes.values():
        for check in snapshot.probe(probe.entity_id).checks:
            if snapshot.probe(probe.entity_id).locations.at(check.at_s) in {
                cabinet.entity_id,
                *shelves,
            }:
                how = "salt test" if check.kind is CheckKind.SALT else "reference"
                told.append(CabinetEvent(check.at_s, "check", f"{probe.name} checked: {how}"))
    for alteration in snapshot.cabinet(cabinet.entity_id).alterations:
        told.append(CabinetEvent(alteration.at_s, "alteration", f"Altered: {alteration.what}"))
    yield from sorted(told, key=lambda event: event.at_s)


def _shelf(
    snapshot: Snapshot,
    boxes: Sequence[BoxNow],
    cabinet: Cabinet,
    shelf: Shelf,
    cabinet_here: TemperatureHere,
    now_s: float,
) -> ShelfNow:
    here = _measured(snapshot, shelf.entity_id, Provenance.SHELF_PROBE, now_s)
    offset_c = shelf_offset_c(snapshot, shelf.entity_id, now_s)
    if here.temperature_c is None and cabinet_here.temperature_c is not None:
        here = TemperatureHere(
            cabinet_here.temperature_c + (offset_c or 0.0),
            cabinet_here.source,
            cabinet_here.at_s,
            None,
        )
    set_points = snapshot.cabinet(cabinet.entity_id).set_points
    if here.temperature_c is None and set_points is not None:
        here = TemperatureHere(set_points.at(now_s), Provenance.SET_POINT, None, None)
    return ShelfNow(
        shelf,
        here,
        offset_c,
        tuple(box for box in boxes if box.shelf.entity_id == shelf.entity_id),
    )


def _measured(snapshot: Snapshot, place: int, source: Provenance, now_s: float) -> TemperatureHere:
    """The mean of the last half hour of a place's logger, if it spoke within 2 h."""
    day = record_at(snapshot, place, now_s - SECONDS_PER_DAY, now_s)
    if not len(day.times_s) or now_s - day.times_s[-1] > LOGGER_GAP_S:
        return TemperatureHere(None, None, None, None)
    last_s = float(day.times_s[-1])
    recent = day.between(last_s - _NOW_S, last_s).temperature_c
    swing_c = float(day.temperature_c.max() - day.temperature_c.min())
    return TemperatureHere(float(recent.mean()), source, last_s, swing_c)


def _humidity(snapshot: Snapshot, cabinet: Cabinet, now_s: float) -> float | None:
    """The latest humidity in the cabinet's air, offset added, if it is fresh."""
    tips = readings.tips()
    for place in (cabinet.entity_id, *(s.entity_id for s in _shelves(snapshot, cabinet))):
        for probe in snapshot.probes_at.get(place, []):
            tip = tips.get(probe.entity_id)
            if tip is None or tip.last_humidity is None or tip.last_s is None:
                continue
            if now_s - tip.last_s <= LOGGER_GAP_S:
                return with_humidity_offset(snapshot, probe, tip.last_humidity, now_s)
    return None


def _probes(
    snapshot: Snapshot, cabinet: Cabinet, shelves: list[Shelf], now_s: float
) -> Iterator[Probe]:
    """What hangs in the cabinet now, thermometers read by hand too."""
    inside = {s.entity_id for s in shelves}
    boxes = [
        box.entity_id
        for box in snapshot.boxes.values()
        if snapshot.shelf_at(box, now_s).entity_id in inside
    ]
    for place in (cabinet.entity_id, *sorted(inside), *boxes):
        yield from snapshot.probes_at.get(place, [])


def _exposure(
    snapshot: Snapshot, cabinet: Cabinet, shelves: list[Shelf], now_s: float
) -> ExposureTotals:
    """Of the place in the cabinet that had the most of it, else of the one measured longest."""
    from_s = now_s - EXPOSURE_DAYS * SECONDS_PER_DAY
    places = [cabinet.entity_id, *(s.entity_id for s in shelves)]
    records: list[ReadingSeries] = [record_at(snapshot, place, from_s, now_s) for place in places]
    totals = [exposure_totals(record, snapshot.settings.rules.climate) for record in records]
    return max(
        totals, key=lambda t: (t.degree_hours_harmful + t.degree_hours_slow, t.hours_measured)
    )


def _shelves(snapshot: Snapshot, cabinet: Cabinet) -> list[Shelf]:
    own = (s for s in snapshot.shelves.values() if s.cabinet_id == cabinet.entity_id)
    return sorted(own, key=lambda s: s.position)
