"""Every value of a message with its path, and what each seems to be: for a keeper to name."""

import json
from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum
from typing import Any, Final

from sandboa.formats.logger_files.headings import Named, unit_marks
from sandboa.formats.logger_files.numbers import number
from sandboa.formats.logger_files.units import FRACTION_UP_TO
from sandboa.formats.sensor_payloads.payload import parsed
from sandboa.formats.sensor_payloads.sensors import (
    DEEPEST,
    VALUE_NAMES,
    quantity_named,
    time_said,
    unit_by_size,
    unit_said,
)

#: Values of a message that are told.
_MOST: Final = 60
_LONGEST_PATH: Final = 200
_LONGEST_TEXT: Final = 40
_BATTERY: Final = frozenset(("battery", "battery_level", "batterylevel", "bat", "batt", "soc"))
_BATTERY_LOW: Final = frozenset(("battery_low", "batterylow", "low_battery", "lowbattery"))
_SIGNAL: Final = frozenset(("rssi", "signal", "signal_strength", "dbm"))
_LINK: Final = frozenset(("linkquality", "link_quality", "lqi"))


class Seems(StrEnum):
    """What a value seems to be, by its name and size."""

    TEMPERATURE = "temperature"
    HUMIDITY = "humidity"
    BATTERY = "battery"
    BATTERY_LOW = "battery low"
    SIGNAL = "signal"
    LINK = "link"


@dataclass(frozen=True, slots=True)
class Value:
    """A value of a message: `number` None where it is none; `unit` one of c, f, k, percent,
    fraction, where it seems to be one of those. `path` joins names by dots; empty: the message."""

    path: str
    text: str
    number: float | None
    seems: Seems | None
    unit: str | None


@dataclass(frozen=True, slots=True)
class SensorMessage:
    """The values of a message, and the time it tells (s), if it tells one."""

    values: tuple[Value, ...]
    at_s: int | None

    def numbers(self) -> dict[str, float | None]:
        """The value of each path; None where it is no number."""
        return {value.path: value.number for value in self.values}


def values_in(payload: bytes, content_type: str = "", topic: str = "") -> SensorMessage:
    """Every value of a message, at most 60.

    A message that is one number may say what it is by the end of its `topic`:
    "shelf/humidity". NotPlausible for what is no number, JSON or form.
    """
    said = parsed(payload, content_type)
    if not isinstance(said, dict | list):
        return SensorMessage((_value(said, "", None, topic.rpartition("/")[2]),), None)
    found = []
    for value in _values(said, "", None, DEEPEST):
        found.append(value)
        if len(found) == _MOST:
            break
    return SensorMessage(tuple(found), time_said(said) if isinstance(said, dict) else None)


def _values(node: Any, path: str, unit: str | None, depth: int) -> Iterator[Value]:
    if isinstance(node, dict):
        if depth == 0:
            return
        unit = unit_said(node) or unit
        for key, inner in node.items():
            yield from _values(inner, f"{path}.{key}" if path else str(key), unit, depth - 1)
    elif isinstance(node, list):
        if depth == 0:
            return
        for place, inner in enumerate(node):
            yield from _values(inner, f"{path}.{place}" if path else str(place), unit, depth - 1)
    elif len(path) <= _LONGEST_PATH:
        yield _value(node, path, unit)


def _value(said: Any, path: str, unit: str | None, name: str = "") -> Value:
    measured = _number(said)
    text = said if isinstance(said, str) else json.dumps(said)
    names = [part for part in path.split(".") if part and part.casefold() not in VALUE_NAMES]
    seems, own = _seems(said, names[-1] if names else name, measured, unit)
    if not path and own is None and seems is None and measured is not None:
        # Nothing is said of what it is: if it is a temperature, then in that unit.
        own = unit_by_size(measured)
    return Value(path, text[:_LONGEST_TEXT], measured, seems, own)


def _number(said: Any) -> float | None:
    if isinstance(said, bool):
        return float(said)
    if isinstance(said, str):
        return number(said)
    try:
        return float(said) if said is not None else None
    except OverflowError:
        return None


def _seems(
    said: Any, name: str, measured: float | None, unit: str | None
) -> tuple[Seems | None, str | None]:
    """What it seems to be and its unit, by its name."""
    if measured is None:
        return None, None
    short = name.casefold().replace("-", "_")
    for known, seems in (
        (_BATTERY_LOW, Seems.BATTERY_LOW),
        (_BATTERY, Seems.BATTERY),
        (_SIGNAL, Seems.SIGNAL),
        (_LINK, Seems.LINK),
    ):
        if short in known:
            return seems, None
    if isinstance(said, bool):
        return None, None
    marks = unit_marks(said) if isinstance(said, str) else set()
    what = quantity_named(name) if name else None
    if what is not None and what.quantity is Named.HUMIDITY:
        return Seems.HUMIDITY, "percent" if measured > FRACTION_UP_TO else "fraction"
    if what is not None or (not name and marks):
        marked = what.unit if what is not None else None
        return Seems.TEMPERATURE, marked or next(iter(marks), unit) or unit_by_size(measured)
    return None, None
