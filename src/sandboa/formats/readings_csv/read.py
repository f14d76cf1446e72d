"""From the bytes of a logger's file to readings, bad rows with reasons, and open questions."""

import csv
import io
import re
from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import tzinfo
from statistics import median
from typing import Final, Literal
from zoneinfo import ZoneInfo

from sandboa.core.units import READING_RANGE_C, celsius_from_fahrenheit
from sandboa.formats.readings_csv.columns import Columns, columns_of_contents, columns_of_heading
from sandboa.formats.readings_csv.delimiter import find_delimiter
from sandboa.formats.readings_csv.numbers import is_missing, number
from sandboa.formats.readings_csv.times import DateOrder, TimeReader, date_order, looks_like_time
from sandboa.records.readings import ReadingRow

#: A year of minute readings is about 20 MB; more than this is no logger's file (assumption).
LARGEST_FILE_BYTES: Final = 48 * 1024 * 1024
#: Rows looked at to find the heading: some loggers write a page about themselves first.
_HEADING_WITHIN: Final = 60
#: Median above which unmarked temperatures must be °F: no incubator runs at 50 °C.
_FAHRENHEIT_ABOVE: Final = 50.0

#: A unit standing by itself in a heading or behind a value: "(C)", "temp_f", "88.7 °F".
_UNIT_MARK: Final = re.compile(
    r"(?:^|[\s(\[_°\d])(c|f|celsius|fahrenheit)(?=$|[\s)\]_,.])", re.IGNORECASE
)

Unit = Literal["c", "f"]
HumidityUnit = Literal["percent", "fraction"]


class NotReadable(ValueError):
    """The file as a whole cannot be read as readings; the text says why."""


@dataclass(frozen=True, slots=True)
class Choices:
    """What the keeper has decided; None is left to the file."""

    zone: str | tzinfo | None = None
    order: DateOrder | None = None
    unit: Unit | None = None
    columns: Columns | None = None


@dataclass(frozen=True, slots=True)
class BadRow:
    line: int
    reason: str


@dataclass(frozen=True, slots=True)
class Question:
    """Something the file leaves open. `about` is "zone", "order", "unit" or "columns"."""

    about: str
    text: str


@dataclass(frozen=True)
class ReadingsFile:
    """A file as understood. With questions open, `rows` is empty: nothing is guessed."""

    heading: tuple[str, ...]
    columns: Columns | None
    delimiter: str
    unit: Unit
    humidity_unit: HumidityUnit | None
    order: DateOrder | None
    times_have_offset: bool
    rows: list[ReadingRow] = field(repr=False)
    bad_rows: list[BadRow] = field(repr=False)
    questions: tuple[Question, ...] = ()

    def require_no_questions(self) -> None:
        """Raise NotReadable when the file leaves anything to be asked."""
        if self.questions:
            raise NotReadable(self.questions[0].text)


def read_readings(data: bytes, choices: Choices | None = None) -> ReadingsFile:
    """Read a logger's file.

    Any column order; comma, semicolon or tab; °C or °F; RH in % or as a
    fraction; decimal point or comma. What is ambiguous becomes a question.
    Rows that cannot be read are listed with their line and reason, the others
    are returned in file order as (s since epoch, °C, humidity 0-1 or None).

    Raises NotReadable for an empty, binary or too large file, or one without
    a time and a temperature.
    """
    choices = choices or Choices()
    table, delimiter = _table(_text(data))
    start, columns = _locate(table, choices.columns)
    heading = tuple(table[start - 1][1]) if start else ()
    body = table[start:]
    if columns is None:
        return ReadingsFile(
            heading or tuple(body[0][1]),
            None,
            delimiter,
            "c",
            None,
            None,
            False,
            [],
            [],
            (Question("columns", "Which columns are the time and the temperature?"),),
        )
    texts = [_time_text(cells, columns) for _, cells in body]
    proven, order_needed = date_order(texts)
    has_offset = _has_offset(texts)
    unit = choices.unit or _unit(heading, columns, body)
    questions = (
        *_questions(choices, proven, order_needed, has_offset, unit),
        *_no_clock(texts, choices),
    )
    humidity_unit = _humidity_unit(columns, body)
    understood = ReadingsFile(
        heading,
        columns,
        delimiter,
        unit or "c",
        humidity_unit,
        choices.order or proven,
        has_offset,
        [],
        [],
        questions,
    )
    if not questions:
        zone = ZoneInfo(choices.zone) if isinstance(choices.zone, str) else choices.zone
        _read_rows(body, texts, understood, TimeReader(zone, understood.order))
    return understood


_Row = tuple[int, list[str]]


def _text(data: bytes) -> str:
    if not data.strip():
        raise NotReadable("the file is empty")
    if len(data) > LARGEST_FILE_BYTES:
        raise NotReadable(
            f"the file has {len(data) / 1e6:.0f} MB; "
            f"a logger's file has at most {LARGEST_FILE_BYTES / 1e6:.0f}"
        )
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
        raise NotReadable("this is not a text file: export it from the logger as CSV")
    return text


def _table(text: str) -> tuple[list[_Row], str]:
    """Rows that are not blank with their line numbers, and the delimiter."""
    delimiter = find_delimiter(text)
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter)
    try:
        table = [(reader.line_num, row) for row in reader if any(cell.strip() for cell in row)]
    except csv.Error as error:
        raise NotReadable(f"line {reader.line_num} cannot be split into cells: {error}") from error
    if not table:
        raise NotReadable("the file is empty")
    return table, delimiter


def _locate(table: Sequence[_Row], chosen: Columns | None) -> tuple[int, Columns | None]:
    """Index of the first data row, and the columns (None when they cannot be told)."""
    for index, (_, cells) in enumerate(table[:_HEADING_WITHIN]):
        columns = columns_of_heading(cells)
        if columns is not None and index + 1 < len(table):
            return index + 1, chosen or columns
    for index, (_, cells) in enumerate(table[:_HEADING_WITHIN]):
        columns = columns_of_contents(cells)
        if columns is not None:
            return index, chosen or columns
    widest = max(len(cells) for _, cells in table[:_HEADING_WITHIN])
    if widest < 2:
        raise NotReadable("no row has both a time and a temperature")
    return 0, chosen


def _time_text(cells: Sequence[str], columns: Columns) -> str:
    text = cells[columns.time] if columns.time < len(cells) else ""
    if columns.clock is not None and columns.clock < len(cells):
        text = f"{text.strip()} {cells[columns.clock].strip()}"
    return text


def _has_offset(texts: Sequence[str]) -> bool:
    """Whether the first readable time says its own offset (or is epoch seconds)."""
    reader = TimeReader(None, "dmy")
    for text in texts[:50]:
        if looks_like_time(text):
            try:
                reader.seconds(text)
            except ValueError:
                return False
            return True
    return False


def _unit(heading: Sequence[str], columns: Columns, body: Sequence[_Row]) -> Unit | None:
    """°C or °F by heading, cell or size; None when heading and values contradict each other."""
    values = _column_numbers(body, columns.temperature)
    if not values:
        return "c"
    by_size: Unit = "f" if median(values) > _FAHRENHEIT_ABOVE else "c"
    name = heading[columns.temperature] if columns.temperature < len(heading) else ""
    cell = body[0][1][columns.temperature] if columns.temperature < len(body[0][1]) else ""
    marks = {mark.lower()[0] for text in (name, cell) for mark in _UNIT_MARK.findall(text)}
    marked_f, marked_c = "f" in marks, "c" in marks
    if marked_f == marked_c:
        return by_size
    marked: Unit = "f" if marked_f else "c"
    return marked if marked == by_size else None


def _humidity_unit(columns: Columns, body: Sequence[_Row]) -> HumidityUnit | None:
    if columns.humidity is None:
        return None
    values = _column_numbers(body, columns.humidity)
    # Humidity near eggs is never 1.5 % or less, so the size alone tells.
    return "percent" if values and median(values) > 1.5 else "fraction"


def _column_numbers(body: Sequence[_Row], column: int) -> list[float]:
    cells = (row[column] for _, row in body[:2000] if column < len(row))
    return [value for cell in cells if (value := number(cell)) is not None]


def _questions(
    choices: Choices,
    proven: DateOrder | None,
    order_needed: bool,
    has_offset: bool,
    unit: Unit | None,
) -> tuple[Question, ...]:
    questions = []
    if order_needed and proven is None and choices.order is None:
        questions.append(
            Question("order", "Is 03/04 the 3rd of April or the 4th of March in this file?")
        )
    if not has_offset and choices.zone is None:
        questions.append(
            Question("zone", "The times carry no zone: which clock did the logger show?")
        )
    if unit is None:
        questions.append(Question("unit", "The heading and the values disagree: is this °C or °F?"))
    return tuple(questions)


def _no_clock(texts: Sequence[str], choices: Choices) -> tuple[Question, ...]:
    """Asks for the clock where several readings of a day carry its date alone: else all of them
    would be of midnight."""
    if choices.columns is not None:
        return ()
    first = [text.strip() for text in texts[:500] if looks_like_time(text)]
    without = [text for text in first if ":" not in text and not text.isdigit()]
    if len(without) < len(first) or len(set(without)) == len(without):
        return ()
    return (Question("columns", "The dates carry no hour: which column is the clock?"),)


def _read_rows(
    body: Sequence[_Row], texts: Sequence[str], into: ReadingsFile, times: TimeReader
) -> None:
    assert into.columns is not None
    for (line, cells), text in zip(body, texts, strict=True):
        try:
            into.rows.append(
                (
                    times.seconds(text),
                    _temperature(_cell(cells, into.columns.temperature), into.unit),
                    _humidity(_cell(cells, into.columns.humidity), into.humidity_unit),
                )
            )
        except ValueError as error:
            into.bad_rows.append(BadRow(line, str(error)))


def _cell(cells: Sequence[str], column: int | None) -> str:
    return cells[column].strip() if column is not None and column < len(cells) else ""


def _temperature(text: str, unit: Unit) -> float:
    value = number(text)
    if value is None:
        raise ValueError(
            "the temperature is missing"
            if is_missing(text)
            else f'temperature "{text[:40]}" is not a number'
        )
    celsius = celsius_from_fahrenheit(value) if unit == "f" else value
    low, high = READING_RANGE_C
    if not low <= celsius <= high:
        raise ValueError(f"{value:g} °{unit.upper()} is outside what a logger near eggs can read")
    return round(celsius, 4)


def _humidity(text: str, unit: HumidityUnit | None) -> float | None:
    if unit is None or is_missing(text):
        return None
    value = number(text)
    if value is None:
        raise ValueError(f'humidity "{text[:40]}" is not a number')
    fraction = value / 100 if unit == "percent" else value
    if not 0.0 <= fraction <= 1.0:
        raise ValueError(f"humidity {text} is outside 0 to 100 %")
    return round(fraction, 5)
