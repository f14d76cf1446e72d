"""The season under way: six clutches, simulated up to the demo's own today and told so far.

The keeper's plan is said here: which box was looked at when, weighed, candled.
What there was to see follows from each clutch's seed; those were chosen so that the
season holds what a demo has to show, on any day. Forced is one thing only, the
infected egg of Chervil's.
"""

from collections.abc import Iterator
from datetime import UTC, datetime
from functools import partial
from typing import Final

from sandboa.core.hatching.last_week import LastWeekTask
from sandboa.demo.replay import Event, tell_clutch
from sandboa.demo.scenario.climate import NORTH, SET_POINT_C, SMALL
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
from sandboa.demo.scenario.photos import photos
from sandboa.devices.simulation.cabinet import Climate
from sandboa.devices.simulation.season_nests import Planned
from sandboa.services.hatching.egg_events import tick_last_week

_DAY_S: Final = 86_400.0
_HOUR_S: Final = 3_600.0


#: Days before today on which each was laid; its visits are told in days since then.
CLUTCHES: Final = (
    # Pipping, with one egg still closed.
    (60.2, GardenClutch(
        "Lovage", "Slate", 6, 1, NORTH, "lower", VERMICULITE, PIN_HOLES,
        dry_g=220, water_g=220, set_up_g=1430, seed=175004,
        planned=(Planned(14.2, weighs=True), Planned(28.2, candles=True),
                 Planned(42.2, weighs=True), Planned(54.2), Planned(57.6)),
    )),
    # In its last week, with a lid suddenly wet.
    (54.3, GardenClutch(
        "Tansy", "Flint", 5, 0, NORTH, "upper", VERMICULITE, PIN_HOLES,
        dry_g=250, water_g=250, set_up_g=1620, seed=11,
        planned=(Planned(14.3, weighs=True), Planned(26.8, weighs=True, candles=True),
                 Planned(34.3), Planned(48.3, weighs=True), Planned(53.3)),
    )),
    # Plump and dull at two thirds.
    (41.2, GardenClutch(
        "Sorrel", "Marl", 8, 1, NORTH, "middle", HALF, FILM,
        dry_g=300, water_g=270, set_up_g=1895, seed=227,
        planned=(Planned(13.2), Planned(26.2, candles=True), Planned(33.8, weighs=True)),
    )),
    # Drying out, with early dents in most eggs.
    (26.1, GardenClutch(
        "Yarrow", "Chert", 6, 0, NORTH, "lower", SATURATED, CORNER,
        dry_g=180, water_g=100, set_up_g=1180, seed=3665,
        planned=(Planned(11.1, weighs=True), Planned(18.1, weighs=True),
                 Planned(26.0, weighs=True)),
    )),
    # One failing egg.
    (19.0, GardenClutch(
        "Chervil", "Flint", 7, 2, SMALL, "shelf", "perlite", PIN_HOLES,
        dry_g=200, water_g=200, set_up_g=1390, seed=43018, forced=((3, "rot"),),
        planned=(Planned(6.5, candles=True), Planned(10.0, weighs=True), Planned(15.0),
                 Planned(18.8, weighs=True, candles=True)),
    )),
    # Day 6, with an egg to candle again.
    (6.2, GardenClutch(
        "Borage", "Marl", 4, 0, SMALL, "shelf", VERMICULITE, PIN_HOLES,
        dry_g=200, water_g=200, set_up_g=1255, seed=22, planned=(Planned(5.2),),
    )),
)  # fmt: skip


def began_in(now_s: float) -> int:
    """The year in which the season's first clutch was laid."""
    return _year_of(laid_s(CLUTCHES[0][0], now_s))


def this_year(was: dict[str, Climate], now_s: float) -> Iterator[Event]:
    """What is told of the season up to now, each at its time."""
    for number, (days_ago, garden) in enumerate(CLUTCHES, start=1):
        began_s = laid_s(days_ago, now_s)
        code = f"{_year_of(began_s) % 100:02d}-{number:02d}"
        story = story_of(garden, began_s, was[garden.cabinet])
        told = tell_clutch(story, code, began_s, SET_POINT_C[garden.cabinet])
        yield from (event for event in told if event[0] <= now_s)
        if garden.dam == "Chervil":
            yield from photos(code, now_s)
        if garden.dam == "Lovage":
            yield from _last_week(code, now_s)


def laid_s(days_ago: float, now_s: float) -> float:
    """When a clutch was laid that many days before now: s, of a whole minute."""
    moment_s = now_s - days_ago * _DAY_S
    return moment_s - moment_s % 60


def _year_of(at_s: float) -> int:
    return datetime.fromtimestamp(at_s, UTC).year


def _last_week(code: str, now_s: float) -> Iterator[Event]:
    """What its keeper has made ready for the hatchlings."""
    for task, hours_ago in ((LastWeekTask.TUBS, 90.0), (LastWeekTask.TOOLS, 48.0)):
        at_s = now_s - hours_ago * _HOUR_S
        yield at_s, partial(tick_last_week, code, task, True, at_s)
