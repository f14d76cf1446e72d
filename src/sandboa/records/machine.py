"""What belongs to this machine and not to the house: its settings, and backups tried."""

from peewee import AutoField, IntegerField, TextField

from sandboa.records.database import database
from sandboa.records.facts import Sealed

#: Tries that are remembered; the newest of them.
_REMEMBERED = 400


class MachineSetting(Sealed):
    """A setting of this machine, by name."""

    name = TextField(primary_key=True)
    value = TextField()


class BackupTried(Sealed):
    """A backup that was made, or not: `trouble` says why not, nothing when it stands."""

    id = AutoField()
    at_s = IntegerField()
    file = TextField()
    size = IntegerField()
    photos = IntegerField()
    trouble = TextField()


def machine_setting(name: str) -> str | None:
    """The value of a setting, None when it was never set."""
    held = MachineSetting.get_or_none(MachineSetting.name == name)
    return None if held is None else str(held.value)


def set_machine_setting(name: str, value: str | None) -> None:
    """Set a setting, or forget it."""
    with database.atomic("IMMEDIATE"):
        MachineSetting.delete().where(MachineSetting.name == name).execute()
        if value is not None:
            MachineSetting.create(name=name, value=value)


def note_backup(at_s: float, file: str, size: int, photos: int, trouble: str) -> BackupTried:
    """Remember what became of a backup."""
    tried = BackupTried.create(
        at_s=int(at_s), file=file, size=size, photos=photos, trouble=trouble[:500]
    )
    BackupTried.delete().where(BackupTried.id <= tried.id - _REMEMBERED).execute()
    return tried


def last_backup(*, good: bool) -> BackupTried | None:
    """The newest backup that stands, or the newest that failed."""
    wanted = BackupTried.trouble == "" if good else BackupTried.trouble != ""
    found: BackupTried | None = (
        BackupTried.select().where(wanted).order_by(BackupTried.at_s.desc()).first()
    )
    return found
