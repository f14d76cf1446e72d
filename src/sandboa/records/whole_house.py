"""A whole house, table by table: read out as it is, or put into an empty one."""

import re
import sqlite3
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, Final

from peewee import SqliteDatabase
from playhouse.migrations import Runner

from sandboa.records import readings
from sandboa.records.database import database
from sandboa.records.integrity.check import MIGRATIONS
from sandboa.records.integrity.proof import prove_all
from sandboa.records.integrity.seals import SEAL

#: What follows from the other tables, and is made anew.
_DERIVED: Final = frozenset({"reading_hour", "reading_day", "lesson"})
#: Columns that prove the others, and are made anew as well.
_PROOF: Final = frozenset({("act", "hash")})
#: What belongs to this file and not to the house: what lets people in stays at home.
_OWN: Final = frozenset(
    {
        "schema_migration", "passphrase", "session", "private_link", "messenger_secret",
        "ended_token", "security_event", "machine_setting", "backup_tried",
    }
)  # fmt: skip

Row = tuple[Any, ...]


class NotLoadable(ValueError):
    """The rows cannot stand in a house; the text says why, nothing was stored."""


@dataclass(frozen=True, slots=True)
class Limits:
    """What the table's own checks allow of a column: certain values, a range, a length."""

    values: tuple[str, ...] = ()
    between: tuple[float, float] | None = None
    letters: tuple[int, int] | None = None


@dataclass(frozen=True, slots=True)
class Column:
    """A column: its SQLite type (INTEGER, REAL, TEXT), whether it can be without a value, and what
    the table allows of it."""

    name: str
    kind: str
    nullable: bool
    limits: Limits = field(default_factory=Limits)


@dataclass(frozen=True, slots=True)
class Table:
    """A table of the house; `refers` are (column, table) it points at."""

    name: str
    columns: tuple[Column, ...]
    key: tuple[str, ...]
    refers: tuple[tuple[str, str], ...]


def tables() -> list[Table]:
    """Every table of the open house whose rows are worth keeping, by name."""
    return _tables(database.connection())


def _tables(connection: sqlite3.Connection) -> list[Table]:
    names = [
        row[0]
        for row in connection.execute(
            "SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name"
        )
    ]
    kept = [n for n in names if n not in _DERIVED | _OWN and not n.startswith("sqlite_")]
    return [_described(connection, name) for name in kept]


class OlderHouse:
    """A house aside as it was after some migrations: rows are put into it, and then it is
    brought up to date as a file of that version would be.

    Everything a package of an earlier release holds goes this way, so that no
    table has to be read in two forms.
    """

    def __init__(self, names: Sequence[str]) -> None:
        # An empty name is a file that SQLite takes away: a house may be larger than memory.
        self._database = SqliteDatabase("file:", uri=True)
        self._runner = Runner(self._database, str(MIGRATIONS))
        self._runner.up(max(names))

    @property
    def _connection(self) -> sqlite3.Connection:
        connection: sqlite3.Connection = self._database.connection()  # type: ignore[no-untyped-call]
        return connection

    def tables(self) -> list[Table]:
        """Its tables whose rows are worth keeping, by name."""
        return _tables(self._connection)

    def load(self, given: Mapping[str, tuple[tuple[str, ...], Iterable[Row]]]) -> dict[str, int]:
        """Put rows into it by table and columns; returns counts. NotLoadable as `load`."""
        with self._database.atomic():
            return _insert(self._connection, given)

    def brought_up_to_date(self) -> dict[str, tuple[tuple[str, ...], Iterable[Row]]]:
        """Its rows as a house of today has them, as `load` takes them.

        NotLoadable when what was put into it cannot be brought there.
        """
        try:
            self._runner.up()
        except Exception as error:
            # Rows that contradict each other fail in whatever a migration makes of them.
            raise NotLoadable(f"it cannot be brought up to date: {error}") from error
        return {
            table.name: (
                tuple(column.name for column in table.columns),
                _rows_of(self._connection, table),
            )
            for table in self.tables()
        }

    def close(self) -> None:
        self._database.close()


def migrations() -> list[str]:
    """Names of the migrations the open house has seen, in order."""
    rows = database.execute_sql("SELECT name FROM schema_migration ORDER BY name").fetchall()
    return [row[0] for row in rows]


def rows_of(table: Table) -> Iterator[Row]:
    """Its rows in order of its key, columns as in `table.columns`."""
    return _rows_of(database.connection(), table)


def _rows_of(connection: sqlite3.Connection, table: Table) -> Iterator[Row]:
    columns = ", ".join(f'"{c.name}"' for c in table.columns)
    order = ", ".join(f'"{name}"' for name in table.key)
    yield from connection.execute(f'SELECT {columns} FROM "{table.name}" ORDER BY {order}')


def is_of_facts(table: Table) -> bool:
    """Whether rows of the table are corrected by later ones, and those that hold can be told."""
    return {"entity_id", "act_id", "superseded_by_id"} <= {column.name for column in table.columns}


def current_rows_of(table: Table, columns: Sequence[Column]) -> Iterator[Row]:
    """Those columns of the rows of a table of facts that hold, in order of what they are about."""
    listed = ", ".join(f'"{column.name}"' for column in columns)
    yield from database.connection().execute(
        f'SELECT {listed} FROM "{table.name}" WHERE superseded_by_id IS NULL ORDER BY entity_id'
    )


def picture_names() -> list[str]:
    """Every picture any photo of the record speaks of, undone ones too."""
    rows = database.execute_sql("SELECT DISTINCT file FROM photo ORDER BY file").fetchall()
    return [row[0] for row in rows]


def is_empty() -> bool:
    """Whether nothing was ever recorded in the open house."""
    return database.execute_sql("SELECT 1 FROM act LIMIT 1").fetchone() is None


def load(given: Mapping[str, tuple[tuple[str, ...], Iterable[Row]]]) -> dict[str, int]:
    """Put rows into the open, empty house, inside the caller's transaction; returns counts.

    `given` is, by table, the columns and the rows. Raises NotLoadable for a row
    that contradicts what must hold, or one that points at nothing.
    """
    connection = database.connection()
    connection.execute("PRAGMA defer_foreign_keys = ON")
    counts = _insert(connection, given)
    loose = connection.execute("PRAGMA foreign_key_check").fetchone()
    if loose is not None:
        raise NotLoadable(f"{loose[0]}: a row points at a {loose[2]} that is not there")
    readings.roll_up_everything()
    prove_all(connection)
    return counts


def _insert(
    connection: sqlite3.Connection,
    given: Mapping[str, tuple[tuple[str, ...], Iterable[Row]]],
) -> dict[str, int]:
    counts = {}
    for name, (columns, rows) in given.items():
        listed = ", ".join(f'"{column}"' for column in columns)
        marks = ", ".join("?" * len(columns))
        try:
            cursor = connection.executemany(
                f'INSERT INTO "{name}" ({listed}) VALUES ({marks})', rows
            )
        except sqlite3.Error as error:
            raise NotLoadable(f"{name}: {error}") from error
        counts[name] = max(cursor.rowcount, 0)
    return counts


def _described(connection: sqlite3.Connection, name: str) -> Table:
    info = connection.execute(f'PRAGMA table_info("{name}")').fetchall()
    foreign = connection.execute(f'PRAGMA foreign_key_list("{name}")').fetchall()
    keyed = sorted((row for row in info if row[5]), key=lambda row: row[5])
    (sql,) = connection.execute(
        "SELECT sql FROM sqlite_master WHERE type = 'table' AND name = ?", (name,)
    ).fetchone()
    return Table(
        name,
        tuple(
            Column(row[1], row[2].upper(), not row[3] and not row[5], _limits(sql, row[1]))
            for row in info
            if row[1] != SEAL and (name, row[1]) not in _PROOF
        ),
        tuple(row[1] for row in keyed),
        tuple(sorted((row[3], row[2]) for row in foreign)),
    )


_NUMBER: Final = r"(-?\d+(?:\.\d+)?)"


def _limits(sql: str, column: str) -> Limits:
    """What the checks in a table's definition allow of a column."""
    named = re.escape(column)
    values = re.search(rf"CHECK \({named} IN \(([^)]*)\)\)", sql)
    between = re.search(rf"CHECK \({named} BETWEEN {_NUMBER} AND {_NUMBER}\)", sql)
    letters = re.search(rf"length\({named}\) BETWEEN (\d+) AND (\d+)", sql)
    most = re.search(rf"length\({named}\) <= (\d+)", sql)
    return Limits(
        tuple(part.strip().strip("'") for part in values[1].split(",")) if values else (),
        (float(between[1]), float(between[2])) if between else None,
        (int(letters[1]), int(letters[2])) if letters else (0, int(most[1])) if most else None,
    )
