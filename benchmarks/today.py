"""Today with 100 active clutches, against an empty endpoint of the same server."""

import tempfile
import time
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path

import httpx2
from tests.running import running
from tests.samples import lay_day

from benchmarks.report import Ratio, best_s
from sandboa.records.database import database, open_database
from sandboa.services.boxes.commands import grade_egg
from sandboa.services.lay_day import lay_clutch
from sandboa.services.probes.commands import ProbePlace, hang_probe
from sandboa.services.readings.commands import store_readings

_CLUTCHES = 100
_CABINETS = 5
_SHELVES = 4


def measure() -> Iterator[Ratio]:
    """As asked again and again, and as asked right after something was recorded."""
    with tempfile.TemporaryDirectory() as folder:
        _furnish(Path(folder))
        with (
            running("serve", "--data", folder) as address,
            httpx2.Client(base_url=address) as client,
        ):
            client.get("/api/alive")
            start = time.perf_counter()
            first = client.get("/api/today")
            cold_s = time.perf_counter() - start
            assert len(first.json()["boxes"]) == _CLUTCHES
            empty_s, held_s = best_s(
                lambda: client.get("/api/alive"), lambda: client.get("/api/today"), repeat=20
            )
            code = first.json()["boxes"][0]["name"]

            def record() -> None:
                client.post(f"/api/clutches/{code}/eggs/1/grades", json={"grade": 0})

            anew_s = min(_after(record, client) for _ in range(5))
    size = f"{len(first.content) / 1000:.0f} kB"
    what = f"Today with {_CLUTCHES} clutches"
    yield Ratio(what, "an empty endpoint", held_s / empty_s, 10.0, size)
    yield Ratio(f"{what}, right after an act", "an empty endpoint", anew_s / empty_s, None)
    yield Ratio(f"{what}, first request ever", "an empty endpoint", cold_s / empty_s, None)


def _after(record, client: httpx2.Client) -> float:
    record()
    start = time.perf_counter()
    client.get("/api/today")
    return time.perf_counter() - start


def _furnish(folder: Path) -> None:
    """Clutches laid over 60 days, a probe on every shelf with a reading every 5 minutes."""
    now_s = time.time()
    open_database(folder / "house.sqlite3")
    for i in range(_CLUTCHES):
        laid = datetime.fromtimestamp(now_s - (1 + i * 0.55) * 86_400, UTC)
        cabinet, shelf = f"C{i % _CABINETS}", f"S{i // _CABINETS % _SHELVES}"
        code, _ = lay_clutch(
            lay_day(dam=f"Dam {i}", laid_at=laid, cabinet=cabinet, shelf=shelf), now_s
        )
        grade_egg(code, 1, i % 3, now_s, now_s)
    rows = [(int(now_s - 300 * i), 31.0 + (i % 7) / 10, 0.9) for i in range(60 * 288)]
    for place in range(_CABINETS * _SHELVES):
        cabinet, shelf = f"C{place % _CABINETS}", f"S{place // _CABINETS}"
        probe, _ = hang_probe(
            f"{cabinet} {shelf}", ProbePlace(cabinet=cabinet, shelf=shelf),
            now_s - 70 * 86_400, now_s,
        )  # fmt: skip
        store_readings(probe.entity_id, rows, "logger", "", now_s)
    database.close()
