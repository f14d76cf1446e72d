"""One animal or hatchling, whichever an id is of: what it is called, and whether it is here.

A hatchling that was held back is the animal it became: what is recorded of either is of both.
"""

from dataclasses import dataclass
from typing import Any

from sandboa.core.errors import NotPlausible
from sandboa.core.hatching.raising import Departure as DepartureKind
from sandboa.core.messages import Message, Moment
from sandboa.core.units import CLOCK_GRACE_S, SECONDS_PER_DAY, require_moment
from sandboa.records.animals import Departure, Meal, Pairing, Sign, Tub, Weight
from sandboa.records.clutches import Clutch, Egg
from sandboa.records.hatching import Emergence, Hatchling, Shed
from sandboa.records.house import Animal
from sandboa.services.acts.errors import Conflict, NotFound


@dataclass(frozen=True, slots=True)
class Individual:
    """`id` is where things are recorded from now on, `ids` are those under which things stand.

    `hatchling` is None for one that did not hatch here, `animal` for one that was not held back;
    `clutch` is the id of the clutch it hatched from, `out_s` when it came out of its egg.
    """

    id: int
    name: str
    ids: tuple[int, ...]
    animal: Animal | None
    hatchling: Hatchling | None
    clutch: int | None
    out_s: float | None

    @property
    def departure(self) -> Departure | None:
        """That it left the house, None while it is here."""
        rows = Departure.current(animal_id=list(self.ids))
        return rows[0] if rows else None

    @property
    def tub(self) -> Tub | None:
        """The tub it lives in, None while it has none of its own."""
        rows = Tub.current(animal_id=list(self.ids))
        return max(rows, key=lambda tub: (tub.from_s, tub.id), default=None)

    def age_days(self, at_s: float) -> float:
        """Days since it came out of its egg; 0 where that is not known."""
        return 0.0 if self.out_s is None else (at_s - self.out_s) / SECONDS_PER_DAY


@dataclass(frozen=True, slots=True)
class HatchedHere:
    """The egg of an animal that was held back at `held_s`; `clutch` is its code."""

    hatchling: int
    clutch: str
    egg: int
    held_s: float


def hatched_here(who: Individual) -> HatchedHere | None:
    """The egg an animal came from, None for one that did not hatch here."""
    egg = Egg.now(who.hatchling.egg_id) if who.hatchling else None
    clutch = Clutch.now(egg.clutch_id) if egg else None
    held_s = who.animal.held_s if who.animal else None
    if who.hatchling is None or egg is None or clutch is None or held_s is None:
        return None
    return HatchedHere(who.hatchling.entity_id, clutch.code, egg.number, float(held_s))


def individual(entity: int) -> Individual:
    """The animal or hatchling with that id; NotFound for neither."""
    animal = Animal.now(entity)
    hatchling = Hatchling.now(entity)
    if animal is None and hatchling is not None:
        animal = Animal.only(hatchling_id=entity)
    elif animal is not None and animal.hatchling_id is not None:
        hatchling = Hatchling.now(animal.hatchling_id)
    if animal is None and hatchling is None:
        raise NotFound("there is no such animal or hatchling")
    egg = Egg.now(hatchling.egg_id) if hatchling else None
    if animal is None and (egg is None or Clutch.now(egg.clutch_id) is None):
        raise NotFound("there is no such hatchling")
    out = Emergence.only(egg_id=egg.entity_id) if egg else None
    ids = tuple(row.entity_id for row in (animal, hatchling) if row is not None)
    return Individual(
        ids[0],
        _name(animal, hatchling, egg),
        ids,
        animal,
        hatchling,
        egg.clutch_id if egg else None,
        float(out.seen_s) if out else None,
    )


def require_here(who: Individual, at_s: float, now_s: float, field: str = "at") -> None:
    """NotPlausible for a time ahead, before it was out of its egg, or after it left the house."""
    require_moment(field, at_s)
    if at_s > now_s + CLOCK_GRACE_S:
        raise NotPlausible(field, "that time is in the future")
    if who.out_s is not None and at_s < who.out_s:
        raise NotPlausible(field, f"{lower_first(who.name)} was still in its egg then")
    require_not_left(who, at_s, field)


def require_not_left(who: Individual, at_s: float, field: str = "at") -> None:
    """NotPlausible for a time after it left the house."""
    left = who.departure
    if left is not None and at_s > left.at_s:
        raise NotPlausible(
            field,
            Message(
                "{name} left the house before that ({how}, {at}): undo that first, if it is here",
                name=who.name,
                how=left.how,
                at=Moment(left.at_s),
            ),
        )


def require_nothing_after(who: Individual, at_s: float) -> None:
    """Conflict when something is recorded of it after `at_s`: it was in the house then."""
    ids = list(who.ids)
    seen: list[tuple[float, str]] = [
        *((w.at_s, "weighed") for w in Weight.current(animal_id=ids)),
        *((m.at_s, "offered a meal") for m in Meal.current(animal_id=ids)),
        *((t.from_s, "put into a tub") for t in Tub.current(animal_id=ids)),
        *((s.seen_s, "seen to have shed") for s in Shed.current(hatchling_id=ids)),
        *((s.seen_s, "looked at") for s in Sign.current(dam_id=ids)),
        *((c.laid_s, "laying") for c in Clutch.current(dam_id=ids)),
    ]
    for column in ("dam_id", "sire_id"):
        asked: dict[str, Any] = {column: ids}
        for visit in Pairing.current(**asked):
            if visit.until_s is None:
                raise Conflict(f"{who.name} is with another animal: part them first")
            seen.append((visit.until_s, "with another animal"))
    latest_s, what = max(seen, default=(at_s, ""))
    if latest_s > at_s:
        raise Conflict(
            Message(
                "{name} was {what} on {at}: it was in the house then",
                name=who.name,
                what=what,
                at=Moment(latest_s),
            )
        )


def lower_first(words: str) -> str:
    """ "hatchling 3" in the middle of a sentence; a name stays as it is."""
    return words[0].lower() + words[1:] if words.startswith("Hatchling ") else words


def died(left: Departure | None) -> bool:
    """Whether it left by dying."""
    return left is not None and left.how == DepartureKind.DIED


def hatchling_name(number: int, part: int) -> str:
    """ "Hatchling 3", "Hatchling 3b" for the second of twins."""
    return f"Hatchling {number}{'' if part == 1 else 'b'}"


def _name(animal: Animal | None, hatchling: Hatchling | None, egg: Egg | None) -> str:
    if animal is not None:
        return animal.name
    assert hatchling is not None
    return hatchling_name(egg.number if egg else 0, hatchling.part)
