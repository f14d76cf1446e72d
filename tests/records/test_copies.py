"""Copies: complete and proven or not there, pruned, put back whole whatever comes between."""

import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path

import pytest

from samples import NOW_S, lay_day
from sandboa.cli import main
from sandboa.cli.house_folder import DATABASE
from sandboa.core.people import Role
from sandboa.formats.data_package import write_package
from sandboa.records.clutches import Clutch
from sandboa.records.copies import backups, copying, photo_files, restoring
from sandboa.records.copies.backups import NotBackedUp, back_up, back_up_into, backups_in
from sandboa.records.copies.restoring import NotRestored, carry_on, restore
from sandboa.records.copies.what_lets_in import carried_over
from sandboa.records.database import close_database, open_database
from sandboa.records.house import Animal
from sandboa.records.integrity.check import check
from sandboa.records.people import Person
from sandboa.services.animals.commands import AnimalCommand, add_animal
from sandboa.services.clutches.photos import PhotoCommand, Picture, attach
from sandboa.services.lay_day import lay_clutch
from sandboa.services.people import commands as people
from sandboa.services.people import signing_in
from sandboa.services.probes import devices

DAY_S = 86_400.0


def photo_of(name: bytes) -> None:
    (clutch,) = Clutch.current()
    attach(PhotoCommand(clutch.entity_id, Picture(name, b"small", 1, 1), NOW_S), NOW_S)


@pytest.fixture
def house(tmp_path: Path) -> Iterator[Path]:
    """A house with one clutch and one photo, closed."""
    path = tmp_path / "house" / DATABASE
    open_database(path)
    lay_clutch(lay_day(), NOW_S)
    photo_of(b"first")
    close_database()
    yield path
    close_database()


def add_dam(house: Path, name: str, picture: bytes | None = None) -> None:
    open_database(house)
    add_animal(AnimalCommand("dam", name), NOW_S)
    if picture is not None:
        photo_of(picture)
    close_database()


def dams(house: Path) -> set[str]:
    open_database(house)
    names = {animal.name for animal in Animal.current() if animal.role == "dam"}
    close_database()
    return names


def contents(house: Path, tmp_path: Path) -> bytes:
    """The export of a house: equal houses have equal ones."""
    open_database(house)
    target = tmp_path / "contents.zip"
    write_package(target, NOW_S)
    close_database()
    return target.read_bytes()


def files(folder: Path) -> set[str]:
    return {str(file.relative_to(folder)) for file in folder.rglob("*") if file.is_file()}


def test_each_backup_is_whole_and_unchanged_photos_are_not_copied_again(
    house: Path, tmp_path: Path
) -> None:
    folder = tmp_path / "second disk"
    folder.mkdir()
    first = back_up_into(house, folder, NOW_S)
    assert (first.photos, first.troubles) == (1, ())
    (picture,) = [f for f in (folder / "photos").iterdir() if "small" not in f.name]
    written = picture.stat().st_mtime_ns
    add_dam(house, "Tansy", b"second")
    second = back_up_into(house, folder, NOW_S + DAY_S)
    assert second.photos == 2
    assert picture.stat().st_mtime_ns == written
    assert [made.file for made in backups_in(folder)] == [second.file, first.file]
    assert all(check(made.file).problems == () for made in (first, second))
    assert not [name for name in files(folder) if name.endswith((".part", "-wal", "-shm"))]


def test_old_backups_go_with_the_photos_nobody_speaks_of(house: Path, tmp_path: Path) -> None:
    folder = tmp_path / "disk"
    folder.mkdir()
    for night in range(40):
        back_up_into(house, folder, NOW_S + night * DAY_S)
    held = backups_in(folder)
    assert 10 <= len(held) <= 14
    shutil.copy(held[0].file, folder / "mine.sqlite3")
    stray = folder / "photos" / ("e" * 64 + ".jpg")
    stray.write_bytes(b"of a copy that is gone")
    back_up_into(house, folder, NOW_S + 40 * DAY_S)
    assert (folder / "mine.sqlite3").exists()
    assert not stray.exists()
    assert all(check(made.file).problems == () for made in backups_in(folder))


@pytest.mark.parametrize("step", ["copy_database", "gather", "check_database", "rename_durably"])
def test_a_backup_that_ends_half_way_has_no_name(
    house: Path, tmp_path: Path, monkeypatch, step: str
) -> None:
    def fails(*_) -> None:
        raise OSError("no space left on device")

    folder = tmp_path / "disk"
    folder.mkdir()
    monkeypatch.setattr(backups, step, fails)
    with pytest.raises(NotBackedUp, match="no space left"):
        back_up_into(house, folder, NOW_S)
    assert backups_in(folder) == []
    assert not list(folder.glob("*.sqlite3*"))
    monkeypatch.undo()
    # A kill leaves what an error takes away again.
    (folder / "house-2026-06-14T18-30-00Z.sqlite3.part").write_bytes(b"half")
    assert back_up_into(house, folder, NOW_S).photos == 1
    assert not list(folder.glob("*.part"))


def test_a_damaged_house_is_not_copied_as_if_it_were_sound(house: Path, tmp_path: Path) -> None:
    with closing(sqlite3.connect(house)) as opened, opened:
        opened.execute("UPDATE egg_stay SET x = x / 2")
    with pytest.raises(NotBackedUp, match="is not what was recorded"):
        back_up(house, tmp_path / "copy.sqlite3", NOW_S)
    assert not (tmp_path / "copy.sqlite3").exists()


def test_a_missing_photo_keeps_no_backup_from_being_made(house: Path, tmp_path: Path) -> None:
    for file in (house.parent / "photos").iterdir():
        file.unlink()
    made = back_up(house, tmp_path / "copy.sqlite3", NOW_S)
    assert made.photos == 0
    assert "is missing" in made.troubles[0]


def test_a_backup_leaves_room_for_recording(house: Path, tmp_path: Path, monkeypatch) -> None:
    full = shutil.disk_usage(tmp_path)._replace(free=10 * 2**20)
    monkeypatch.setattr(shutil, "disk_usage", lambda _: full)
    with pytest.raises(NotBackedUp, match="has 10 MB left"):
        back_up(house, tmp_path / "copy.sqlite3", NOW_S)


def test_copies_before_migrations_are_pruned_the_same_way(house: Path) -> None:
    import os

    copies = []
    for day in range(30):
        copy = house.with_name(f"{house.name}.before-00{day:02}_something")
        copy.write_bytes(b"copy")
        os.utime(copy, (NOW_S - day * DAY_S,) * 2)
        copies.append(copy)
    gone = backups.prune_before_migrations(house)
    assert copies[0].exists()
    assert 15 <= len(gone) <= 22


def test_restored_a_house_is_equal_to_what_it_was(house: Path, tmp_path: Path, capsys) -> None:
    before = contents(house, tmp_path)
    copy = tmp_path / "copy.sqlite3"
    assert main(["backup", str(copy), "--data", str(house.parent)]) == 0
    add_dam(house, "Tansy", b"second")
    later = contents(house, tmp_path)
    capsys.readouterr()
    assert main(["restore", str(copy), "--data", str(house.parent)]) == 0
    said = capsys.readouterr().out
    assert "restored and checked: 2 acts" in said
    assert contents(house, tmp_path) == before
    # And back again, by the command that was printed.
    (aside,) = house.parent.glob("replaced-*")
    assert f"sandboa restore '{aside / DATABASE}'" in said
    assert main(["restore", str(aside / DATABASE), "--data", str(house.parent)]) == 0
    assert contents(house, tmp_path) == later
    assert check(house).problems == ()


def test_what_the_log_beside_a_killed_house_holds_goes_aside_with_it(
    house: Path, tmp_path: Path
) -> None:
    copy = back_up(house, tmp_path / "copy.sqlite3", NOW_S).file
    opened = open_database(house)
    add_animal(AnimalCommand("dam", "Tansy"), NOW_S)
    killed = tmp_path / "killed"
    shutil.copytree(house.parent, killed)
    opened.close()
    assert (killed / f"{DATABASE}-wal").stat().st_size > 0
    restored = restore(copy, killed / DATABASE, NOW_S)
    assert restored.aside is not None
    assert dams(killed / DATABASE) == {"Sorrel"}
    assert "Tansy" in dams(restored.aside / DATABASE)


def test_a_restore_killed_anywhere_is_done_or_undone_at_the_next_start(
    house: Path, tmp_path: Path, monkeypatch
) -> None:
    """Every file operation of a restore in turn is the last one that happens."""
    copy = back_up(house, tmp_path / "copy.sqlite3", NOW_S).file
    add_dam(house, "Tansy", b"second")
    before = contents(house, tmp_path)
    done, undone, step = 0, 0, 0
    finished = False
    while not finished:
        killed = tmp_path / f"killed-{step}"
        shutil.copytree(house.parent, killed)
        with monkeypatch.context() as patched:
            finished = not _killed_at(patched, step, copy, killed / DATABASE)
        assert dams(killed / DATABASE) in ({"Sorrel"}, {"Sorrel", "Tansy"})
        assert check(killed / DATABASE).problems == ()
        assert not list(killed.glob("restoring*"))
        if dams(killed / DATABASE) == {"Sorrel"}:
            done += 1
            (aside,) = killed.glob("replaced-*")
            restore(aside / DATABASE, killed / DATABASE, NOW_S)
        else:
            undone += 1
        assert contents(killed / DATABASE, tmp_path) == before
        step += 1
    assert done > 3
    assert undone > 3


class Killed(BaseException):
    """As kill -9: nothing that follows is done, no cleaning up either."""


def _killed_at(patched, step: int, copy: Path, house: Path) -> bool:
    """Restore, ended before the `step`-th rename, removal or copy; whether it was ended at all."""
    count = 0

    def counted(real):
        def operation(*given, **named):
            nonlocal count
            if count == step:
                raise Killed
            count += 1
            return real(*given, **named)

        return operation

    for module, name in (
        (restoring, "rename_durably"), (restoring, "copy_database"), (restoring, "gather"),
        (photo_files, "rename_durably"), (restoring, "write_durably"),
    ):  # fmt: skip
        patched.setattr(module, name, counted(getattr(module, name)))
    real_removal = shutil.rmtree

    def removal(path, **named):
        # What is cleaned up while the kill is under way does not happen.
        if count <= step and not _under_way(count, step):
            real_removal(path, **named)

    def _under_way(count: int, step: int) -> bool:
        import sys

        return count == step and isinstance(sys.exc_info()[1], Killed)

    patched.setattr(restoring.shutil, "rmtree", removal)
    try:
        restore(copy, house, NOW_S)
    except Killed:
        return True
    return False


def test_what_is_no_copy_or_a_damaged_one_leaves_the_house_alone(
    house: Path, tmp_path: Path, capsys
) -> None:
    before = files(house.parent)
    letter = tmp_path / "letter.sqlite3"
    letter.write_text("this is a letter, not a database. " * 40)
    for copy in (letter, tmp_path / "nothing.sqlite3"):
        assert main(["restore", str(copy), "--data", str(house.parent)]) == 2
        assert "The house is as it was" in capsys.readouterr().err
    damaged = back_up(house, tmp_path / "copy.sqlite3", NOW_S).file
    with closing(sqlite3.connect(damaged)) as opened, opened:
        opened.execute("UPDATE egg_stay SET x = x / 2")
    with pytest.raises(NotRestored, match="is not what was recorded"):
        restore(damaged, house, NOW_S)
    assert files(house.parent) - {f"{DATABASE}.lock"} == before
    assert dams(house) == {"Sorrel"}


def test_a_served_house_is_not_replaced_under_its_server(house: Path, tmp_path: Path) -> None:
    from forked import started

    copy = back_up(house, tmp_path / "copy.sqlite3", NOW_S).file
    with started("serve", "--data", str(house.parent)):
        assert main(["restore", str(copy), "--data", str(house.parent)]) == 2
    assert not list(house.parent.glob("replaced-*"))


def test_a_copy_goes_into_an_empty_folder_and_nobody_is_signed_in(
    house: Path, tmp_path: Path
) -> None:
    open_database(house)
    keeper = people.add_person("Linden", Role.KEEPER, NOW_S)[0]
    signing_in.set_passphrase(keeper.entity_id, "seven dry leaves", NOW_S)
    token = signing_in.sign_in("Linden", "seven dry leaves", "phone", NOW_S)
    close_database()
    copy = back_up(house, tmp_path / "copy.sqlite3", NOW_S).file
    there = tmp_path / "there" / DATABASE
    assert restore(copy, there, NOW_S, carried_over(there)).aside is None
    open_database(there)
    assert signing_in.whose(token, NOW_S) is None
    assert signing_in.sign_in("Linden", "seven dry leaves", "phone", NOW_S)


def test_nobody_who_was_shut_out_since_comes_back_in_with_a_restore(
    house: Path, tmp_path: Path
) -> None:
    open_database(house)
    keeper = people.add_person("Linden", Role.KEEPER, NOW_S)[0]
    helper = people.add_person("Sedge", Role.HELPER, NOW_S)[0]
    signing_in.set_passphrase(keeper.entity_id, "seven dry leaves", NOW_S)
    signing_in.set_passphrase(helper.entity_id, "nine wet stones", NOW_S)
    stolen = signing_in.sign_in("Sedge", "nine wet stones", "lost phone", NOW_S)
    device = devices.add_device("Logger", NOW_S)
    close_database()
    copy = back_up(house, tmp_path / "copy.sqlite3", NOW_S).file
    open_database(house)
    signing_in.sign_out_everywhere(helper.entity_id)
    signing_in.set_passphrase(helper.entity_id, "eleven grey feathers", NOW_S)
    here = signing_in.sign_in("Linden", "seven dry leaves", "desk", NOW_S)
    devices.renew_token(device.device.entity_id, NOW_S)
    close_database()
    restore(copy, house, NOW_S, carried_over(house))
    assert check(house).problems == ()
    open_database(house)
    assert signing_in.whose(stolen, NOW_S) is None
    assert signing_in.whose(here, NOW_S) is not None
    with pytest.raises(signing_in.NotSignedIn):
        signing_in.sign_in("Sedge", "nine wet stones", "phone", NOW_S)
    assert {p.name for p in Person.current()} == {"Linden", "Sedge"}
    with pytest.raises(devices.NotAllowed):
        devices.device_of(device.token)


def test_a_copy_of_an_earlier_release_is_restored_and_brought_up_to_date(tmp_path: Path) -> None:
    """Made by the migrations of then, restored over nothing."""
    old = tmp_path / "old" / DATABASE
    open_database(old)
    lay_clutch(lay_day(), NOW_S)
    close_database()
    with closing(sqlite3.connect(old)) as opened, opened:
        opened.execute("PRAGMA user_version = 3")
    there = tmp_path / "there" / DATABASE
    restore(old, there, NOW_S, carried_over(there))
    assert dams(there) == {"Sorrel"}
    assert check(there).problems == ()


def test_nothing_is_carried_on_where_nothing_was_begun(house: Path) -> None:
    before = files(house.parent)
    assert carry_on(house) is None
    assert files(house.parent) == before


def test_a_folder_with_a_strange_name_is_checked_and_copied(tmp_path: Path, capsys) -> None:
    house = tmp_path / "a #1? 50% of it" / DATABASE
    open_database(house)
    close_database()
    before = files(house.parent)
    assert main(["check", "--data", str(house.parent)]) == 0
    assert files(house.parent) == before
    assert main(["backup", str(house.parent / "copy #2.sqlite3"), "--data", str(house.parent)]) == 0
    assert main(["check", str(house.parent / "copy #2.sqlite3")]) == 0
    assert main(["check", str(house.parent / "nothing")]) == 2
    assert copying.sync(house) is None


@pytest.mark.parametrize("lost", ["gone", "empty"])
def test_a_house_whose_file_was_lost_is_not_begun_anew(
    house: Path, tmp_path: Path, capsys, lost: str
) -> None:
    copy = back_up(house, tmp_path / "copy.sqlite3", NOW_S).file
    if lost == "gone":
        house.unlink()
    else:
        house.write_bytes(b"")
    assert main(["serve", "--data", str(house.parent), "--port", "0"]) == 2
    assert "sandboa restore COPY" in capsys.readouterr().err
    assert main(["restore", str(copy), "--data", str(house.parent)]) == 0
    assert dams(house) == {"Sorrel"}
