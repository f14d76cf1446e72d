"""The house at one moment: how far each egg is, and what was judged of it, worked out once."""

import math
from collections.abc import Hashable
from dataclasses import dataclass, field
from functools import cached_property
from threading import Lock

from sandboa.core.development import DevelopmentCurve, Learned
from sandboa.records.clutches import Clutch, Egg
from sandboa.services.boxes.climate import development_curve
from sandboa.services.boxes.egg_paths import EggPath, groups_by_path, path_of_egg
from sandboa.services.moment.lessons import Lessons, circumstances, lessons
from sandboa.services.moment.rests_on import of_each_group, of_every_clutch
from sandboa.services.moment.shared_boxes import Group, Groups, groups
from sandboa.services.moment.worked_out import WorkedOut
from sandboa.services.series.cache import Tip
from sandboa.services.series.readings_used import same
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

    `groups` hold what was worked out of clutches that share boxes. `with_water` false leaves
    their water out of every judgement.
    """

    snapshot: Snapshot
    known: Lessons
    at_s: float
    with_water: bool = True
    groups: dict[Group | None, WorkedOut] = field(default_factory=dict)

    @cached_property
    def _groups(self) -> Groups:
        return groups(self.snapshot)

    def of_clutch(self, clutch: int) -> WorkedOut:
        """What was worked out of a clutch and those that share its boxes."""
        return self._of(self._groups.of_clutch.get(clutch))

    def of_box(self, box: int) -> WorkedOut:
        """What was worked out of a box and of whose eggs lay in it."""
        return self._of(self._groups.of_box.get(box))

    def _of(self, group: Group | None) -> WorkedOut:
        """That of boxes without eggs is one, under None."""
        return self.groups.setdefault(group, WorkedOut())

    def curve(self, path: EggPath) -> DevelopmentCurve:
        """D(t) along a way."""
        return self.of_box(path.last).once(
            path, lambda: development_curve(self.snapshot, path, self.at_s)
        )

    def learned(self, clutch: Clutch) -> Learned:
        """The prior of a clutch where most of its eggs lie, not taught by itself."""
        own = clutch.entity_id

        def learn() -> Learned:
            return self.known.learned(
                circumstances(self.snapshot, clutch, self.curve(self._main_path(clutch))),
                self.at_s,
                besides=own,
                maternal=self.snapshot.clutch(own).kept_by_dam,
            )

        return self.of_clutch(own).once(("learned", own), learn)

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
        return self.of_clutch(egg.clutch_id).once(
            ("path", egg.entity_id), lambda: path_of_egg(self.snapshot, clutch, egg, self.at_s)
        )

    def stage(self, egg: Egg) -> EggStage:
        """How far an egg is."""
        clutch = self.snapshot.clutch_by_id[egg.clutch_id]
        return self.of_clutch(egg.clutch_id).once(
            ("stage", egg.entity_id),
            lambda: EggStage(self.curve(self.path(egg)), self.at_pip(clutch)),
        )


def at_hand(snapshot: Snapshot, at_s: float) -> AsOf:
    """The house at a moment, with what was judged of it for whoever asked before.

    What an act or a reading does not touch is carried on from the one asked for last.
    """
    known = lessons(snapshot)
    stamp = (snapshot.version, at_s, snapshot.readings.newest_change(), Same(known))
    last = snapshot.kept.held("last asked for", None, _Last)
    if last.stamp is not None and at_s < last.at.at_s:
        # Late entries ask for a time that was: that is no reason to let go of now.
        return snapshot.own.held("an earlier moment", stamp, lambda: AsOf(snapshot, known, at_s))
    with last.lock:
        if last.stamp != stamp:
            _carry_on(last, AsOf(snapshot, known, at_s))
            last.stamp = stamp
        return last.at


@dataclass
class _Last:
    """The house as it was asked for last, and what each group of it rests on."""

    stamp: Hashable = None
    at: AsOf = field(init=False)
    of_every_clutch: Hashable = None
    of_groups: dict[Group, Same] = field(default_factory=dict)
    tips: dict[int, Tip] = field(default_factory=dict)
    lock: Lock = field(default_factory=Lock)


def _carry_on(last: _Last, at: AsOf) -> None:
    # Where records end first: what is read meanwhile is new the next time.
    tips = at.snapshot.readings.tips()
    every = of_every_clutch(at.snapshot, at.known, at.at_s)
    of_groups = of_each_group(at.snapshot)
    if last.of_every_clutch == every:
        at.groups = {
            group: worked.copy()
            for group, worked in list(last.at.groups.items())
            if group in of_groups
            and last.of_groups.get(group) == of_groups[group]
            and same(worked.readings, last.tips, tips)
        }
    last.at, last.of_every_clutch, last.of_groups, last.tips = at, every, of_groups, tips
