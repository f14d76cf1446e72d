"""What is wrong in the cabinets at this moment, told by how grave it is; nothing is recorded."""

from collections.abc import Iterator
from typing import Final

from sandboa.core.climate.faults import FaultKind
from sandboa.core.climate.limits import Breach, Limit, breaches
from sandboa.core.climate.rules import ClimateRules
from sandboa.core.development.sources import LOGGER_GAP_S
from sandboa.core.messages import Message, Temperature
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR
from sandboa.records import readings
from sandboa.records.alarms import Alarm as Alarm
from sandboa.records.alarms import alarms_between as alarms_between
from sandboa.records.alarms import open_alarms as open_alarms
from sandboa.records.house import Cabinet, Probe
from sandboa.services.alarms.slow_troubles import slow_troubles
from sandboa.services.alarms.trouble import Severity, Trouble
from sandboa.services.climate.faults import CabinetFault, cabinet_faults
from sandboa.services.probes.calibrated_readings import read_from_files, record_of
from sandboa.services.snapshot.snapshot import Snapshot

#: Days of record that the watch looks through for faults.
_WATCHED_DAYS: Final = 10.0


#: s before a cabinet's faults are looked for anew: limits are looked at with every reading, faults
#: take many minutes to show (assumption; an alarm is to be shown within a minute).
_PATIENCE_S: Final = 55.0


_LIMIT_SEVERITY: Final = {
    Limit.HOT_EMERGENCY: Severity.EMERGENCY,
    Limit.COLD_EMERGENCY: Severity.EMERGENCY,
    Limit.HARM: Severity.ALARM,
    Limit.SLOW: Severity.ALARM,
    Limit.OFF_TARGET: Severity.ALARM,
    Limit.SWING: Severity.NOTICE,
}


#: s of silence over eggs from which a logger is more than a notice (product requirement;
#: assumption).
DEAD_LOGGER_S: Final = 6 * SECONDS_PER_HOUR


_DEAD_LOGGER: Final = "dead logger"


_SILENT_HOURS: Final = LOGGER_GAP_S / SECONDS_PER_HOUR


_FAULT_SEVERITY: Final = {
    FaultKind.FAN: Severity.ALARM,
    FaultKind.POWER_CUT: Severity.ALARM,
    FaultKind.DOOR: Severity.ALARM,
    FaultKind.OVERSHOOT: Severity.ALARM,
    FaultKind.UNPLUGGED: Severity.NOTICE,
    FaultKind.STUCK: Severity.NOTICE,
    FaultKind.FALLEN: Severity.NOTICE,
    FaultKind.DRIFT: Severity.NOTICE,
}


_FAULT_WORDS: Final = {
    FaultKind.FAN: "shelves drift apart: does the fan turn?",
    FaultKind.POWER_CUT: "all shelves fall together: is there power?",
    FaultKind.DOOR: "warmth and damp escape: is the door shut?",
    FaultKind.OVERSHOOT: "the thermostat drives it up and down",
    FaultKind.UNPLUGGED: f"no reading for {_SILENT_HOURS:g} h: plug, battery, range?",
    FaultKind.STUCK: "repeats one value: restart it",
    FaultKind.FALLEN: "its reading jumped alone: does it hang where it should?",
    FaultKind.DRIFT: "drifts from the others: check it against a reference",
}


def look(snapshot: Snapshot, now_s: float) -> list[Trouble]:
    """What is wrong in any cabinet at `now_s`.

    Where no eggs are, nothing is more than a notice.
    """
    found: dict[tuple[str, int, int], Trouble] = {}
    for cabinet in snapshot.cabinets.values():
        eggs = _holds_eggs(snapshot, cabinet, now_s)
        for trouble in _in_cabinet(snapshot, cabinet, now_s):
            if not eggs and trouble.severity is not Severity.NOTICE:
                trouble = Trouble(
                    trouble.kind, Severity.NOTICE, trouble.cabinet, trouble.probe,
                    Message("{trouble} (no eggs in it)", trouble=trouble.text),
                    trouble.began_s, trouble.any_hour,
                )  # fmt: skip
            found.setdefault(trouble.key, trouble)
    return list(found.values())


def _in_cabinet(snapshot: Snapshot, cabinet: Cabinet, now_s: float) -> Iterator[Trouble]:
    set_points = snapshot.cabinet(cabinet.entity_id).set_points
    if set_points is None:
        return
    hanging = list(_hanging(snapshot, cabinet, now_s))
    for probe, place in hanging:
        for breach in _breaches(snapshot, probe, place, set_points.at(now_s), now_s):
            yield _passed(cabinet, probe, breach, snapshot.settings.rules.climate)
        dead = _dead(snapshot, cabinet, probe, place, now_s)
        if dead is not None:
            yield dead
    for told in cabinet_faults(snapshot, cabinet, now_s, _WATCHED_DAYS, patience_s=_PATIENCE_S):
        if told.fault.end_s is None and told.fault.kind in _FAULT_WORDS:
            yield from _faulty(snapshot, cabinet, told)
    yield from slow_troubles(snapshot, cabinet, hanging, now_s)


def _breaches(
    snapshot: Snapshot, probe: Probe, place: int, set_point_c: float, now_s: float
) -> list[Breach]:
    """Limits a probe passes; worked out anew when it sent something, or fell silent."""
    tip = readings.tips().get(probe.entity_id)
    if tip is None or tip.last_s is None:
        return []
    silent = now_s - tip.last_s > LOGGER_GAP_S
    stamp = (snapshot.version, tip.revision, set_point_c, silent)

    def read() -> list[Breach]:
        series = record_of(snapshot, probe, place, now_s - 4 * SECONDS_PER_DAY, now_s)
        return breaches(series, set_point_c, now_s, snapshot.settings.rules.climate)

    return snapshot.kept.held(f"limits of probe {probe.entity_id}", stamp, read)


def _dead(
    snapshot: Snapshot, cabinet: Cabinet, probe: Probe, place: int, now_s: float
) -> Trouble | None:
    """A logger over eggs that has said nothing for 6 h; at any hour where nothing else measures.

    Of one whose readings come as files nothing is expected between them.
    """
    if read_from_files(probe):
        return None
    tips = readings.tips()
    tip = tips.get(probe.entity_id)
    last_s = float(tip.last_s) if tip and tip.last_s is not None else float(probe.since_s)
    if now_s - last_s < DEAD_LOGGER_S:
        return None
    watched = _boxes_under(snapshot, cabinet, place, now_s)
    if not watched:
        return None
    heard = {
        where
        for other, where in _hanging(snapshot, cabinet, now_s)
        if other.entity_id != probe.entity_id
        and (own := tips.get(other.entity_id)) is not None
        and own.last_s is not None
        and now_s - own.last_s <= LOGGER_GAP_S
    }
    alone = any(heard.isdisjoint((box, shelf, cabinet.entity_id)) for box, shelf in watched)
    only = ", and nothing else measures there" if alone else ""
    return Trouble(
        _DEAD_LOGGER, Severity.ALARM, cabinet.entity_id, probe.entity_id,
        f"{probe.name}: no reading for {DEAD_LOGGER_S / SECONDS_PER_HOUR:g} h{only}: "
        "plug, battery, range?",
        last_s, any_hour=alone,
    )  # fmt: skip


def _boxes_under(
    snapshot: Snapshot, cabinet: Cabinet, place: int, now_s: float
) -> list[tuple[int, int]]:
    """(box, shelf) of the boxes with eggs that a probe at `place` can speak for."""
    boxes = {
        box.entity_id: snapshot.shelf_at(box, now_s)
        for clutch in snapshot.clutches
        if snapshot.under_way(clutch, now_s)
        for box in snapshot.boxes_of(clutch, now_s)
    }
    return [
        (box, shelf.entity_id)
        for box, shelf in boxes.items()
        if shelf.cabinet_id == cabinet.entity_id
        and place in (box, shelf.entity_id, cabinet.entity_id)
    ]


def _passed(cabinet: Cabinet, probe: Probe, breach: Breach, rules: ClimateRules) -> Trouble:
    return Trouble(
        breach.limit.value,
        _LIMIT_SEVERITY[breach.limit],
        cabinet.entity_id,
        probe.entity_id,
        _limit_words(probe.name, breach, rules),
        breach.since_s,
    )


def _limit_words(probe: str, breach: Breach, rules: ClimateRules) -> Message:
    """What a probe's breach of a limit means, and what to do at once."""
    reached = Temperature(breach.extreme_c)
    match breach.limit:
        case Limit.HOT_EMERGENCY:
            return Message(
                "{probe}: too hot for eggs, up to {reached}: open the door, switch the heat off",
                probe=probe, reached=reached,
            )  # fmt: skip
        case Limit.COLD_EMERGENCY:
            return Message(
                "{probe}: too cold for {hours:g} h, down to {reached}: warm them now",
                probe=probe, reached=reached, hours=rules.cold_emergency[1] / SECONDS_PER_HOUR,
            )  # fmt: skip
        case Limit.HARM:
            return Message(
                "{probe}: above {limit}, up to {reached}: harm adds up, find the cause",
                probe=probe, reached=reached, limit=Temperature(rules.harm_above_c),
            )  # fmt: skip
        case Limit.SLOW:
            return Message(
                "{probe}: below {limit}, down to {reached}: eggs wait, find the cause",
                probe=probe, reached=reached, limit=Temperature(rules.slow_below_c),
            )  # fmt: skip
        case Limit.OFF_TARGET:
            return Message(
                "{probe}: {reached}, off its set point: look at thermostat and door",
                probe=probe, reached=reached,
            )  # fmt: skip
        case Limit.SWING:
            return Message(
                "{probe}: swings too widely within a day, up to {reached}",
                probe=probe, reached=reached,
            )  # fmt: skip


def _faulty(snapshot: Snapshot, cabinet: Cabinet, told: CabinetFault) -> Iterator[Trouble]:
    fault = told.fault
    of_probe = fault.kind in (
        FaultKind.UNPLUGGED, FaultKind.STUCK, FaultKind.FALLEN, FaultKind.DRIFT,
    )  # fmt: skip
    for probe in told.probes if of_probe else (None,):
        if fault.kind is FaultKind.UNPLUGGED and read_from_files(snapshot.probes[probe or 0]):
            continue
        name = snapshot.probes[probe].name if probe is not None else cabinet.name
        yield Trouble(
            fault.kind.value,
            _FAULT_SEVERITY[fault.kind],
            cabinet.entity_id,
            probe,
            f"{name}: {_FAULT_WORDS[fault.kind]}",
            fault.start_s,
        )


def _hanging(snapshot: Snapshot, cabinet: Cabinet, now_s: float) -> Iterator[tuple[Probe, int]]:
    """The cabinet's loggers and where each hangs now: in it, on its shelves, in boxes there."""
    shelves = {s.entity_id for s in snapshot.shelves.values() if s.cabinet_id == cabinet.entity_id}
    boxes = {
        box.entity_id
        for box in snapshot.boxes.values()
        if snapshot.shelf_at(box, now_s).entity_id in shelves
    }
    for place in (cabinet.entity_id, *sorted(shelves), *sorted(boxes)):
        for probe in snapshot.probes_at.get(place, []):
            if not probe.by_hand:
                yield probe, place


def _holds_eggs(snapshot: Snapshot, cabinet: Cabinet, now_s: float) -> bool:
    return any(
        snapshot.shelf_at(box, now_s).cabinet_id == cabinet.entity_id
        for clutch in snapshot.clutches
        if snapshot.under_way(clutch, now_s)
        for box in snapshot.boxes_of(clutch, now_s)
    )
