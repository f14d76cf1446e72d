"""Hatchlings as they stand: what they weigh, eat and wear, where they live, what is due."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.development import Window
from sandboa.core.hatching import Fate
from sandboa.core.hatching.hatchlings import still_to_come
from sandboa.core.hatching.raising import RAISED_DAYS, Meals, RaisingDue, raising_due
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.animals import Departure, Meal, Trait, Tub, Weight
from sandboa.records.clutches import Clutch, Egg
from sandboa.records.facts import FactT
from sandboa.records.hatching import Hatchling
from sandboa.records.house import Animal
from sandboa.services.acts.errors import NotFound
from sandboa.services.animals.individuals import died, hatchling_name
from sandboa.services.snapshot.snapshot import Snapshot

#: Meals taken after which a hatchling is settled (rule P8: "several"; assumption).
SETTLED_MEALS: Final = 3
#: Ids asked for at once: SQLite takes no more in one statement everywhere.
_PORTION: Final = 500


@dataclass(frozen=True)
class HatchlingView:
    """A hatchling as it stands: weights, meals and sheds (s) in order of time.

    `shed_window` and `meal_window` are of what is still to come, None once it came. `animal` is
    what it was held back as, `departure` that it left the house, `died` that it is dead; `due`
    what it needs, None for nothing and for one that is not here.
    """

    recorded: Hatchling
    clutch: Clutch
    number: int
    out_s: float
    weights: tuple[Weight, ...]
    meals: tuple[Meal, ...]
    traits: tuple[Trait, ...]
    sheds_s: tuple[float, ...]
    tubs: tuple[Tub, ...]
    animal: Animal | None
    departure: Departure | None
    died: bool
    shed_window: Window | None
    meal_window: Window | None
    due: RaisingDue | None

    @property
    def name(self) -> str:
        """ "Hatchling 3", "Hatchling 3b": within its clutch."""
        return hatchling_name(self.number, self.recorded.part)

    @property
    def short_name(self) -> str:
        """ "3", "3b"."""
        return f"{self.number}{'' if self.recorded.part == 1 else 'b'}"

    @property
    def here(self) -> bool:
        """Whether it lives in the house."""
        return self.departure is None and not self.died

    @property
    def settled(self) -> bool:
        """Whether it has taken several meals."""
        return sum(meal.taken for meal in self.meals) >= SETTLED_MEALS

    @property
    def tub(self) -> str | None:
        """The tub it lives in, None while it has none of its own."""
        return self.tubs[-1].name if self.tubs else None


@dataclass(frozen=True, slots=True)
class _Hatched:
    """What came out of an egg, and the animal it was held back as."""

    clutch: Clutch
    egg: Egg
    hatchling: Hatchling
    animal: Animal | None

    @property
    def ids(self) -> tuple[int, ...]:
        """What things are recorded of: the hatchling, and the animal it became."""
        own = int(self.hatchling.entity_id)
        return (own,) if self.animal is None else (own, int(self.animal.entity_id))


@dataclass(frozen=True, slots=True)
class _Belongings:
    """What is recorded of animals and hatchlings, by whose it is."""

    weights: dict[int, list[Weight]]
    meals: dict[int, list[Meal]]
    traits: dict[int, list[Trait]]
    tubs: dict[int, list[Tub]]


def hatchlings_of_eggs(
    snapshot: Snapshot, eggs: Iterable[tuple[Clutch, Egg]], as_of_s: float
) -> list[HatchlingView]:
    """The hatchlings of those eggs, in their order; what belongs to them is read at once."""
    wanted = [
        _Hatched(clutch, egg, hatchling, snapshot.held_back.get(hatchling.entity_id))
        for clutch, egg in eggs
        for hatchling in snapshot.egg(egg.entity_id).hatchlings
    ]
    ids = [entity for hatched in wanted for entity in hatched.ids]
    belongings = _Belongings(
        _by_owner(Weight, ids), _by_owner(Meal, ids), _by_owner(Trait, ids), _by_owner(Tub, ids)
    )
    return [_view(snapshot, hatched, belongings, as_of_s) for hatched in wanted]


def hatchling_view(snapshot: Snapshot, entity: int, as_of_s: float) -> HatchlingView:
    """One hatchling; NotFound for an unknown id."""
    hatchling = Hatchling.now(entity)
    egg = Egg.now(hatchling.egg_id) if hatchling else None
    clutch = snapshot.clutch_by_id.get(egg.clutch_id) if egg else None
    if egg is None or clutch is None:
        raise NotFound("there is no such hatchling")
    views = hatchlings_of_eggs(snapshot, [(clutch, egg)], as_of_s)
    return next(view for view in views if view.recorded.entity_id == entity)


def hatchlings_due(snapshot: Snapshot, as_of_s: float) -> list[HatchlingView]:
    """Young animals of the house that need something by then: longest waiting clutch first."""
    young = [view for view in hatchlings_raised(snapshot, as_of_s) if view.due is not None]
    since: dict[int, float] = {}
    for view in young:
        if view.due is not None:
            own = view.clutch.entity_id
            since[own] = min(since.get(own, as_of_s), view.due.since_s)
    return sorted(
        young, key=lambda v: (since[v.clutch.entity_id], v.clutch.code, v.number, v.recorded.part)
    )


def hatchlings_raised(snapshot: Snapshot, as_of_s: float) -> list[HatchlingView]:
    """Hatchlings of the last year that are in the house, held back or not, newest clutch first."""
    young_since_s = as_of_s - RAISED_DAYS * SECONDS_PER_DAY
    return [
        view
        for view in hatchlings_of_eggs(snapshot, _eggs(snapshot, young_since_s), as_of_s)
        if view.here and view.out_s <= as_of_s
    ]


def hatchlings_of_house(snapshot: Snapshot, as_of_s: float) -> list[HatchlingView]:
    """Every hatchling there was, the newest clutch first."""
    return hatchlings_of_eggs(snapshot, _eggs(snapshot, float("-inf")), as_of_s)


def _eggs(snapshot: Snapshot, since_s: float) -> list[tuple[Clutch, Egg]]:
    """Eggs that something has come out of since then, the newest clutch first."""
    return [
        (clutch, egg)
        for clutch in reversed(snapshot.clutches)
        for egg in snapshot.eggs.get(clutch.entity_id, [])
        if (out := snapshot.egg(egg.entity_id).emergence) is not None and out.seen_s >= since_s
    ]


def _view(
    snapshot: Snapshot, hatched: _Hatched, belongings: _Belongings, as_of_s: float
) -> HatchlingView:
    history, rules = snapshot.egg(hatched.egg.entity_id), snapshot.settings.rules.forecast
    own = hatched.hatchling.entity_id
    out_s = float(history.emergence.seen_s) if history.emergence else as_of_s
    departure = next(
        (snapshot.departures[i] for i in hatched.ids if i in snapshot.departures), None
    )
    died_early = history.fate is not None and history.fate.fate == Fate.HATCHED_DIED
    here = departure is None and not died_early
    sheds = tuple(float(shed.seen_s) for shed in snapshot.sheds.get(own, []))
    shed_s = sheds[0] if sheds else None
    meals = sorted(_of(belongings.meals, hatched.ids), key=lambda row: (row.at_s, row.id))
    offered = Meals(tuple((float(meal.at_s), bool(meal.taken)) for meal in meals))
    to_shed = here and shed_s is None and not meals
    to_eat = here and shed_s is not None and not any(meal.taken for meal in meals)
    traits = belongings.traits.get(own, [])
    return HatchlingView(
        recorded=hatched.hatchling,
        clutch=hatched.clutch,
        number=hatched.egg.number,
        out_s=out_s,
        weights=tuple(
            sorted(_of(belongings.weights, hatched.ids), key=lambda row: (row.at_s, row.id))
        ),
        meals=tuple(meals),
        traits=tuple(sorted(traits, key=lambda row: row.name.casefold())),
        sheds_s=sheds,
        tubs=tuple(sorted(_of(belongings.tubs, hatched.ids), key=lambda row: (row.from_s, row.id))),
        animal=hatched.animal,
        departure=departure,
        died=died_early or died(departure),
        shed_window=still_to_come(rules.first_shed, out_s, as_of_s) if to_shed else None,
        meal_window=still_to_come(rules.first_meal, shed_s, as_of_s) if to_eat and shed_s else None,
        due=raising_due(
            out_s,
            shed_s,
            offered,
            as_of_s,
            snapshot.settings["meal_every_days"],
            rules.first_shed,
        )
        if here
        else None,
    )


def _by_owner(table: type[FactT], ids: Sequence[int]) -> dict[int, list[FactT]]:
    found: dict[int, list[FactT]] = {}
    for start in range(0, len(ids), _PORTION):
        for row in table.current(animal_id=list(ids[start : start + _PORTION])):
            found.setdefault(int(row.values()["animal_id"]), []).append(row)
    return found


def _of(rows: dict[int, list[FactT]], ids: tuple[int, ...]) -> list[FactT]:
    return [row for own in ids for row in rows.get(own, [])]
