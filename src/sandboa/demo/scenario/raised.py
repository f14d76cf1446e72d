"""Last season's hatchlings after their first weeks: fed, sold, given away, two held back."""

from collections.abc import Iterator
from functools import partial
from typing import Final

from sandboa.core.hatching.raising import Departure
from sandboa.demo.replay import Event
from sandboa.records.clutches import Clutch, Egg
from sandboa.records.hatching import Emergence, Hatchling
from sandboa.records.house import Animal
from sandboa.services.animals.leaving import leave_house, put_in_tub
from sandboa.services.animals.meals import MealCommand
from sandboa.services.hatching.raising import (
    OfferedMeal,
    hold_back,
    offer_first_meal,
    offer_meals,
    see_shed,
    weigh_hatchling,
)

_DAY_S: Final = 86_400.0
#: Days before today: they are in tubs of their own, and go or stay.
_TUBS_AGO: Final = 280.0
_LEFT_AGO: Final = 205.0
_HELD_AGO: Final = 190.0
#: Days before today on which those of the house were fed together.
_FED_AGO: Final = (275.0, 267.0, 259.0, 251.0)
#: The first to hatch of a clutch, by that one's number, its name and what it is kept as; and the
#: days ago of its last meals.
_KEPT: Final = (
    (1, "Betony", "dam", (16.0, 9.0)),
    (5, "Gneiss", "sire", (18.0, 11.0, 4.0)),
)

#: Days before today and g: they grow.
_WEIGHTS: Final = ((185.0, 190.0), (120.0, 265.0), (60.0, 340.0), (5.0, 415.0))


def raised(now_s: float, year: int) -> Iterator[Event]:
    """What is told of last season's hatchlings; `year` is that of their codes (two digits)."""
    at_s = now_s - _TUBS_AGO * _DAY_S
    yield at_s, partial(_settle, year, at_s)
    for days in _FED_AGO:
        fed_s = now_s - days * _DAY_S
        yield fed_s, partial(_feed, year, fed_s, refusing=days == _FED_AGO[0])
    held_s = now_s - _HELD_AGO * _DAY_S
    left_s = now_s - _LEFT_AGO * _DAY_S
    yield left_s, partial(_leave, year, left_s)
    for number, name, role, meals in _KEPT:
        yield held_s, partial(_hold, year, number, name, role, held_s)
        for days in meals:
            meal_s = now_s - days * _DAY_S
            yield meal_s, partial(_feed_kept, name, meal_s)
        for days, mass_g in _WEIGHTS:
            weighed_s = now_s - days * _DAY_S
            yield weighed_s, partial(_weigh_kept, name, mass_g, weighed_s)


def _hatchlings(year: int) -> list[tuple[str, int, int, float]]:
    """Code, egg, id and when it came out (s) of each hatchling of the year."""
    told = []
    for clutch in sorted(Clutch.current(), key=lambda row: row.code):
        if not clutch.code.startswith(f"{year:02d}-"):
            continue
        for egg in sorted(Egg.current(clutch_id=clutch.entity_id), key=lambda row: row.number):
            hatchling = Hatchling.only(egg_id=egg.entity_id, part=1)
            out = Emergence.only(egg_id=egg.entity_id)
            if hatchling is not None and out is not None:
                told.append((clutch.code, egg.number, hatchling.entity_id, float(out.seen_s)))
    return told


def _settle(year: int, at_s: float) -> None:
    """Each has shed in its first week or so, and has a tub of its own."""
    for number, (_, _, hatchling, out_s) in enumerate(_hatchlings(year), start=1):
        see_shed(hatchling, out_s + (6 + number % 4) * _DAY_S, at_s)
        put_in_tub(hatchling, f"H {number}", at_s, at_s)


def _feed(year: int, at_s: float, *, refusing: bool) -> None:
    """Everyone gets a rat pup; the first time every fifth refuses."""
    young = _hatchlings(year)
    offered = [
        OfferedMeal(hatchling, taken=not (refusing and number % 5 == 0))
        for number, (_, _, hatchling, _) in enumerate(young)
    ]
    if offered:
        offer_meals(offered, MealCommand(taken=True, prey="rat pup", mass_g=9.0), at_s, at_s)


def _leave(year: int, at_s: float) -> None:
    kept = {_first_of(year, number) for number, *_ in _KEPT}
    for number, (_, _, hatchling, _) in enumerate(_hatchlings(year)):
        if hatchling not in kept:
            how = Departure.GIVEN_AWAY if number % 6 == 0 else Departure.SOLD
            leave_house(hatchling, how, "", at_s, at_s)


def _hold(year: int, number: int, name: str, role: str, at_s: float) -> None:
    hatchling = _first_of(year, number)
    if hatchling is not None:
        hold_back(hatchling, name, role, at_s, at_s)


def _first_of(year: int, number: int) -> int | None:
    """The hatchling that was out first of a clutch; None where nothing hatched."""
    own = [told for told in _hatchlings(year) if told[0] == f"{year:02d}-{number:02d}"]
    return min(own, key=lambda told: told[3])[2] if own else None


def _feed_kept(name: str, at_s: float) -> None:
    animal = Animal.only(name=name)
    if animal is not None:
        meal = MealCommand(taken=True, prey="small rat", mass_g=60.0)
        offer_first_meal(animal.entity_id, meal, at_s, at_s)


def _weigh_kept(name: str, mass_g: float, at_s: float) -> None:
    animal = Animal.only(name=name)
    if animal is not None:
        weigh_hatchling(animal.entity_id, mass_g, at_s, at_s)
