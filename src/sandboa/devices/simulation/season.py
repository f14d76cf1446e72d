"""A whole simulated season: cabinets with what befalls them, pairs, clutches and their ends."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from sandboa.devices.simulation.cabinet import CabinetModel, run
from sandboa.devices.simulation.eggs import SimulatedClutch, developed
from sandboa.devices.simulation.season_boxes import clutch
from sandboa.devices.simulation.season_findings import falsified
from sandboa.devices.simulation.season_hazards import (
    NO_HAZARD,
    OF_BOX,
    SECOND,
    CabinetHazard,
    cabinet_hazard,
    draw,
    hazard_of,
)
from sandboa.devices.simulation.season_nests import Nest
from sandboa.devices.simulation.season_stories import (
    AnimalStory,
    CabinetStory,
    ClutchStory,
    SeasonStory,
)

_DAY_S: Final = 86_400.0
#: s between two steps of the cabinets: longer ones would make the thermostat swing by itself.
_STEP_S: Final = 300.0
_SHELVES: Final = ("upper", "lower")
#: Days over which clutches are laid, and the season lasts.
_LAYING_DAYS: Final = 34.0
SEASON_DAYS: Final = 115.0
#: Hazards that strike a cabinet whatever else befalls its temperature.
_BESIDE_OTHERS: Final = ("blackout", "fumes")
#: Hazards of a clutch that go with any box.
_BESIDE_BOXES: Final = ("spent mother", "double dose", "fly brood", "hidden strain")
#: The gene whose double form dies, carried by both parents where the hazard says so.
LETHAL: Final = ("Asphalt", "incomplete dominant", "dies")
FINE: Final = ("Puzzle", "recessive", "fine")


#: (laid on day, shelf) -> days since lay, share developed.
Curves = Callable[[float, int], tuple[np.ndarray, np.ndarray]]


@dataclass(frozen=True)
class Habits:
    """What the keeper does; withheld, causes have less to go by.

    `misreads` is the share of what is found on opening that is noted wrong.
    """

    weighs: bool = True
    candles: bool = True
    every_days: float = 6.0
    misreads: float = 0.0


def season(
    seed: int, began_s: float, *, cabinets: int = 2, clutches: int = 5, habits: Habits | None = None
) -> SeasonStory:
    """A season of `cabinets` with `clutches` in each, begun at `began_s` (s)."""
    random = np.random.default_rng(seed)
    habits = habits or Habits()
    told_cabinets, told_clutches, animals = [], [], []
    for number in range(cabinets):
        set_point_c = float(random.choice([31.1, 31.5]))
        hazard = cabinet_hazard(began_s, _LAYING_DAYS + 30.0, set_point_c, random)
        second = NO_HAZARD
        if random.random() < SECOND:
            cause = str(random.choice(_BESIDE_OTHERS))
            second = hazard_of(cause, began_s, _LAYING_DAYS + 30.0, set_point_c, random)
        both = replace(
            hazard,
            mishaps=(*hazard.mishaps, *second.mishaps),
            altered_day=hazard.altered_day if second.altered_day is None else second.altered_day,
        )
        cabinet, curves = _cabinet(f"Cabinet {number + 1}", both, began_s, set_point_c, random)
        told_cabinets.append(cabinet)
        for place in range(clutches):
            box_hazard = draw(OF_BOX, random)
            second_hazard = str(random.choice(_BESIDE_BOXES)) if random.random() < SECOND else None
            dam, sire = f"Dam {number + 1}{place + 1}", f"Sire {number + 1}{place + 1}"
            laid_day = float(random.uniform(1.0, _LAYING_DAYS))
            nest = Nest(
                dam, sire, laid_day, cabinet.name, _SHELVES[place % 2],
                eggs=int(random.integers(5, 9)), slugs=int(random.random() < 0.25),
                hazard=box_hazard, cabinet_hazard=hazard,
                second=second_hazard, second_of_cabinet=second,
                curve=curves(laid_day, place % 2), humidity=float(random.uniform(0.5, 0.7)),
                every_days=habits.every_days, weighs=habits.weighs, candles=habits.candles,
            )  # fmt: skip
            told_clutches.append(_noted(clutch(nest, random), habits.misreads, random))
            animals += _parents(nest, random)
    known = {animal.name: animal for animal in animals}
    return SeasonStory(
        SEASON_DAYS,
        tuple(told_cabinets),
        tuple(known.values()),
        tuple(told_clutches),
        (LETHAL, FINE),
    )


def _noted(story: ClutchStory, misreads: float, random: np.random.Generator) -> ClutchStory:
    """The clutch with as much of what was found noted wrong."""
    eggs = tuple(
        replace(egg, findings=falsified(egg.findings, misreads, random)) for egg in story.eggs
    )
    return replace(story, eggs=eggs)


def _cabinet(
    name: str,
    hazard: CabinetHazard,
    began_s: float,
    set_point_c: float,
    random: np.random.Generator,
) -> tuple[CabinetStory, Curves]:
    model = CabinetModel(
        shelves=len(_SHELVES),
        set_point_c=set_point_c,
        set_points=hazard.set_points,
        heater_share=(0.6, 0.4),
        air_j_k=6_000.0,
        gain_per_c=0.2,
        room_c=float(random.uniform(19.0, 22.0)),
        humidity=float(random.uniform(0.5, 0.65)),
        mishaps=hazard.mishaps,
    )
    # Cabinets are old unless vapours are the matter: then it was altered before the season.
    first_day = -420.0
    seed = int(random.integers(1 << 30))
    was = run(model, began_s, began_s + SEASON_DAYS * _DAY_S, _STEP_S, seed)
    story = CabinetStory(
        name, _SHELVES, set_point_c, was, hazard.mishaps, first_day, hazard.altered_day
    )

    def curve(laid_day: float, shelf: int) -> tuple[np.ndarray, np.ndarray]:
        laid_s = began_s + laid_day * _DAY_S
        eggs = SimulatedClutch(laid_s, 6, shelf, pace=float(random.normal(0.0, 0.03)))
        reached = developed(eggs, was.times_s, was.box_c[:, shelf])
        after = was.times_s >= laid_s
        return (was.times_s[after] - laid_s) / _DAY_S, reached[after]

    return story, curve


def _parents(nest: Nest, random: np.random.Generator) -> list[AnimalStory]:
    lethal = "double dose" in nest.hazards
    carried = (("Asphalt", "visual"),) if lethal else ()
    other = () if lethal or random.random() < 0.6 else (("Puzzle", "one copy"),)
    poor = "spent mother" in nest.hazards
    before_g = float(random.normal(1380.0, 60.0) if poor else random.normal(1950.0, 180.0))
    weights = tuple((nest.laid_day - ago, before_g) for ago in (200.0, 120.0))
    return [
        AnimalStory(
            nest.dam, "dam", 3 if poor else int(random.integers(6, 12)), carried or other, weights
        ),
        AnimalStory(nest.sire, "sire", 5, carried),
    ]
