"""Seals of single rows: a short hash of what a row says, kept in its column `seal`.

Facts need none, as the chain of acts covers them; rows that change in place
carry one. Fact tables and sealed tables are told apart by their columns, so
that a file of any version can be looked at.
"""

import hashlib
import json
import sqlite3
from collections.abc import Iterator, Sequence
from typing import Any, Final

SEAL: Final = "seal"


def seal_of(table: str, names: Sequence[str], values: Sequence[Any]) -> int:
    """The seal of a row: the first 63 bits of the SHA-256 of its columns by name."""
    said = canonical([table, dict(zip(names, values, strict=True))])
    return int.from_bytes(hashlib.sha256(said).digest()[:8], "big") >> 1


def canonical(said: Any) -> bytes:
    """The same bytes for the same content, whatever order a table's columns have."""
    return json.dumps(said, sort_keys=True, separators=(",", ":")).encode()


def columns_of(connection: sqlite3.Connection) -> dict[str, tuple[str, ...]]:
    """The columns of every table of the house, by table in order of their names."""
    names = connection.execute(
        "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%' ORDER BY 1"
    ).fetchall()
    return {
        name: tuple(row[1] for row in connection.execute(f'PRAGMA table_info("{name}")'))
        for (name,) in names
    }


def sealed_tables(columns: dict[str, tuple[str, ...]]) -> dict[str, tuple[str, ...]]:
    """Tables whose rows carry a seal, with the columns that it covers."""
    return {
        table: tuple(name for name in names if name != SEAL)
        for table, names in columns.items()
        if SEAL in names
    }


def reseal(connection: sqlite3.Connection, table: str, where: str = "1", *asked: Any) -> None:
    """Seal the rows that meet a condition anew, as they are now.

    In the transaction that wrote them (RuntimeError outside one): nobody ever
    reads a row beside the seal of another.
    """
    if not connection.in_transaction:
        raise RuntimeError(f"{table} is sealed outside the transaction that wrote it")
    names = tuple(row[1] for row in connection.execute(f'PRAGMA table_info("{table}")'))
    covered = [name for name in names if name != SEAL]
    keys = [row[1] for row in connection.execute(f'PRAGMA table_info("{table}")') if row[5]]
    listed = ", ".join(f'"{name}"' for name in covered)
    found = connection.execute(f'SELECT {listed} FROM "{table}" WHERE {where}', asked).fetchall()
    same = " AND ".join(f'"{key}" = ?' for key in keys)
    connection.executemany(
        f'UPDATE "{table}" SET {SEAL} = ? WHERE {same}',
        [
            (seal_of(table, covered, row), *(row[covered.index(key)] for key in keys))
            for row in found
        ],
    )


def problems(connection: sqlite3.Connection) -> Iterator[str]:
    """Rows that are not what was written, a sentence each."""
    for table, covered in sealed_tables(columns_of(connection)).items():
        listed = ", ".join(f'"{name}"' for name in covered)
        for number, (*row, seal) in enumerate(
            connection.execute(f'SELECT {listed}, {SEAL} FROM "{table}"'), start=1
        ):
            if seal_of(table, covered, row) != seal:
                yield f"row {number} of {table} is not what was written"
