"""Is the egg alive? An explained probability (rule C)."""

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from sandboa.core.candling import AGAIN_DAYS, Vessels
from sandboa.core.errors import NotPlausible
from sandboa.core.standing.rules import (
    DEFAULT_RULES,
    LATE_AFTER_HOURS,
    LATE_PER_HOURS,
    PRIOR_WORDS,
    Standing,
    StandingRules,
    prior_seen,
)
from sandboa.core.standing.signs import SIGNS, Sign, SignKind
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR


@dataclass(frozen=True, slots=True)
class Observation:
    """One sign seen at one egg: when (s), what, and the share developed then (0-2)."""

    at_s: float
    kind: SignKind
    value: str
    development: float


@dataclass(frozen=True, slots=True)
class Evidence:
    """A line of the list: what was seen, its push on the log-odds, and why it has none if so.

    `times` multiplies the weight (grades of dents, days of lateness); `key`
    names the number in the settings it rests on.
    """

    key: str
    words: str
    weight: float
    times: float
    push: float
    at_s: float | None
    void: str = ""


@dataclass(frozen=True, slots=True)
class EggStanding:
    """`alive` is the chance 0-1; `prior` and the pushes of `evidence` sum to its `log_odds`."""

    standing: Standing
    alive: float
    log_odds: float
    prior: Evidence
    evidence: tuple[Evidence, ...]


@dataclass(frozen=True, slots=True)
class Situation:
    """What an egg is judged in.

    Attributes
    ----------
    laid_s, now_s: s.
    excess: grades its dents are ahead of its stage, 0 when the whole box is
        early: then the box is to blame and no egg (rule B).
    first_pip_s: first pip among its siblings, None before; this egg is closed.
    """

    laid_s: float
    now_s: float
    excess: int = 0
    first_pip_s: float | None = None


def judge_standing(
    observations: Iterable[Observation],
    situation: Situation,
    rules: StandingRules = DEFAULT_RULES,
) -> EggStanding:
    """Log-odds = prior + sum of evidence, the latest of each kind counting (rule C).

    `observations` in any order; what lies after `now_s` is ignored. Looks with
    the torch before day 5 are the lay look and set the prior; from then on
    vessels are evidence. Of two of one kind at one moment the worse counts.
    The order in which things were entered plays no part.

    Raises NotPlausible for a sign that is not in the table.
    """
    seen = [o for o in observations if o.at_s <= situation.now_s]
    lay_look_until_s = situation.laid_s + AGAIN_DAYS[0] * SECONDS_PER_DAY
    prior = _prior(seen, lay_look_until_s, rules)
    evidence = [
        _weighed(observation, situation, rules)
        for observation in _latest_of_each_kind(seen, lay_look_until_s, rules)
    ]
    evidence += _from_the_box(situation, rules)
    evidence.sort(key=lambda e: (e.push, e.key))
    log_odds = prior.push + math.fsum(e.push for e in evidence)
    alive = 1.0 / (1.0 + math.exp(-log_odds))
    return EggStanding(rules.standing(alive), alive, log_odds, prior, tuple(evidence))


def _prior(seen: list[Observation], until_s: float, rules: StandingRules) -> Evidence:
    looks = [o for o in seen if o.kind is SignKind.VESSELS and o.at_s < until_s]
    sure = [o for o in looks if o.value != Vessels.UNSURE]
    last = max(sure, key=lambda o: _order(o, rules), default=None)
    if last is None and looks:
        last = max(looks, key=lambda o: o.at_s)
    key = prior_seen(Vessels(last.value) if last else None)
    log_odds = rules.prior(key)
    return Evidence(
        f"prior.{key}", PRIOR_WORDS[key], log_odds, 1.0, log_odds, last.at_s if last else None
    )


def _latest_of_each_kind(
    seen: list[Observation], lay_look_until_s: float, rules: StandingRules
) -> Iterator[Observation]:
    latest: dict[SignKind, Observation] = {}
    for observation in seen:
        if observation.kind is SignKind.VESSELS and (
            observation.value == Vessels.UNSURE
            or (observation.at_s < lay_look_until_s and observation.value != Vessels.BROKEN)
        ):
            continue
        held = latest.get(observation.kind)
        if held is None or _later(observation, held, rules):
            latest[observation.kind] = observation
    yield from latest.values()


def _later(one: Observation, other: Observation, rules: StandingRules) -> bool:
    return _order(one, rules) > _order(other, rules)


def _order(seen: Observation, rules: StandingRules) -> tuple[float, float, str, float]:
    """By time; at one moment the worse comes later, and what is left is told apart by itself."""
    return seen.at_s, -_weight(seen, rules), seen.value, seen.development


def _weight(observation: Observation, rules: StandingRules) -> float:
    return rules.weight(_sign_of(observation))


def _sign_of(observation: Observation) -> Sign:
    sign = SIGNS.get((observation.kind, observation.value))
    if sign is None:
        raise NotPlausible("value", f'"{observation.value[:40]}" is no sign of {observation.kind}')
    return sign


def _weighed(observation: Observation, situation: Situation, rules: StandingRules) -> Evidence:
    sign = _sign_of(observation)
    void = _void(sign, observation, situation)
    weight = rules.weight(sign)
    push = 0.0 if void else weight * rules.dependence
    return Evidence(sign.key, sign.words, weight, 1.0, push, observation.at_s, void)


def _void(sign: Sign, observation: Observation, situation: Situation) -> str:
    """Why the sign says nothing here; empty when it does."""
    day = (observation.at_s - situation.laid_s) / SECONDS_PER_DAY
    if day < sign.from_day:
        return f"seen before day {sign.from_day:.0f}: too early to count"
    if observation.development < sign.from_share:
        return f"counts only from {sign.from_share:.0%} developed on".replace("%", " %")
    if observation.development >= sign.until_share:
        return f"counts only before {sign.until_share:.0%} developed".replace("%", " %")
    age_days = (situation.now_s - observation.at_s) / SECONDS_PER_DAY
    if sign.void_days is not None and age_days > sign.void_days:
        return f"more than {sign.void_days:.0f} days ago"
    return ""


def _from_the_box(situation: Situation, rules: StandingRules) -> Iterator[Evidence]:
    """Evidence that follows from the egg among its siblings."""
    if situation.excess > 0:
        yield _counted(SIGNS[SignKind.DENTS, "excess"], float(situation.excess), rules)
    if situation.first_pip_s is not None:
        hours = (situation.now_s - situation.first_pip_s) / SECONDS_PER_HOUR
        if hours > LATE_AFTER_HOURS:
            times = (hours - LATE_AFTER_HOURS) / LATE_PER_HOURS
            yield _counted(SIGNS[SignKind.SIBLINGS, "late"], times, rules)


def _counted(sign: Sign, times: float, rules: StandingRules) -> Evidence:
    weight = rules.weight(sign)
    return Evidence(sign.key, sign.words, weight, times, weight * times * rules.dependence, None)
