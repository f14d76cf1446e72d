"""Faults in a cabinet's record, recognised from its probes, with what they cost its clutches."""

from dataclasses import dataclass, field
from threading import Lock
from typing import Final

import numpy as np

from sandboa.core.climate.faults import Fault, FaultKind, ProbeRecord, recognise
from sandboa.core.development import DevelopmentClock
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records import readings
from sandboa.records.clutches import Clutch
from sandboa.records.house import Cabinet, Probe
from sandboa.services.boxes.egg_paths import groups_by_path, stays
from sandboa.services.clutches.clutch_view import ClutchNow
from sandboa.services.probes.calibrated_readings import pieces_at
from sandboa.services.snapshot.snapshot import Snapshot

#: Days of record that are looked through: a season, so that slow changes show.
SEASON_DAYS: Final = 75.0
#: Days before a span that are read too, to know what was usual.
_BEFORE_DAYS: Final = 8.0
#: s for which what was recognised holds without new readings.
_HOLDS_S: Final = 300.0

#: Faults that are of the temperature itself, not of the readings.
OF_THE_TEMPERATURE: Final = (
    FaultKind.FAN,
    FaultKind.POWER_CUT,
    FaultKind.DOOR,
    FaultKind.OVERSHOOT,
    FaultKind.EGG_HEAT,
)


@dataclass(frozen=True, slots=True)
class CabinetFault:
    """A fault with the shelves it touched (by name), its probes' ids, and the days it shifted.

    `delay_days` is how much later eggs on the worst touched shelf pip, at the
    rate of the set point (negative: earlier); 0 where only the readings were wrong.
    """

    fault: Fault
    shelves: tuple[str, ...]
    probes: tuple[int, ...]
    delay_days: float


@dataclass(frozen=True, slots=True)
class _Recognised:
    """What was recognised at `at_s`, from the facts and readings as they were."""

    snapshot: int
    revisions: tuple[tuple[int, int], ...]
    at_s: float
    found: tuple[CabinetFault, ...]


def cabinet_faults(
    snapshot: Snapshot,
    cabinet: Cabinet,
    until_s: float,
    days: float = SEASON_DAYS,
    *,
    patience_s: float = 0.0,
) -> tuple[CabinetFault, ...]:
    """Faults of the cabinet in the last `days` before `until_s`.

    What was recognised less than `patience_s` before may be told again though
    readings came since: faults take many minutes to show.
    """
    known = snapshot.kept.held("faults of the cabinets", None, _Known)
    return known.of(snapshot, cabinet, until_s, days, patience_s=patience_s)


@dataclass
class _Known:
    """Recognised faults by cabinet, held until facts or its own readings change."""

    _held: dict[tuple[int, int], _Recognised] = field(default_factory=dict)
    _lock: Lock = field(default_factory=Lock)

    def of(
        self,
        snapshot: Snapshot,
        cabinet: Cabinet,
        until_s: float,
        days: float,
        *,
        patience_s: float,
    ) -> tuple[CabinetFault, ...]:
        key = (cabinet.entity_id, round(days))
        with self._lock:
            held = self._held.get(key)
            if held is not None and held.snapshot == snapshot.version:
                if 0.0 <= until_s - held.at_s < patience_s:
                    return held.found
                # Time alone makes a silent probe: what was recognised holds for some minutes.
                if held.at_s // _HOLDS_S == until_s // _HOLDS_S and held.revisions == _revisions(
                    snapshot, cabinet
                ):
                    return held.found
            revisions = _revisions(snapshot, cabinet)
            found = _recognised(snapshot, cabinet, until_s, days)
            self._held[key] = _Recognised(snapshot.version, revisions, until_s, found)
            return found


def _revisions(snapshot: Snapshot, cabinet: Cabinet) -> tuple[tuple[int, int], ...]:
    """How often the record of each logger that ever hung in the cabinet has changed."""
    places = _places(snapshot, cabinet)
    tips = readings.tips()
    return tuple(
        (probe.entity_id, tips[probe.entity_id].revision)
        for probe in snapshot.probes.values()
        if probe.entity_id in tips
        and not probe.by_hand
        and not places.isdisjoint(snapshot.probe(probe.entity_id).locations.place)
    )


def _places(snapshot: Snapshot, cabinet: Cabinet) -> set[int | None]:
    """Where a probe can speak for the cabinet: in it, on its shelves, in boxes that stood there."""
    shelves = {s.entity_id for s in snapshot.shelves.values() if s.cabinet_id == cabinet.entity_id}
    boxes = {
        box
        for box, held in snapshot.histories.boxes.items()
        if not shelves.isdisjoint(p for p in held.locations.place if p is not None)
    }
    return {cabinet.entity_id, *shelves, *boxes}


def clutch_faults(snapshot: Snapshot, now: ClutchNow, until_s: float) -> list[CabinetFault]:
    """Faults that touched a clutch's shelf since it was laid: of the temperature, not of probes."""
    since_s = now.clutch.laid_s
    shelves = shelves_of_term(snapshot, now.clutch, until_s)
    names = {snapshot.shelves[shelf].name for shelf in shelves}
    cabinets = dict.fromkeys(snapshot.shelf_at(box.box, until_s).cabinet_id for box in now.boxes)
    return [
        told
        for cabinet in cabinets
        for told in cabinet_faults(snapshot, snapshot.cabinets[cabinet], until_s)
        if told.fault.kind in OF_THE_TEMPERATURE
        and (told.fault.end_s or until_s) >= since_s
        and names & set(told.shelves)
    ]


def shelves_of_term(snapshot: Snapshot, clutch: Clutch, until_s: float) -> set[int]:
    """Every shelf on which eggs of a clutch stood from lay until then."""
    return {
        stay.shelf
        for path in groups_by_path(
            snapshot, clutch, snapshot.eggs.get(clutch.entity_id, []), until_s
        )
        for stay in stays(snapshot, path, until_s)
    }


def faults_of_term(snapshot: Snapshot, clutch: Clutch, until_s: float) -> tuple[Fault, ...]:
    """Faults of the temperature on the shelves of a clutch's eggs from lay until then; held."""
    shelves = shelves_of_term(snapshot, clutch, until_s)
    days = (until_s - clutch.laid_s) / SECONDS_PER_DAY

    def read() -> tuple[Fault, ...]:
        names = {snapshot.shelves[s].name for s in shelves}
        return tuple(
            told.fault
            for cabinet in {snapshot.shelves[s].cabinet_id for s in shelves}
            for told in _recognised(snapshot, snapshot.cabinets[cabinet], until_s, days)
            if told.fault.kind in OF_THE_TEMPERATURE and names & set(told.shelves)
        )

    acts = snapshot.last_acts
    stamp = (acts.every_clutch, acts.by_clutch.get(clutch.entity_id, 0), int(until_s))
    return snapshot.kept.held(f"faults of clutch {clutch.entity_id}", stamp, read)


def probe_records(
    snapshot: Snapshot, cabinet: Cabinet, from_s: float, until_s: float
) -> list[tuple[Probe, ProbeRecord]]:
    """What each logger measured in the cabinet: a record for each place it hung."""
    shelves = sorted(
        (s for s in snapshot.shelves.values() if s.cabinet_id == cabinet.entity_id),
        key=lambda s: s.position,
    )
    boxes = [(box.entity_id, snapshot.shelf_at(box, until_s)) for box in snapshot.boxes.values()]
    places = [_Place(cabinet.entity_id, 1), *(_Place(s.entity_id, s.position) for s in shelves)]
    places += [
        _Place(box, shelf.position, in_box=True)
        for box, shelf in boxes
        if shelf.cabinet_id == cabinet.entity_id
    ]
    return [
        (probe, record)
        for place in places
        for probe in snapshot.probes.values()
        if not probe.by_hand
        and place.entity in snapshot.probe(probe.entity_id).locations.place
        and (record := _record(snapshot, probe, place, from_s, until_s))
    ]


@dataclass(frozen=True, slots=True)
class _Place:
    """A place of a cabinet: position 1 is the top, where the cabinet's own probe counts too."""

    entity: int
    position: int
    in_box: bool = False


def _record(
    snapshot: Snapshot, probe: Probe, place: _Place, from_s: float, until_s: float
) -> ProbeRecord | None:
    pieces = list(pieces_at(snapshot, probe, place.entity, from_s, until_s))
    if not pieces:
        return None
    parts = [snapshot.readings.single(probe.entity_id, p.from_s, p.until_s) for p in pieces]
    rows = np.concatenate(parts)
    if not len(rows):
        return None
    times, values, humidity = rows[np.concatenate([[True], np.diff(rows[:, 0]) > 0])].T
    # The last offset throughout: a check moves no temperature, it must not look like a step.
    return ProbeRecord(
        probe.name, times, values + pieces[-1].offset_c, humidity, place.position, place.in_box
    )


def _recognised(
    snapshot: Snapshot, cabinet: Cabinet, until_s: float, days: float
) -> tuple[CabinetFault, ...]:
    set_points = snapshot.cabinet(cabinet.entity_id).set_points
    if set_points is None:
        return ()
    from_s = until_s - days * SECONDS_PER_DAY
    held = probe_records(snapshot, cabinet, from_s - _BEFORE_DAYS * SECONDS_PER_DAY, until_s)
    found = recognise(
        [record for _, record in held], set_points, until_s, snapshot.settings.rules.faults
    )
    names = {
        s.position: s.name for s in snapshot.shelves.values() if s.cabinet_id == cabinet.entity_id
    }
    told = []
    for fault in found:
        if (fault.end_s or until_s) < from_s or _taken_down(snapshot, held, fault):
            continue
        touched = [(p, r) for p, r in held if r.name in fault.probes]
        shelves = sorted({r.shelf for _, r in touched})
        told.append(
            CabinetFault(
                fault,
                tuple(names[s] for s in shelves if s in names),
                tuple(dict.fromkeys(p.entity_id for p, _ in touched)),
                _delay_days(
                    snapshot.settings.rules.clock,
                    [r for _, r in touched],
                    fault,
                    set_points.at(fault.start_s),
                    until_s,
                ),
            )
        )
    return tuple(told)


def _taken_down(snapshot: Snapshot, held: list[tuple[Probe, ProbeRecord]], fault: Fault) -> bool:
    """A probe that was moved or taken down is not silent there."""
    if fault.kind is not FaultKind.UNPLUGGED:
        return False
    return any(
        r.name in fault.probes
        and any(at_s > fault.start_s - 3600 and (fault.end_s is None or at_s < fault.end_s + 3600)
                for at_s in snapshot.probe(p.entity_id).locations.from_s[1:])
        for p, r in held
    )  # fmt: skip


def _delay_days(
    clock: DevelopmentClock,
    touched: list[ProbeRecord],
    fault: Fault,
    set_point_c: float,
    until_s: float,
) -> float:
    """Development missed against what was usual just before, on the shelf that missed most."""
    if fault.kind not in OF_THE_TEMPERATURE or not touched:
        return 0.0
    end_s = fault.end_s if fault.end_s is not None else until_s
    usual_rate = float(clock.rate_per_day(set_point_c))
    delays = [0.0]
    for record in touched:
        inside = (record.times_s >= fault.start_s) & (record.times_s <= end_s)
        before = (record.times_s < fault.start_s) & (
            record.times_s >= fault.start_s - 2 * SECONDS_PER_DAY
        )
        if inside.sum() < 2 or not before.any():
            continue
        times, values = record.times_s[inside], record.temperature_c[inside]
        wanted = float(clock.rate_per_day(record.temperature_c[before]).mean())
        had = clock.total(times, values)
        delays.append((wanted * (times[-1] - times[0]) / SECONDS_PER_DAY - had) / usual_rate)
    return max(delays, key=abs)
