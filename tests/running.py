"""The real command in its own process, and headless Chromium: for whoever drives them."""

import multiprocessing
import os
import re
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from multiprocessing.connection import Connection
from multiprocessing.process import BaseProcess
from typing import TextIO

from sandboa.cli import main

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
DESK = {"width": 1280, "height": 800}
PHONE = {"width": 390, "height": 844}


# Forks from a process that has the application imported already: importing takes some seconds,
# and a hundred tests start one.
_FORKS = multiprocessing.get_context("forkserver")
_FORKS.set_forkserver_preload(["sandboa.cli"])


@contextmanager
def running(*arguments: str) -> Iterator[str]:
    """`sandboa ARGUMENTS` on a free port, as a shell would start it; yields its address."""
    command = [sys.executable, "-m", "sandboa", *arguments, "--port", "0"]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as process:
        assert process.stdout is not None
        try:
            yield _address(process.stdout)
        finally:
            process.terminate()
            process.wait(timeout=20)


@contextmanager
def started(*arguments: str) -> Iterator[tuple[BaseProcess, str]]:
    """The same, forked; yields the process and its address, which listens by then."""
    ours, theirs = _FORKS.Pipe(duplex=False)
    process = _FORKS.Process(target=_command, args=(arguments, theirs), daemon=True)
    process.start()
    theirs.close()
    try:
        with os.fdopen(os.dup(ours.fileno()), encoding="utf-8") as said:
            yield process, _address(said)
    finally:
        process.terminate()
        process.join(20)
        ours.close()


@contextmanager
def forked(*arguments: str) -> Iterator[str]:
    """`sandboa ARGUMENTS` on a free port, forked; yields its address."""
    with started(*arguments) as (_, address):
        yield address


def _command(arguments: tuple[str, ...], out: Connection) -> None:
    os.dup2(out.fileno(), sys.stdout.fileno())
    sys.exit(main([*arguments, "--port", "0"]))


def _address(said: TextIO) -> str:
    found = None
    while found is None:
        line = said.readline()
        assert line, "it ended without an address"
        found = re.search(r"https?://\S+?(?=/ )", line)
    return found[0]
