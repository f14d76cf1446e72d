"""A house with years of minute readings: 12 probes in 3 cabinets, clutches every year."""

import time
from datetime import UTC, datetime
from pathlib import Path

import numpy as np
from tests.samples import lay_day

from sandboa.core.hatching import Fate
from sandboa.records import readings
from sandboa.records.database import database, open_database
from sandboa.records.issued_forecasts import all_told, lessons
from sandboa.services.cabinets.commands import CabinetCommand, CabinetKind, add_cabinet
from sandboa.services.clutches.issued_forecasts import keep_due
from sandboa.services.hatching.egg_events import see_pip
from sandboa.services.hatching.fates import FateCommand, declare_fates, finish
from sandboa.services.lay_day import lay_clutch
from sandboa.services.probes.commands import ProbePlace, hang_probe
from sandboa.services.snapshot.cache import SnapshotCache

CABINETS = ("North", "South", "West")
SHELVES = ("top", "upper", "middle", "lower")
CLUTCHES_A_YEAR = 10
_DAY_S = 86_400
_YEAR_S = 365 * _DAY_S
_CHUNK = 400_000


def furnish(folder: Path, years: int) -> int:
    """Fill a house; returns how many readings it has. A house made before is used as it is."""
    path = folder / "house.sqlite3"
    made = path.exists()
    open_database(path)
    now_s = int(time.time())
    if not made:
        _house(now_s, years)
        store_minutes(now_s, years)
        _teach(now_s)
    total = sum(tip.readings for tip in readings.tips().values())
    database.execute_sql("PRAGMA wal_checkpoint(TRUNCATE)")
    database.close()
    return total


def hang_probes(now_s: int, years: int, device: int | None = None) -> None:
    """A cabinet of each name, with a probe on every shelf since the house began."""
    began_s = now_s - years * _YEAR_S
    for cabinet in CABINETS:
        said = CabinetCommand(cabinet, CabinetKind.BOUGHT, SHELVES)
        add_cabinet(said, 31.5, began_s, now_s)
        for shelf in SHELVES:
            hang_probe(
                f"{cabinet} {shelf}", ProbePlace(cabinet=cabinet, shelf=shelf), began_s, now_s,
                device=device,
            )  # fmt: skip


def _house(now_s: int, years: int) -> None:
    hang_probes(now_s, years)
    for year in range(years):
        for n in range(CLUTCHES_A_YEAR):
            _clutch(now_s, year, n)


def _clutch(now_s: int, year: int, n: int) -> None:
    laid_s = now_s - year * _YEAR_S - (2 + n * 5) * _DAY_S
    day = lay_day(
        dam=f"Dam {year} {n}", laid_at=datetime.fromtimestamp(laid_s, UTC),
        cabinet=CABINETS[n % 3], shelf=SHELVES[n % 4], second_clutch=True,
    )  # fmt: skip
    code, _ = lay_clutch(day, now_s)
    if year:
        for egg in range(1, 6):
            pip_s = laid_s + 59 * _DAY_S + egg * 7_200
            see_pip(code, egg, pip_s, now_s)
        lost = [FateCommand(n, Fate.PIPPED_DIED) for n in range(1, 6)]
        declare_fates(code, lost, laid_s + 63 * _DAY_S, now_s)
        finish(code, laid_s + 63 * _DAY_S, now_s)


def store_minutes(now_s: int, years: int) -> None:
    """A reading a minute of every probe, stored as a device's would be, in large batches."""
    random = np.random.default_rng(1)
    start_s = now_s - years * _YEAR_S + 60
    for probe in sorted(readings_of_probes()):
        times = np.arange(start_s, now_s, 60)
        for at in range(0, len(times), _CHUNK):
            part = times[at : at + _CHUNK]
            degrees = 31.5 + 0.2 * np.sin(part / 13_750.0) + random.normal(0, 0.05, len(part))
            humid = np.full(len(part), 0.62)
            rows = list(
                zip(part.tolist(), np.round(degrees, 2).tolist(), humid.tolist(), strict=True)
            )
            with database.atomic("IMMEDIATE"):
                readings.store(probe, readings.LIVE, rows, now_s)


def readings_of_probes() -> list[int]:
    """Entities of the house's probes."""
    return [row[0] for row in database.execute_sql(
        "SELECT entity_id FROM probe WHERE superseded_by_id IS NULL"
    )]  # fmt: skip


def _teach(now_s: int) -> None:
    """What the watch would have learned over the years."""
    house, held = SnapshotCache(), -1
    while held != (held := _kept()):
        keep_due(house.current(), now_s)


def _kept() -> int:
    """How many forecasts and lessons are kept."""
    return len(all_told()) + len(lessons())
