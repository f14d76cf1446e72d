"""The dents of a clutch's eggs, judged for their stage and among their box."""

from dataclasses import dataclass, replace
from typing import Final

from sandboa.core.box import Shell
from sandboa.core.candling import Disc, Vessels, candle_again
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
from sandboa.core.lay_day import EggEvent
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.journal.house_now import Facts
from sandboa.records.clutches import Clutch, Egg

#: days for which it stays news that eggs answered a watering (assumption).
ANSWER_NEWS_DAYS: Final = 14.0


@dataclass(frozen=True, slots=True)
class Torchlight:
    """The latest candling; `again_from_s`..`again_by_s` when it is to be done again.

    `disc` is where the embryo lies now: on top once the egg was turned.
    """

    vessels: Vessels | None = None
    disc: Disc | None = None
    seen_s: float | None = None
    again_from_s: float | None = None
    again_by_s: float | None = None


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
    mass_g: float | None
    clump: int | None
    events: tuple[str, ...]
    torchlight: Torchlight
    allowed_grade: int
    pipped_s: float | None = None
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


def judge_eggs(
    facts: Facts, clutch: Clutch, curve: DevelopmentCurve, as_of_s: float, at_pip: float = 1.0
) -> EggsView:
    """Judge each live egg's latest grade by the share developed now, p = D/`at_pip` (handbook B).

    Only looks up to `as_of_s` count. Slugs are no eggs here. Eggs nobody has
    looked at count among the box's live eggs, as not dented.
    """
    eggs = facts.eggs.get(clutch.entity, [])
    pours = [
        w.poured_s
        for w in facts.waterings.get(facts.boxes[clutch.entity].entity, [])
        if as_of_s - ANSWER_NEWS_DAYS * SECONDS_PER_DAY <= w.poured_s <= as_of_s
    ]
    looks = {
        egg.number: _gradings(facts, egg, curve, as_of_s, at_pip) for egg in eggs if not egg.slug
    }
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
    box = judge_box(min(curve.now / at_pip, 2.0), turgors)
    answered = tuple(n for n, seen in looks.items() if answered_water(seen, pours) is not None)
    views = tuple(
        _view(facts, clutch, egg, looks.get(egg.number, []), box, as_of_s) for egg in eggs
    )
    return EggsView(views, box, answered)


def _gradings(
    facts: Facts, egg: Egg, curve: DevelopmentCurve, as_of_s: float, at_pip: float
) -> list[Grading]:
    return [
        Grading(row.seen_s, row.grade, curve.at(row.seen_s) / at_pip)
        for row in facts.turgor.get(egg.entity, [])
        if row.seen_s <= as_of_s
    ]


def _view(
    facts: Facts, clutch: Clutch, egg: Egg, seen: list[Grading], box: BoxJudgement, as_of_s: float
) -> EggView:
    judged = box.by_egg.get(egg.number)
    events = tuple(e.kind for e in facts.egg_events.get(egg.entity, []) if e.at_s <= as_of_s)
    view = EggView(
        egg.number,
        egg.x,
        egg.y,
        bool(egg.slug),
        egg.shell,
        egg.mass_g,
        egg.clump,
        events,
        Torchlight() if egg.slug else _torchlight(facts, clutch, egg, events, as_of_s),
        judged.allowed_grade if judged else 0,
        facts.pips[egg.entity].seen_s if egg.entity in facts.pips else None,
    )
    if judged is None or not seen:
        return view
    return replace(
        view,
        grade=seen[-1].grade,
        graded_s=seen[-1].at_s,
        excess=judged.excess,
        scope=judged.scope,
        urgency=judged.urgency,
        advice=advice(judged, seen[-1].grade, early_eggs=len(box.early_eggs)),
    )


def _torchlight(
    facts: Facts, clutch: Clutch, egg: Egg, events: tuple[str, ...], as_of_s: float
) -> Torchlight:
    looks = [c for c in facts.candlings.get(egg.entity, []) if c.seen_s <= as_of_s]
    last = looks[-1] if looks else None
    vessels = Vessels(last.vessels) if last else None
    found = next((Disc(c.disc) for c in reversed(looks) if c.disc), None)
    again = candle_again(vessels, clutch.laid_s, last.seen_s, as_of_s) if last is not None else None
    return Torchlight(
        vessels,
        Disc.TOP if found and EggEvent.TURNED in events else found,
        last.seen_s if last else None,
        *(again or (None, None)),
    )
