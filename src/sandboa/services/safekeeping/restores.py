"""Taking the house back to a copy while it is served: which copies there are, and the change."""

from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager
from dataclasses import dataclass
from enum import StrEnum
from pathlib import Path

from sandboa.records.copies.backups import backups_in
from sandboa.records.copies.restoring import NotRestored, carry_on, replaced_houses, stage
from sandboa.records.copies.what_lets_in import carried_over
from sandboa.records.database import close_database, house_file, open_database
from sandboa.services.acts.errors import Conflict, NotFound


class CopyKind(StrEnum):
    """A backup, or a house that a restore moved aside."""

    BACKUP = "backup"
    REPLACED = "replaced"


@dataclass(frozen=True, slots=True)
class RestorableCopy:
    """A copy the house can be restored from.

    `name` asks for it; `made_s` is when the house was as the copy is.
    """

    name: str
    kind: CopyKind
    made_s: float
    size: int
    file: Path


def restorable(folder: Path) -> list[RestorableCopy]:
    """Backups in `folder` and houses moved aside, newest first."""
    return sorted(_copies(folder), key=lambda copy: -copy.made_s)


def find_copy(name: str, folder: Path) -> RestorableCopy:
    """The copy of that name; NotFound for what is none of them: no other file is ever read."""
    found = next((copy for copy in _copies(folder) if copy.name == name), None)
    if found is None:
        raise NotFound("there is no such copy any more")
    return found


def take_back(
    copy: RestorableCopy, now_s: float, alone: Callable[[], AbstractContextManager[None]]
) -> Path | None:
    """Put a copy in the place of the open house, and open that; returns where the one before lies.

    Staging takes its time while the house is still read; `alone` is held for the
    change itself. Raises Conflict, with the house as it was, when the copy is
    not whole or cannot be staged.
    """
    house = house_file()
    try:
        stage(copy.file, house, now_s, carried_over(house))
    except NotRestored as error:
        raise Conflict(f"{error}. The house is as it was") from error
    with alone():
        close_database()
        aside = carry_on(house)
        open_database(house)
    return aside


def _copies(folder: Path) -> Iterator[RestorableCopy]:
    for backup in backups_in(folder):
        yield RestorableCopy(
            backup.file.name, CopyKind.BACKUP, backup.made_s, backup.size, backup.file
        )
    for file in replaced_houses(house_file()):
        found = file.stat()
        yield RestorableCopy(
            file.parent.name, CopyKind.REPLACED, found.st_mtime, found.st_size, file
        )
