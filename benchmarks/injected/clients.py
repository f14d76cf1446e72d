"""Three clients that record, and a keeper who asks for Today all the while."""

import time
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from threading import Event, Thread
from typing import Any

import httpx2 as httpx

from benchmarks.injected.served import Served

#: Readings that a device sends at a time.
BATCH = 30
#: s between two records of one client.
_PAUSE_S = 0.15


@dataclass
class Recorded:
    """What was acknowledged, by number; what was refused, by its words."""

    weights: set[int] = field(default_factory=set)
    visits: set[int] = field(default_factory=set)
    batches: set[int] = field(default_factory=set)
    refused: Counter[str] = field(default_factory=Counter)
    #: s from asking to the answer, of each time Today was asked for while the house should answer.
    waits_s: list[float] = field(default_factory=list)

    @property
    def acknowledged(self) -> int:
        return len(self.weights) + len(self.visits) + len(self.batches)


class Clients:
    """They go on until `stop`, whatever happens to the house; each number is tried for once."""

    def __init__(self, served: Served) -> None:
        self.recorded = Recorded()
        self._served = served
        self._done = Event()
        self.began = datetime.now(UTC)
        with served.session() as keeper:
            self.cookies = dict(keeper.cookies)
            self._dam = next(
                a["id"] for a in keeper.get("/api/animals").json() if a["role"] == "dam"
            )
            #: Visited one after another, as on a round.
            self._codes = [box["name"] for box in keeper.get("/api/round").json()["boxes"]]
            device = keeper.post("/api/devices", json={"name": "faults"}).json()
            self._token = device["token"]
            since = (self.began - timedelta(days=3)).isoformat()
            self.probe = "held against the truth"
            body = {
                "name": self.probe, "place": {"box": self._codes[0]}, "since": since,
                "device": device["device"],
            }  # fmt: skip
            keeper.post("/api/probes", json=body).raise_for_status()
        works = (self._weigh, self._visit, self._measure)
        kept = (self.recorded.weights, self.recorded.visits, self.recorded.batches)
        self._threads = [
            Thread(target=self._go_on, args=(work, done), daemon=True)
            for work, done in zip(works, kept, strict=True)
        ]
        self._threads.append(Thread(target=self._ask, daemon=True))

    def start(self) -> None:
        for thread in self._threads:
            thread.start()

    def stop(self) -> None:
        self._done.set()
        for thread in self._threads:
            thread.join()

    def _go_on(self, work: Callable[[httpx.Client, int], httpx.Response], done: set[int]) -> None:
        number = 0
        with httpx.Client(timeout=10, cookies=self.cookies) as client:
            while not self._done.wait(_PAUSE_S):
                self._served.up.wait(5)
                number += 1
                try:
                    answer = work(client, number)
                except httpx.TransportError as error:
                    self.recorded.refused[type(error).__name__] += 1
                    continue
                if answer.is_success and _taken(answer):
                    done.add(number)
                else:
                    self.recorded.refused[_words(answer)] += 1

    def _weigh(self, client: httpx.Client, number: int) -> httpx.Response:
        body = {"mass_g": mass_of(number), "confirmed": True}
        return client.post(f"{self._served.base}/api/animals/{self._dam}/weights", json=body)

    def _visit(self, client: httpx.Client, number: int) -> httpx.Response:
        now = datetime.now(UTC)
        visit = {
            "key": key_of(number), "box": self._codes[number % len(self._codes)],
            "opened_at": (now - timedelta(seconds=1)).isoformat(), "closed_at": now.isoformat(),
            "signs": [], "water_g": 1.0, "mass_g": 1000.0, "acts": ["aired"],
        }  # fmt: skip
        body = {"visits": [visit], "sent_at": now.isoformat()}
        return client.post(f"{self._served.base}/api/visits", json=body)

    def _measure(self, client: httpx.Client, number: int) -> httpx.Response:
        first = self.began - timedelta(days=2) + timedelta(seconds=number * BATCH)
        readings = [
            {"at": (first + timedelta(seconds=n)).isoformat(), "temperature_c": 31.0}
            for n in range(BATCH)
        ]
        headers = {"Authorization": f"Bearer {self._token}"}
        return client.post(
            f"{self._served.base}/api/readings", json={"readings": readings}, headers=headers
        )

    def _ask(self) -> None:
        with httpx.Client(timeout=30, cookies=self.cookies) as client:
            while not self._done.wait(0.05):
                if not self._served.up.is_set():
                    self._served.up.wait(5)
                    continue
                began = time.perf_counter()
                try:
                    client.get(f"{self._served.base}/api/today")
                except httpx.TransportError:
                    if not self._served.up.is_set():
                        continue
                self.recorded.waits_s.append(time.perf_counter() - began)


def mass_of(number: int) -> float:
    """Grams that no other weight has."""
    return 1500.0 + number / 1024


def key_of(number: int) -> str:
    """The key of a visit."""
    return f"fault-visit-{number:06d}"


def _taken(answer: httpx.Response) -> bool:
    """Visits are answered one by one: whether the one was recorded."""
    told: Any = answer.json()
    return all(outcome["state"] != "refused" for outcome in told.get("outcomes", ()))


def _words(answer: httpx.Response) -> str:
    try:
        return f"{answer.status_code} {answer.json()['detail'][:90]}"
    except (ValueError, KeyError, TypeError):
        return f"{answer.status_code} without words: {answer.text[:60]}"
