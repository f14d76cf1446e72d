"""The database file: constraints hold by themselves, old files are copied before a change."""

import shutil
import sqlite3
from pathlib import Path

import pytest
from peewee import IntegrityError

from samples import NOW_S, lay_day
from sandboa.core.act_kinds import ActKind
from sandboa.records import database as opening
from sandboa.records import held_readings, readings
from sandboa.records.clutches import Box, Clutch, Egg
from sandboa.records.copies.backups import back_up
from sandboa.records.database import DatabaseTooNew, open_database
from sandboa.records.facts import Act, newest_act
from sandboa.records.integrity import check as checking
from sandboa.records.integrity.check import check
from sandboa.services.acts.errors import Conflict
from sandboa.services.acts.recording import act, undo
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.lay_day import lay_clutch
from sandboa.services.snapshot.cache import SnapshotCache


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
        "INSERT INTO turgor (entity_id, act_id, egg_id, seen_s, grade) VALUES (1, 1, 1, 0, 9)",
        "INSERT INTO turgor (entity_id, act_id, egg_id, seen_s, grade) VALUES (1, 1, 99999, 0, 1)",
        "INSERT INTO reading VALUES (1, 0, 451.0, NULL, 1)",
        "INSERT INTO reading VALUES (1, 'noon', 30.0, NULL, 1)",
        "UPDATE set_point SET temperature_c = 99",
        "INSERT INTO clutch SELECT 99, entity_id, act_id, NULL, code, dam_id, sire_id, laid_s "
        "FROM clutch",
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


#: A house as the first version left it: one box, corrected once.
_FIRST_HOUSE = """
    INSERT INTO entity VALUES (1, 'animal'), (2, 'clutch'), (3, 'cabinet'), (4, 'shelf');
    INSERT INTO entity VALUES (5, 'box'), (6, 'set_point');
    INSERT INTO act VALUES (1, 'lay', 'laid', 1000, 2, NULL);
    INSERT INTO act VALUES (2, 'lay', 'corrected', 2000, 2, NULL);
    INSERT INTO animal VALUES (1, 1, 1, NULL, 'dam', 'Sorrel');
    INSERT INTO clutch VALUES (1, 2, 1, NULL, '26-01', 1, NULL, 900);
    INSERT INTO cabinet VALUES (1, 3, 1, NULL, 'North');
    INSERT INTO set_point VALUES (1, 6, 1, NULL, 3, 0, 31.5);
    INSERT INTO shelf VALUES (1, 4, 1, NULL, 3, 'lower', 1);
    INSERT INTO box VALUES (1, 5, 1, 2, 2, 4, 'perlite', 200, 200, 'sealed film');
    INSERT INTO box VALUES (2, 5, 2, NULL, 2, 4, 'perlite', 210, 200, 'sealed film');
    INSERT INTO entity VALUES (7, 'egg');
    INSERT INTO egg VALUES (1, 7, 1, NULL, 2, 1, 0.4, 0.5, 0, 'smooth');
"""


def test_a_house_of_the_first_version_keeps_its_boxes(tmp_path: Path, monkeypatch) -> None:
    first = tmp_path / "first"
    first.mkdir()
    (old,) = opening._MIGRATIONS.glob("0001*.py")
    (first / old.name).write_text(old.read_text())
    monkeypatch.setattr(opening, "_MIGRATIONS", first)
    path = tmp_path / "house.sqlite3"
    open_database(path).close()
    with sqlite3.connect(path) as connection:
        connection.executescript(_FIRST_HOUSE)
    connection.close()
    monkeypatch.undo()
    open_database(path)
    assert check(path).problems == ()
    boxes = [(b.id, b.superseded_by_id, b.dry_mass_g, b.contact) for b in Box.select()]
    assert boxes == [(1, 2, 200.0, None), (2, None, 210.0, None)]
    page = clutch_page(SnapshotCache().current(), "26-01", NOW_S)
    assert (page.now.dam, page.now.box.box.closing, page.now.box.box.medium) == (
        "Sorrel",
        "sealed film",
        "perlite",
    )
    opening.database.close()
    (backup,) = tmp_path.glob("house.sqlite3.before-*")
    with sqlite3.connect(backup) as connection:
        assert connection.execute("SELECT count(*) FROM box").fetchone() == (2,)
    connection.close()


_SECOND_HOUSE = """
    INSERT INTO entity VALUES (1, 'clutch'), (2, 'cabinet'), (3, 'probe'), (4, 'batch');
    INSERT INTO act VALUES (1, 'probe', 'Probe Low hung', 1000, NULL, NULL);
    INSERT INTO cabinet VALUES (1, 2, 1, NULL, 'North');
    INSERT INTO probe VALUES (1, 3, 1, NULL, 'Low', 2, 1000, 1, 0);
    INSERT INTO reading VALUES (3, 3600, 31.0, 0.6, 4), (3, 3660, 31.2, NULL, 4);
    INSERT INTO reading_hour VALUES (3, 1, 2, 31.0, 31.1, 31.2, 0.6);
"""


def test_a_house_of_the_second_version_gets_the_ends_of_its_records(
    tmp_path: Path, monkeypatch
) -> None:
    """Readings that were there before live intake are found, extended and drawn as any."""
    second = tmp_path / "second"
    second.mkdir()
    for number in ("0001", "0002"):
        (old,) = opening._MIGRATIONS.glob(f"{number}*.py")
        (second / old.name).write_text(old.read_text())
    monkeypatch.setattr(opening, "_MIGRATIONS", second)
    path = tmp_path / "house.sqlite3"
    open_database(path).close()
    with sqlite3.connect(path) as connection:
        connection.executescript(_SECOND_HOUSE)
    connection.close()
    monkeypatch.undo()
    open_database(path)
    assert check(path).problems == ()
    tip = readings.tip(3)
    assert tip is not None
    assert (tip.readings, tip.last_s, tip.last_c, tip.last_humidity) == (2, 3660, 31.2, None)
    house = SnapshotCache()
    assert len(house.current().readings.single(3, 0, 9999)) == 2
    with opening.database.atomic():
        readings.store(3, readings.LIVE, [(3720, 31.3, 0.61)], 4000)
    assert house.current().readings.single(3, 0, 9999)[:, 1].tolist() == [31.0, 31.2, 31.3]
    facts = house.current()
    assert facts.probe(3).locations.at(5000) == 2
    assert facts.cabinets[2].kind == "bought"
    opening.database.close()


def test_check_says_what_it_found_also_in_a_copy_of_an_earlier_version(
    path: Path, tmp_path: Path, monkeypatch
) -> None:
    assert check(path).found.startswith("1 acts, 2 animals, 1 clutches, 6 eggs, ")
    first = tmp_path / "first"
    first.mkdir()
    (old,) = opening._MIGRATIONS.glob("0001*.py")
    (first / old.name).write_text(old.read_text())
    monkeypatch.setattr(opening, "_MIGRATIONS", first)
    earlier = tmp_path / "earlier.sqlite3"
    open_database(earlier).close()
    checked = check(earlier)
    assert checked.problems == ()
    assert "0 acts" in checked.found


def test_a_backup_is_whole_and_never_overwrites(path: Path, tmp_path: Path) -> None:
    back_up(path, tmp_path / "copy.sqlite3", 0.0)
    assert check(tmp_path / "copy.sqlite3").problems == ()
    with pytest.raises(FileExistsError):
        back_up(path, tmp_path / "copy.sqlite3", 0.0)


def test_check_finds_damage(path: Path, tmp_path: Path) -> None:
    connection = sqlite3.connect(path)
    connection.execute("INSERT INTO reading VALUES (1, 7200, 30.0, NULL, 1)")
    connection.execute("UPDATE clutch SET dam_id = 4242")
    connection.commit()
    connection.close()
    found = " ".join(check(path).problems)
    assert "roll-ups" in found
    assert "clutch row 1" in found
    (tmp_path / "letter.txt").write_text("Dear keeper, this is no database at all. " * 9)
    assert "not a Sandboa database" in check(tmp_path / "letter.txt").problems[0]


def test_a_statement_that_was_kept_finds_what_a_built_one_finds(house: SnapshotCache) -> None:
    """Facts are asked for by equal columns mostly; anything else goes the way of peewee."""
    lay_clutch(lay_day(), NOW_S)
    (laid,) = Clutch.current()
    # A correction: the row before it holds no longer.
    with act(ActKind.LAY, "corrected", NOW_S) as correcting:
        laid.correct(correcting, code="26-09")
    assert [c.code for c in Clutch.current()] == ["26-09"]
    for having, query in (
        ({"clutch_id": laid.entity_id}, Egg.clutch_id == laid.entity_id),
        ({"clutch_id": laid.entity_id, "number": 3}, Egg.number == 3),
        ({"number": [3, 4, 77]}, Egg.number << [3, 4, 77]),
        ({"number": []}, Egg.number << []),
        ({"mass_g": None, "slug": False}, Egg.mass_g.is_null() & (Egg.slug == 0)),
        ({"clutch_id": "nothing of the kind"}, Egg.number == 99),
    ):
        built = Egg.select().where(Egg.superseded_by_id.is_null(), query)
        assert Egg.current(**having) == list(built)
    with pytest.raises(TypeError, match="egg has no column clutch"):
        Egg.current(clutch=laid.entity_id)
    with pytest.raises(TypeError, match="egg has no column clutch"):
        Egg.create(clutch=laid.entity_id, act_id=1, entity_id=1)
    assert [c.code for c in Clutch.ever(entity_id=laid.entity_id)] == ["26-01", "26-09"]
    assert [c.code for c in Clutch.since(laid.act_id)] == ["26-09"]
    assert Clutch.since(newest_act()) == []
    three = Egg.only(clutch_id=laid.entity_id, number=3)
    assert three is not None
    assert three.values() == Egg.get_by_id(three.id).values()


def test_a_row_that_was_created_is_the_row_that_is_read(house: SnapshotCache) -> None:
    made = Act.create(kind="note", summary='it\'s a "note"; DROP TABLE act', recorded_s=7)
    read = Act.get_by_id(made.id)
    assert read.__data__ == {
        **made.__data__,
        "message": None,
        "at_s": None,
        "clutch_id": None,
        "undoes_id": None,
        "person_id": None,
    }
    made.summary = "said better"
    made.save()
    assert Act.get_by_id(made.id).summary == "said better"
    with pytest.raises(IntegrityError):
        Act.create(kind="note")


def up_to(number: str, tmp_path: Path, monkeypatch) -> Path:
    """A house of the version whose last migration has that number, closed."""
    folder = tmp_path / f"migrations-{number}"
    folder.mkdir()
    for old in sorted(opening._MIGRATIONS.glob("0*.py")):
        if old.name[:4] <= number:
            (folder / old.name).write_text(old.read_text())
    monkeypatch.setattr(opening, "_MIGRATIONS", folder)
    path = tmp_path / "house.sqlite3"
    open_database(path)
    opening.close_database()
    monkeypatch.undo()
    return path


def test_held_readings_at_times_no_clock_shows_are_cleared_and_the_log_says_so(
    tmp_path: Path, monkeypatch
) -> None:
    path = up_to("0008", tmp_path, monkeypatch)
    with sqlite3.connect(path) as connection:
        connection.executescript(
            """INSERT INTO entity VALUES (1, 'cabinet'), (2, 'probe');
            INSERT INTO act (id, kind, summary, recorded_s) VALUES (1, 'probe', 'hung', 1000);
            INSERT INTO cabinet (id, entity, act, name) VALUES (1, 1, 1, 'North');
            INSERT INTO probe (id, entity, act, name, place, since_s, checked, by_hand)
            VALUES (1, 2, 1, 'Low', 1, 9, 0, 0);
            INSERT INTO held_reading VALUES (2, 253402387139, 31.5, NULL, 2000, 'ahead', 7, NULL);
            INSERT INTO held_reading VALUES (2, 500, 31.0, NULL, 2000, 'before', 0, NULL);
            INSERT INTO held_reading VALUES (2, 1000000000, 31.0, NULL, 2000, 'before', 0, NULL);"""
        )
    connection.close()
    open_database(path)
    assert [(h.count, h.first_s) for h in held_readings.held()] == [(1, 1_000_000_000)]
    cleared, never_set = Act.select().where(Act.kind == "cleared").order_by(Act.id)
    assert "1 held reading taken out: the clock of their device" in never_set.summary
    assert "1 held reading of Low taken out" in cleared.summary
    assert "31.5 °C at second 253402387139" in cleared.summary
    with pytest.raises(Conflict, match="copy made before"):
        undo(cleared.id, NOW_S)
    opening.close_database()


def test_a_start_killed_after_its_copy_opens_again_and_keeps_one_copy(
    path: Path, tmp_path: Path, monkeypatch
) -> None:
    migrations = tmp_path / "migrations"
    migrations.mkdir()
    for old in opening._MIGRATIONS.glob("0*.py"):
        (migrations / old.name).write_text(old.read_text())
    later = migrations / "0999_later.py"
    later.write_text("def up(migrator, db):\n    raise SystemExit('killed')\n")
    monkeypatch.setattr(opening, "_MIGRATIONS", migrations)
    monkeypatch.setattr(checking, "MIGRATIONS", migrations)
    for _ in range(3):
        with pytest.raises(SystemExit):
            open_database(path)
    assert len(list(path.parent.glob("*.before-0999_later*"))) == 1
    # An older version runs on it meanwhile; the copy of before stays, another is made.
    with sqlite3.connect(path) as connection:
        connection.execute("INSERT INTO act (kind, summary, recorded_s) VALUES ('x', 'y', 1)")
    connection.close()
    later.write_text("def up(migrator, db):\n    db.execute_sql('CREATE TABLE later (id)')\n")
    open_database(path)
    opening.close_database()
    names = sorted(p.name for p in path.parent.glob("*.before-0999_later*"))
    assert names == ["house.sqlite3.before-0999_later", "house.sqlite3.before-0999_later-2"]
    # The copy put back in its place is a house again.
    shutil.copy(path.parent / names[0], path)
    open_database(path)
    assert check(path).problems == ()
    opening.close_database()
