"""Numbers of any shape laid flat, so that two tables of them can be compared."""

import dataclasses
import enum
from collections.abc import Mapping


def plain(value: object) -> object:
    """A number, or numbers by name: nested tables laid flat, None as a word."""
    flat = dict(_flat("", value))
    return flat[""] if set(flat) == {""} else flat


def _flat(name: str, value: object) -> list[tuple[str, object]]:
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        value = {f.name: getattr(value, f.name) for f in dataclasses.fields(value)}
    if isinstance(value, tuple):
        value = dict(enumerate(value))
    if isinstance(value, Mapping):
        return [part for key, held in value.items() for part in _flat(f"{name}/{_said(key)}", held)]
    return [(name, float("inf") if value is None else value)]


def _said(key: object) -> str:
    if isinstance(key, tuple):
        return " ".join(map(_said, key))
    return str(key.value if isinstance(key, enum.Enum) else key)
