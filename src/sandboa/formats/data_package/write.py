"""Writing a whole house as a data package."""

import csv
import hashlib
import io
import json
import zipfile
from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from functools import partial
from pathlib import Path
from typing import IO, Any, Final

from sandboa.formats.data_package.describe import (
    DESCRIPTOR,
    FORMAT,
    as_text,
    field_name,
    resource,
)
from sandboa.records import whole_house
from sandboa.records.database import database
from sandboa.records.photos import picture_path
from sandboa.records.whole_house import Table

#: Rows of CSV put together before they are written.
_ROWS: Final = 5_000


def write_package(target: IO[bytes] | Path, now_s: float) -> dict[str, int]:
    """Write the open house as it is at this moment; returns rows by table.

    One read transaction holds it all, so that what is recorded meanwhile is
    in it whole or not at all. Photos are stored as they are.
    """
    created = datetime.fromtimestamp(now_s, UTC)
    # The same house at the same moment is the same file, byte for byte.
    dated = partial(_entry, date_time=_zip_time(created))
    with zipfile.ZipFile(target, "w") as package, database.atomic():
        resources = [_write_table(package, table, dated) for table in whole_house.tables()]
        photos = _write_photos(package, dated)
        descriptor = {
            "profile": "tabular-data-package",
            "name": "sandboa-house",
            "title": "A Sandboa house",
            "created": created.strftime("%Y-%m-%dT%H:%M:%SZ"),
            "sandboa": {
                "format": FORMAT,
                "migrations": whole_house.migrations(),
                "photos": photos,
            },
            "resources": resources,
        }
        told = json.dumps(descriptor, indent=1, ensure_ascii=False)
        package.writestr(dated(DESCRIPTOR), told)
    return {entry["name"]: entry["rows"] for entry in resources}


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


def _write_photos(package: zipfile.ZipFile, dated: _Dated) -> list[str]:
    """Every picture any photo of the record speaks of, undone ones too; returns their names."""
    held = []
    for name in whole_house.picture_names():
        picture, small = picture_path(name), picture_path(name, small=True)
        if picture.is_file() and small.is_file():
            package.writestr(dated(f"photos/{name}.jpg"), picture.read_bytes())
            package.writestr(dated(f"photos/{name}-small.jpg"), small.read_bytes())
            held.append(name)
    return held
