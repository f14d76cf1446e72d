"""A furnished house comes back from each kind of copy as it was, by the hash of its export."""

import hashlib
import shutil
from collections.abc import Callable
from pathlib import Path

import pytest

from samples import NOW_S
from sandboa.cli import main
from sandboa.cli.house_folder import DATABASE
from sandboa.formats.data_package import write_package
from sandboa.records.copies.backups import back_up_into
from sandboa.records.copies.copying import copy_before
from sandboa.records.database import close_database, open_database
from sandboa.records.integrity.check import check
from sandboa.services.animals.commands import AnimalCommand, add_animal


@pytest.fixture
def house(house_of_hours: Path, tmp_path: Path) -> Path:
    shutil.copytree(house_of_hours, tmp_path / "house")
    return tmp_path / "house" / DATABASE


def export_hash(house: Path) -> str:
    """SHA-256 of everything the house exports: every row of every table, and every photo."""
    package = house.parent.parent / "export.zip"
    open_database(house)
    write_package(package, NOW_S)
    close_database()
    return hashlib.sha256(package.read_bytes()).hexdigest()


def change(house: Path) -> None:
    open_database(house)
    add_animal(AnimalCommand("dam", "Nobody's"), NOW_S)
    close_database()


def by_command(house: Path) -> Path:
    copy = house.parent.parent / "copy.sqlite3"
    assert main(["backup", str(copy), "--data", str(house.parent)]) == 0
    return copy


def of_the_night(house: Path) -> Path:
    folder = house.parent / "backups"
    folder.mkdir()
    return back_up_into(house, folder, NOW_S).file


def before_a_migration(house: Path) -> Path:
    copy_before(house, "0999_later")
    return house.with_name(f"{DATABASE}.before-0999_later")


def moved_aside(house: Path) -> Path:
    """The house itself, replaced by a copy of it that was changed."""
    copy = by_command(house)
    shutil.copytree(house.parent / "photos", house.parent.parent / "photos", dirs_exist_ok=True)
    assert main(["restore", str(copy), "--data", str(house.parent)]) == 0
    (aside,) = house.parent.glob("replaced-*")
    return aside / DATABASE


@pytest.mark.parametrize("copied", [by_command, of_the_night, before_a_migration, moved_aside])
def test_from_each_kind_of_copy_the_house_is_what_it_was(
    house: Path, copied: Callable[[Path], Path]
) -> None:
    before = export_hash(house)
    copy = copied(house)
    change(house)
    assert export_hash(house) != before
    assert main(["restore", str(copy), "--data", str(house.parent)]) == 0
    assert export_hash(house) == before
    assert check(house).problems == ()


def test_from_a_package_another_house_is_what_this_one_was(house: Path, tmp_path: Path) -> None:
    before = export_hash(house)
    there = tmp_path / "there" / "house" / DATABASE
    there.parent.mkdir(parents=True)
    package = str(tmp_path / "export.zip")
    assert main(["import", package, "--data", str(there.parent)]) == 0
    assert export_hash(there) == before
    assert check(there).problems == ()
