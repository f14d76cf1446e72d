"""Rounds held to account: simulated boxes that dry out, simulated eggs that live or die."""

from dataclasses import dataclass, field, replace

import numpy as np

from sandboa.core.box import Closing
from sandboa.core.dimples import EggTurgor, Grading, Scope, excess_grade, judge_box, rose_fast
from sandboa.core.rounds.due import WATCH_EVERY_DAYS
from sandboa.core.standing import (
    EggStanding,
    Observation,
    SignKind,
    Situation,
    Standing,
    asks_for_torch,
    judge_standing,
    what_settles,
)
from sandboa.core.water.estimate import DRY_SHARE, WaterLeft, water_left
from sandboa.core.water.ledger import MassLedger, Weighing
from sandboa.core.water.loss_curve import AirOfDay, loss_curve
from sandboa.devices.simulation.boxes import BoxMade, BoxTruth, dry_out
from sandboa.devices.simulation.fates import EggFate, Glance, egg_fate, glance

DAY_S = 86_400.0
_BOXES = 600
_CLUTCHES = 400
#: Seeds from here on were never looked at before the rules were done.
_SCORED = 510_000
_CLOSINGS = {
    "sealed film": Closing.SEALED_FILM,
    "pin holes": Closing.PIN_HOLES,
    "small holes": Closing.SMALL_HOLES,
    "cracked corner": Closing.CRACKED_CORNER,
    "loose lid": Closing.LOOSE_LID,
}
_SCALE_SD_G = 2.0
_TERM_DAYS = 60.0
_SET_UP_G = 1_200.0
#: Days before collapse at which an egg that dies is to be on watch (product requirement).
_AHEAD_DAYS = 4.0


def report(boxes: int = _BOXES, clutches: int = _CLUTCHES) -> str:
    """The report as text."""
    return "\n".join([*_drying(boxes), "", *_eggs(clutches)])


def _drying(boxes: int) -> list[str]:
    """How near the predicted day of drying comes, by how often the box was weighed."""
    errors: dict[int, list[float]] = {0: [], 1: [], 2: [], 3: []}
    held = dict.fromkeys(errors, 0)
    for seed in range(_SCORED, _SCORED + boxes):
        for weighings, (error, inside) in _one_box(seed).items():
            errors[weighings].append(error)
            held[weighings] += inside
    lines = [f"Day of drying (25 %), {len(errors[0])} of {boxes} simulated boxes that dry in term"]
    for weighings, found in errors.items():
        off = np.abs(found)
        near = float(np.mean(off <= 0.2))
        aim = ""
        if weighings == 2:
            aim = f"  (aim: within 20 %)  {_met(float(np.median(off)) <= 0.2)} by the median box"
        lines.append(
            f"  set-up mass and {weighings} weighings: median error {np.median(off):.0%} of the "
            f"true remaining time, within 20 % in {near:.0%}, "
            f"80 % band held {held[weighings] / len(found):.0%}{aim}"
        )
    return lines


def _one_box(seed: int) -> dict[int, tuple[float, bool]]:
    """Relative error of the remaining time, and whether the band held it, by weighings."""
    random = np.random.default_rng(seed)
    name = str(random.choice(list(_CLOSINGS)))
    medium = str(random.choice(["vermiculite", "perlite", "half and half"]))
    full_g = float(random.choice([100.0, 150.0, 200.0, 250.0]))
    humidity = float(random.uniform(0.35, 0.75))
    temperature = float(random.uniform(30.0, 32.0))
    made = BoxMade(name, medium, full_g, 6)
    truth = dry_out(made, 120, temperature, humidity, random)
    dry_day = truth.day_at(DRY_SHARE, full_g)
    if dry_day is None or not 16.0 <= dry_day <= 70.0:
        return {}
    # Weighed at the rounds of every fortnight or so; the last at half of its time.
    now = int(np.floor(dry_day / 2))
    every = max(now // 3, 1)
    days = [now - 2 * every, now - every, now]
    told = {}
    for weighings in range(4):
        left = _estimate(truth, made, days[3 - weighings :], now, random)
        middle = left.dry.middle_s
        remaining = dry_day - now
        predicted = 999.0 if middle is None else middle / DAY_S - now
        early = (left.dry.early_s or np.inf) / DAY_S
        late = (left.dry.late_s or np.inf) / DAY_S
        told[weighings] = (predicted / remaining - 1.0, bool(early <= dry_day <= late))
    return told


def _estimate(
    truth: BoxTruth,
    made: BoxMade,
    weighed_days: list[int],
    now: int,
    random: np.random.Generator,
) -> WaterLeft:
    air = [
        AirOfDay(
            d * DAY_S, (d + 1) * DAY_S, float(truth.temperature_c[d]), float(truth.humidity[d])
        )
        for d in range(now)
    ]
    # The days to come: the mean of the last week.
    week = slice(max(now - 7, 0), now)
    air.append(
        AirOfDay(
            now * DAY_S,
            now * DAY_S + 1,
            float(truth.temperature_c[week].mean()),
            float(truth.humidity[week].mean()),
        )
    )
    noise = random.normal(0.0, _SCALE_SD_G, len(weighed_days) + 1)
    ledger = MassLedger(
        0.0,
        _SET_UP_G + noise[-1],
        made.full_g,
        weighings=tuple(
            Weighing(d * DAY_S, _SET_UP_G + float(truth.mass_g[d - 1]) + n)
            for d, n in zip(weighed_days, noise[:-1], strict=True)
        ),
    )
    curve = loss_curve(air, [(0.0, _CLOSINGS[made.closing])], made.medium)
    left = water_left(ledger, curve, now * DAY_S)
    assert left is not None
    return left


@dataclass
class _Tally:
    """What became of the simulated eggs: counts and squared errors."""

    dead: int = 0
    warned: int = 0
    ahead_days: list[float] = field(default_factory=list)
    healthy: int = 0
    ever_failing: int = 0
    healthy_looks: int = 0
    failing_looks: int = 0
    squared: list[float] = field(default_factory=list)
    by_tenth: dict[int, list[bool]] = field(default_factory=dict)


def _eggs(clutches: int) -> list[str]:
    tally = _Tally()
    for seed in range(_SCORED, _SCORED + clutches):
        _one_clutch(seed, tally)
    warned = tally.warned / tally.dead
    wrong = tally.ever_failing / tally.healthy
    looks = tally.failing_looks / tally.healthy_looks
    brier = float(np.mean(tally.squared))
    base = float(np.mean([alive for hits in tally.by_tenth.values() for alive in hits]))
    return [
        f"Standing of eggs, {clutches} simulated clutches, visited every week and when asked",
        f"  {tally.dead} eggs died and collapsed before term: on watch or worse "
        f"{_AHEAD_DAYS:.0f} days before collapse in {warned:.0%} (aim 80 %), "
        f"median {np.median(tally.ahead_days):.0f} days ahead  {_met(warned >= 0.8)}",
        f"  {tally.healthy} eggs lived: ever on failing or worse {wrong:.1%} (aim below 3 %), "
        f"in {looks:.1%} of the looks at them  {_met(wrong < 0.03)}",
        f"  Brier score {brier:.4f}, against {base * (1 - base):.4f} for always saying "
        f"{base:.0%} ({len(tally.squared)} looks)",
        "  said alive, and was:  "
        + ", ".join(
            f"{10 * tenth}-{10 * tenth + 10} % {np.mean(hits):.0%} of {len(hits)}"
            for tenth, hits in sorted(tally.by_tenth.items())
        ),
    ]


def _met(met: bool) -> str:
    return "met" if met else "MISSED"


@dataclass
class _Egg:
    """An egg with what was seen of it; `watch_share` is where it first was on watch or worse."""

    fate: EggFate
    seen: list[Observation] = field(default_factory=list)
    grades: list[Grading] = field(default_factory=list)
    watch_share: float | None = None
    failing: bool = False
    candle_from_s: float = np.inf


def _one_clutch(seed: int, tally: _Tally) -> None:
    random = np.random.default_rng(seed)
    eggs = [_Egg(egg_fate(random)) for _ in range(int(random.integers(4, 9)))]
    dry = random.uniform(0.2, 0.6) if random.random() < 0.2 else None
    weekly = [0, 6, 10, *range(17, 60, 7)]
    days = set(weekly)
    for day in range(60):
        if day not in days:
            continue
        share = day / _TERM_DAYS
        # A dry spell of about ten days, then somebody waters.
        is_dry = dry is not None and dry <= share <= dry + 0.17
        for egg in eggs:
            _look(egg, day, share, is_dry, random)
        _judge(eggs, day, share, tally)
        # The list of what is due asks for eggs in doubt again.
        if any(egg.candle_from_s < np.inf for egg in eggs):
            days.add(day + round(WATCH_EVERY_DAYS))
    for egg in eggs:
        _count(egg, tally)


def _look(egg: _Egg, day: int, share: float, is_dry: bool, random: np.random.Generator) -> None:
    """The keeper looks; candles on lay day, mid-term, in the last week, and when asked to."""
    at_s = day * DAY_S
    asked = day in (0, 31, 52) or at_s >= egg.candle_from_s
    seen = glance(egg.fate, share, candled=asked, dry_box=is_dry, random=random)
    if not asked and _asks(seen, share):
        torch = glance(egg.fate, share, candled=True, dry_box=is_dry, random=random)
        seen = replace(seen, vessels=torch.vessels, movement=torch.movement)
    egg.grades.append(Grading(at_s, seen.grade, share))
    signs = [*_signs(seen), ("vessels", seen.vessels), ("movement", "seen" * seen.movement)]
    egg.seen += [Observation(at_s, SignKind(k), v, share) for k, v in signs if v]


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


def _judge(eggs: list[_Egg], day: int, share: float, tally: _Tally) -> None:
    now_s = day * DAY_S
    box = judge_box(
        share,
        [
            EggTurgor(n, egg.grades[-1].grade, rose_fast=rose_fast(egg.grades, now_s))
            for n, egg in enumerate(eggs, start=1)
        ],
    )
    for number, egg in enumerate(eggs, start=1):
        dents = box.by_egg[number]
        own = dents.excess if dents.scope is Scope.EGG else 0
        situation = Situation(0.0, now_s, own)
        judged = judge_standing(egg.seen, situation)
        settles = what_settles(judged, egg.seen, situation, share, sinking=dents.rose_fast)
        egg.candle_from_s = settles.from_s if settles else np.inf
        if judged.standing is not Standing.SOUND and egg.watch_share is None:
            egg.watch_share = share
        egg.failing |= judged.standing.rank >= Standing.FAILING.rank
        # Once it has collapsed there is nothing left to judge.
        if share < egg.fate.collapses:
            _score(egg, judged, share, tally)


def _score(egg: _Egg, judged: EggStanding, share: float, tally: _Tally) -> None:
    alive = egg.fate.alive(share)
    tally.squared.append((judged.alive - alive) ** 2)
    tally.by_tenth.setdefault(min(int(judged.alive * 10), 9), []).append(alive)
    if egg.fate.died is None:
        tally.healthy_looks += 1
        tally.failing_looks += judged.standing.rank >= Standing.FAILING.rank


def _count(egg: _Egg, tally: _Tally) -> None:
    if egg.fate.died is None:
        tally.healthy += 1
        tally.ever_failing += egg.failing
        return
    if egg.fate.collapses > 1.0:
        return
    tally.dead += 1
    if egg.watch_share is not None:
        ahead = (egg.fate.collapses - egg.watch_share) * _TERM_DAYS
        tally.ahead_days.append(ahead)
        tally.warned += ahead >= _AHEAD_DAYS
    else:
        tally.ahead_days.append(0.0)


if __name__ == "__main__":
    print(report())
