"""Consistent copies of a house's database, whole under their name or not there at all."""

import filecmp
import os
import sqlite3
from contextlib import closing
from pathlib import Path


def in_use(path: Path) -> sqlite3.Connection:
    """A connection of its own to a database that others may be writing to; it must exist."""
    return sqlite3.connect(f"{path.resolve().as_uri()}?mode=rw", uri=True)


def copy_database(original: sqlite3.Connection, target: Path) -> None:
    """Copy a database as it is at this moment to the file `target`, and onto the disk.

    Raises sqlite3.Error or OSError; what was begun is then gone again.
    """
    try:
        with closing(sqlite3.connect(target)) as copy:
            original.backup(copy)
            # A copy is one file, wherever it is carried.
            copy.execute("PRAGMA journal_mode = delete")
        sync(target)
    except BaseException:
        remove_database(target)
        raise


def remove_database(path: Path) -> None:
    """Remove a copy that is no use, with what SQLite keeps beside a file it did not finish."""
    for beside in ("", "-journal", "-wal", "-shm"):
        path.with_name(f"{path.name}{beside}").unlink(missing_ok=True)


def copy_before(path: Path, migration: str) -> None:
    """Copy the house beside itself before it is migrated.

    A start that was killed after its copy finds that copy again and keeps it;
    where the house was changed since (an older version ran on it), the copy
    is one more, numbered.
    """
    first = path.with_name(f"{path.name}.before-{migration}")
    partial = first.with_name(f"{first.name}.part")
    remove_database(partial)
    number, target = 1, first
    with closing(in_use(path)) as original:
        copy_database(original, partial)
    while target.exists():
        if filecmp.cmp(target, partial, shallow=False):
            partial.unlink()
            return
        number += 1
        target = first.with_name(f"{first.name}-{number}")
    rename_durably(partial, target)


def rename_durably(source: Path, target: Path) -> None:
    """Rename so that after a power cut either the old name holds or the new one."""
    source.rename(target)
    sync(target.parent)


def sync(path: Path) -> None:
    """Have a file's content, or a folder's names, on the disk before going on."""
    if os.name == "nt" and path.is_dir():
        return  # Windows writes names at once, and opens no folder.
    handle = os.open(path, os.O_RDONLY if path.is_dir() else os.O_RDWR)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)
