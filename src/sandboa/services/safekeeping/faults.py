"""What went wrong when a statement failed, told apart for whoever answers."""

from enum import StrEnum
from typing import Final

from sandboa.records.database import (
    DatabaseFault,
    IntegrityError,
    Unavailable,
    check_quickly,
    means_damage,
    means_disk_fault,
)

#: What any failed statement raises.
STATEMENT_FAILED: Final = DatabaseFault


class HouseFault(StrEnum):
    """Why a statement failed; nothing was stored by it."""

    #: The file is damaged, and only read from until it is sound again.
    DAMAGED = "damaged"
    #: The database is busy, or its disk full.
    BUSY = "busy"
    #: Somebody recorded the same at this moment.
    CLASH = "clash"
    #: Anything else: a slip of the program's own.
    BROKEN = "broken"


def fault_of(error: Exception) -> tuple[HouseFault, Exception]:
    """Why a statement failed, and the error that came first.

    Whoever meets damage is the first to know of it: all of the file is looked at then.
    """
    if isinstance(error, IntegrityError):
        return HouseFault.CLASH, error
    first = _first(error)
    if (means_damage(first) or means_disk_fault(first)) and check_quickly():
        return HouseFault.DAMAGED, first
    return (HouseFault.BUSY if isinstance(first, Unavailable) else HouseFault.BROKEN), first


def _first(error: Exception) -> Exception:
    """What failed first: SQLite has rolled back itself then, and a rollback fails after it."""
    first: Exception = error
    before = error.__context__
    while before is not None:
        if isinstance(before, DatabaseFault):
            first = before
        before = before.__context__
    return first
