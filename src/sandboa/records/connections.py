"""Connections to a house's file: one a thread, closed together, for reading only once damaged."""

import sqlite3
from pathlib import Path
from typing import Any, Final
from weakref import WeakSet

from peewee import OperationalError, SqliteDatabase

_PRAGMAS: Final = {
    "journal_mode": "wal",
    "foreign_keys": 1,
    "busy_timeout": 10_000,
    # WAL with FULL: an acknowledged reading survives a power cut, not only a crash.
    "synchronous": "full",
    # kB of pages that each of up to 40 threads keeps; the system keeps pages too.
    "cache_size": -8_000,
    # What was deleted is gone: a passphrase's hash is not left lying in a free page.
    "secure_delete": 1,
}
#: What SQLite raises for a page or a file that cannot be what it wrote.
_DAMAGE: Final = (sqlite3.SQLITE_CORRUPT, sqlite3.SQLITE_NOTADB)


class ReadOnlyHouse(OperationalError):
    """The house is damaged and opened for reading: nothing was stored."""


class Connection(sqlite3.Connection):
    """A connection that can be remembered without being kept alive."""


class HouseDatabase(SqliteDatabase):
    """The database of one house; `damage` says why it is only read from, nothing when it is sound.

    It remembers the connections of all threads, so that closing the house closes every one.
    """

    def __init__(self, path: Path, damage: tuple[str, ...] = ()) -> None:
        # Connections are closed by the thread that closes the house, not by the one that made it.
        super().__init__(str(path), pragmas=_PRAGMAS, factory=Connection, check_same_thread=False)
        self.path = path
        self.damage = damage
        self._everywhere: WeakSet[Connection] = WeakSet()
        self._last: sqlite3.Connection | None = None

    def write_unless(self, damage: tuple[str, ...]) -> None:
        """From now on every thread only reads from the house if it is damaged, else writes too."""
        self.damage = damage
        # The last connection to be closed would write what the log holds into the damaged file,
        # unless it is one that only reads.
        self._last = self._last or read_only(self.path)
        for connection in list(self._everywhere):
            connection.execute(f"PRAGMA query_only = {int(bool(damage))}")

    @property
    def open_anywhere(self) -> bool:
        """Whether any thread holds a connection."""
        return bool(self._everywhere) or self._last is not None or not self.is_closed()

    def close_everywhere(self) -> None:
        """Close every thread's connection. The last one empties the log into a sound file."""
        self.close()
        for connection in list(self._everywhere):
            connection.close()
        self._everywhere.clear()
        if self._last is not None:
            self._last.close()
            self._last = None

    def begin(self, lock_type: str | None = None) -> None:
        """As peewee begins; ReadOnlyHouse where what follows would be stored in a damaged house."""
        if self.damage and lock_type is not None:
            raise ReadOnlyHouse("the house is damaged and only read from")
        super().begin(lock_type)

    def _connect(self) -> Connection:
        made: Connection
        if self.damage:
            made = read_only(self.path, Connection)
            made.isolation_level = None
        else:
            made = super()._connect()  # type: ignore[misc]
        self._everywhere.add(made)
        return made


def read_only(path: Path, kind: type[Any] = sqlite3.Connection) -> Any:
    """A connection to the database at `path` that never writes to it; sqlite3.Error if none.

    A file that nobody has open is read as it lies, and nothing is made beside it.
    """
    log = path.with_name(f"{path.name}-wal")
    mode = "mode=ro" if log.exists() else "immutable=1"
    return sqlite3.connect(
        f"{path.resolve().as_uri()}?{mode}", uri=True, factory=kind, check_same_thread=False
    )


def means_damage(error: BaseException) -> bool:
    """Whether an error of peewee or sqlite3 says that the file is damaged."""
    return _primary_code(error) in _DAMAGE


def means_disk_fault(error: BaseException) -> bool:
    """Whether it says that the disk did not read or write what it should."""
    return _primary_code(error) == sqlite3.SQLITE_IOERR


def _primary_code(error: BaseException) -> int | None:
    while error.__cause__ is not None and not isinstance(error, sqlite3.Error):
        error = error.__cause__
    code = getattr(error, "sqlite_errorcode", None)
    return None if code is None else code & 0xFF
