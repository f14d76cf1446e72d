"""Putting a copy in the place of a house, which is moved aside whole.

A restore is staged in a folder beside the house and proven there. One rename
says that it is decided; from then on every start goes on with it, and before
it every start throws it away. So a restore that is killed is done or undone.
"""

import shutil
import sqlite3
from collections.abc import Callable
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Final

from sandboa.records.connections import read_only
from sandboa.records.copies.copying import copy_database, rename_durably, sync
from sandboa.records.copies.photo_files import (
    FOLDER,
    gather,
    pictures_named_in,
    write_durably,
)
from sandboa.records.integrity.check import Checked, check, check_database

#: Files of SQLite's that belong to the one they are named for.
_COMPANIONS: Final = ("-wal", "-shm", "-journal")
_STAGED: Final = "restoring"
_ASIDE: Final = "aside.txt"
_MOMENT: Final = "%Y-%m-%dT%H-%M-%SZ"


class NotRestored(RuntimeError):
    """The copy was not put in place, the house is as it was; the text is a sentence."""


@dataclass(frozen=True, slots=True)
class Restored:
    """`aside` is the folder the house before was moved to, None when there was none.

    `checked` is what the house in its place holds; `missing` are pictures that
    neither the copy nor the house before had.
    """

    aside: Path | None
    checked: Checked
    missing: tuple[str, ...]


def restore(
    copy: Path, house: Path, now_s: float, adapt: Callable[[Path], None] | None = None
) -> Restored:
    """Put `copy`, with the photos beside it, in the place of the house at `house`.

    Nobody may have the house open. `adapt` may change the staged database
    before it is proven, while the house before still stands. Raises NotRestored.
    """
    carry_on(house)
    missing = stage(copy, house, now_s, adapt)
    aside = _put_in_place(house)
    return Restored(aside, check(house), missing)


def stage(
    copy: Path, house: Path, now_s: float, adapt: Callable[[Path], None] | None = None
) -> tuple[str, ...]:
    """Make everything ready beside the house, prove it and decide; returns missing pictures.

    Until it returns, the house is as it was; from then on `carry_on` ends what
    was begun. Raises NotRestored.
    """
    problems = _problems(copy)
    if problems:
        raise NotRestored(f"{copy.name} cannot be put in place: {problems[0]}")
    folder = house.parent
    making = folder / f"{_STAGED}.part"
    shutil.rmtree(making, ignore_errors=True)
    try:
        (making / FOLDER).mkdir(parents=True)
        staged = making / house.name
        with closing(read_only(copy)) as original:
            copy_database(original, staged)
        if adapt is not None:
            adapt(staged)
        gathered = _gather_photos(staged, [copy.parent / FOLDER, folder / FOLDER], making / FOLDER)
        problems = check_database(staged).problems
        if problems:
            raise NotRestored(f"{copy.name} could not be copied whole: {problems[0]}")
        moment = datetime.fromtimestamp(now_s, UTC).strftime(_MOMENT)
        write_durably(making / _ASIDE, _free_name(folder, f"replaced-{moment}").encode())
        sync(staged)
        sync(making)
        rename_durably(making, folder / _STAGED)
    except NotRestored:
        raise
    except (OSError, sqlite3.Error) as error:
        raise NotRestored(f"{copy.name} cannot be put in place: {error}") from error
    finally:
        shutil.rmtree(making, ignore_errors=True)
    return gathered


def carry_on(house: Path) -> Path | None:
    """End a restore that was decided, or throw away one that was not; before a house is opened.

    Returns the folder the house before lies in, None when there was nothing to end.
    """
    shutil.rmtree(house.parent / f"{_STAGED}.part", ignore_errors=True)
    return _put_in_place(house) if (house.parent / _STAGED).is_dir() else None


def is_under_way(house: Path) -> bool:
    """Whether a restore was begun and not ended."""
    return any((house.parent / name).is_dir() for name in (_STAGED, f"{_STAGED}.part"))


def replaced_houses(house: Path) -> list[Path]:
    """The houses that restores have moved aside, whole each in a folder of its own."""
    return [
        folder / house.name
        for folder in house.parent.glob("replaced-*")
        if (folder / house.name).is_file()
    ]


def _put_in_place(house: Path) -> Path | None:
    """Move the house aside and the staged one in; may be ended at any line and begun again."""
    folder = house.parent
    staged = folder / _STAGED
    aside = folder / (staged / _ASIDE).read_text().strip()
    if (staged / house.name).exists():
        # What lies in the house's place is the house before: the staged one is still here.
        for name in (*(f"{house.name}{end}" for end in _COMPANIONS), FOLDER, house.name):
            before = name != FOLDER or (staged / FOLDER).exists()
            if before and (folder / name).exists():
                aside.mkdir(exist_ok=True)
                rename_durably(folder / name, aside / name)
        if (staged / FOLDER).exists():
            rename_durably(staged / FOLDER, folder / FOLDER)
        rename_durably(staged / house.name, house)
    shutil.rmtree(staged)
    sync(folder)
    return aside if aside.exists() else None


def _gather_photos(staged: Path, sources: list[Path], target: Path) -> tuple[str, ...]:
    """Pictures from the copy's folder, and those it lacks from the house's; returns the missing."""
    names = pictures_named_in(staged)
    missing: tuple[str, ...] = ()
    for source in sources:
        missing = gather(names, source, target).missing
        names = [name for name in names if not (target / f"{name}.jpg").is_file()]
    return missing if names else ()


def _problems(copy: Path) -> tuple[str, ...]:
    if not copy.is_file():
        return (f"there is no file {copy}",)
    return check_database(copy).problems


def _free_name(folder: Path, first: str) -> str:
    name, number = first, 1
    while (folder / name).exists():
        number += 1
        name = f"{first}-{number}"
    return name
