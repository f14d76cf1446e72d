"""A clutch whose eggs are moved from box to box: how it is laid, opened and looked at."""

from samples import DAY_S, NOW_S, lay_day
from sandboa.core.box import Closing, usual_places
from sandboa.services.boxes.set_up import BoxCommand
from sandboa.services.clutches.clutch_view import ClutchNow, clutch_page
from sandboa.services.lay_day import EggLaid, lay_clutch
from sandboa.services.rounds.close_visit import Closed, close_visit
from sandboa.services.rounds.visit import BoxVisit, EggsMoved
from sandboa.services.snapshot.cache import SnapshotCache

LAID_DAYS = 20.0
ALONE = BoxCommand(name="26-01 B")


def lay_six() -> None:
    """Clutch 26-01: five eggs of 80 g and a slug, twenty days in a weighed box of perlite."""
    eggs = tuple(
        EggLaid(x, y, slug=i == 5, mass_g=80.0) for i, (x, y) in enumerate(usual_places(6))
    )
    lay_clutch(
        lay_day(
            LAID_DAYS, eggs=eggs, medium="perlite", set_up_mass_g=1400.0,
            closing=Closing.CRACKED_CORNER,
        ),
        NOW_S,
    )  # fmt: skip


def visit(key: str, box: str = "26-01", days_ago: float = 0.0, **more: object) -> Closed:
    closed_s = NOW_S - days_ago * DAY_S
    asked = BoxVisit(
        key=f"visit-of-{key}", box=box, opened_s=closed_s - 45, closed_s=closed_s, **more
    )  # type: ignore[arg-type]
    return close_visit(asked, NOW_S)


def put(*numbers: int, to: str | None = None, new: BoxCommand | None = None) -> EggsMoved:
    return EggsMoved(tuple((None, n) for n in numbers), to, new)


def now(house: SnapshotCache, code: str = "26-01", at_s: float = NOW_S) -> ClutchNow:
    return clutch_page(house.current(), code, at_s).now


def lying(house: SnapshotCache, name: str, at_s: float = NOW_S) -> list[int]:
    facts = house.current()
    return [egg.number for egg in facts.eggs_in(facts.box_called(name).entity_id, at_s)]
