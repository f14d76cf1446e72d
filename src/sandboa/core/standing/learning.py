"""What the house's own closed eggs teach of signs and losses (rule C).

Weights start from the table and are drawn towards it as by a ridge; the labels
are those a keeper really has: it pipped, or it was found dead.
"""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Final

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.standing.death_time import dead_at_each_time
from sandboa.core.standing.judgement import Observation, Situation, looks_of
from sandboa.core.standing.rules import DEFAULT_RULES, STAGE_KEY, StandingRules
from sandboa.core.standing.signs import SIGNS

#: Sd of a weight around the table's (assumption: a house differs from keeper practice by less
#: than most weights are).
WEIGHT_SD: Final = 0.6
#: Living eggs that the assumed share of losses is worth (assumption).
DIES_WORTH_EGGS: Final = 60.0
#: The latest closed eggs that teach: more change nothing and cost time (assumption).
MOST_EGGS: Final = 600
_ROUNDS: Final = 5


@dataclass(frozen=True)
class ClosedEgg:
    """An egg whose end is known, as it was seen until then.

    `situation` is that of its end: its pip, or when it was given up; `lived` whether it had lived
    until then.
    """

    observations: tuple[Observation, ...]
    situation: Situation
    lived: bool


@dataclass(frozen=True)
class LearnedStanding:
    """The `rules` with what was learned in them; `eggs` taught it, and `by_sign` how many of them
    showed each sign (by its setting). Nothing is changed of what the keeper set."""

    rules: StandingRules = DEFAULT_RULES
    eggs: int = 0
    by_sign: Mapping[str, int] = field(default_factory=dict)


def learn_standing(
    closed: Sequence[ClosedEgg],
    rules: StandingRules = DEFAULT_RULES,
    own: frozenset[str] = frozenset(),
) -> LearnedStanding:
    """Weights of signs and the share of eggs that die, from closed eggs in order of their end.

    `own` are settings the keeper set: they stay. Without any egg the rules
    stay as they are. The weights are the likeliest ones (Newton's method on the
    chance of each egg's label, as `judge_standing` tells it, with a normal
    prior around the table's).
    """
    if not closed:
        return LearnedStanding(rules)
    told = replace(rules, dies=rules.dies if STAGE_KEY in own else _dies(closed, rules.dies))
    taught = closed[-MOST_EGGS:]
    showed = Counter(key for egg in taught for key in _keys(egg, told))
    keys = sorted(showed.keys() - own)
    place = {key: n for n, key in enumerate(keys)}
    start = np.array([_in_force(rules, key) for key in keys])
    weights = start.copy()
    for _ in range(_ROUNDS if keys else 0):
        slope = (start - weights) / WEIGHT_SD**2
        bend = np.eye(len(keys)) / WEIGHT_SD**2
        current = _with(told, keys, weights)
        for egg in taught:
            alive, by_weight = _chance(egg, current, place)
            slope += (egg.lived - alive) * by_weight
            bend += alive * (1.0 - alive) * np.outer(by_weight, by_weight)
        weights = weights + np.linalg.solve(bend, slope)
    return LearnedStanding(
        _with(told, keys, weights), len(closed), {key: showed[key] for key in keys}
    )


def _keys(egg: ClosedEgg, rules: StandingRules) -> set[str]:
    _, looks = looks_of(egg.observations, egg.situation, rules)
    return {key for key, _ in looks}


def _with(rules: StandingRules, keys: Sequence[str], weights: FloatArray) -> StandingRules:
    return replace(
        rules, weights={**rules.weights, **dict(zip(keys, weights.tolist(), strict=True))}
    )


def _in_force(rules: StandingRules, key: str) -> float:
    sign = next(sign for sign in SIGNS.values() if sign.key == key)
    return rules.weight(sign)


def _chance(
    egg: ClosedEgg, rules: StandingRules, place: Mapping[str, int]
) -> tuple[float, FloatArray]:
    """Chance that it lives at its end, and by how much each weight moves its log-odds."""
    start, signs = looks_of(egg.observations, egg.situation, rules)
    log_odds, dead, shown = dead_at_each_time(
        start, [look for _, look in signs], egg.situation.share, rules.dies
    )
    by_weight = np.zeros(len(place))
    for (key, _), seen in zip(signs, shown, strict=True):
        if key in place:
            by_weight[place[key]] += rules.dependence * float(dead @ seen)
    return 1.0 / (1.0 + float(np.exp(-log_odds))), by_weight


def _dies(closed: Sequence[ClosedEgg], assumed: float) -> float:
    """The share of living eggs that die before they pip: what was assumed and what was seen."""
    died = sum(not egg.lived for egg in closed)
    return (DIES_WORTH_EGGS * assumed + died) / (DIES_WORTH_EGGS + len(closed))
