"""What Sandboa would have said of a case, from what can be seen of it and nothing else."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from sandboa.core.air import oxygen
from sandboa.core.box import Closing, Shell, loses_water_fast
from sandboa.core.candling import Disc, turn_advice
from sandboa.core.dimples import EggTurgor, Scope, judge_box
from sandboa.core.dimples.advice import advice as dent_advice
from sandboa.core.hatching.advice import AdviceKind, EggAtHatch, advise
from sandboa.core.messages import Mass, Message, Temperature, Words
from sandboa.core.standing import (
    EggStanding,
    Observation,
    SignKind,
    Situation,
    judge_standing,
    what_settles,
)
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR
from sandboa.core.water.kinds import WaterSignKind
from sandboa.core.water.rain import rain_advice
from sandboa.core.water.rules import DEFAULT_WATER
from sandboa.core.water.signs import WaterSign, speaks_for
from sandboa.devices.simulation.cases import Case
from sandboa.devices.simulation.torchlight import lies_aside, shows_body
from sandboa.practice.signs import of_shell, of_torch

#: Days a box stood shut before a case is looked at (assumption: a weekly visit).
SHUT_DAYS: Final = 7.0


@dataclass(frozen=True, slots=True)
class Advice:
    """What to do next and why; `act` is one of the learner's choices."""

    act: str
    text: Words


@dataclass(frozen=True, slots=True)
class Opinion:
    """How it judges the egg, whether its dents are early, and its advice, the first first."""

    judged: EggStanding
    early: bool
    advice: tuple[Advice, ...]

    @property
    def act(self) -> str:
        """What it would do first."""
        return self.advice[0].act


def opinion(case: Case) -> Opinion:
    """Sandboa's opinion of a case."""
    now_s = case.day * SECONDS_PER_DAY
    neighbours = [EggTurgor(f"n{i}", grade) for i, grade in enumerate(case.neighbours)]
    fast = loses_water_fast([Shell(case.shell)])
    box = judge_box(
        case.share,
        [EggTurgor("egg", case.glance.grade, loses_water_fast=fast), *neighbours],
        water_says_dry=_says_dry(case),
    )
    dents = box.by_egg["egg"]
    situation = Situation(
        0.0,
        now_s,
        case.share,
        dents.excess if dents.scope is Scope.EGG else 0,
        first_pip_s=_closed_since(case, now_s),
    )
    seen = list(observations(case))
    judged = judge_standing(seen, situation)
    told = list(_of_pip(case, now_s))
    if not told and box.scope is Scope.BOX:
        told.append(Advice("water", _water_words(case)))
    told += _of_box(case)
    if case.hangs:
        told.append(Advice("support", "It hangs over its clump: put a small stack of grid under."))
    if dents.scope is Scope.EGG:
        early = len(box.early_eggs)
        said = dent_advice(
            dents, case.glance.grade, early_eggs=early, live_eggs=box.live_eggs,
            supported=False,
        )  # fmt: skip
        told.append(Advice("candle", said))
    settles = what_settles(judged, seen, situation, case.share)
    if settles is not None and case.pipped_hours is None:
        told.append(Advice("candle", settles.text))
    if lies_aside(case.torch):
        turn = turn_advice(Disc.SIDE, 0.0, now_s)
        told.append(Advice("leave", turn.text if turn else ""))
    told.append(Advice("leave", "Nothing speaks for opening the box again today."))
    return Opinion(judged, dents.excess > 0, tuple(told))


def observations(case: Case) -> Iterator[Observation]:
    """Every sign of a case, as a keeper would have recorded it."""
    for day, seen in (*case.earlier, (case.day, case.glance)):
        at_s, share = day * SECONDS_PER_DAY, day / case.term_days
        yield from of_shell(seen, at_s, share, smell=seen.smell)
        yield from of_torch(seen.vessels, seen.movement, at_s, share)
    if shows_body(case.torch):
        now_s = case.day * SECONDS_PER_DAY
        yield Observation(now_s, SignKind.BODY, "dark", case.share)


def _says_dry(case: Case) -> bool:
    felt = WaterSign(case.day * SECONDS_PER_DAY, WaterSignKind.MEDIUM, case.box.feels, case.share)
    said = speaks_for(felt, DEFAULT_WATER)
    return said is not None and said[0] < DEFAULT_WATER.top_up


def _water_words(case: Case) -> Words:
    return Message(
        "Most eggs are dented early and the box is {short} short: add water at {warmth} along "
        "the side.",
        short=Mass(case.box.short_g), warmth=Temperature(case.box.temperature_c),
    )  # fmt: skip


def _of_box(case: Case) -> Iterator[Advice]:
    air = oxygen(
        [case.share] * (len(case.neighbours) + 1),
        Closing(case.box.closing),
        SHUT_DAYS * SECONDS_PER_DAY,
    )
    if air.advise_airing:
        yield Advice("air", "Shut so tightly, so late: its air is likely low. Air the box.")
    rain = rain_advice(case.box.lid, case.share)
    if rain is not None:
        yield Advice("air", rain)


def _closed_since(case: Case, now_s: float) -> float | None:
    """When the first of its clutch pipped, while this one is closed (s)."""
    if case.pipped_hours is not None or case.first_pip_hours is None:
        return None
    return now_s - case.first_pip_hours * SECONDS_PER_HOUR


def _of_pip(case: Case, now_s: float) -> Iterator[Advice]:
    """What it says of an egg that pipped, or whose siblings did."""
    if case.first_pip_hours is None:
        return
    first_s = now_s - case.first_pip_hours * SECONDS_PER_HOUR
    out = [
        EggAtHatch(n, first_s, emerged_s=first_s + 20 * SECONDS_PER_HOUR, grade=4)
        for n in range(2, 2 + len(case.neighbours))
    ]
    pipped_s = None
    if case.pipped_hours is not None:
        pipped_s = now_s - case.pipped_hours * SECONDS_PER_HOUR
    own, *_ = advise(
        (EggAtHatch(1, pipped_s, grade=case.glance.grade), *out),
        school=None, set_day=None, share=case.share, laid_s=0.0, now_s=now_s,
    )  # fmt: skip
    helps = own.kind in (AdviceKind.WIDEN, AdviceKind.WINDOW)
    yield Advice("help" if helps else "leave", f"{own.text} {own.reason}".strip())
