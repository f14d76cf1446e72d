"""Clutches of the garden room: what is said of one before it is simulated, and its simulation.

A keeper says who paired, where the box stands and when it is looked at; who
hatches, what is seen and what a box weighs is left to the simulation and its seed.
"""

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from sandboa.demo.scenario.animals import RECESSIVE, copies_of
from sandboa.devices.simulation.cabinet import Climate
from sandboa.devices.simulation.eggs import SimulatedClutch, developed
from sandboa.devices.simulation.heredity import shown_traits
from sandboa.devices.simulation.season_boxes import clutch
from sandboa.devices.simulation.season_hazards import CabinetHazard
from sandboa.devices.simulation.season_nests import Nest, Planned
from sandboa.devices.simulation.season_stories import ClutchStory

_DAY_S: Final = 86_400.0
_SHELVES: Final = {"upper": 0, "middle": 1, "lower": 2, "shelf": 0}
_BETWEEN_VISITS_DAYS: Final = 11.0
#: Days of climate that stand for those to come, and how many of these are made up.
_LATELY_DAYS: Final = 7.0
_AHEAD_DAYS: Final = 90.0

VERMICULITE: Final = "vermiculite"
SATURATED: Final = "saturated perlite"
HALF: Final = "half and half"
PIN_HOLES: Final = "lid with 1-2 pin holes"
FILM: Final = "sealed film"
CORNER: Final = "film with a cracked corner"


@dataclass(frozen=True)
class GardenClutch:
    """A pair, its eggs and their box. `forced` are (egg, what takes it); masses are in g.

    Without `planned` the box is visited every so many days; without `humidity`
    its air is that of the cabinet.
    """

    dam: str
    sire: str
    eggs: int
    slugs: int
    cabinet: str
    shelf: str
    medium: str
    closing: str
    seed: int = 1
    hazard: str | None = None
    forced: tuple[tuple[int, str], ...] = ()
    humidity: float | None = None
    dry_g: float | None = None
    water_g: float | None = None
    set_up_g: float | None = None
    planned: tuple[Planned, ...] | None = None


def story_of(garden: GardenClutch, laid_s: float, was: Climate) -> ClutchStory:
    """The clutch from `laid_s` (s) to its closing, in the climate that was and goes on so."""
    shelf = _SHELVES[garden.shelf]
    random = np.random.default_rng(garden.seed)
    pace = float(random.normal(-0.02, 0.02))
    reached = developed(
        SimulatedClutch(laid_s, garden.eggs, shelf, pace), was.times_s, was.box_c[:, shelf]
    )
    after = was.times_s >= laid_s
    nest = Nest(
        garden.dam, garden.sire, 0.0, garden.cabinet, garden.shelf, garden.eggs, garden.slugs,
        garden.hazard, CabinetHazard(),
        curve=_on_and_on((was.times_s[after] - laid_s) / _DAY_S, reached[after]),
        humidity=garden.humidity or float(was.humidity.mean()),
        every_days=_BETWEEN_VISITS_DAYS, forced=garden.forced, only_forced=True,
        closing=garden.closing, medium=garden.medium,
        dry_g=garden.dry_g, water_g=garden.water_g, set_up_g=garden.set_up_g,
        planned=garden.planned,
    )  # fmt: skip
    told = clutch(nest, random)
    # By a seed of its own: what they look like changes nothing of how they fared.
    looks = np.random.default_rng([garden.seed, garden.eggs])
    her, his = copies_of(garden.dam), copies_of(garden.sire)
    eggs = tuple(replace(egg, traits=shown_traits(her, his, RECESSIVE, looks)) for egg in told.eggs)
    return replace(told, eggs=eggs)


def _on_and_on(days: np.ndarray, shares: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """The curve, both (n,), and after its end straight on at the pace of its last days."""
    lately = days >= days[-1] - _LATELY_DAYS
    pace = (shares[-1] - shares[lately][0]) / (days[-1] - days[lately][0])
    return (
        np.append(days, days[-1] + _AHEAD_DAYS),
        np.append(shares, shares[-1] + pace * _AHEAD_DAYS),
    )
