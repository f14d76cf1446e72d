"""Keepers of a season who are no learners: schools to compare with, and who follows Sandboa.

Each sees what a learner sees and nothing else: thermometers, lids, and what is in an opened box.
"""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Final

from sandboa.core.air import oxygen
from sandboa.core.box import Closing
from sandboa.core.climate.rules import DEFAULT_CLIMATE
from sandboa.core.development.clock import DEFAULT_CLOCK
from sandboa.core.dimples import EggTurgor, Scope, judge_box
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching.advice import AdviceKind, EggAtHatch, advise
from sandboa.core.standing import (
    Observation,
    Situation,
    Standing,
    judge_standing,
    what_settles,
)
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR
from sandboa.core.water.drying import loss_g_day
from sandboa.core.water.rain import rain_advice
from sandboa.core.water.rules import DEFAULT_WATER
from sandboa.core.water.top_up import top_up
from sandboa.devices.simulation.kept import BoxSeen, Deed, KeptSeason
from sandboa.devices.simulation.torchlight import readable
from sandboa.practice.seasons.set_up import set_up_g
from sandboa.practice.signs import of_shell, of_torch

Player = Callable[[KeptSeason], None]

#: Days between two visits of each school of rhythm (keeper practice).
SCHOOLS: Final = {"set and forget": None, "weekly": 7, "every two days": 2}
#: Days between visits of who follows Sandboa: early in the term, and once pips are near.
_EVERY_DAYS: Final = 7
_NEAR_DAYS: Final = 2
_NEAR_SHARE: Final = 0.95


def leaves_alone(season: KeptSeason) -> None:
    """Touches nothing, whatever happens."""


def waters_always(season: KeptSeason) -> None:
    """Pours 20 g into every box every week, whatever it weighs."""
    if season.day % 7 == 0:
        for box in range(len(season.plan.boxes)):
            season.do(Deed("open", box))
            season.do(Deed("pour", box, water_g=20.0))


def school(every_days: int | None) -> Player:
    """Opens every box at its rhythm, tops up what the scale misses and wipes lids that rain.

    None looks through the lid only, and opens a box whose lid shows no water or rains.
    """

    def keep(season: KeptSeason) -> None:
        _see_to_cabinet(season)
        for box in opens(every_days, season):
            _plain_visit(season, box)

    return keep


def opens(every_days: int | None, season: KeptSeason) -> tuple[int, ...]:
    """Places of the boxes that a school opens on this day, by its rhythm or by their lids."""
    boxes = range(len(season.plan.boxes))
    if every_days is None:
        return tuple(box for box in boxes if season.lid(box) in ("none", "raining"))
    return tuple(boxes) if season.day % every_days == 0 else ()


def _plain_visit(season: KeptSeason, box: int) -> None:
    season.do(Deed("open", box))
    season.do(Deed("weigh", box))
    seen = _look(season, box)
    short_g = set_up_g(season, box, seen) - (seen.mass_g or 0.0)
    if short_g > 20.0:
        season.do(Deed("pour", box, water_g=short_g))
    if seen.lid == "raining":
        season.do(Deed("wipe", box))


def _look(season: KeptSeason, box: int) -> BoxSeen:
    seen = season.look(box)
    assert seen is not None, "the box was opened"
    return seen


def _see_to_cabinet(season: KeptSeason) -> None:
    """Look at the thermometers, and see to a cabinet that is off or swings."""
    seen = season.cabinet()
    for mean_c, low_c, high_c in zip(seen.mean_c, seen.lowest_c, seen.highest_c, strict=True):
        off = abs(mean_c - seen.set_point_c) > DEFAULT_CLIMATE.off_target_c
        if off or high_c - low_c > DEFAULT_CLIMATE.swing_c:
            season.do(Deed("mend"))
            return


@dataclass
class _Box:
    """What who follows Sandboa knows of a box."""

    opened_day: int = -1
    water_g: float = 0.0
    holes: bool = False
    candle: set[int] = field(default_factory=set)
    grades: dict[int, int] = field(default_factory=dict)


class FollowsSandboa:
    """Does what Sandboa would advise, from what was seen: one for each season."""

    def __init__(self, season: KeptSeason) -> None:
        plan = season.plan
        self._boxes = [_Box(water_g=box.water_g) for box in plan.boxes]
        first = [int((plan.box_of == box).argmax()) for box in range(len(plan.boxes))]
        self._laid = [float(plan.laid_day[at]) for at in first]
        rate = float(DEFAULT_CLOCK.rate_per_day(plan.set_point_c))
        self._share = [-laid * rate for laid in self._laid]
        self._seen: dict[tuple[int, int], list[Observation]] = {}
        self._first_pip: dict[int, float] = {}

    def __call__(self, season: KeptSeason) -> None:
        """Keep the season for a day."""
        _see_to_cabinet(season)
        warm = season.cabinet().mean_c
        for box, known in enumerate(self._boxes):
            shelf_c = warm[season.plan.boxes[box].shelf]
            if season.day > 0:
                self._share[box] += float(DEFAULT_CLOCK.rate_per_day(shelf_c))
                known.water_g -= self._loss_g(season, box, shelf_c)
            if self._is_due(season, box):
                self._visit(season, box)

    def _loss_g(self, season: KeptSeason, box: int, shelf_c: float) -> float:
        plan = season.plan.boxes[box]
        air = season.cabinet().humidity
        return loss_g_day(Closing(plan.closing), plan.medium, shelf_c, shelf_c, air)

    def _is_due(self, season: KeptSeason, box: int) -> bool:
        known, plan = self._boxes[box], season.plan.boxes[box]
        since = season.day - known.opened_day
        share = self._share[box]
        lid = season.lid(box)
        if box in self._first_pip:
            return True
        if since >= (_NEAR_DAYS if share >= _NEAR_SHARE else _EVERY_DAYS):
            return True
        if known.water_g < DEFAULT_WATER.top_up * plan.water_g and since >= 2:
            return True
        if lid == "none" or (rain_advice(lid, share) and share < DEFAULT_WATER.lid_silent_from):
            return since >= 2
        return self._stuffy(season, box, since) and since >= 2

    def _stuffy(self, season: KeptSeason, box: int, since_days: float) -> bool:
        closing = Closing(season.plan.boxes[box].closing)
        if self._boxes[box].holes and closing is Closing.SEALED_FILM:
            closing = Closing.PIN_HOLES
        eggs = [min(self._share[box], 1.5)] * int((season.plan.box_of == box).sum())
        return oxygen(eggs, closing, since_days * SECONDS_PER_DAY).advise_airing

    def _visit(self, season: KeptSeason, box: int) -> None:
        known = self._boxes[box]
        stuffy = self._stuffy(season, box, float(season.day - known.opened_day))
        known.opened_day = season.day
        season.do(Deed("open", box))
        season.do(Deed("weigh", box))
        seen = _look(season, box)
        if stuffy and not known.holes:
            season.do(Deed("holes", box))
            known.holes = True
        if seen.lid == "raining":
            season.do(Deed("wipe", box))
        self._water(season, box, seen)
        self._eggs(season, box, seen)
        self._pips(season, box, seen)

    def _water(self, season: KeptSeason, box: int, seen: BoxSeen) -> None:
        plan, known = season.plan.boxes[box], self._boxes[box]
        reference_g = set_up_g(season, box, seen)
        mass_g = seen.mass_g or reference_g
        known.water_g = plan.water_g - (reference_g - mass_g)
        share = self._share[box]
        dented = judge_box(share, _turgors(seen))
        try:
            add = top_up(reference_g, min(mass_g, reference_g), plan.water_g)
        except NotPlausible:
            return
        short = known.water_g < DEFAULT_WATER.top_up * plan.water_g
        if add.add_g > 0 and (short or dented.scope is Scope.BOX):
            season.do(Deed("pour", box, water_g=add.add_g))
            known.water_g += add.add_g

    def _eggs(self, season: KeptSeason, box: int, seen: BoxSeen) -> None:
        share, now_s = self._share[box], season.day * SECONDS_PER_DAY
        judged = judge_box(share, _turgors(seen))
        for egg in seen.eggs:
            if str(egg.number) not in judged.by_egg or egg.pipped_hours is not None:
                continue
            if egg.hangs:
                season.do(Deed("support", box, egg.number))
            looks = self._seen.setdefault((box, egg.number), [])
            looks += of_shell(egg, now_s, share)
            dents = judged.by_egg[str(egg.number)]
            own = dents.excess if dents.scope is Scope.EGG else 0
            laid_s = self._laid[box] * SECONDS_PER_DAY
            situation = Situation(laid_s, now_s, share, own)
            standing = judge_standing(looks, situation)
            settles = what_settles(standing, looks, situation, share)
            if settles is not None and settles.from_s <= now_s:
                season.do(Deed("candle", box, egg.number))
                torch = next(e.torch for e in _look(season, box).eggs if e.number == egg.number)
                assert torch is not None, "it was candled"
                looks += of_torch(readable(torch), torch.moves, now_s, share)
                standing = judge_standing(looks, situation)
            certain = standing.standing is Standing.PROBABLY_LOST and egg.mould != "none"
            if certain:
                season.do(Deed("isolate", box, egg.number))

    def _pips(self, season: KeptSeason, box: int, seen: BoxSeen) -> None:
        now_s = season.day * SECONDS_PER_DAY
        pipped = {
            egg.number: now_s - egg.pipped_hours * SECONDS_PER_HOUR
            for egg in seen.eggs
            if egg.pipped_hours is not None
        }
        if pipped:
            self._first_pip.setdefault(box, min(pipped.values()))
        eggs = tuple(
            EggAtHatch(
                egg.number, pipped.get(egg.number),
                emerged_s=now_s if egg.out else None, grade=egg.grade,
            )
            for egg in seen.eggs
            if not egg.removed and not egg.isolated
        )  # fmt: skip
        if not pipped:
            return
        told = advise(
            eggs, school=None, set_day=None, share=self._share[box],
            laid_s=self._laid[box] * SECONDS_PER_DAY, now_s=now_s,
        )  # fmt: skip
        for advice in told:
            open_egg = advice.number in pipped and advice.kind is AdviceKind.WIDEN
            if open_egg or advice.kind is AdviceKind.WINDOW:
                season.do(Deed("help", box, advice.number))


def _turgors(seen: BoxSeen) -> list[EggTurgor]:
    """The dents of the eggs that lie in the box."""
    return [
        EggTurgor(str(egg.number), egg.grade)
        for egg in seen.eggs
        if not (egg.out or egg.removed or egg.isolated)
    ]


def foresees(season: KeptSeason) -> None:
    """Knows everything that is hidden, and does what can be done about it: the best there is."""
    if any(t.box is None and t.start == season.day for t in season.plan.troubles):
        season.do(Deed("mend"))
    dead, stuck = season.since_death() > 5.0, season.plan.sticks & (season.share >= 1.0)
    for box, plan in enumerate(season.plan.boxes):
        own = season.plan.box_of == box
        left = season.water_g[box] / plan.water_g
        airless = season.oxygen[box] < 0.17 and not season.holes[box]
        sick = own & dead & ~season.isolated & ~season.removed
        stays = own & stuck & ~season.helped & season.alive
        hangs = own & season.hangs & ~season.supported & ~season.removed
        if not (left < 0.5 or left > 1.1 or airless or sick.any() or stays.any() or hangs.any()):
            continue
        season.do(Deed("open", box))
        if airless:
            season.do(Deed("holes", box))
        if left < 0.5:
            season.do(Deed("pour", box, water_g=(0.95 - left) * plan.water_g))
        elif left > 1.1:
            season.do(Deed("wipe", box))
        for what, which in (("isolate", sick), ("help", stays), ("support", hangs)):
            for number in season.plan.number[which]:
                season.do(Deed(what, box, int(number)))


def played(season: KeptSeason, player: Player) -> KeptSeason:
    """Let a player keep a season to its end."""
    while not season.over:
        player(season)
        if season.over:
            break
        season.pass_night()
    return season
