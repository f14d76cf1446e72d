"""Houses for tests: an empty one is made once and copied, and passphrases cost little."""

from functools import cache
from pathlib import Path
from tempfile import TemporaryDirectory

from pwdlib import PasswordHash
from pwdlib.hashers.argon2 import Argon2Hasher

from samples import NOW_S
from sandboa.records import readings
from sandboa.records.connections import HouseDatabase
from sandboa.records.database import close_database, database, open_database
from sandboa.records.integrity.proof import prove_all
from sandboa.services.people import signing_in


def open_empty_house(path: Path) -> HouseDatabase:
    """Open an empty house at `path`, as `open_database` would have made it."""
    return open_database(put_empty_house(path))


def put_empty_house(path: Path) -> Path:
    """Lay the file of an empty house at `path`; for whoever opens it."""
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_bytes(_empty_house())
    return path


@cache
def _empty_house() -> bytes:
    with TemporaryDirectory() as folder:
        path = Path(folder) / "house.sqlite3"
        open_database(path)
        close_database()
        return path.read_bytes()


def keep_last_readings() -> None:
    """Leave the open house two hours of readings: it is quick to read from end to end."""
    with database.atomic("IMMEDIATE"):
        database.execute_sql(f"DELETE FROM reading WHERE at_s < {int(NOW_S) - 7_200}")
        database.execute_sql("DELETE FROM reading_hour")
        readings.roll_up_everything()
        for probe in readings.tips():
            readings._find_tip(probe)
        prove_all(database.connection())
    database.execute_sql("VACUUM")


def hash_cheaply() -> None:
    """From here on this process hashes passphrases as ever, at the least cost argon2id knows.

    A hash is made to cost a fifth of a second, and tests make a thousand.
    """
    least = Argon2Hasher(time_cost=1, memory_cost=8, parallelism=1)
    signing_in._hasher = cache(lambda: PasswordHash((least,)))
