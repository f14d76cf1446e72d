"""Meals offered to animals, hatchlings among them."""

from dataclasses import dataclass
from typing import Final

from sandboa.core.names import clean_name
from sandboa.core.units import require_range
from sandboa.records.animals import Meal
from sandboa.records.facts import Act

#: g of one meal (assumption: from a pinky mouse to a large rat).
MEAL_RANGE_G: Final = (1.0, 600.0)


@dataclass(frozen=True, slots=True)
class MealCommand:
    """A meal offered: its mass in g where it was weighed; prey empty when nobody says."""

    taken: bool
    prey: str = ""
    mass_g: float | None = None

    def words(self, who: str) -> str:
        return f"{who} {'took' if self.taken else 'refused'} {self.prey.strip() or 'a meal'}"


def keep_meal(keeping: Act, animal: int, meal: MealCommand, at_s: float) -> None:
    """Record the meal of an animal (or hatchling); NotPlausible for one that cannot be."""
    if meal.mass_g is not None:
        require_range("mass_g", meal.mass_g, MEAL_RANGE_G, "g")
    Meal.record(
        keeping,
        animal_id=animal,
        at_s=int(at_s),
        taken=int(meal.taken),
        prey=clean_name("prey", meal.prey) if meal.prey.strip() else "",
        mass_g=meal.mass_g,
    )
