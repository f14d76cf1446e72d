"""100,000 readings in batches: inside the application and over HTTP, against raw sqlite3."""

import json
import sqlite3
import tempfile
import time
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path

import httpx2
from tests.running import running
from tests.samples import lay_day

from benchmarks.report import Ratio
from sandboa.records.database import database, open_database
from sandboa.records.readings import ReadingRow
from sandboa.services.lay_day import lay_clutch
from sandboa.services.probes.commands import ProbePlace, hang_probe
from sandboa.services.probes.devices import NewToken, add_device
from sandboa.services.readings.intake import take_in

_ROWS = 100_000
_BATCH = 10_000
_ROUNDS = 5


def measure() -> Iterator[Ratio]:
    """The rates the issue aims at: half of raw inside the application, a quarter over HTTP."""
    now_s = time.time()
    rows: list[ReadingRow] = [
        (int(now_s) - 60 * (_ROWS - i), 31.0 + (i % 13) / 10, 0.9) for i in range(_ROWS)
    ]
    batches = [rows[i : i + _BATCH] for i in range(0, _ROWS, _BATCH)]
    # Turn about, so that whatever else the machine does falls on all three alike.
    rounds = [
        (_raw(batches), _inside(batches, now_s), _over_http(batches, now_s)) for _ in range(_ROUNDS)
    ]
    raw_s, inside_s, http_s = (min(times) for times in zip(*rounds, strict=True))
    rate = f"raw: {_ROWS / raw_s:,.0f} readings/s"
    what = f"{_ROWS:,} readings in batches of {_BATCH:,}"
    yield Ratio(f"{what}, inside", "sqlite3.executemany", inside_s / raw_s, 2.0, rate)
    yield Ratio(f"{what}, over HTTP", "sqlite3.executemany", http_s / raw_s, 4.0)


def _raw(batches: list[list[ReadingRow]]) -> float:
    """The very table, its checks and durability; no roll-ups, acts, undo or validation."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "house.sqlite3"
        open_database(path).close()
        connection = sqlite3.connect(path, isolation_level=None)
        connection.execute("PRAGMA synchronous = full")
        start = time.perf_counter()
        for batch in batches:
            connection.execute("BEGIN")
            connection.executemany("INSERT INTO reading VALUES (1, ?, ?, ?, 1)", batch)
            connection.execute("COMMIT")
        took = time.perf_counter() - start
        connection.close()
    return took


def _furnish(folder: str, now_s: float) -> NewToken:
    open_database(Path(folder) / "house.sqlite3")
    lay_clutch(lay_day(), now_s)
    since_s = now_s - 90 * 86_400
    made = add_device("Bench", now_s)
    hang_probe("Bench", ProbePlace("26-01"), since_s, now_s, device=made.device.entity_id)
    return made


def _inside(batches: list[list[ReadingRow]], now_s: float) -> float:
    with tempfile.TemporaryDirectory() as folder:
        device = _furnish(folder, now_s).device
        deliveries = [[(None, *row) for row in batch] for batch in batches]
        start = time.perf_counter()
        for delivery in deliveries:
            take_in(device, delivery, now_s)
        took = time.perf_counter() - start
        database.close()
    return took


def _over_http(batches: list[list[ReadingRow]], now_s: float) -> float:
    with tempfile.TemporaryDirectory() as folder:
        token = _furnish(folder, now_s).token
        database.close()
        # Written before the clock starts: making JSON is the logger's work, not the server's.
        bodies = [
            json.dumps(
                {
                    "readings": [
                        {
                            "at": datetime.fromtimestamp(at_s, UTC).isoformat(),
                            "temperature_c": temperature_c,
                            "humidity": humidity,
                        }
                        for at_s, temperature_c, humidity in batch
                    ],
                }
            ).encode()
            for batch in batches
        ]
        with (
            running("serve", "--data", folder) as address,
            httpx2.Client(base_url=address) as client,
        ):
            client.get("/api/alive")
            start = time.perf_counter()
            for body in bodies:
                answer = client.post(
                    "/api/readings", content=body, headers={"Authorization": f"Bearer {token}"}
                )
                assert answer.json()["new"] == _BATCH, answer.text
            return time.perf_counter() - start
