"""One bit of one value changed behind the application's back."""

import sqlite3
import struct
from contextlib import closing
from pathlib import Path
from typing import Any, Final

#: What is no record: counters that tell caches of a change, and when a machine last heard.
NOT_KEPT: Final = {
    *(("reading_tip", name) for name in ("revision", "rewrites", "received_s")),
    *(("schema_migration", name) for name in ("id", "applied")),
}
#: What its checksums are checked against, or SQLite's own books.
OTHERS: Final = frozenset({"sqlite_stat1", "sqlite_sequence"})


def columns(path: Path) -> list[tuple[str, str]]:
    """Every column of every table that has a value in it."""
    with closing(sqlite3.connect(path)) as house:
        tables = [r[0] for r in house.execute("SELECT name FROM sqlite_master WHERE type='table'")]
        return [
            (table, name)
            for table in tables
            if table not in OTHERS
            for _, name, *_ in house.execute(f'PRAGMA table_info("{table}")')
            if (table, name) not in NOT_KEPT
            and house.execute(
                f'SELECT 1 FROM "{table}" WHERE "{name}" IS NOT NULL AND "{name}" <> ""'
            ).fetchone()
        ]


def flip(path: Path, table: str, name: str, bit: int, share: float = 0.5) -> Any:
    """Flip a bit of a column in the row that stands at that share (0-1) of those with a value.

    Its indexes too: nothing but its content tells. Returns the value as it was.
    """
    with closing(sqlite3.connect(path)) as house, house:
        house.execute("PRAGMA ignore_check_constraints = 1")
        given = f'"{name}" IS NOT NULL AND "{name}" <> ""'
        row = house.execute(
            f'SELECT * FROM "{table}" WHERE {given} LIMIT 1 '
            f'OFFSET (SELECT cast((count(*) - 1) * ? AS int) FROM "{table}" WHERE {given})',
            (share,),
        )
        names = [told[0] for told in row.description]
        values = row.fetchone()
        value = values[names.index(name)]
        same = " AND ".join(f'"{column}" IS ?' for column in names)
        house.execute(
            f'UPDATE OR REPLACE "{table}" SET "{name}" = ? WHERE {same}',
            (flipped(value, bit), *values),
        )
    return value


def flipped(value: Any, bit: int) -> Any:
    """The value with one bit changed, still of its kind.

    Of a float no bit that changes it by less than a thousand millionth: so
    much do roll-ups differ from one version of SQLite to another.
    """
    if isinstance(value, int):
        return value ^ (1 << bit % 20)
    if isinstance(value, float):
        (bits,) = struct.unpack("<q", struct.pack("<d", value))
        return struct.unpack("<d", struct.pack("<q", bits ^ (1 << 22 + bit % 28)))[0]
    at = bit % len(value)
    return value[:at] + chr(ord(value[at]) ^ (1 << bit % 5)) + value[at + 1 :]
