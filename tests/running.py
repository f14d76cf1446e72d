"""The real command in its own process, and headless Chromium: for whoever drives them."""

import re
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager

CHROMIUM_FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
DESK = {"width": 1280, "height": 800}
PHONE = {"width": 390, "height": 844}


@contextmanager
def started(*arguments: str) -> Iterator[tuple[subprocess.Popen[str], str]]:
    """`sandboa ARGUMENTS` on a free port: the process and its address, which listens by then."""
    command = [sys.executable, "-m", "sandboa", *arguments, "--port", "0"]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
    assert process.stdout is not None
    try:
        found = None
        while found is None:
            line = process.stdout.readline()
            assert line, "it ended without an address"
            found = re.search(r"http://\S+?(?=/ )", line)
        yield process, found[0]
    finally:
        process.terminate()
        process.wait(timeout=20)
        process.stdout.close()


@contextmanager
def running(*arguments: str) -> Iterator[str]:
    """`sandboa ARGUMENTS` on a free port; yields its address."""
    with started(*arguments) as (_, address):
        yield address
