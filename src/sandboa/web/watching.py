"""The watch: looks at the cabinets when readings came in, and once a minute anyway."""

import asyncio
import logging
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager, suppress
from typing import Final

from fastapi import FastAPI
from starlette.concurrency import run_in_threadpool

from sandboa.devices.messengers import CARRIERS
from sandboa.journal import forecasts_told
from sandboa.journal.messages import deliver
from sandboa.journal.watch import watch
from sandboa.records.facts import newest_act
from sandboa.web.house import House

#: s between looks when nothing comes in; and after readings came, before looking (they come in
#: bursts). A reading that makes an alarm is shown within a minute.
_TICK_S: Final = 30.0
_BURST_S: Final = 1.0

_log = logging.getLogger(__name__)


@asynccontextmanager
async def watching(app: FastAPI) -> AsyncIterator[None]:
    """Lifespan of the application: watch as long as it runs."""
    task = asyncio.create_task(_watch(app.state.house))
    try:
        yield
    finally:
        task.cancel()
        with suppress(asyncio.CancelledError):
            await task


async def _watch(house: House) -> None:
    house.live.loop = asyncio.get_running_loop()
    while True:
        house.live.came.clear()
        try:
            changed = await run_in_threadpool(look_round, house)
            if changed:
                house.live.tell()
        except Exception:
            # The watch must outlive whatever a look runs into; the next one tries again.
            _log.exception("a look at the cabinets failed")
        with suppress(TimeoutError):
            await asyncio.wait_for(house.live.came.wait(), _TICK_S)
            await asyncio.sleep(_BURST_S)


def look_round(house: House) -> bool:
    """One look: alarms raised and ended, messages sent, forecasts of the day kept."""
    now_s = house.clock.now_s()
    changes = watch(house.now, house.faults, now_s)
    deliver(CARRIERS, now_s)
    # A day's forecast, and what a closed clutch taught, can wait for the next minute or act.
    minute = (newest_act(), int(now_s // 60.0))
    if not house.now.holds("forecasts kept", minute) and not forecasts_told.keep_due(
        house.now, now_s
    ):
        house.now.held("forecasts kept", minute, lambda: None)
    return bool(changes)
