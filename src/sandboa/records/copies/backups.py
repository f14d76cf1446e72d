"""Backups: a copy of the house with its photos, proven by opening it, and old ones pruned.

A folder of backups holds one file for each, named by its moment, and one
folder `photos` that all of them share: a picture's name is its content.
"""

import re
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Final

from sandboa.core.retention import kept
from sandboa.records.copies.copying import (
    copy_database,
    in_use,
    remove_database,
    rename_durably,
    sync,
)
from sandboa.records.copies.photo_files import (
    FOLDER,
    gather,
    is_database,
    pictures_named_in,
    prune_pictures,
)
from sandboa.records.integrity.check import check_database

_NAME: Final = "house-{}.sqlite3"
_MOMENT: Final = "%Y-%m-%dT%H-%M-%SZ"
_NAMED: Final = re.compile(r"house-(\d{4}-\d\d-\d\dT\d\d-\d\d-\d\dZ)\.sqlite3")
#: Bytes that a backup leaves free on its disk: recording goes on there (assumption).
LEFT_FREE: Final = 200 * 2**20


class NotBackedUp(OSError):
    """No copy was made; the text is a sentence."""


@dataclass(frozen=True, slots=True)
class Backup:
    """A copy that was proven: its file, when the house was as it is (s), bytes, photos beside it.

    `troubles` are pictures that the house itself does not have whole.
    """

    file: Path
    made_s: float
    size: int
    photos: int = 0
    troubles: tuple[str, ...] = ()


def back_up(source: Path, target: Path, now_s: float) -> Backup:
    """Copy the database `source` to `target` and its photos to the folder beside `target`.

    Also while the house is in use. The copy is opened and checked, and gets its
    name only when all of it is there. Raises FileExistsError when `target`
    exists, NotBackedUp when it cannot be written or the house is damaged.
    """
    if target.exists():
        raise FileExistsError(f"{target} exists already")
    if not target.parent.is_dir():
        raise NotBackedUp(f"there is no folder {target.parent}")
    _require_room(source, target.parent)
    partial = target.with_name(f"{target.name}.part")
    remove_database(partial)
    try:
        with closing(in_use(source)) as original:
            copy_database(original, partial)
        photos = gather(pictures_named_in(partial), source.parent / FOLDER, target.parent / FOLDER)
        problems = check_database(partial).problems
        if problems:
            raise NotBackedUp(f"the house is damaged, so no copy was kept: {problems[0]}")
        rename_durably(partial, target)
    except NotBackedUp:
        raise
    except (sqlite3.Error, OSError) as error:
        raise NotBackedUp(f"{target} cannot be written: {error}") from error
    finally:
        remove_database(partial)
    return Backup(target, now_s, target.stat().st_size, photos.there, photos.missing)


def back_up_into(source: Path, folder: Path, now_s: float) -> Backup:
    """Make the backup of this moment in `folder` and prune older ones.

    Pruned is only what this made, and only once the new copy stands.
    Raises NotBackedUp.
    """
    _clear_half_made(folder)
    moment = datetime.fromtimestamp(now_s, UTC).strftime(_MOMENT)
    made = back_up(source, folder / _NAME.format(moment), now_s)
    prune(folder)
    return made


def backups_in(folder: Path) -> list[Backup]:
    """The backups in `folder`, newest first; none when it cannot be read."""
    return sorted(_listed(folder), key=lambda backup: -backup.made_s)


def prune(folder: Path) -> list[Path]:
    """Remove backups that are kept no longer (see core.retention); returns their files."""
    held = backups_in(folder)
    keep = kept(backup.made_s for backup in held)
    gone = [backup.file for backup in held if backup.made_s not in keep]
    for file in gone:
        file.unlink(missing_ok=True)
    if gone:
        # Other copies may share the photos: whatever database lies here is asked, and where one
        # cannot answer nothing goes.
        files = [file for file in folder.glob("*.sqlite3*") if file.is_file()]
        if all(is_database(file) for file in files):
            wanted = {name for file in files for name in pictures_named_in(file)}
            prune_pictures(folder / FOLDER, wanted)
        sync(folder)
    return gone


def prune_before_migrations(house: Path) -> list[Path]:
    """Remove copies made before migrations of `house` that are kept no longer; as `prune`."""
    copies = {
        file: file.stat().st_mtime
        for file in house.parent.glob(f"{house.name}.before-*")
        if not file.name.endswith(".part")
    }
    keep = kept(copies.values())
    gone = [file for file, made_s in copies.items() if made_s not in keep]
    for file in gone:
        file.unlink(missing_ok=True)
    return gone


def _listed(folder: Path) -> Iterator[Backup]:
    try:
        files = list(folder.iterdir())
    except OSError:
        return
    for file in files:
        named = _NAMED.fullmatch(file.name)
        if named is not None:
            made = datetime.strptime(named[1], _MOMENT).replace(tzinfo=UTC)
            yield Backup(file, made.timestamp(), file.stat().st_size)


def _clear_half_made(folder: Path) -> None:
    """What a backup that was killed left behind."""
    for pattern in (f"{_NAME.format('*')}.part*", f"{FOLDER}/*.part"):
        for file in folder.glob(pattern):
            file.unlink(missing_ok=True)


def _require_room(source: Path, folder: Path) -> None:
    try:
        free = shutil.disk_usage(folder).free
    except OSError as error:
        raise NotBackedUp(f"{folder} cannot be used: {error.strerror or error}") from error
    wanted = source.stat().st_size + LEFT_FREE
    if free < wanted:
        raise NotBackedUp(
            f"{folder} has {free / 2**20:,.0f} MB left; a copy needs {wanted / 2**20:,.0f} MB"
        )
