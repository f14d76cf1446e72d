"""From rows of cells to readings, each given to the sensor it is of."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Final

from sandboa.core.units import READING_RANGE_C
from sandboa.formats.logger_files.columns import ColumnUse, Row
from sandboa.formats.logger_files.logger_file import BadRow, LoggerFile, Question, Sensor
from sandboa.formats.logger_files.numbers import is_missing, number
from sandboa.formats.logger_files.times import TimeReader
from sandboa.formats.logger_files.units import HumidityUnit, Unit, celsius

#: Share of rows that say something else of a moment that was told already, from which a file must
#: be of several sensors.
_SEVERAL_FROM: Final = 0.05
_SIGNS: Final = {"c": "°C", "f": "°F", "k": "K"}


def names_at(body: Sequence[Row], label: int) -> list[str]:
    """What a column of sensors' names calls them, in the order of the file."""
    return list(dict.fromkeys(cell_at(cells, label) for _, cells in body if cell_at(cells, label)))


def cell_at(cells: Sequence[str], column: int | None) -> str:
    """A cell of a row; empty where the row is too short or there is no such column."""
    return cells[column].strip() if column is not None and column < len(cells) else ""


def read_rows(
    file: LoggerFile, body: Sequence[Row], times: Sequence[str], reader: TimeReader
) -> LoggerFile:
    """The file with its rows read: each added to its sensors, or to those that cannot be read.

    `times` are the texts of the times of `body`, row by row.
    """
    label = file.columns.first(ColumnUse.SENSOR)
    places = file.columns.sensors(file.heading)
    by_name: dict[str, list[Sensor]] = {"": list(file.sensors)}
    if label is not None:
        names = names_at(body, label)
        by_name = {
            name: [file.sensors[at * len(names) + own] for at in range(len(places))]
            for own, name in enumerate(names)
        }
    alone = len(file.sensors) == 1
    # Each sensor of a long file has its own order of rows: the hour shown twice is told by it.
    readers = {name: replace(reader) for name in by_name}
    for (line, cells), text in zip(body, times, strict=True):
        name = "" if label is None else cell_at(cells, label)
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
        cell = cell_at(cells, sensor.columns.temperature)
        if not alone and is_missing(cell):
            # Sensors side by side take turns; an empty cell is another's turn.
            continue
        try:
            sensor.rows.append(
                (
                    at_s,
                    _temperature(cell, sensor.unit),
                    _humidity(cell_at(cells, sensor.columns.humidity), sensor.humidity_unit),
                )
            )
        except ValueError as error:
            yield str(error) if alone else f"{sensor.name}: {error}"


def several_at_once(file: LoggerFile) -> Question | None:
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
