"""The dents of a clutch's eggs, judged for their stage and among their box."""

from dataclasses import dataclass
from typing import Final

from sandboa.core.box import Shell
from sandboa.core.development import DevelopmentCurve
from sandboa.core.dimples import (
    BoxJudgement,
    EggTurgor,
    Grading,
    advice,
    answered_water,
    judge_box,
    rose_fast,
)
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.journal.house_now import Facts
from sandboa.records.clutches import Clutch, Egg

#: days for which it stays news that eggs answered a watering (assumption).
ANSWER_NEWS_DAYS: Final = 14.0


@dataclass(frozen=True, slots=True)
class EggView:
    """An egg as a screen shows it; `grade` and what follows are None while ungraded.

    `allowed_grade` is what would be normal at this stage, looked at or not.
    """

    number: int
    x: float
    y: float
    slug: bool
    shell: str
    allowed_grade: int
    grade: int | None = None
    graded_s: float | None = None
    excess: int | None = None
    scope: str | None = None
    urgency: str | None = None
    advice: str | None = None


@dataclass(frozen=True, slots=True)
class EggsView:
    """All eggs with the box's verdict. `answered_water` names eggs that rounded out again."""

    eggs: tuple[EggView, ...]
    box: BoxJudgement
    answered_water: tuple[int, ...]


def judge_eggs(facts: Facts, clutch: Clutch, curve: DevelopmentCurve, as_of_s: float) -> EggsView:
    """Judge each live egg's latest grade by the development there is now (handbook B).

    Only looks up to `as_of_s` count. Slugs are no eggs here. Eggs nobody has
    looked at count among the box's live eggs, as not dented.
    """
    eggs = facts.eggs.get(clutch.entity, [])
    pours = [
        w.poured_s
        for w in facts.waterings.get(facts.boxes[clutch.entity].entity, [])
        if as_of_s - ANSWER_NEWS_DAYS * SECONDS_PER_DAY <= w.poured_s <= as_of_s
    ]
    looks = {egg.number: _gradings(facts, egg, curve, as_of_s) for egg in eggs if not egg.slug}
    turgors = [
        EggTurgor(
            egg.number,
            seen[-1].grade if (seen := looks[egg.number]) else 0,
            loses_water_fast=Shell(egg.shell).loses_water_fast,
            rose_fast=rose_fast(seen, as_of_s),
        )
        for egg in eggs
        if not egg.slug
    ]
    box = judge_box(min(curve.now, 2.0), turgors)
    answered = tuple(n for n, seen in looks.items() if answered_water(seen, pours) is not None)
    views = tuple(_view(egg, looks.get(egg.number, []), box) for egg in eggs)
    return EggsView(views, box, answered)


def _gradings(facts: Facts, egg: Egg, curve: DevelopmentCurve, as_of_s: float) -> list[Grading]:
    return [
        Grading(row.seen_s, row.grade, curve.at(row.seen_s))
        for row in facts.turgor.get(egg.entity, [])
        if row.seen_s <= as_of_s
    ]


def _view(egg: Egg, seen: list[Grading], box: BoxJudgement) -> EggView:
    judged = box.by_egg.get(egg.number)
    if judged is None or not seen:
        allowed = judged.allowed_grade if judged else 0
        return EggView(egg.number, egg.x, egg.y, bool(egg.slug), egg.shell, allowed)
    return EggView(
        egg.number,
        egg.x,
        egg.y,
        slug=False,
        shell=egg.shell,
        allowed_grade=judged.allowed_grade,
        grade=seen[-1].grade,
        graded_s=seen[-1].at_s,
        excess=judged.excess,
        scope=judged.scope,
        urgency=judged.urgency,
        advice=advice(judged, seen[-1].grade, early_eggs=len(box.early_eggs)),
    )
