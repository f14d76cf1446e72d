"""What the calendar keeps of what was: laid, opened, pipped, out, closed."""

from collections.abc import Iterator
from typing import Final
from urllib.parse import quote

from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.clutches import Clutch
from sandboa.services.overview.calendar import CalendarEntry
from sandboa.services.snapshot.snapshot import Snapshot

#: Days back over which the calendar keeps what was (assumption: a season, and the one before it
#: to compare).
KEPT_DAYS: Final = 400.0


def happened(snapshot: Snapshot, as_of_s: float) -> list[CalendarEntry]:
    """What was recorded of the last 400 days, in order of time: it stays when it is over."""
    since_s = as_of_s - KEPT_DAYS * SECONDS_PER_DAY
    entries = [
        *(entry for clutch in snapshot.clutches for entry in _of_clutch(snapshot, clutch)),
        *_visits(snapshot),
    ]
    told = (entry for entry in entries if since_s <= entry.from_s <= as_of_s)
    return sorted(told, key=lambda entry: (entry.from_s, entry.key))


def _of_clutch(snapshot: Snapshot, clutch: Clutch) -> Iterator[CalendarEntry]:
    eggs = [snapshot.egg(egg.entity_id) for egg in snapshot.eggs.get(clutch.entity_id, [])]
    pips = [egg.pip_s for egg in eggs if egg.pip_s is not None]
    out = [float(egg.emergence.seen_s) for egg in eggs if egg.emergence is not None]
    done = snapshot.clutch(clutch.entity_id).finished
    count = len(eggs)
    moments = (
        ("laid", float(clutch.laid_s), f"laid, {count} egg{'s' * (count != 1)}"),
        ("pipped", min(pips, default=None), "the first pipped"),
        ("out", max(out, default=None), f"{len(out)} out, the last of them"),
        ("closed", float(done.at_s) if done is not None else None, "closed"),
    )
    place = f"/clutches/{quote(clutch.code, safe='')}"
    for key, at_s, words in moments:
        if at_s is not None:
            key = f"{key}.{clutch.entity_id}"
            yield CalendarEntry(key, at_s, at_s, f"{clutch.code}: {words}", place, past=True)


def _visits(snapshot: Snapshot) -> Iterator[CalendarEntry]:
    for box in snapshot.boxes.values():
        for visit in snapshot.box(box.entity_id).visits:
            at_s = float(visit.closed_s)
            yield CalendarEntry(
                f"opened.{visit.entity_id}", at_s, at_s, f"Box {box.name} opened",
                f"/round/{quote(box.name, safe='')}", past=True,
            )  # fmt: skip
