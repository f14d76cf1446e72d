"""What the file holds afterwards, read without the application."""

import sqlite3
from collections import Counter, defaultdict
from contextlib import closing
from pathlib import Path

from benchmarks.injected.clients import BATCH, Clients, key_of, mass_of
from sandboa.records.integrity.check import check


def lost_and_halves(path: Path, clients: Clients) -> tuple[int, int]:
    """How many acknowledged records are not there, and how many are there in part."""
    recorded = clients.recorded
    with closing(sqlite3.connect(path)) as house:
        masses = {row[0] for row in house.execute("SELECT mass_g FROM weight")}
        keys = {row[0] for row in house.execute("SELECT key FROM visit")}
        batches = _batches(house, clients)
        halves = _halves(house, "visit") + _halves(house, "weigh")
    lost = (
        sum(mass_of(number) not in masses for number in recorded.weights)
        + sum(key_of(number) not in keys for number in recorded.visits)
        + sum(batches[number] != BATCH for number in recorded.batches)
    )
    return lost, halves + sum(count not in (0, BATCH) for count in batches.values())


def problems(path: Path) -> tuple[str, ...]:
    """What `sandboa check` says of the house at `path`."""
    return check(path).problems


def _batches(house: sqlite3.Connection, clients: Clients) -> Counter[int]:
    """Readings there are of each batch, by its number; held ones count, they are there."""
    first_s = int(clients.began.timestamp()) - 2 * 86_400
    found: Counter[int] = Counter()
    for table in ("reading", "held_reading"):
        rows = house.execute(
            f"SELECT at_s FROM {table} "
            "WHERE probe_id = (SELECT entity_id FROM probe WHERE name = ?)",
            (clients.probe,),
        )
        found.update((int(at_s) - first_s) // BATCH for (at_s,) in rows)
    return found


def _halves(house: sqlite3.Connection, kind: str) -> int:
    """Acts of a kind that recorded less than the fullest of the same box or animal."""
    tables = [
        name
        for (name,) in house.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
        if "superseded_by_id" in {row[1] for row in house.execute(f'PRAGMA table_info("{name}")')}
    ]
    rows: Counter[int] = Counter()
    for table in tables:
        rows.update(
            dict(
                house.execute(f'SELECT act_id, count(*) FROM "{table}" GROUP BY act_id').fetchall()
            )
        )
    ours = "key LIKE 'fault-%'" if kind == "visit" else "mass_g > 1500 AND mass_g < 1600"
    columns = "act_id, box_id FROM visit" if kind == "visit" else "act_id, animal_id FROM weight"
    acts = house.execute(f"SELECT {columns} WHERE {ours}").fetchall()
    fullest: dict[int, int] = defaultdict(int)
    for act, whose in acts:
        fullest[whose] = max(fullest[whose], rows[act])
    return sum(rows[act] != fullest[whose] for act, whose in acts)
