"""What parts the cells of a logger's file: the delimiter by which most rows are readings."""

import csv
from collections import Counter
from collections.abc import Sequence
from itertools import islice
from typing import Final

from sandboa.formats.logger_files.columns import is_reading

#: In the order in which they are taken where two serve alike.
DELIMITERS: Final = (",", ";", "\t", "|")
#: Lines looked at: enough to come to the readings behind a page of preamble.
_LINES: Final = 120


def find_delimiter(text: str) -> str:
    """The delimiter that makes readings of most rows; else that which cuts rows most alike.

    A row is a reading where a time and a number stand in cells of their own: a decimal comma in a
    file parted by semicolons makes none, for its time then hangs on the number. Text of one
    column is parted by commas.
    """
    lines = list(islice(_lines(text), _LINES))
    return max(DELIMITERS, key=lambda delimiter: _serves(lines, delimiter))


def _lines(text: str) -> Sequence[str]:
    # Not all of a year of minutes is cut into lines to look at the first few.
    return text[: _LINES * 1_000].splitlines()


def _serves(lines: Sequence[str], delimiter: str) -> tuple[int, int, int]:
    """Rows that are readings; rows of the commonest width, where it is more than one cell; and
    that width."""
    try:
        rows = [row for row in csv.reader(lines, delimiter=delimiter) if row]
    except csv.Error:
        return 0, 0, 0
    readings = sum(is_reading(row) for row in rows)
    widths = Counter(len(row) for row in rows if len(row) > 1)
    width, alike = max(widths.items(), key=lambda item: (item[1], item[0]), default=(0, 0))
    return readings, alike, width
