"""Opening a house's database: settings, backup before migration, migrations."""

import sqlite3
from pathlib import Path
from typing import Final

from peewee import DatabaseError, DatabaseProxy, OperationalError, SqliteDatabase
from playhouse.migrations import Runner

#: Bound by `open_database`; every model of `records` uses it.
database: Final = DatabaseProxy()

_MIGRATIONS: Final = Path(__file__).parent / "migrations"
_PRAGMAS: Final = {
    "journal_mode": "wal",
    "foreign_keys": 1,
    "busy_timeout": 10_000,
    # WAL with FULL: an acknowledged reading survives a power cut, not only a crash.
    "synchronous": "full",
    "cache_size": -64_000,
}


#: What a write raises when the database stays locked or its disk is full; nothing was stored.
Unavailable = OperationalError


class CannotOpen(RuntimeError):
    """There is no house to be opened at that path; the text is a sentence."""


class DatabaseTooNew(CannotOpen):
    """The file was written by a newer Sandboa than this one."""


def open_database(path: Path) -> SqliteDatabase:
    """Open (or make) the database at `path`, bring it up to date and bind the models to it.

    An existing database with migrations to run is first copied beside itself
    as NAME.before-MIGRATION. Raises DatabaseTooNew when the file knows
    migrations that this version does not, CannotOpen when it is no database
    or its folder cannot be had.
    """
    opened = SqliteDatabase(str(path), pragmas=_PRAGMAS)
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        _bring_up_to_date(opened, path)
    except (DatabaseError, OSError) as error:
        opened.close()
        raise CannotOpen(f"cannot open {path}: {error}") from error
    database.initialize(opened)
    return opened


def _bring_up_to_date(opened: SqliteDatabase, path: Path) -> None:
    runner = Runner(opened, str(_MIGRATIONS))
    known = {m.name for m in runner.migrations()}
    applied = set(runner.applied())
    if applied - known:
        newest = max(applied - known)
        opened.close()
        raise DatabaseTooNew(f"{path.name} was written by a newer Sandboa (it has {newest})")
    pending = sorted(known - applied)
    if applied and pending:
        back_up(path, path.with_name(f"{path.name}.before-{pending[0]}"))
    runner.up()


def back_up(source: Path, target: Path) -> None:
    """Copy a database consistently, also while it is in use; refuses to overwrite `target`."""
    if target.exists():
        raise FileExistsError(f"{target} exists already")
    partial = target.with_name(target.name + ".part")
    with sqlite3.connect(source) as original, sqlite3.connect(partial) as copy:
        original.backup(copy)
    original.close()
    copy.close()
    partial.rename(target)
