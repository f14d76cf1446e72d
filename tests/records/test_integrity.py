"""Whatever changes in the file behind Sandboa's back is found and named."""

import shutil
import sqlite3
from contextlib import closing
from pathlib import Path

import numpy as np
import pytest
from benchmarks.injected.flips import columns, flip
from hypothesis import given, settings
from hypothesis import strategies as st

from houses import keep_last_readings
from samples import NOW_S, lay_day
from sandboa.cli.house_folder import DATABASE
from sandboa.core.act_kinds import ActKind
from sandboa.records import held_readings, readings
from sandboa.records.connections import read_only
from sandboa.records.database import close_database, database, open_database
from sandboa.records.facts import Act
from sandboa.records.integrity import chain, checksums, seals
from sandboa.records.integrity.check import check, check_database
from sandboa.records.machine import BackupTried, note_backup, set_machine_setting
from sandboa.services.acts.recording import act, undo
from sandboa.services.animals.commands import AnimalCommand, add_animal, correct_animal
from sandboa.services.lay_day import lay_clutch
from sandboa.services.probes.commands import ProbePlace, hang_probe
from sandboa.services.readings.commands import store_readings


@pytest.fixture(scope="module")
def furnished(demo_house: Path, tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A house with something in most of its tables."""
    folder = tmp_path_factory.mktemp("whole")
    shutil.copytree(demo_house, folder / "house")
    path = folder / "house" / DATABASE
    open_database(path)
    animal = add_animal(AnimalCommand("dam", "Sorrel the second"), NOW_S)[0]
    undo(correct_animal(animal, AnimalCommand("dam", "Borage the second"), NOW_S).id, NOW_S)
    rows = [(int(NOW_S) - minute * 60, 31.0, None) for minute in range(300, 0, -1)]
    probe = readings.tips().popitem()[0]
    undo(store_readings(probe, rows, "csv", "log.csv", NOW_S).act.id, NOW_S)
    with database.atomic("IMMEDIATE"):
        held_readings.hold(probe, rows[:5], NOW_S, held_readings.AHEAD, 900.0)
    keep_last_readings()
    close_database()
    assert check(path).problems == ()
    return path


def test_a_bit_flipped_in_any_column_of_any_table_is_told(furnished: Path, tmp_path: Path) -> None:
    untold = []
    every = columns(furnished)
    assert len(every) > 200
    for number, (table, name) in enumerate(every):
        copy = tmp_path / "flipped.sqlite3"
        shutil.copy(furnished, copy)
        value = flip(copy, table, name, number)
        if not check_database(copy).problems:
            untold.append((table, name, value))
    assert untold == []


def test_what_went_missing_is_told(furnished: Path, tmp_path: Path) -> None:
    copy = tmp_path / "less.sqlite3"
    shutil.copy(furnished, copy)
    with closing(sqlite3.connect(copy)) as house, house:
        house.execute("DELETE FROM turgor WHERE id = (SELECT max(id) FROM turgor)")
    (problem,) = check_database(copy).problems
    assert "is not what was recorded" in problem


def test_a_check_leaves_nothing_beside_what_it_read(furnished: Path) -> None:
    before = sorted(file.name for file in furnished.parent.iterdir())
    check(furnished)
    assert sorted(file.name for file in furnished.parent.iterdir()) == before


def hashes() -> list[str]:
    return [row.hash for row in Act.select().order_by(Act.id)]


def add_and_fail() -> None:
    with act(ActKind.ANIMAL, "never", NOW_S):
        add_animal(AnimalCommand("dam", "Lovage"), NOW_S)
        raise ValueError("never happened")


def test_whoever_reads_meanwhile_meets_every_row_with_its_own_seal(house, monkeypatch) -> None:
    """A backup may be taken between any two statements."""
    path = Path(database.database)
    run, found = database.obj.execute_sql, []

    def looked_at(*statement):
        try:
            return run(*statement)
        finally:
            with closing(read_only(path)) as other:
                found.extend(seals.problems(other))

    monkeypatch.setattr(database.obj, "execute_sql", looked_at)
    set_machine_setting("folder", "/elsewhere")
    set_machine_setting("folder", "/somewhere")
    note_backup(NOW_S, "copy", 12, 0, "")
    BackupTried.change(BackupTried.size == 12, size=13)
    tried = BackupTried.get()
    tried.size = 14
    tried.save()
    assert found == []


def test_no_row_is_sealed_outside_the_transaction_that_wrote_it(house) -> None:
    with pytest.raises(RuntimeError, match="backup_tried is sealed outside"):
        seals.reseal(database.connection(), "backup_tried")


def test_acts_that_are_rolled_back_leave_the_chain_whole(house, tmp_path: Path) -> None:
    lay_clutch(lay_day(), NOW_S)
    before = hashes()
    with pytest.raises(ValueError, match="never happened"):
        add_and_fail()
    assert hashes() == before
    add_animal(AnimalCommand("dam", "Tansy"), NOW_S)
    assert list(chain.problems(database.connection())) == []


def test_the_chain_built_anew_is_the_chain_that_grew(house) -> None:
    lay_clutch(lay_day(), NOW_S)
    dam = add_animal(AnimalCommand("dam", "Hyssop"), NOW_S)[0]
    undo(correct_animal(dam, AnimalCommand("dam", "Costmary"), NOW_S).id, NOW_S)
    grown = hashes()
    with database.atomic("IMMEDIATE"):
        chain.seal_all(database.connection())
    assert hashes() == grown
    assert all(len(made) == 64 for made in grown)
    assert len(set(grown)) == len(grown)


@pytest.fixture(scope="module")
def with_probe(tmp_path_factory) -> tuple[Path, int]:
    """A house with one probe, closed, and the probe."""
    path = tmp_path_factory.mktemp("with-probe") / DATABASE
    open_database(path)
    lay_clutch(lay_day(9.0), NOW_S)
    probe = hang_probe("Lower", ProbePlace("26-01"), NOW_S - 9 * 86_400, NOW_S)[0].entity_id
    close_database()
    return path, probe


@settings(max_examples=30)
@given(st.lists(st.integers(0, 3), min_size=1, max_size=8))
def test_however_readings_come_in_their_days_add_up(
    tmp_path_factory, with_probe: tuple[Path, int], cuts: list[int]
) -> None:
    """At once, one by one, twice, taken out and put back."""
    folder = tmp_path_factory.mktemp("days")
    made, probe = with_probe
    shutil.copy(made, folder / DATABASE)
    open_database(folder / DATABASE)
    base = int(NOW_S) - 3 * 86_400
    for number, cut in enumerate(cuts):
        rows = [(base + 7_200 * (3 * number + k), 30.0 + k, 0.9) for k in range(5 + cut)]
        taken = store_readings(probe, rows, "csv", f"{number}.csv", NOW_S)
        if cut == 1 and taken.act:
            undo(undo(taken.act.id, NOW_S).id, NOW_S)
        if cut == 2 and taken.act:
            undo(taken.act.id, NOW_S)
    close_database()
    assert check(folder / DATABASE).problems == ()


@given(
    st.lists(st.tuples(st.integers(0, 2**40), st.floats(-20, 60)), min_size=1, max_size=20),
    st.integers(0, 19),
    st.integers(0, 51),
)
def test_a_checksum_sees_one_bit_and_not_the_order(
    rows: list[tuple[int, float]], at: int, bit: int
) -> None:
    def total(of: list[tuple[int, float]]) -> int:
        times, values = zip(*of, strict=True)
        return checksums.total(
            checksums.of_rows([checksums.whole_numbers(times), checksums.numbers(values)])
        )

    assert total(rows) == total(rows[::-1])
    at %= len(rows)
    time_s, value = rows[at]
    changed = np.float64(value + 0.0).view(np.int64) ^ np.int64(1 << bit)
    other = [*rows[:at], (time_s, float(changed.view(np.float64))), *rows[at + 1 :]]
    assert total(other) != total(rows)


def test_nothing_measured_is_not_the_same_as_zero() -> None:
    assert checksums.numbers([None])[0] != checksums.numbers([0.0])[0]
    # SQLite gives a zero back without its sign.
    assert checksums.numbers([-0.0])[0] == checksums.numbers([0.0])[0]
