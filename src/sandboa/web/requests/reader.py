"""Who reads the answer to a request: the unit of temperatures and the zone.

A browser may say its own (`Sandboa-Unit`, `Sandboa-Zone`): a phone in the snake
room may read otherwise than its keeper does elsewhere. Otherwise it is what
the person chose.
"""

from collections.abc import Mapping
from contextvars import ContextVar
from functools import cache
from typing import TYPE_CHECKING, Annotated, Any, Final
from zoneinfo import available_timezones

from pydantic import PlainValidator, WithJsonSchema

from sandboa.core.messages import Words
from sandboa.core.units import TemperatureUnit
from sandboa.services.people.preferences import temperature_unit_of
from sandboa.words import SI_READER, Reader, sentence

UNIT_HEADER: Final = "sandboa-unit"
ZONE_HEADER: Final = "sandboa-zone"
_UNITS: Final = frozenset(TemperatureUnit)

_reader: Final[ContextVar[Reader]] = ContextVar("reader", default=SI_READER)


def reader_of(headers: Mapping[str, str], person: int | None) -> Reader:
    """The reader of an answer to that person (None: to whoever asks without signing in)."""
    unit = headers.get(UNIT_HEADER)
    zone = headers.get(ZONE_HEADER)
    return Reader.of(
        unit if unit in _UNITS else temperature_unit_of(person),
        zone if zone in _zones() else None,
    )


def answer_for(reader: Reader) -> None:
    """Let what this request is answered be read by that reader."""
    _reader.set(reader)


def reader_now() -> Reader:
    """The reader of the answer that is being made."""
    return _reader.get()


def in_words(said: Words) -> str:
    """What is said, as a sentence for the reader of this answer."""
    return sentence(said, _reader.get())


@cache
def _zones() -> frozenset[str]:
    return frozenset(available_timezones())


def _sentence(said: Any) -> str:
    return sentence(said, _reader.get())


if TYPE_CHECKING:
    Sentence = Words
else:
    #: A field of a response that is filled with what a service says, and read as a sentence.
    Sentence = Annotated[str, PlainValidator(_sentence), WithJsonSchema({"type": "string"})]
