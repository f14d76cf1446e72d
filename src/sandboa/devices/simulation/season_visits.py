"""Simulated rounds: when a keeper opens a box, and what is seen, weighed and noted there."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from sandboa.devices.simulation.boxes import BoxTruth
from sandboa.devices.simulation.fates import EggFate, Glance, glance
from sandboa.devices.simulation.season_nests import Nest, Planned
from sandboa.devices.simulation.season_stories import ClutchStory, EggStory, VisitStory

#: Days from the last pip of a clutch to its closing.
AFTER_DAYS: Final = 5.0
#: Share developed from which the lid of a box rains whatever its medium: the eggs' own water.
_EGGS_SWEAT_FROM: Final = 0.9


@dataclass(frozen=True)
class Box:
    """A clutch in its box: how it goes, how each egg's life goes (by number), and its water."""

    story: ClutchStory
    lives: dict[int, EggFate]
    water: BoxTruth

    def left(self, day: float) -> float:
        """Water left on that day since lay, as a share of what was poured in."""
        return float(self.water.water_g[self._at(day)]) / self.story.water_g

    def mass_g(self, day: float) -> float:
        """What the whole box weighs on that day."""
        return self.story.set_up_g + float(self.water.mass_g[self._at(day)])

    def _at(self, day: float) -> int:
        return min(int(day), len(self.water.water_g) - 1)


def visits(nest: Nest, box: Box, random: np.random.Generator) -> Iterator[VisitStory]:
    """Every visit from lay to the last pips, in order."""
    told: set[tuple[int, str]] = set()
    for planned in nest.planned if nest.planned is not None else _rhythm(nest, box, random):
        yield _visit(nest, box, planned, told, random)


def _rhythm(nest: Nest, box: Box, random: np.random.Generator) -> Iterator[Planned]:
    """Every so many days; a keeper who leaves air stale does not look in late in the term."""
    day = 2.0 + float(random.uniform(0.0, 2.0))
    while day < box.story.days - AFTER_DAYS - 1.0:
        if not ("stuffy" in nest.hazards and nest.share(day) > 0.6):
            candles = 4.5 < day < 9.0 or int(day / nest.every_days) % 2 == 0
            yield Planned(day, nest.weighs, nest.candles and candles)
        day += nest.every_days * float(random.uniform(0.8, 1.2))


def _visit(
    nest: Nest,
    box: Box,
    planned: Planned,
    told: set[tuple[int, str]],
    random: np.random.Generator,
) -> VisitStory:
    day = planned.day
    share, left = nest.share(day), box.left(day)
    glances: dict[int, Glance] = {}
    for number, lived in box.lives.items():
        dry = lived.dented_at(left)
        seen = glance(lived, share, candled=planned.candles, dry_box=dry, random=random)
        if box.story.eggs[number - 1].cause == "blank" and planned.candles:
            seen = replace(seen, vessels="none" if random.random() < 0.9 else "unsure")
        glances[number] = seen
    happened = []
    for egg in box.story.eggs:
        for what, recorded in _happenings(egg, days=nest.curve[0], shares=nest.curve[1]):
            if recorded <= day and (egg.number, what) not in told:
                told.add((egg.number, what))
                happened.append((egg.number, what))
    return VisitStory(
        day,
        glances,
        lid=_lid(nest, left, share, random),
        medium=_medium(nest, left, random),
        mass_g=box.mass_g(day) + _scale_error(random) if planned.weighs else None,
        pests=_pests(nest, share, looked=planned.candles),
        happened=tuple(happened),
    )


def _pests(nest: Nest, share: float, *, looked: bool) -> str | None:
    """Flies are seen by anybody; that there are none is said by who takes the eggs to a torch."""
    if "fly brood" in nest.hazards and share > 0.25:
        return "flies"
    return "none" if looked else None


def _scale_error(random: np.random.Generator) -> float:
    """g; what is further off is weighed again."""
    return float(np.clip(random.normal(0.0, 2.0), -3.5, 3.5))


def _happenings(egg: EggStory, days: np.ndarray, shares: np.ndarray) -> list[tuple[str, float]]:
    """What befell an egg after lay day, as the keeper notes it: kind and day."""
    told = []
    for kind, key in (("rolled", "rolled"), ("dropped", "knocked")):
        share = egg.findings.get(f"_{key}")
        if share and float(share[0]) > 0.01:
            told.append((kind, float(np.interp(float(share[0]), shares, days))))
    return told


def _lid(nest: Nest, left: float, share: float, random: np.random.Generator) -> str:
    if "soaked" in nest.hazards:
        return "raining" if random.random() < 0.75 else "half"
    if share > _EGGS_SWEAT_FROM:
        return "raining" if random.random() < 0.7 else "half"
    if left < 0.3:
        return "none" if random.random() < 0.8 else "edges"
    return str(random.choice(["edges", "half", "none"], p=[0.75, 0.15, 0.10]))


def _medium(nest: Nest, left: float, random: np.random.Generator) -> str | None:
    if random.random() < 0.35:
        return None
    if "soaked" in nest.hazards:
        return "drips" if random.random() < 0.8 else "clumps"
    if left < 0.12:
        return "dry" if random.random() < 0.8 else "barely damp"
    if left < 0.4:
        return "barely damp"
    return "clumps"
