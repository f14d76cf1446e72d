"""From the bytes of a file to rows of cells: text with a delimiter, or a spreadsheet."""

import csv
import io
from dataclasses import dataclass, field
from typing import Final

from sandboa.formats.logger_files.columns import Row
from sandboa.formats.logger_files.delimiter import find_delimiter
from sandboa.formats.logger_files.errors import NotReadable
from sandboa.formats.logger_files.spreadsheet import is_spreadsheet, sheets_of

#: A year of minute readings is about 20 MB; more than this is no logger's file (assumption).
LARGEST_FILE_BYTES: Final = 48 * 1024 * 1024


@dataclass(frozen=True, slots=True)
class Table:
    """Rows that are not blank, with their line numbers; `written` is the delimiter, or
    "spreadsheet"; `sheet` the name of the one they stand in, "" in a text file."""

    rows: list[Row] = field(repr=False)
    written: str
    sheet: str = ""


def tables_of(data: bytes) -> list[Table]:
    """The table of a text file, or one of each sheet that is not empty, in their order.

    Raises NotReadable for an empty, too large or binary file.
    """
    if not data.strip():
        raise NotReadable("the file is empty")
    if len(data) > LARGEST_FILE_BYTES:
        raise NotReadable(
            f"the file has {len(data) / 1e6:.0f} MB; "
            f"a logger's file has at most {LARGEST_FILE_BYTES / 1e6:.0f}"
        )
    if is_spreadsheet(data):
        tables = [Table(rows, "spreadsheet", name) for name, rows in sheets_of(data) if rows]
    else:
        tables = [_text_table(_text(data))]
    if not tables or not tables[0].rows:
        raise NotReadable("the file is empty")
    return tables


def _text(data: bytes) -> str:
    for encoding in (
        ("utf-8-sig", "utf-16") if data[:2] in (b"\xff\xfe", b"\xfe\xff") else ("utf-8-sig",)
    ):
        try:
            text = data.decode(encoding)
        except UnicodeDecodeError:
            continue
        if "\0" not in text:
            return text
    text = data.decode("cp1252", errors="replace")
    strange = sum(not (c.isprintable() or c in "\r\n\t") for c in text[:4096])
    if "\0" in text or strange > 8:
        raise NotReadable(
            "this is neither a text file nor a spreadsheet: save it as CSV, XLSX or ODS"
        )
    return text


def _text_table(text: str) -> Table:
    # Spaces that do not break stand in dates and before units; to a reader they are spaces.
    text = text.replace("\u202f", " ").replace("\xa0", " ")
    delimiter = find_delimiter(text)
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter)
    try:
        rows = [(reader.line_num, row) for row in reader if any(cell.strip() for cell in row)]
    except csv.Error as error:
        raise NotReadable(f"line {reader.line_num} cannot be split into cells: {error}") from error
    return Table(rows, delimiter)
