"""The garden room: two cabinets and a season under way, relative to the demo's own today.

Everything is recorded through the journal at the time it would have happened,
so that the demo is a history, not a set of rows.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from functools import partial
from typing import Final

from sandboa.core.box import Closing, Shell, usual_places
from sandboa.core.candling import Disc, Vessels
from sandboa.core.lay_day import EggEvent, Lump, Step
from sandboa.core.methods import STANDARD, DamSchool, Visits
from sandboa.demo.garden_animals import animals
from sandboa.demo.garden_climate import NORTH, SET_POINT_C, SMALL, climate
from sandboa.demo.garden_hatch import hatch
from sandboa.demo.garden_last_year import last_year
from sandboa.demo.garden_photos import photos
from sandboa.demo.garden_visits import Seen
from sandboa.journal.forecasts_told import keep_due
from sandboa.journal.house_now import HouseNow
from sandboa.journal.lay_day import EggLaid, LayDay, drafts, lay_clutch
from sandboa.journal.lay_day.state import EggState, HappeningState
from sandboa.journal.methods import add_method
from sandboa.journal.rounds.close_visit import close_visit
from sandboa.records.database import database

_DAY_S: Final = 86_400.0


@dataclass(frozen=True)
class _Clutch:
    dam: str
    sire: str
    laid_days_ago: float
    count: tuple[int, int]
    cabinet: str
    shelf: str
    medium: str
    closing: Closing
    dry_g: float
    water_g: float
    set_up_g: float
    visits: tuple[Seen, ...]
    shells: tuple[tuple[int, Shell], ...] = ()
    #: Eggs whose vessels were not strong on lay day.
    vessels: tuple[tuple[int, Vessels], ...] = ()


_CLUTCHES: Final = (
    _Clutch(
        "Lovage", "Slate", 60.2, (6, 1), NORTH, "lower", "vermiculite", Closing.PIN_HOLES, 220, 220,
        1430, shells=((4, Shell.WINDOW),), visits=(
            Seen(46.0, lid="edges", mass_g=1421),
            Seen(32.0, (0,) * 5, lid="edges", torch=dict.fromkeys(range(1, 6), Vessels.STRONG)),
            Seen(18.0, (0, 0, 0, 1, 0), lid="edges", mass_g=1409),
            Seen(6.0, (1, 2, 1, 2, 1), lid="half"),
            Seen(2.6, (2, 2, 2, 3, 2), lid="raining"),
        ),
    ),
    _Clutch(
        "Tansy", "Flint", 54.3, (5, 0), NORTH, "upper", "vermiculite", Closing.PIN_HOLES, 250, 250,
        1620, visits=(
            Seen(40.0, lid="edges", mass_g=1612),
            Seen(27.5, lid="edges", mass_g=1605, torch=dict.fromkeys(range(1, 6), Vessels.STRONG)),
            Seen(20.0, (0, 0, 1, 0, 0), lid="edges"),
            Seen(6.0, (1, 2, 2, 1, 0), lid="edges", mass_g=1593),
            Seen(1.0, (2, 3, 2, 2, 1), lid="raining"),
        ),
    ),
    _Clutch(
        "Sorrel", "Marl", 41.2, (8, 1), NORTH, "middle", "half and half", Closing.SEALED_FILM,
        300, 270, 1895, visits=(
            Seen(28.0, lid="half", medium="clumps"),
            Seen(15.0, (0,) * 7, lid="half", torch=dict.fromkeys(range(1, 8), Vessels.STRONG)),
            Seen(7.4, lid="half", mass_g=1884),
        ),
    ),
    _Clutch(
        "Yarrow", "Chert", 26.1, (6, 0), NORTH, "lower", "saturated perlite",
        Closing.CRACKED_CORNER, 180, 100, 1180, shells=((2, Shell.ROUGH),), visits=(
            Seen(15.0, lid="edges", mass_g=1160),
            Seen(8.0, (0, 1, 0, 0, 0, 0), lid="none", mass_g=1147),
            Seen(0.1, (2, 2, 1, 0, 2, 0), lid="none", medium="barely damp", mass_g=1134),
        ),
    ),
    _Clutch(
        "Chervil", "Flint", 19.0, (7, 2), SMALL, "shelf", "perlite", Closing.PIN_HOLES, 200, 200,
        1390, shells=((3, Shell.STAINED),), vessels=((3, Vessels.WEAK),), visits=(
            Seen(12.5, lid="edges", torch={3: Vessels.WEAK}),
            Seen(9.0, (0, 0, 1, 0, 0), lid="edges", mass_g=1386),
            Seen(4.0, (0, 0, 2, 0, 0), signs={3: (("mould", "spot"),)}),
            Seen(0.2, (0, 0, 3, 0, 0), lid="edges", mass_g=1381, torch={3: Vessels.WEAK},
                 signs={3: (("mould", "spot"), ("smell", "off"), ("wet", "dry"))}),
        ),
    ),
    _Clutch(
        "Borage", "Marl", 6.2, (4, 0), SMALL, "shelf", "vermiculite", Closing.PIN_HOLES, 200, 200,
        1255, visits=(Seen(1.0, (0, 0, 0, 0), lid="edges"),), vessels=((2, Vessels.WEAK),),
    ),
)  # fmt: skip

#: Laid this morning and candled, not boxed yet: days ago, dam, sire.
_UNDER_WAY: Final = (0.22, "Hyssop", "Slate")

_HOUSE_METHODS: Final = (
    replace(STANDARD, name="Garden room", temperature_c=31.5),
    replace(STANDARD, name="Cool and slow", temperature_c=30.0, visits=Visits.EVERY_14_DAYS),
    replace(STANDARD, name="Her own coils", dam=DamSchool.MATERNAL),
)


def furnish(now_s: float) -> None:
    """Fill the open, empty house with the garden room as it stands at `now_s`.

    What happened is told in the order in which it happened, for a log is read.
    """
    began_s = now_s - 460 * _DAY_S
    told: list[tuple[float, Callable[[], object]]] = [
        (began_s + n, partial(add_method, method, began_s + n, chosen=n == 0))
        for n, method in enumerate(_HOUSE_METHODS)
    ]
    told += animals(now_s)
    for number, clutch in enumerate(_CLUTCHES, start=1):
        code = f"{_laid_year(clutch, now_s) % 100:02d}-{number:02d}"
        told += _story(code, clutch, now_s)
        if clutch.dam == "Chervil":
            told += photos(code, now_s)
        if clutch.dam == "Lovage":
            told += hatch(code, now_s)
    told.append((now_s - 0.1 * _DAY_S, partial(_begin_lay_day, now_s)))
    told += climate(now_s)
    # Its codes are those of the year before this season began, whatever day it is today.
    this_year = _laid_year(_CLUTCHES[0], now_s)
    told += last_year(now_s, (this_year - 1) % 100)
    # One transaction around them all: a demo that is half told is none, and it is sooner there.
    with database.atomic():
        for _, happen in sorted(told, key=lambda event: event[0]):
            happen()
        # What the watch would have kept on the way: the season behind has taught already.
        house = HouseNow()
        while keep_due(house, now_s):
            pass


def _laid_year(clutch: _Clutch, now_s: float) -> int:
    return datetime.fromtimestamp(now_s - clutch.laid_days_ago * _DAY_S, UTC).year


def _story(
    code: str, clutch: _Clutch, now_s: float
) -> Iterator[tuple[float, Callable[[], object]]]:
    """A clutch's events with their times."""
    laid_s = now_s - clutch.laid_days_ago * _DAY_S
    laid_s -= laid_s % 60
    recorded_s = laid_s + 0.05 * _DAY_S
    yield recorded_s, partial(lay_clutch, _lay_day(code, clutch, laid_s), recorded_s)
    before: tuple[int, ...] = ()
    for number, seen in enumerate(clutch.visits):
        at_s = now_s - seen.days_ago * _DAY_S
        visit = seen.visit(f"demo.{code}.{number}", code, at_s, before)
        yield at_s, partial(close_visit, visit, at_s)
        before = seen.grades or before


def _lay_day(code: str, clutch: _Clutch, laid_s: float) -> LayDay:
    laid, slugs = clutch.count
    shells, vessels = dict(clutch.shells), dict(clutch.vessels)
    eggs = tuple(
        EggLaid(
            x,
            y,
            slug=number > laid - slugs,
            shell=shells.get(number, Shell.SMOOTH),
            vessels=None if number > laid - slugs else vessels.get(number, Vessels.STRONG),
            disc=Disc.TOP,
        )
        for number, (x, y) in enumerate(usual_places(laid), start=1)
    )
    return LayDay(
        dam=clutch.dam,
        sire=clutch.sire,
        code=code,
        laid_at=datetime.fromtimestamp(laid_s, UTC),
        eggs=eggs,
        medium=clutch.medium,
        dry_mass_g=clutch.dry_g,
        water_g=clutch.water_g,
        closing=clutch.closing,
        set_up_mass_g=clutch.set_up_g,
        cabinet=clutch.cabinet,
        shelf=clutch.shelf,
        set_point_c=SET_POINT_C[clutch.cabinet],
    )


def _begin_lay_day(now_s: float) -> None:
    """Seven eggs of which one a slug, one found underneath and turned; the box comes next."""
    days_ago, dam, sire = _UNDER_WAY
    laid_at = datetime.fromtimestamp(now_s - days_ago * _DAY_S - now_s % 60, UTC)
    saved_s = now_s - 0.08 * _DAY_S
    draft = drafts.begin(dam, sire, laid_at, saved_s)
    turned = HappeningState(
        kind=EggEvent.TURNED, at=datetime.fromtimestamp(saved_s - saved_s % 60, UTC)
    )
    eggs = [
        EggState(x=x, y=y, vessels=Vessels.STRONG, disc=Disc.TOP, looked=True)
        for x, y in usual_places(7)
    ]
    eggs[2] = eggs[2].model_copy(update={"disc": Disc.UNDER, "events": [turned]})
    eggs[6] = eggs[6].model_copy(update={"slug": True, "vessels": None, "disc": None})
    state = drafts.lay_day_now(draft, saved_s).state.model_copy(
        update={"lump": Lump.NONE, "marked": True, "dam_mass_g": 1435.0, "eggs": eggs}
    )
    drafts.save(draft, 1, Step.BOX, state, saved_s)
