"""The season behind: seven clutches of last year, simulated, and told as they were recorded.

The seed is chosen so that the season holds what a demo has to show; what is
forced is said so: a full-term loss in a sealed box that nobody opened, a
malformed one, a box that dried out.
"""

from collections.abc import Iterator
from functools import partial
from typing import Final

from sandboa.demo.replay import Event, tell_clutch
from sandboa.demo.scenario.climate import LOGGERS, NORTH, SET_POINT_C, SMALL
from sandboa.demo.scenario.clutches import (
    CORNER,
    FILM,
    HALF,
    PIN_HOLES,
    SATURATED,
    VERMICULITE,
    GardenClutch,
    story_of,
)
from sandboa.devices.simulation import Sensor, log_probe, run
from sandboa.devices.simulation.cabinet import CabinetModel, Climate
from sandboa.records.house import Device, named
from sandboa.services.readings.intake import take_in

_DAY_S: Final = 86_400.0
#: Days before today on which last season began, and how long it lasted.
BEGAN_DAYS_AGO: Final = 415.0
_DAYS: Final = 96.0
_STEP_S: Final = 600.0
_EVERY_S: Final = 7_200.0


_DRY: Final = 0.42
_USUAL: Final = 0.55

#: Days after the season's beginning on which each was laid.
_PAST: Final = (
    (2.0, GardenClutch("Tansy", "Flint", 6, 0, NORTH, "upper", VERMICULITE, PIN_HOLES,
                       humidity=_USUAL)),
    (6.5, GardenClutch("Sorrel", "Marl", 8, 1, NORTH, "middle", HALF, FILM, seed=4,
                       hazard="stuffy", humidity=_USUAL)),
    (9.0, GardenClutch("Yarrow", "Chert", 7, 0, NORTH, "lower", SATURATED, CORNER, seed=3,
                       hazard="parched", humidity=_DRY)),
    (13.0, GardenClutch("Lovage", "Slate", 5, 1, SMALL, "shelf", VERMICULITE, PIN_HOLES,
                        humidity=_USUAL)),
    (17.5, GardenClutch("Chervil", "Flint", 6, 0, NORTH, "upper", VERMICULITE, PIN_HOLES, seed=6,
                        humidity=_USUAL, forced=((4, "twisted"),))),
    (22.0, GardenClutch("Hyssop", "Slate", 7, 2, SMALL, "shelf", VERMICULITE, PIN_HOLES,
                        humidity=_USUAL)),
    (27.0, GardenClutch("Costmary", "Chert", 6, 0, NORTH, "lower", HALF, PIN_HOLES, seed=2,
                        humidity=_USUAL, forced=((2, "bump"),))),
)  # fmt: skip


def last_year(now_s: float, year: int) -> Iterator[Event]:
    """What is told of last season, each at its time; its codes are of `year` (two digits)."""
    began_s = now_s - BEGAN_DAYS_AGO * _DAY_S
    began_s -= began_s % _EVERY_S
    climates = {name: _climate(name, began_s) for name in (NORTH, SMALL)}
    for number, (day, past) in enumerate(_PAST, start=1):
        laid_s = began_s + day * _DAY_S
        story = story_of(past, laid_s, climates[past.cabinet])
        code = f"{year:02d}-{number:02d}"
        yield from tell_clutch(story, code, laid_s, SET_POINT_C[past.cabinet])
    ended_s = began_s + _DAYS * _DAY_S
    for name, was in climates.items():
        yield ended_s, partial(_send, name, was, ended_s)


def _climate(name: str, began_s: float) -> Climate:
    shelves = len(LOGGERS[name]) if name == NORTH else 1
    model = CabinetModel(
        shelves=shelves,
        set_point_c=SET_POINT_C[name],
        heater_share=(0.74, 0.22, 0.04) if shelves == 3 else (1.0,),
        air_j_k=6_000.0,
        gain_per_c=0.2,
        room_c=20.5,
        humidity=0.6,
    )
    return run(model, began_s, began_s + _DAYS * _DAY_S, _STEP_S, seed=11)


def _send(cabinet: str, was: Climate, ended_s: float) -> None:
    gateway = named(Device, "Garden gateway")
    assert gateway is not None, "the gateway is told of first"
    for number, (name, shelf) in enumerate(LOGGERS[cabinet]):
        logged = log_probe(
            name, was, shelf, sensor=Sensor(noise_c=0.025, step_c=0.05, every_s=_EVERY_S),
            seed=number,
        )  # fmt: skip
        take_in(gateway, [(name, at_s, c, h) for at_s, c, h in logged.rows()], ended_s)
