"""Writing a whole house as a data package."""

import csv
import hashlib
import io
import json
import zipfile
from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from functools import partial
from itertools import zip_longest
from pathlib import Path
from typing import IO, Any, Final

from sandboa.formats.data_package.current_state import write_current
from sandboa.formats.data_package.describe import (
    DESCRIPTOR,
    FORMAT,
    PackageError,
    as_text,
    field_name,
    resource,
)
from sandboa.formats.data_package.read import read_descriptor, rows_in
from sandboa.records import whole_house
from sandboa.records.database import one_moment
from sandboa.records.photos import picture_path
from sandboa.records.whole_house import Table

#: Rows of CSV put together before they are written.
_ROWS: Final = 5_000


def write_package(target: IO[bytes] | Path, now_s: float) -> dict[str, int]:
    """Write the open house as it is at this moment; returns rows by table.

    One read transaction holds it all, so that what is recorded meanwhile is
    in it whole or not at all. Photos are stored as they are. What was written
    is read again and compared, row by row, before this returns; PackageError
    when it is not the same.
    """
    created = datetime.fromtimestamp(now_s, UTC)
    # The same house at the same moment is the same file, byte for byte.
    dated = partial(_entry, date_time=_zip_time(created))
    with one_moment():
        entries = _write(target, dated, created)
        _compare(target)
    return {entry["name"]: entry["rows"] for entry in entries}


def _write(target: IO[bytes] | Path, dated: "_Dated", created: datetime) -> list[dict[str, Any]]:
    with zipfile.ZipFile(target, "w") as package:
        resources = [_write_table(package, table, dated) for table in whole_house.tables()]
        write_current(package, dated)
        photos, missing = _write_photos(package, dated)
        descriptor = {
            "profile": "tabular-data-package",
            "name": "sandboa-house",
            "title": "A Sandboa house",
            "created": created.strftime("%Y-%m-%dT%H:%M:%SZ"),
            "sandboa": {
                "format": FORMAT,
                "migrations": whole_house.migrations(),
                "photos": photos,
                "missing_photos": missing,
            },
            "resources": resources,
        }
        told = json.dumps(descriptor, indent=1, ensure_ascii=False)
        package.writestr(dated(DESCRIPTOR), told)
    return resources


def _compare(target: IO[bytes] | Path) -> None:
    """Read the package again, as it would be taken in, beside the house it was made of."""
    with zipfile.ZipFile(target) as package:
        descriptor = read_descriptor(package)
        entries = {entry.name: entry for entry in descriptor.resources}
        for table in whole_house.tables():
            columns = tuple(column.name for column in table.columns)
            read = rows_in(package, table, entries[table.name], columns, FORMAT)
            for held, came in zip_longest(whole_house.rows_of(table), read):
                if held != came:
                    raise PackageError(f"{table.name} could not be written as it is: {held}"[:200])
        for name in descriptor.sandboa.photos:
            if hashlib.sha256(package.read(f"photos/{name}.jpg")).hexdigest() != name:
                raise PackageError(f"the photo {name[:12]}... could not be written as it is")


def _zip_time(moment: datetime) -> tuple[int, int, int, int, int, int]:
    """The moment as a zip can hold it: the years 1980 to 2107."""
    year = min(max(moment.year, 1980), 2107)
    return year, moment.month, moment.day, moment.hour, moment.minute, moment.second


_Dated = Callable[[str], zipfile.ZipInfo]


def _entry(name: str, date_time: tuple[int, int, int, int, int, int]) -> zipfile.ZipInfo:
    made = zipfile.ZipInfo(name, date_time)
    made.compress_type = zipfile.ZIP_STORED if name.endswith(".jpg") else zipfile.ZIP_DEFLATED
    made.external_attr = 0o600 << 16
    return made


def _write_table(package: zipfile.ZipFile, table: Table, dated: _Dated) -> dict[str, Any]:
    digest, size, rows = hashlib.sha256(), 0, 0
    with package.open(dated(f"data/{table.name}.csv"), "w", force_zip64=True) as file:
        for chunk, counted in _chunks(table):
            file.write(chunk)
            digest.update(chunk)
            size += len(chunk)
            rows += counted
    return resource(table, digest.hexdigest(), size, rows)


def _chunks(table: Table) -> Iterator[tuple[bytes, int]]:
    writers = [as_text(column) for column in table.columns]
    out = io.StringIO()
    # The line ends of RFC 4180: a text with a lone carriage return is quoted then, and comes back.
    line = csv.writer(out, lineterminator="\r\n")
    line.writerow([field_name(column) for column in table.columns])
    counted = 0
    for row in whole_house.rows_of(table):
        line.writerow([write(value) for write, value in zip(writers, row, strict=True)])
        counted += 1
        if counted == _ROWS:
            yield out.getvalue().encode(), counted
            out.seek(0)
            out.truncate()
            counted = 0
    yield out.getvalue().encode(), counted


def _write_photos(package: zipfile.ZipFile, dated: _Dated) -> tuple[list[str], list[str]]:
    """Every picture any photo of the record speaks of, undone ones too.

    Returns the names of those that are in the package, and of those that are
    not because the house has them no more, or not as they were.
    """
    held, missing = [], []
    for name in whole_house.picture_names():
        picture, small = picture_path(name), picture_path(name, small=True)
        content = picture.read_bytes() if picture.is_file() and small.is_file() else b""
        if hashlib.sha256(content).hexdigest() != name:
            missing.append(name)
            continue
        package.writestr(dated(f"photos/{name}.jpg"), content)
        package.writestr(dated(f"photos/{name}-small.jpg"), small.read_bytes())
        held.append(name)
    return held, missing
