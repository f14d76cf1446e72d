"""Houses for tests: an empty one is made once and copied."""

from functools import cache
from pathlib import Path
from tempfile import TemporaryDirectory

from sandboa.records.connections import HouseDatabase
from sandboa.records.database import close_database, open_database


def open_empty_house(path: Path) -> HouseDatabase:
    """Open an empty house at `path`, as `open_database` would have made it."""
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_bytes(_empty_house())
    return open_database(path)


@cache
def _empty_house() -> bytes:
    with TemporaryDirectory() as folder:
        path = Path(folder) / "house.sqlite3"
        open_database(path)
        close_database()
        return path.read_bytes()
