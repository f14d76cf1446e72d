"""The application over an empty house, spoken to through HTTP."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from houses import put_empty_house
from samples import NOW_S
from sandboa.records.database import database
from sandboa.web.app import create_app
from sandboa.web.clock import StoppedClock


@pytest.fixture
def clock() -> StoppedClock:
    return StoppedClock(NOW_S)


@pytest.fixture
def http(tmp_path: Path, clock: StoppedClock) -> Iterator[TestClient]:
    with TestClient(create_app(put_empty_house(tmp_path / "house.sqlite3"), clock)) as client:
        yield client
    database.close()
