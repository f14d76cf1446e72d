"""The command forked from a process that is ready; the real one takes seconds to start."""

import multiprocessing
import os
import re
import shutil
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from functools import cache, partial
from multiprocessing import forkserver
from multiprocessing.connection import Connection
from multiprocessing.context import ForkServerContext
from multiprocessing.process import BaseProcess
from pathlib import Path
from typing import Any

import pytest
from fastapi import FastAPI
from filelock import FileLock

from houses import hash_cheaply
from running import address_in, free_port
from sandboa.cli import demo, main
from sandboa.cli.house_folder import DATABASE
from sandboa.demo import furnish
from sandboa.records.database import close_database, house_file, open_database
from sandboa.records.photos import FOLDER
from sandboa.web import app
from sandboa.web.clock import Clock, StoppedClock

#: Ports of servers that have ended: the next one takes one of them, and a browser that was there
#: has the scripts of the house at hand.
_ports: list[int] = []


@cache
def _forks() -> ForkServerContext:
    """Forks from a process that has imported the application."""
    forks = multiprocessing.get_context("forkserver")
    forks.set_forkserver_preload(["preloaded", "forked"])
    # It does not look where this process looks for what it imports.
    with pytest.MonkeyPatch.context() as environment:
        environment.setenv("PYTHONPATH", str(Path(__file__).parent))
        forkserver.ensure_running()
    return forks


@contextmanager
def opened(
    *arguments: str, furnished: Path | None = None, stopped_at_s: float | None = None
) -> Iterator[tuple[BaseProcess, str, tuple[str, str] | None]]:
    """`sandboa ARGUMENTS` on a free port, forked.

    Yields the process, its address, and who signs in when the demo says so.

    `furnished` is the folder of a demo house made before, which is copied instead of made anew;
    at `stopped_at_s` the clock of a house that is served stands.
    """
    forks = _forks()
    ours, theirs = forks.Pipe(duplex=False)
    port = _ports.pop() if _ports else free_port()
    process = forks.Process(
        target=_command,
        args=((*arguments, "--port", str(port)), theirs, furnished, stopped_at_s),
        daemon=True,
    )
    process.start()
    theirs.close()
    try:
        with os.fdopen(os.dup(ours.fileno()), encoding="utf-8") as said:
            lines: list[str] = []
            address = address_in(said, lines)
            told = re.search(r'as "(.+)" with the passphrase: (.+)', "".join(lines))
            yield process, address, (told[1], told[2]) if told else None
    finally:
        process.terminate()
        process.join(20)
        ours.close()
        _ports.append(port)


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
    hash_cheaply()
    if furnished is not None:
        demo.create_app = partial(_app_of_copy, furnished)
        demo.furnish = partial(_copied_photos, furnished)
    sys.exit(main(list(arguments)))


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


def _app_of_copy(furnished: Path, path: Path, clock: Clock, **more: Any) -> FastAPI:
    """The application over a copy: a new house would go through every migration."""
    shutil.copy(furnished / DATABASE, path)
    return app.create_app(path, clock, **more)


def _copied_photos(furnished: Path, now_s: float) -> None:
    shutil.copytree(furnished / FOLDER, house_file().parent / FOLDER, dirs_exist_ok=True)
