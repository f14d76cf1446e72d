"""The house as it stands, in tables beside the log: for spreadsheets and scripts, never read back.

The log has every row that was ever recorded, corrected ones among them. Here
are only those that hold, a row for each thing: `id` is the thing's own number,
and what ends in `_id` is the `id` of another. It is a data package of its own
in the folder `current` of the other.
"""

import csv
import hashlib
import io
import json
import zipfile
from collections.abc import Callable
from typing import Any, Final

from sandboa.formats.data_package.describe import DESCRIPTOR, as_text, field_name, field_of
from sandboa.records import whole_house
from sandboa.records.whole_house import Column, Table

FOLDER: Final = "current"
#: Of the log alone.
_LOG_ONLY: Final = frozenset({"id", "act_id", "superseded_by_id"})
#: A secret's hash helps nobody who reads what stands.
_KEPT_BACK: Final = frozenset({"token_hash"})


def write_current(package: zipfile.ZipFile, entry: Callable[[str], zipfile.ZipInfo]) -> None:
    """Write a table of what holds for each table of facts, and their descriptor."""
    resources = [
        _write_table(package, table, entry)
        for table in whole_house.tables()
        if whole_house.is_of_facts(table)
    ]
    told = {
        "profile": "tabular-data-package",
        "name": "sandboa-house-now",
        "title": "A Sandboa house as it stands",
        "resources": resources,
    }
    text = json.dumps(told, indent=1, ensure_ascii=False)
    package.writestr(entry(f"{FOLDER}/{DESCRIPTOR}"), text)


def _write_table(
    package: zipfile.ZipFile, table: Table, entry: Callable[[str], zipfile.ZipInfo]
) -> dict[str, Any]:
    columns = _columns(table)
    writers = [as_text(column) for column in columns]
    digest, size, rows = hashlib.sha256(), 0, 0
    with package.open(entry(f"{FOLDER}/{table.name}.csv"), "w", force_zip64=True) as file:

        def put(cells: list[str]) -> None:
            nonlocal size
            line = io.StringIO()
            csv.writer(line, lineterminator="\r\n").writerow(cells)
            written = line.getvalue().encode()
            file.write(written)
            digest.update(written)
            size += len(written)

        put([_name(column) for column in columns])
        for row in whole_house.current_rows_of(table, columns):
            put([write(value) for write, value in zip(writers, row, strict=True)])
            rows += 1
    return {
        "name": table.name,
        "path": f"{table.name}.csv",
        "profile": "tabular-data-resource",
        "format": "csv",
        "mediatype": "text/csv",
        "encoding": "utf-8",
        "bytes": size,
        "hash": f"sha256:{digest.hexdigest()}",
        "rows": rows,
        "schema": {
            "fields": [_field(table, column) for column in columns],
            "primaryKey": ["id"],
            "missingValues": [""],
        },
    }


def _columns(table: Table) -> list[Column]:
    """What is told of a thing: first its own number."""
    told = [c for c in table.columns if c.name not in _LOG_ONLY | _KEPT_BACK]
    return sorted(told, key=lambda column: column.name != "entity_id")


def _name(column: Column) -> str:
    return "id" if column.name == "entity_id" else field_name(column)


def _field(table: Table, column: Column) -> dict[str, Any]:
    own = field_of(table.name, column)
    if column.name == "entity_id":
        return {**own, "name": "id", "description": "The thing's own number in every table."}
    return own
