"""The real command in its own process, and headless Chromium: for whoever drives them."""

import multiprocessing
import os
import re
import shutil
import sqlite3
import subprocess
import sys
from collections.abc import Iterator
from contextlib import closing, contextmanager
from functools import partial
from multiprocessing.connection import Connection
from multiprocessing.process import BaseProcess
from pathlib import Path
from typing import TextIO

from filelock import FileLock

from sandboa.cli import demo, main
from sandboa.cli.house_folder import DATABASE
from sandboa.demo import furnish
from sandboa.records.database import close_database, database, house_file, open_database
from sandboa.records.photos import FOLDER
from sandboa.web import app
from sandboa.web.clock import StoppedClock

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


# Forks from a process that has the application imported already: importing takes some seconds,
# and a hundred tests start one.
_FORKS = multiprocessing.get_context("forkserver")
_FORKS.set_forkserver_preload(["sandboa.cli.serve", "sandboa.cli.demo", "sandboa.cli.people"])


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
def opened(
    *arguments: str, furnished: Path | None = None, stopped_at_s: float | None = None
) -> Iterator[tuple[BaseProcess, str, tuple[str, str] | None]]:
    """The same, forked; yields the process, its address, and who signs in when the demo says so.

    `furnished` is the folder of a demo house made before, which is copied instead of made anew;
    at `stopped_at_s` the clock of a house that is served stands.
    """
    ours, theirs = _FORKS.Pipe(duplex=False)
    process = _FORKS.Process(
        target=_command, args=(arguments, theirs, furnished, stopped_at_s), daemon=True
    )
    process.start()
    theirs.close()
    try:
        with os.fdopen(os.dup(ours.fileno()), encoding="utf-8") as said:
            lines: list[str] = []
            address = _address(said, lines)
            told = re.search(r'as "(.+)" with the passphrase: (.+)', "".join(lines))
            yield process, address, (told[1], told[2]) if told else None
    finally:
        process.terminate()
        process.join(20)
        ours.close()


@contextmanager
def started(*arguments: str) -> Iterator[tuple[BaseProcess, str]]:
    """`sandboa ARGUMENTS` on a free port, forked; yields the process and its address."""
    with opened(*arguments) as (process, address, _):
        yield process, address


@contextmanager
def forked(*arguments: str) -> Iterator[str]:
    """`sandboa ARGUMENTS` on a free port, forked; yields its address."""
    with opened(*arguments) as (_, address, _):
        yield address


def _command(
    arguments: tuple[str, ...], out: Connection, furnished: Path | None, stopped_at_s: float | None
) -> None:
    os.dup2(out.fileno(), sys.stdout.fileno())
    if stopped_at_s is not None:
        app.SystemClock = partial(StoppedClock, stopped_at_s)
    if furnished is not None:
        demo.furnish = partial(_copied, furnished)
    sys.exit(main([*arguments, "--port", "0"]))


def furnished_once(folder: Path, now_s: float) -> Path:
    """The folder of a demo house, made by whichever worker comes first and kept for all."""
    with FileLock(f"{folder}.lock"):
        if not folder.exists():
            partial_folder = folder.with_name(f"{folder.name}.part")
            open_database(partial_folder / DATABASE)
            furnish(now_s)
            close_database()
            partial_folder.rename(folder)
    return folder


def _copied(furnished: Path, now_s: float) -> None:
    with closing(sqlite3.connect(furnished / DATABASE)) as made:
        made.backup(database.connection())
    shutil.copytree(furnished / FOLDER, house_file().parent / FOLDER, dirs_exist_ok=True)


def _address(said: TextIO, lines: list[str] | None = None) -> str:
    found = None
    while found is None:
        line = said.readline()
        assert line, "it ended without an address"
        if lines is not None:
            lines.append(line)
        found = re.search(r"https?://\S+?(?=/ )", line)
    return found[0]
