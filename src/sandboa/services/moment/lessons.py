"""What finished clutches of the house taught: learned from, one of them left out."""

import math
import statistics
from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property

from sandboa.core.development import (
    Circumstances,
    DevelopmentCurve,
    FinishedClutch,
    HouseLearning,
    Learned,
    learn,
    record_errors,
)
from sandboa.core.development.rules import ForecastRules
from sandboa.core.past_clutches.first_pip import past_pip
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records import issued_forecasts
from sandboa.records.clutches import Clutch, PastClutch
from sandboa.records.facts import recorded_s_of
from sandboa.records.hatching import Finished
from sandboa.records.issued_forecasts import Lesson
from sandboa.services.boxes.egg_paths import groups_by_path
from sandboa.services.snapshot.closed_clutches import record_of_closed
from sandboa.services.snapshot.kept import Same
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True)
class Lessons:
    """What finished clutches taught: (clutch, done at s, its lesson), in order of time.

    Past clutches that were recorded with a first pip are among them from when they were recorded.

    `maternal` are the clutches whose dam kept them: they teach only their own kind; `rules` are the
    numbers it is learned with.
    """

    finished: tuple[tuple[int, float, FinishedClutch], ...]
    maternal: frozenset[int] = frozenset()
    rules: ForecastRules = field(default_factory=ForecastRules)
    _known: dict[tuple[int, bool], HouseLearning] = field(default_factory=dict)

    def learned(
        self,
        where: Circumstances,
        as_of_s: float,
        besides: int | None = None,
        *,
        maternal: bool = False,
    ) -> Learned:
        """The prior of a clutch from what was finished by `as_of_s`, one clutch left out."""
        known = self.house(as_of_s, maternal=maternal)
        own = self._by_clutch.get(besides) if besides is not None else None
        return (known if own is None else known.without(own)).expect(where)

    def house(self, as_of_s: float, *, maternal: bool = False) -> HouseLearning:
        """What all of them taught together by `as_of_s`."""
        by_then = sum(at_s <= as_of_s for _, at_s, _ in self.finished)
        key = (by_then, maternal)
        if key not in self._known:
            self._known[key] = learn(
                [
                    f
                    for clutch, _, f in self.finished[:by_then]
                    if (clutch in self.maternal) == maternal
                ],
                self.rules,
            )
        return self._known[key]

    @cached_property
    def _by_clutch(self) -> dict[int, FinishedClutch]:
        return {clutch: lesson for clutch, _, lesson in self.finished}


def circumstances(snapshot: Snapshot, clutch: Clutch, curve: DevelopmentCurve) -> Circumstances:
    """What a clutch may share with others; `curve` is D(t) where most of its eggs lie."""
    at_s = curve.temperature.as_of_s
    errors = record_errors(curve)
    probe = errors.main_probe
    return Circumstances(
        snapshot.shelf_at(snapshot.box_of(clutch, at_s), at_s).cabinet_id,
        clutch.dam_id,
        curve.mean_c(),
        probe,
        0.0 if probe is None else errors.by_probe[probe],
    )


def lessons(snapshot: Snapshot) -> Lessons:
    """The lessons of all clutches that are finished, in order of when; held while they hold."""
    stamp = (
        record_of_closed(snapshot),
        Same(snapshot.settings, snapshot.past_clutches),
        *issued_forecasts.lessons_stamp(),
    )
    return snapshot.kept.held("lessons", stamp, lambda: _read_lessons(snapshot))


def _read_lessons(snapshot: Snapshot) -> Lessons:
    kept = issued_forecasts.lessons()
    finished = [
        (entity, float(done.at_s), _finished_clutch(snapshot, kept[entity]))
        for entity, done in closed_clutches(snapshot)
        if entity in kept
    ]
    finished += _of_past_clutches(snapshot)
    kept_by_dams = frozenset(
        clutch for clutch, *_ in finished if snapshot.clutch(clutch).kept_by_dam
    )
    ordered = tuple(sorted(finished, key=lambda f: (f[1], f[0])))
    return Lessons(ordered, kept_by_dams, snapshot.settings.rules.forecast)


def _of_past_clutches(snapshot: Snapshot) -> Iterator[tuple[int, float, FinishedClutch]]:
    pipped = [(row, row.first_pip_s) for row in snapshot.past_clutches if row.first_pip_s]
    recorded_s = recorded_s_of({row.act_id for row, _ in pipped})
    rules = snapshot.settings.rules
    for row, first_pip_s in pipped:
        days = (first_pip_s - row.laid_s) / SECONDS_PER_DAY
        lesson = past_pip(row.dam_id, days, _pipped(row), row.kept_c, rules.forecast, rules.clock)
        yield row.entity_id, recorded_s[row.act_id], lesson


def _pipped(row: PastClutch) -> int:
    """Eggs among which the first pip was the first: those that hatched, or could have."""
    return row.hatched or int(row.eggs - row.slugs)


def _finished_clutch(snapshot: Snapshot, lesson: Lesson) -> FinishedClutch:
    clutch = snapshot.clutch_by_id[lesson.clutch_id]
    days = max(lesson.mean_pip_s - clutch.laid_s, 60.0) / SECONDS_PER_DAY
    where = Circumstances(
        lesson.cabinet_id,
        clutch.dam_id,
        snapshot.settings.rules.clock.steady_c(math.exp(lesson.log_development), days),
        lesson.probe,
        lesson.probe_sd,
    )
    return FinishedClutch(
        where,
        lesson.log_development,
        lesson.sd,
        lesson.eggs,
        _variance_of_pips(snapshot, clutch),
    )


def _variance_of_pips(snapshot: Snapshot, clutch: Clutch) -> float | None:
    """Variance (days²) among the pips that were seen of eggs that had the same heat."""
    eggs = [
        egg
        for egg in snapshot.eggs.get(clutch.entity_id, [])
        if snapshot.egg(egg.entity_id).pip_s is not None
    ]
    if len(eggs) < 2:
        return None
    last_s = max(snapshot.egg(egg.entity_id).pip_s or 0.0 for egg in eggs)
    if len(groups_by_path(snapshot, clutch, eggs, last_s)) > 1:
        return None
    days = [(snapshot.egg(egg.entity_id).pip_s or 0.0) / SECONDS_PER_DAY for egg in eggs]
    return statistics.variance(days)


def closed_clutches(snapshot: Snapshot) -> Iterator[tuple[int, Finished]]:
    """Every closed clutch by its id, and when it was closed."""
    for clutch, held in snapshot.histories.clutches.items():
        if held.finished is not None:
            yield clutch, held.finished
