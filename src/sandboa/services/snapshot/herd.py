"""The animals as they stand: weights, meals, pairings, signs, and their clutches."""

from collections import defaultdict
from collections.abc import Callable
from dataclasses import dataclass
from typing import TypeVar

from sandboa.core.clutch_count import ClutchCount
from sandboa.core.laying import INTERVALS, PastInterval, SeenSign, Sign
from sandboa.core.laying.intervals import believable
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records import animals as recorded
from sandboa.records.animals import Departure, Lock, Meal, Pair, Pairing, Trait, Weight
from sandboa.records.clutches import Clutch, Egg, PastClutch
from sandboa.records.facts import Fact
from sandboa.records.house import Animal, Task

FactT = TypeVar("FactT", bound=Fact)


@dataclass(frozen=True, slots=True)
class ClutchOf:
    """A clutch of an animal: `code` None where a past one's card had none, `mate` the other
    parent's name."""

    code: str | None
    past: bool
    laid_s: float
    count: ClutchCount
    mate: str | None


@dataclass(frozen=True)
class Herd:
    """Current facts about animals; lists in order of time.

    What was weighed and eaten before an animal was held back stands with what came after.
    """

    animals: dict[int, Animal]
    traits: dict[int, list[Trait]]
    weights: dict[int, list[Weight]]
    meals: dict[int, list[Meal]]
    pairs: list[Pair]
    pairings: dict[int, list[Pairing]]
    locks: dict[int, list[Lock]]
    signs: dict[int, list[SeenSign]]
    clutches: dict[int, list[Clutch]]
    past_clutches: list[PastClutch]
    counts: dict[int, tuple[int, int]]
    tasks: dict[int, list[Task]]
    departures: dict[int, Departure]

    def breeds(self, animal: int) -> bool:
        """Whether it is in the house and not retired."""
        return not self.animals[animal].retired and animal not in self.departures

    def name(self, entity: int | None) -> str | None:
        """The animal's name, None for none."""
        return self.animals[entity].name if entity in self.animals else None

    def last_laid_s(self, dam: int) -> float | None:
        clutches = self.clutches.get(dam)
        return clutches[-1].laid_s if clutches else None

    def clutches_of(self, animal: int) -> list[ClutchOf]:
        """The clutches of a dam or a sire, past ones too, in order of laying."""
        recorded = [c for clutches in self.clutches.values() for c in clutches]
        every: list[Clutch | PastClutch] = [*recorded, *self.past_clutches]
        own = [clutch for clutch in every if animal in (clutch.dam_id, clutch.sire_id)]
        return [
            ClutchOf(
                clutch.code,
                isinstance(clutch, PastClutch),
                clutch.laid_s,
                self._count(clutch),
                self.name(clutch.sire_id if animal == clutch.dam_id else clutch.dam_id),
            )
            for clutch in sorted(own, key=lambda c: c.laid_s)
        ]

    def _count(self, clutch: Clutch | PastClutch) -> ClutchCount:
        if isinstance(clutch, PastClutch):
            return ClutchCount(clutch.eggs, clutch.slugs)
        return ClutchCount(*self.counts.get(clutch.entity_id, (0, 0)))

    def signs_since_laying(self, dam: int) -> list[SeenSign]:
        """Signs of the clutch still to come: those after the last one."""
        after = self.last_laid_s(dam)
        return [s for s in self.signs.get(dam, []) if after is None or s.seen_s > after]

    def past_intervals(self, sign: Sign) -> list[PastInterval]:
        """Days from that sign to laying of every clutch that had one, of the whole house."""
        intervals = []
        for dam, clutches in self.clutches.items():
            previous_s = float("-inf")
            for clutch in clutches:
                seen = [
                    s.seen_s
                    for s in self.signs.get(dam, [])
                    if s.sign is sign and previous_s < s.seen_s <= clutch.laid_s
                ]
                previous_s = clutch.laid_s
                days = (clutch.laid_s - max(seen)) / SECONDS_PER_DAY if seen else None
                if days is not None and sign in INTERVALS and believable(sign, days):
                    intervals.append(PastInterval(dam, days))
        return intervals


def read_herd() -> Herd:
    """Everything that is recorded of the animals now."""
    counts: dict[int, tuple[int, int]] = {}
    for egg in Egg.current():
        laid, slugs = counts.get(egg.clutch_id, (0, 0))
        counts[egg.clutch_id] = (laid + 1, slugs + egg.slug)
    signs = {
        dam: [SeenSign(Sign(row.kind), row.seen_s) for row in rows]
        for dam, rows in _by(recorded.Sign, "dam_id", lambda r: r.seen_s).items()
    }
    animals = {a.entity_id: a for a in Animal.current()}
    return Herd(
        animals=animals,
        traits=_by(Trait, "animal_id", lambda r: r.name.casefold()),
        weights=_whole(animals, _by(Weight, "animal_id", _in_time), _in_time),
        meals=_whole(animals, _by(Meal, "animal_id", _in_time), _in_time),
        pairs=Pair.current(),
        pairings=_by(Pairing, "dam_id", lambda r: r.from_s),
        locks=_by(Lock, "pairing_id", lambda r: r.seen_s),
        signs=signs,
        clutches=_by(Clutch, "dam_id", lambda r: r.laid_s),
        past_clutches=PastClutch.current(),
        counts=counts,
        tasks=_by(Task, "subject_id", lambda r: r.done_s),
        departures={left.animal_id: left for left in Departure.current()},
    )


def _in_time(row: Weight | Meal) -> tuple[int, int]:
    return row.at_s, row.id


def _whole(
    animals: dict[int, Animal],
    groups: dict[int, list[FactT]],
    order: Callable[[FactT], tuple[int, int]],
) -> dict[int, list[FactT]]:
    """The groups, with those of the hatchling an animal was among those of the animal."""
    for animal, row in animals.items():
        before = groups.get(row.hatchling_id, []) if row.hatchling_id is not None else []
        if before:
            groups[animal] = sorted([*before, *groups.get(animal, [])], key=order)
    return groups


def _by(table: type[FactT], owner: str, order: Callable[[FactT], object]) -> dict[int, list[FactT]]:
    groups: dict[int, list[FactT]] = defaultdict(list)
    for row in sorted(table.current(), key=order):  # type: ignore[arg-type]
        groups[getattr(row, owner)].append(row)
    return dict(groups)
