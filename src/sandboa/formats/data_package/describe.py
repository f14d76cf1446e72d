"""How a table of the house is described in a package, and its values as text and back.

Moments are whole seconds in the house and RFC 3339 in UTC in the package:
a column `seen_s` is the field `seen_at`. Everything else keeps its name.
"""

from collections.abc import Callable
from datetime import UTC, datetime
from typing import Annotated, Any, Final

from pydantic import BaseModel, ConfigDict, Field

from sandboa.core.units import MOMENT_RANGE_S
from sandboa.formats.data_package.field_words import unit_of, words_of
from sandboa.records.integrity.spelling import unspelled
from sandboa.records.whole_house import Column, Table

DESCRIPTOR: Final = "datapackage.json"
#: Of this layout; a package of a later one is refused. Since 2 a text that a spreadsheet would run
#: has an apostrophe before it, and spans of seconds are numbers. Since 3 those of ids end in `_id`.
#: Since 4 eggs lie in boxes of their own.
FORMAT: Final = 4

#: Integers that are spans of seconds, not moments.
_SPANS: Final = frozenset({"off_s"})
#: Beginnings that a spreadsheet takes for a formula (OWASP, CSV injection), and the mark itself.
_RUN: Final = ("=", "+", "-", "@", "\t", "\r", "'")
_MARK: Final = "'"
_MOMENT: Final = "%Y-%m-%dT%H:%M:%SZ"
_TYPES: Final = {"INTEGER": "integer", "REAL": "number", "TEXT": "string"}

#: Entries of lists in a descriptor (assumptions: the house has some 70 tables, the widest of 30
#: columns; two thousand photos in ten years).
_MOST_TABLES: Final = 300
_MOST_FIELDS: Final = 200
_MOST_PHOTOS: Final = 200_000


class PackageError(ValueError):
    """The package cannot be taken in; the text is a sentence, and nothing was stored."""


class _Described(BaseModel):
    """What is read of a descriptor; what others added is passed over."""

    model_config = ConfigDict(extra="ignore", allow_inf_nan=False)


class FieldDescribed(_Described):
    """A field of a table."""

    name: Annotated[str, Field(max_length=100)]


class SchemaDescribed(_Described):
    """The fields of a table, in the order of its CSV."""

    fields: Annotated[list[FieldDescribed], Field(min_length=1, max_length=_MOST_FIELDS)]


class ResourceDescribed(_Described):
    """A table: its fields, how many rows it has, and the SHA-256 of its CSV."""

    name: Annotated[str, Field(max_length=100)]
    hash: Annotated[str, Field(pattern=r"^sha256:[0-9a-f]{64}$")]
    rows: Annotated[int, Field(ge=0, le=10**9, strict=True)]
    table: SchemaDescribed = Field(alias="schema")


_PhotoName = Annotated[str, Field(pattern="^[0-9a-f]{64}$")]


class OwnDescribed(_Described):
    """Sandboa's own entry: layout, migrations seen, pictures in it, and those that were missing."""

    format: Annotated[int, Field(ge=1, le=10**6, strict=True)]
    migrations: Annotated[
        list[Annotated[str, Field(max_length=100)]], Field(min_length=1, max_length=10_000)
    ]
    photos: Annotated[list[_PhotoName], Field(max_length=_MOST_PHOTOS)] = []
    missing_photos: Annotated[list[_PhotoName], Field(max_length=_MOST_PHOTOS)] = []


class Descriptor(_Described):
    """A whole datapackage.json of Sandboa's."""

    sandboa: OwnDescribed
    resources: Annotated[list[ResourceDescribed], Field(max_length=_MOST_TABLES)]


def is_moment(column: Column, layout: int = FORMAT) -> bool:
    """Whether the column holds whole seconds since 1970."""
    span = layout > 1 and column.name in _SPANS
    return column.kind == "INTEGER" and column.name.endswith("_s") and not span


def field_name(column: Column, layout: int = FORMAT) -> str:
    """What the column is called in a package of that layout."""
    if not is_moment(column, layout):
        return column.name if layout > 2 else unspelled(column.name)
    stem = column.name.removesuffix("_s")
    return "at" if stem == "at" else f"{stem}_at"


def field_of(table: str, column: Column) -> dict[str, Any]:
    """The column's field in a descriptor: its type, meaning, unit, and what it allows."""
    if is_moment(column):
        kind: dict[str, Any] = {"type": "datetime", "format": _MOMENT}
    else:
        kind = {"type": _TYPES[column.kind]}
    told: dict[str, Any] = {"description": words_of(table, column.name)}
    unit = unit_of(column.name)
    if unit is not None and not is_moment(column):
        told["unit"] = unit
    constraints = _constraints(column)
    if constraints:
        told["constraints"] = constraints
    return {"name": field_name(column), **kind, **told}


def resource(table: Table, digest: str, size: int, rows: int) -> dict[str, Any]:
    """The table's entry in datapackage.json."""
    fields = [field_of(table.name, column) for column in table.columns]
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


def _constraints(column: Column) -> dict[str, Any]:
    """What must hold of a field's values, in the words of the standard."""
    found: dict[str, Any] = {}
    if not column.nullable and column.kind != "TEXT":
        found["required"] = True
    limits = column.limits
    if limits.values:
        found["enum"] = [_typed(column, value) for value in limits.values]
    if limits.between is not None:
        found["minimum"], found["maximum"] = limits.between
    if limits.letters is not None:
        low, high = limits.letters
        # An empty text is written as no value.
        found |= {"maxLength": high} if not low else {"minLength": low, "maxLength": high}
    return found


def _typed(column: Column, value: str) -> int | str:
    return int(value) if column.kind == "INTEGER" else value


def as_text(column: Column) -> Callable[[Any], str]:
    """How a value of the column is written; nothing for no value."""
    if is_moment(column):
        return lambda v: "" if v is None else datetime.fromtimestamp(v, UTC).strftime(_MOMENT)
    if column.kind == "REAL":
        # The shortest text that reads back as the very same number.
        return lambda v: "" if v is None else repr(float(v))
    if column.kind == "TEXT":
        return lambda v: "" if v is None else _marked(v)
    return lambda v: "" if v is None else str(v)


def from_text(column: Column, layout: int = FORMAT) -> Callable[[str], Any]:
    """How a value of the column is read back; ValueError when it is none."""
    missing = None if column.nullable or column.kind != "TEXT" else ""
    read = _reader(column, layout)
    return lambda text: missing if text == "" else read(text)


def _reader(column: Column, layout: int) -> Callable[[str], Any]:
    if is_moment(column, layout):
        # The first layout wrote spans as moments after 1970.
        return _seconds if column.name in _SPANS else _moment
    if column.kind == "INTEGER":
        return _whole
    if column.kind == "REAL":
        return float
    return _unmarked if layout > 1 else str


def _marked(text: str) -> str:
    return f"{_MARK}{text}" if text.startswith(_RUN) else text


def _unmarked(text: str) -> str:
    return text.removeprefix(_MARK)


def _whole(text: str) -> int:
    if len(text) > 20:
        raise ValueError(text[:40])
    number = int(text)
    if not -(2**63) <= number < 2**63:
        raise ValueError(text)
    return number


def _seconds(text: str) -> int:
    return int(datetime.strptime(text, _MOMENT).replace(tzinfo=UTC).timestamp())


def _moment(text: str) -> int:
    at_s = _seconds(text)
    if not MOMENT_RANGE_S[0] <= at_s < MOMENT_RANGE_S[1]:
        raise ValueError("it lies outside the years 1980 to 2200")
    return at_s
