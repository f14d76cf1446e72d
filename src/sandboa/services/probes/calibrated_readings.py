"""A probe's readings as they count: offsets from their date, what was left out, where it hung."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from sandboa.core.climate.probe_checks import CheckKind, trusted
from sandboa.core.development import ReadingSeries
from sandboa.records.house import Probe
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True, slots=True)
class Piece:
    """Readings of a probe over a time in which nothing about it changed; offset not yet added."""

    probe: Probe
    from_s: float
    until_s: float
    series: ReadingSeries
    offset_c: float
    sd_c: float


def read_from_files(probe: Probe) -> bool:
    """Whether a probe's readings come as files: nothing sends them, and none are typed in."""
    return probe.device_id is None and not probe.by_hand


def loggers_ever_at(snapshot: Snapshot, place: int) -> Iterator[Probe]:
    """Probes of loggers that hang or hung in a place, those that hang there now first."""
    here = [
        probe
        for probe in snapshot.probes.values()
        if not probe.by_hand and place in snapshot.probe(probe.entity_id).locations.place
    ]
    yield from sorted(here, key=lambda p: snapshot.probe(p.entity_id).locations.last != place)


def with_humidity_offset(snapshot: Snapshot, probe: Probe, humidity: float, at_s: float) -> float:
    """A probe's relative humidity (0-1) as it counts: moved by its last salt test up to then."""
    tests = [
        check
        for check in snapshot.probe(probe.entity_id).checks
        if check.kind is CheckKind.SALT and check.at_s <= at_s
    ]
    return min(max(humidity + (tests[-1].offset if tests else 0.0), 0.0), 1.0)


def pieces_at(
    snapshot: Snapshot, probe: Probe, place: int, from_s: float, until_s: float
) -> Iterator[Piece]:
    """What a probe measured in a place within from..until, in order of time."""
    left_out = [
        (float(row.from_s), float(row.until_s)) for row in snapshot.probe(probe.entity_id).left_out
    ]
    checks = snapshot.probe(probe.entity_id).checks
    for start_s, end_s, where in snapshot.probe(probe.entity_id).locations.pieces(from_s, until_s):
        if where != place:
            continue
        for part in trusted(
            start_s,
            end_s,
            checks,
            left_out,
            checked_from_start=bool(probe.checked),
            sd_c=snapshot.settings.rules.probe_sd_c,
        ):
            series = snapshot.readings.series(probe.entity_id, part.from_s, part.until_s)
            if len(series.times_s):
                yield Piece(probe, part.from_s, part.until_s, series, part.offset_c, part.sd_c)


def record_at(snapshot: Snapshot, place: int, from_s: float, until_s: float) -> ReadingSeries:
    """The readings of a place as one series, offsets added: of the logger that has most to say."""
    best = ReadingSeries(np.empty(0), np.empty(0))
    for probe in loggers_ever_at(snapshot, place):
        record = record_of(snapshot, probe, place, from_s, until_s)
        if len(record.times_s) > len(best.times_s):
            best = record
    return best


def record_of(
    snapshot: Snapshot, probe: Probe, place: int, from_s: float, until_s: float
) -> ReadingSeries:
    """What one probe measured in a place within from..until, offsets added, as one series."""
    parts = [
        piece.series if not piece.offset_c else _moved(piece)
        for piece in pieces_at(snapshot, probe, place, from_s, until_s)
    ]
    return parts[0] if len(parts) == 1 else _joined(parts)


def _moved(piece: Piece) -> ReadingSeries:
    return ReadingSeries(piece.series.times_s, piece.series.temperature_c + piece.offset_c)


def _joined(parts: list[ReadingSeries]) -> ReadingSeries:
    if not parts:
        return ReadingSeries(np.empty(0), np.empty(0))
    times = np.concatenate([part.times_s for part in parts])
    values = np.concatenate([part.temperature_c for part in parts])
    # A reading at the very moment of a check stands in both parts.
    first = np.concatenate([[True], np.diff(times) > 0])
    return ReadingSeries(times[first], values[first])
