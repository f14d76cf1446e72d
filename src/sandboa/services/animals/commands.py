"""Dams and sires: recorded, corrected, weighed, fed."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Final

from sandboa.core.act_kinds import ActKind
from sandboa.core.animals import (
    ADULT_YEARS,
    DAM,
    SIRE,
    leaps,
    require_hatch_year,
    require_no_circle,
    require_weight,
)
from sandboa.core.errors import NotPlausible
from sandboa.core.names import clean_code, clean_name
from sandboa.records.animals import Pair, Pairing, Sign, Weight
from sandboa.records.clutches import Clutch, PastClutch, PossibleSire
from sandboa.records.facts import Act
from sandboa.records.house import Animal as Animal
from sandboa.services.acts.errors import Conflict, NotFound, Question
from sandboa.services.acts.recording import act
from sandboa.services.animals.individuals import individual, require_here
from sandboa.services.animals.meals import MealCommand, keep_meal
from sandboa.services.animals.traits import TraitCommand, keep_traits, tidy_traits

LONGEST_TRAITS: Final = 400


@dataclass(frozen=True, slots=True)
class AnimalCommand:
    """What a keeper says of an animal; `dam` and `sire` are ids of its parents."""

    role: str
    name: str
    code: str | None = None
    hatch_year: int | None = None
    traits_text: str = ""
    traits: Sequence[TraitCommand] = field(default=())
    dam: int | None = None
    sire: int | None = None
    retired: bool = False


def add_animal(said: AnimalCommand, now_s: float) -> tuple[int, Act]:
    """Record an animal; returns its id. Raises as `correct_animal` does."""
    values = _values(said, now_s, own=None)
    with act(ActKind.ANIMAL, f"{values['name']}, {said.role}, added", now_s) as adding:
        animal = Animal.record(adding, **values)
        keep_traits(adding, animal.entity_id, tidy_traits(said.traits))
    return animal.entity_id, adding


def correct_animal(entity: int, said: AnimalCommand, now_s: float) -> Act:
    """Correct what is recorded of an animal; earlier values stay.

    Raises NotFound; Conflict when the name or code is taken, or the role would
    change under clutches, pairings, signs or offspring; NotPlausible for a year, trait or
    parent that cannot be, circular parentage among them.
    """
    animal = find_animal(entity)
    if said.role != animal.role and breeds_as(entity):
        raise Conflict(
            f"{animal.name} is recorded as a {animal.role}, and has clutches, pairings or "
            "offspring as one: that cannot change"
        )
    values = _values(said, now_s, own=animal)
    with act(ActKind.ANIMAL, f"{values['name']} corrected", now_s) as correcting:
        if animal.values() != {**animal.values(), **values}:
            animal.correct(correcting, **values)
        keep_traits(correcting, entity, tidy_traits(said.traits))
    return correcting


def weigh(entity: int, mass_g: float, at_s: float, now_s: float, *, confirmed: bool = False) -> Act:
    """Record a weight (g).

    Raises NotPlausible for a weight no such animal has or a time that is none;
    Question when it differs from the one before by more than laying explains,
    unless `confirmed`; a young one may gain as it likes.
    """
    animal = find_animal(entity)
    require_weight(mass_g, _age(animal, at_s))
    who = individual(entity)
    require_here(who, at_s, now_s)
    before = max(
        (row for row in Weight.current(animal_id=list(who.ids)) if row.at_s <= at_s),
        key=lambda row: row.at_s,
        default=None,
    )
    age = _age(animal, at_s)
    growing = age is not None and age < ADULT_YEARS
    asked = before is not None and not (growing and mass_g > before.mass_g)
    if before is not None and asked and not confirmed and leaps(before.mass_g, mass_g):
        raise Question(
            f"{animal.name} weighed {before.mass_g:g} g before, now {mass_g:g} g. Is that right?",
            "confirmed",
        )
    with act(ActKind.WEIGH, f"{animal.name}: {mass_g:g} g", now_s) as weighing:
        Weight.record(weighing, animal_id=entity, at_s=int(at_s), mass_g=mass_g)
    return weighing


def offer_meal(
    entity: int, taken: bool, prey: str, mass_g: float | None, at_s: float, now_s: float
) -> Act:
    """Record a meal offered (its mass in g, if weighed), taken or refused."""
    animal = find_animal(entity)
    require_here(individual(entity), at_s, now_s)
    meal = MealCommand(taken, prey, mass_g)
    with act(ActKind.MEAL, meal.words(animal.name), now_s) as offering:
        keep_meal(offering, entity, meal, at_s)
    return offering


def retire(entities: Sequence[int], now_s: float, *, retired: bool = True) -> Act:
    """Say that animals breed no more, or again: in one act, all or none.

    Raises NotFound for an unknown animal.
    """
    animals = [find_animal(entity) for entity in entities]
    what = "retired" if retired else "breeding again"
    who = animals[0].name if len(animals) == 1 else f"{len(animals)} animals"
    with act(ActKind.ANIMAL, f"{who} {what}", now_s) as retiring:
        for animal in animals:
            if bool(animal.retired) is not retired:
                animal.correct(retiring, retired=int(retired))
    return retiring


def breeds_as(entity: int) -> bool:
    """Whether anything is recorded of the animal that only a dam, or only a sire, can have."""
    as_parent = (
        table.current(**{parent: entity})
        for table in (Clutch, PastClutch, Pair, Pairing, Animal)
        for parent in ("dam_id", "sire_id")
    )
    perhaps = PossibleSire.current(sire_id=entity)
    return any(as_parent) or bool(perhaps or Sign.current(dam_id=entity))


def find_animal(entity: int, role: str | None = None) -> Animal:
    """The animal with that id; NotFound otherwise, Conflict when it has the other role."""
    animal = Animal.now(entity)
    if animal is None:
        raise NotFound("there is no such animal")
    if role is not None and animal.role != role:
        raise Conflict(f"{animal.name} is a {animal.role}, not a {role}")
    return animal


def animal_named(recording: Act, role: str, name: str) -> Animal:
    """The animal of that name and role, recorded now when it is new.

    Raises Conflict when the name belongs to an animal of the other role.
    """
    name = clean_name(role, name)
    other = SIRE if role == DAM else DAM
    same_name = [a for a in Animal.current() if a.name.casefold() == name.casefold()]
    for animal in same_name:
        if animal.role == role:
            return animal
    if same_name:
        raise Conflict(f"{same_name[0].name} is recorded as a {other}: a {role} needs another name")
    return Animal.record(recording, role=role, name=name)


def require_free_name(said: AnimalCommand, own: Animal | None = None) -> str:
    """The tidied name, when the animal can have it; Conflict when another one does.

    NotPlausible for no name, or a role that is none.
    """
    if said.role not in (DAM, SIRE):
        raise NotPlausible("role", "an animal here is a dam or a sire")
    name = clean_name("name", said.name)
    for other in Animal.current():
        if own is not None and other.entity_id == own.entity_id:
            continue
        if other.name.casefold() == name.casefold():
            raise Conflict(f"there is a {other.role} {other.name} already: choose another name")
    return name


def _values(said: AnimalCommand, now_s: float, own: Animal | None) -> dict[str, object]:
    name = require_free_name(said, own)
    code = clean_code(said.code) if said.code and said.code.strip() else None
    if said.hatch_year is not None:
        require_hatch_year(said.hatch_year, datetime.fromtimestamp(now_s, UTC).year)
    if len(said.traits_text) > LONGEST_TRAITS:
        raise NotPlausible("traits_text", f"{LONGEST_TRAITS} characters fit")
    animals = {a.entity_id: a for a in Animal.current()}
    for other in animals.values():
        if own is not None and other.entity_id == own.entity_id:
            continue
        if code and other.code and other.code.casefold() == code.casefold():
            raise Conflict(f"{other.name} has the code {other.code} already")
    for field_name, parent, role in (("dam", said.dam, DAM), ("sire", said.sire, SIRE)):
        if parent is None:
            continue
        if parent not in animals:
            raise NotPlausible(field_name, "that animal is not recorded here")
        if animals[parent].role != role:
            raise NotPlausible(
                field_name, f"{animals[parent].name} is a {animals[parent].role}, not a {role}"
            )
    if own is not None:
        require_no_circle(
            own.entity_id,
            said.dam,
            said.sire,
            {
                a.entity_id: (a.dam_id, a.sire_id)
                for a in animals.values()
                if a.entity_id != own.entity_id
            },
            {a.entity_id: a.name for a in animals.values()},
        )
    return {
        "role": said.role,
        "name": name,
        "code": code,
        "hatch_year": said.hatch_year,
        "traits": " ".join(said.traits_text.split()),
        "dam_id": said.dam,
        "sire_id": said.sire,
        "retired": int(said.retired),
    }


def _age(animal: Animal, at_s: float) -> int | None:
    if animal.hatch_year is None:
        return None
    return datetime.fromtimestamp(at_s, UTC).year - animal.hatch_year
