"""From the bytes of a logger's file to readings, bad rows with reasons, and open questions."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from datetime import timedelta, timezone, tzinfo
from typing import Final
from zoneinfo import ZoneInfo

from sandboa.formats.logger_files.columns import (
    LOOKED_AT,
    MOST_SENSORS,
    Columns,
    ColumnUse,
    Row,
    Understood,
    columns_of_contents,
    columns_of_heading,
    is_heading,
    is_reading,
)
from sandboa.formats.logger_files.errors import NotReadable
from sandboa.formats.logger_files.headings import offset_hours
from sandboa.formats.logger_files.logger_file import Choices, LoggerFile, Question, Sensor
from sandboa.formats.logger_files.numbers import number
from sandboa.formats.logger_files.rows import cell_at, names_at, read_rows, several_at_once
from sandboa.formats.logger_files.table import Table, tables_of
from sandboa.formats.logger_files.times import DateOrder, TimeReader, date_order, looks_like_time
from sandboa.formats.logger_files.units import Unit, humidity_unit, temperature_unit
from sandboa.formats.logger_files.unpivot import widened

#: Rows looked at to find the heading: some loggers write a page about themselves first.
_HEADING_WITHIN: Final = 60
#: Share of cells of the time that must be one, before a column is taken for it.
_TIMES_AT_LEAST: Final = 0.5
_SAMPLE_ROWS: Final = 5


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
    read = read_rows(file, body, times, reader)
    several = several_at_once(read) if choices.columns is None else None
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
    return [f"{cell_at(cells, time)} {cell_at(cells, clock)}".strip() for _, cells in body]


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
    names = [""] if label is None else names_at(body, label)
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
