"""Readings in: by hand, from a file, from a logger. Nothing is stored twice or half."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.core.messages import Message, Temperature
from sandboa.core.units import READING_RANGE_C, require_range
from sandboa.records import readings
from sandboa.records.facts import Act
from sandboa.records.hatching import Finished
from sandboa.records.readings import Batch
from sandboa.records.readings import ReadingRow as ReadingRow
from sandboa.services.acts.recording import act
from sandboa.services.probes.commands import ProbePlace, find_probe, hand_thermometer

#: s a logger's clock may run ahead before its readings are refused as future (assumption).
LOGGER_GRACE_S: Final = 300.0


@dataclass(frozen=True, slots=True)
class Intake:
    """What became of a batch. `act` is None when nothing changed."""

    new: int
    known: int
    conflicting: tuple[ReadingRow, ...]
    before_probe: int
    in_future: int
    act: Act | None


def store_readings(
    probe_entity: int, rows: Sequence[ReadingRow], source: str, file_name: str, now_s: float
) -> Intake:
    """Store rows of (time s, °C, humidity 0-1 or None) of one probe, in any order.

    Rows from before the probe hung there or from the future are left out and
    counted; a time already held keeps its first value, a contradicting one is
    returned. The same rows again change nothing. Raises NotFound for an
    unknown probe; values must have been range-checked.
    """
    (intake,) = store_file([(probe_entity, rows)], source, file_name, now_s)
    return intake


def store_file(
    parts: Sequence[tuple[int, Sequence[ReadingRow]]], source: str, file_name: str, now_s: float
) -> tuple[Intake, ...]:
    """Store what several sensors of a file measured, each as its probe's: all of it or nothing.

    As `store_readings`, and undone in one go. Raises NotPlausible where two are of one probe.
    """
    if len({probe for probe, _ in parts}) < len(parts):
        raise NotPlausible("probe", "two sensors of a file cannot be one probe")
    latest_s = now_s + LOGGER_GRACE_S
    probes = [find_probe(probe) for probe, _ in parts]
    fitting = [
        _fitting(rows, probe.since_s, latest_s)
        for probe, (_, rows) in zip(probes, parts, strict=True)
    ]
    taken_in: Act | None = None
    try:
        with act(ActKind.READINGS, "", now_s) as taking_in:
            stored = []
            for probe, (rows, _, _) in zip(probes, fitting, strict=True):
                batch = Batch.record(
                    taking_in, probe_id=probe.entity_id, source=source, file_name=file_name
                )
                stored.append(readings.store(probe.entity_id, batch.entity_id, rows))
            if not any(one.new for one in stored):
                raise _NothingNew(stored)
            names = [p.name for p, one in zip(probes, stored, strict=True) if one.new]
            taking_in.say(_summary(sum(one.new for one in stored), names, file_name))
        taken_in = taking_in
    except _NothingNew as nothing:
        stored = nothing.stored
    return tuple(
        Intake(one.new, one.known, one.conflicting, before, after, taken_in if one.new else None)
        for one, (_, before, after) in zip(stored, fitting, strict=True)
    )


def read_by_hand(
    place: ProbePlace, at_s: float, temperature_c: float, humidity: float | None, now_s: float
) -> Act:
    """Record one reading of a thermometer at a place (°C -20..60, humidity 0-1).

    Raises NotPlausible for values out of range or a time in the future;
    NotFound for an unknown place.
    """
    require_range("temperature", temperature_c, READING_RANGE_C, "°C")
    if humidity is not None:
        require_range("humidity", humidity, (0.0, 1.0), "")
    if at_s > now_s + LOGGER_GRACE_S:
        raise NotPlausible("at", "that time is in the future")
    with act(_kind_by_hand(at_s), "", now_s) as reading:
        thermometer = hand_thermometer(reading, place, at_s)
        batch = Batch.record(
            reading, probe_id=thermometer.entity_id, source="by hand", file_name=""
        )
        stored = readings.store(
            thermometer.entity_id, batch.entity_id, [(int(at_s), temperature_c, humidity)]
        )
        if not stored.new:
            raise NotPlausible("at", "there is a reading by hand at that moment already")
        reading.say(
            Message(
                "{warmth} read by hand, {thermometer}",
                warmth=Temperature(temperature_c),
                thermometer=thermometer.name,
            )
        )
    return reading


def _kind_by_hand(at_s: float) -> ActKind:
    """One before a closing may change what a closed clutch had, as a file does; else everyday."""
    closed_later = any(at_s <= finished.at_s for finished in Finished.current())
    return ActKind.READINGS if closed_later else ActKind.READING_NOW


def _fitting(
    rows: Sequence[ReadingRow], since_s: float, latest_s: float
) -> tuple[Sequence[ReadingRow], int, int]:
    """The rows within since..latest, how many lie before, and how many after."""
    times = [row[0] for row in rows]
    if not times or (since_s <= min(times) and max(times) <= latest_s):
        return rows, 0, 0
    before = sum(at_s < since_s for at_s in times)
    after = sum(at_s > latest_s for at_s in times)
    return [row for row in rows if since_s <= row[0] <= latest_s], before, after


class _NothingNew(Exception):
    """Rolls the act back: a batch without news leaves no trace."""

    def __init__(self, stored: list[readings.Stored]) -> None:
        self.stored = stored


def _summary(new: int, probes: Sequence[str], file_name: str) -> str:
    what = "1 reading" if new == 1 else f"{new:,} readings"
    whose = " and ".join([", ".join(probes[:-1]), probes[-1]] if probes[1:] else probes)
    return f"{what} of {whose} from {file_name}" if file_name else f"{what} of {whose}"
