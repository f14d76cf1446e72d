"""Facts are read without the object mapper's work for each value, and are the same rows."""

import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest

from sandboa.cli.house_folder import DATABASE
from sandboa.records.database import close_database, open_database
from sandboa.records.facts import Fact, fact_tables


@pytest.fixture(autouse=True)
def house(demo_house: Path, tmp_path: Path) -> Iterator[None]:
    shutil.copytree(demo_house, tmp_path / "house")
    open_database(tmp_path / "house" / DATABASE)
    yield
    close_database()


def values(rows: list[Fact]) -> list[dict[str, tuple[type, object]]]:
    return [{n: (type(v), v) for n, v in row.__data__.items()} for row in rows]


def test_every_table_is_read_as_the_object_mapper_reads_it() -> None:
    seen = 0
    for table in fact_tables():
        mapped = list(table.select().where(table.superseded_by_id.is_null()).order_by(table.id))
        read = sorted(table.current(), key=lambda row: row.id)
        assert values(read) == values(mapped)
        assert read == mapped
        seen += len(read)
    assert seen > 500


def test_what_was_read_can_be_written() -> None:
    table = next(table for table in fact_tables() if len(table.current()) > 1)
    row = table.current()[0]
    assert not row.dirty_fields
    row.superseded_by_id = row.act_id
    assert row.save() == 1
    assert table.now(row.entity_id) is None
