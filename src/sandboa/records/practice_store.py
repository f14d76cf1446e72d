"""What a person practised: a file of that person's own beside the house, and no part of it.

It holds sessions as they are written by `sandboa.practice`, the answers given, and when each kind
of case comes again. Deleting the file forgets all of it.
"""

import json
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Final

from peewee import DatabaseError, OperationalError, SqliteDatabase, Table

from sandboa.records.private_files import make_private

#: Layout of the file; a file of a later one is not opened.
LAYOUT: Final = 1
_FOLDER: Final = "practice"
_MADE: Final = (
    "CREATE TABLE session (id INTEGER PRIMARY KEY, kind TEXT NOT NULL, version INTEGER NOT NULL, "
    "revision INTEGER NOT NULL, began_s REAL NOT NULL, body TEXT NOT NULL) STRICT",
    "CREATE TABLE answer (id INTEGER PRIMARY KEY, session_id INTEGER NOT NULL, "
    "at_s REAL NOT NULL, body TEXT NOT NULL) STRICT",
    "CREATE TABLE review (kind TEXT PRIMARY KEY, body TEXT NOT NULL) STRICT, WITHOUT ROWID",
)

Body = dict[str, Any]


class PracticeTooNew(RuntimeError):
    """The file was written by a newer Sandboa than this one."""


class PracticeDamaged(RuntimeError):
    """The file is no database, or cannot be read."""


@dataclass(frozen=True, slots=True)
class StoredSession:
    """A session: its `version` is that of the practice that wrote it, `revision` counts changes."""

    id: int
    kind: str
    version: int
    revision: int
    began_s: float
    body: Body


def practice_file(house: Path, person: int | None) -> Path:
    """The file of a person (by id; None in a house without people) beside the house's own."""
    name = "house" if person is None else f"person-{person}"
    return house.parent / _FOLDER / f"{name}.sqlite3"


def forget(path: Path) -> None:
    """Delete a person's file, with what SQLite keeps beside it."""
    for file in (path, path.with_name(path.name + "-wal"), path.with_name(path.name + "-shm")):
        file.unlink(missing_ok=True)


class PracticeStore:
    """An open file. Every method is one transaction."""

    def __init__(self, database: SqliteDatabase, path: Path) -> None:
        self.path = path
        # peewee's tables take their columns from a list: no type knows them.
        self._database: Any = database
        bound: list[Any] = [
            Table(name, columns, primary_key=key).bind(database)
            for name, columns, key in (
                ("session", ("id", "kind", "version", "revision", "began_s", "body"), "id"),
                ("answer", ("id", "session_id", "at_s", "body"), "id"),
                ("review", ("kind", "body"), "kind"),
            )
        ]
        self._sessions, self._answers, self._reviews = bound

    def sessions(self) -> list[StoredSession]:
        """Every session, the newest first."""
        return [_session(row) for row in self._sessions.select().order_by(self._sessions.id.desc())]

    def count(self) -> int:
        """How many sessions there are."""
        return int(self._sessions.select().count())

    def session(self, id: int) -> StoredSession | None:
        """The session of that id; None without one."""
        row = self._sessions.select().where(self._sessions.id == id).first()
        return None if row is None else _session(row)

    def add(self, kind: str, version: int, began_s: float, body: Body) -> int:
        """Store a new session at revision 0; its id."""
        made = self._sessions.insert(
            kind=kind, version=version, revision=0, began_s=began_s, body=_written(body)
        ).execute()
        return int(made)

    def change(self, id: int, revision: int, body: Body) -> bool:
        """Replace the body of a session still at that revision; False where another was quicker."""
        table = self._sessions
        changed = (
            table.update(body=_written(body), revision=revision + 1)
            .where((table.id == id) & (table.revision == revision))
            .execute()
        )
        return bool(changed)

    def delete(self, id: int) -> bool:
        """Delete a session and its answers; False where there is none."""
        with self._database.atomic():
            self._answers.delete().where(self._answers.session_id == id).execute()
            return bool(self._sessions.delete().where(self._sessions.id == id).execute())

    def answers(self) -> list[tuple[float, Body]]:
        """Every answer with when it was given (s), in that order."""
        rows = self._answers.select().order_by(self._answers.at_s, self._answers.id)
        return [(float(row["at_s"]), json.loads(row["body"])) for row in rows]

    def reviews(self) -> dict[str, Body]:
        """When each kind of case comes again, as it was stored."""
        return {row["kind"]: json.loads(row["body"]) for row in self._reviews.select()}

    def answered(
        self, session: StoredSession, body: Body, answer: tuple[float, Body], review: Body
    ) -> bool:
        """Store an answer with its session's new body and its kind's review, all or none.

        `answer` is when (s) and what; `review` holds its kind. False where another was quicker.
        """
        with self._database.atomic():
            if not self.change(session.id, session.revision, body):
                return False
            at_s, said = answer
            self._answers.insert(session_id=session.id, at_s=at_s, body=_written(said)).execute()
            kind = said["kind"]
            self._reviews.delete().where(self._reviews.kind == kind).execute()
            self._reviews.insert(kind=kind, body=_written(review)).execute()
        return True


@contextmanager
def opened(path: Path) -> Iterator[PracticeStore]:
    """The file at `path`, made where there is none.

    Raises PracticeTooNew for one of a later layout, PracticeDamaged for one that cannot be read.
    """
    path.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    database = SqliteDatabase(str(path), pragmas={"journal_mode": "wal", "busy_timeout": 5_000})
    try:
        try:
            database.connect()
            _prepare(database, path)
        except OperationalError:
            raise
        except DatabaseError as error:
            raise PracticeDamaged(f"{path.name} cannot be read") from error
        yield PracticeStore(database, path)
    finally:
        database.close()


def _prepare(database: Any, path: Path) -> None:
    with database.atomic("IMMEDIATE"):
        (layout,) = database.execute_sql("PRAGMA user_version").fetchone()
        if layout > LAYOUT:
            raise PracticeTooNew(f"{path.name} was written by a newer Sandboa")
        if layout == LAYOUT:
            return
        for statement in _MADE:
            database.execute_sql(statement)
        database.execute_sql(f"PRAGMA user_version = {LAYOUT}")
    make_private(path)


def _session(row: Body) -> StoredSession:
    return StoredSession(**{**row, "body": json.loads(row["body"])})


def _written(body: Body) -> str:
    return json.dumps(body, allow_nan=False, separators=(",", ":"))
