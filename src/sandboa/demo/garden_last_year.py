"""The season behind: seven clutches of last year, simulated, and told as they were recorded.

The seed is chosen so that the season holds what a demo has to show; what is
forced is said so: a full-term loss in a sealed box that nobody opened, a
malformed one, a box that dried out.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import partial
from typing import Final

import numpy as np

from sandboa.demo.garden_climate import LOGGERS, NORTH, SET_POINT_C, SMALL
from sandboa.demo.telling import Event, tell_clutch
from sandboa.devices.simulation import Sensor, log_probe, run
from sandboa.devices.simulation.cabinet import CabinetModel, Climate
from sandboa.devices.simulation.eggs import SimulatedClutch, developed
from sandboa.devices.simulation.season_boxes import Nest, clutch
from sandboa.devices.simulation.season_hazards import CabinetHazard
from sandboa.devices.simulation.season_stories import ClutchStory
from sandboa.journal.intake import take_in
from sandboa.records.house import Device, named

_DAY_S: Final = 86_400.0
#: Days before today on which last season began, and how long it lasted.
BEGAN_DAYS_AGO: Final = 415.0
_DAYS: Final = 96.0
_STEP_S: Final = 600.0
_EVERY_S: Final = 7_200.0


@dataclass(frozen=True)
class _Past:
    """A clutch of last year; `forced` are (egg, what took it)."""

    dam: str
    sire: str
    day: float
    eggs: int
    slugs: int
    cabinet: str
    shelf: str
    medium: str
    closing: str
    hazard: str | None = None
    forced: tuple[tuple[int, str], ...] = ()
    seed: int = 1


_VERMICULITE, _PERLITE, _HALF = "vermiculite", "saturated perlite", "half and half"
_PIN, _FILM, _CORNER = "lid with 1-2 pin holes", "sealed film", "film with a cracked corner"

_PAST: Final = (
    _Past("Tansy", "Flint", 2.0, 6, 0, NORTH, "upper", _VERMICULITE, _PIN),
    _Past("Sorrel", "Marl", 6.5, 8, 1, NORTH, "middle", _HALF, _FILM, "stale air", seed=4),
    _Past("Yarrow", "Chert", 9.0, 7, 0, NORTH, "lower", _PERLITE, _CORNER, "too dry", seed=3),
    _Past("Lovage", "Slate", 13.0, 5, 1, SMALL, "shelf", _VERMICULITE, _PIN),
    _Past("Chervil", "Flint", 17.5, 6, 0, NORTH, "upper", _VERMICULITE, _PIN,
          forced=((4, "malformed"),), seed=6),
    _Past("Hyssop", "Slate", 22.0, 7, 2, SMALL, "shelf", _VERMICULITE, _PIN),
    _Past("Costmary", "Chert", 27.0, 6, 0, NORTH, "lower", _HALF, _PIN, seed=2,
          forced=((2, "knock, drop or torn shell"),)),
)  # fmt: skip


def last_year(now_s: float, year: int) -> Iterator[Event]:
    """What is told of last season, each at its time; its codes are of `year` (two digits)."""
    began_s = now_s - BEGAN_DAYS_AGO * _DAY_S
    began_s -= began_s % _EVERY_S
    climates = {name: _climate(name, began_s) for name in (NORTH, SMALL)}
    for number, past in enumerate(_PAST, start=1):
        story = _story(past, began_s, climates[past.cabinet])
        yield from tell_clutch(story, f"{year:02d}-{number:02d}", began_s)
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


def _story(past: _Past, began_s: float, was: Climate) -> ClutchStory:
    laid_s = began_s + past.day * _DAY_S
    shelf = {"upper": 0, "middle": 1, "lower": 2, "shelf": 0}[past.shelf]
    random = np.random.default_rng(past.seed)
    pace = float(random.normal(-0.02, 0.02))
    reached = developed(SimulatedClutch(laid_s, 6, shelf, pace), was.times_s, was.box_c[:, shelf])
    after = was.times_s >= laid_s
    nest = Nest(
        past.dam, past.sire, past.day, past.cabinet, past.shelf, past.eggs, past.slugs,
        past.hazard, CabinetHazard(),
        curve=((was.times_s[after] - laid_s) / _DAY_S, reached[after]),
        humidity=0.42 if past.hazard == "too dry" else 0.55, every_days=11.0,
        forced=past.forced, closing=past.closing,
        medium=past.medium, only_forced=True,
    )  # fmt: skip
    return clutch(nest, random)


def _send(cabinet: str, was: Climate, ended_s: float) -> None:
    gateway = named(Device, "Garden gateway")
    assert gateway is not None, "the gateway is told of first"
    for number, (name, shelf) in enumerate(LOGGERS[cabinet]):
        logged = log_probe(
            name, was, shelf, sensor=Sensor(noise_c=0.025, step_c=0.05), every_s=_EVERY_S,
            seed=number,
        )  # fmt: skip
        take_in(gateway, [(name, at_s, c, h) for at_s, c, h in logged.rows()], ended_s)
