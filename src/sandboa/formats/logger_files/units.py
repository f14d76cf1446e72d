"""In which unit a column is written: by its heading, its cells and the size of its values."""

from collections.abc import Sequence
from statistics import median
from typing import Final, Literal

from sandboa.core.units import celsius_from_fahrenheit, celsius_from_kelvin
from sandboa.formats.logger_files.columns import Row, values_of
from sandboa.formats.logger_files.headings import unit_marks

#: Medians above which unmarked temperatures must be °F, and K: no incubator runs at 50 °C.
_FAHRENHEIT_ABOVE: Final = 50.0
KELVIN_ABOVE: Final = 200.0
#: Median up to which humidity is written as a fraction: near eggs it is never 1.5 % or less.
FRACTION_UP_TO: Final = 1.5

Unit = Literal["c", "f", "k"]
HumidityUnit = Literal["percent", "fraction"]


def temperature_unit(heading: Sequence[str], body: Sequence[Row], place: int) -> Unit | None:
    """The unit of a column of temperatures; None where what is written and its size differ."""
    values = values_of(body, place)
    if not values:
        return "c"
    middle = median(values)
    by_size: Unit = "k" if middle > KELVIN_ABOVE else "f" if middle > _FAHRENHEIT_ABOVE else "c"
    cell = body[0][1][place] if place < len(body[0][1]) else ""
    marks = {mark for text in (*heading[place : place + 1], cell) for mark in unit_marks(text)}
    if len(marks) != 1:
        return by_size
    return by_size if marks == {by_size} else None


def humidity_unit(body: Sequence[Row], place: int | None) -> HumidityUnit | None:
    """Whether a column of humidities is in % or 0 to 1; None without one."""
    if place is None:
        return None
    values = values_of(body, place)
    return "percent" if values and median(values) > FRACTION_UP_TO else "fraction"


def celsius(value: float, unit: Unit) -> float:
    """°C of a value in its unit."""
    if unit == "f":
        return celsius_from_fahrenheit(value)
    return celsius_from_kelvin(value) if unit == "k" else value
