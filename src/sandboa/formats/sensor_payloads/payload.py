"""From the bytes of a message to readings, whatever its shape."""

import json
from collections.abc import Mapping
from typing import Any, Final
from urllib.parse import parse_qsl

from sandboa.core.errors import NotPlausible
from sandboa.formats.delivery import LARGEST_DELIVERY_BYTES
from sandboa.formats.sensor_payloads.sensors import DEEPEST, sensors_in
from sandboa.services.readings.intake import SentReading

_FORM: Final = "application/x-www-form-urlencoded"
#: Words of an address that are no reading.
_NOT_SAID: Final = frozenset(("token", "key", "api_key", "apikey"))


def understood(payload: bytes, now_s: float | None, content_type: str = "") -> list[SentReading]:
    """Readings of a message: (sensor's name or None, s, °C, humidity 0-1 or None).

    A number is a temperature. JSON may be flat or nested, of one sensor or several, its names those
    of logger files' headings; a form or the words of an address likewise. °C, °F or K by name, by
    a unit beside it, or by size; humidity in % or as a fraction. A time with its offset, or in
    seconds or milliseconds since 1970, is when it was; any other, and none, is `now_s`. Where that
    is None nobody knows when it was sent, and what tells no time of its own is left out.

    Raises NotPlausible, in words, where no temperature is in it or one cannot be.
    """
    if len(payload) > LARGEST_DELIVERY_BYTES:
        raise NotPlausible("readings", "too large: send smaller batches")
    found = sensors_in(parsed(payload, content_type))
    if not found:
        raise NotPlausible(
            "body",
            "there is no temperature in it: a number, or a name like temperature, temp, tempC, "
            "temp_f with a number",
        )
    times = [s.at_s if s.at_s is not None or now_s is None else int(now_s) for s in found]
    return [s.reading(at_s) for s, at_s in zip(found, times, strict=True) if at_s is not None]


def json_of_words(words: Mapping[str, str]) -> bytes:
    """The words of an address as a message that `understood` takes; without those that are keys."""
    said = {name: text for name, text in words.items() if name.casefold() not in _NOT_SAID}
    return json.dumps(said).encode()


def parsed(payload: bytes, content_type: str) -> Any:
    """A message as JSON has it, or the text of a number with its unit; NotPlausible for neither."""
    try:
        text = payload.decode("utf-8-sig").strip()
    except UnicodeDecodeError as error:
        raise NotPlausible("body", "this is neither a number nor JSON, nor a form") from error
    if content_type.partition(";")[0].strip().casefold() == _FORM or _is_form(text):
        return dict(parse_qsl(text, keep_blank_values=True, max_num_fields=200))
    try:
        return json.loads(text, parse_constant=lambda _: None)
    except RecursionError as error:
        raise NotPlausible("body", f"it is nested more than {DEEPEST} deep") from error
    except ValueError as error:
        if text and all(character not in text for character in "{[\n"):
            # A number with its unit, as a topic of its own carries it.
            return text
        raise NotPlausible("body", "this is neither a number nor JSON, nor a form") from error


def _is_form(text: str) -> bool:
    return "=" in text and text[:1] not in '{["' and " " not in text
