"""Readings: keyed by probe and time, with hourly roll-ups kept in the same transaction."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import chain
from typing import Final

import numpy as np
from peewee import IntegerField, TextField

from sandboa.core.development.clock import FloatArray
from sandboa.records.database import database
from sandboa.records.facts import Fact
from sandboa.records.integrity import reading_days
from sandboa.records.integrity.reading_days import READINGS, WITHDRAWN, Store

#: (time s, °C, humidity 0-1 or None)
ReadingRow = tuple[int, float, float | None]

#: `batch` of readings a device sent: no act of a keeper's brought them in.
LIVE: Final = 0

_SECONDS_PER_HOUR: Final = 3600
#: Stands in a table of numbers for a humidity nobody measured; no share is below 0.
_NOT_MEASURED: Final = -1.0


class Batch(Fact):
    """Readings that came in together; undoing it withdraws them."""

    probe_id = IntegerField()
    source = TextField()
    file_name = TextField()


@dataclass(frozen=True, slots=True)
class Stored:
    """What became of a batch: new rows, rows known already, and rows that contradict known ones."""

    new: int
    known: int
    conflicting: tuple[ReadingRow, ...]


def store(
    probe: int, batch: int, rows: Sequence[ReadingRow], received_s: float | None = None
) -> Stored:
    """Add readings inside the caller's transaction; a time already held is never overwritten.

    `rows` in any order. Storing the same rows twice changes nothing. `batch`
    is LIVE for what a device sends. `received_s` is when the machine got them.
    """
    if not rows:
        return Stored(0, 0, ())
    cursor = database.connection().executemany(
        "INSERT OR IGNORE INTO reading (probe_id, at_s, temperature_c, humidity, batch_id) "
        f"VALUES ({int(probe)}, ?, ?, ?, {int(batch)})",
        rows,
    )
    new = cursor.rowcount
    times = [row[0] for row in rows]
    if new:
        _roll_up(probe, min(times), max(times))
        _sum_up(probe, batch, rows, times, new)
        _move_tip(probe, rows, times, new, received_s)
    if new == len(rows):
        return Stored(new, 0, ())
    conflicting = _conflicts(probe, rows, min(times), max(times))
    return Stored(new, len(rows) - new - len(conflicting), conflicting)


def withdraw(batch: int) -> None:
    """Take a batch's readings out of use; they are kept aside, word for word."""
    _move(batch, "reading", "withdrawn_reading")


def restore(batch: int) -> None:
    """Put a withdrawn batch back. Times another batch has filled since stay as they are."""
    _move(batch, "withdrawn_reading", "reading")


def single(probe: int, from_s: float | None = None, until_s: float | None = None) -> FloatArray:
    """Every reading from..until, both included, in order; shape (n, 3).

    Time (s), °C and relative humidity (0-1, NaN where not measured).
    """
    rows = database.execute_sql(
        f"SELECT at_s, temperature_c, coalesce(humidity, {_NOT_MEASURED}) FROM reading "
        "WHERE probe_id = ? AND at_s BETWEEN ? AND ? ORDER BY at_s",
        (probe, *_span(from_s, until_s)),
    )
    table = _table(rows, 3)
    table[table[:, 2] == _NOT_MEASURED, 2] = np.nan
    return table


def means(probe: int, from_s: float, over_s: int) -> FloatArray:
    """Means of the readings of every `over_s` s, counted from 1970: their time (s) and °C.

    Shape (n, 2); spans without a reading have no row.
    """
    rows = database.execute_sql(
        "SELECT avg(at_s), avg(temperature_c) FROM reading WHERE probe_id = ? AND at_s >= ? "
        "GROUP BY at_s / ? ORDER BY 1",
        (probe, _span(from_s, None)[0], over_s),
    )
    return _table(rows, 2)


def _table(rows: Iterable[tuple[float, ...]], columns: int) -> FloatArray:
    """Rows of numbers, shape (n, columns); a season of minutes is never held as objects.

    Whole seconds stay exact in a float for 285 million years.
    """
    return np.fromiter(chain.from_iterable(rows), dtype=np.float64).reshape(-1, columns)


def hours(probe: int, from_s: float, until_s: float) -> FloatArray:
    """Roll-ups of each hour: its start (s), lowest, mean and highest °C; shape (n, 4)."""
    rows = database.execute_sql(
        "SELECT hour * 3600, lowest_c, mean_c, highest_c FROM reading_hour "
        "WHERE probe_id = ? AND hour BETWEEN ? AND ? ORDER BY hour",
        (probe, int(from_s) // _SECONDS_PER_HOUR, int(until_s) // _SECONDS_PER_HOUR),
    )
    return _table(rows, 4)


def humidity_of_hours(probe: int, from_s: float) -> FloatArray:
    """Roll-ups of each hour it was measured: its start (s), mean humidity 0-1; shape (n, 2)."""
    rows = database.execute_sql(
        "SELECT hour * 3600, mean_humidity FROM reading_hour "
        "WHERE probe_id = ? AND hour >= ? AND mean_humidity IS NOT NULL ORDER BY hour",
        (probe, int(from_s) // _SECONDS_PER_HOUR),
    )
    return _table(rows, 2)


@dataclass(frozen=True, slots=True)
class Tip:
    """The end of a probe's record.

    `revision` rises with every change of its readings, `rewrites` with those
    that did more than append at the end. `received_s` is when the machine
    last got anything new of it; None for what came as a file or by hand.
    """

    probe_id: int
    revision: int
    rewrites: int
    readings: int
    last_s: int | None
    last_c: float | None
    last_humidity: float | None
    received_s: int | None


_TIP: Final = (
    "SELECT probe_id, revision, rewrites, readings, last_s, last_c, last_humidity, received_s "
    "FROM reading_tip"
)


def newest_s() -> int | None:
    """When the newest reading of all probes was taken; None without any."""
    row = database.execute_sql("SELECT max(last_s) FROM reading_tip").fetchone()
    return int(row[0]) if row[0] is not None else None


def newest_received_s() -> int | None:
    """When a device last sent anything new, by the machine's clock (s); None when none did."""
    row = database.execute_sql("SELECT max(received_s) FROM reading_tip").fetchone()
    return int(row[0]) if row[0] is not None else None


def tip(probe: int) -> Tip | None:
    """Where a probe's record ends; None when it never had a reading."""
    row = database.execute_sql(f"{_TIP} WHERE probe_id = ?", (probe,)).fetchone()
    return Tip(*row) if row else None


def tips() -> dict[int, Tip]:
    """Where every probe's record ends."""
    return {row[0]: Tip(*row) for row in database.execute_sql(_TIP).fetchall()}


def newest_change() -> int:
    """A number that rises whenever any reading is stored, taken out or put back."""
    (total,) = database.execute_sql("SELECT coalesce(sum(revision), 0) FROM reading_tip").fetchone()
    return int(total)


def all_of(probe: int) -> list[ReadingRow]:
    """Every reading of a probe in order of time."""
    rows: list[ReadingRow] = database.execute_sql(
        "SELECT at_s, temperature_c, humidity FROM reading WHERE probe_id = ? ORDER BY at_s",
        (probe,),
    ).fetchall()
    return rows


def _span(from_s: float | None, until_s: float | None) -> tuple[int, int]:
    first = -(2**62) if from_s is None else math.ceil(from_s)
    return first, 2**62 if until_s is None else math.floor(until_s)


def _move_tip(
    probe: int, rows: Sequence[ReadingRow], times: list[int], new: int, received_s: float | None
) -> None:
    before = tip(probe)
    ended_s = before.last_s if before and before.last_s is not None else -(2**62)
    appended = sum(at_s > ended_s for at_s in set(times)) == new
    latest = max(rows, key=lambda row: row[0])
    if before is None:
        database.execute_sql(
            "INSERT INTO reading_tip VALUES (?, 1, 0, ?, ?, ?, ?, ?)",
            (probe, new, *latest, received_s and int(received_s)),
        )
        return
    database.execute_sql(
        "UPDATE reading_tip SET revision = revision + 1, rewrites = rewrites + ?, "
        "readings = readings + ?, received_s = coalesce(?, received_s) WHERE probe_id = ?",
        (int(not appended), new, received_s and int(received_s), probe),
    )
    if latest[0] > ended_s:
        database.execute_sql(
            "UPDATE reading_tip SET last_s = ?, last_c = ?, last_humidity = ? WHERE probe_id = ?",
            (*latest, probe),
        )


def _find_tip(probe: int) -> None:
    """Work the tip out anew after readings were taken out or put back."""
    database.execute_sql(
        "INSERT OR IGNORE INTO reading_tip VALUES (?, 0, 0, 0, NULL, NULL, NULL, NULL)", (probe,)
    )
    database.execute_sql(
        "UPDATE reading_tip SET revision = revision + 1, rewrites = rewrites + 1, "
        "readings = (SELECT coalesce(sum(readings), 0) FROM reading_hour WHERE probe_id = ?1), "
        "(last_s, last_c, last_humidity) = (SELECT at_s, temperature_c, humidity FROM reading "
        "WHERE probe_id = ?1 ORDER BY at_s DESC LIMIT 1) WHERE probe_id = ?1",
        (probe,),
    )


def roll_up_everything() -> None:
    """Work out the hours of all readings, in a house that has none yet."""
    database.execute_sql(f"{_HOURS} GROUP BY probe_id, at_s / 3600")


_HOURS: Final = (
    "INSERT INTO reading_hour SELECT probe_id, at_s / 3600, count(*), min(temperature_c), "
    "avg(temperature_c), max(temperature_c), avg(humidity) FROM reading"
)


def _roll_up(probe: int, first_s: int, last_s: int) -> None:
    """Work out again the hours from `first_s` to `last_s`; late readings need no special case."""
    first_hour, last_hour = first_s // _SECONDS_PER_HOUR, last_s // _SECONDS_PER_HOUR
    database.execute_sql(
        "DELETE FROM reading_hour WHERE probe_id = ? AND hour BETWEEN ? AND ?",
        (probe, first_hour, last_hour),
    )
    database.execute_sql(
        f"{_HOURS} WHERE probe_id = ? AND at_s BETWEEN ? AND ? GROUP BY probe_id, at_s / 3600",
        (probe, first_hour * _SECONDS_PER_HOUR, (last_hour + 1) * _SECONDS_PER_HOUR - 1),
    )


def _sum_up(probe: int, batch: int, rows: Sequence[ReadingRow], times: list[int], new: int) -> None:
    """Count new rows into the checksums of their days."""
    if new == len(rows):
        reading_days.add(database.connection(), probe, batch, rows)
    else:
        _sum_up_anew(READINGS, probe, min(times), max(times))


def _sum_up_anew(store: Store, probe: int, first_s: int, last_s: int) -> None:
    reading_days.work_out(database.connection(), store, probe, first_s, last_s)


def _conflicts(
    probe: int, rows: Sequence[ReadingRow], first_s: int, last_s: int
) -> tuple[ReadingRow, ...]:
    held = {
        at_s: (temperature_c, humidity)
        for at_s, temperature_c, humidity in database.execute_sql(
            "SELECT at_s, temperature_c, humidity FROM reading "
            "WHERE probe_id = ? AND at_s BETWEEN ? AND ?",
            (probe, first_s, last_s),
        )
    }
    return tuple(row for row in rows if held[row[0]] != (row[1], row[2]))


def _move(batch: int, source: str, target: str) -> None:
    columns = "probe_id, at_s, temperature_c, humidity, batch_id"
    span = database.execute_sql(
        f"SELECT probe_id, min(at_s), max(at_s) FROM {source} WHERE batch_id = ? GROUP BY probe_id",
        (batch,),
    ).fetchall()
    database.execute_sql(
        f"INSERT OR IGNORE INTO {target} ({columns}) "
        f"SELECT {columns} FROM {source} WHERE batch_id = ?",
        (batch,),
    )
    database.execute_sql(f"DELETE FROM {source} WHERE batch_id = ?", (batch,))
    for probe, first_s, last_s in span:
        _roll_up(probe, first_s, last_s)
        for store in (READINGS, WITHDRAWN):
            _sum_up_anew(store, probe, first_s, last_s)
        _find_tip(probe)
