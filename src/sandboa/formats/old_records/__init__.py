"""Lists of old records: their columns understood, their cells read; nothing is guessed silently."""

from sandboa.formats.old_records.cells import Cell
from sandboa.formats.old_records.headings import FIELDS, Field
from sandboa.formats.old_records.read import (
    LARGEST_LIST_BYTES,
    ReadLine,
    RecordList,
    Texts,
    order_of,
    read_line,
    read_record_list,
)
from sandboa.formats.old_records.shown import texts_of

__all__ = [
    "FIELDS",
    "LARGEST_LIST_BYTES",
    "Cell",
    "Field",
    "ReadLine",
    "RecordList",
    "Texts",
    "order_of",
    "read_line",
    "read_record_list",
    "texts_of",
]
