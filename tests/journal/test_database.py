"""The database file: constraints hold by themselves, old files are copied before a change."""

import sqlite3
from pathlib import Path

import pytest

from samples import NOW_S, lay_day
from sandboa.journal.lay_day import lay_clutch
from sandboa.records import database as opening
from sandboa.records.database import DatabaseTooNew, back_up, check, open_database


@pytest.fixture
def path(tmp_path: Path) -> Path:
    open_database(tmp_path / "house.sqlite3")
    lay_clutch(lay_day(), NOW_S)
    opening.database.close()
    return tmp_path / "house.sqlite3"


def test_what_must_hold_is_refused_by_sqlite_itself(path: Path) -> None:
    connection = sqlite3.connect(path)
    connection.execute("PRAGMA foreign_keys = ON")
    for broken in (
        "INSERT INTO turgor (entity, act, egg, seen_s, grade) VALUES (1, 1, 1, 0, 9)",
        "INSERT INTO turgor (entity, act, egg, seen_s, grade) VALUES (1, 1, 99999, 0, 1)",
        "INSERT INTO reading VALUES (1, 0, 451.0, NULL, 1)",
        "INSERT INTO reading VALUES (1, 'noon', 30.0, NULL, 1)",
        "UPDATE set_point SET temperature_c = 99",
        "INSERT INTO clutch SELECT 99, entity, act, NULL, code, dam, sire, laid_s FROM clutch",
    ):
        with pytest.raises(sqlite3.IntegrityError):
            connection.execute(broken)
    connection.close()


def test_an_old_database_is_backed_up_then_migrated(
    path: Path, tmp_path: Path, monkeypatch
) -> None:
    migrations = tmp_path / "migrations"
    migrations.mkdir()
    for old in opening._MIGRATIONS.glob("0*.py"):
        (migrations / old.name).write_text(old.read_text())
    (migrations / "0999_later.py").write_text(
        "def up(migrator, db):\n    db.execute_sql('CREATE TABLE later (id INTEGER) STRICT')\n"
    )
    monkeypatch.setattr(opening, "_MIGRATIONS", migrations)
    open_database(path).close()
    backup = tmp_path / "house.sqlite3.before-0999_later"
    for file, has_it in ((path, 1), (backup, 0)):
        connection = sqlite3.connect(file)
        query = "SELECT count(*) FROM sqlite_master WHERE name = 'later'"
        assert connection.execute(query).fetchone()[0] == has_it
        assert connection.execute("SELECT code FROM clutch").fetchall() == [("26-01",)]
        connection.close()
    monkeypatch.undo()
    with pytest.raises(DatabaseTooNew, match="newer"):
        open_database(path)


def test_a_backup_is_whole_and_never_overwrites(path: Path, tmp_path: Path) -> None:
    back_up(path, tmp_path / "copy.sqlite3")
    assert check(tmp_path / "copy.sqlite3") == []
    with pytest.raises(FileExistsError):
        back_up(path, tmp_path / "copy.sqlite3")


def test_check_finds_damage(path: Path, tmp_path: Path) -> None:
    connection = sqlite3.connect(path)
    connection.execute("INSERT INTO reading VALUES (1, 7200, 30.0, NULL, 1)")
    connection.execute("UPDATE clutch SET dam = 4242")
    connection.commit()
    connection.close()
    found = " ".join(check(path))
    assert "roll-ups" in found
    assert "clutch row 1" in found
    (tmp_path / "letter.txt").write_text("Dear keeper, this is no database at all. " * 9)
    assert "not a Sandboa database" in check(tmp_path / "letter.txt")[0]
