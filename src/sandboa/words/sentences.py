"""A message as a sentence for one reader."""

from typing import Any

from sandboa.core.messages import Message, Words
from sandboa.words.quantities import spoken
from sandboa.words.reader import Reader


def sentence(said: Words, reader: Reader) -> str:
    """What is said, in the units and the zone of `reader`."""
    if isinstance(said, str):
        return said
    values = {name: _in_place(value, reader) for name, value in said.values.items()}
    return said.template.format(**values)


def to_reader(said: Words, unit: str, zone: str) -> str:
    """What is said, for a reader of that unit ("C" or "F") in that zone (IANA name)."""
    return sentence(said, Reader.of(unit, zone))


def _in_place(value: Any, reader: Reader) -> Any:
    """What is put into a template's place; plain numbers keep the format they are written with."""
    if isinstance(value, Message):
        return sentence(value, reader)
    return value if isinstance(value, str | int | float) else spoken(value, reader)
