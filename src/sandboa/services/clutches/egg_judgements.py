"""The eggs of a box, judged: dents for their stage and box first, then each one's standing."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Final

from sandboa.core.box import Shell, loses_water_fast
from sandboa.core.candling import Disc, Vessels, candle_again
from sandboa.core.dimples import (
    BoxJudgement,
    EggTurgor,
    Grading,
    Scope,
    advice,
    answered_water,
    did_not_answer,
    judge_box,
    rose_fast,
)
from sandboa.core.dimples.cause import CauseShare, DentedEgg, dent_causes
from sandboa.core.hatching import Fate
from sandboa.core.lay_day import EggEvent
from sandboa.core.rounds import EggActKind
from sandboa.core.standing import (
    DIES_IN_SLIT,
    EggStanding,
    Settles,
    Situation,
    judge_standing,
    what_settles,
)
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.core.water.estimate import WaterLeft
from sandboa.records.clutches import Box, Egg
from sandboa.services.moment.as_of import AsOf, EggStage
from sandboa.services.snapshot.snapshot import Snapshot
from sandboa.services.standings.learned import learned_standing
from sandboa.services.standings.observations import observations_of

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
    `standing` and what belongs to it are None for slugs, and for eggs that
    have pipped, were removed or declared lost. `signs` are the latest of each kind.
    `entity` is the egg's id, `clutch` its clutch's code; `name` is what it is called in its
    `box`: its number, with the clutch where eggs of several lie there. `share` is that
    developed, by its own heat. `came_s` is when it came from another box, if nobody has looked
    at it since.
    """

    number: int
    x: float
    y: float
    slug: bool
    shells: tuple[Shell, ...]
    mass_g: float | None
    clump: int | None
    events: tuple[str, ...]
    torchlight: Torchlight
    allowed_grade: int
    pipped_s: float | None = None
    removed_s: float | None = None
    signs: tuple[tuple[str, str], ...] = ()
    grade: int | None = None
    graded_s: float | None = None
    excess: int | None = None
    scope: str | None = None
    urgency: str | None = None
    advice: str | None = None
    standing: EggStanding | None = None
    settles: Settles | None = None
    causes: tuple[CauseShare, ...] = ()
    looked_s: float | None = None
    cut_s: float | None = None
    emerged_s: float | None = None
    fate: Fate | None = None
    entity: int = 0
    clutch: str = ""
    clutch_id: int = 0
    name: str = ""
    box: str = ""
    box_id: int = 0
    share: float = 0.0
    came_s: float | None = None

    @property
    def will_hatch(self) -> float | None:
        """Chance (0-1) that it hatches; None for one that is none, gone or lost."""
        if not self.live:
            return None
        if self.emerged_s is not None or self.fate is Fate.HATCHED:
            return 1.0
        if self.pipped_s is not None:
            return 1.0 - DIES_IN_SLIT
        return None if self.standing is None else self.standing.will_hatch

    @property
    def live(self) -> bool:
        """Whether it is an egg that lives, or may: not taken out, not declared lost."""
        lost = self.fate is not None and self.fate is not Fate.HATCHED
        return not self.slug and self.removed_s is None and not lost


@dataclass(frozen=True, slots=True)
class EggsView:
    """All eggs with the box's verdict. `answered_water` names eggs that rounded out again,
    `no_answer` early ones that had water and 5 days and did not."""

    eggs: tuple[EggView, ...]
    box: BoxJudgement
    answered_water: tuple[str, ...]
    no_answer: tuple[str, ...] = ()

    @property
    def came_dented_s(self) -> float | None:
        """When the last of the early eggs came from another box (s), if all did and none was
        looked at since: then their dents say nothing of this box. Else None."""
        came = [egg.came_s for egg in self.eggs if egg.name in self.box.early_eggs]
        known = [at_s for at_s in came if at_s is not None]
        return max(known) if known and len(known) == len(came) else None


def is_live(snapshot: Snapshot, egg: Egg, as_of_s: float) -> bool:
    """Whether an egg's dents say something: no slug, not taken out, lost or out of its shell."""
    held = snapshot.egg(egg.entity_id)
    return not egg.slug and held.ended_s(as_of_s) is None and not held.out_by(as_of_s)


def judge_eggs(at: AsOf, box: Box, eggs: Sequence[Egg], water: WaterLeft | None = None) -> EggsView:
    """Judge each live egg of a box by the share developed now (rule B, C).

    Only looks up to `at.at_s` count. Slugs and removed eggs are no eggs here.
    Eggs nobody has looked at count among the box's live eggs, as not dented.
    The box comes first: where it is dry, no egg's dents are held against it.
    """
    snapshot, as_of_s = at.snapshot, at.at_s
    names, dents = names_in_box(snapshot, eggs), snapshot.settings.rules.dents
    live = [egg for egg in eggs if is_live(snapshot, egg, as_of_s)]
    stages = {egg.entity_id: at.stage(egg) for egg in eggs}
    pours = {names[egg.entity_id]: _pours_on(snapshot, egg, as_of_s) for egg in live}
    news_s = as_of_s - ANSWER_NEWS_DAYS * SECONDS_PER_DAY
    looks = {
        names[egg.entity_id]: _gradings(snapshot, egg, stages[egg.entity_id], as_of_s)
        for egg in live
    }
    turgors = [
        EggTurgor(
            name := names[egg.entity_id],
            seen[-1].grade if (seen := looks[name]) else 0,
            loses_water_fast(snapshot.egg(egg.entity_id).shells_at(egg, as_of_s)),
            rose_fast(seen, as_of_s, dents),
            min(stages[egg.entity_id].share, 2.0),
        )
        for egg in live
    ]
    dry = water is not None and water.says_dry
    judged = judge_box(0.0, turgors, dents, water_says_dry=dry)
    # An egg says how it was when it was looked at: what was early then is not late by waiting.
    then = judge_box(0.0, _as_looked_at(turgors, looks), dents, water_says_dry=dry)
    answered = tuple(
        name
        for name, seen in looks.items()
        if answered_water(seen, [s for s in pours[name] if s >= news_s], dents) is not None
    )
    unanswered = tuple(
        name
        for name, seen in looks.items()
        if name in judged.early_eggs and did_not_answer(seen, pours[name], as_of_s, dents)
    )
    judging = _Judging(at, box, water, judged, then, answered, unanswered)
    views = tuple(
        judging.view(egg, names[egg.entity_id], looks.get(names[egg.entity_id], [])) for egg in eggs
    )
    return EggsView(views, judged, answered, unanswered)


def _as_looked_at(
    turgors: Sequence[EggTurgor], looks: Mapping[str, Sequence[Grading]]
) -> list[EggTurgor]:
    """Each egg at the share it had developed when its grade was seen."""
    return [
        replace(egg, development=min(seen[-1].development, 2.0))
        if (seen := looks[egg.egg])
        else egg
        for egg in turgors
    ]


def names_in_box(snapshot: Snapshot, eggs: Sequence[Egg]) -> dict[int, str]:
    """What eggs that lie together are called, by egg: by number, with their clutch where they are
    of several."""
    if len({egg.clutch_id for egg in eggs}) <= 1:
        return {egg.entity_id: str(egg.number) for egg in eggs}
    return {
        egg.entity_id: f"{snapshot.clutch_by_id[egg.clutch_id].code}/{egg.number}" for egg in eggs
    }


def _pours_on(snapshot: Snapshot, egg: Egg, as_of_s: float) -> list[float]:
    """When water was poured into a box while the egg lay in it (s)."""
    held = snapshot.egg(egg.entity_id)
    boxes = {stay.box_id for stay in held.stays}
    return [
        float(watering.poured_s)
        for box in boxes
        for watering in snapshot.box(box).waterings
        if watering.poured_s <= as_of_s
        and (stay := held.stay_at(watering.poured_s)) is not None
        and stay.box_id == box
    ]


def removed_s(snapshot: Snapshot, egg: Egg, as_of_s: float) -> float | None:
    """When the keeper took the egg out of the box; None while it is in."""
    for event in snapshot.egg(egg.entity_id).events:
        if event.kind == EggActKind.REMOVED and event.at_s <= as_of_s:
            return float(event.at_s)
    return None


def _gradings(snapshot: Snapshot, egg: Egg, stage: EggStage, as_of_s: float) -> list[Grading]:
    return [
        Grading(row.seen_s, row.grade, stage.share_at(row.seen_s))
        for row in snapshot.egg(egg.entity_id).turgor
        if row.seen_s <= as_of_s
    ]


@dataclass(frozen=True)
class _Judging:
    """One box being judged: what every egg in it is judged with."""

    at: AsOf
    box: Box
    water: WaterLeft | None
    judged: BoxJudgement
    then: BoxJudgement
    answered: tuple[str, ...]
    unanswered: tuple[str, ...]

    def view(self, egg: Egg, name: str, seen: list[Grading]) -> EggView:
        as_of_s, held = self.at.at_s, self.at.snapshot.egg(egg.entity_id)
        judged = self.judged.by_egg.get(name)
        stay = held.stay_at(as_of_s)
        pip_s, cut, out, fate = held.pip_s, held.cut, held.emergence, held.fate
        events = tuple(e.kind for e in held.events if e.at_s <= as_of_s)
        clutch = self.at.snapshot.clutch_by_id[egg.clutch_id]
        view = EggView(
            egg.number,
            stay.x if stay else 0.5,
            stay.y if stay else 0.5,
            bool(egg.slug),
            held.shells_at(egg, as_of_s),
            egg.mass_g,
            egg.clump,
            events,
            Torchlight() if egg.slug else self._torchlight(egg, events),
            judged.allowed_grade if judged else 0,
            pip_s if pip_s is not None and pip_s <= as_of_s else None,
            removed_s(self.at.snapshot, egg, as_of_s),
            tuple(self._latest_signs(egg)),
            looked_s=held.last_look_s(as_of_s),
            cut_s=float(cut.at_s) if cut is not None and cut.at_s <= as_of_s else None,
            emerged_s=float(out.seen_s) if out is not None and out.seen_s <= as_of_s else None,
            fate=Fate(fate.fate) if fate is not None and fate.at_s <= as_of_s else None,
            entity=egg.entity_id,
            clutch=clutch.code,
            clutch_id=clutch.entity_id,
            name=name,
            box=self.box.name,
            box_id=self.box.entity_id,
            share=self.at.stage(egg).share,
            came_s=held.came_unseen_s(as_of_s),
        )
        if judged is None:
            return view
        if seen:
            view = replace(
                view,
                grade=seen[-1].grade,
                graded_s=seen[-1].at_s,
                excess=judged.excess,
                scope=judged.scope,
                urgency=judged.urgency,
                advice=advice(
                    judged,
                    seen[-1].grade,
                    early_eggs=len(self.judged.early_eggs),
                    live_eggs=self.judged.live_eggs,
                    supported=EggActKind.SUPPORTED in events,
                    rules=self.at.snapshot.settings.rules.dents,
                ),
            )
        return view if view.pipped_s is not None else self._with_standing(egg, view, seen)

    def _with_standing(self, egg: Egg, view: EggView, seen: list[Grading]) -> EggView:
        snapshot, as_of_s, stage = self.at.snapshot, self.at.at_s, self.at.stage(egg)
        observations = observations_of(snapshot, egg, stage.share_at, as_of_s)
        judged, then = self.judged.by_egg[view.name], self.then.by_egg[view.name]
        laid_s = snapshot.clutch_by_id[egg.clutch_id].laid_s
        situation = Situation(
            laid_s,
            as_of_s,
            stage.share,
            then.excess if Scope.BOX not in (then.scope, judged.scope) else 0,
            self._first_pip_s(egg.clutch_id),
            seen[-1].at_s if seen else None,
            seen[-1].development if seen else None,
        )
        in_force = snapshot.settings.rules
        rules = learned_standing(snapshot).rules
        standing = judge_standing(observations, situation, rules)
        causes: tuple[CauseShare, ...] = ()
        if judged.excess >= 1:
            without = judge_standing(observations, replace(situation, excess=0), rules)
            causes = dent_causes(
                DentedEgg(
                    early_eggs=len(self.judged.early_eggs),
                    live_eggs=self.judged.live_eggs,
                    shells=view.shells,
                    water_share=(
                        (self.water.share_low, self.water.share, self.water.share_high)
                        if self.water
                        else None
                    ),
                    answered=True
                    if view.name in self.answered
                    else False
                    if view.name in self.unanswered
                    else None,
                    other_log_odds=without.log_odds,
                ),
                in_force.dents,
            )
        settles = what_settles(
            standing,
            observations,
            situation,
            stage.share,
            sinking=judged.rose_fast,
            rules=rules,
        )
        return replace(view, standing=standing, settles=settles, causes=causes)

    def _first_pip_s(self, clutch: int) -> float | None:
        snapshot = self.at.snapshot
        pips = [snapshot.egg(egg.entity_id).pip_s for egg in snapshot.eggs.get(clutch, [])]
        return min((s for s in pips if s is not None and s <= self.at.at_s), default=None)

    def _latest_signs(self, egg: Egg) -> Iterator[tuple[str, str]]:
        latest = {
            sign.kind: sign.value
            for sign in self.at.snapshot.egg(egg.entity_id).signs
            if sign.seen_s <= self.at.at_s
        }
        yield from sorted(latest.items())

    def _torchlight(self, egg: Egg, events: tuple[str, ...]) -> Torchlight:
        snapshot, as_of_s = self.at.snapshot, self.at.at_s
        looks = [c for c in snapshot.egg(egg.entity_id).candlings if c.seen_s <= as_of_s]
        laid_s = snapshot.clutch_by_id[egg.clutch_id].laid_s
        last = looks[-1] if looks else None
        vessels = Vessels(last.vessels) if last else None
        found = next((Disc(c.disc) for c in reversed(looks) if c.disc), None)
        again = candle_again(vessels, laid_s, last.seen_s, as_of_s) if last is not None else None
        return Torchlight(
            vessels,
            Disc.TOP if found and EggEvent.TURNED in events else found,
            last.seen_s if last else None,
            *(again or (None, None)),
        )
