"""What was forecast and what came: kept on day 0, 30 and 50, learned from, and scored."""

import math
from dataclasses import dataclass
from typing import Final

from sandboa.core.act_kinds import ActKind, Touch
from sandboa.core.development import (
    SCORED_DAYS,
    DevelopmentCurve,
    EggGroup,
    Score,
    Window,
    forecast_clutch,
    record_errors,
    score,
)
from sandboa.core.standing import JUDGED_DAYS
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records import issued_forecasts
from sandboa.records.clutches import Clutch
from sandboa.records.facts import newest_act
from sandboa.records.issued_forecasts import IssuedForecast, IssuedStanding, Lesson
from sandboa.services.boxes.climate import development_curve
from sandboa.services.boxes.egg_paths import groups_by_path
from sandboa.services.clutches.box_view import box_now
from sandboa.services.moment.as_of import AsOf
from sandboa.services.moment.lessons import lessons
from sandboa.services.snapshot.snapshot import Snapshot

#: Lessons, and forecasts, worked out in one look: the watch must not stop for a long history.
_AT_A_TIME: Final = 5


def keep_due(snapshot: Snapshot, now_s: float) -> bool:
    """Keep the forecasts whose day has come, and what newly finished clutches taught.

    A day that went by while nothing ran is made up for from what was known
    then, and marked so. Returns whether there was anything to do; a few at a
    time, so there may be more.
    """
    taught = _learn_due(snapshot, now_s)
    told = {(t.clutch_id, t.day) for t in issued_forecasts.all_told()}
    known = lessons(snapshot) if taught else None
    made = kept = 0
    for clutch in snapshot.clutches:
        if all(egg.slug for egg in snapshot.eggs.get(clutch.entity_id, [])):
            continue
        for day in SCORED_DAYS:
            due_s = clutch.laid_s + day * SECONDS_PER_DAY
            if (clutch.entity_id, day) in told or due_s > now_s or made >= _AT_A_TIME:
                continue
            if _came_after(snapshot, clutch, due_s):
                continue
            made += 1
            known = known or lessons(snapshot)
            told_s = max(due_s, clutch.laid_s + 60.0)
            judged = _Judged(AsOf(snapshot, known, told_s, with_water=False), clutch)
            window = judged.typical_pip()
            late = now_s - due_s > SECONDS_PER_DAY
            if day in JUDGED_DAYS:
                issued_forecasts.keep_standings(judged.standings(day))
            if window is not None:
                kept += 1
                quantiles = (window.p10, window.p25, window.p50, window.p75, window.p90)
                issued_forecasts.keep(
                    IssuedForecast(clutch.entity_id, day, int(now_s), late, quantiles)
                )
    return taught or kept > 0


def scores(snapshot: Snapshot) -> list[Score]:
    """How good the kept forecasts of finished clutches were, by day, first seasons first."""
    came = {clutch: lesson.mean_pip_s for clutch, lesson in issued_forecasts.lessons().items()}
    taught_from_s = min((at_s for _, at_s, _ in lessons(snapshot).finished), default=math.inf)
    held: dict[tuple[bool, int], list[tuple[Window, float]]] = {
        (first, day): [] for first in (True, False) for day in SCORED_DAYS
    }
    for told in issued_forecasts.all_told():
        if (
            snapshot.clutch(told.clutch_id).finished is not None
            and told.clutch_id in came
            and told.day in SCORED_DAYS
        ):
            laid_s = snapshot.clutch_by_id[told.clutch_id].laid_s
            first = laid_s + told.day * SECONDS_PER_DAY < taught_from_s
            held[first, told.day].append((Window(*told.quantiles_s), came[told.clutch_id]))
    found = (score(day, pairs, first_season=first) for (first, day), pairs in held.items())
    return [s for s in found if s is not None]


def _learn_due(snapshot: Snapshot, now_s: float) -> bool:
    kept = issued_forecasts.lessons()
    # Where nobody saw a pip there is nothing to learn, now or at the next look.
    done = [
        c
        for c in snapshot.clutches
        if snapshot.clutch(c.entity_id).finished is not None and _pips(snapshot, c)
    ]
    for undone in kept.keys() - {c.entity_id for c in done}:
        issued_forecasts.forget(undone)
    todo = [
        clutch
        for clutch in done
        if clutch.entity_id not in kept
        or issued_forecasts.changed_since(
            clutch.entity_id,
            kept[clutch.entity_id].after_act_id,
            ActKind.touching(Touch.EVERY_CLUTCH),
        )
    ]
    version = newest_act()
    for clutch in todo[:_AT_A_TIME]:
        issued_forecasts.learn(_lesson(snapshot, clutch, version, now_s))
    return bool(todo)


def _pips(snapshot: Snapshot, clutch: Clutch) -> list[float]:
    eggs = snapshot.eggs.get(clutch.entity_id, [])
    return [s for egg in eggs if (s := snapshot.egg(egg.entity_id).pip_s) is not None]


def _lesson(snapshot: Snapshot, clutch: Clutch, version: int, now_s: float) -> Lesson:
    """ln D at the mean pip of a clutch of which a pip was seen."""
    pips = _pips(snapshot, clutch)
    mean_s = sum(pips) / len(pips)
    at_s = min(max(mean_s, clutch.laid_s + 60.0), now_s)
    pipped = [
        egg
        for egg in snapshot.eggs.get(clutch.entity_id, [])
        if snapshot.egg(egg.entity_id).pip_s is not None
    ]
    groups = groups_by_path(snapshot, clutch, pipped, at_s)
    curves = {path: development_curve(snapshot, path, at_s) for path in groups}
    # Eggs of one clutch share what is learned; each reached it by its own heat.
    developed = sum(len(eggs) * curves[path].now for path, eggs in groups.items()) / len(pipped)
    main = next(iter(curves.values()))
    errors = record_errors(main, developed)
    probe = errors.main_probe
    own = snapshot.clutch(clutch.entity_id)
    wider = snapshot.settings.rules.forecast.maternal_factor if own.kept_by_dam else 1.0
    cabinet = snapshot.shelf_at(snapshot.box_of(clutch, at_s), clutch.laid_s).cabinet_id
    return Lesson(
        clutch.entity_id, version, cabinet, mean_s, math.log(developed),
        wider * errors.sd(besides=probe), len(pips), _at_stage(snapshot, clutch, main),
        probe, 0.0 if probe is None else wider * errors.by_probe[probe],
    )  # fmt: skip


def _came_after(snapshot: Snapshot, clutch: Clutch, at_s: float) -> bool:
    """Whether the eggs were not here yet at that time."""
    origin = snapshot.clutch(clutch.entity_id).origin
    return origin is not None and origin.arrived_s is not None and at_s < origin.arrived_s


def _at_stage(snapshot: Snapshot, clutch: Clutch, curve: DevelopmentCurve) -> float | None:
    """D when a torch showed the stage of a clutch, as its pips tell; None where none did.

    `curve` is up to its mean pip, of which D is taken to be 1.
    """
    origin = snapshot.clutch(clutch.entity_id).origin
    if origin is None or origin.stage_seen_s is None:
        return None
    return 1.0 - (curve.now - curve.at(float(origin.stage_seen_s)))


@dataclass(frozen=True)
class _Judged:
    """A clutch as it would have been told of at a time, not taught by itself."""

    at: AsOf
    clutch: Clutch

    def typical_pip(self) -> Window | None:
        snapshot = self.at.snapshot
        eggs = [egg for egg in snapshot.eggs[self.clutch.entity_id] if not egg.slug]
        groups = groups_by_path(snapshot, self.clutch, eggs, self.at.at_s)
        told = forecast_clutch(
            [EggGroup(self.at.curve(path), len(held)) for path, held in groups.items()],
            prior=self.at.learned(self.clutch).prior,
            maternal=snapshot.clutch(self.clutch.entity_id).kept_by_dam,
        )
        return told.typical_pip

    def standings(self, day: int) -> list[IssuedStanding]:
        """What is told of each egg still closed. The box's water is left out of it."""
        own = self.clutch.entity_id
        return [
            IssuedStanding(egg.entity, day, egg.standing.alive, egg.standing.will_hatch)
            for box in self.at.snapshot.boxes_of(self.clutch, self.at.at_s)
            for egg in box_now(self.at, box).eggs
            if egg.standing is not None and egg.clutch_id == own
        ]
