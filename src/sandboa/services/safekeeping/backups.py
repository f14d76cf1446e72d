"""Backups: where they go, when one is due, what became of the last."""

from dataclasses import dataclass
from datetime import datetime, timedelta, tzinfo
from pathlib import Path
from tempfile import TemporaryFile
from threading import Lock
from typing import Final

from sandboa.core.errors import NotPlausible
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.copies.backups import (
    Backup,
    NotBackedUp,
    back_up_into,
    backups_in,
    prune_before_migrations,
)
from sandboa.records.database import house_file
from sandboa.records.machine import BackupTried as BackupTried
from sandboa.records.machine import (
    last_backup,
    machine_setting,
    note_backup,
    set_machine_setting,
)

#: Hour of the machine's day at which a backup is due (assumption: nobody is at the boxes).
BACKUP_HOUR: Final = 3
#: s without a good backup after which it is an alarm (product requirement).
MISSED_S: Final = 3 * SECONDS_PER_DAY
#: s before a backup that failed is tried again: a disk may have been put back (assumption).
RETRY_S: Final = 3_600.0
_FOLDER: Final = "backup folder"
_BESIDE: Final = "backups"
_one_at_a_time: Final = Lock()


@dataclass(frozen=True, slots=True)
class BackupState:
    """Where backups go and how they fare.

    `beside` says that they lie beside the house, on the same disk; `fixed` that
    the folder was named when the server was started. `held` are those in the
    folder now, newest first.
    """

    folder: Path
    beside: bool
    fixed: bool
    last_good: BackupTried | None
    last_failed: BackupTried | None
    held: tuple[Backup, ...]


def backup_folder(named: Path | None = None) -> Path:
    """Where backups go: `named` at the start, else as set, else beside the house."""
    if named is not None:
        return named.resolve()
    chosen = chosen_backup_folder()
    return Path(chosen) if chosen else house_file().parent / _BESIDE


def chosen_backup_folder() -> str | None:
    """The folder set for backups, None for beside the house."""
    return machine_setting(_FOLDER) or None


def set_backup_folder(text: str | None) -> Path:
    """Send backups to another folder; None or nothing: beside the house again.

    Raises NotPlausible at `folder` for one that is not there, cannot be written
    to, or is the house's own.
    """
    if not text or not text.strip():
        set_machine_setting(_FOLDER, None)
        return backup_folder()
    folder = Path(text.strip())
    _require_folder(folder)
    set_machine_setting(_FOLDER, str(folder))
    return folder


def backup_state(named: Path | None = None) -> BackupState:
    """How backups fare."""
    folder = backup_folder(named)
    good, failed = last_backup(good=True), last_backup(good=False)
    if good is not None and failed is not None and failed.at_s < good.at_s:
        failed = None
    return BackupState(
        folder,
        folder == house_file().parent / _BESIDE,
        named is not None,
        good,
        failed,
        tuple(backups_in(folder)),
    )


def backup_due(now_s: float, zone: tzinfo | None = None) -> bool:
    """Whether the night's backup is still to be made; `zone` is the machine's unless given."""
    good, failed = last_backup(good=True), last_backup(good=False)
    if failed is not None and now_s - failed.at_s < RETRY_S:
        return False
    return good is None or good.at_s < _last_night_s(now_s, zone)


def back_up_now(now_s: float, named: Path | None = None) -> BackupTried:
    """Make a backup, prune older ones, and note what became of it; never raises for a bad disk."""
    # The night's and one asked for at the same moment would clear away each other's beginnings.
    with _one_at_a_time:
        return _back_up(now_s, named)


def _back_up(now_s: float, named: Path | None) -> BackupTried:
    house, folder = house_file(), backup_folder(named)
    try:
        if folder == house.parent / _BESIDE:
            folder.mkdir(mode=0o700, exist_ok=True)
        made = back_up_into(house, folder, now_s)
        prune_before_migrations(house)
    except FileExistsError:
        return note_backup(now_s, "", 0, 0, "a backup of this very second is there already")
    except (NotBackedUp, OSError) as error:
        return note_backup(now_s, "", 0, 0, str(error))
    return note_backup(now_s, str(made.file), made.size, made.photos, "")


def backup_missed_s(now_s: float, since_s: float) -> float | None:
    """Since when (s) backups have been missing for too long; None while they have not.

    `since_s` counts where there never was one: when the house was begun.
    """
    good = last_backup(good=True)
    last_s = float(good.at_s) if good is not None else since_s
    return last_s if now_s - last_s > MISSED_S else None


def _last_night_s(now_s: float, zone: tzinfo | None) -> float:
    now = datetime.fromtimestamp(now_s, zone).astimezone(zone)
    night = now.replace(hour=BACKUP_HOUR, minute=0, second=0, microsecond=0)
    if night > now:
        night -= timedelta(days=1)
    return night.timestamp()


def _require_folder(folder: Path) -> None:
    house = house_file().parent
    if not folder.is_absolute():
        raise NotPlausible("folder", "name the whole path, from the root of the disk on")
    if not folder.is_dir():
        raise NotPlausible("folder", f"there is no folder {folder} on the computer of the house")
    if folder.resolve() == house or house / "photos" in (folder.resolve(), *folder.parents):
        raise NotPlausible("folder", "the house itself lies there: name another folder")
    try:
        # Rights alone do not tell: a share may be read only, a folder of the system take no files.
        with TemporaryFile(dir=folder):
            pass
    except OSError as error:
        raise NotPlausible("folder", f"nothing can be written to {folder}") from error
