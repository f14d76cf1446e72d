"""What hatchlings say of their parents: the chance that a "possible" carrier is one.

A trait proves out when a hatchling shows it that could have it from no one else. Every hatchling
that could have shown it and does not makes a carrier less likely. Animals that are uncertain
together (a possible dam with a possible sire) are reckoned together, exactly (Bayes' rule).
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from sandboa.core.animals import TraitForm
from sandboa.core.development.clock import FloatArray
from sandboa.core.pairing.genes import (
    POSSIBLE_CARRIES,
    Copies,
    Gene,
    copies_of,
    for_certain,
    offspring,
    visible_chance,
)

#: Animals uncertain together that are reckoned together; in a larger group each takes its mates
#: at what was believed before (assumption: no house has such a group).
MOST_TOGETHER: Final = 20


@dataclass(frozen=True, slots=True)
class Progeny:
    """The hatchlings of a pair that somebody looked at for a gene: `shown` of `of` show it."""

    dam: int
    sire: int
    shown: int
    of: int

    def __post_init__(self) -> None:
        if not 0 <= self.shown <= self.of:
            raise ValueError(f"{self.shown} of {self.of} cannot show it")


@dataclass(frozen=True, slots=True)
class ByMate:
    """A pair's hatchlings that could tell: `expected` is the chance 0-1 of each to show the gene
    if the animal carries it, by what was believed of its mate before."""

    mate: int
    shown: int
    of: int
    expected: float


@dataclass(frozen=True, slots=True)
class Proof:
    """Whether an animal carries a gene: chances 0-1 before and after its hatchlings.

    `chance` is None where nothing recorded can explain what they show. `times` is how many times
    likelier they are if it carries the gene than if it does not: 0 to infinity.
    """

    before: float
    chance: float | None
    times: float
    by_mate: tuple[ByMate, ...]

    @property
    def proved(self) -> bool:
        """Whether a hatchling shows what it cannot have without this animal."""
        sure = self.chance is not None and self.chance > 1.0 - 1e-9
        return sure and self.before < 1.0 and any(pair.shown for pair in self.by_mate)


def chance_by_parents(gene: Gene, dam: TraitForm | None, sire: TraitForm | None) -> float:
    """Chance 0-1 that an animal recorded as possible has one copy, by its parents as recorded.

    Of two parents with one copy each of a recessive gene it is two in three, as it does not show
    the gene. Where they say nothing, or it could only show it, one in two (assumption).
    """
    none, one, two = offspring(copies_of(gene, dam), copies_of(gene, sire))
    hidden_one = one * (1.0 - visible_chance(gene, for_certain(1)))
    hidden_two = two * (1.0 - visible_chance(gene, for_certain(2)))
    hidden = none + hidden_one + hidden_two
    return hidden_one / hidden if hidden_one > 0.0 else POSSIBLE_CARRIES


class Carriers:
    """What is believed of the animals of a house about one gene, after what hatched."""

    def __init__(
        self, gene: Gene, copies: Mapping[int, Copies], progeny: Sequence[Progeny]
    ) -> None:
        """`copies` are the chances of 0, 1 and 2 copies before any hatchling, of every animal of
        the pairs; an animal that is not in it has none."""
        self.gene = gene
        self._copies = dict(copies)
        self._progeny = [pair for pair in progeny if pair.of]

    def proof(self, animal: int) -> Proof:
        """Whether the animal carries the gene, at least one copy."""
        before = self._before(animal)
        weights = self._weights((animal,))
        carries = 1.0 - before[0]
        total = float(weights.sum())
        by_mate = tuple(self._by_mate(animal))
        if total <= 0.0:
            return Proof(carries, None, 1.0, by_mate)
        chance = float(weights[1:].sum()) / total
        if carries in (0.0, 1.0) or not by_mate:
            return Proof(carries, carries, 1.0, by_mate)
        without = float(weights[0]) / before[0]
        times = np.inf if without == 0.0 else float(weights[1:].sum()) / carries / without
        return Proof(carries, chance, float(times), by_mate)

    def together(self, dam: int, sire: int) -> FloatArray:
        """Chances of 0, 1, 2 copies in a dam and in a sire at once, shape (3, 3); sums to 1.

        Where nothing recorded can explain what hatched, what was believed before.
        """
        weights = self._weights((dam, sire))
        total = float(weights.sum())
        if total > 0.0:
            return np.asarray(weights / total)
        return np.outer(self._before(dam), self._before(sire))

    def _before(self, animal: int) -> Copies:
        return self._copies.get(animal, for_certain(0))

    def _by_mate(self, animal: int) -> list[ByMate]:
        """Its pairs in which a carrier's hatchlings could show the gene."""
        found = []
        for pair in self._progeny:
            if animal not in (pair.dam, pair.sire):
                continue
            mate = pair.sire if animal == pair.dam else pair.dam
            carrier = self._as_carrier(animal)
            expected = sum(
                of_carrier * of_mate * self._shown_chance(own, other)
                for own, of_carrier in enumerate(carrier)
                for other, of_mate in enumerate(self._before(mate))
            )
            if expected > 0.0 or pair.shown:
                found.append(ByMate(mate, pair.shown, pair.of, expected))
        return found

    def _as_carrier(self, animal: int) -> Copies:
        """Its chances of copies if it has any."""
        _, one, two = self._before(animal)
        carries = one + two
        return (0.0, one / carries, two / carries) if carries > 0.0 else for_certain(1)

    def _shown_chance(self, dam: int, sire: int) -> float:
        """Chance 0-1 of a hatchling to show the gene, of parents with so many copies."""
        return visible_chance(self.gene, offspring(for_certain(dam), for_certain(sire)))

    def _weights(self, asked: tuple[int, ...]) -> FloatArray:
        """What was believed of the copies of those animals, times what hatched then; shape
        (3,) or (3, 3), up to a factor."""
        group = self._group(asked)
        if len(self._uncertain(group)) > MOST_TOGETHER:
            group = set(asked)
        animals = sorted(group | set(asked))
        place = {animal: index for index, animal in enumerate(animals)}
        factors: list[Any] = []
        for animal in animals:
            factors += [np.asarray(self._before(animal)), [place[animal]]]
        for pair in self._progeny:
            if pair.dam in group and pair.sire in group:
                factors += [self._likelihood(pair), [place[pair.dam], place[pair.sire]]]
            elif pair.dam in group or pair.sire in group:
                inside, mate = (pair.dam, pair.sire) if pair.dam in group else (pair.sire, pair.dam)
                table = self._likelihood(pair)
                of_mate = table if inside == pair.dam else table.T
                factors += [of_mate @ np.asarray(self._before(mate)), [place[inside]]]
        told = np.einsum(*factors, [place[animal] for animal in asked], optimize="greedy")
        return np.asarray(told, dtype=np.float64)

    def _group(self, asked: tuple[int, ...]) -> set[int]:
        """Uncertain animals that stand together with those asked for through pairs."""
        mates: dict[int, set[int]] = {}
        for pair in self._progeny:
            mates.setdefault(pair.dam, set()).add(pair.sire)
            mates.setdefault(pair.sire, set()).add(pair.dam)
        group = set(asked)
        waiting = list(asked)
        while waiting:
            for mate in self._uncertain(mates.get(waiting.pop(), set())) - group:
                group.add(mate)
                waiting.append(mate)
        return group

    def _uncertain(self, animals: set[int]) -> set[int]:
        return {animal for animal in animals if max(self._before(animal)) < 1.0}

    def _likelihood(self, pair: Progeny) -> FloatArray:
        """How likely what a pair's hatchlings show is, by the copies of dam and sire; shape
        (3, 3), the highest 1, all 0 where no parents explain it."""
        logs = np.full((3, 3), -np.inf)
        for dam in range(3):
            for sire in range(3):
                chance = self._shown_chance(dam, sire)
                if (chance == 0.0 and pair.shown) or (chance == 1.0 and pair.shown < pair.of):
                    continue
                shown = pair.shown * np.log(chance) if pair.shown else 0.0
                plain = pair.of - pair.shown
                logs[dam, sire] = shown + (plain * np.log1p(-chance) if plain else 0.0)
        highest = logs.max()
        return np.exp(logs - highest) if np.isfinite(highest) else np.zeros((3, 3))
