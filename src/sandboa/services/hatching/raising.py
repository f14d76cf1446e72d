"""Raising hatchlings: weighed, shed, fed one by one or several at once, and held back."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime

from sandboa.core.act_kinds import ActKind
from sandboa.core.animals import DAM, SIRE, TraitForm
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching import Sex
from sandboa.core.hatching.raising import require_sheds_apart, require_young_weight
from sandboa.records.animals import Trait, Weight
from sandboa.records.clutches import Clutch
from sandboa.records.facts import Act
from sandboa.records.hatching import Shed
from sandboa.records.house import Animal
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import act, together
from sandboa.services.animals.commands import AnimalCommand, require_free_name
from sandboa.services.animals.individuals import (
    Individual,
    individual,
    lower_first,
    require_here,
)
from sandboa.services.animals.meals import MealCommand, keep_meal
from sandboa.services.animals.traits import TraitCommand, keep_traits

#: The role an animal of a sex is kept for.
_ROLE_OF = {Sex.FEMALE: DAM, Sex.MALE: SIRE}


@dataclass(frozen=True, slots=True)
class OfferedMeal:
    """A meal offered to one of several: `taken` or refused."""

    hatchling: int
    taken: bool


def weigh_hatchling(entity: int, mass_g: float, at_s: float, now_s: float) -> Act:
    """Record a weight (g) of a hatchling; NotFound, or NotPlausible for what cannot be."""
    who = _young(entity, at_s, now_s)
    require_young_weight(mass_g, who.age_days(at_s))
    with act(ActKind.WEIGH, f"{who.name}: {mass_g:g} g", now_s, who.clutch) as weighing:
        Weight.record(weighing, animal_id=who.id, at_s=int(at_s), mass_g=mass_g)
    return weighing


def see_shed(entity: int, seen_s: float, now_s: float) -> Act:
    """Record a shed of a hatchling; NotPlausible within ten days of another one."""
    who = _young(entity, seen_s, now_s)
    own = _hatchling_id(who)
    others = tuple(float(shed.seen_s) for shed in Shed.current(hatchling_id=own))
    require_sheds_apart(seen_s, others)
    first = "first shed" if seen_s <= min(others, default=seen_s) else "shed"
    with act(ActKind.SHED, f"{who.name}: {first}", now_s, who.clutch) as seeing:
        Shed.record(seeing, hatchling_id=own, seen_s=int(seen_s))
    return seeing


def offer_first_meal(entity: int, meal: MealCommand, at_s: float, now_s: float) -> Act:
    """Record a meal offered to a hatchling, taken or refused."""
    who = _young(entity, at_s, now_s)
    with act(ActKind.MEAL, meal.words(who.name), now_s, who.clutch) as offering:
        keep_meal(offering, who.id, meal, at_s)
    return offering


def offer_meals(
    offered: Sequence[OfferedMeal], meal: MealCommand, at_s: float, now_s: float
) -> Act:
    """Record the same prey offered to several hatchlings, each taken or refused; all or none.

    Raises as `offer_first_meal`; NotPlausible for none at all, or one named twice.
    """
    if not offered or len({one.hatchling for one in offered}) < len(offered):
        raise NotPlausible("meals", "which hatchlings? Each of them once")
    clutches = {individual(one.hatchling).clutch for one in offered}
    taken = sum(one.taken for one in offered)
    words = f"Meals: {taken} taken, {len(offered) - taken} refused"
    of_one = clutches.pop() if len(clutches) == 1 else None
    with together(ActKind.MEAL, words, now_s, of_one) as offering:
        for one in offered:
            offer_first_meal(one.hatchling, replace(meal, taken=one.taken), at_s, now_s)
    return offering


def hold_back(
    entity: int, name: str, role: str | None, held_s: float, now_s: float
) -> tuple[int, Act]:
    """Keep a hatchling to breed with: an animal of that name, with its parents and its egg.

    What was recorded of the hatchling is the animal's; its traits are taken over. `role` is a dam
    or a sire, None to take it from its sex. Returns the animal's id. Raises NotFound; NotPlausible
    where nobody said what it is kept as, for a time ahead or after it left; Conflict when it is
    held back already, or the name is taken.
    """
    who = _young(entity, held_s, now_s)
    if who.animal is not None or who.hatchling is None:
        raise Conflict(f"{who.name} is held back already")
    kept_as = role or _ROLE_OF.get(Sex(who.hatchling.sex))
    if kept_as is None:
        raise NotPlausible("role", "it is not sexed: is it kept as a dam or as a sire?")
    tidy = require_free_name(AnimalCommand(kept_as, name))
    clutch = Clutch.now(who.clutch or 0)
    if clutch is None or who.out_s is None:
        raise NotFound("its clutch is no more")
    words = f"{who.name} held back as {tidy}, {kept_as}"
    with act(ActKind.HELD_BACK, words, now_s, who.clutch) as holding:
        animal = Animal.record(
            holding,
            role=kept_as,
            name=tidy,
            hatch_year=datetime.fromtimestamp(who.out_s, UTC).year,
            dam_id=clutch.dam_id,
            sire_id=clutch.sire_id,
            hatchling_id=who.hatchling.entity_id,
            held_s=int(held_s),
        )
        traits = [
            TraitCommand(row.name, TraitForm(row.form))
            for row in Trait.current(animal_id=who.hatchling.entity_id)
        ]
        keep_traits(holding, animal.entity_id, traits)
    return animal.entity_id, holding


def _young(entity: int, at_s: float, now_s: float) -> Individual:
    """What hatched here, held back or not, and was in the house at `at_s`."""
    who = individual(entity)
    if who.hatchling is None:
        raise NotFound("there is no such hatchling")
    require_here(who, at_s, now_s)
    return who


def _hatchling_id(who: Individual) -> int:
    if who.hatchling is None:
        raise NotFound(f"{lower_first(who.name)} did not hatch here")
    return int(who.hatchling.entity_id)
