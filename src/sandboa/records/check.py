"""Verifying a house's database and its photos, without changing either."""

import hashlib
import sqlite3
from collections.abc import Iterator
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path
from typing import Final

from sandboa.records.photos import FOLDER

#: What is counted, in words, and in which table; only current facts. A house of an earlier
#: version, or a copy from before a migration, lacks some.
_COUNTED: Final = {
    "acts": ("act", "count(*) FROM act"),
    "animals": ("animal", "count(*) FROM animal WHERE superseded_by IS NULL"),
    "clutches": ("clutch", "count(*) FROM clutch WHERE superseded_by IS NULL"),
    "eggs": ("egg", "count(*) FROM egg WHERE superseded_by IS NULL"),
    "readings": ("reading", "count(*) FROM reading"),
    "photos": ("photo", "count(DISTINCT file) FROM photo"),
}

_STALE_ROLL_UPS: Final = """
SELECT count(*) FROM (
  SELECT probe, at_s / 3600 AS hour, count(*) AS readings FROM reading GROUP BY 1, 2
) AS now FULL JOIN reading_hour AS kept USING (probe, hour)
WHERE now.readings IS NOT kept.readings
"""


@dataclass(frozen=True, slots=True)
class Checked:
    """`problems`, a sentence each, none when the house is sound; `found` tells what is in it."""

    problems: tuple[str, ...]
    found: str = ""


def check(path: Path) -> Checked:
    """Read the whole database at `path` and every photo beside it."""
    with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True)) as connection:
        try:
            known = {row[0] for row in connection.execute("SELECT name FROM sqlite_master")}
            if "act" not in known:
                return Checked(("not a Sandboa database: it holds no record of acts",))
            problems = [*_damage(connection, known)]
            if "photo" in known:
                problems += _photos(connection, path.parent / FOLDER)
            counts = [
                f"{connection.execute(f'SELECT {query}').fetchone()[0]:,} {what}"
                for what, (table, query) in _COUNTED.items()
                if table in known
            ]
        except sqlite3.DatabaseError as error:
            return Checked((f"not a Sandboa database: {error}",))
    return Checked(tuple(problems), ", ".join(counts))


def _damage(connection: sqlite3.Connection, known: set[str]) -> Iterator[str]:
    for (said,) in connection.execute("PRAGMA integrity_check"):
        if said != "ok":
            yield f"damaged: {said}"
    for table, rowid, parent, _ in connection.execute("PRAGMA foreign_key_check"):
        yield f"{table} row {rowid} points at a missing {parent}"
    if "reading_hour" not in known:
        return
    stale = connection.execute(_STALE_ROLL_UPS).fetchone()[0]
    if stale:
        yield f"{stale} hourly roll-ups differ from their readings"


def _photos(connection: sqlite3.Connection, folder: Path) -> Iterator[str]:
    """Every picture is named by its own content: a changed one gives itself away."""
    for (name,) in connection.execute("SELECT DISTINCT file FROM photo ORDER BY file"):
        picture, small = (folder / f"{name}{end}.jpg" for end in ("", "-small"))
        if not picture.is_file():
            yield f"the photo {name[:12]}... is missing"
        elif hashlib.sha256(picture.read_bytes()).hexdigest() != name:
            yield f"the photo {name[:12]}... is damaged"
        elif not small.is_file():
            yield f"the small picture of {name[:12]}... is missing"
