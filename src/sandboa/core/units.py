"""Keeper's units to core units, and the limits of what can be true.

The core computes in °C, g and seconds. These functions are the only place
where °F and oz are turned into them.
"""

import math
import re
from enum import StrEnum
from typing import Final

from sandboa.core.errors import NotPlausible
from sandboa.core.messages import Message, Temperature, TemperatureRange, Words

SECONDS_PER_DAY: Final = 86_400.0
SECONDS_PER_HOUR: Final = 3_600.0
SECONDS_PER_MINUTE: Final = 60.0
GRAMS_PER_OUNCE: Final = 28.349523125
#: °F between two temperatures that are 1 °C apart; exact by definition.
FAHRENHEIT_PER_CELSIUS: Final = 1.8

#: K at 0 °C; exact by definition.
_KELVIN_AT_0_C: Final = 273.15

#: °C a logger near eggs can honestly report: from a frozen shed to a hot loft (assumption).
READING_RANGE_C: Final = (-20.0, 60.0)
#: °C a cabinet can be set to while eggs are in it (assumption; above 32.8 °C is discouraged).
SET_POINT_RANGE_C: Final = (20.0, 36.0)
#: s since epoch within which everything that is recorded lies: the years 1980 to 2200 (product
#: requirement).
MOMENT_RANGE_S: Final = (315_532_800.0, 7_258_118_400.0)
#: s a phone's clock may be ahead of the house's before "in the future" is said (assumption).
CLOCK_GRACE_S: Final = 60.0
#: Standard deviations from the middle of a normal to either end of its 80 % band: the quantile of
#: 0.9, written out so that reading units does not load a library of statistics.
Z80: Final = 1.2815515655446004
#: g of dry medium a box can hold (assumption).
MEDIUM_MASS_RANGE_G: Final = (1.0, 20_000.0)


class TemperatureUnit(StrEnum):
    """What somebody reads temperatures in."""

    CELSIUS = "C"
    FAHRENHEIT = "F"


def require_reading(at_c: float, humidity: float | None) -> None:
    """Raise NotPlausible for what no sensor near eggs reads: °C, and relative humidity 0-1."""
    low, high = READING_RANGE_C
    if not low <= at_c <= high:
        raise NotPlausible(
            "temperature",
            Message("{value} is outside what a sensor near eggs can read", value=Temperature(at_c)),
        )
    require_humidity(humidity)


def require_humidity(humidity: float | None) -> None:
    """Raise NotPlausible for a relative humidity outside 0 to 1."""
    if humidity is not None and not 0.0 <= humidity <= 1.0:
        raise NotPlausible("humidity", f"humidity {100 * humidity:g} % is outside 0 to 100 %")


def celsius_from_fahrenheit(fahrenheit: float) -> float:
    """°F to °C; exact by definition."""
    return (fahrenheit - 32.0) / FAHRENHEIT_PER_CELSIUS


def celsius_from_kelvin(kelvin: float) -> float:
    """K to °C."""
    return kelvin - _KELVIN_AT_0_C


def fahrenheit_from_celsius(celsius: float) -> float:
    """°C to °F; exact by definition."""
    return celsius * FAHRENHEIT_PER_CELSIUS + 32.0


_NUMBER = r"([+-]?\d[\d.,' \u00a0\u202f]*)"
#: Separators between groups of three digits, besides the point and the comma.
_SPACES = re.compile(r"['\u2019 \u00a0\u202f]")
_TEMPERATURE = re.compile(_NUMBER + r"\s*°?\s*([CcFf])")
_MASS = re.compile(_NUMBER + r"\s*(g|kg|oz)", re.IGNORECASE)
_VOLUME = re.compile(_NUMBER + r"\s*(ml|l)", re.IGNORECASE)


def read_number(name: str, text: str, *, thousands: bool) -> float:
    """Read a number as people write it: "31,5", "1 134", "1.134,5", "1,134.5".

    "1,134" and "1.134" can be read two ways. Where `thousands` they are 1134:
    nobody weighs a box to the milligram. Elsewhere they are asked about.
    Raises NotPlausible at `name` for what is no number, or for two.
    """
    tidy = text.strip()
    match = re.fullmatch(r"([+-]?)(.+)", tidy)
    sign, digits = (match[1], match[2]) if match else ("", "")
    spaced = _SPACES.split(digits)
    if len(spaced) > 1:
        if not _grouped(spaced[0:1] + [re.split("[.,]", s)[0] for s in spaced[1:]]):
            raise NotPlausible(name, f'"{_short(text)}" is not a number')
        digits = "".join(spaced)
    marks = re.findall("[.,]", digits)
    parts = re.split("[.,]", digits)
    if not all(part.isascii() and part.isdigit() for part in parts):
        raise NotPlausible(name, f'"{_short(text)}" is not a number')
    if not marks:
        whole, rest = digits, ""
    elif len(marks) > 1 and marks[-1] not in marks[:-1] and _grouped(parts[:-1]):
        whole, rest = "".join(parts[:-1]), parts[-1]
    elif len(marks) > 1 and len(set(marks)) == 1 and _grouped(parts):
        whole, rest = "".join(parts), ""
    elif len(marks) == 1 and (not _grouped(parts) or len(spaced) > 1):
        whole, rest = parts
    elif len(marks) == 1 and thousands:
        whole, rest = "".join(parts), ""
    elif len(marks) == 1:
        raise NotPlausible(
            name,
            f'"{_short(text)}" can be read two ways: write {"".join(parts)} or '
            f"{parts[0]}.{parts[1].rstrip('0') or '0'}",
        )
    else:
        raise NotPlausible(name, f'"{_short(text)}" is not a number')
    return float(f"{sign}{whole}.{rest or '0'}")


def _grouped(parts: list[str]) -> bool:
    """Whether the parts are groups of three after a first of one to three that is not 0."""
    first, *rest = parts
    return 1 <= len(first) <= 3 and not first.startswith("0") and all(len(p) == 3 for p in rest)


def parse_temperature(text: str) -> float:
    """Read "31.5C", "88.7 °F" or "31,5 C" as °C.

    Raises NotPlausible when the unit is missing or the text is no number:
    a bare 88 could be either, and the difference kills eggs.
    """
    match = _TEMPERATURE.fullmatch(text.strip())
    if match is None:
        raise NotPlausible(
            "temperature", f'"{_short(text)}" is not a temperature: write it like 31.5C or 88.7F'
        )
    value = read_number("temperature", match[1], thousands=False)
    return value if match[2] in "Cc" else celsius_from_fahrenheit(value)


def parse_mass(text: str) -> float:
    """Read "200g", "1.2 kg" or "7 oz" as g; NotPlausible otherwise."""
    match = _MASS.fullmatch(text.strip())
    if match is None:
        raise NotPlausible("mass", f'"{_short(text)}" is not a mass: write it like 200g or 7oz')
    factor = {"g": 1.0, "kg": 1000.0, "oz": GRAMS_PER_OUNCE}[match[2].lower()]
    return read_number("mass", match[1], thousands=factor == 1.0) * factor


def parse_volume(text: str) -> float:
    """Read "2l" or "1500 ml" as litres; NotPlausible otherwise."""
    match = _VOLUME.fullmatch(text.strip())
    if match is None:
        raise NotPlausible(
            "volume", f'"{_short(text)}" is not a volume: write it like 2l or 1500ml'
        )
    factor = {"l": 1.0, "ml": 0.001}[match[2].lower()]
    return read_number("volume", match[1], thousands=False) * factor


#: The unit of a temperature as a limit names it.
CELSIUS: Final = "°C"
#: Units that the names of fields end with, in words.
UNIT_ENDINGS: Final = {
    "_c": CELSIUS,
    "_g": "g",
    "_l": "l",
    "_days": "days",
    "_min": "min",
    "_s": "s",
}


def spoken(field: str) -> str:
    """What a keeper calls a field: "set up mass" for "set_up_mass_g"."""
    for ending in UNIT_ENDINGS:
        field = field.removesuffix(ending)
    return field.replace("_", " ")


def require_range(
    name: str, value: float, limits: tuple[float, float], unit: str, *, field: str | None = None
) -> float:
    """Return `value` when it is finite and within `limits` (inclusive).

    Raises NotPlausible with a sentence naming the value and the range;
    nothing is ever clamped. `name` is what the keeper calls it, `field` where
    it was entered, when that is called otherwise.
    """
    low, high = limits
    at, name = field or name, spoken(name)
    if not math.isfinite(value):
        raise NotPlausible(at, f"{name} is not a number")
    if not low <= value <= high:
        raise NotPlausible(at, _outside(name, value, limits, unit))
    return value


def _outside(name: str, value: float, limits: tuple[float, float], unit: str) -> Words:
    low, high = limits
    if unit == CELSIUS:
        return Message(
            "{name} {value} is outside {range}",
            name=name, value=Temperature(value, None), range=TemperatureRange(low, high, None),
        )  # fmt: skip
    return f"{name} {value:g} {unit} is outside {low:g} to {high:g} {unit}".replace("  ", " ")


def require_moment(name: str, at_s: float) -> float:
    """Return `at_s` when it lies in the years 1980 to 2200; NotPlausible otherwise."""
    if not MOMENT_RANGE_S[0] <= at_s < MOMENT_RANGE_S[1]:
        raise NotPlausible(
            name, f"{spoken(name)} is outside the years 1980 to 2200: check the year"
        )
    return at_s


def require_device_clock(field: str, at_s: float) -> float:
    """Return `at_s` when a clock that was ever set can show it; NotPlausible otherwise."""
    if not MOMENT_RANGE_S[0] <= at_s < MOMENT_RANGE_S[1]:
        raise NotPlausible(
            field, f"{field} is outside the years 1980 to 2200: has the device's clock been set?"
        )
    return at_s


def whole_days(lasted_s: float) -> int:
    """Days that are over, as the day of a clutch is counted: 29.6 days are 29."""
    return int(lasted_s // SECONDS_PER_DAY)


def _short(text: str) -> str:
    return text if len(text) <= 40 else text[:37] + "..."
