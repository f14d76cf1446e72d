"""Quantities as a reader reads them."""

from datetime import datetime
from functools import singledispatch
from typing import Final

from sandboa.core.messages import (
    Day,
    Difference,
    Mass,
    Moment,
    Share,
    Temperature,
    TemperatureRange,
    number,
)
from sandboa.core.units import FAHRENHEIT_PER_CELSIUS, TemperatureUnit, fahrenheit_from_celsius
from sandboa.words.dates import day, full_day
from sandboa.words.reader import Reader

#: Does not break: a number stays on the line of its unit.
SPACE: Final = "\u00a0"


@singledispatch
def spoken(quantity: object, _reader: Reader) -> str:
    """A quantity in words; what is none, as it is."""
    return str(quantity)


@spoken.register
def _(quantity: Temperature, reader: Reader) -> str:
    return f"{_degrees(quantity.celsius, quantity.digits, reader)}{SPACE}°{reader.unit}"


@spoken.register
def _(quantity: TemperatureRange, reader: Reader) -> str:
    low = _degrees(quantity.low_c, quantity.digits, reader)
    high = _degrees(quantity.high_c, quantity.digits, reader)
    return f"{low} to {high}{SPACE}°{reader.unit}"


@spoken.register
def _(quantity: Difference, reader: Reader) -> str:
    factor = 1.0 if reader.unit is TemperatureUnit.CELSIUS else FAHRENHEIT_PER_CELSIUS
    return f"{number(factor * quantity.celsius, quantity.digits)}{SPACE}°{reader.unit}"


@spoken.register
def _(quantity: Mass, _reader: Reader) -> str:
    return f"{quantity.grams:.0f}{SPACE}g"


@spoken.register
def _(quantity: Share, _reader: Reader) -> str:
    return f"{100 * quantity.share:.0f}{SPACE}%"


@spoken.register
def _(quantity: Moment, reader: Reader) -> str:
    hour = datetime.fromtimestamp(quantity.at_s, reader.zone)
    return f"{day(quantity.at_s, reader.zone)}, {hour:%H:%M}"


@spoken.register
def _(quantity: Day, reader: Reader) -> str:
    return full_day(quantity.at_s, reader.zone)


def _degrees(celsius: float, digits: int | None, reader: Reader) -> str:
    if reader.unit is TemperatureUnit.CELSIUS:
        return number(celsius, digits)
    # A round number of °C is none of °F: "27 °C" is told as 80.6 °F.
    return number(fahrenheit_from_celsius(celsius), 1 if digits == 0 else digits)
