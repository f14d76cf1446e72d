"""What lets people and devices in, carried from the house before into the one restored.

A copy is as old as it is: put in place as it lies, it would let in whoever
was shut out since, by an old passphrase, session, link or token.
"""

import sqlite3
from collections.abc import Callable
from contextlib import closing
from pathlib import Path
from typing import Final

from sandboa.records.connections import read_only
from sandboa.records.integrity import seals

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
        people = {
            row[0] for row in copy.execute("SELECT entity FROM person WHERE superseded_by IS NULL")
        }
        if _lets_in_a_keeper(present, copy):
            known = ", ".join(str(int(person)) for person in people)
            for table in _OF_PEOPLE:
                _replace(table, present, copy, columns, f"person IN ({known})")
        else:
            _sign_out_all(copy, columns)
        if "messenger_secret" in columns and "messenger_secret" in held:
            messengers = [
                row[0]
                for row in copy.execute("SELECT entity FROM messenger WHERE superseded_by IS NULL")
            ]
            known = ", ".join(str(int(messenger)) for messenger in messengers)
            _replace("messenger_secret", present, copy, columns, f"messenger IN ({known})")


def _lets_in_a_keeper(present: sqlite3.Connection, copy: sqlite3.Connection) -> bool:
    admitted = {row[0] for row in present.execute("SELECT person FROM passphrase")}
    keepers = copy.execute(
        "SELECT entity FROM person WHERE superseded_by IS NULL AND role = 'keeper'"
    )
    return any(row[0] in admitted for row in keepers)


def _replace(
    table: str,
    present: sqlite3.Connection,
    copy: sqlite3.Connection,
    columns: dict[str, tuple[str, ...]],
    which: str,
) -> None:
    """Put the present house's rows in the place of the copy's."""
    theirs = seals.columns_of(present)[table]
    shared = [name for name in columns[table] if name in theirs]
    listed = ", ".join(f'"{name}"' for name in shared)
    marks = ", ".join("?" * len(shared))
    copy.execute(f'DELETE FROM "{table}"')
    copy.executemany(
        f'INSERT INTO "{table}" ({listed}) VALUES ({marks})',
        present.execute(f'SELECT {listed} FROM "{table}" WHERE {which}'),
    )


def _sign_out_all(copy: sqlite3.Connection, columns: dict[str, tuple[str, ...]]) -> None:
    for table in ("session", "private_link"):
        if table in columns:
            copy.execute(f"DELETE FROM {table}")
