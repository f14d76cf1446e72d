"""Taking a data package into an empty house: whole, or not at all with the reason."""

import csv
import hashlib
import io
import zipfile
import zlib
from collections.abc import Iterator
from pathlib import Path
from typing import IO, Any, Final

from pydantic import ValidationError

from sandboa.formats.data_package.describe import (
    DESCRIPTOR,
    FORMAT,
    Descriptor,
    PackageError,
    ResourceDescribed,
    field_name,
    from_text,
)
from sandboa.records import whole_house
from sandboa.records.database import transaction
from sandboa.records.photos import put_picture, remove_pictures
from sandboa.records.whole_house import NotLoadable, OlderHouse, Row, Table
from sandboa.services.lay_day import drafts
from sandboa.services.snapshot.cache import SnapshotCache

#: Bytes of a package as it comes (assumption: ten years of minutes and two thousand photos).
LARGEST_PACKED_BYTES: Final = 4 * 2**30
#: Bytes a package may unpack to (assumption: ten years of minutes are some 4 GB of text).
LARGEST_PACKAGE_BYTES: Final = 12 * 2**30
_LARGEST_DESCRIPTOR: Final = 8 * 2**20
_LARGEST_PICTURE: Final = 30 * 2**20
#: Characters of one value, and of one line: a lay day under way is one document (assumption: what
#: the largest request of an earlier release could bring).
_LARGEST_VALUE: Final = 12 * 2**20
_LARGEST_LINE: Final = 13 * 2**20
# The standard library's own limit is for the whole process, and shorter than what can be recorded.
csv.field_size_limit(_LARGEST_VALUE)

#: What reading a zip can run into besides what it is.
_BROKEN: Final = (
    zipfile.BadZipFile, OSError, EOFError, zlib.error, NotImplementedError, RuntimeError,
    RecursionError, MemoryError, UnicodeError,
)  # fmt: skip

_Listed = dict[str, tuple[ResourceDescribed, tuple[str, ...]]]


def read_package(source: IO[bytes] | Path) -> dict[str, int]:
    """Put a package into the open house, which must be empty; returns rows by table.

    Raises PackageError, with nothing stored, when it is no package, damaged,
    incomplete, of a newer Sandboa, or the house has records already: two houses
    are not merged.
    """
    try:
        with zipfile.ZipFile(source) as package:
            return _take_in(package, read_descriptor(package))
    except _BROKEN as error:
        raise PackageError(f"this is no package, or a damaged one: {error}") from error


def _take_in(package: zipfile.ZipFile, descriptor: Descriptor) -> dict[str, int]:
    _require_size(package)
    older = _older_house(descriptor)
    known = {table.name: table for table in (older.tables() if older else whole_house.tables())}
    listed = _resources(descriptor, known)
    written: list[str] = []
    try:
        with transaction():
            if not whole_house.is_empty():
                raise PackageError(
                    "this house has records already: a package goes into an empty one, "
                    "two houses cannot be merged"
                )
            layout = descriptor.sandboa.format
            given = {
                name: (columns, rows_in(package, known[name], entry, columns, layout))
                for name, (entry, columns) in listed.items()
            }
            if older is None:
                counts = whole_house.load(given)
            else:
                counts = older.load(given)
                whole_house.load(older.brought_up_to_date())
            for name, (entry, _) in listed.items():
                if entry.rows != counts[name]:
                    raise PackageError(f"{name}: {entry.rows} rows are told, {counts[name]} came")
            _take_photos(package, descriptor, written)
            _require_readable()
    except NotLoadable as error:
        remove_pictures(written)
        raise PackageError(f"the package contradicts itself: {error}") from error
    except BaseException:
        remove_pictures(written)
        raise
    finally:
        if older is not None:
            older.close()
    return counts


def _older_house(descriptor: Descriptor) -> OlderHouse | None:
    """The house of an earlier version that a package of it goes into; None for one of today's."""
    seen = descriptor.sandboa.migrations
    return OlderHouse(seen) if max(seen) < max(whole_house.migrations()) else None


def read_descriptor(package: zipfile.ZipFile) -> Descriptor:
    """What a package says of itself; PackageError when that is not Sandboa's, or newer."""
    try:
        info = package.getinfo(DESCRIPTOR)
    except KeyError as error:
        raise PackageError(f"there is no {DESCRIPTOR} in it") from error
    if info.file_size > _LARGEST_DESCRIPTOR:
        raise PackageError(f"its {DESCRIPTOR} is too large")
    try:
        descriptor = Descriptor.model_validate_json(package.read(info))
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(part) for part in first["loc"])[:80]
        raise PackageError(
            f"its {DESCRIPTOR} is not one of Sandboa's ({where or 'JSON'}: {first['msg']})"
        ) from error
    own = descriptor.sandboa
    unknown = sorted(set(own.migrations) - set(whole_house.migrations()))
    if own.format > FORMAT or unknown:
        what = f" (it has {unknown[-1][:60]})" if unknown else ""
        raise PackageError(f"it was written by a newer Sandboa than this one{what}")
    return descriptor


def _resources(descriptor: Descriptor, known: dict[str, Table]) -> _Listed:
    """Each table's entry with the columns of its version, in the order of its CSV; all of them."""
    layout = descriptor.sandboa.format
    listed: _Listed = {}
    for entry in descriptor.resources:
        if entry.name not in known:
            raise PackageError(
                f'it holds a table "{entry.name[:40]}" that this Sandboa does not know'
            )
        by_field = {field_name(column, layout): column.name for column in known[entry.name].columns}
        fields = [field.name for field in entry.table.fields]
        strange = [field for field in fields if field not in by_field]
        if strange:
            raise PackageError(f'{entry.name} has a field "{strange[0][:40]}" not known here')
        if entry.name in listed or len(set(fields)) < len(fields):
            raise PackageError(f"{entry.name} is in it twice, or one of its fields")
        listed[entry.name] = (entry, tuple(by_field[field] for field in fields))
    for name in sorted(known):
        if name not in listed:
            raise PackageError(f"its table {name} is missing")
        lacking = {column.name for column in known[name].columns} - set(listed[name][1])
        if lacking:
            raise PackageError(f"{name} lacks its field {min(lacking)}")
    return listed


def _require_size(package: zipfile.ZipFile) -> None:
    whole = sum(info.file_size for info in package.infolist())
    if whole > LARGEST_PACKAGE_BYTES:
        raise PackageError(f"it unpacks to {whole / 2**30:.0f} GB, which is too large")


def rows_in(
    package: zipfile.ZipFile,
    table: Table,
    entry: ResourceDescribed,
    columns: tuple[str, ...],
    layout: int,
) -> Iterator[Row]:
    """The rows of a CSV, its bytes checked against its hash once all were read."""
    by_name = {column.name: column for column in table.columns}
    readers = [from_text(by_name[name], layout) for name in columns]
    fields = tuple(field_name(by_name[name], layout) for name in columns)
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
                if number - 2 >= entry.rows:
                    raise PackageError(f"{path} has more rows than {DESCRIPTOR} tells of")
                yield _row(line, readers, fields, f"{path}, line {number}")
        except csv.Error as error:
            raise PackageError(f"{path}, line {lines.line_num}: {error}") from error
    if entry.hash != f"sha256:{digest.hexdigest()}":
        raise PackageError(f"{path} is damaged: its contents are not what was written")


def _row(line: list[str], readers: list[Any], fields: tuple[str, ...], where: str) -> Row:
    if len(line) != len(readers):
        raise PackageError(f"{where}: {len(line)} values instead of {len(readers)}")
    values = []
    for text, read, name in zip(line, readers, fields, strict=True):
        try:
            values.append(read(text))
        except (ValueError, OverflowError) as error:
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
        # A line of gigabytes is not to be in memory before it is known to be one.
        while line := text.readline(_LARGEST_LINE):
            if len(line) >= _LARGEST_LINE:
                raise PackageError(f"{path} has a line that is too long")
            yield line
    except UnicodeDecodeError as error:
        raise PackageError(f"{path} is not UTF-8 text") from error


def _take_photos(package: zipfile.ZipFile, descriptor: Descriptor, written: list[str]) -> None:
    """Put the pictures beside the house: each what its name says, and all that are spoken of."""
    own = descriptor.sandboa
    lacking = set(whole_house.picture_names()) - set(own.photos) - set(own.missing_photos)
    if lacking:
        raise PackageError(f"the picture {min(lacking)[:12]}... is missing")
    for name in own.photos:
        try:
            pair = [package.getinfo(f"photos/{name}{end}.jpg") for end in ("", "-small")]
        except KeyError as error:
            raise PackageError(f"the picture {name[:12]}... is missing") from error
        if any(info.file_size > _LARGEST_PICTURE for info in pair):
            raise PackageError(f"the picture {name[:12]}... is too large")
        picture, small = (package.read(info) for info in pair)
        if hashlib.sha256(picture).hexdigest() != name:
            raise PackageError(f"the picture {name[:12]}... is damaged")
        if put_picture(name, picture, small):
            written.append(name)


def _require_readable() -> None:
    """What was loaded is a house that can be worked with; PackageError otherwise."""
    try:
        SnapshotCache().current()
        drafts.require_states()
    except Exception as error:
        # Whatever rows that contradict each other make of it: nothing of the package is kept.
        raise PackageError(
            f"what it holds cannot be read as a house ({type(error).__name__}: {error})"[:300]
        ) from error
