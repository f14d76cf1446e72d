"""Retained configurations by which sensors announce themselves: which topic tells what, in which
unit, where in its messages."""

import json
import re
from dataclasses import dataclass
from typing import Any, Final

_LONGEST: Final = 400
#: Names in full and as they are shortened to spare bytes.
_STATE: Final = ("state_topic", "stat_t")
_CLASS: Final = ("device_class", "dev_cla")
_UNIT: Final = ("unit_of_measurement", "unit_of_meas")
_TEMPLATE: Final = ("value_template", "val_tpl")
_NAME: Final = ("name",)
_DEVICE: Final = ("device", "dev")
_KNOWN: Final = {
    ("temperature", "°c"): "c", ("temperature", "c"): "c", ("temperature", "°f"): "f",
    ("temperature", "f"): "f", ("temperature", "k"): "k", ("humidity", "%"): "percent",
}  # fmt: skip
#: `{{ value_json.a.b }}` or `{{ value_json['a']['b'] }}`, also made a number of or rounded.
_VALUE: Final = re.compile(
    r"^\s*\{\{\s*value_json((?:\.\w+|\[\s*(?:'[^']+'|\"[^\"]+\"|\d+)\s*\])+)"
    r"\s*(?:\|\s*(?:float|round|int)(?:\([\d.,\s]*\))?\s*)*\}\}\s*$"
)
_STEP: Final = re.compile(r"\.(\w+)|\[\s*(?:'([^']+)'|\"([^\"]+)\"|(\d+))\s*\]")
_PLAIN: Final = re.compile(
    r"^\s*\{\{\s*value\s*(?:\|\s*(?:float|round)(?:\([\d.,\s]*\))?\s*)*\}\}\s*$"
)


@dataclass(frozen=True, slots=True)
class Announced:
    """What a configuration says: the value at `path` of `topic` is in `unit`, of that sensor."""

    topic: str
    path: str
    unit: str
    name: str


def announced(topic: str, payload: bytes) -> Announced | None:
    """What a retained message announces; None for one that is no configuration of a temperature or
    humidity, or whose template does more than name a value."""
    if not topic.endswith("/config"):
        return None
    try:
        said = json.loads(payload)
    except (ValueError, RecursionError):
        return None
    if not isinstance(said, dict):
        return None
    state = _first(said, _STATE)
    # A topic may be written short, its beginning once for all.
    state = state.replace("~", str(said.get("~", "")))
    unit = _KNOWN.get((_first(said, _CLASS).casefold(), _first(said, _UNIT).casefold()))
    path = _path(_first(said, _TEMPLATE))
    if not 1 <= len(state) <= _LONGEST or unit is None or path is None:
        return None
    device: Any = next((said[name] for name in _DEVICE if isinstance(said.get(name), dict)), {})
    return Announced(state, path, unit, (_first(device, _NAME) or _first(said, _NAME))[:60])


def _first(said: dict[str, Any], names: tuple[str, ...]) -> str:
    return next((said[name] for name in names if isinstance(said.get(name), str)), "")


def _path(template: str) -> str | None:
    if not template or _PLAIN.match(template[:_LONGEST]):
        return ""
    found = _VALUE.match(template[:_LONGEST])
    if found is None:
        return None
    return ".".join(next(part for part in step if part) for step in _STEP.findall(found[1]))
