"""A whole house out and in again: equal, photos included; damaged ones refused whole."""

import hashlib
import io
import json
import shutil
import zipfile
from collections.abc import Callable, Iterator
from pathlib import Path

import frictionless
import pytest

from houses import open_empty_house
from samples import DAY_S, NOW_S, lay_day
from sandboa.cli.house_folder import DATABASE
from sandboa.formats.data_package import DESCRIPTOR, PackageError, read_package, write_package
from sandboa.records import whole_house
from sandboa.records.database import open_database
from sandboa.records.facts import Act
from sandboa.records.integrity.check import check
from sandboa.records.photos import FOLDER
from sandboa.services.lay_day import lay_clutch

Written = tuple[Path, dict[str, list]]


@pytest.fixture(scope="module")
def whole(demo_house: Path, tmp_path_factory: pytest.TempPathFactory) -> Written:
    """The garden room as a package, and everything that was in it."""
    return written(demo_house, tmp_path_factory.mktemp("garden") / "house")


@pytest.fixture(scope="module")
def package(house_of_hours: Path, tmp_path_factory: pytest.TempPathFactory) -> Written:
    """The same with few readings."""
    return written(house_of_hours, tmp_path_factory.mktemp("garden") / "house")


def written(house: Path, folder: Path) -> Written:
    shutil.copytree(house, folder)
    opened = open_database(folder / DATABASE)
    package = folder / "house.zip"
    write_package(package, NOW_S)
    held = contents()
    opened.close()
    return package, held


def contents() -> dict[str, list]:
    return {table.name: list(whole_house.rows_of(table)) for table in whole_house.tables()}


@pytest.fixture
def empty(tmp_path: Path) -> Iterator[Path]:
    opened = open_empty_house(tmp_path / "new" / DATABASE)
    yield tmp_path / "new"
    opened.close()


def test_a_house_comes_back_equal_with_its_photos(whole: Written, empty: Path) -> None:
    written, held = whole
    counts = read_package(written)
    assert contents() == held
    assert counts["reading"] == len(held["reading"]) > 10_000
    pictures = sorted(p.name for p in (written.parent / FOLDER).iterdir())
    assert sorted(p.name for p in (empty / FOLDER).iterdir()) == pictures
    assert len(pictures) >= 4
    for name in pictures:
        assert (empty / FOLDER / name).read_bytes() == (written.parent / FOLDER / name).read_bytes()
    assert check(empty / "house.sqlite3").problems == ()


def test_a_second_trip_gives_the_same_tables_byte_for_byte(package, empty: Path) -> None:
    written, _ = package
    read_package(written)
    again = io.BytesIO()
    write_package(again, NOW_S + DAY_S)
    with zipfile.ZipFile(written) as first, zipfile.ZipFile(again) as second:
        assert first.namelist() == second.namelist()
        for name in first.namelist():
            if name != DESCRIPTOR:
                assert first.read(name) == second.read(name), name


def test_moments_are_written_for_people_and_numbers_exactly(package) -> None:
    with zipfile.ZipFile(package[0]) as held:
        pips = held.read("data/pip.csv").decode().splitlines()
        assert pips[0] == "id,entity_id,act_id,superseded_by_id,egg_id,seen_at"
        assert pips[-1].split(",")[-1].endswith("Z")
        descriptor = json.loads(held.read(DESCRIPTOR))
    reading = next(r for r in descriptor["resources"] if r["name"] == "reading")
    assert reading["schema"]["primaryKey"] == ["probe_id", "at"]
    assert {f["name"]: f["type"] for f in reading["schema"]["fields"]}["at"] == "datetime"


def test_it_is_valid_by_frictionless(package, tmp_path: Path) -> None:
    with zipfile.ZipFile(package[0]) as held:
        held.extractall(tmp_path)
    report = frictionless.validate(str(tmp_path / DESCRIPTOR))
    assert report.valid, report.flatten(["name", "type", "message"])[:5]


def rewritten(package: Path, change: Callable[[dict[str, bytes]], None]) -> io.BytesIO:
    with zipfile.ZipFile(package) as held:
        files = {name: held.read(name) for name in held.namelist()}
    change(files)
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as made:
        for name, content in files.items():
            made.writestr(name, content)
    return out


def described(change: Callable[[dict], None]) -> Callable[[dict[str, bytes]], None]:
    def of(files: dict[str, bytes]) -> None:
        descriptor = json.loads(files[DESCRIPTOR])
        change(descriptor)
        files[DESCRIPTOR] = json.dumps(descriptor).encode()

    return of


def replaced(name: str, old: bytes, new: bytes) -> Callable[[dict[str, bytes]], None]:
    def of(files: dict[str, bytes]) -> None:
        assert old in files[name]
        files[name] = files[name].replace(old, new, 1)

    return of


def a_photo(files: dict[str, bytes]) -> str:
    return next(n for n in files if n.startswith("photos/") and "-small" not in n)


DAMAGES = {
    "no descriptor": (lambda files: files.pop(DESCRIPTOR), "there is no datapackage.json"),
    "not json": (lambda files: files.update({DESCRIPTOR: b"{"}), "not one of Sandboa's"),
    "someone else's": (described(lambda d: d.pop("sandboa")), "not one of Sandboa's"),
    "newer format": (described(lambda d: d["sandboa"].update(format=99)), "newer Sandboa"),
    "newer migration": (
        described(lambda d: d["sandboa"]["migrations"].append("0999_later")),
        "newer Sandboa than this one (it has 0999_later)",
    ),
    "unknown table": (
        described(lambda d: d["resources"][0].update(name="dragon")),
        'a table "dragon"',
    ),
    "unknown field": (
        described(lambda d: d["resources"][0]["schema"]["fields"].append({"name": "wings"})),
        'a field "wings"',
    ),
    "table missing": (lambda files: files.pop("data/pip.csv"), "data/pip.csv is missing"),
    "one letter changed": (replaced("data/act.csv", b"Egg 2 is out", b"Egg 3 is out"), "damaged"),
    "a value that is none": (replaced("data/pip.csv", b"2026-06-1", b"2026-99-1"), "be seen_at"),
    "columns changed": (replaced("data/pip.csv", b"seen_at", b"seen"), "its columns"),
    "a row too short": (replaced("data/pip.csv", b"Z\r\n", b"Z\r\n1,2\r\n"), "2 values instead"),
    "a lone return": (replaced("data/pip.csv", b"Z\r\n", b"Z\r\n1\r2\r\n"), "data/pip.csv, line"),
    "not text": (replaced("data/pip.csv", b"Z\r\n", b"Z\r\n\xff\xfe\r\n"), "not UTF-8"),
    "photo gone": (lambda files: files.pop(a_photo(files)), "is missing"),
    "photo changed": (
        lambda files: files.update({a_photo(files): files[a_photo(files)] + b"x"}),
        "is damaged",
    ),
    "a table left out": (
        described(lambda d: d.update(resources=[r for r in d["resources"] if r["name"] != "pip"])),
        "its table pip is missing",
    ),
    "photos left out": (described(lambda d: d["sandboa"].update(photos=[])), "picture"),
    "a table twice": (
        described(lambda d: d["resources"].append(d["resources"][0])), "is in it twice",
    ),
    "a field left out": (
        described(lambda d: d["resources"][0]["schema"]["fields"].pop()), "lacks its field",
    ),
    "no list of tables": (described(lambda d: d.update(resources=7)), "not one of Sandboa's"),
    "a hash that is none": (
        described(lambda d: d["resources"][0].update(hash="sha256:../../etc")), "hash",
    ),
    "a name that leads elsewhere": (
        described(lambda d: d["sandboa"].update(photos=["../../../etc/passwd"])), "photos",
    ),
    "a format that is a text": (described(lambda d: d["sandboa"].update(format="1")), "format"),
    "a list instead of all": (lambda files: files.update({DESCRIPTOR: b"[]"}), "not one of"),
    "deep as a well": (
        lambda files: files.update({DESCRIPTOR: b"[" * 100_000 + b"]" * 100_000}), "not one of",
    ),
    "a line without an end": (
        replaced("data/pip.csv", b"Z\r\n", b"Z\r\n" + b"x" * (14 * 2**20)), "too long",
    ),
    "a quote without an end": (
        replaced("data/pip.csv", b"Z\r\n", b'Z\r\n"' + b"x\r\n" * (5 * 2**20)), "data/pip.csv",
    ),
    "more rows than told": (
        described(lambda d: next(r for r in d["resources"] if r["name"] == "pip").update(rows=1)),
        "more rows than",
    ),
    "the year 1": (replaced("data/pip.csv", b",2026-06-1", b",0001-06-1"), "be seen_at"),
    "the year 9999": (replaced("data/pip.csv", b",2026-06-1", b",9999-06-1"), "be seen_at"),
    "a number beyond all": (
        replaced("data/pip.csv", b"\r\n1,", b"\r\n" + b"9" * 40 + b","), "be id",
    ),
    "rows left out": (
        described(lambda d: next(r for r in d["resources"] if r["name"] == "pip").update(rows=99)),
        "99 rows are told",
    ),
}  # fmt: skip


@pytest.mark.parametrize("damage", DAMAGES)
def test_a_damaged_package_is_refused_whole_with_its_reason(
    package, empty: Path, damage: str
) -> None:
    change, words = DAMAGES[damage]
    with pytest.raises(PackageError) as refused:
        read_package(rewritten(package[0], change))
    assert words in str(refused.value)
    assert whole_house.is_empty()
    assert all(rows == [] for rows in contents().values())
    assert not list((empty / FOLDER).glob("*")) if (empty / FOLDER).exists() else True


def test_what_is_no_zip_at_all_is_refused(empty: Path, tmp_path: Path) -> None:
    for content in (b"", b"PK\x03\x04 half a zip", b"time,temp\n"):
        file = tmp_path / "file.zip"
        file.write_bytes(content)
        with pytest.raises(PackageError, match="no package"):
            read_package(file)


def test_two_houses_are_not_merged(package, empty: Path) -> None:
    lay_clutch(lay_day(3.0), NOW_S)
    before = contents()
    with pytest.raises(PackageError, match="cannot be merged"):
        read_package(package[0])
    assert contents() == before


def test_rows_that_point_at_nothing_are_refused(package, empty: Path) -> None:
    with zipfile.ZipFile(package[0]) as held:
        lines = held.read("data/pip.csv").decode().splitlines(keepends=True)
    first = lines[1].split(",")
    loose = ",".join([first[0], "999999", *first[2:]])

    def change(files: dict[str, bytes]) -> None:
        content = "".join([lines[0], loose, *lines[2:]]).encode()
        files["data/pip.csv"] = content
        told = f"sha256:{hashlib.sha256(content).hexdigest()}"
        described(
            lambda d: next(r for r in d["resources"] if r["name"] == "pip").update(hash=told)
        )(files)

    with pytest.raises(PackageError, match="pip: a row points at a entity"):
        read_package(rewritten(package[0], change))
    assert whole_house.is_empty()


def test_whatever_can_be_recorded_comes_back(tmp_path: Path) -> None:
    """Lone carriage returns and values longer than the csv module's own limit, among others."""
    strange = ["\r", "a\rb", 'a "b"\r\n', "\u2028", "x" * 200_000, "\x00", ",", " "]
    opened = open_database(tmp_path / "old" / "house.sqlite3")
    for text in strange:
        Act.create(kind="note", summary=text, recorded_s=int(NOW_S))
    held, package = contents(), io.BytesIO()
    write_package(package, NOW_S)
    opened.close()
    opened = open_database(tmp_path / "new" / "house.sqlite3")
    read_package(package)
    assert contents() == held
    opened.close()
