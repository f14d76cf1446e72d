"""The garden room: two cabinets and a season under way, relative to the demo's own today.

Everything is recorded through the services at the time it would have happened,
so that the demo is a history, not a set of rows.
"""

from collections.abc import Callable
from dataclasses import replace
from datetime import UTC, datetime
from functools import partial
from typing import Final

from sandboa.core.box import usual_places
from sandboa.core.candling import Disc, Vessels
from sandboa.core.lay_day import EggEvent, Lump, Step
from sandboa.core.methods import STANDARD, DamSchool, Visits
from sandboa.demo.scenario.animals import animals
from sandboa.demo.scenario.climate import climate, climates
from sandboa.demo.scenario.last_year import last_year
from sandboa.demo.scenario.raised import raised
from sandboa.demo.scenario.this_year import began_in, this_year
from sandboa.records.database import transaction
from sandboa.services.clutches.issued_forecasts import keep_due
from sandboa.services.clutches.methods import add_method
from sandboa.services.lay_day import drafts
from sandboa.services.lay_day.state import EggState, HappeningState
from sandboa.services.snapshot.cache import SnapshotCache

_DAY_S: Final = 86_400.0


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
    was = climates(now_s)
    told += climate(was, now_s)
    told += this_year(was, now_s)
    told.append((now_s - 0.1 * _DAY_S, partial(_begin_lay_day, now_s)))
    # Its codes are those of the year before this season began, whatever day it is today.
    told += last_year(now_s, (began_in(now_s) - 1) % 100)
    told += raised(now_s, (began_in(now_s) - 1) % 100)
    # One transaction around them all: a demo that is half told is none, and it is sooner there.
    with transaction():
        for _, happen in sorted(told, key=lambda event: event[0]):
            happen()
        # What the watch would have kept on the way: the season behind has taught already.
        house = SnapshotCache()
        while keep_due(house.current(), now_s):
            pass


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
