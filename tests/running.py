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
def running(*arguments: str) -> Iterator[str]:
    """`sandboa ARGUMENTS` on a free port; yields its address. It listens before it says so."""
    command = [sys.executable, "-m", "sandboa", *arguments, "--port", "0"]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
    assert process.stdout is not None
    try:
        line = process.stdout.readline()
        found = re.search(r"http://\S+?(?=/ )", line)
        assert found, f"no address in {line!r}"
        yield found[0]
    finally:
        process.terminate()
        process.wait(timeout=20)
        process.stdout.close()
