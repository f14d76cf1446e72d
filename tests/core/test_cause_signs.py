"""Rule G, sign by sign: each moves its own cause the way its score says, and no other."""

import math
import random
from dataclasses import replace
from functools import cache

import pytest

from sandboa.core.box import Shell
from sandboa.core.candling import Disc
from sandboa.core.causes import FINDINGS, Cause, DeathWindow, LossEvidence, Seen, rank_causes
from sandboa.core.causes.evidence import (
    Air,
    FaultThen,
    Happening,
    Heat,
    Neighbours,
    Parents,
    Sibling,
    Water,
)
from sandboa.core.causes.rank import REASONINGS
from sandboa.core.causes.rules import DEFAULT_RULES
from sandboa.core.causes.scores import DEFAULT_SCORES, SCORES
from sandboa.core.hatching import Fate
from sandboa.core.standing.signs import SIGNS, SignKind

_EGGS = 4_000
#: How far a sign holds at least, for its push to be told from rounding.
_HOLDS = 0.5


class Room:
    """Eggs with any evidence at all: what no sign misses."""

    def __init__(self, seed: int) -> None:
        self.random = random.Random(seed)
        self.pick = self.random.choice
        self.number = self.random.uniform

    def chance(self, share: float) -> bool:
        return self.random.random() < share

    def some(self, most: int) -> range:
        return range(self.random.randint(0, most))

    def window(self) -> DeathWindow:
        start = self.number(0.0, 1.0)
        return DeathWindow(start, min(start + self.number(0.02, 0.5), 1.1), "")

    def egg(self) -> LossEvidence:
        vessels = [Seen(s, 60 * s, SignKind.VESSELS, "none") for s in (0.2, 0.4)]
        looks = [
            Seen(share := self.number(0, 1), 60 * share, kind, value)
            for kind, value in self.random.sample(list(SIGNS), len(self.some(4)))
        ]
        return LossEvidence(
            1, self.pick(list(Fate)), self.window(), self.number(1, 60),
            slug_at_lay=self.chance(0.2), shells=(self.pick(list(Shell)),),
            seen=tuple(vessels if self.chance(0.1) else looks),
            disc_at_lay=self.pick([None, *Disc]), turned=self.chance(0.3),
            happened=tuple(self.happening() for _ in self.some(2)),
            own_dents_early=self.number(0, 1) if self.chance(0.4) else None,
            cut=(self.number(0.8, 1.0), self.chance(0.5)) if self.chance(0.4) else None,
            pipped=self.number(0.9, 1.05) if self.chance(0.3) else None,
            pip_to_end_hours=self.number(0, 90), pipped_early_days=self.number(-12, 12),
            opened=self.pick([None, True, False]),
            findings={
                kind: frozenset({self.pick(list(values))})
                for kind, values in FINDINGS.items() if self.chance(0.5)
            },
            siblings=tuple(self.sibling() for _ in self.some(6)),
            water=self.water() if self.chance(0.8) else None,
            heat=self.heat() if self.chance(0.8) else None,
            air=self.air() if self.chance(0.8) else None,
            pests_seen=self.pick([None, True, False]), parents=self.parents(),
            neighbours=self.neighbours(),
        )  # fmt: skip

    def happening(self) -> Happening:
        share = self.number(0, 1)
        return Happening(
            share, self.pick(["dropped", "rolled", "torn", "knocked", "lay in water"]), share - 0.05
        )

    def sibling(self) -> Sibling:
        died = self.window() if self.chance(0.6) else None
        marks = [self.chance(0.3) for _ in range(3)]
        return Sibling(self.pick([None, *Fate]), died, *marks)

    def water(self) -> Water:
        middle = self.number(0, 1)
        lowest = (max(middle - 0.1, 0.0), middle, min(middle + 0.1, 1.0))
        medium, lid = ["drips", "damp", "dry"], ["none", "edges", "half", "raining"]
        return Water(
            lowest if self.chance(0.8) else None, self.random.randint(0, 3),
            medium=tuple((self.number(0, 1), self.pick(medium)) for _ in self.some(2)),
            lid=tuple((self.number(0, 1), self.pick(lid)) for _ in self.some(4)),
            dented_early=((self.number(0, 1), 4, 6),) if self.chance(0.3) else (),
            plump_until=self.number(0, 1) if self.chance(0.5) else None,
            on_grid=self.chance(0.3),
            sealed=self.chance(0.3),
        )  # fmt: skip

    def heat(self) -> Heat:
        return Heat(
            self.number(0.5, 1), self.number(31, 37), self.number(18, 31),
            self.number(0, 40) if self.chance(0.5) else 0.0,
            self.number(0, 90) if self.chance(0.5) else 0.0,
            self.random.randint(0, 10), self.number(0, 4),
            tuple(
                FaultThen(
                    self.pick(["power cut", "fan", "stuck"]), start := self.number(0, 1),
                    start + 0.01, self.number(0, 8), self.number(1, 60),
                )
                for _ in self.some(2)
            ),
        )  # fmt: skip

    def air(self) -> Air:
        middle = self.number(0.1, 0.21)
        oxygen = (middle - 0.02, middle, middle + 0.02) if self.chance(0.8) else None
        return Air(oxygen, self.chance(0.5), self.number(0, 30))

    def parents(self) -> Parents:
        count = self.random.randint
        return Parents(
            dam_slugs=(count(0, 6), count(6, 12)), sire_slugs=(count(0, 6), count(6, 12)),
            dam_hatched=(count(0, 10), 10), first_clutch=self.pick([None, True, False]),
            dam_before_g=self.number(1_200, 2_000), can_double=self.pick([None, True, False]),
            double_share=self.number(0, 0.25), pair_lost_alike=(count(0, 3), 9),
            dam_ill=self.chance(0.2),
        )  # fmt: skip

    def neighbours(self) -> Neighbours:
        count = self.random.randint
        return Neighbours(
            (count(0, 4), 8), (count(0, 6), 6), (count(0, 11), 11), count(0, 2), count(0, 3),
            self.pick([None, 60.0, 400.0]), self.pick([None, 60.0, 400.0]),
        )  # fmt: skip


@cache
def examples() -> dict[str, LossEvidence]:
    """For each sign the egg in which it holds most."""
    room, best = Room(3), dict[str, tuple[float, LossEvidence]]()
    for _ in range(_EGGS):
        egg = room.egg()
        for cause, reasoning in REASONINGS.items():
            for sign in reasoning(egg, DEFAULT_RULES):
                name = f"loss.{cause}.{sign.key}"
                if name not in best or best[name][0] < sign.holds:
                    best[name] = (sign.holds, egg)
    return {name: egg for name, (holds, egg) in best.items() if holds >= _HOLDS}


def scores_of(egg: LossEvidence, scores: dict[str, float]) -> dict[Cause, float]:
    rules = replace(DEFAULT_RULES, scores=scores)
    return {ranked.cause: ranked.score for ranked in rank_causes(egg, rules)}


@pytest.mark.parametrize("name", SCORES)
def test_each_sign_moves_its_own_cause_the_right_way(name: str) -> None:
    sign, egg = SCORES[name], examples()[name]
    with_it = scores_of(egg, DEFAULT_SCORES)
    without = scores_of(egg, {**DEFAULT_SCORES, name: 0.0})
    moved = with_it[sign.cause] - without[sign.cause]
    # Half of a score is what a sign pushes at least that holds by more than half.
    assert math.copysign(1.0, moved) == math.copysign(1.0, sign.score)
    assert abs(moved) >= 0.25 * min(abs(sign.score), 1.0)
    others = {cause for cause in Cause if cause is not sign.cause}
    assert all(with_it[cause] == without[cause] for cause in others)
    shares = [
        next(
            r.share
            for r in rank_causes(egg, replace(DEFAULT_RULES, scores=scores))
            if r.cause is sign.cause
        )
        for scores in (DEFAULT_SCORES, {**DEFAULT_SCORES, name: 0.0})
    ]
    assert (shares[0] > shares[1]) == (sign.score > 0)


def test_no_cause_begins_above_not_knowing() -> None:
    nothing = LossEvidence(1, Fate.UNKNOWN, DeathWindow(0.0, 1.0, ""), 30.0)
    begun = scores_of(nothing, DEFAULT_SCORES)
    assert max(begun, key=lambda cause: begun[cause]) is Cause.UNKNOWN
    assert begun[Cause.POISONED_AIR] < begun[Cause.CORD] < begun[Cause.TOO_DRY] < 0
