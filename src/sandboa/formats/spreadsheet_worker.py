"""A process of its own that reads spreadsheets: what one of them does to it, the house survives.

Run as `python -m sandboa.formats.spreadsheet_worker`. On standard input comes the file; the answer
on standard output is JSON: `{"sheets": [[name, [[row, [cell, ...]], ...]], ...]}` with blank rows
left out, or `{"problem": "..."}`. A sheet with one cell far out is a table of billions of cells to
the package that reads it, and ends this process.
"""

import io
import json
import sys
import zipfile
from datetime import date, datetime, time, timedelta
from typing import Any, Final

#: Bytes a spreadsheet may unpack to: a season of minutes is about 40 MB (assumption).
LARGEST_UNPACKED_BYTES: Final = 400 * 1024 * 1024
#: Bytes of address space: a year of minutes, as cells and as JSON (assumption).
MOST_MEMORY: Final = 2 * 2**30

Row = tuple[int, list[str]]


class Unreadable(ValueError):
    """It is no spreadsheet that can be read; the text says why."""


def read(data: bytes) -> list[tuple[str, list[Row]]]:
    """Name and rows of each sheet, numbered as the spreadsheet shows them; Unreadable else."""
    import python_calamine as calamine

    _require_bearable(data)
    try:
        book = calamine.CalamineWorkbook.from_filelike(io.BytesIO(data))
        return [(name, _rows(book.get_sheet_by_name(name))) for name in book.sheet_names]
    except calamine.PasswordError as error:
        raise Unreadable("the spreadsheet is protected by a password") from error
    except (calamine.CalamineError, OSError, ValueError) as error:
        raise Unreadable(f"this is no spreadsheet that can be read: {error}") from error


def _rows(sheet: Any) -> list[Row]:
    rows = sheet.to_python(skip_empty_area=False)
    cells = ((at, [_text(cell) for cell in row]) for at, row in enumerate(rows, 1))
    return [(at, row) for at, row in cells if any(row)]


def _require_bearable(data: bytes) -> None:
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            unpacked = sum(entry.file_size for entry in packed.infolist())
    except zipfile.BadZipFile as error:
        raise Unreadable("the file is damaged: it cannot be unpacked") from error
    if unpacked > LARGEST_UNPACKED_BYTES:
        raise Unreadable(
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


def main() -> None:
    """Read what comes and answer."""
    _bound_memory()
    try:
        told: dict[str, object] = {"sheets": read(sys.stdin.buffer.read())}
    except Unreadable as error:
        told = {"problem": str(error)}
    json.dump(told, sys.stdout)


def _bound_memory() -> None:
    if sys.platform != "win32":
        import resource

        resource.setrlimit(resource.RLIMIT_AS, (MOST_MEMORY, MOST_MEMORY))
        resource.setrlimit(resource.RLIMIT_CORE, (0, 0))


if __name__ == "__main__":
    main()
