"""The snapshot that holds, kept until an act is recorded."""

from dataclasses import dataclass, field

from sandboa.records.facts import newest_act
from sandboa.services.snapshot.kept import Kept
from sandboa.services.snapshot.series import SeriesCache
from sandboa.services.snapshot.snapshot import Snapshot, read_snapshot


@dataclass
class SnapshotCache:
    """Screens ask many questions of the same facts: they are read once after each act.

    Safe to share between threads. What outlives an act is passed from each
    snapshot to the next: the series of readings, and results kept under stamps.
    """

    _held: Snapshot | None = None
    _series: SeriesCache = field(default_factory=SeriesCache)
    _kept: Kept = field(default_factory=Kept)

    def current(self) -> Snapshot:
        """Everything that holds now; read again only after a new act."""
        version = newest_act()
        held = self._held
        if held is None or held.version != version:
            held = self._held = read_snapshot(version, self._series, self._kept)
        return held
