"""A logger's file: understood before it is stored, and asked about where it is ambiguous."""

from sandboa.formats.logger_files.columns import Columns, ColumnUse
from sandboa.formats.logger_files.errors import NotReadable
from sandboa.formats.logger_files.logger_file import (
    BadRow,
    Choices,
    LoggerFile,
    Question,
    Sensor,
)
from sandboa.formats.logger_files.read import read_logger_file
from sandboa.formats.logger_files.table import LARGEST_FILE_BYTES

__all__ = [
    "LARGEST_FILE_BYTES",
    "BadRow",
    "Choices",
    "ColumnUse",
    "Columns",
    "LoggerFile",
    "NotReadable",
    "Question",
    "Sensor",
    "read_logger_file",
]
