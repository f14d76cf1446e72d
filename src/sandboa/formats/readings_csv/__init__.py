"""A logger's CSV file: understood before it is stored, and asked about where it is ambiguous."""

from sandboa.formats.readings_csv.columns import Columns
from sandboa.formats.readings_csv.read import (
    LARGEST_FILE_BYTES,
    BadRow,
    Choices,
    NotReadable,
    Question,
    ReadingsFile,
    read_readings,
)

__all__ = [
    "LARGEST_FILE_BYTES",
    "BadRow",
    "Choices",
    "Columns",
    "NotReadable",
    "Question",
    "ReadingsFile",
    "read_readings",
]
