"""Once a night: a backup, and proof that the house is what was recorded."""

import logging
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Final

from sandboa.records.copies.photo_files import FOLDER, pictures_named_in
from sandboa.records.database import check_quickly, house_file
from sandboa.records.integrity.check import check_database, picture_problems
from sandboa.records.machine import BackupTried
from sandboa.services.safekeeping.backups import back_up_now

#: Nights over which every photo is read once; a house may have thousands (assumption).
PHOTO_NIGHTS: Final = 30

_log = logging.getLogger(__name__)


@dataclass(frozen=True, slots=True)
class Night:
    """What a night found: a sentence for each thing that is not as it was recorded."""

    at_s: float
    problems: tuple[str, ...]


def night(now_s: float, named: Path | None, pause: Callable[[], None]) -> Night:
    """Back the house up and look through it; `pause` makes room for whoever else works.

    The copy of a backup is looked through in full before it gets its name, so
    that a house that was backed up is read only once. One part of the photos
    is read each night.
    """
    if found := check_quickly():
        return Night(now_s, found)
    tried = back_up_now(now_s, named)
    found = (*problems_behind(tried, pause), *_photos_of_the_night(now_s, pause))
    for problem in found:
        _log.error("the house is not what was recorded: %s", problem)
    return Night(now_s, found)


def problems_behind(
    tried: BackupTried, pause: Callable[[], None] = lambda: None
) -> tuple[str, ...]:
    """What is not as it was recorded, where a backup failed; nothing where it stands."""
    return check_database(house_file(), pause).problems if tried.trouble else ()


def _photos_of_the_night(now_s: float, pause: Callable[[], None]) -> tuple[str, ...]:
    house = house_file()
    tonight = int(now_s // 86_400) % PHOTO_NIGHTS
    found: list[str] = []
    for name in pictures_named_in(house):
        if int(name[:8], 16) % PHOTO_NIGHTS == tonight:
            found += picture_problems(house.parent / FOLDER, name)
            pause()
    return tuple(found)
