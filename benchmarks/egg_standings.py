"""Standings of eggs held to account: simulated eggs, and keepers who look well, rarely or badly."""

from collections.abc import Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field, replace

import numpy as np

from benchmarks.report import met
from sandboa.core.dimples import (
    DimpleJudgement,
    EggTurgor,
    Grading,
    Scope,
    excess_grade,
    judge_box,
    rose_fast,
)
from sandboa.core.rounds.due import WATCH_EVERY_DAYS
from sandboa.core.standing import (
    SIGNS,
    EggStanding,
    Observation,
    SignKind,
    Situation,
    Standing,
    asks_for_torch,
    judge_standing,
    what_settles,
)
from sandboa.core.standing.learning import ClosedEgg, learn_standing
from sandboa.core.standing.rules import DEFAULT_RULES, StandingRules
from sandboa.devices.simulation.fates import EggFate, Glance, egg_fate, glance

_DAY_S = 86_400.0
_TERM_DAYS = 60.0
#: Clutches of each keeper, and closed ones that taught beforehand.
CLUTCHES = 500
TAUGHT = 40
#: Seeds from here on were never looked at before the rules were done.
FIRST_SEED = 710_000
#: Days before collapse at which an egg that dies is to be on watch (product requirement).
_AHEAD_DAYS = 4.0
#: Day on which a clutch is over and what has not pipped is looked at once more.
_OPENED_DAY = 65
#: Shares developed at which chances are scored, from mid-term on.
_SCORED = (0.5, 0.65, 0.8, 0.92)
_FEWEST_IN_BIN = 50
_RELIABLE_WITHIN = 0.08
_BETTER_BY = 0.20
_MOST_WRONG = 0.02


@dataclass(frozen=True)
class Keeper:
    """How somebody looks: on which days, when with the torch, what is missed (share of bad signs),
    and what is seen where there is nothing (share of looks)."""

    name: str
    days: tuple[int, ...]
    torch: tuple[int, ...]
    misses: float = 0.0
    invents: float = 0.0
    #: Whether the list of what is due is followed: looked again, and the torch where it asks.
    follows: bool = True


KEEPERS = (
    Keeper("as the list asks", (0, 6, 10, *range(17, 60, 7)), (0, 31, 52)),
    Keeper("rarely", (0, 20, 40, 54), (0,), follows=False),
    Keeper("late", (32, 39, 46, 53, 57), (39,)),
    Keeper("carelessly", (0, 6, 10, *range(17, 60, 7)), (0, 31), misses=0.4, invents=0.03),
)


@dataclass(frozen=True)
class Scored:
    """One egg at one share developed: what was told, and what came."""

    share: float
    alive: float
    will_hatch: float
    lives: bool
    hatches: bool


@dataclass
class _Egg:
    fate: EggFate
    seen: list[Observation] = field(default_factory=list)
    grades: list[Grading] = field(default_factory=list)
    watch_share: float | None = None
    failing: bool = False
    candle_from_s: float = np.inf
    #: Share developed at the look that found it collapsed.
    found: float | None = None
    #: Whether it was looked at after it died, and four days and more before it collapsed.
    looked_at_in_time: bool = False


@dataclass(frozen=True)
class Lived:
    """One egg of a clutch that is over; `warned_days` before it collapsed, where it did, and
    whether anybody `looked_in_time` for that. `closed` is what it can teach."""

    scored: tuple[Scored, ...]
    hatches: bool
    ever_failing: bool
    warned_days: float | None
    looked_in_time: bool
    closed: ClosedEgg


def report(
    clutches: int = CLUTCHES, first_seed: int = FIRST_SEED, taught: int = TAUGHT
) -> list[str]:
    """The report, line by line, keeper by keeper: by the table, and by what the keeper's own
    `taught` closed clutches of other seeds made of it."""
    lines = [f"Standing of eggs, {clutches} simulated clutches, each egg once a share"]
    seeds = range(first_seed, first_seed + clutches)
    before = range(first_seed + 50_000, first_seed + 50_000 + taught)
    with ProcessPoolExecutor() as workers:
        for keeper in KEEPERS:
            closed = [e.closed for e in _all(workers, keeper, before, DEFAULT_RULES)]
            learned = learn_standing(closed)
            lines.append(f"  a keeper who looks {keeper.name}")
            lines += _told(_all(workers, keeper, seeds, DEFAULT_RULES))
            lines.append(f"    after {taught} closed clutches of {learned.eggs} eggs")
            lines += _told(_all(workers, keeper, seeds, learned.rules))
    return lines


def _all(
    workers: ProcessPoolExecutor, keeper: Keeper, seeds: range, rules: StandingRules
) -> list[Lived]:
    jobs = [(keeper, seed, rules) for seed in seeds]
    return [egg for clutch in workers.map(_clutch, jobs, chunksize=20) for egg in clutch]


def _told(eggs: Sequence[Lived]) -> list[str]:
    died = [e.warned_days for e in eggs if e.warned_days is not None]
    warned = float(np.mean([days >= _AHEAD_DAYS for days in died]))
    in_time = [e.warned_days for e in eggs if e.warned_days is not None and e.looked_in_time]
    seen = sum(days >= _AHEAD_DAYS for days in in_time) / max(len(in_time), 1)
    lived = [e.ever_failing for e in eggs if e.hatches]
    wrong = float(np.mean(lived))
    lines = [
        f"    {len(died)} died and collapsed: warned {_AHEAD_DAYS:.0f} days ahead {warned:.0%} "
        f"(aim 80 %)  {met(warned >= 0.8)}; {len(lived)} hatched: ever failing {wrong:.1%} "
        f"(aim 2 %)  {met(wrong <= _MOST_WRONG)}",
        f"    {len(in_time)} of them were looked at after they died and {_AHEAD_DAYS:.0f} days "
        f"before they collapsed: warned {seen:.0%}",
    ]
    for share in _SCORED:
        at = [s for e in eggs for s in e.scored if s.share == share]
        came = np.array([s.hatches for s in at], dtype=float)
        brier = float(np.mean((np.array([s.will_hatch for s in at]) - came) ** 2))
        base = float(came.mean() * (1 - came.mean()))
        gain = 1.0 - brier / base
        lines.append(
            f"    at {share:.0%}: Brier of will hatch {brier:.4f} against {base:.4f} for saying "
            f"{came.mean():.0%}, {gain:.0%} smaller (aim 20 %)  {met(gain >= _BETTER_BY)}"
        )
    every = [s for e in eggs for s in e.scored]
    for what, said, was in (
        ("alive", [s.alive for s in every], [s.lives for s in every]),
        ("will hatch", [s.will_hatch for s in every], [s.hatches for s in every]),
    ):
        lines.append(f"    {what}, said and came: {_reliability(said, was)}")
    return lines


def _reliability(said: list[float], was: list[bool]) -> str:
    told, came = np.array(said), np.array(was, dtype=float)
    parts, good = [], True
    for low in np.arange(0.0, 1.0, 0.1):
        inside = (told >= low) & (told < low + 0.1 + 1e-12 * (low > 0.85))
        if inside.sum() < 1:
            continue
        mean, share = float(told[inside].mean()), float(came[inside].mean())
        if inside.sum() >= _FEWEST_IN_BIN:
            good &= abs(mean - share) <= _RELIABLE_WITHIN
        parts.append(f"{mean:.0%} {share:.0%} of {inside.sum()}")
    return f"{'; '.join(parts)}  (aim within 8 points where 50 were)  {met(good)}"


def _clutch(job: tuple[Keeper, int, StandingRules]) -> list[Lived]:
    keeper, seed, rules = job
    random = np.random.default_rng(seed)
    eggs = [_Egg(egg_fate(random)) for _ in range(int(random.integers(4, 9)))]
    dry = random.uniform(0.2, 0.6) if random.random() < 0.2 else None
    days = set(keeper.days)
    scored: list[list[Scored]] = [[] for _ in eggs]
    for day in range(60):
        share = day / _TERM_DAYS
        if day in days:
            is_dry = dry is not None and dry <= share <= dry + 0.17
            for egg in eggs:
                _look(keeper, egg, day, is_dry, random)
            _watch(eggs, day, share, rules)
            if keeper.follows and any(egg.candle_from_s < np.inf for egg in eggs):
                days.add(day + round(WATCH_EVERY_DAYS))
        for at in _SCORED:
            if share <= at < share + 1.0 / _TERM_DAYS:
                for told, egg, judged in zip(
                    scored, eggs, _judged(eggs, day, share, rules), strict=True
                ):
                    # Once it was found collapsed there is nothing left to judge.
                    if egg.found is None:
                        told.append(_score(egg, judged, at))
    for egg in eggs:
        if egg.fate.died is not None and egg.found is None:
            # Nobody saw it collapse: it is looked at when the clutch is over.
            _look(keeper, egg, _OPENED_DAY, False, random)
            egg.found = _OPENED_DAY / _TERM_DAYS
    return [_lived(egg, told) for egg, told in zip(eggs, scored, strict=True)]


def _score(egg: _Egg, judged: EggStanding, share: float) -> Scored:
    hatches = egg.fate.died is None
    return Scored(share, judged.alive, judged.will_hatch, egg.fate.alive(share), hatches)


def _lived(egg: _Egg, scored: list[Scored]) -> Lived:
    warned = None
    if egg.fate.died is not None and egg.fate.collapses <= 1.0:
        first = egg.fate.collapses if egg.watch_share is None else egg.watch_share
        warned = (egg.fate.collapses - first) * _TERM_DAYS
    return Lived(
        tuple(scored),
        egg.fate.died is None,
        egg.failing,
        warned,
        egg.looked_at_in_time,
        _closed(egg),
    )


def _closed(egg: _Egg) -> ClosedEgg:
    """As it was seen until it pipped, or until it was found collapsed and given up."""
    lived = egg.fate.died is None
    share = 1.0 if egg.found is None else egg.found
    end = Situation(0.0, share * _TERM_DAYS * _DAY_S, share)
    return ClosedEgg(tuple(o for o in egg.seen if o.at_s <= end.now_s), end, lived)


def _look(keeper: Keeper, egg: _Egg, day: int, is_dry: bool, random: np.random.Generator) -> None:
    """The keeper looks; with the torch when it is the day for it, or the list asks."""
    at_s, share = day * _DAY_S, day / _TERM_DAYS
    asked = day in keeper.torch or (keeper.follows and at_s >= egg.candle_from_s)
    seen = _noticed(
        keeper, glance(egg.fate, share, candled=asked, dry_box=is_dry, random=random), random
    )
    if keeper.follows and not asked and _asks(seen, share):
        torch = glance(egg.fate, share, candled=True, dry_box=is_dry, random=random)
        seen = replace(seen, vessels=torch.vessels, movement=torch.movement)
    egg.grades.append(Grading(at_s, seen.grade, share))
    died, collapses = egg.fate.died, egg.fate.collapses
    if died is not None:
        if egg.found is None and share >= collapses:
            egg.found = share
        egg.looked_at_in_time |= died < share <= collapses - _AHEAD_DAYS / _TERM_DAYS
    signs = [*_signs(seen), ("vessels", seen.vessels), ("movement", "seen" * seen.movement)]
    if not any(SIGNS[SignKind(k), v].weight < 0 for k, v in _signs(seen)):
        signs.append(("shell", "clean"))
    egg.seen += [Observation(at_s, SignKind(k), v, share) for k, v in signs if v]


def _noticed(keeper: Keeper, seen: Glance, random: np.random.Generator) -> Glance:
    """What a keeper makes of it: overlooks what is there, sees what is not."""
    if random.random() < keeper.misses:
        seen = replace(seen, mould="none", smell="none", wet="dry", colour="white", feel="firm")
    if random.random() < keeper.misses / 2.0:
        seen = replace(seen, grade=max(seen.grade - 1, 0))
    if random.random() < keeper.invents:
        seen = replace(seen, smell="off")
    return seen


def _signs(seen: Glance) -> list[tuple[str, str]]:
    return [
        ("mould", seen.mould),
        ("smell", seen.smell),
        ("wet", seen.wet),
        ("colour", seen.colour),
        ("feel", seen.feel),
    ]


def _asks(seen: Glance, share: float) -> bool:
    """Whether the app asks for the torch at this visit, by what was just tapped."""
    early = excess_grade(share, seen.grade) >= 1
    return early or any(asks_for_torch(SignKind(k), v) for k, v in _signs(seen))


def _situations(eggs: list[_Egg], day: int, share: float) -> list[tuple[Situation, bool]]:
    now_s = day * _DAY_S
    box = judge_box(
        share,
        [
            EggTurgor(
                n, egg.grades[-1].grade if egg.grades else 0, rose_fast=rose_fast(egg.grades, now_s)
            )
            for n, egg in enumerate(eggs, start=1)
        ],
    )
    then = judge_box(share, [_turgor(n, egg, now_s) for n, egg in enumerate(eggs, start=1)])
    return [
        (_situation(egg, (day, share), box.by_egg[n], then.by_egg[n]), box.by_egg[n].rose_fast)
        for n, egg in enumerate(eggs, start=1)
    ]


def _turgor(number: int, egg: _Egg, now_s: float) -> EggTurgor:
    """As it was last looked at."""
    if not egg.grades:
        return EggTurgor(number, 0)
    last = egg.grades[-1]
    return EggTurgor(number, last.grade, False, rose_fast(egg.grades, now_s), last.development)


def _situation(
    egg: _Egg, now: tuple[int, float], judged: DimpleJudgement, then: DimpleJudgement
) -> Situation:
    """The dents it had when it was looked at are its own where no box is to blame, then or now."""
    day, share = now
    own = then.excess if Scope.BOX not in (then.scope, judged.scope) else 0
    seen = egg.grades[-1] if egg.grades else None
    return Situation(
        0.0,
        day * _DAY_S,
        share,
        own,
        None,
        seen.at_s if seen else None,
        seen.development if seen else None,
    )


def _judged(eggs: list[_Egg], day: int, share: float, rules: StandingRules) -> list[EggStanding]:
    told = _situations(eggs, day, share)
    return [judge_standing(e.seen, s, rules) for e, (s, _) in zip(eggs, told, strict=True)]


def _watch(eggs: list[_Egg], day: int, share: float, rules: StandingRules) -> None:
    for egg, (situation, sinking) in zip(eggs, _situations(eggs, day, share), strict=True):
        judged = judge_standing(egg.seen, situation, rules)
        settles = what_settles(judged, egg.seen, situation, share, sinking=sinking)
        egg.candle_from_s = settles.from_s if settles else np.inf
        if judged.standing is not Standing.SOUND and egg.watch_share is None:
            egg.watch_share = share
        egg.failing |= judged.standing.rank >= Standing.FAILING.rank


if __name__ == "__main__":
    print("\n".join(report()))
