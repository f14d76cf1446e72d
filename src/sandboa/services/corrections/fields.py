"""The fields of a recorded thing, for a form, and what comes back from it."""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum

from sandboa.core.errors import NotPlausible
from sandboa.core.units import require_moment


class FieldKind(StrEnum):
    """How a field is asked: as a time, grams, degrees Celsius, percent, one line, words of
    several lines, or one of some choices."""

    MOMENT = "moment"
    GRAMS = "grams"
    CELSIUS = "celsius"
    PERCENT = "percent"
    TEXT = "text"
    WORDS = "words"
    CHOICE = "choice"


#: Seconds of a moment, a number of grams, °C or percent, words; None where nothing is said.
Value = float | str | None


@dataclass(frozen=True, slots=True)
class RecordField:
    """A field as it stands; `choices` of one that is chosen, `required`: it may not be empty."""

    name: str
    label: str
    kind: FieldKind
    value: Value
    choices: tuple[str, ...] = ()
    required: bool = True


Fields = tuple[RecordField, ...]


def moment_field(name: str, label: str, at_s: float) -> RecordField:
    """A time, in seconds."""
    return RecordField(name, label, FieldKind.MOMENT, float(at_s))


def grams_field(
    name: str, label: str, mass_g: float | None, *, required: bool = True
) -> RecordField:
    """A mass in g, perhaps none."""
    return RecordField(name, label, FieldKind.GRAMS, mass_g, required=required)


def choice_field(name: str, label: str, value: str, choices: tuple[str, ...]) -> RecordField:
    """One of some choices."""
    return RecordField(name, label, FieldKind.CHOICE, value, choices)


@dataclass(frozen=True, slots=True)
class Answers:
    """What a form came back with, by name; each is taken as the field it belongs to."""

    fields: tuple[RecordField, ...]
    values: Mapping[str, Value]

    def moment(self, name: str) -> float:
        """Seconds; NotPlausible for none, or one that no clock shows."""
        value = self.values.get(name)
        if isinstance(value, str) or value is None:
            raise NotPlausible(name, f"{self._label(name)}: a time is missing")
        require_moment(name, value)
        return float(value)

    def moment_or_none(self, name: str) -> float | None:
        """As `moment`, or nothing."""
        return None if self.values.get(name) is None else self.moment(name)

    def number(self, name: str) -> float:
        """A number that has to be there."""
        value = self.values.get(name)
        if isinstance(value, str) or value is None:
            raise NotPlausible(name, f"{self._label(name)}: a number is missing")
        return float(value)

    def number_or_none(self, name: str) -> float | None:
        """A number, or nothing."""
        return None if self.values.get(name) is None else self.number(name)

    def text(self, name: str) -> str:
        """Words, perhaps none."""
        value = self.values.get(name)
        return value if isinstance(value, str) else ""

    def choice(self, name: str) -> str:
        """One of the field's choices."""
        chosen = self.text(name)
        told = next(field for field in self.fields if field.name == name)
        if chosen not in told.choices:
            raise NotPlausible(name, f'{told.label}: "{chosen[:40]}" is none of its choices')
        return chosen

    def _label(self, name: str) -> str:
        return next((f.label.lower() for f in self.fields if f.name == name), name)
