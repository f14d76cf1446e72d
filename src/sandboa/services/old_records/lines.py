"""What a line of old records says, by the kind of records it is among."""

from dataclasses import dataclass
from datetime import date
from enum import StrEnum

from sandboa.core.animals import DAM, SIRE
from sandboa.core.past_clutches.card import ClutchCard


class RecordKind(StrEnum):
    """What the lines of a list are about."""

    CLUTCHES = "clutches"
    ANIMALS = "animals"
    WEIGHTS = "weights"
    PAIRINGS = "pairings"


@dataclass(frozen=True, slots=True)
class NamedAnimal:
    """An animal as a line names it, by name or code; `role` None where it may be either."""

    field: str
    name: str
    role: str | None


@dataclass(frozen=True, slots=True)
class ClutchLine:
    """A past clutch; `code` is what its card calls it, None for nothing."""

    dam: str
    sire: str | None
    told: ClutchCard
    code: str | None = None

    @property
    def animals(self) -> tuple[NamedAnimal, ...]:
        dam = NamedAnimal("dam", self.dam, DAM)
        return (dam,) if self.sire is None else (dam, NamedAnimal("sire", self.sire, SIRE))


@dataclass(frozen=True, slots=True)
class AnimalLine:
    """A dam or a sire, and its parents by name."""

    name: str
    role: str
    code: str | None = None
    hatch_year: int | None = None
    traits_text: str = ""
    dam: str | None = None
    sire: str | None = None

    @property
    def animals(self) -> tuple[NamedAnimal, ...]:
        """Its parents: itself is what the line records."""
        named = (("dam", self.dam, DAM), ("sire", self.sire, SIRE))
        return tuple(NamedAnimal(field, name, role) for field, name, role in named if name)


@dataclass(frozen=True, slots=True)
class WeightLine:
    """A weight of an animal on a day, g."""

    animal: str
    day: date
    mass_g: float

    @property
    def animals(self) -> tuple[NamedAnimal, ...]:
        return (NamedAnimal("animal", self.animal, None),)


@dataclass(frozen=True, slots=True)
class PairingLine:
    """A visit of a sire with a dam from a day until another, or for that day."""

    dam: str
    sire: str
    start: date
    end: date | None = None

    @property
    def animals(self) -> tuple[NamedAnimal, ...]:
        return NamedAnimal("dam", self.dam, DAM), NamedAnimal("sire", self.sire, SIRE)


OldLine = ClutchLine | AnimalLine | WeightLine | PairingLine
