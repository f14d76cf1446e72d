"""A checksum of each probe's readings of each day, kept in the transaction that stores them.

Three tables hold readings: those that count, those withdrawn with their
batch, and those held back. Each has its checksums in `reading_day`.
"""

import sqlite3
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from sandboa.records.integrity import checksums
from sandboa.records.integrity.checksums import Bits
from sandboa.records.integrity.spelling import spelled

_DAY_S: Final = 86_400
#: Rows read at a time when everything is looked at.
_CHUNK: Final = 100_000
_REASONS: Final = {"ahead": 1, "behind": 2, "before": 3}


@dataclass(frozen=True, slots=True)
class Store:
    """A table of readings and what of a row its checksum covers besides probe, time and values."""

    table: str
    further: tuple[str, ...]


READINGS: Final = Store("reading", ("batch_id",))
WITHDRAWN: Final = Store("withdrawn_reading", ("batch_id",))
HELD: Final = Store("held_reading", ("received_s", "reason", "off_s", "batch_id"))
_STORES: Final = (READINGS, WITHDRAWN, HELD)


def add(
    connection: sqlite3.Connection, probe: int, batch: int, rows: Sequence[tuple[Any, ...]]
) -> None:
    """Count rows (time s, °C, humidity) that were just stored, all of them new, into their days."""
    times = np.asarray([row[0] for row in rows], dtype=np.int64)
    each = checksums.of_rows(
        [
            checksums.whole_numbers([probe] * len(rows)),
            times.view(np.uint64),
            checksums.numbers([row[1] for row in rows]),
            checksums.numbers([row[2] for row in rows]),
            checksums.numbers([float(batch)] * len(rows)),
        ]
    )
    days = times // _DAY_S
    for day in np.unique(days):
        own = each[days == day]
        key = (READINGS.table, probe, int(day))
        held = connection.execute(
            "SELECT readings, checksum FROM reading_day "
            "WHERE store = ? AND probe_id = ? AND day = ?",
            key,
        ).fetchone() or (0, 0)
        _keep(connection, key, held[0] + len(own), held[1] + checksums.total(own))


def work_out(
    connection: sqlite3.Connection, store: Store, probe: int, first_s: int, last_s: int
) -> None:
    """Work the checksums of a probe's days anew, from the day of `first_s` to that of `last_s`."""
    first, last = first_s // _DAY_S, last_s // _DAY_S
    connection.execute(
        "DELETE FROM reading_day WHERE store = ? AND probe_id = ? AND day BETWEEN ? AND ?",
        (store.table, probe, first, last),
    )
    where = "probe_id = ? AND at_s BETWEEN ? AND ?"
    span = (probe, first * _DAY_S, (last + 1) * _DAY_S - 1)
    _keep_all(connection, store, _sums(connection, store, where, span))


def work_out_all(connection: sqlite3.Connection) -> None:
    """Work out the checksums of every reading there is."""
    connection.execute("DELETE FROM reading_day")
    for store in _STORES:
        _keep_all(connection, store, _sums(connection, store, "1", ()))


def problems(connection: sqlite3.Connection) -> Iterable[str]:
    """Days whose readings are not those that were stored, a sentence each."""
    for store in _STORES:
        kept = {
            (probe, day): (rows, total)
            for probe, day, rows, total in connection.execute(
                spelled(
                    connection,
                    "SELECT probe_id, day, readings, checksum FROM reading_day WHERE store = ?",
                ),
                (store.table,),
            )
        }
        found = _sums(connection, store, "1", ())
        differ = sorted(key for key in kept.keys() | found if kept.get(key) != found.get(key))
        for probe, day in differ[:20]:
            date = np.datetime64(day, "D") if abs(day) < 2**31 else day
            yield f"{store.table}s of probe {probe} on {date} are not those that were stored"
        if len(differ) > 20:
            yield f"and {len(differ) - 20} more days of {store.table}s"


def _sums(
    connection: sqlite3.Connection, store: Store, where: str, asked: tuple[int, ...]
) -> dict[tuple[int, int], tuple[int, int]]:
    columns = ", ".join(("probe_id", "at_s", "temperature_c", "humidity", *store.further))
    query = spelled(connection, f"SELECT {columns} FROM {store.table} WHERE {where}")
    cursor = connection.execute(query, asked)
    sums: dict[tuple[int, int], tuple[int, int]] = {}
    while rows := cursor.fetchmany(_CHUNK):
        probes, times, temperatures, humidities, *further = zip(*rows, strict=True)
        bits: list[Bits] = [
            checksums.whole_numbers(probes),
            checksums.whole_numbers(times),
            checksums.numbers(temperatures),
            checksums.numbers(humidities),
            *(_bits(name, values) for name, values in zip(store.further, further, strict=True)),
        ]
        each = checksums.of_rows(bits)
        keys = np.column_stack([np.asarray(probes), np.asarray(times) // _DAY_S])
        unique, place = np.unique(keys, axis=0, return_inverse=True)
        totals = np.zeros(len(unique), dtype=np.uint64)
        np.add.at(totals, place.reshape(-1), each)
        counts = np.bincount(place.reshape(-1))
        for (probe, day), count, part in zip(unique.tolist(), counts, totals, strict=True):
            rows_before, before = sums.get((probe, day), (0, 0))
            sums[probe, day] = (rows_before + int(count), checksums.signed(before + int(part)))
    return sums


def _bits(name: str, values: Sequence[Any]) -> Bits:
    if name == "reason":
        return checksums.whole_numbers([_REASONS.get(value, 0) for value in values])
    return checksums.numbers([None if v is None else float(v) for v in values])


def _keep_all(
    connection: sqlite3.Connection, store: Store, sums: dict[tuple[int, int], tuple[int, int]]
) -> None:
    for (probe, day), (rows, total) in sums.items():
        _keep(connection, (store.table, probe, day), rows, total)


def _keep(connection: sqlite3.Connection, key: tuple[str, int, int], rows: int, total: int) -> None:
    connection.execute(
        "INSERT INTO reading_day VALUES (?, ?, ?, ?, ?) ON CONFLICT DO UPDATE SET "
        "readings = excluded.readings, checksum = excluded.checksum",
        (*key, rows, checksums.signed(total)),
    )
