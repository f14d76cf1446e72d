"""What was forecast and what came: kept on day 0, 30 and 50, learned from, and scored."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Final

from sandboa.core.act_kinds import ActKind, Touch
from sandboa.core.development import (
    SCORED_DAYS,
    DevelopmentCurve,
    FinishedClutch,
    HatchPrior,
    Learned,
    Score,
    Window,
    forecast,
    learn,
    score,
)
from sandboa.core.development.forecast import MATERNAL_FACTOR, log_uncertainty
from sandboa.core.hatching import Fate
from sandboa.core.standing import JUDGED_DAYS, StandingScore, score_standings
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records import issued_forecasts
from sandboa.records.clutches import Clutch
from sandboa.records.facts import newest_act
from sandboa.records.hatching import Finished
from sandboa.records.issued_forecasts import IssuedForecast, Lesson
from sandboa.services.boxes.climate import development_curve
from sandboa.services.clutches.egg_judgements import judge_eggs
from sandboa.services.snapshot.snapshot import Snapshot

#: Lessons, and forecasts, worked out in one look: the watch must not stop for a long history.
_AT_A_TIME: Final = 5


@dataclass(frozen=True)
class Lessons:
    """What finished clutches taught: (clutch, done at s, its lesson), in order of time.

    `maternal` are the clutches whose dam kept them: they teach only their own kind.
    """

    finished: tuple[tuple[int, float, FinishedClutch], ...]
    maternal: frozenset[int] = frozenset()
    _known: dict[tuple[int, int, int | None, bool], Learned] = field(default_factory=dict)

    def learned(
        self, cabinet: int, as_of_s: float, besides: int | None = None, *, maternal: bool = False
    ) -> Learned:
        """The prior in a cabinet from what was finished by `as_of_s`, one clutch left out."""
        by_then = sum(at_s <= as_of_s for _, at_s, _ in self.finished)
        left_out = besides if any(clutch == besides for clutch, *_ in self.finished) else None
        key = (cabinet, by_then, left_out, maternal)
        if key not in self._known:
            taught = [
                f
                for clutch, _, f in self.finished[:by_then]
                if clutch != left_out and (clutch in self.maternal) == maternal
            ]
            self._known[key] = learn(taught, cabinet)
        return self._known[key]


def lessons(snapshot: Snapshot) -> Lessons:
    """The lessons of all clutches that are finished, in order of when; held while they hold."""
    stamp = (snapshot.version, *issued_forecasts.lessons_stamp())
    return snapshot.kept.held("lessons", stamp, lambda: _read_lessons(snapshot))


def _read_lessons(snapshot: Snapshot) -> Lessons:
    kept = issued_forecasts.lessons()
    finished = [
        (
            entity,
            float(done.at_s),
            FinishedClutch(
                kept[entity].cabinet_id,
                kept[entity].log_development,
                kept[entity].sd,
                kept[entity].eggs,
            ),
        )
        for entity, done in closed_clutches(snapshot)
        if entity in kept
    ]
    kept_by_dams = frozenset(
        clutch for clutch, *_ in finished if snapshot.clutch(clutch).kept_by_dam
    )
    return Lessons(tuple(sorted(finished, key=lambda f: (f[1], f[0]))), kept_by_dams)


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
            made += 1
            known = known or lessons(snapshot)
            judged = _Judged.at(snapshot, known, clutch, max(due_s, clutch.laid_s + 60.0))
            window = judged.typical_pip()
            late = now_s - due_s > SECONDS_PER_DAY
            if day in JUDGED_DAYS:
                issued_forecasts.keep_standings(day, judged.standings())
            if window is not None:
                kept += 1
                quantiles = (window.p10, window.p25, window.p50, window.p75, window.p90)
                issued_forecasts.keep(
                    IssuedForecast(clutch.entity_id, day, int(now_s), late, quantiles)
                )
    return taught or kept > 0


def standing_scores(snapshot: Snapshot) -> list[StandingScore]:
    """How good the kept standings of eggs in closed clutches were, by day.

    Eggs of which nobody knows the end, and those taken out closed, say nothing.
    """
    by_day: dict[int, list[tuple[float, bool]]] = {day: [] for day in JUDGED_DAYS}
    ended = {
        egg.entity_id: snapshot.egg(egg.entity_id).pipped
        for clutch, _ in closed_clutches(snapshot)
        for egg in snapshot.eggs.get(clutch, [])
        if not _end_unknown(snapshot, egg.entity_id)
    }
    for egg, day, alive in issued_forecasts.all_standings_told():
        if egg in ended and day in by_day:
            by_day[day].append((alive, ended[egg]))
    rules = snapshot.settings.rules.standing
    found = (score_standings(day, told, rules) for day, told in by_day.items())
    return [s for s in found if s is not None]


def _end_unknown(snapshot: Snapshot, egg: int) -> bool:
    declared = snapshot.egg(egg).fate
    return declared is not None and declared.fate in (Fate.REMOVED, Fate.UNKNOWN)


def scores(snapshot: Snapshot) -> list[Score]:
    """How good the kept forecasts of finished clutches were, by day."""
    came = {clutch: lesson.mean_pip_s for clutch, lesson in issued_forecasts.lessons().items()}
    by_day: dict[int, list[tuple[Window, float]]] = {day: [] for day in SCORED_DAYS}
    for told in issued_forecasts.all_told():
        if (
            snapshot.clutch(told.clutch_id).finished is not None
            and told.clutch_id in came
            and told.day in by_day
        ):
            by_day[told.day].append((Window(*told.quantiles_s), came[told.clutch_id]))
    found = (score(day, pairs) for day, pairs in by_day.items())
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
    curve = development_curve(snapshot, clutch, min(max(mean_s, clutch.laid_s + 60.0), now_s))
    untaught = HatchPrior()
    measured = log_uncertainty(curve, untaught) ** 2 - untaught.sd**2
    if snapshot.clutch(clutch.entity_id).kept_by_dam:
        measured *= MATERNAL_FACTOR**2
    cabinet = snapshot.shelf_at(snapshot.boxes[clutch.entity_id], clutch.laid_s).cabinet_id
    return Lesson(
        clutch.entity_id, version, cabinet, mean_s, math.log(curve.now),
        math.sqrt(max(measured, 0.0)), len(pips),
    )  # fmt: skip


@dataclass(frozen=True)
class _Judged:
    """A clutch as it would have been told of at `as_of_s`, not taught by itself."""

    snapshot: Snapshot
    clutch: Clutch
    curve: DevelopmentCurve
    prior: HatchPrior
    as_of_s: float

    @classmethod
    def at(cls, snapshot: Snapshot, known: Lessons, clutch: Clutch, as_of_s: float) -> "_Judged":
        cabinet = snapshot.shelf_at(snapshot.boxes[clutch.entity_id], as_of_s).cabinet_id
        maternal = snapshot.clutch(clutch.entity_id).kept_by_dam
        prior = known.learned(cabinet, as_of_s, besides=clutch.entity_id, maternal=maternal).prior
        curve = development_curve(snapshot, clutch, as_of_s)
        return cls(snapshot, clutch, curve, prior, as_of_s)

    def typical_pip(self) -> Window | None:
        eggs = sum(not egg.slug for egg in self.snapshot.eggs[self.clutch.entity_id])
        told = forecast(
            self.curve,
            eggs,
            prior=self.prior,
            maternal=self.snapshot.clutch(self.clutch.entity_id).kept_by_dam,
        )
        return told.typical_pip

    def standings(self) -> dict[int, float]:
        """The chance of each egg still closed, by entity. The box's water is left out of it."""
        at_pip = math.exp(self.prior.mean)
        view = judge_eggs(self.snapshot, self.clutch, self.curve, self.as_of_s, at_pip, None)
        entities = {egg.number: egg.entity_id for egg in self.snapshot.eggs[self.clutch.entity_id]}
        return {
            entities[egg.number]: egg.standing.alive
            for egg in view.eggs
            if egg.standing is not None
        }


def closed_clutches(snapshot: Snapshot) -> Iterator[tuple[int, Finished]]:
    """Every closed clutch by its id, and when it was closed."""
    for clutch, held in snapshot.histories.clutches.items():
        if held.finished is not None:
            yield clutch, held.finished
