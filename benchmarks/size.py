"""What a house of many clutches costs: processor time, bytes and memory, as it grows.

Processor time is that of the server's process, as the system's clock of it tells.
"""

import math
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from datetime import UTC, datetime
from pathlib import Path
from typing import Final

import httpx2
from tests.running import address_in

from benchmarks.house_of_size import TOKEN, furnish
from benchmarks.house_of_years import CABINETS, SHELVES
from benchmarks.report import met

#: Houses are kept there for a day, for they take minutes to make.
_FOLDER: Final = Path(".scale")
_SIZES: Final = (10, 30, 100, 300)
_AT: Final = 100
_ROUNDS: Final = 5
_PLACES: Final = {"Today": "/api/today", "Round": "/api/round", "Hatch": "/api/hatch-watch"}
#: Times an empty endpoint at 100 clutches; and how answers may grow: as clutches to this power.
_HELD, _ANEW, _READ, _GROWTH = 5.0, 40.0, 25.0, 0.3
#: kB on the wire at 100 clutches, s of processor of the first answer of Losses and of a minute of
#: the watch, MB of memory and MB a clutch more.
_BYTES: Final = {"Today": 25.0, "Round": 40.0}
_LOSSES_S, _WATCH_S, _MEMORY_MB, _MORE_MB = 2.0, 1.0, 250.0, 0.5
_MINUTE_S: Final = 60.0


@dataclass
class _Size:
    """What was measured of one house: times in empty endpoints, kB, s, MB."""

    held: dict[str, float] = field(default_factory=dict)
    anew: dict[str, float] = field(default_factory=dict)
    read: dict[str, float] = field(default_factory=dict)
    kilobytes: dict[str, float] = field(default_factory=dict)
    losses_s: float = 0.0
    watch_s: float = 0.0
    memory_mb: float = 0.0


def report(sizes: tuple[int, ...] = _SIZES) -> str:
    """Each size's figures, then those that have an aim beside it."""
    found = {active: _measured(furnish(_FOLDER, active)) for active in sizes}
    if _AT in found:
        found[_AT].losses_s = _losses_s(furnish(_FOLDER, _AT))
        found[_AT].watch_s = _watch_s(furnish(_FOLDER, _AT))
    lines = ["In empty endpoints, by clutches under way (300 closed, 12 probes, a year of minutes)"]
    lines.append(f"{'':24}" + "".join(f"{active:>9}" for active in sizes))
    for what, name in (("held", "held"), ("anew", "after an act"), ("read", "after a reading")):
        for place in _PLACES:
            row = [getattr(size, what)[place] for size in found.values()]
            lines.append(f"{place + ', ' + name:24}" + "".join(f"{one:9.1f}" for one in row))
    row = [size.memory_mb for size in found.values()]
    lines.append(f"{'memory, MB':24}" + "".join(f"{one:9.0f}" for one in row))
    lines += ["", *_aims(found)]
    return "\n".join(lines)


def _aims(found: dict[int, _Size]) -> Iterator[str]:
    at = found.get(_AT)
    if at is None:
        return
    for place in _PLACES:
        yield _line(f"{place} at {_AT}, held", at.held[place], _HELD)
        yield _line(f"{place} at {_AT}, after an act", at.anew[place], _ANEW)
        yield _line(f"{place} at {_AT}, after a reading", at.read[place], _READ)
        growth = _exponent({active: size.anew[place] for active, size in found.items()})
        yield _line(f"{place}, growth after an act", growth, _GROWTH)
    for place, aim in _BYTES.items():
        yield _line(f"{place} at {_AT}, kB on the wire", at.kilobytes[place], aim)
    yield _line("Losses of a year, first answer, s", at.losses_s, _LOSSES_S)
    yield _line("watch of a minute, s", at.watch_s, _WATCH_S)
    yield _line(f"memory at {_AT}, MB", at.memory_mb, _MEMORY_MB)
    largest = max(found)
    if largest > _AT:
        more = (found[largest].memory_mb - at.memory_mb) / (largest - _AT)
        yield _line("memory beyond, MB a clutch", more, _MORE_MB)


def _line(what: str, value: float, aim: float) -> str:
    return f"  {what:34} {value:8.2f}  aim {aim:<6g} {met(value <= aim)}"


def _exponent(by_size: dict[int, float]) -> float:
    """The power of the number of clutches that times follow, from the smallest to the largest."""
    least, most = min(by_size), max(by_size)
    if least == most:
        return math.nan
    return math.log(by_size[most] / by_size[least]) / math.log(most / least)


def _measured(folder: Path) -> _Size:
    size = _Size()
    with _served(folder) as (pid, http):
        token = (folder / TOKEN).read_text()
        boxes = http.get("/api/today").json()["boxes"]
        clutch = boxes[0]["clutches"][0]["code"]
        empty_s = min(_cost_s(pid, lambda: http.get("/api/alive")) for _ in range(20))

        def act() -> None:
            grade = {"grade": int(time.time()) % 2}
            http.post(f"/api/clutches/{clutch}/eggs/2/grades", json=grade).raise_for_status()

        def reading() -> None:
            _send(http, token, ["North top"])
            time.sleep(1.0)

        for place, path in _PLACES.items():
            http.get(path)

            def ask(path: str = path) -> None:
                http.get(path).raise_for_status()

            size.held[place] = _best_s(pid, ask) / empty_s
            size.anew[place] = _best_s(pid, ask, act) / empty_s
            size.read[place] = _best_s(pid, ask, reading) / empty_s
            size.kilobytes[place] = _on_the_wire(http, path) / 1000
        size.memory_mb = _memory_mb(pid)
    return size


def _losses_s(folder: Path) -> float:
    """Processor time (s) of the server until it first tells of the losses of a year."""
    with _served(folder) as (pid, http):
        year = time.gmtime().tm_year
        return _cost_s(pid, lambda: http.get(f"/api/losses?year={year}"))


def _watch_s(folder: Path) -> float:
    """Processor time (s) of the server in a minute in which every probe is heard once.

    No page is open. The first minute, in which everything is read, is not counted.
    """
    with _served(folder) as (pid, http):
        token = (folder / TOKEN).read_text()

        def minute() -> None:
            _send(http, token, [f"{cabinet} {shelf}" for cabinet in CABINETS for shelf in SHELVES])
            time.sleep(_MINUTE_S)

        minute()
        return _cost_s(pid, minute)


def _send(http: httpx2.Client, token: str, probes: list[str]) -> None:
    """A reading of now of each probe."""
    at = datetime.now(UTC).isoformat()
    rows = [{"probe": name, "at": at, "temperature_c": 31.4} for name in probes]
    headers = {"Authorization": f"Bearer {token}"}
    http.post("/api/readings", json={"readings": rows}, headers=headers).raise_for_status()


def _best_s(pid: int, ask: Callable[[], None], before: Callable[[], None] | None = None) -> float:
    """Least processor time (s) of the server to answer, each time after something."""
    costs = []
    for _ in range(_ROUNDS):
        if before is not None:
            before()
        costs.append(_cost_s(pid, ask))
    return min(costs)


def _cost_s(pid: int, ask: Callable[[], object]) -> float:
    before = _processor_s(pid)
    ask()
    return _processor_s(pid) - before


def _processor_s(pid: int) -> float:
    """Processor time (s) of all threads of a process so far, those that ended too."""
    # As clock_getcpuclockid(3) numbers the clock of another process.
    return time.clock_gettime((~pid << 3) | 2)


def _memory_mb(pid: int) -> float:
    status = Path(f"/proc/{pid}/status").read_text()
    line = next(line for line in status.splitlines() if line.startswith("VmHWM"))
    return int(line.split()[1]) / 1000


def _on_the_wire(http: httpx2.Client, path: str) -> int:
    """Bytes of an answer as they travel to a browser, which takes gzip."""
    with http.stream("GET", path, headers={"Accept-Encoding": "gzip"}) as answer:
        raw = b"".join(answer.iter_raw())
    return len(raw)


@contextmanager
def _served(folder: Path) -> Iterator[tuple[int, httpx2.Client]]:
    """A house served by the real command: its process and who asks it."""
    command = [sys.executable, "-m", "sandboa", "serve", "--data", str(folder), "--port", "0"]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as process:
        assert process.stdout is not None
        try:
            address = address_in(process.stdout)
            with httpx2.Client(base_url=address, timeout=600.0) as http:
                http.get("/api/alive").raise_for_status()
                yield process.pid, http
        finally:
            process.terminate()
            process.wait(timeout=60)


if __name__ == "__main__":
    print(report(tuple(int(size) for size in sys.argv[1:]) or _SIZES))
