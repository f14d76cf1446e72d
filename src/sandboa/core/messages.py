"""What is said to a keeper, before it is known who reads it: a template and its quantities.

A rule says `Message("down to {lowest}", lowest=Temperature(27.3))`; `sandboa.words`
makes it a sentence in the unit and zone of whoever reads. A text without
quantities is a plain string. `Words` is either.

The first argument of `Message` is always a literal, so that `sandboa messages`
can list every template there is.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Final, Self

#: Digits after the point of a temperature unless a rule says otherwise; None: as many as it has.
USUAL_DIGITS: Final = 1


def number(value: float, digits: int | None) -> str:
    """A number with so many digits after the point; None: up to two, without noughts at the end."""
    if digits is not None:
        return f"{value:.{digits}f}"
    # A -0 would be written with its sign.
    return f"{round(value, 2) + 0.0:g}"


@dataclass(frozen=True, slots=True)
class Temperature:
    """A temperature in °C, and the digits after the point it is told with."""

    celsius: float
    digits: int | None = USUAL_DIGITS

    def __str__(self) -> str:
        return f"{number(self.celsius, self.digits)} °C"


@dataclass(frozen=True, slots=True)
class Difference:
    """Degrees between two temperatures, in °C: it has no zero to shift."""

    celsius: float
    digits: int | None = None

    def __str__(self) -> str:
        return f"{number(self.celsius, self.digits)} °C"


@dataclass(frozen=True, slots=True)
class TemperatureRange:
    """From `low_c` to `high_c`, °C."""

    low_c: float
    high_c: float
    digits: int | None = USUAL_DIGITS

    def __str__(self) -> str:
        return f"{number(self.low_c, self.digits)} to {number(self.high_c, self.digits)} °C"


@dataclass(frozen=True, slots=True)
class Mass:
    """A mass in grams, told in whole ones."""

    grams: float

    def __str__(self) -> str:
        return f"{self.grams:.0f} g"


@dataclass(frozen=True, slots=True)
class Share:
    """A share 0-1, told in whole per cent."""

    share: float

    def __str__(self) -> str:
        return f"{100 * self.share:.0f} %"


@dataclass(frozen=True, slots=True)
class Moment:
    """A moment (s since epoch), told with day and hour."""

    at_s: float

    def __str__(self) -> str:
        # Only a log reads this: a zone is the reader's, and `words` knows it.
        return f"{self.at_s:.0f} s"


@dataclass(frozen=True, slots=True)
class Day:
    """A day, by a moment of it (s since epoch), told with its year."""

    at_s: float

    def __str__(self) -> str:
        return f"{self.at_s:.0f} s"


Quantity = Temperature | Difference | TemperatureRange | Mass | Share | Moment | Day

_KINDS: Final[dict[str, type[Any]]] = {
    "temperature": Temperature, "difference": Difference, "temperature_range": TemperatureRange,
    "mass": Mass, "share": Share, "moment": Moment,
    "day": Day,
}  # fmt: skip


class Message:
    """A template in the form of `str.format`, and the value of each of its places.

    `str()` gives it in SI units, for logs and errors. It cannot be put into an
    f-string: what it is made of would be lost. Put it into another message.
    """

    __slots__ = ("template", "values")

    def __init__(self, template: str, /, **values: Any) -> None:
        self.template: Final = template
        self.values: Final[Mapping[str, Any]] = values

    def __str__(self) -> str:
        return self.template.format(**{n: _plain(value) for n, value in self.values.items()})

    def __format__(self, spec: str) -> str:
        raise TypeError(f"a message goes into another as a value, not into a text: {self!r}")

    def __repr__(self) -> str:
        return f"Message({self.template!r}, {dict(self.values)!r})"

    def __eq__(self, other: object) -> bool:
        if not isinstance(other, Message):
            return NotImplemented
        return self.template == other.template and self.values == other.values

    def __hash__(self) -> int:
        return hash(self.template)

    def __bool__(self) -> bool:
        return True

    def as_json(self) -> dict[str, Any]:
        """What is kept of it, for `from_json`: plain JSON values."""
        return {"template": self.template, "values": {n: _put(v) for n, v in self.values.items()}}

    @classmethod
    def from_json(cls, kept: Mapping[str, Any]) -> Self:
        """The message that `as_json` gave.

        Raises ValueError for what it did not give.
        """
        try:
            return cls(str(kept["template"]), **{n: _got(v) for n, v in kept["values"].items()})
        except (KeyError, TypeError, AttributeError) as error:
            raise ValueError("that is no message") from error


#: What is said: a sentence that is the same for everyone, or a message.
Words = str | Message


def capitalised(said: Words) -> Words:
    """The same with a capital at its beginning; what begins with a quantity stays."""
    if isinstance(said, str):
        return said[:1].upper() + said[1:]
    template = said.template
    if template.startswith("{"):
        name = template[1:].partition("}")[0].partition(":")[0]
        first = said.values.get(name)
        if not isinstance(first, str | Message):
            return said
        return Message(template, **{**said.values, name: capitalised(first)})
    return Message(template[:1].upper() + template[1:], **said.values)


def _plain(value: Any) -> Any:
    """What is put into a template in SI units; numbers keep their own format."""
    return value if isinstance(value, str | int | float) else str(value)


def _put(value: Any) -> Any:
    if isinstance(value, Message):
        return {"message": value.as_json()}
    for name, kind in _KINDS.items():
        if isinstance(value, kind):
            return {name: [getattr(value, field) for field in kind.__dataclass_fields__]}
    if isinstance(value, float) and not math.isfinite(value):
        raise ValueError("a message holds finite numbers")
    return value


def _got(value: Any) -> Any:
    if not isinstance(value, dict):
        return value
    ((name, held),) = value.items()
    return Message.from_json(held) if name == "message" else _KINDS[name](*held)
