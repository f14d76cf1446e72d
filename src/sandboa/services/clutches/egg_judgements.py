"""The eggs of a clutch, judged: dents for their stage and box first, then each one's standing."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Final

from sandboa.core.box import Shell
from sandboa.core.candling import Disc, Vessels, candle_again
from sandboa.core.development import DevelopmentCurve
from sandboa.core.dimples import (
    BoxJudgement,
    DimpleJudgement,
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
    EggStanding,
    Observation,
    Settles,
    SignKind,
    Situation,
    judge_standing,
    what_settles,
)
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.core.water.estimate import WaterLeft
from sandboa.records.clutches import Clutch, Egg
from sandboa.services.snapshot.snapshot import Snapshot

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
    answered_water: tuple[int, ...]
    no_answer: tuple[int, ...] = ()


def judge_eggs(
    snapshot: Snapshot,
    clutch: Clutch,
    curve: DevelopmentCurve,
    as_of_s: float,
    at_pip: float = 1.0,
    water: WaterLeft | None = None,
) -> EggsView:
    """Judge each live egg by the share developed now, p = D/`at_pip` (rule B, C).

    Only looks up to `as_of_s` count. Slugs and removed eggs are no eggs here.
    Eggs nobody has looked at count among the box's live eggs, as not dented.
    The box comes first: where it is dry, no egg's dents are held against it.
    """
    rules = snapshot.settings.rules
    eggs = snapshot.eggs.get(clutch.entity_id, [])
    live = [
        e
        for e in eggs
        if not e.slug
        and snapshot.egg(e.entity_id).ended_s(as_of_s) is None
        and not snapshot.egg(e.entity_id).out_by(as_of_s)
    ]
    every_pour = [
        w.poured_s
        for w in snapshot.box(snapshot.boxes[clutch.entity_id].entity_id).waterings
        if w.poured_s <= as_of_s
    ]
    pours = [s for s in every_pour if as_of_s - ANSWER_NEWS_DAYS * SECONDS_PER_DAY <= s]
    looks = {egg.number: _gradings(snapshot, egg, curve, as_of_s, at_pip) for egg in live}
    turgors = [
        EggTurgor(
            egg.number,
            seen[-1].grade if (seen := looks[egg.number]) else 0,
            loses_water_fast=Shell(egg.shell).loses_water_fast,
            rose_fast=rose_fast(seen, as_of_s),
        )
        for egg in live
    ]
    box = judge_box(
        min(curve.now / at_pip, 2.0),
        turgors,
        rules.dimple_stages,
        water_says_dry=water is not None and water.says_dry,
    )
    answered = tuple(n for n, seen in looks.items() if answered_water(seen, pours) is not None)
    unanswered = tuple(
        n
        for n, seen in looks.items()
        if n in box.early_eggs and did_not_answer(seen, every_pour, as_of_s)
    )
    judging = _Judging(snapshot, clutch, curve, as_of_s, at_pip, water, box, answered, unanswered)
    views = tuple(judging.view(egg, looks.get(egg.number, [])) for egg in eggs)
    return EggsView(views, box, answered, unanswered)


def removed_s(snapshot: Snapshot, egg: Egg, as_of_s: float) -> float | None:
    """When the keeper took the egg out of the box; None while it is in."""
    for event in snapshot.egg(egg.entity_id).events:
        if event.kind == EggActKind.REMOVED and event.at_s <= as_of_s:
            return float(event.at_s)
    return None


def observations_of(
    snapshot: Snapshot, egg: Egg, curve: DevelopmentCurve, as_of_s: float, at_pip: float = 1.0
) -> list[Observation]:
    """Everything seen of an egg that bears on whether it lives."""
    seen = [
        Observation(c.seen_s, SignKind.VESSELS, c.vessels, curve.at(c.seen_s) / at_pip)
        for c in snapshot.egg(egg.entity_id).candlings
    ]
    seen += [
        Observation(s.seen_s, SignKind(s.kind), s.value, curve.at(s.seen_s) / at_pip)
        for s in snapshot.egg(egg.entity_id).signs
    ]
    return [o for o in seen if o.at_s <= as_of_s]


def _gradings(
    snapshot: Snapshot, egg: Egg, curve: DevelopmentCurve, as_of_s: float, at_pip: float
) -> list[Grading]:
    return [
        Grading(row.seen_s, row.grade, curve.at(row.seen_s) / at_pip)
        for row in snapshot.egg(egg.entity_id).turgor
        if row.seen_s <= as_of_s
    ]


@dataclass(frozen=True)
class _Judging:
    """One clutch being judged: what every egg of it is judged with."""

    snapshot: Snapshot
    clutch: Clutch
    curve: DevelopmentCurve
    as_of_s: float
    at_pip: float
    water: WaterLeft | None
    box: BoxJudgement
    answered: tuple[int, ...]
    unanswered: tuple[int, ...]

    def view(self, egg: Egg, seen: list[Grading]) -> EggView:
        judged = self.box.by_egg.get(egg.number)
        pip_s = self.snapshot.egg(egg.entity_id).pip_s
        cut = self.snapshot.egg(egg.entity_id).cut
        out = self.snapshot.egg(egg.entity_id).emergence
        fate = self.snapshot.egg(egg.entity_id).fate
        events = tuple(
            e.kind for e in self.snapshot.egg(egg.entity_id).events if e.at_s <= self.as_of_s
        )
        view = EggView(
            egg.number,
            egg.x,
            egg.y,
            bool(egg.slug),
            egg.shell,
            egg.mass_g,
            egg.clump,
            events,
            Torchlight() if egg.slug else self._torchlight(egg, events),
            judged.allowed_grade if judged else 0,
            pip_s if pip_s is not None and pip_s <= self.as_of_s else None,
            removed_s(self.snapshot, egg, self.as_of_s),
            tuple(self._latest_signs(egg)),
            looked_s=self.snapshot.egg(egg.entity_id).last_look_s(self.as_of_s),
            cut_s=float(cut.at_s) if cut is not None and cut.at_s <= self.as_of_s else None,
            emerged_s=float(out.seen_s) if out is not None and out.seen_s <= self.as_of_s else None,
            fate=Fate(fate.fate) if fate is not None and fate.at_s <= self.as_of_s else None,
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
                    early_eggs=len(self.box.early_eggs),
                    live_eggs=self.box.live_eggs,
                    supported=EggActKind.SUPPORTED in events,
                ),
            )
        return view if view.pipped_s is not None else self._with_standing(egg, view, judged)

    def _with_standing(self, egg: Egg, view: EggView, judged: DimpleJudgement) -> EggView:
        observations = observations_of(self.snapshot, egg, self.curve, self.as_of_s, self.at_pip)
        own_dents = judged.excess if judged.scope is Scope.EGG else 0
        situation = Situation(self.clutch.laid_s, self.as_of_s, own_dents, self._first_pip_s())
        in_force = self.snapshot.settings.rules
        rules = in_force.standing
        standing = judge_standing(observations, situation, rules)
        causes: tuple[CauseShare, ...] = ()
        if judged.excess >= 1:
            without = judge_standing(observations, replace(situation, excess=0), rules)
            causes = dent_causes(
                DentedEgg(
                    early_eggs=len(self.box.early_eggs),
                    live_eggs=self.box.live_eggs,
                    shell=Shell(egg.shell),
                    water_share=(
                        (self.water.share_low, self.water.share, self.water.share_high)
                        if self.water
                        else None
                    ),
                    answered=True
                    if egg.number in self.answered
                    else False
                    if egg.number in self.unanswered
                    else None,
                    other_log_odds=without.log_odds,
                ),
                in_force.cause_scores,
            )
        settles = what_settles(
            standing,
            observations,
            situation,
            self.curve.now / self.at_pip,
            sinking=judged.rose_fast,
            candle_every_days=in_force.candle_every_days,
        )
        return replace(view, standing=standing, settles=settles, causes=causes)

    def _first_pip_s(self) -> float | None:
        pips = [
            self.snapshot.egg(egg.entity_id).pip_s
            for egg in self.snapshot.eggs.get(self.clutch.entity_id, [])
        ]
        return min((s for s in pips if s is not None and s <= self.as_of_s), default=None)

    def _latest_signs(self, egg: Egg) -> Iterator[tuple[str, str]]:
        latest = {
            sign.kind: sign.value
            for sign in self.snapshot.egg(egg.entity_id).signs
            if sign.seen_s <= self.as_of_s
        }
        yield from sorted(latest.items())

    def _torchlight(self, egg: Egg, events: tuple[str, ...]) -> Torchlight:
        looks = [c for c in self.snapshot.egg(egg.entity_id).candlings if c.seen_s <= self.as_of_s]
        last = looks[-1] if looks else None
        vessels = Vessels(last.vessels) if last else None
        found = next((Disc(c.disc) for c in reversed(looks) if c.disc), None)
        again = (
            candle_again(vessels, self.clutch.laid_s, last.seen_s, self.as_of_s)
            if last is not None
            else None
        )
        return Torchlight(
            vessels,
            Disc.TOP if found and EggEvent.TURNED in events else found,
            last.seen_s if last else None,
            *(again or (None, None)),
        )
