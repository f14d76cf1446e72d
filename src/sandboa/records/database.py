"""The life of a house's database: opened, checked, kept for one server, emptied of its log, closed.

Nothing else opens the house's file for writing, and nothing else decides
whether it may be written to.
"""

import os
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager, closing, contextmanager, suppress
from pathlib import Path
from typing import Final

from filelock import FileLock, Timeout
from peewee import DatabaseError, DatabaseProxy, IntegrityError, OperationalError
from playhouse.migrations import Runner

from sandboa.records.connections import (
    HouseDatabase,
    ReadOnlyHouse,
    means_damage,
    means_disk_fault,
    read_only,
)
from sandboa.records.copies.copying import copy_before
from sandboa.records.copies.restoring import carry_on, is_under_way
from sandboa.records.integrity.check import MIGRATIONS
from sandboa.records.integrity.proof import prove_all
from sandboa.records.private_files import make_private

__all__ = ["IntegrityError", "ReadOnlyHouse", "means_damage", "means_disk_fault"]

#: Bound by `open_database`; every model of `records` uses it.
database: Final = DatabaseProxy()

_MIGRATIONS: Final = MIGRATIONS

#: What a write raises when the database stays locked or its disk is full; nothing was stored.
Unavailable = OperationalError
#: What any statement raises that meets damage, besides what is merely wrong about it.
DatabaseFault = DatabaseError


def transaction() -> AbstractContextManager[object]:
    """One transaction that writes: what is recorded inside holds together or not at all.

    Inside another one it is part of that; an error takes back what it did itself.
    """
    made: AbstractContextManager[object] = database.atomic("IMMEDIATE")
    return made


def one_moment() -> AbstractContextManager[object]:
    """A transaction that reads: everything inside is as the house was when it began."""
    made: AbstractContextManager[object] = database.atomic()
    return made


def prove_open_house() -> None:
    """Build everything that proves the record anew over the open house as it is.

    Inside the caller's transaction.
    """
    prove_all(database.connection())


class CannotOpen(RuntimeError):
    """There is no house to be opened at that path; the text is a sentence."""


class DatabaseTooNew(CannotOpen):
    """The file was written by a newer Sandboa than this one."""


class HouseInUse(CannotOpen):
    """Another Sandboa serves this house already."""


def open_database(path: Path) -> HouseDatabase:
    """Open (or make) the database at `path`, bring it up to date and bind the models to it.

    An existing one is checked first; damaged, it is opened for reading only
    and `damage` says why. One with migrations to run is copied beside itself
    as NAME.before-MIGRATION. Raises DatabaseTooNew when the file knows
    migrations that this version does not, CannotOpen when it is no database,
    too damaged to be read, or its folder cannot be written to.
    """
    if is_under_way(path):
        # A restore was begun and stopped: it is ended, or thrown away, before anything is read.
        with only_server(path):
            carry_on(path)
    _require_not_lost(path)
    damage = damage_at(path) if path.exists() else ()
    opened = HouseDatabase(path, damage)
    try:
        if damage:
            _require_readable(opened, path)
        else:
            path.parent.mkdir(parents=True, exist_ok=True)
            _require_writable(path)
            _bring_up_to_date(opened, path)
            make_private(path)
    except (DatabaseError, OSError) as error:
        opened.close_everywhere()
        raise CannotOpen(f"cannot open {path}: {error}") from error
    except BaseException:
        opened.close_everywhere()
        raise
    database.initialize(opened)
    return opened


def damage_at(path: Path) -> tuple[str, ...]:
    """What SQLite finds damaged in the file at `path`, a sentence each; nothing when it is sound.

    Quick: it reads every page once and compares no index with its table.
    """
    try:
        with closing(read_only(path)) as connection:
            said = [row[0] for row in connection.execute("PRAGMA quick_check(20)")]
    except sqlite3.Error as error:
        if not means_damage(error) and not means_disk_fault(error):
            raise CannotOpen(f"cannot open {path}: {error}") from error
        said = [str(error)]
    return tuple(_sentences(said))


def damage() -> tuple[str, ...]:
    """Why the open house is only read from; nothing when it is sound."""
    opened = database.obj
    return opened.damage if isinstance(opened, HouseDatabase) else ()


def check_quickly() -> tuple[str, ...]:
    """Look through the open house's file; found damaged, nothing is written to it from now on.

    A disk that could not be read for a while and can be read again is written to again.
    """
    opened = database.obj
    found = damage_at(opened.path)
    if found != opened.damage:
        opened.write_unless(found)
    return found


def house_file() -> Path:
    """The file of the open house, absolute."""
    path: Path = database.obj.path
    return path.resolve()


def close_database() -> None:
    """Close the open house, if one is: afterwards its one file holds everything.

    Whoever copies that file has the whole house, and a copy put in its place
    meets no write-ahead log of another one. A damaged house is left as it is.
    """
    opened = database.obj
    # Asked once more of a closed house, its file would be opened again, or made.
    if not isinstance(opened, HouseDatabase) or not opened.open_anywhere:
        return
    if not opened.damage:
        with suppress(DatabaseError):
            opened.execute_sql("PRAGMA wal_checkpoint(TRUNCATE)")  # type: ignore[no-untyped-call]
    opened.close_everywhere()


#: Locks of this process, by house: one that is held is counted, not fought for.
_locks: dict[Path, FileLock] = {}


@contextmanager
def only_server(path: Path) -> Iterator[None]:
    """Hold the house at `path` for one server; HouseInUse when another has it.

    The lock is the operating system's and ends with its process, however that ends.
    Whoever holds it may ask for it again.
    """
    path.parent.mkdir(parents=True, exist_ok=True)
    lock = _locks.setdefault(
        path.resolve(), FileLock(path.with_name(f"{path.name}.lock"), thread_local=False)
    )
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


def _bring_up_to_date(opened: HouseDatabase, path: Path) -> None:
    runner = Runner(opened, str(_MIGRATIONS))
    known = {m.name for m in runner.migrations()}
    applied = set(runner.applied())
    if applied - known:
        newest = max(applied - known)
        opened.close_everywhere()
        raise DatabaseTooNew(f"{path.name} was written by a newer Sandboa (it has {newest})")
    pending = sorted(known - applied)
    if applied and pending:
        copy_before(path, pending[0])
    runner.up()
    if opened.pragma("user_version") != len(known):
        # Also where the migrations were done and this was killed.
        with opened.atomic("IMMEDIATE"):
            prove_all(opened.connection())  # type: ignore[no-untyped-call]
            opened.pragma("user_version", len(known))


def _require_not_lost(path: Path) -> None:
    """CannotOpen where a house was and its file is gone or empty: a new one would hide that."""
    if path.exists() and path.stat().st_size > 0:
        return
    left = [name for name in ("photos", "backups") if any((path.parent / name).glob("*"))]
    if left:
        what = "is empty" if path.exists() else "is gone"
        raise CannotOpen(
            f"{path} {what}, though its {left[0]} are there: put a copy in its place with: "
            f"sandboa restore COPY --data {path.parent}"
        )


def _require_readable(damaged: HouseDatabase, path: Path) -> None:
    """Damaged as it is, the house must be one of this version: it cannot be migrated any more."""
    try:
        applied = set(Runner(damaged, str(_MIGRATIONS)).applied())
        readable = {m.name for m in Runner(damaged, str(_MIGRATIONS)).migrations()} == applied
    except DatabaseError:
        readable = False
    if not readable:
        raise CannotOpen(
            f"cannot open {path}, it is damaged ({damaged.damage[0]}): put a copy in its place "
            f"with: sandboa restore COPY --data {path.parent}"
        )


def _require_writable(path: Path) -> None:
    """OSError where nothing can be made or changed: better said now than at the first record."""
    beside = path.with_name(f"{path.name}.try")
    try:
        beside.write_bytes(b"")
    finally:
        beside.unlink(missing_ok=True)
    if path.exists() and not os.access(path, os.W_OK):
        raise PermissionError(f"{path.name} may not be written to")


def _sentences(said: list[str]) -> Iterator[str]:
    for line in said:
        if line != "ok":
            # SQLite names the database it attached, which is always the one.
            yield " ".join(line.replace("***", " ").replace("in database main", "").split())
