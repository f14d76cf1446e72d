"""Sheets of XLSX and ODS files as rows of text cells, as a CSV of them would have."""

import json
import subprocess
import sys
from typing import Final

from sandboa.formats import spreadsheet_worker
from sandboa.formats.logger_files.columns import Row
from sandboa.formats.logger_files.errors import NotReadable

#: s a spreadsheet may take on a slow machine: a year of minutes takes 5 here (assumption).
_LONGEST_S: Final = 120.0
_ZIP: Final = b"PK\x03\x04"


def is_spreadsheet(data: bytes) -> bool:
    """Whether these bytes are packed as XLSX and ODS are."""
    return data[:4] == _ZIP


def sheets_of(data: bytes) -> list[tuple[str, list[Row]]]:
    """Name and rows of each sheet, blank rows left out; numbered as the spreadsheet shows them.

    Read by a process of its own, with bounded memory. Raises NotReadable for what is no
    spreadsheet, is encrypted, or is larger than any logger's file.
    """
    command = [sys.executable, "-m", spreadsheet_worker.__name__]
    try:
        done = subprocess.run(
            command, input=data, capture_output=True, timeout=_LONGEST_S, check=False
        )
    except subprocess.TimeoutExpired as error:
        raise NotReadable("the spreadsheet takes too long to read: save it as CSV") from error
    if done.returncode != 0:
        raise NotReadable(
            "the spreadsheet takes more memory than a logger's file ever does: is there a cell far "
            "out? Save the readings as CSV"
        )
    told = json.loads(done.stdout)
    if "problem" in told:
        raise NotReadable(told["problem"])
    return [(name, [(at, cells) for at, cells in rows]) for name, rows in told["sheets"]]
