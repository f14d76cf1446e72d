"""The season under way: six clutches, simulated up to the demo's own today and told so far.

The keeper's plan is said here: which box was looked at when, weighed, candled.
What there was to see follows from each clutch's seed; those were chosen so that the
season holds what a demo has to show, on any day. Forced is one thing only, the
infected egg of Chervil's.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from functools import partial
from typing import Final

from sandboa.core.hatching.last_week import LastWeekTask
from sandboa.demo.garden_climate import NORTH, SET_POINT_C, SMALL
from sandboa.demo.garden_clutches import (
    CORNER,
    FILM,
    HALF,
    PIN_HOLES,
    SATURATED,
    VERMICULITE,
    GardenClutch,
    story_of,
)
from sandboa.demo.garden_photos import photos
from sandboa.demo.telling import Event, tell_clutch
from sandboa.devices.simulation.cabinet import Climate
from sandboa.devices.simulation.season_nests import Planned
from sandboa.devices.simulation.season_stories import ClutchStory
from sandboa.journal.hatching.watch import tick_last_week

_DAY_S: Final = 86_400.0
_HOUR_S: Final = 3_600.0


@dataclass(frozen=True)
class Visit:
    """A visit `days_ago`: was the box weighed, were the eggs candled."""

    days_ago: float
    weighs: bool = False
    candles: bool = False


@dataclass(frozen=True)
class Current:
    """A clutch of this season, its box and the visits its keeper made."""

    laid_days_ago: float
    clutch: GardenClutch
    visits: tuple[Visit, ...]


CLUTCHES: Final = (
    # Pipping, with one egg still closed.
    Current(60.2, GardenClutch("Lovage", "Slate", 6, 1, NORTH, "lower", VERMICULITE, PIN_HOLES,
                                dry_g=220, water_g=220, set_up_g=1430, seed=175004),
             (Visit(46.0, weighs=True), Visit(32.0, candles=True), Visit(18.0, weighs=True),
              Visit(6.0), Visit(2.6))),
    # In its last week, with a lid suddenly wet.
    Current(54.3, GardenClutch("Tansy", "Flint", 5, 0, NORTH, "upper", VERMICULITE, PIN_HOLES,
                                dry_g=250, water_g=250, set_up_g=1620, seed=11),
             (Visit(40.0, weighs=True), Visit(27.5, weighs=True, candles=True), Visit(20.0),
              Visit(6.0, weighs=True), Visit(1.0))),
    # Plump and dull at two thirds.
    Current(41.2, GardenClutch("Sorrel", "Marl", 8, 1, NORTH, "middle", HALF, FILM,
                                dry_g=300, water_g=270, set_up_g=1895, seed=227),
             (Visit(28.0), Visit(15.0, candles=True), Visit(7.4, weighs=True))),
    # Drying out, with early dents in most eggs.
    Current(26.1, GardenClutch("Yarrow", "Chert", 6, 0, NORTH, "lower", SATURATED, CORNER,
                                dry_g=180, water_g=100, set_up_g=1180, seed=3665),
             (Visit(15.0, weighs=True), Visit(8.0, weighs=True), Visit(0.1, weighs=True))),
    # One failing egg.
    Current(19.0, GardenClutch("Chervil", "Flint", 7, 2, SMALL, "shelf", "perlite", PIN_HOLES,
                                dry_g=200, water_g=200, set_up_g=1390, seed=43018,
                                forced=((3, "infection first"),)),
             (Visit(12.5, candles=True), Visit(9.0, weighs=True), Visit(4.0),
              Visit(0.2, weighs=True, candles=True))),
    # Day 6, with an egg to candle again.
    Current(6.2, GardenClutch("Borage", "Marl", 4, 0, SMALL, "shelf", VERMICULITE, PIN_HOLES,
                               dry_g=200, water_g=200, set_up_g=1255, seed=22),
             (Visit(1.0),)),
)  # fmt: skip


def began_in(now_s: float) -> int:
    """The year in which the season's first clutch was laid."""
    return _laid_year(CLUTCHES[0], now_s)


def this_year(was: dict[str, Climate], now_s: float) -> Iterator[Event]:
    """What is told of the season up to now, each at its time."""
    for number, current in enumerate(CLUTCHES, start=1):
        code = f"{_laid_year(current, now_s) % 100:02d}-{number:02d}"
        story, laid_s = current_story(current, was, now_s), _laid_s(current, now_s)
        told = tell_clutch(story, code, laid_s, SET_POINT_C[story.cabinet])
        yield from (event for event in told if event[0] <= now_s)
        if current.clutch.dam == "Chervil":
            yield from photos(code, now_s)
        if current.clutch.dam == "Lovage":
            yield from _last_week(code, now_s)


def current_story(current: Current, was: dict[str, Climate], now_s: float) -> ClutchStory:
    """How it goes, in the climates that were up to `now_s` (s) and go on so."""
    planned = tuple(
        Planned(current.laid_days_ago - visit.days_ago, visit.weighs, visit.candles)
        for visit in current.visits
    )
    garden = replace(current.clutch, planned=planned)
    return story_of(garden, _laid_s(current, now_s), was[garden.cabinet])


def _laid_s(current: Current, now_s: float) -> float:
    laid_s = now_s - current.laid_days_ago * _DAY_S
    return laid_s - laid_s % 60


def _laid_year(current: Current, now_s: float) -> int:
    return datetime.fromtimestamp(_laid_s(current, now_s), UTC).year


def _last_week(code: str, now_s: float) -> Iterator[Event]:
    """What its keeper has made ready for the hatchlings."""
    for task, hours_ago in ((LastWeekTask.TUBS, 90.0), (LastWeekTask.TOOLS, 48.0)):
        at_s = now_s - hours_ago * _HOUR_S
        yield at_s, partial(tick_last_week, code, task, True, at_s)
