"""Readings held back because their time cannot be: kept word for word until the keeper decides."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.records import readings
from sandboa.records.database import database
from sandboa.records.integrity import reading_days
from sandboa.records.integrity.reading_days import HELD
from sandboa.records.readings import Batch, ReadingRow

#: Why readings are held: the sender's clock is ahead or behind, or the probe did not hang yet.
AHEAD: Final = "ahead"
BEHIND: Final = "behind"
BEFORE: Final = "before"

_WAITING: Final = (
    "(batch_id IS NULL OR batch_id NOT IN "
    "(SELECT entity_id FROM batch WHERE superseded_by_id IS NULL))"
)


@dataclass(frozen=True, slots=True)
class Held:
    """What is held back of one probe for one reason.

    `off_s` is how far the sender's clock seemed to be ahead when the last of them came.
    """

    probe_id: int
    reason: str
    count: int
    first_s: int
    last_s: int
    received_s: int
    off_s: int


def hold(
    probe: int, rows: Sequence[ReadingRow], received_s: float, reason: str, off_s: float
) -> None:
    """Keep rows aside inside the caller's transaction; the first of equal times stays."""
    database.connection().executemany(
        "INSERT OR IGNORE INTO held_reading (probe_id, at_s, temperature_c, humidity, received_s, "
        f"reason, off_s) VALUES ({int(probe)}, ?, ?, ?, {int(received_s)}, '{reason}', "
        f"{round(off_s)})",
        rows,
    )
    if rows:
        times = [row[0] for row in rows]
        reading_days.work_out(database.connection(), HELD, probe, min(times), max(times))


def held() -> list[Held]:
    """Everything that waits for a decision, by probe."""
    rows = database.execute_sql(
        "SELECT probe_id, reason, count(*), min(at_s), max(at_s), max(received_s), off_s "
        f"FROM held_reading WHERE {_WAITING} "
        "GROUP BY probe_id, reason ORDER BY probe_id, reason"
    )
    return [Held(*row) for row in rows]


def let_in(probe: int, reason: str, batch: Batch, shift_s: int) -> readings.Stored:
    """Store what is held as part of `batch`, every time moved by `shift_s`.

    Undoing the batch puts them back among those held.
    """
    rows = database.execute_sql(
        "SELECT at_s + ?, temperature_c, humidity FROM held_reading "
        f"WHERE probe_id = ? AND reason = ? AND {_WAITING}",
        (shift_s, probe, reason),
    ).fetchall()
    drop(probe, reason, batch)
    return readings.store(probe, batch.entity_id, rows)


def drop(probe: int, reason: str, batch: Batch) -> None:
    """Mark what is held as decided by `batch`; undoing that holds it again."""
    # The batch itself is current by now: only what waits for another decision is marked.
    database.execute_sql(
        f"UPDATE held_reading SET batch_id = ? WHERE probe_id = ? AND reason = ? AND {_WAITING}",
        (batch.entity_id, probe, reason),
    )
    first_s, last_s = database.execute_sql(
        "SELECT min(at_s), max(at_s) FROM held_reading WHERE probe_id = ?", (probe,)
    ).fetchone()
    if first_s is not None:
        reading_days.work_out(database.connection(), HELD, probe, first_s, last_s)
