"""Sheets of XLSX and ODS files as rows of text cells, as a CSV of them would have."""

import io
import zipfile
from collections.abc import Iterator
from datetime import date, datetime, time, timedelta
from typing import Final

from sandboa.formats.logger_files.columns import Row
from sandboa.formats.logger_files.errors import NotReadable

#: Bytes a spreadsheet may unpack to: a season of minutes is about 40 MB (assumption).
LARGEST_UNPACKED_BYTES: Final = 400 * 1024 * 1024
_ZIP: Final = b"PK\x03\x04"


def is_spreadsheet(data: bytes) -> bool:
    """Whether these bytes are packed as XLSX and ODS are."""
    return data[:4] == _ZIP


def sheets_of(data: bytes) -> Iterator[tuple[str, list[Row]]]:
    """Name and rows of each sheet, blank rows left out; numbered as the spreadsheet shows them.

    Raises NotReadable for what is no spreadsheet, is encrypted, or unpacks to more than any
    logger's file.
    """
    # A third of a second to load is for those who bring one.
    import python_calamine as calamine

    _require_bearable(data)
    try:
        book = calamine.CalamineWorkbook.from_filelike(io.BytesIO(data))
        for name in book.sheet_names:
            sheet = book.get_sheet_by_name(name)
            rows = sheet.to_python(skip_empty_area=False)
            cells = ((at, [_text(cell) for cell in row]) for at, row in enumerate(rows, 1))
            yield name, [(at, row) for at, row in cells if any(row)]
    except calamine.PasswordError as error:
        raise NotReadable("the spreadsheet is protected by a password") from error
    except (calamine.CalamineError, OSError, ValueError) as error:
        raise NotReadable(f"this is no spreadsheet that can be read: {error}") from error


def _require_bearable(data: bytes) -> None:
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            unpacked = sum(entry.file_size for entry in packed.infolist())
    except zipfile.BadZipFile as error:
        raise NotReadable("the file is damaged: it cannot be unpacked") from error
    if unpacked > LARGEST_UNPACKED_BYTES:
        raise NotReadable(
            f"it unpacks to {unpacked / 1e6:.0f} MB; "
            f"a logger's file has at most {LARGEST_UNPACKED_BYTES / 1e6:.0f}"
        )


def _text(cell: object) -> str:
    """A cell as a CSV file of the sheet would have it; dates year first."""
    match cell:
        case bool():
            return str(cell)
        case datetime():
            return (cell + timedelta(microseconds=500_000)).strftime("%Y-%m-%d %H:%M:%S")
        case date():
            return cell.isoformat()
        case time():
            return cell.strftime("%H:%M:%S")
        case timedelta():
            return str(cell)
        case float() | int():
            return f"{cell:.10g}"
        case _:
            return " ".join(str(cell or "").split())
