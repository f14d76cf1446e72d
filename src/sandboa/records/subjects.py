"""What an act is about: found in the rows it recorded, and written down beside it as it closes.

The log of an animal, cabinet, box, egg, clutch or probe is then one look into an index.
"""

import sqlite3
from collections.abc import Iterable
from typing import Final

#: Kinds of things that have a log.
KINDS: Final = (
    "animal", "box", "cabinet", "clutch", "egg", "hatchling", "pairing", "probe",
)  # fmt: skip
#: Notes are about a visit too, which has no log of its own: they stand in that of its box.
_BOX_OF_VISIT: Final = "SELECT DISTINCT box_id FROM visit WHERE entity_id IN ({marks})"
#: What else an act about one thing is about: a column, in the table whose other column names it.
#: In this order: an egg's clutch is found once the egg of a hatchling is.
_ALSO: Final = (
    ("egg_id", "hatchling", "entity_id"),
    ("dam_id", "pairing", "entity_id"),
    ("sire_id", "pairing", "entity_id"),
    ("clutch_id", "egg", "entity_id"),
)
#: The box in which an egg lies as things stand, and the clutches whose eggs lie in a box.
_BOX_OF_EGG: Final = """
SELECT box_id FROM (
    SELECT egg_id, box_id, max(from_s) FROM egg_stay
    WHERE superseded_by_id IS NULL AND egg_id IN ({marks}) GROUP BY egg_id
)
"""
_CLUTCHES_IN_BOX: Final = """
SELECT DISTINCT clutch_id FROM (
    SELECT egg_id, box_id, max(from_s) FROM egg_stay WHERE superseded_by_id IS NULL
    AND egg_id IN (SELECT egg_id FROM egg_stay WHERE box_id IN ({marks})) GROUP BY egg_id
) AS lies JOIN egg ON egg.entity_id = lies.egg_id AND egg.superseded_by_id IS NULL
WHERE box_id IN ({marks})
"""


def write(connection: sqlite3.Connection, act: int, tables: Iterable[str]) -> None:
    """Note what an act is about; `tables` are those of facts that it changed."""
    ids: set[int] = set()
    for table in tables:
        ids |= _pointed_at(connection, table, act)
    ids |= {row[0] for row in _asked(connection, "SELECT clutch_id FROM act WHERE id = ?", (act,))}
    ids |= _among(connection, _BOX_OF_VISIT, ids - {None})
    found = _with_logs(connection, ids - {None})
    for column, table, by in _ALSO:
        query = f"SELECT DISTINCT {column} FROM {table} WHERE {by} IN ({{marks}})"
        found |= _with_logs(connection, _among(connection, query, found))
    found |= _among(connection, _BOX_OF_EGG, found)
    found |= _among(connection, _CLUTCHES_IN_BOX, found, times=2)
    connection.executemany(
        "INSERT OR IGNORE INTO act_subject (act_id, subject_id) VALUES (?, ?)",
        [(act, subject) for subject in sorted(found)],
    )


def _pointed_at(connection: sqlite3.Connection, table: str, act: int) -> set[int]:
    """Ids in the rows of a table that the act recorded, and in those it superseded."""
    columns = [
        row[1]
        for row in connection.execute(f'PRAGMA table_info("{table}")')
        if row[1].endswith("_id") and row[1] not in ("act_id", "superseded_by_id")
    ]
    listed = ", ".join(f'"{column}"' for column in columns)
    query = f'SELECT {listed} FROM "{table}" WHERE act_id = ? OR superseded_by_id = ?'
    return {value for row in connection.execute(query, (act, act)) for value in row}


def _with_logs(connection: sqlite3.Connection, ids: set[int]) -> set[int]:
    """Those of the ids that are of things with a log."""
    kinds = ", ".join("?" * len(KINDS))
    query = f"SELECT id FROM entity WHERE kind IN ({kinds}) AND id IN ({{marks}})"
    return _among(connection, query, ids, KINDS)


def _among(
    connection: sqlite3.Connection,
    query: str,
    ids: set[int],
    first: tuple[str, ...] = (),
    times: int = 1,
) -> set[int]:
    """The first column of a query over some ids, in portions that SQLite takes."""
    told: set[int] = set()
    ordered = sorted(ids)
    for start in range(0, len(ordered), 500):
        part = ordered[start : start + 500]
        marks = ", ".join("?" * len(part))
        asked = (*first, *(part * times))
        told |= {row[0] for row in _asked(connection, query.format(marks=marks), asked)}
    return told - {None}


def _asked(
    connection: sqlite3.Connection, query: str, values: tuple[object, ...]
) -> Iterable[tuple[int]]:
    return connection.execute(query, values)
