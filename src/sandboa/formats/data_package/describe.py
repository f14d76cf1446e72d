"""How a table of the house is described in a package, and its values as text and back.

Moments are whole seconds in the house and RFC 3339 in UTC in the package:
a column `seen_s` is the field `seen_at`. Everything else keeps its name.
"""

from collections.abc import Callable
from datetime import UTC, datetime
from typing import Any, Final

from sandboa.records.whole_house import Column, Table

DESCRIPTOR: Final = "datapackage.json"
#: Of this layout; a package of a later one is refused.
FORMAT: Final = 1
PHOTO_FILES: Final = "photo_files"

_MOMENT: Final = "%Y-%m-%dT%H:%M:%SZ"
_TYPES: Final = {"INTEGER": "integer", "REAL": "number", "TEXT": "string"}


class PackageError(ValueError):
    """The package cannot be taken in; the text is a sentence, and nothing was stored."""


def is_moment(column: Column) -> bool:
    """Whether the column holds whole seconds since 1970."""
    return column.kind == "INTEGER" and column.name.endswith("_s")


def field_name(column: Column) -> str:
    """What the column is called in the package."""
    if not is_moment(column):
        return column.name
    stem = column.name.removesuffix("_s")
    return "at" if stem == "at" else f"{stem}_at"


def resource(table: Table, digest: str, size: int, rows: int) -> dict[str, Any]:
    """The table's entry in datapackage.json."""
    fields = []
    for column in table.columns:
        if is_moment(column):
            kind: dict[str, Any] = {"type": "datetime", "format": _MOMENT}
        else:
            kind = {"type": _TYPES[column.kind]}
        required = not column.nullable and column.kind != "TEXT"
        constraints = {"constraints": {"required": True}} if required else {}
        fields.append({"name": field_name(column), **kind, **constraints})
    names = {column.name: field_name(column) for column in table.columns}
    schema: dict[str, Any] = {
        "fields": fields,
        "primaryKey": [names[name] for name in table.key],
        "missingValues": [""],
    }
    if table.refers:
        schema["foreignKeys"] = [
            {"fields": [names[column]], "reference": {"resource": other, "fields": ["id"]}}
            for column, other in table.refers
        ]
    return {
        "name": table.name,
        "path": f"data/{table.name}.csv",
        "profile": "tabular-data-resource",
        "type": "table",
        "scheme": "file",
        "format": "csv",
        "mediatype": "text/csv",
        "encoding": "utf-8",
        "bytes": size,
        "hash": f"sha256:{digest}",
        "rows": rows,
        "schema": schema,
    }


def as_text(column: Column) -> Callable[[Any], str]:
    """How a value of the column is written; nothing for no value."""
    if is_moment(column):
        return lambda v: "" if v is None else datetime.fromtimestamp(v, UTC).strftime(_MOMENT)
    if column.kind == "REAL":
        # The shortest text that reads back as the very same number.
        return lambda v: "" if v is None else repr(float(v))
    return lambda v: "" if v is None else str(v)


def from_text(column: Column) -> Callable[[str], Any]:
    """How a value of the column is read back; ValueError when it is none."""
    missing = None if column.nullable or column.kind != "TEXT" else ""

    def moment(text: str) -> int:
        return int(datetime.strptime(text, _MOMENT).replace(tzinfo=UTC).timestamp())

    read: Callable[[str], Any] = {"INTEGER": int, "REAL": float, "TEXT": str}[column.kind]
    reader = moment if is_moment(column) else read
    return lambda text: missing if text == "" else reader(text)
