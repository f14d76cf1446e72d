"""Traits of animals, hatchlings among them: tidied, and kept so that corrections stay few."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.animals import TraitForm
from sandboa.core.errors import NotPlausible
from sandboa.core.names import clean_name
from sandboa.records.animals import Trait
from sandboa.records.facts import Act

_MOST_TRAITS: Final = 30


@dataclass(frozen=True, slots=True)
class TraitCommand:
    name: str
    form: TraitForm


def tidy_traits(said: Sequence[TraitCommand]) -> list[TraitCommand]:
    """The traits with their names tidied; NotPlausible for one named twice, or too many."""
    if len(said) > _MOST_TRAITS:
        raise NotPlausible("traits", f"{_MOST_TRAITS} traits at most")
    tidy: dict[str, TraitCommand] = {}
    for trait in said:
        name = clean_name("traits", trait.name)
        if name.casefold() in tidy:
            raise NotPlausible("traits", f"{name} is named twice")
        tidy[name.casefold()] = TraitCommand(name, trait.form)
    return list(tidy.values())


def keep_traits(keeping: Act, animal: int, traits: Sequence[TraitCommand]) -> None:
    """Let the animal (or hatchling) have just these tidied traits; what is the same stays."""
    held = {row.name.casefold(): row for row in Trait.current(animal_id=animal)}
    for trait in traits:
        row = held.pop(trait.name.casefold(), None)
        if row is None:
            Trait.record(keeping, animal_id=animal, name=trait.name, form=trait.form.value)
        elif (row.name, row.form) != (trait.name, trait.form.value):
            row.correct(keeping, name=trait.name, form=trait.form.value)
    for gone in held.values():
        gone.retire(keeping)
