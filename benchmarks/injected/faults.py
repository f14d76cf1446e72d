"""The faults, each done once a round while the clients record; True where it was told."""

import functools
import io
import random
import resource
import socket
import struct
import time
import zipfile
import zlib
from collections.abc import Callable
from dataclasses import dataclass
from threading import Event, Thread

import httpx2 as httpx

from benchmarks.injected.clients import Clients
from benchmarks.injected.disk import Order
from benchmarks.injected.served import Served
from sandboa.formats.data_package import DESCRIPTOR

_pause = Event()
#: px: of pictures of 144 megapixels, and of nearly as many as are taken.
_EDGES = (12_000, 7_000)
#: s after a fault within which records have to be taken again.
_PATIENCE_S = 15.0


@dataclass(frozen=True)
class Round:
    """What a fault works on."""

    served: Served
    clients: Clients
    rng: random.Random

    def wait(self, most_s: float) -> None:
        """Let the clients go on for a random time."""
        _pause.wait(self.rng.uniform(0.1, 1.0) * most_s)

    def wait_until_met(self, most_s: float) -> None:
        """As `wait`, and on until something was refused: a fault nobody met shows nothing."""
        refused = self.clients.recorded.refused
        before = sum(refused.values())
        self.wait(most_s)
        began = time.perf_counter()
        while sum(refused.values()) == before and time.perf_counter() - began < _PATIENCE_S:
            _pause.wait(0.01)

    def keeper(self) -> httpx.Client:
        """A browser of the keeper's that is signed in."""
        return httpx.Client(base_url=self.served.base, cookies=self.clients.cookies, timeout=60)

    def recovered_s(self) -> float:
        """s until the clients have recorded three times more; infinite when they do not."""
        began, before = time.perf_counter(), self.clients.recorded.acknowledged
        while self.clients.recorded.acknowledged < before + 3:
            if time.perf_counter() - began > _PATIENCE_S:
                return float("inf")
            _pause.wait(0.01)
        return time.perf_counter() - began

    def unsaid(self) -> int:
        """Records that failed without a word why."""
        return sum(
            count
            for words, count in self.clients.recorded.refused.items()
            if words[:1] not in "45" or "without words" in words
        )


def killed(now: Round) -> bool:
    now.wait(0.5)
    now.served.kill()
    now.served.start()
    return True


def disk_full(now: Round) -> bool:
    """No file of the process may grow beyond a few pages from where its log stands."""
    before = now.unsaid()
    log = now.served.folder / "house" / "house.sqlite3-wal"
    size = (log.stat().st_size if log.exists() else 0) + now.rng.randrange(0, 60_000)
    unlimited = resource.RLIM_INFINITY
    resource.prlimit(now.served.pid, resource.RLIMIT_FSIZE, (size, unlimited))
    now.wait_until_met(1.2)
    resource.prlimit(now.served.pid, resource.RLIMIT_FSIZE, (unlimited, unlimited))
    return now.unsaid() == before


def read_error(now: Round) -> bool:
    """No read of a file succeeds; what memory still holds is answered."""
    before = now.unsaid()
    now.served.control.order = Order.FAIL_READS
    now.wait_until_met(0.8)
    now.served.control.order = Order.WORK
    return now.unsaid() == before


def torn_write(now: Round) -> bool:
    now.wait(0.4)
    now.served.control.order = Order.TEAR
    ended = now.served.ended()
    now.served.control.order = Order.WORK
    if ended:
        now.served.start()
    return ended


def stalled_sockets(now: Round) -> bool:
    """Posts that begin and never end."""
    head = b"POST /api/visits HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 9000\r\n\r\n{"
    _hold([head] * 150 + [head[:40]] * 150, now)
    return True


def flood(now: Round) -> bool:
    """Connections of nobody, as fast as they come, from four addresses."""
    _hold([b""] * 1_200, now)
    return True


def picture_bombs(now: Round) -> bool:
    """Six at once of 144 megapixels, and six of nearly as many as are taken."""
    answers: list[httpx.Response] = []

    def send(edge: int) -> None:
        with now.keeper() as keeper:
            owner = keeper.get("/api/animals").json()[0]["id"]
            answers.append(
                keeper.post(
                    f"/api/photos?owner={owner}",
                    content=_png(edge),
                    headers={"Content-Type": "image/png"},
                )
            )

    _at_once([lambda edge=edge: send(edge) for edge in _EDGES * 6])
    return len(answers) == 12 and all(answer.status_code < 500 for answer in answers)


def package_bombs(now: Round) -> bool:
    """A gigabyte of zeros in each of three, a line without an end, and no package at all."""
    answers: list[httpx.Response] = []

    def send(package: bytes) -> None:
        with now.keeper() as keeper:
            answers.append(
                keeper.post(
                    "/api/house/package",
                    content=package,
                    headers={"Content-Type": "application/zip"},
                )
            )

    _at_once([lambda p=p: send(p) for p in _bombs()])
    return len(answers) == 5 and all(400 <= answer.status_code < 500 for answer in answers)


def clock_steps(now: Round) -> bool:
    """Set back by an hour or a month, ahead by a day or by weeks, and right again.

    Not by so much that everybody's session is over.
    """
    step_s = now.rng.choice([-3_600.0, -30 * 86_400.0, 86_400.0, 20 * 86_400.0])
    now.served.control.clock_s = step_s
    now.wait(0.4)
    told = True
    if step_s < 0:
        with now.keeper() as keeper:
            health = keeper.get("/api/health")
            told = health.is_success and health.json()["clock_behind_s"] > 0
    now.served.control.clock_s = 0.0
    return told


Fault = Callable[[Round], bool]


def make_ready() -> None:
    """Make what is thrown before anything is measured."""
    _bombs()
    for edge in _EDGES:
        _png(edge)


def _hold(beginnings: list[bytes], now: Round) -> None:
    held: list[socket.socket] = []
    for number, said in enumerate(beginnings):
        one = socket.socket()
        one.settimeout(1.0)
        try:
            one.bind((f"127.0.0.{2 + number % 4}", 0))
            one.connect(("127.0.0.1", now.served.port))
            one.sendall(said)
        except OSError:
            one.close()
            continue
        held.append(one)
    now.wait(1.0)
    for one in held:
        one.close()


def _at_once(works: list[Callable[[], None]]) -> None:
    threads = [Thread(target=work) for work in works]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()


@functools.cache
def _png(edge: int) -> bytes:
    """A square of one colour: small as a file, large once it is opened."""
    rows = zlib.compressobj(9)
    line = bytes(1 + edge * 3)
    packed = b"".join(rows.compress(line) for _ in range(edge)) + rows.flush()
    header = struct.pack(">IIBBBBB", edge, edge, 8, 2, 0, 0, 0)
    chunks = ((b"IHDR", header), (b"IDAT", packed), (b"IEND", b""))
    return b"\x89PNG\r\n\x1a\n" + b"".join(
        struct.pack(">I", len(data)) + name + data + struct.pack(">I", zlib.crc32(name + data))
        for name, data in chunks
    )


@functools.cache
def _bombs() -> tuple[bytes, ...]:
    zeros = _zip({DESCRIPTOR: b"{}", "data/act.csv": bytes(1 << 30)})
    line = _zip({DESCRIPTOR: b"[" * 3_000_000})
    return zeros, zeros, zeros, line, b"PK\x03\x04" * 1_000


def _zip(files: dict[str, bytes]) -> bytes:
    made = io.BytesIO()
    with zipfile.ZipFile(made, "w", zipfile.ZIP_DEFLATED) as package:
        for name, data in files.items():
            package.writestr(name, data)
    return made.getvalue()
