"""The real command in its own process, and headless Chromium: for whoever drives them."""

import re
import secrets
import shutil
import socket
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from typing import TextIO

CHROMIUM_FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-gpu-rasterization",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


def chromium_here() -> str | None:
    """Path of Chromium, the one without a window where it is installed: it does a fifth less."""
    return shutil.which("chromium-headless-shell") or shutil.which("chromium")


DESK = {"width": 1280, "height": 800}
PHONE = {"width": 390, "height": 844}


@contextmanager
def running(*arguments: str) -> Iterator[str]:
    """`sandboa ARGUMENTS` on a free port, as a shell would start it; yields its address."""
    command = [sys.executable, "-m", "sandboa", *arguments, "--port", "0"]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as process:
        assert process.stdout is not None
        try:
            yield address_in(process.stdout)
        finally:
            process.terminate()
            process.wait(timeout=20)


#: Ports below those a system gives to whoever connects: one of ours that is free for a while is
#: not taken by a browser meanwhile.
_PORTS = range(20_000, 32_000)


def free_port() -> int:
    """A port nobody listens at."""
    while True:
        port = secrets.choice(_PORTS)
        with socket.socket() as asked, suppress(OSError):
            asked.bind(("127.0.0.1", port))
            return port


def address_in(said: TextIO, lines: list[str] | None = None) -> str:
    """The address that a starting command says; `lines` takes all it said until then."""
    found = None
    while found is None:
        line = said.readline()
        assert line, "it ended without an address"
        if lines is not None:
            lines.append(line)
        found = re.search(r"https?://\S+?(?=/ )", line)
    return found[0]
