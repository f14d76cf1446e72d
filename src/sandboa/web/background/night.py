"""The night's work: a backup and a look at the whole record, once a day, beside everything else."""

import asyncio
import logging
import threading
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager, suppress
from typing import Final

from fastapi import FastAPI
from starlette.concurrency import run_in_threadpool

from sandboa.services.safekeeping.backups import backup_due
from sandboa.services.safekeeping.daily import night
from sandboa.services.safekeeping.house_file import let_go
from sandboa.web.house import House

#: s between two looks whether the night's work is due.
_TICK_S: Final = 60.0
#: s that a look at the record rests after each part of it: other work goes first.
_REST_S: Final = 0.02

_log = logging.getLogger(__name__)


@asynccontextmanager
async def nights(app: FastAPI) -> AsyncIterator[None]:
    """Part of the lifespan of the application: do the night's work when it is due."""
    stop = threading.Event()
    task = asyncio.create_task(_nights(app.state.house, stop))
    try:
        yield
    finally:
        stop.set()
        task.cancel()
        with suppress(asyncio.CancelledError):
            await task


async def _nights(house: House, stop: threading.Event) -> None:
    while True:
        await asyncio.sleep(_TICK_S)
        try:
            await run_in_threadpool(night_if_due, house, stop)
        except Exception:
            # The next minute tries again.
            _log.exception("the night's work failed")


def night_if_due(house: House, stop: threading.Event) -> bool:
    """Do the night's work if it is due; returns whether it was."""
    now_s = house.clock.now_s()
    with house.access.use_when_open():
        try:
            if house.demo or not backup_due(now_s):
                return False
            _log.info("the night's work begins")
            house.problems = night(now_s, house.backups, lambda: _rest(stop)).problems
            _log.info("the night's work is done, %d problems", len(house.problems))
        finally:
            let_go()
    house.live.readings_came_elsewhere()
    return True


def _rest(stop: threading.Event) -> None:
    if stop.wait(_REST_S):
        raise InterruptedError("the application stops")
