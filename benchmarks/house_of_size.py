"""A house of many clutches: 300 closed ones, 12 probes with a year of minutes, and those under way.

The closed ones and the readings are made once; each size is a copy of that house with its clutches.
"""

import shutil
import time
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path
from typing import Final

from tests.samples import lay_day

from benchmarks.house_of_years import CABINETS, SHELVES, hang_probes, store_minutes
from sandboa.core.hatching import DeathStage, Fate
from sandboa.records.database import close_database, open_database
from sandboa.services.boxes.commands import grade_egg
from sandboa.services.clutches.issued_forecasts import keep_due
from sandboa.services.hatching.egg_events import see_emergence, see_pip
from sandboa.services.hatching.fates import FateCommand, declare_fates, finish
from sandboa.services.lay_day import lay_clutch
from sandboa.services.probes.devices import add_device
from sandboa.services.safekeeping.daily import night
from sandboa.services.snapshot.cache import SnapshotCache

CLOSED: Final = 300
_DAY_S: Final = 86_400
_BASE: Final = "closed"
#: Beside the house: what its device sends readings with.
TOKEN: Final = "token"


def furnish(folder: Path, active: int) -> Path:
    """The folder of a house with that many clutches under way; one made today is used as it is."""
    today = time.strftime("%Y-%m-%d")
    place = folder / f"{active}-active-{today}"
    if place.exists():
        return place
    base = folder / f"{_BASE}-{today}"
    if not base.exists():
        _made(base.with_suffix(".part"), _closed).rename(base)
    shutil.copytree(base, place.with_suffix(".part"))
    return _made(place.with_suffix(".part"), lambda _, now_s: _active(now_s, active)).rename(place)


def _made(folder: Path, fill: Callable[[Path, int], None]) -> Path:
    folder.mkdir(parents=True, exist_ok=True)
    open_database(folder / "house.sqlite3")
    now_s = int(time.time())
    fill(folder, now_s)
    # What the first hours of a house of this size would catch up on is no part of its day.
    house = SnapshotCache()
    while keep_due(house.current(), now_s):
        pass
    night(now_s, None, lambda: None)
    close_database()
    return folder


def _closed(folder: Path, now_s: int) -> None:
    made = add_device("Bench", now_s)
    (folder / TOKEN).write_text(made.token)
    hang_probes(now_s, years=1, device=made.device.entity_id)
    for n in range(CLOSED):
        laid_s = now_s - (75 + n * 280 // CLOSED) * _DAY_S
        code = _lay(now_s, f"Dam {n % 150}", n, laid_s)
        for egg in range(1, 5):
            pip_s = laid_s + 59 * _DAY_S + egg * 7_200
            see_pip(code, egg, pip_s, now_s)
            see_emergence(code, egg, pip_s + _DAY_S, now_s)
        lost = FateCommand(5, Fate.DEAD_IN_EGG, DeathStage.FULL_TERM)
        declare_fates(code, [lost], laid_s + 63 * _DAY_S, now_s)
        finish(code, laid_s + 63 * _DAY_S, now_s)
    store_minutes(now_s, years=1)


def _active(now_s: int, active: int) -> None:
    for n in range(active):
        laid_s = now_s - int((1 + n * 56 / active) * _DAY_S)
        code = _lay(now_s, f"Dam {n % 150}", n, laid_s)
        grade_egg(code, 1, n % 3, now_s, now_s)


def _lay(now_s: int, dam: str, n: int, laid_s: int) -> str:
    laid_at = datetime.fromtimestamp(laid_s, UTC)
    day = lay_day(
        dam=dam, laid_at=laid_at, second_clutch=True,
        cabinet=CABINETS[n % 3], shelf=SHELVES[n // 3 % 4],
    )  # fmt: skip
    return lay_clutch(day, now_s)[0]
