"""Dams and sires: weights that can be true, traits and their form, parentage without circles."""

from collections.abc import Mapping
from enum import StrEnum
from typing import Final

from sandboa.core.errors import NotPlausible
from sandboa.core.units import require_range

#: g of an adult (rule P1: many will not breed a dam under 1,500 g; the range is an assumption).
ADULT_RANGE_G: Final = (300.0, 6_000.0)
#: g of any animal, hatchlings included (assumption).
ANY_RANGE_G: Final = (20.0, 6_000.0)
#: Years from which an animal counts as an adult (assumption).
ADULT_YEARS: Final = 2
#: Share by which two weighings of one animal can differ without being asked about (assumption).
ASKED_ABOVE: Final = 0.45
#: Years of hatching that are believed: none is older (assumption).
OLDEST_YEARS: Final = 60


class TraitForm(StrEnum):
    """How an animal carries a trait; two copies where they are told apart from one."""

    VISUAL = "visual"
    TWO_COPIES = "two copies"
    ONE_COPY = "one copy"
    POSSIBLE = "possible"


def require_weight(mass_g: float, age_years: int | None) -> float:
    """Return a weight (g) that an animal can have; NotPlausible otherwise.

    Animals of unknown age count as adults: 300-6,000 g; younger than two
    years, 20-6,000 g. A number that would fit as kilograms is pointed out.
    """
    adult = age_years is None or age_years >= ADULT_YEARS
    limits = ADULT_RANGE_G if adult else ANY_RANGE_G
    if ADULT_RANGE_G[0] <= mass_g * 1000.0 <= ADULT_RANGE_G[1]:
        raise NotPlausible(
            "mass_g", f"{mass_g:g} g is no weight of a snake: {mass_g * 1000:g} g, perhaps?"
        )
    if adult and not limits[0] <= mass_g <= limits[1]:
        raise NotPlausible(
            "mass_g",
            f"{mass_g:g} g is no weight of an adult: {limits[0]:g} to {limits[1]:,.0f} g fit",
        )
    return require_range("mass_g", mass_g, limits, "g")


def leaps(before_g: float, mass_g: float) -> bool:
    """Whether two weighings differ so much that the keeper should be asked.

    Laying costs a quarter to two fifths (rule P1), so 45 % is asked about.
    """
    return abs(mass_g - before_g) > ASKED_ABOVE * before_g


def require_hatch_year(year: int, this_year: int) -> int:
    """Return a hatch year that can be true; NotPlausible otherwise."""
    if not this_year - OLDEST_YEARS <= year <= this_year:
        raise NotPlausible(
            "hatch_year", f"hatch year {year} is outside {this_year - OLDEST_YEARS} to {this_year}"
        )
    return year


def require_no_circle(
    child: int,
    dam: int | None,
    sire: int | None,
    parents: Mapping[int, tuple[int | None, int | None]],
    names: Mapping[int, str],
) -> None:
    """Raise NotPlausible when `child` would be among its own ancestors.

    `parents` maps each animal to (dam, sire) as recorded so far; `names` is for
    the sentence. Parents are searched upwards, each once.
    """
    for field, parent in (("dam", dam), ("sire", sire)):
        seen: set[int] = set()
        waiting = [parent]
        while waiting:
            animal = waiting.pop()
            if animal is None or animal in seen:
                continue
            if animal == child:
                name = names.get(child, "it")
                raise NotPlausible(
                    field,
                    f"{name} would be descended from {name} itself"
                    if parent != child
                    else f"{name} cannot be its own {field}",
                )
            seen.add(animal)
            waiting.extend(parents.get(animal, (None, None)))


DAM: Final = "dam"


SIRE: Final = "sire"
