"""Fixtures shared by all tests."""

import shutil
from collections.abc import Iterator
from functools import partialmethod
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from hypothesis import settings

from boxes import lay_six
from forked import furnished_once
from houses import hash_cheaply, keep_last_readings, open_empty_house
from samples import NOW_S
from sandboa.cli.house_folder import DATABASE
from sandboa.records.database import close_database, open_database
from sandboa.services.snapshot.cache import SnapshotCache

# As a browser on the machine of the house asks; starlette's own name for it is no name of a house.
# Forms are changed whatever they hold: tests of revisions say what was seen.
TestClient.__init__ = partialmethod(  # type: ignore[method-assign,assignment]
    TestClient.__init__, base_url="http://localhost", headers={"If-Match": "*"}
)

# How long an example takes is the machine's business: benchmarks measure, tests do not.
settings.register_profile("sandboa", deadline=None)
settings.load_profile("sandboa")

hash_cheaply()


@pytest.fixture(scope="session")
def demo_house(tmp_path_factory: pytest.TempPathFactory, worker_id: str) -> Path:
    """Folder of a demo house, made once for all workers; who changes it copies it before."""
    base = tmp_path_factory.getbasetemp()
    return furnished_once((base if worker_id == "master" else base.parent) / "furnished", NOW_S)


@pytest.fixture(scope="session")
def house_of_hours(demo_house: Path, tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The same with the readings of its last two hours, for tests that go through all it holds."""
    folder = Path(shutil.copytree(demo_house, tmp_path_factory.mktemp("hours") / "house"))
    open_database(folder / DATABASE)
    keep_last_readings()
    close_database()
    return folder


@pytest.fixture
def house(tmp_path: Path) -> Iterator[SnapshotCache]:
    """An empty house, open."""
    opened = open_empty_house(tmp_path / "house.sqlite3")
    yield SnapshotCache()
    opened.close()


@pytest.fixture
def six(house: SnapshotCache) -> SnapshotCache:
    """The house with clutch 26-01 in a box of perlite, as `boxes.lay_six` lays it."""
    lay_six()
    return house
