"""From the bytes of a logger's file to readings, bad rows with reasons, and open questions."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from datetime import timedelta, timezone, tzinfo
from typing import Final
from zoneinfo import ZoneInfo

from sandboa.core.units import READING_RANGE_C
from sandboa.formats.logger_files.columns import (
    LOOKED_AT,
    MOST_SENSORS,
    Columns,
    ColumnUse,
    Row,
    SensorColumns,
    Understood,
    columns_of_contents,
    columns_of_heading,
    is_heading,
    is_reading,
)
from sandboa.formats.logger_files.errors import NotReadable
from sandboa.formats.logger_files.headings import offset_hours
from sandboa.formats.logger_files.numbers import is_missing, number
from sandboa.formats.logger_files.table import Table, tables_of
from sandboa.formats.logger_files.times import DateOrder, TimeReader, date_order, looks_like_time
from sandboa.formats.logger_files.units import (
    HumidityUnit,
    Unit,
    celsius,
    humidity_unit,
    temperature_unit,
)
from sandboa.formats.logger_files.unpivot import widened
from sandboa.records.readings import ReadingRow

#: Rows looked at to find the heading: some loggers write a page about themselves first.
_HEADING_WITHIN: Final = 60
#: Share of cells of the time that must be one, before a column is taken for it.
_TIMES_AT_LEAST: Final = 0.5
#: Share of rows that say something else of a moment that was told already, from which a file must
#: be of several sensors.
_SEVERAL_FROM: Final = 0.05
_SAMPLE_ROWS: Final = 5

_SIGNS: Final = {"c": "°C", "f": "°F", "k": "K"}


@dataclass(frozen=True, slots=True)
class Choices:
    """What the keeper has decided; None is left to the file."""

    zone: str | tzinfo | None = None
    order: DateOrder | None = None
    unit: Unit | None = None
    columns: Columns | None = None
    sheet: str | None = None


@dataclass(frozen=True, slots=True)
class BadRow:
    """A row, or one cell of it, that cannot be read."""

    line: int
    reason: str


@dataclass(frozen=True, slots=True)
class Question:
    """Something the file leaves open. `about` is "zone", "order", "unit", "columns" or "sheet"."""

    about: str
    text: str


@dataclass(frozen=True)
class Sensor:
    """What one sensor of a file measured; `rows` in the order of the file.

    `name` is what the file calls it, "" where it is the only one and has none; `columns` where its
    values stand.
    """

    name: str
    columns: SensorColumns
    unit: Unit
    humidity_unit: HumidityUnit | None
    rows: list[ReadingRow] = field(repr=False, default_factory=list)


@dataclass(frozen=True)
class LoggerFile:
    """A file as understood. With questions open, no sensor has rows: nothing is guessed.

    `sample` are cells of the first rows, as they are written; `sheets` names those of a spreadsheet
    that hold readings.
    """

    heading: tuple[str, ...]
    columns: Columns
    sample: tuple[tuple[str, ...], ...]
    written: str
    order: DateOrder | None
    times_have_offset: bool
    sensors: tuple[Sensor, ...]
    bad_rows: list[BadRow] = field(repr=False)
    questions: tuple[Question, ...] = ()
    sheet: str = ""
    sheets: tuple[str, ...] = ()

    def require_no_questions(self) -> None:
        """Raise NotReadable when the file leaves anything to be asked."""
        if self.questions:
            raise NotReadable(self.questions[0].text)

    @property
    def only_sensor(self) -> Sensor:
        """The sensor of a file of one; NotReadable where there are several."""
        if len(self.sensors) > 1:
            names = ", ".join(f"“{sensor.name}”" for sensor in self.sensors)
            raise NotReadable(f"the file is of {len(self.sensors)} sensors: {names}")
        return self.sensors[0]

    @property
    def rows(self) -> list[ReadingRow]:
        """Readings of a file of one sensor."""
        return self.only_sensor.rows


def read_logger_file(data: bytes, choices: Choices | None = None) -> LoggerFile:
    """Read a logger's file.

    Text with any delimiter, XLSX or ODS; columns in any order; one sensor, several side by side,
    or several one under the other; °C, °F or K; humidity in % or as a fraction; decimal point or
    comma. What is ambiguous becomes a question. Rows that cannot be read are listed with their
    line and reason, the others are returned as (s since epoch, °C, humidity 0-1 or None).

    Raises NotReadable for an empty, binary or too large file, or one without a time and a
    temperature.
    """
    choices = choices or Choices()
    tables = tables_of(data)
    with_readings = [table for table in tables if _holds_readings(table.rows)]
    sheets = tuple(table.sheet for table in with_readings if table.sheet)
    chosen = [table for table in with_readings if table.sheet == choices.sheet]
    table = (chosen or with_readings or tables)[0]
    understood = _understand(table, choices)
    understood = replace(understood, sheet=table.sheet, sheets=sheets)
    if len(with_readings) > 1 and not chosen:
        asked = Question("sheet", "Readings stand in several sheets: which one is it?")
        return _asking(understood, (asked,))
    return understood


def _asking(file: LoggerFile, questions: tuple[Question, ...]) -> LoggerFile:
    """The file with more to ask, and so without a reading."""
    empty = tuple(replace(sensor, rows=[]) for sensor in file.sensors)
    return replace(file, sensors=empty, bad_rows=[], questions=(*file.questions, *questions))


def _holds_readings(rows: Sequence[Row]) -> bool:
    first = [cells for _, cells in rows[:_HEADING_WITHIN]]
    return any(is_heading(cells) for cells in first[:-1]) or any(map(is_reading, first))


def _understand(table: Table, choices: Choices) -> LoggerFile:
    heading, body = _parts(table.rows)
    found = columns_of_heading(heading, body) if heading else columns_of_contents(body)
    if choices.columns is not None:
        # What is said of columns that are not there is of another file.
        width = max(len(heading), *(len(cells) for _, cells in body[:LOOKED_AT]))
        found = Understood(Columns(choices.columns.uses[:width]))
    columns, times = found.columns, _time_texts(body, found.columns)
    proven, order_needed = date_order(times)
    reader_zone = _zone(choices, heading, columns)
    has_offset = _has_offset(times)
    questions = [
        *_about_columns(found, heading, times),
        *(
            # Of no column in particular nothing is asked.
            _about_times(choices, proven, order_needed, has_offset or reader_zone is not None)
            if columns.time is not None
            else ()
        ),
    ]
    sensors = list(_sensors(heading, body, columns, choices.unit))
    if any(unit is None for _, unit in sensors):
        questions.append(Question("unit", "The heading and the values disagree: °C, °F or kelvin?"))
    file = LoggerFile(
        heading=tuple(heading),
        columns=columns,
        sample=tuple(tuple(cells) for _, cells in body[:_SAMPLE_ROWS]),
        written=table.written,
        order=choices.order or proven,
        times_have_offset=has_offset,
        sensors=tuple(sensor for sensor, _ in sensors),
        bad_rows=[],
        questions=tuple(questions),
    )
    if questions:
        return file
    reader = TimeReader(reader_zone, file.order)
    read = _read_rows(file, body, times, reader)
    several = _several_at_once(read) if choices.columns is None else None
    return _asking(read, (several,)) if several else read


def _parts(rows: Sequence[Row]) -> tuple[list[str], list[Row]]:
    """Heading and data rows; no heading where none names a time and a temperature."""
    for index, (_, cells) in enumerate(rows[:_HEADING_WITHIN]):
        if is_heading(cells) and index + 1 < len(rows):
            body = list(rows[index + 1 :])
            return widened(cells, body) or (list(cells), body)
    for index, (_, cells) in enumerate(rows[:_HEADING_WITHIN]):
        if is_reading(cells):
            # The row above is no heading that is understood, but may say to a person what is what.
            above = rows[index - 1][1] if index else []
            named_so = len(above) == len(cells) and not any(map(str.isdigit, above))
            return (list(above) if named_so else []), list(rows[index:])
    if max(len(cells) for _, cells in rows[:_HEADING_WITHIN]) < 2:
        raise NotReadable("no row has both a time and a temperature")
    return [], list(rows)


def _time_texts(body: Sequence[Row], columns: Columns) -> list[str]:
    time, clock = columns.time, columns.clock
    if time is None:
        return [""] * len(body)
    if clock is None:
        return [cells[time] if time < len(cells) else "" for _, cells in body]
    return [f"{_cell(cells, time)} {_cell(cells, clock)}".strip() for _, cells in body]


def _zone(choices: Choices, heading: Sequence[str], columns: Columns) -> tzinfo | None:
    """The zone of times without offset: as chosen, else as the heading of the time says."""
    if choices.zone is not None:
        return ZoneInfo(choices.zone) if isinstance(choices.zone, str) else choices.zone
    for place in (columns.time, columns.clock):
        if place is not None and place < len(heading):
            hours = offset_hours(heading[place])
            if hours is not None:
                return timezone(timedelta(hours=hours))
    return None


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


def _about_columns(
    found: Understood, heading: Sequence[str], times: Sequence[str]
) -> Iterator[Question]:
    columns = found.columns
    if columns.time is None or columns.first(ColumnUse.TEMPERATURE) is None:
        yield Question("columns", "Which columns are the time and the temperature?")
        return
    looked_at = times[:LOOKED_AT]
    readable = sum(looks_like_time(text) for text in looked_at)
    if found.doubt:
        yield Question("columns", found.doubt)
    elif columns.clock is None and readable < _TIMES_AT_LEAST * len(looked_at):
        name = heading[columns.time] if columns.time < len(heading) else f"{columns.time + 1}"
        yield Question("columns", f"Column “{name}” holds hardly any time: which column does?")
    elif columns.clock is None and _without_hours(times):
        yield Question("columns", "The dates carry no hour: which column is the clock?")


def _without_hours(times: Sequence[str]) -> bool:
    """Whether most rows are of a day another row is of already, and none has an hour."""
    days = [text for text in times if text.strip()]
    has_hours = any(":" in text or "T" in text or text.count(".") > 2 for text in days[:200])
    numbers = any(number(text) is not None for text in days[:200])
    return not has_hours and not numbers and len(days) > 1 and 2 * len(set(days)) <= len(days)


def _about_times(
    choices: Choices, proven: DateOrder | None, order_needed: bool, has_zone: bool
) -> Iterator[Question]:
    if order_needed and proven is None and choices.order is None:
        yield Question("order", "Is 03/04 the 3rd of April or the 4th of March in this file?")
    if not has_zone:
        yield Question("zone", "The times carry no zone: which clock did the logger show?")


def _sensors(
    heading: Sequence[str], body: Sequence[Row], columns: Columns, chosen: Unit | None
) -> Iterator[tuple[Sensor, Unit | None]]:
    """Each sensor of the file, without rows, and the unit it is in, None where that is open."""
    wide = columns.sensors(heading)
    label = columns.first(ColumnUse.SENSOR)
    names = [""] if label is None else _names(body, label)
    if len(names) > MOST_SENSORS:
        raise NotReadable(
            f"the column of sensors' names holds {len(names):,} of them; at most {MOST_SENSORS} "
            "are in one file"
        )
    for own in wide:
        unit = chosen or temperature_unit(heading, body, own.temperature)
        for name in names:
            words = [word for word in (name, own.name) if word]
            called = " ".join(words) if len(wide) * len(names) > 1 else own.name
            if not called and len(wide) > 1:
                called = f"column {own.temperature + 1}"
            yield (
                Sensor(called, own, unit or "c", humidity_unit(body, own.humidity)),
                unit,
            )


def _names(body: Sequence[Row], label: int) -> list[str]:
    return list(dict.fromkeys(_cell(cells, label) for _, cells in body if _cell(cells, label)))


def _read_rows(
    file: LoggerFile, body: Sequence[Row], times: Sequence[str], reader: TimeReader
) -> LoggerFile:
    label = file.columns.first(ColumnUse.SENSOR)
    places = file.columns.sensors(file.heading)
    by_name: dict[str, list[Sensor]] = {"": list(file.sensors)}
    if label is not None:
        names = _names(body, label)
        by_name = {
            name: [file.sensors[at * len(names) + own] for at in range(len(places))]
            for own, name in enumerate(names)
        }
    alone = len(file.sensors) == 1
    # Each sensor of a long file has its own order of rows: the hour shown twice is told by it.
    readers = {name: replace(reader) for name in by_name}
    for (line, cells), text in zip(body, times, strict=True):
        name = "" if label is None else _cell(cells, label)
        if name not in by_name:
            file.bad_rows.append(BadRow(line, "it does not say of which sensor it is"))
            continue
        for reason in _read_row(cells, text, by_name[name], readers[name], alone=alone):
            file.bad_rows.append(BadRow(line, reason))
    return file


def _read_row(
    cells: Sequence[str], time: str, sensors: Sequence[Sensor], reader: TimeReader, *, alone: bool
) -> Iterator[str]:
    """Add a row to the sensors it is of; what of it cannot be read, in words."""
    try:
        at_s = reader.seconds(time)
    except ValueError as error:
        yield str(error)
        return
    for sensor in sensors:
        cell = _cell(cells, sensor.columns.temperature)
        if not alone and is_missing(cell):
            # Sensors side by side take turns; an empty cell is another's turn.
            continue
        try:
            sensor.rows.append(
                (
                    at_s,
                    _temperature(cell, sensor.unit),
                    _humidity(_cell(cells, sensor.columns.humidity), sensor.humidity_unit),
                )
            )
        except ValueError as error:
            yield str(error) if alone else f"{sensor.name}: {error}"


def _several_at_once(file: LoggerFile) -> Question | None:
    """Asked where readings of one sensor contradict each other at the same moments: then a column
    says of which sensor each row is, and was not recognised."""
    for sensor in file.sensors:
        known: dict[int, float] = {}
        other = sum(known.setdefault(at_s, value) != value for at_s, value, _ in sensor.rows)
        if other > _SEVERAL_FROM * len(sensor.rows):
            return Question(
                "columns",
                "The same moments are told with different temperatures: which column says of which "
                "sensor a row is?",
            )
    return None


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
    at_c = celsius(value, unit)
    low, high = READING_RANGE_C
    if not low <= at_c <= high:
        raise ValueError(f"{value:g} {_SIGNS[unit]} is outside what a logger near eggs can read")
    return round(at_c, 4)


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
