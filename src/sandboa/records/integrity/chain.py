"""The chain of acts: each carries a hash of the one before it and of all that it recorded.

Whoever changes a fact, drops an act or puts one in between breaks the chain
from there on; so does a bit that flips on the disk.
"""

import hashlib
import heapq
import sqlite3
from collections.abc import Iterable, Iterator, Sequence
from operator import itemgetter
from typing import Any, Final

from sandboa.records.integrity.seals import canonical, columns_of
from sandboa.records.integrity.spelling import spelled, unspelled

_SUPERSEDED: Final = "superseded_by"
#: Columns of every table of facts, as they are called in files of every version.
_FACT: Final = frozenset({"entity", "act", _SUPERSEDED})
#: What each act is about; files of earlier versions do not say it.
_SUBJECTS: Final = "act_subject"
#: Columns of an act that files of earlier versions do not have: a text and an integer, so that
#: neither is taken for the other where one is null.
_LATER: Final = ("message", "at_s")
#: What goes before the first act.
_BEGINNING: Final = ""

_Line = tuple[int, str, str, list[Any]]


def fact_tables(columns: dict[str, tuple[str, ...]]) -> dict[str, tuple[str, ...]]:
    """Tables of facts, with the columns that an act's hash covers.

    What supersedes a row is covered by the act that does.
    """
    return {
        table: _covered(names)
        for table, names in columns.items()
        if {unspelled(name) for name in names} >= _FACT
    }


def _covered(columns: Iterable[str]) -> tuple[str, ...]:
    return tuple(sorted(name for name in columns if unspelled(name) != _SUPERSEDED))


def seal_act(connection: sqlite3.Connection, act: int, touched: Sequence[str]) -> None:
    """Give an act its hash, at the end of the transaction that recorded it.

    `touched` are the tables of facts it changed, in order of their names.
    """
    before = connection.execute(
        "SELECT hash FROM act WHERE id < ? ORDER BY id DESC LIMIT 1", (act,)
    ).fetchone()
    tables = {table: _columns_of(connection, table) for table in touched}
    lines = [list(line[1:]) for line in _lines(connection, tables, "= ?", (act,), subjects=True)]
    row = _act_rows(connection, "WHERE id = ?", (act,)).fetchone()
    connection.execute(
        "UPDATE act SET hash = ? WHERE id = ?",
        (_hash(before[0] if before else _BEGINNING, row[:-1], lines), act),
    )


def seal_all(connection: sqlite3.Connection) -> None:
    """Build the chain anew over everything recorded: after a migration, or in a new house."""
    before = _BEGINNING
    made = []
    for row, lines in _acts(connection):
        before = _hash(before, row[:-1], lines)
        made.append((before, row[0]))
    connection.executemany("UPDATE act SET hash = ? WHERE id = ?", made)


def problems(connection: sqlite3.Connection) -> Iterator[str]:
    """Acts whose hash does not fit what lies in the file, a sentence each."""
    before = _BEGINNING
    for row, lines in _acts(connection):
        kept = row[-1]
        if _hash(before, row[:-1], lines) != kept:
            yield f"act {row[0]} ({str(row[2])[:60]}) is not what was recorded"
        before = kept


def _acts(connection: sqlite3.Connection) -> Iterator[tuple[tuple[Any, ...], list[Any]]]:
    """Every act in order with the lines it recorded; facts of acts that are gone go with the next.

    All tables are read side by side in order of their acts, none of them whole.
    """
    columns = columns_of(connection)
    lines = _lines(
        connection, fact_tables(columns), "IS NOT NULL", (), subjects=_SUBJECTS in columns
    )
    following = next(lines, None)
    for row in _act_rows(connection, "ORDER BY id", ()):
        own = []
        while following is not None and following[0] <= row[0]:
            own.append(list(following[1:]))
            following = next(lines, None)
        yield row, own


def _act_rows(connection: sqlite3.Connection, rest: str, asked: tuple[int, ...]) -> Any:
    known = {row[1] for row in connection.execute("PRAGMA table_info(act)")}
    later = ", ".join(name if name in known else "NULL" for name in _LATER)
    query = (
        "SELECT id, kind, summary, recorded_s, clutch_id, undoes_id, person_id, "
        f"{later}, hash FROM act {rest}"
    )
    return connection.execute(spelled(connection, query), asked)


def _columns_of(connection: sqlite3.Connection, table: str) -> tuple[str, ...]:
    names = [row[1] for row in connection.execute(f'PRAGMA table_info("{table}")')]
    return _covered(names)


def _lines(
    connection: sqlite3.Connection,
    tables: dict[str, tuple[str, ...]],
    which: str,
    asked: tuple[int, ...],
    *,
    subjects: bool,
) -> Iterator[_Line]:
    """(act, table, what, values) in order: rows an act recorded, rows it superseded, and what it
    is about."""
    streams: list[Iterator[_Line]] = []
    for table, names in tables.items():
        listed = ", ".join(f'"{name}"' for name in names)
        act = "act_id" if "act_id" in names else "act"
        gone = "superseded_by_id" if "act_id" in names else _SUPERSEDED
        recorded = connection.execute(
            f'SELECT {act}, {listed} FROM "{table}" WHERE {act} {which} ORDER BY {act}, id', asked
        )
        superseded = connection.execute(
            f'SELECT {gone}, id FROM "{table}" WHERE {gone} {which} ORDER BY {gone}, id', asked
        )
        streams.append(_told(recorded, table, "recorded"))
        streams.append(_told(superseded, table, "superseded"))
    if subjects:
        about = connection.execute(
            f"SELECT act_id, subject_id FROM {_SUBJECTS} WHERE act_id {which} "
            "ORDER BY act_id, subject_id",
            asked,
        )
        streams.append(_told(about, _SUBJECTS, "about"))
    return heapq.merge(*streams, key=itemgetter(0))


def _told(rows: Any, table: str, what: str) -> Iterator[_Line]:
    for act, *values in rows:
        yield act, table, what, values


def _hash(before: str, act: tuple[Any, ...], lines: list[Any]) -> str:
    digest = hashlib.sha256(before.encode())
    # Acts without a message or a time of their own keep the hash they had before there were any.
    first, later = act[: -len(_LATER)], act[-len(_LATER) :]
    digest.update(canonical([*first, *(value for value in later if value is not None)]))
    for line in lines:
        digest.update(canonical(line))
    return digest.hexdigest()
