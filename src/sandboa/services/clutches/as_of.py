"""The house at one moment: how far each egg is, worked out once for eggs that went one way."""

import math
from dataclasses import dataclass, field
from typing import Any

from sandboa.core.development import DevelopmentCurve, Learned
from sandboa.records.clutches import Clutch, Egg
from sandboa.services.boxes.climate import development_curve
from sandboa.services.boxes.egg_paths import EggPath, groups_by_path, path_of_egg
from sandboa.services.clutches.lessons import Lessons, circumstances, lessons
from sandboa.services.snapshot.kept import Same
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True, slots=True)
class EggStage:
    """How far an egg is: its development along its way, and D at which its clutch's typical egg
    pips."""

    curve: DevelopmentCurve
    at_pip: float

    @property
    def share(self) -> float:
        """Share developed now, p = D / at_pip."""
        return self.curve.now / self.at_pip

    def share_at(self, time_s: float) -> float:
        """Share developed at a time."""
        return self.curve.at(time_s) / self.at_pip


@dataclass
class AsOf:
    """What is asked of the house as it stood at `at_s`, with what finished clutches taught.

    `boxes` and `clutches` hold what was judged of them, by id. `with_water` false leaves their
    water out of every judgement.
    """

    snapshot: Snapshot
    known: Lessons
    at_s: float
    with_water: bool = True
    boxes: dict[int, Any] = field(default_factory=dict)
    clutches: dict[int, Any] = field(default_factory=dict)
    _curves: dict[EggPath, DevelopmentCurve] = field(default_factory=dict)
    _learned: dict[int, Learned] = field(default_factory=dict)

    def curve(self, path: EggPath) -> DevelopmentCurve:
        """D(t) along a way."""
        if path not in self._curves:
            self._curves[path] = development_curve(self.snapshot, path, self.at_s)
        return self._curves[path]

    def learned(self, clutch: Clutch) -> Learned:
        """The prior of a clutch where most of its eggs lie, not taught by itself."""
        own = clutch.entity_id
        if own not in self._learned:
            self._learned[own] = self.known.learned(
                circumstances(self.snapshot, clutch, self.curve(self._main_path(clutch))),
                self.at_s,
                besides=own,
                maternal=self.snapshot.clutch(own).kept_by_dam,
            )
        return self._learned[own]

    def _main_path(self, clutch: Clutch) -> EggPath:
        """The way of most of a clutch's eggs, slugs aside where it has others."""
        eggs = self.snapshot.eggs.get(clutch.entity_id, [])
        fertile = [egg for egg in eggs if not egg.slug]
        return next(iter(groups_by_path(self.snapshot, clutch, fertile or eggs, self.at_s)))

    def at_pip(self, clutch: Clutch) -> float:
        """D at which the typical egg of a clutch pips: 1, as far as nothing was learned."""
        return math.exp(self.learned(clutch).prior.mean)

    def path(self, egg: Egg) -> EggPath:
        """The way an egg went."""
        clutch = self.snapshot.clutch_by_id[egg.clutch_id]
        return path_of_egg(self.snapshot, clutch, egg, self.at_s)

    def stage(self, egg: Egg) -> EggStage:
        """How far an egg is."""
        clutch = self.snapshot.clutch_by_id[egg.clutch_id]
        return EggStage(self.curve(self.path(egg)), self.at_pip(clutch))


def at_hand(snapshot: Snapshot, at_s: float) -> AsOf:
    """The house at a moment, with what was judged of it for whoever asked before.

    It holds until an act is recorded, a reading comes, or another moment is asked for.
    """
    known = lessons(snapshot)
    stamp = (at_s, snapshot.readings.newest_change(), Same(known))
    return snapshot.own.held("the house at a moment", stamp, lambda: AsOf(snapshot, known, at_s))
