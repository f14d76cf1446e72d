"""Acts of a keeper in any order, for tests of what is carried on from act to act."""

from collections.abc import Callable
from datetime import UTC, datetime
from typing import Final

from samples import DAY_S, NOW_S, lay_day
from sandboa.core.candling import Vessels
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching import Fate
from sandboa.records.facts import newest_act
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import undo
from sandboa.services.boxes.commands import candle_egg, grade_egg, water_box
from sandboa.services.cabinets.commands import change_set_point, move_box
from sandboa.services.hatching.egg_events import see_emergence, see_pip
from sandboa.services.hatching.fates import FateCommand, declare_fates, finish, reopen
from sandboa.services.lay_day import lay_clutch
from sandboa.services.lay_day.correct import correct_clutch
from sandboa.services.probes.commands import ProbePlace, hang_probe, move_probe
from sandboa.services.rounds.close_visit import close_visit
from sandboa.services.rounds.visit import BoxVisit, EggsMoved
from sandboa.services.snapshot.settings import set_setting


def laid(n: int, now_s: float) -> None:
    laid_at = datetime.fromtimestamp(NOW_S - (55 + n) * DAY_S, UTC)
    shelf = ("lower", "upper")[n % 2]
    lay_clutch(lay_day(dam=f"Dam {n}", laid_at=laid_at, shelf=shelf, second_clutch=True), now_s)


def _corrected(n: int, now_s: float) -> None:
    laid_at = datetime.fromtimestamp(NOW_S - (54 + n) * DAY_S, UTC)
    correct_clutch("26-01", lay_day(dam="Dam 0", laid_at=laid_at, second_clutch=True), now_s)


def _visited(n: int, now_s: float) -> None:
    moved = (EggsMoved(((None, n + 1),), to="26-02"),) if n > 2 else ()
    close_visit(
        BoxVisit(
            f"visit-{now_s}", "26-01", now_s - 60, now_s - 1, rest_as_before=True, moved=moved
        ),
        now_s,
    )


def _moved_probe(n: int, now_s: float) -> None:
    name = f"Probe {n}"
    probe, _ = hang_probe(name, ProbePlace("26-01"), NOW_S - 3 * DAY_S, now_s)
    move_probe(probe.entity_id, ProbePlace(cabinet="North"), NOW_S - DAY_S, now_s)


def finished(n: int, now_s: float) -> None:
    fates = [FateCommand(egg, Fate.UNKNOWN) for egg in range(1, 6)]
    declare_fates("26-01", fates, now_s, now_s)
    finish("26-01", now_s, now_s)


#: Acts of a keeper, some of which the house will refuse at the time; n is 0 to 4.
ACTS: Final[dict[str, Callable[[int, float], object]]] = {
    "lay": laid,
    "correct the lay day": _corrected,
    "visit, move an egg": _visited,
    "grade": lambda n, now_s: grade_egg("26-01", n + 1, n, NOW_S - n * DAY_S, now_s),
    "candle": lambda n, now_s: candle_egg("26-02", n + 1, Vessels.WEAK, None, now_s, now_s),
    "water": lambda n, now_s: water_box("26-01", 20.0 + n, now_s, now_s),
    "pip": lambda n, now_s: see_pip("26-01", n + 1, NOW_S - n * 3600, now_s),
    "out": lambda n, now_s: see_emergence("26-01", n + 1, now_s, now_s),
    "close": finished,
    "reopen": lambda _, now_s: reopen("26-01", now_s),
    "move the box": lambda n, now_s: move_box("26-01", "North", "upper", NOW_S - n * 60, now_s),
    "set point": lambda n, now_s: change_set_point("North", 30.0 + n / 2, NOW_S - n * 60, now_s),
    "probe": _moved_probe,
    "number": lambda n, now_s: set_setting("forecast.emergence_days", 1.0 + n / 10, now_s),
    "undo": lambda n, now_s: undo(max(1, newest_act() - n), now_s),
}


def attempt(name: str, n: int, now_s: float) -> bool:
    """Do it; False where the house will not have it."""
    try:
        ACTS[name](n, now_s)
    except (Conflict, NotPlausible, NotFound):
        return False
    return True
