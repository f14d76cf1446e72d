"""What lets people and devices in, carried from the house before into the one restored.

A copy is as old as it is: put in place as it lies, it would let in whoever
was shut out since, by an old passphrase, session, link or token.
"""

import sqlite3
from collections.abc import Callable, Iterable
from contextlib import closing
from pathlib import Path
from typing import Final

from sandboa.records.connections import read_only
from sandboa.records.integrity import seals
from sandboa.records.integrity.spelling import spelled, unspelled

#: Tables of keys, with the column that names whom a row lets in.
_OF_PEOPLE: Final = ("passphrase", "session", "private_link")
#: Tables that go on whatever is restored: what was ended stays ended, what was noted stays noted.
_GOES_ON: Final = ("ended_token", "security_event", "machine_setting", "backup_tried")


def carried_over(house: Path) -> Callable[[Path], None]:
    """What `restore` is to change in the staged copy, by what the present house at `house` holds.

    Where the present house cannot be read, or lets in no keeper that the copy
    knows, the copy's own passphrases hold, and nobody is signed in.
    """

    def adapt(staged: Path) -> None:
        with closing(sqlite3.connect(staged)) as copy, copy:
            columns = seals.columns_of(copy)
            try:
                _carry(house, copy, columns)
            except (sqlite3.Error, FileNotFoundError):
                copy.rollback()
                _sign_out_all(copy, columns)
            if "hash" in columns["act"]:
                for table in seals.sealed_tables(columns):
                    seals.reseal(copy, table)

    return adapt


def _carry(house: Path, copy: sqlite3.Connection, columns: dict[str, tuple[str, ...]]) -> None:
    if not house.is_file():
        raise FileNotFoundError(house)
    with closing(read_only(house)) as present:
        held = seals.columns_of(present)
        for table in _GOES_ON:
            if table in columns and table in held:
                _replace(table, present, copy, columns, "1")
        if "passphrase" not in columns:
            return
        people = _current(copy, "person")
        if _lets_in_a_keeper(present, copy):
            for table in _OF_PEOPLE:
                _replace(table, present, copy, columns, f"person_id IN ({_listed(people)})")
        else:
            _sign_out_all(copy, columns)
        if "messenger_secret" in columns and "messenger_secret" in held:
            whose = f"messenger_id IN ({_listed(_current(copy, 'messenger'))})"
            _replace("messenger_secret", present, copy, columns, whose)


def _lets_in_a_keeper(present: sqlite3.Connection, copy: sqlite3.Connection) -> bool:
    admitted = {row[0] for row in _rows(present, "SELECT person_id FROM passphrase")}
    return not admitted.isdisjoint(_current(copy, "person", "AND role = 'keeper'"))


def _current(house: sqlite3.Connection, table: str, further: str = "") -> set[int]:
    """Entities of a table of facts that hold now."""
    query = f"SELECT entity_id FROM {table} WHERE superseded_by_id IS NULL {further}"
    return {row[0] for row in _rows(house, query)}


def _rows(house: sqlite3.Connection, query: str) -> sqlite3.Cursor:
    return house.execute(spelled(house, query))


def _listed(numbers: set[int]) -> str:
    return ", ".join(str(int(number)) for number in sorted(numbers))


def _replace(
    table: str,
    present: sqlite3.Connection,
    copy: sqlite3.Connection,
    columns: dict[str, tuple[str, ...]],
    which: str,
) -> None:
    """Put the present house's rows in the place of the copy's, which may be of another version."""
    theirs = {unspelled(name): name for name in seals.columns_of(present)[table]}
    shared = {name: theirs[unspelled(name)] for name in columns[table] if unspelled(name) in theirs}
    marks = ", ".join("?" * len(shared))
    copy.execute(f'DELETE FROM "{table}"')
    copy.executemany(
        f'INSERT INTO "{table}" ({_quoted(shared)}) VALUES ({marks})',
        _rows(present, f'SELECT {_quoted(shared.values())} FROM "{table}" WHERE {which}'),
    )


def _quoted(columns: Iterable[str]) -> str:
    return ", ".join(f'"{name}"' for name in columns)


def _sign_out_all(copy: sqlite3.Connection, columns: dict[str, tuple[str, ...]]) -> None:
    for table in ("session", "private_link"):
        if table in columns:
            copy.execute(f"DELETE FROM {table}")
