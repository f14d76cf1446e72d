"""A house's database from opening to closing: settings, copy before migration, checkpoint."""

import filecmp
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager, suppress
from pathlib import Path
from typing import Final
from weakref import WeakSet

from filelock import FileLock, Timeout
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


class HouseInUse(CannotOpen):
    """Another Sandboa serves this house already."""


class _Connection(sqlite3.Connection):
    """A connection that can be remembered without being kept alive."""


class _HouseDatabase(SqliteDatabase):
    """Remembers the connections of all threads, so that closing the house closes every one."""

    def __init__(self, path: Path) -> None:
        # Connections are closed by the thread that closes the house, not by the one that made it.
        super().__init__(str(path), pragmas=_PRAGMAS, factory=_Connection, check_same_thread=False)
        self.path = path
        self._everywhere: WeakSet[_Connection] = WeakSet()

    def _connect(self) -> _Connection:
        made: _Connection = super()._connect()  # type: ignore[misc]
        self._everywhere.add(made)
        return made

    def close_everywhere(self) -> None:
        """Close every thread's connection. The last one empties the WAL into the file."""
        self.close()
        for connection in list(self._everywhere):
            connection.close()
        self._everywhere.clear()


def open_database(path: Path) -> SqliteDatabase:
    """Open (or make) the database at `path`, bring it up to date and bind the models to it.

    An existing database with migrations to run is first copied beside itself
    as NAME.before-MIGRATION. Raises DatabaseTooNew when the file knows
    migrations that this version does not, CannotOpen when it is no database
    or its folder cannot be had.
    """
    opened = _HouseDatabase(path)
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        _bring_up_to_date(opened, path)
    except (DatabaseError, OSError) as error:
        opened.close_everywhere()
        raise CannotOpen(f"cannot open {path}: {error}") from error
    database.initialize(opened)
    return opened


def house_file() -> Path:
    """The file of the open house, absolute."""
    path: Path = database.obj.path
    return path.resolve()


def close_database() -> None:
    """Close the open house, if one is: afterwards its one file holds everything.

    Whoever copies that file has the whole house, and a copy put in its place
    meets no write-ahead log of another one.
    """
    opened = database.obj
    if not isinstance(opened, _HouseDatabase):
        return
    with suppress(DatabaseError):
        opened.execute_sql("PRAGMA wal_checkpoint(TRUNCATE)")  # type: ignore[no-untyped-call]
    opened.close_everywhere()


@contextmanager
def only_server(path: Path) -> Iterator[None]:
    """Hold the house at `path` for one server; HouseInUse when another has it.

    The lock is the operating system's and ends with its process, however that ends.
    """
    path.parent.mkdir(parents=True, exist_ok=True)
    lock = FileLock(path.with_name(f"{path.name}.lock"))
    try:
        lock.acquire(timeout=0)
    except Timeout as error:
        raise HouseInUse(
            f"another Sandboa serves the house in {path.parent} already: stop that one first, "
            "or name another folder with --data"
        ) from error
    except OSError as error:
        raise CannotOpen(f"cannot use {path.parent}: {error.strerror or error}") from error
    try:
        yield
    finally:
        lock.release()


@contextmanager
def nothing_half_made(path: Path) -> Iterator[Callable[[], None]]:
    """When the making of a house at `path` fails, leave the folder as it was before.

    Yields what is to be called once the house is whole: from then on nothing
    is removed, whatever goes wrong. A house, copies and folders that were
    there before are never touched, nor is what another server made meanwhile.
    """
    before = {f for f in (path.parent, *path.parent.parents) if f.exists()}
    before |= set(path.parent.glob("*"))
    whole = path.exists()

    def keep() -> None:
        nonlocal whole
        whole = True

    try:
        yield keep
    except HouseInUse:
        raise
    except BaseException:
        if not whole:
            close_database()
            for file in set(path.parent.glob(f"{path.name}*")) - before:
                file.unlink(missing_ok=True)
            for folder in (path.parent, *path.parent.parents):
                if folder not in before:
                    # Something else may have been put there meanwhile.
                    with suppress(OSError):
                        folder.rmdir()
        raise


def _bring_up_to_date(opened: _HouseDatabase, path: Path) -> None:
    runner = Runner(opened, str(_MIGRATIONS))
    known = {m.name for m in runner.migrations()}
    applied = set(runner.applied())
    if applied - known:
        newest = max(applied - known)
        opened.close_everywhere()
        raise DatabaseTooNew(f"{path.name} was written by a newer Sandboa (it has {newest})")
    pending = sorted(known - applied)
    if applied and pending:
        _copy_before(path, pending[0])
    runner.up()


def _copy_before(path: Path, migration: str) -> None:
    """Copy the house beside itself before it is migrated.

    A start that was killed after its copy finds that copy again and keeps it;
    where the house was changed since (an older version ran on it), the copy
    is one more, numbered.
    """
    first = path.with_name(f"{path.name}.before-{migration}")
    partial = first.with_name(f"{first.name}.part")
    partial.unlink(missing_ok=True)
    number, target = 1, first
    _copy(path, partial)
    while target.exists():
        if _same_content(target, partial):
            partial.unlink()
            return
        number += 1
        target = first.with_name(f"{first.name}-{number}")
    partial.rename(target)


def back_up(source: Path, target: Path) -> None:
    """Copy a database consistently, also while it is in use.

    Raises FileExistsError when `target` exists, OSError with a sentence where
    it cannot be written.
    """
    if target.exists():
        raise FileExistsError(f"{target} exists already")
    if not target.parent.is_dir():
        raise FileNotFoundError(f"there is no folder {target.parent}")
    partial = target.with_name(target.name + ".part")
    partial.unlink(missing_ok=True)
    try:
        _copy(source, partial)
    except sqlite3.Error as error:
        partial.unlink(missing_ok=True)
        raise OSError(f"{target} cannot be written: {error}") from error
    partial.rename(target)


def _copy(source: Path, target: Path) -> None:
    with closing(sqlite3.connect(source)) as original, closing(sqlite3.connect(target)) as copy:
        original.backup(copy)


def _same_content(one: Path, other: Path) -> bool:
    return filecmp.cmp(one, other, shallow=False)
