"""Taking a data package into an empty house: whole, or not at all with the reason."""

import csv
import hashlib
import io
import json
import zipfile
from collections.abc import Iterator
from pathlib import Path
from typing import IO, Any, Final

from sandboa.formats.data_package.describe import (
    DESCRIPTOR,
    FORMAT,
    PackageError,
    field_name,
    from_text,
)
from sandboa.records import whole_house
from sandboa.records.database import database
from sandboa.records.photos import put_picture, remove_pictures
from sandboa.records.whole_house import NotLoadable, Row, Table

#: Bytes of a package as it comes (assumption: ten years of minutes and two thousand photos).
LARGEST_PACKED_BYTES: Final = 4 * 2**30
#: Bytes a package may unpack to (assumption: ten years of minutes are some 4 GB of text).
LARGEST_PACKAGE_BYTES: Final = 12 * 2**30
_LARGEST_DESCRIPTOR: Final = 8 * 2**20
_LARGEST_PICTURE: Final = 30 * 2**20
#: Characters of one value: a lay day under way is one document (assumption: as a request's body).
_LARGEST_VALUE: Final = 12 * 2**20
# The standard library's own limit is for the whole process, and shorter than what can be recorded.
csv.field_size_limit(_LARGEST_VALUE)


def read_package(source: IO[bytes] | Path) -> dict[str, int]:
    """Put a package into the open house, which must be empty; returns rows by table.

    Raises PackageError, with nothing stored, when it is no package, damaged, of
    a newer Sandboa, or the house has records already: two houses are not merged.
    """
    try:
        with zipfile.ZipFile(source) as package:
            descriptor = _descriptor(package)
            return _take_in(package, descriptor)
    except (zipfile.BadZipFile, OSError, EOFError) as error:
        raise PackageError(f"this is no package, or a damaged one: {error}") from error


def _take_in(package: zipfile.ZipFile, descriptor: dict[str, Any]) -> dict[str, int]:
    known = {table.name: table for table in whole_house.tables()}
    listed = _resources(descriptor, known)
    _require_size(package)
    written: list[str] = []
    try:
        with database.atomic("IMMEDIATE"):
            if not whole_house.is_empty():
                raise PackageError(
                    "this house has records already: a package goes into an empty one, "
                    "two houses cannot be merged"
                )
            given = {
                name: (columns, _rows(package, known[name], entry, columns))
                for name, (entry, columns) in listed.items()
            }
            counts = whole_house.load(given)
            for name, (entry, _) in listed.items():
                if entry.get("rows") not in (None, counts[name]):
                    raise PackageError(
                        f"{name}: {entry['rows']} rows are told, {counts[name]} came"
                    )
            _take_photos(package, descriptor, written)
    except NotLoadable as error:
        remove_pictures(written)
        raise PackageError(f"the package contradicts itself: {error}") from error
    except BaseException:
        remove_pictures(written)
        raise
    return counts


def _descriptor(package: zipfile.ZipFile) -> dict[str, Any]:
    try:
        info = package.getinfo(DESCRIPTOR)
    except KeyError as error:
        raise PackageError(f"there is no {DESCRIPTOR} in it") from error
    if info.file_size > _LARGEST_DESCRIPTOR:
        raise PackageError(f"its {DESCRIPTOR} is too large")
    try:
        descriptor = json.loads(package.read(info))
        own = descriptor["sandboa"]
        newest, migrations = int(own["format"]), list(own["migrations"])
    except (ValueError, KeyError, TypeError) as error:
        raise PackageError(f"its {DESCRIPTOR} is not one of Sandboa's") from error
    unknown = sorted(set(map(str, migrations)) - set(whole_house.migrations()))
    if newest > FORMAT or unknown:
        what = f" (it has {unknown[-1]})" if unknown else ""
        raise PackageError(f"it was written by a newer Sandboa than this one{what}")
    return dict(descriptor)


def _resources(
    descriptor: dict[str, Any], known: dict[str, Table]
) -> dict[str, tuple[dict[str, Any], tuple[str, ...]]]:
    """Each table's entry with the house's columns, in the order of its CSV."""
    listed = {}
    for entry in descriptor.get("resources", []):
        name = str(entry.get("name"))
        if name not in known:
            raise PackageError(f'it holds a table "{name[:40]}" that this Sandboa does not know')
        by_field = {field_name(column): column.name for column in known[name].columns}
        fields = [str(field.get("name")) for field in entry["schema"]["fields"]]
        strange = [field for field in fields if field not in by_field]
        if strange:
            raise PackageError(f'{name} has a field "{strange[0][:40]}" that is not known here')
        listed[name] = (entry, tuple(by_field[field] for field in fields))
    if not {"act", "entity"} <= listed.keys():
        raise PackageError("its record of acts is missing")
    return listed


def _require_size(package: zipfile.ZipFile) -> None:
    whole = sum(info.file_size for info in package.infolist())
    if whole > LARGEST_PACKAGE_BYTES:
        raise PackageError(f"it unpacks to {whole / 2**30:.0f} GB, which is too large")


def _rows(
    package: zipfile.ZipFile, table: Table, entry: dict[str, Any], columns: tuple[str, ...]
) -> Iterator[Row]:
    """The rows of a CSV, its bytes checked against its hash once all were read."""
    by_name = {column.name: column for column in table.columns}
    readers = [from_text(by_name[name]) for name in columns]
    fields = tuple(field_name(by_name[name]) for name in columns)
    path = f"data/{table.name}.csv"
    try:
        raw = package.open(path)
    except KeyError as error:
        raise PackageError(f"{path} is missing") from error
    digest = hashlib.sha256()
    with raw:
        lines = csv.reader(_hashed_lines(raw, digest, path))
        header = next(lines, None)
        if header != list(fields):
            raise PackageError(f"{path}: its columns are not those that {DESCRIPTOR} tells of")
        try:
            for number, line in enumerate(lines, start=2):
                yield _row(line, readers, fields, f"{path}, line {number}")
        except csv.Error as error:
            raise PackageError(f"{path}, line {lines.line_num}: {error}") from error
    if entry.get("hash") != f"sha256:{digest.hexdigest()}":
        raise PackageError(f"{path} is damaged: its contents are not what was written")


def _row(line: list[str], readers: list[Any], fields: tuple[str, ...], where: str) -> Row:
    if len(line) != len(readers):
        raise PackageError(f"{where}: {len(line)} values instead of {len(readers)}")
    values = []
    for text, read, name in zip(line, readers, fields, strict=True):
        try:
            values.append(read(text))
        except ValueError as error:
            raise PackageError(f'{where}: "{text[:40]}" cannot be {name}') from error
    return tuple(values)


def _hashed_lines(raw: IO[bytes], digest: Any, path: str) -> Iterator[str]:
    class Hashing(io.RawIOBase):
        def readable(self) -> bool:
            return True

        def readinto(self, buffer: Any) -> int:
            chunk = raw.read(len(buffer))
            digest.update(chunk)
            buffer[: len(chunk)] = chunk
            return len(chunk)

    text = io.TextIOWrapper(io.BufferedReader(Hashing(), 1 << 16), encoding="utf-8", newline="")
    try:
        yield from text
    except UnicodeDecodeError as error:
        raise PackageError(f"{path} is not UTF-8 text") from error


def _take_photos(package: zipfile.ZipFile, descriptor: dict[str, Any], written: list[str]) -> None:
    """Put the pictures beside the house; each must be what its name says."""
    for name in descriptor["sandboa"].get("photos", []):
        try:
            pair = [package.getinfo(f"photos/{name}{end}.jpg") for end in ("", "-small")]
        except KeyError as error:
            raise PackageError(f"the picture {str(name)[:12]}... is missing") from error
        if any(info.file_size > _LARGEST_PICTURE for info in pair):
            raise PackageError(f"the picture {str(name)[:12]}... is too large")
        picture, small = (package.read(info) for info in pair)
        if hashlib.sha256(picture).hexdigest() != name:
            raise PackageError(f"the picture {str(name)[:12]}... is damaged")
        if put_picture(name, picture, small):
            written.append(name)
