"""Fixtures shared by all tests."""

from collections.abc import Iterator
from functools import partialmethod
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from hypothesis import settings

from houses import open_empty_house
from sandboa.services.snapshot.cache import SnapshotCache

# As a browser on the machine of the house asks; starlette's own name for it is no name of a house.
# Forms are changed whatever they hold: tests of revisions say what was seen.
TestClient.__init__ = partialmethod(  # type: ignore[method-assign,assignment]
    TestClient.__init__, base_url="http://localhost", headers={"If-Match": "*"}
)

# How long an example takes is the machine's business: benchmarks measure, tests do not.
settings.register_profile("sandboa", deadline=None)
settings.load_profile("sandboa")


@pytest.fixture
def house(tmp_path: Path) -> Iterator[SnapshotCache]:
    """An empty house, open."""
    opened = open_empty_house(tmp_path / "house.sqlite3")
    yield SnapshotCache()
    opened.close()
