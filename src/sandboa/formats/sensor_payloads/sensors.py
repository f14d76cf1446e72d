"""The sensors in a message: whose values stand together, in which units, and of when."""

import math
import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any, Final

from sandboa.core.errors import NotPlausible
from sandboa.core.units import READING_RANGE_C, require_device_clock, require_reading
from sandboa.formats.logger_files.headings import Named, named, unit_marks
from sandboa.formats.logger_files.numbers import number
from sandboa.formats.logger_files.units import FRACTION_UP_TO, KELVIN_ABOVE, Unit, celsius
from sandboa.services.readings.intake import SentReading

#: Levels of a message that are looked into.
DEEPEST: Final = 8
#: Names that say in a letter or two what it is.
_SHORT: Final[dict[str, Unit]] = {
    "tc": "c",
    "tf": "f",
    "tempc": "c",
    "tempf": "f",
    "temp_c": "c",
    "temp_f": "f",
}
_HUMIDITY: Final = frozenset(("h", "hum", "humi", "rh"))
_UNIT_NAMES: Final = re.compile(r"unit|scale", re.IGNORECASE)
_NAMES: Final = ("probe", "name", "sensor", "friendly_name", "device", "id", "mac", "address")
VALUE_NAMES: Final = ("value", "val", "v", "state")
#: What holds sensors and is none.
_HOLDERS: Final = frozenset(
    ("data", "payload", "sensors", "sensor", "values", "state", "attributes", "readings", "params",
     "status", "result", "body", "measurements", "statussns", "decoded", "uplink_message")
)  # fmt: skip
#: Seconds since 1970 beyond which a number of a time is in ms.
_SECONDS_UP_TO: Final = 1e11


@dataclass
class _Sensor:
    """What was found of one sensor so far."""

    name: str | None = None
    #: °C, by the unit in which it was told.
    at_c: dict[Unit, float] = field(default_factory=dict)
    humidity: float | None = None
    at_s: int | None = None

    def reading(self, at_s: int) -> SentReading:
        """As it is stored, of `at_s`; NotPlausible for what no sensor beside eggs reads."""
        # Told in two units it is one temperature: °C has lost nothing on its way.
        at_c = min(self.at_c.items(), key=lambda told: told[0])[1]
        require_reading(at_c, self.humidity)
        return self.name, at_s, round(at_c, 4), self.humidity


def sensors_in(message: Any) -> list[_Sensor]:
    """Every sensor of a parsed message that tells a temperature, in the order of the message."""
    if isinstance(message, str | int | float) and not isinstance(message, bool):
        value = _number(message)
        unit = next(iter(unit_marks(str(message))), None)
        return [] if value is None else [_with(value, unit)]  # type: ignore[arg-type]
    return list(_sensors(message, _Sensor(), None, DEEPEST))


def _with(value: float, unit: Unit | None) -> _Sensor:
    sensor = _Sensor()
    unit = unit or unit_by_size(value)
    sensor.at_c[unit] = celsius(value, unit)
    return sensor


def _sensors(node: Any, above: _Sensor, unit: Unit | None, depth: int) -> Iterator[_Sensor]:
    """Sensors of a node: its own, if it tells a temperature, then those of what it holds.

    `above` is what holds for all below: a name and a time; `unit` that of temperatures.
    """
    if depth == 0:
        raise NotPlausible("body", f"it is nested more than {DEEPEST} deep")
    if isinstance(node, list):
        for part in _typed(node) or node:
            if isinstance(part, dict | list):
                yield from _sensors(part, above, unit, depth - 1)
        return
    if not isinstance(node, dict):
        return
    unit = unit_said(node) or unit
    own = _Sensor(_name_said(node) or above.name, at_s=time_said(node) or above.at_s)
    for key, value in node.items():
        _take(own, str(key), value, unit)
    if own.at_c:
        yield own
    shared = _Sensor(own.name, at_s=own.at_s)
    for key, value in node.items():
        if isinstance(value, dict | list) and not _is_quantity(str(key), value):
            named_so: Any = value
            if isinstance(value, dict) and str(key).casefold() not in _HOLDERS:
                named_so = {"name": str(key), **value}
            yield from _sensors(named_so, shared, unit, depth - 1)


def _take(sensor: _Sensor, key: str, value: Any, unit: Unit | None) -> None:
    """Add a value to what is known of a sensor, where its name says what it is."""
    if isinstance(value, dict):
        unit = unit_said(value) or unit
        value = next((value[name] for name in VALUE_NAMES if name in value), None)
    measured = _number(value)
    if measured is None:
        return
    what = quantity_named(key)
    if what is None:
        return
    if what.quantity is Named.HUMIDITY:
        sensor.humidity = measured if measured <= FRACTION_UP_TO else measured / 100.0
        return
    marks = unit_marks(key) | (unit_marks(value) if isinstance(value, str) else set())
    said: Any = what.unit or (min(marks) if marks else unit)
    said = said or unit_by_size(measured)
    sensor.at_c.setdefault(said, celsius(measured, said))


@dataclass(frozen=True, slots=True)
class QuantityNamed:
    """What the name of a value says: a temperature, its unit where it is in the name; humidity."""

    quantity: Named
    unit: Unit | None = None


def quantity_named(key: str) -> QuantityNamed | None:
    """The quantity a value's name says; None for anything else."""
    short = key.casefold().replace("-", "_")
    if short in _HUMIDITY or named(key) is Named.HUMIDITY:
        return QuantityNamed(Named.HUMIDITY)
    if short in _SHORT:
        return QuantityNamed(Named.TEMPERATURE, _SHORT[short])
    return QuantityNamed(Named.TEMPERATURE) if named(key) is Named.TEMPERATURE else None


def _is_quantity(key: str, value: Any) -> bool:
    return (
        isinstance(value, dict)
        and any(name in value for name in VALUE_NAMES)
        and (named(key) in (Named.TEMPERATURE, Named.HUMIDITY))
    )


def _typed(parts: list[Any]) -> list[dict[str, Any]] | None:
    """A list of one value each, with its kind beside it, as one sensor; None for another list."""
    told: dict[str, Any] = {}
    for part in parts:
        if not isinstance(part, dict):
            return None
        value = next((part[name] for name in VALUE_NAMES if name in part), None)
        kinds = [text for text in part.values() if isinstance(text, str) and named(text)]
        if value is None or not kinds:
            return None
        told[kinds[0]] = {"value": value, "unit": unit_said(part)}
    return [told] if told else None


def unit_said(node: dict[Any, Any]) -> Unit | None:
    """The unit of temperature that a field of a message's part names; None for none, or several."""
    for key, value in node.items():
        if _UNIT_NAMES.search(str(key)) and isinstance(value, str):
            marks = unit_marks(value)
            if len(marks) == 1:
                return min(marks)  # type: ignore[return-value]
    return None


def _name_said(node: dict[Any, Any]) -> str | None:
    texts = (node.get(name) for name in _NAMES)
    return next(
        (text.strip()[:200] for text in texts if isinstance(text, str) and text.strip()), None
    )


def time_said(node: dict[Any, Any]) -> int | None:
    """The time (s) that a field of a message's part tells; None where it tells none."""
    for key, value in node.items():
        if named(str(key)) is Named.TIME or str(key).casefold() in ("at", "dt"):
            at_s = _moment(value)
            if at_s is not None:
                return int(require_device_clock("time", at_s))
    return None


def _moment(value: Any) -> float | None:
    """s since 1970; None for a clock that says not in which zone, and for what is no time."""
    at = _number(value)
    if at is not None:
        at = at / 1000.0 if at > _SECONDS_UP_TO else at
        # A clock that never was set counts from 1970: then it is now.
        return at if at > _SECONDS_UP_TO / 1000.0 else None
    try:
        moment = datetime.fromisoformat(value) if isinstance(value, str) else None
    except ValueError:
        return None
    return None if moment is None or moment.tzinfo is None else moment.timestamp()


def unit_by_size(value: float) -> Unit:
    """An overheated cabinet must not pass for a cool one in °F: what can be °C is."""
    return "k" if value > KELVIN_ABOVE else "f" if value > READING_RANGE_C[1] else "c"


def _number(value: Any) -> float | None:
    if isinstance(value, bool):
        return None
    if isinstance(value, int | float):
        try:
            return float(value) if math.isfinite(value) else None
        except OverflowError:
            # A whole number of hundreds of digits.
            return None
    return number(value) if isinstance(value, str) else None
