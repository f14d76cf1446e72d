"""Verifying a house's database and its photos, without changing either."""

import hashlib
import sqlite3
from collections.abc import Callable, Iterable, Iterator
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Final

from sandboa.records.connections import read_only
from sandboa.records.copies.photo_files import FOLDER
from sandboa.records.integrity import chain, reading_days, seals
from sandboa.records.integrity.spelling import spelled

#: What is counted, in words, and in which table; only current facts. A house of an earlier
#: version, or a copy from before a migration, lacks some.
_COUNTED: Final = {
    "acts": ("act", "count(*) FROM act"),
    "animals": ("animal", "count(*) FROM animal WHERE superseded_by_id IS NULL"),
    "clutches": ("clutch", "count(*) FROM clutch WHERE superseded_by_id IS NULL"),
    "eggs": ("egg", "count(*) FROM egg WHERE superseded_by_id IS NULL"),
    "readings": ("reading", "count(*) FROM reading"),
    "photos": ("photo", "count(DISTINCT file) FROM photo"),
}

_STALE_ROLL_UPS: Final = """
SELECT count(*) FROM (
  SELECT probe_id, at_s / 3600 AS hour, count(*) AS readings, min(temperature_c) AS lowest_c,
    avg(temperature_c) AS mean_c, max(temperature_c) AS highest_c, avg(humidity) AS mean_humidity
  FROM reading GROUP BY 1, 2
) AS now FULL JOIN reading_hour AS kept USING (probe_id, hour)
WHERE now.readings IS NOT kept.readings OR now.lowest_c IS NOT kept.lowest_c
  OR now.highest_c IS NOT kept.highest_c
  OR coalesce(abs(now.mean_c - kept.mean_c) > 1e-9, 1)
  OR coalesce(abs(now.mean_humidity - kept.mean_humidity) > 1e-9,
              (now.mean_humidity IS NULL) IS NOT (kept.mean_humidity IS NULL))
"""
_STALE_TIPS: Final = """
SELECT count(*) FROM (
  SELECT probe_id, count(*) AS readings, max(at_s) AS last_s FROM reading GROUP BY 1
) AS now LEFT JOIN reading_tip AS kept USING (probe_id)
WHERE now.readings IS NOT kept.readings OR now.last_s IS NOT kept.last_s
  OR (kept.last_c, kept.last_humidity) IS NOT (
    SELECT temperature_c, humidity FROM reading AS r
    WHERE r.probe_id = now.probe_id AND r.at_s = now.last_s)
"""

MIGRATIONS: Final = Path(__file__).parents[1] / "migrations"

_Found = Callable[[sqlite3.Connection], Iterable[str]]


@dataclass(frozen=True, slots=True)
class Checked:
    """`problems`, a sentence each, none when the house is sound; `found` tells what is in it."""

    problems: tuple[str, ...]
    found: str = ""


def check(path: Path) -> Checked:
    """Read the whole database at `path` and every photo beside it; FileNotFoundError for none."""
    checked = check_database(path)
    if not checked.found:
        return checked
    return Checked((*checked.problems, *photo_problems(path)), checked.found)


def check_database(path: Path, pause: Callable[[], None] = lambda: None) -> Checked:
    """Read the whole database at `path`: SQLite's own check, references, chain and checksums.

    `pause` is called now and then, so that a check in the background can make
    room for others. Raises FileNotFoundError when there is no such file.
    """
    if not path.is_file():
        raise FileNotFoundError(f"there is no file {path}")
    problems: list[str] = []
    found = ""
    with closing(read_only(path)) as connection:
        # Text that a flipped bit has spoilt is to be told of, not to end the check.
        connection.text_factory = _text
        try:
            connection.execute("BEGIN")
            columns = seals.columns_of(connection)
            if "act" not in columns:
                return Checked(("not a Sandboa database: it holds no record of acts",))
            for finds in _looks(columns):
                for problem in finds(connection):
                    problems.append(problem)
                    pause()
                pause()
            found = _counted(connection, columns)
        except (sqlite3.DatabaseError, OverflowError) as error:
            problems.append(f"not a Sandboa database, or damaged: {error}")
    return Checked(tuple(problems), found)


def photo_problems(path: Path) -> list[str]:
    """Pictures that the database at `path` speaks of and that are not there as they were.

    Every picture is named by its own content: a changed one gives itself away.
    """
    with closing(read_only(path)) as connection:
        if "photo" not in seals.columns_of(connection):
            return []
        names = [
            row[0] for row in connection.execute("SELECT DISTINCT file FROM photo ORDER BY file")
        ]
    return [said for name in names for said in picture_problems(path.parent / FOLDER, name)]


def picture_problems(folder: Path, name: str) -> Iterator[str]:
    """What is wrong with one picture and its small one, in words."""
    picture, small = (folder / f"{name}{end}.jpg" for end in ("", "-small"))
    if not picture.is_file():
        yield f"the photo {name[:12]}... is missing"
    elif hashlib.sha256(picture.read_bytes()).hexdigest() != name:
        yield f"the photo {name[:12]}... is damaged"
    elif not small.is_file() or small.stat().st_size == 0:
        yield f"the small picture of {name[:12]}... is missing"


def _looks(columns: dict[str, tuple[str, ...]]) -> Iterator[_Found]:
    """What is looked at; a file of an earlier version lacks some of it."""
    yield _damage
    if "schema_migration" in columns:
        yield _migrations
    if "reading_hour" in columns:
        yield _roll_ups
    if "reading_tip" in columns:
        yield _tips
    if "hash" in columns["act"]:
        yield chain.problems
        yield _entities
    if "reading_day" in columns:
        yield reading_days.problems
    yield seals.problems


def _damage(connection: sqlite3.Connection) -> Iterator[str]:
    for (said,) in connection.execute("PRAGMA integrity_check"):
        if said != "ok":
            yield f"damaged: {said}"
    for table, rowid, parent, _ in connection.execute("PRAGMA foreign_key_check"):
        yield f"{table} row {rowid} points at a missing {parent}"


def _migrations(connection: sqlite3.Connection) -> Iterator[str]:
    known = {file.stem for file in MIGRATIONS.glob("0*.py")}
    for (name,) in connection.execute("SELECT name FROM schema_migration ORDER BY name"):
        if name not in known:
            yield f"it has seen a migration {name[:60]} that this Sandboa does not know"


def _roll_ups(connection: sqlite3.Connection) -> Iterator[str]:
    stale = connection.execute(spelled(connection, _STALE_ROLL_UPS)).fetchone()[0]
    if stale:
        yield f"{stale} hourly roll-ups differ from their readings"


def _tips(connection: sqlite3.Connection) -> Iterator[str]:
    stale = connection.execute(spelled(connection, _STALE_TIPS)).fetchone()[0]
    if stale:
        yield f"where its record ends differs from its readings, of probes: {stale}"


def _entities(connection: sqlite3.Connection) -> Iterator[str]:
    """What a fact is about is of the kind of its table."""
    for table in chain.fact_tables(seals.columns_of(connection)):
        strange = connection.execute(
            spelled(
                connection,
                f'SELECT count(*) FROM "{table}" AS fact JOIN entity ON entity.id = fact.entity_id '
                "WHERE entity.kind <> ?",
            ),
            (table,),
        ).fetchone()[0]
        if strange:
            yield f"{strange} rows of {table} are about something else"


def _counted(connection: sqlite3.Connection, columns: dict[str, tuple[str, ...]]) -> str:
    return ", ".join(
        f"{connection.execute(spelled(connection, f'SELECT {query}')).fetchone()[0]:,} {what}"
        for what, (table, query) in _COUNTED.items()
        if table in columns
    )


def _text(raw: Any) -> str:
    return bytes(raw).decode("utf-8", "surrogateescape")
