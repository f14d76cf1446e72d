"""The real command in its own process, on a disk that fails on command.

`python -m benchmarks.injected.served CONTROL DISK ARGUMENT ...` is `sandboa
ARGUMENT ...` with a clock that can be set, and the shim where DISK is `failing`.
"""

import os
import re
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from threading import Event, Thread
from typing import Any, Self

import httpx2 as httpx
import psutil

from benchmarks.injected.disk import Control, FailingDisk

NAME, PASSPHRASE = "Keeper", "beeswax ladder harbour mint"
_ROOT = Path(__file__).parents[2]


class Served:
    """A house that is served, killed, and served again at the same port."""

    def __init__(self, folder: Path, source: Path, *, failing_disk: bool = False) -> None:
        self.folder = folder
        self.source = source
        #: The shim answers each read in Python, one at a time: only where reads or writes fail.
        self._disk = "failing" if failing_disk else "sound"
        self.control = Control(folder / "control")
        self.port = 0
        self.peak_mb = self.idle_mb = 0.0
        #: Set while the house should answer.
        self.up = Event()
        self._process: subprocess.Popen[str] | None = None
        self._watched = Event()

    def __enter__(self) -> Self:
        return self

    def __exit__(self, *_: object) -> None:
        if self._process is not None and self._process.poll() is None:
            self.kill()

    @property
    def base(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    @property
    def pid(self) -> int:
        assert self._process is not None
        return self._process.pid

    def start(self) -> None:
        """Serve the house and wait for its first answer."""
        asked = ("serve", "--data", str(self.folder / "house"), "--port", str(self.port))
        path = f"{self.source}{os.pathsep}{_ROOT}{os.pathsep}{_ROOT / 'tests'}"
        with (self.folder / "log").open("a") as log:
            self._process = subprocess.Popen(
                [sys.executable, "-m", __name__, str(self.folder / "control"), self._disk, *asked],
                stdout=subprocess.PIPE,
                stderr=log,
                text=True,
                env={**os.environ, "PYTHONPATH": path},
            )
        assert self._process.stdout is not None
        for line in self._process.stdout:
            if found := re.search(r"http://127\.0\.0\.1:(\d+)", line):
                self.port = int(found[1])
                break
        else:
            said = (self.folder / "log").read_text()[-400:]
            raise RuntimeError(f"it ended without an address: {said}")
        while not self.answers():
            assert self._process.poll() is None
        self.up.set()

    def answers(self) -> bool:
        try:
            return httpx.get(f"{self.base}/api/alive", timeout=5).is_success
        except httpx.TransportError:
            return False

    def kill(self) -> None:
        """As a power cut ends it."""
        self.up.clear()
        assert self._process is not None
        self._process.kill()
        self._gone()

    def stop(self) -> None:
        """As somebody stops it."""
        self.up.clear()
        assert self._process is not None
        self._process.terminate()
        self._gone()

    def ended(self) -> bool:
        """Wait for the process to end by itself."""
        assert self._process is not None
        try:
            self._process.wait(10)
        except subprocess.TimeoutExpired:
            return False
        self.up.clear()
        self._gone()
        return True

    def _gone(self) -> None:
        assert self._process is not None
        self._process.wait(30)
        assert self._process.stdout is not None
        self._process.stdout.close()

    @contextmanager
    def session(self) -> Iterator[httpx.Client]:
        """Somebody signed in."""
        said = {"name": NAME, "passphrase": PASSPHRASE}
        with httpx.Client(base_url=self.base, timeout=20) as client:
            answer = client.post("/api/session", json=said)
            if not answer.is_success:
                raise RuntimeError(answer.text)
            yield client

    @contextmanager
    def memory_watched(self) -> Iterator[None]:
        """Meanwhile the memory of the process and its children is looked at, for its peak (MB)."""
        self._watched.clear()
        self.idle_mb = self.peak_mb = self._memory_mb()
        watcher = Thread(target=self._watch, daemon=True)
        watcher.start()
        try:
            yield
        finally:
            self._watched.set()
            watcher.join()

    def _watch(self) -> None:
        while not self._watched.wait(0.02):
            self.peak_mb = max(self.peak_mb, self._memory_mb())

    def _memory_mb(self) -> float:
        try:
            own = psutil.Process(self.pid)
            return (
                sum(_own_bytes(process) for process in (own, *own.children(recursive=True))) / 2**20
            )
        except psutil.Error:
            return 0.0


def _own_bytes(process: psutil.Process) -> int:
    try:
        return int(process.memory_full_info().uss)
    except psutil.Error:
        return 0


def _serve(control: Control, disk: str, arguments: list[str]) -> int:
    kept: Any = FailingDisk(control) if disk == "failing" else None
    real = time.time
    time.time = lambda: real() + control.clock_s
    from sandboa.cli import main

    code = main(arguments)
    del kept
    return code


if __name__ == "__main__":
    sys.exit(_serve(Control(Path(sys.argv[1])), sys.argv[2], sys.argv[3:]))
