"""Is the egg alive? An explained probability (rule C)."""

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from itertools import pairwise

from sandboa.core.candling import AGAIN_DAYS, Vessels
from sandboa.core.errors import NotPlausible
from sandboa.core.standing.death_time import Look, ahead, alive_log_odds
from sandboa.core.standing.rules import (
    DEFAULT_RULES,
    PRIOR_WORDS,
    STAGE_KEY,
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
    """`alive`, `will_pip` and `will_hatch` are chances 0-1; `prior` and the pushes of `evidence`
    sum to the `log_odds` of the first."""

    standing: Standing
    alive: float
    will_pip: float
    will_hatch: float
    log_odds: float
    prior: Evidence
    evidence: tuple[Evidence, ...]


@dataclass(frozen=True, slots=True)
class Situation:
    """What an egg is judged in.

    Attributes
    ----------
    laid_s, now_s: s.
    share: share developed now.
    excess: grades its dents were ahead of its stage when they were seen, 0 when the
        whole box was early: then the box is to blame and no egg (rule B).
    dented_s, dented_share: when that was seen (s), and the share developed then;
        None for now.
    first_pip_s: first pip among its siblings, None before; this egg is closed.
    """

    laid_s: float
    now_s: float
    share: float
    excess: int = 0
    first_pip_s: float | None = None
    dented_s: float | None = None
    dented_share: float | None = None


def judge_standing(
    observations: Iterable[Observation],
    situation: Situation,
    rules: StandingRules = DEFAULT_RULES,
) -> EggStanding:
    """Chances of an egg by when it may have died: eggs are lost along their development, and each
    look says how it was when it was looked at (rule C).

    `observations` in any order; what lies after `now_s` is ignored. Looks with
    the torch before day 5 are the lay look and set the prior; from then on
    vessels are evidence. Signs of one kind that are alike lean on one another: the latest of them
    counts. Of two of one kind at one moment the worse counts. The order in which things were
    entered plays no part. The push of a sign is what it adds to those seen before it.

    Raises NotPlausible for a sign that is not in the table.
    """
    prior, signs = _read(observations, situation, rules)
    counted = [s for s in signs if s.counts]
    log_odds = alive_log_odds(
        prior.push, [s.look for s in counted], situation.share, rules.dies
    ).tolist()
    stage = Evidence(
        STAGE_KEY, "eggs lost by this stage, seen or not", rules.dies, 1.0,
        log_odds[0] - prior.push, None,
    )  # fmt: skip
    pushes = iter(after - before for before, after in pairwise(log_odds))
    evidence = [stage, *(s.told(next(pushes) if s.counts else 0.0) for s in signs)]
    evidence.sort(key=lambda e: (e.push, e.key))
    alive = 1.0 / (1.0 + math.exp(-log_odds[-1]))
    chances = ahead(alive, situation.share, _risk(signs, situation, rules), rules.dies)
    return EggStanding(
        rules.standing(alive, chances.will_pip),
        chances.alive,
        chances.will_pip,
        chances.will_hatch,
        log_odds[-1],
        prior,
        tuple(evidence),
    )


def looks_of(
    observations: Iterable[Observation],
    situation: Situation,
    rules: StandingRules = DEFAULT_RULES,
) -> tuple[float, list[tuple[str, Look]]]:
    """What `judge_standing` rests on: the log-odds on lay day, and the looks that count, each with
    the key of its sign, in order of development. Raises NotPlausible as it does."""
    prior, signs = _read(observations, situation, rules)
    return prior.push, [(s.sign.key, s.look) for s in signs if s.counts]


def _read(
    observations: Iterable[Observation], situation: Situation, rules: StandingRules
) -> tuple[Evidence, list["_Signed"]]:
    """The prior of lay day, and every sign in order of development."""
    seen = [o for o in observations if o.at_s <= situation.now_s]
    lay_look_until_s = situation.laid_s + AGAIN_DAYS[0] * SECONDS_PER_DAY
    signs = [
        *(_signed(o, situation, rules) for o in _latest_alike(seen, lay_look_until_s, rules)),
        *_from_the_box(situation, rules),
    ]
    signs.sort(key=lambda s: (s.look.share, s.sign.key))
    return _prior(seen, lay_look_until_s, rules), signs


@dataclass(frozen=True, slots=True)
class _Signed:
    """A sign that was seen, as a look at the egg, and how it is told."""

    sign: Sign
    look: Look
    weight: float
    times: float
    at_s: float | None
    void: str = ""

    @property
    def counts(self) -> bool:
        return not self.void and self.look.push != 0.0

    def told(self, push: float) -> Evidence:
        return Evidence(
            self.sign.key, self.sign.words, self.weight, self.times, push, self.at_s, self.void
        )


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


def _latest_alike(
    seen: list[Observation], lay_look_until_s: float, rules: StandingRules
) -> Iterator[Observation]:
    """Of each kind and value the latest; of one kind at one moment the worse alone."""
    at_once: dict[tuple[SignKind, float], Observation] = {}
    for observation in seen:
        if observation.kind is SignKind.VESSELS and (
            observation.value == Vessels.UNSURE
            or (observation.at_s < lay_look_until_s and observation.value != Vessels.BROKEN)
        ):
            continue
        key = (observation.kind, observation.at_s)
        held = at_once.get(key)
        if held is None or _later(observation, held, rules):
            at_once[key] = observation
    alike: dict[tuple[SignKind, str], Observation] = {}
    for observation in sorted(at_once.values(), key=lambda o: _order(o, rules)):
        alike[observation.kind, observation.value] = observation
    yield from alike.values()


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


def _signed(observation: Observation, situation: Situation, rules: StandingRules) -> _Signed:
    sign = rules.at_stage(_sign_of(observation))
    weight = rules.weight(sign)
    look = Look(sign.kind, observation.development, weight * rules.dependence)
    void = _void(sign, observation, situation)
    return _Signed(sign, look, weight, 1.0, observation.at_s, void)


def _void(sign: Sign, observation: Observation, situation: Situation) -> str:
    """Why the sign says nothing here; empty when it does."""
    day = (observation.at_s - situation.laid_s) / SECONDS_PER_DAY
    if day < sign.from_day:
        return f"seen before day {sign.from_day:.0f}: too early to count"
    if observation.development < sign.from_share:
        return f"counts only from {sign.from_share:.0%} developed on".replace("%", " %")
    if observation.development >= sign.until_share:
        return f"counts only before {sign.until_share:.0%} developed".replace("%", " %")
    return ""


def _from_the_box(situation: Situation, rules: StandingRules) -> Iterator[_Signed]:
    """What follows from the egg among its siblings."""
    if situation.excess > 0:
        share = situation.share if situation.dented_share is None else situation.dented_share
        dents = _counted(SIGNS[SignKind.DENTS, "excess"], float(situation.excess), share, rules)
        yield replace(dents, at_s=situation.dented_s)
    if situation.first_pip_s is not None:
        hours = (situation.now_s - situation.first_pip_s) / SECONDS_PER_HOUR
        if hours > rules.late_after_hours:
            times = (hours - rules.late_after_hours) / rules.late_per_hours
            yield _counted(SIGNS[SignKind.SIBLINGS, "late"], times, situation.share, rules)


def _counted(sign: Sign, times: float, share: float, rules: StandingRules) -> _Signed:
    weight = rules.weight(sign)
    look = Look(sign.kind, share, weight * times * rules.dependence)
    return _Signed(sign, look, weight, times, None)


def _risk(signs: list[_Signed], situation: Situation, rules: StandingRules) -> float:
    """By how much more than others it may be lost from now on: what was seen of it lately and
    harms eggs, the worst of each kind."""
    worst: dict[SignKind, float] = {}
    for signed in signs:
        lately = signed.at_s is None or (
            situation.now_s - signed.at_s <= rules.risk_days * SECONDS_PER_DAY
        )
        if lately:
            risk = rules.risks.get((signed.sign.kind, signed.sign.value), 1.0)
            worst[signed.sign.kind] = max(worst.get(signed.sign.kind, 1.0), risk)
    return math.prod(worst.values())
