"""Readings: keyed by probe and time, with hourly roll-ups kept in the same transaction."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from peewee import IntegerField, TextField

from sandboa.core.development.clock import FloatArray
from sandboa.records.database import database
from sandboa.records.facts import Fact

#: (time s, °C, humidity 0-1 or None)
ReadingRow = tuple[int, float, float | None]

_SECONDS_PER_HOUR: Final = 3600


class Batch(Fact):
    """Readings that came in together; undoing it withdraws them."""

    probe = IntegerField()
    source = TextField()
    file_name = TextField()


@dataclass(frozen=True, slots=True)
class Stored:
    """What became of a batch: new rows, rows known already, and rows that contradict known ones."""

    new: int
    known: int
    conflicting: tuple[ReadingRow, ...]


def store(probe: int, batch: int, rows: Sequence[ReadingRow]) -> Stored:
    """Add readings inside the caller's transaction; a time already held is never overwritten.

    `rows` in any order. Storing the same rows twice changes nothing.
    """
    if not rows:
        return Stored(0, 0, ())
    cursor = database.connection().executemany(
        "INSERT OR IGNORE INTO reading (probe, at_s, temperature_c, humidity, batch) "
        f"VALUES ({int(probe)}, ?, ?, ?, {int(batch)})",
        rows,
    )
    new = cursor.rowcount
    times = [row[0] for row in rows]
    if new:
        _roll_up(probe, min(times), max(times))
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


def series(probe: int, after_s: int | None = None) -> tuple[FloatArray, FloatArray]:
    """Times (s) and temperatures (°C) of a probe in order; only those after `after_s` if given."""
    rows = database.execute_sql(
        "SELECT at_s, temperature_c FROM reading WHERE probe = ? AND at_s > ? ORDER BY at_s",
        (probe, -(2**62) if after_s is None else after_s),
    ).fetchall()
    if not rows:
        return np.empty(0), np.empty(0)
    # One array from all rows: whole seconds stay exact in a float for 285 million years.
    table = np.array(rows, dtype=np.float64)
    return np.ascontiguousarray(table[:, 0]), np.ascontiguousarray(table[:, 1])


def latest(probe: int) -> ReadingRow | None:
    """The probe's last reading, or None."""
    row: ReadingRow | None = database.execute_sql(
        "SELECT at_s, temperature_c, humidity FROM reading WHERE probe = ? "
        "ORDER BY at_s DESC LIMIT 1",
        (probe,),
    ).fetchone()
    return row


def count(probe: int) -> int:
    """How many readings a probe has, from the roll-ups."""
    (total,) = database.execute_sql(
        "SELECT coalesce(sum(readings), 0) FROM reading_hour WHERE probe = ?", (probe,)
    ).fetchone()
    return int(total)


def withdrawn_since(probe: int, act: int) -> bool:
    """Whether any of the probe's batches was taken out of use after that act."""
    return bool(Batch.select().where((Batch.probe == probe) & (Batch.superseded_by > act)).exists())


def all_of(probe: int) -> list[ReadingRow]:
    """Every reading of a probe in order of time."""
    rows: list[ReadingRow] = database.execute_sql(
        "SELECT at_s, temperature_c, humidity FROM reading WHERE probe = ? ORDER BY at_s", (probe,)
    ).fetchall()
    return rows


def _roll_up(probe: int, first_s: int, last_s: int) -> None:
    """Work out again the hours from `first_s` to `last_s`; late readings need no special case."""
    first_hour, last_hour = first_s // _SECONDS_PER_HOUR, last_s // _SECONDS_PER_HOUR
    database.execute_sql(
        "DELETE FROM reading_hour WHERE probe = ? AND hour BETWEEN ? AND ?",
        (probe, first_hour, last_hour),
    )
    database.execute_sql(
        "INSERT INTO reading_hour SELECT probe, at_s / 3600, count(*), min(temperature_c), "
        "avg(temperature_c), max(temperature_c), avg(humidity) FROM reading "
        "WHERE probe = ? AND at_s BETWEEN ? AND ? GROUP BY at_s / 3600",
        (probe, first_hour * _SECONDS_PER_HOUR, (last_hour + 1) * _SECONDS_PER_HOUR - 1),
    )


def _conflicts(
    probe: int, rows: Sequence[ReadingRow], first_s: int, last_s: int
) -> tuple[ReadingRow, ...]:
    held = {
        at_s: (temperature_c, humidity)
        for at_s, temperature_c, humidity in database.execute_sql(
            "SELECT at_s, temperature_c, humidity FROM reading "
            "WHERE probe = ? AND at_s BETWEEN ? AND ?",
            (probe, first_s, last_s),
        )
    }
    return tuple(row for row in rows if held[row[0]] != (row[1], row[2]))


def _move(batch: int, source: str, target: str) -> None:
    columns = "probe, at_s, temperature_c, humidity, batch"
    span = database.execute_sql(
        f"SELECT probe, min(at_s), max(at_s) FROM {source} WHERE batch = ? GROUP BY probe", (batch,)
    ).fetchall()
    database.execute_sql(
        f"INSERT OR IGNORE INTO {target} ({columns}) "
        f"SELECT {columns} FROM {source} WHERE batch = ?",
        (batch,),
    )
    database.execute_sql(f"DELETE FROM {source} WHERE batch = ?", (batch,))
    for probe, first_s, last_s in span:
        _roll_up(probe, first_s, last_s)
