"""Every field of the data package says what it means, in which unit and within which values."""

import csv
import hashlib
import io
import json
import zipfile
from pathlib import Path
from typing import Any

import pytest

from samples import NOW_S
from sandboa.formats.data_package import write_package
from sandboa.formats.data_package.describe import field_name
from sandboa.formats.data_package.field_words import _WORDS, words_of
from sandboa.records import whole_house
from sandboa.records.clutches import Clutch, Egg
from sandboa.records.database import close_database, open_database
from sandboa.records.house import Animal

#: Numbers without a unit: what was seen is of many kinds, and a probe shows °C or humidity.
MIXED = {"setting.value", "probe_check.shown", "probe_check.expected"}


@pytest.fixture(scope="module")
def package(house_of_hours: Path) -> dict[str, Any]:
    """The descriptor and the rows of each table, of the demo house."""
    open_database(house_of_hours / "house.sqlite3")
    written = io.BytesIO()
    write_package(written, NOW_S)
    tables = whole_house.tables()
    close_database()
    with zipfile.ZipFile(written) as zipped:
        told = json.loads(zipped.read("datapackage.json"))
        rows = {
            entry["name"]: list(csv.DictReader(io.StringIO(zipped.read(entry["path"]).decode())))
            for entry in told["resources"]
        }
    return {"resources": told["resources"], "rows": rows, "tables": tables}


def test_every_field_is_described_and_nothing_else_is(package: dict[str, Any]) -> None:
    known = set()
    for table in package["tables"]:
        for column in table.columns:
            words = words_of(table.name, column.name)
            assert words.endswith(".")
            known |= {column.name, f"{table.name}.{column.name}"}
    assert set(_WORDS) <= known
    for entry in package["resources"]:
        assert all(field["description"] for field in entry["schema"]["fields"])


def test_every_measure_has_its_unit(package: dict[str, Any]) -> None:
    for entry in package["resources"]:
        for field in entry["schema"]["fields"]:
            name = f"{entry['name']}.{field['name']}"
            if field["type"] == "number" and name not in MIXED:
                assert field.get("unit"), name
    (weight,) = (e for e in package["resources"] if e["name"] == "weight")
    (mass,) = (f for f in weight["schema"]["fields"] if f["name"] == "mass_g")
    assert mass["unit"] == "g"


def test_every_value_is_one_that_its_field_allows(package: dict[str, Any]) -> None:
    checked = 0
    for entry in package["resources"]:
        for field in entry["schema"]["fields"]:
            limits = field.get("constraints", {})
            for row in package["rows"][entry["name"]]:
                text = row[field["name"]]
                if text == "":
                    continue
                checked += bool(limits)
                if "enum" in limits:
                    assert text in map(str, limits["enum"])
                if "minimum" in limits:
                    assert limits["minimum"] <= float(text) <= limits["maximum"]
                if "maxLength" in limits:
                    plain = text.removeprefix("'")
                    assert limits.get("minLength", 0) <= len(plain) <= limits["maxLength"]
    assert checked > 1_000


def test_limits_are_those_the_house_itself_holds(package: dict[str, Any]) -> None:
    fields = {
        (table.name, column.name): column for table in package["tables"] for column in table.columns
    }
    assert fields["egg", "slug"].limits.values == ("0", "1")
    assert fields["departure", "how"].limits.values == ("sold", "given away", "died", "other")
    assert fields["clutch_origin", "before_c"].limits.between == (20.0, 40.0)
    assert fields["tub", "name"].limits.letters == (1, 60)
    assert field_name(fields["clutch", "laid_s"]) == "laid_at"


def test_beside_the_log_stands_what_holds(house_of_hours: Path) -> None:
    open_database(house_of_hours / "house.sqlite3")
    written = io.BytesIO()
    write_package(written, NOW_S)
    expected = {
        "clutch": {str(row.entity_id): row.code for row in Clutch.current()},
        "animal": {str(row.entity_id): row.name for row in Animal.current()},
    }
    eggs = {str(egg.entity_id): egg for egg in Egg.current()}
    close_database()
    with zipfile.ZipFile(written) as zipped:
        told = json.loads(zipped.read("current/datapackage.json"))
        tables = {
            entry["name"]: list(
                csv.DictReader(io.StringIO(zipped.read(f"current/{entry['path']}").decode()))
            )
            for entry in told["resources"]
        }
        for entry in told["resources"]:
            text = zipped.read(f"current/{entry['path']}")
            assert entry["hash"] == f"sha256:{hashlib.sha256(text).hexdigest()}"
            assert entry["rows"] == len(tables[entry["name"]])
    assert {row["id"]: row["code"] for row in tables["clutch"]} == expected["clutch"]
    assert {row["id"]: row["name"] for row in tables["animal"]} == expected["animal"]
    assert {row["id"] for row in tables["egg"]} == set(eggs)
    # What points elsewhere points at something that stands.
    codes = expected["clutch"]
    assert all(row["clutch_id"] in codes for row in tables["egg"])
    assert all(row["dam_id"] in expected["animal"] for row in tables["clutch"])
    # Nothing of the log, and no secret.
    for rows in tables.values():
        for row in rows[:1]:
            assert not {"act_id", "superseded_by_id", "token_hash"} & set(row)
