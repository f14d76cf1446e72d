"""Picture files from one folder to another, each compared with its name and on the disk."""

import hashlib
import sqlite3
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path
from typing import Final
from uuid import uuid4

from sandboa.records.connections import read_only
from sandboa.records.copies.copying import rename_durably, sync

FOLDER: Final = "photos"
_ENDINGS: Final = (".jpg", "-small.jpg")


@dataclass(frozen=True, slots=True)
class Gathered:
    """Pictures that lie where they should; those that could not be had, a sentence each."""

    there: int
    copied: int
    missing: tuple[str, ...]


def pictures_named_in(file: Path) -> list[str]:
    """Names of all pictures a database speaks of, undone ones too; none before it knew photos."""
    with closing(read_only(file)) as connection:
        known = connection.execute("SELECT 1 FROM sqlite_master WHERE name = 'photo'").fetchone()
        if known is None:
            return []
        rows = connection.execute("SELECT DISTINCT file FROM photo ORDER BY file").fetchall()
    return [row[0] for row in rows]


def gather(names: list[str], source: Path, target: Path) -> Gathered:
    """Copy pictures by name into the folder `target`; what lies there whole is left alone.

    A picture's name is its content, so that unchanged ones are never copied
    twice. One that is missing in `source` or damaged is told, not copied.
    Raises OSError when `target` cannot be written.
    """
    copied, missing = 0, []
    for name in names:
        try:
            copied += _gather_one(name, source, target)
        except FileNotFoundError:
            missing.append(f"the photo {name[:12]}... is missing")
        except ValueError:
            missing.append(f"the photo {name[:12]}... is damaged")
    return Gathered(len(names) - len(missing), copied, tuple(missing))


def _gather_one(name: str, source: Path, target: Path) -> bool:
    """Whether anything had to be copied. ValueError for a picture that is not what it is called."""
    copied = False
    for ending in _ENDINGS:
        original, there = source / f"{name}{ending}", target / f"{name}{ending}"
        size = original.stat().st_size
        if there.is_file() and there.stat().st_size == size and size > 0:
            continue
        content = original.read_bytes()
        if ending == _ENDINGS[0] and hashlib.sha256(content).hexdigest() != name:
            raise ValueError(name)
        write_durably(there, content)
        copied = True
    return copied


def write_durably(path: Path, content: bytes) -> None:
    """Write a file so that it is whole on the disk, or not there; OSError leaves nothing behind."""
    path.parent.mkdir(parents=True, exist_ok=True)
    # Named apart: the same picture may come twice at once.
    partial = path.with_name(f"{path.name}.{uuid4().hex[:8]}.part")
    try:
        with partial.open("wb") as file:
            file.write(content)
        sync(partial)
        rename_durably(partial, path)
    except BaseException:
        partial.unlink(missing_ok=True)
        raise


def prune_pictures(folder: Path, wanted: set[str]) -> int:
    """Take away pictures that no copy beside `folder` speaks of any more; returns how many."""
    gone = 0
    for file in folder.glob("*.jpg"):
        if file.stem.removesuffix("-small") not in wanted:
            file.unlink(missing_ok=True)
            gone += 1
    return gone


def is_database(file: Path) -> bool:
    """Whether SQLite can read the file at all."""
    try:
        with closing(read_only(file)) as connection:
            connection.execute("SELECT 1 FROM sqlite_master").fetchone()
    except sqlite3.Error:
        return False
    return True
