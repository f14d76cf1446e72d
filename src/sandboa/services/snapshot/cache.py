"""The snapshot that holds, kept until an act is recorded and then carried on."""

from dataclasses import dataclass, field
from threading import Lock

from sandboa.records.facts import newest_act
from sandboa.records.held_rows import HeldRows
from sandboa.services.series.cache import SeriesCache
from sandboa.services.snapshot.kept import Kept
from sandboa.services.snapshot.snapshot import TABLES, Snapshot, read_snapshot


@dataclass
class SnapshotCache:
    """Screens ask many questions of the same facts: after an act, what it touched is read again.

    Safe to share between threads. What outlives an act is passed from each
    snapshot to the next: rows, the series of readings, and results kept under stamps.
    """

    _held: Snapshot | None = None
    _rows: HeldRows | None = None
    _series: SeriesCache = field(default_factory=SeriesCache)
    _kept: Kept = field(default_factory=Kept)
    _lock: Lock = field(default_factory=Lock)

    def current(self) -> Snapshot:
        """Everything that holds now."""
        held = self._held
        if held is not None and held.version == newest_act():
            return held
        with self._lock:
            return self._carried_on()

    def _carried_on(self) -> Snapshot:
        # Asked again: while this thread waited another may have carried it on.
        held, rows, version = self._held, self._rows, newest_act()
        if held is not None and held.version == version:
            return held
        # Without rows to go on from, or back before them, everything is read.
        self._held = self._rows = None
        if held is None or rows is None or version < held.version:
            held, rows = None, HeldRows(version, TABLES)
        else:
            rows.forward(version)
        snapshot = read_snapshot(rows, self._series, self._kept, held)
        self._held, self._rows = snapshot, rows
        return snapshot
