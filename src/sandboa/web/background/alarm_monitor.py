"""The watch: looks at the cabinets when readings came in, and once a minute anyway."""

import asyncio
import logging
from collections.abc import AsyncIterator, Callable
from contextlib import asynccontextmanager, suppress
from typing import Final

from fastapi import FastAPI
from starlette.concurrency import run_in_threadpool

from sandboa.devices.messengers import POST
from sandboa.services.alarms.delivery import deliver, tell_of_damage
from sandboa.services.alarms.monitor import update_alarms
from sandboa.services.clutches import issued_forecasts
from sandboa.services.safekeeping.condition import house_troubles
from sandboa.services.safekeeping.house_file import damage
from sandboa.web.background.outbox import Outbox
from sandboa.web.house import House

#: s between looks when nothing comes in; and after readings came, before looking (they come in
#: bursts). A reading that makes an alarm is shown within a minute.
_TICK_S: Final = 30.0
_BURST_S: Final = 1.0
#: s between two times that pages are told of readings: they are judged by the minute.
_TOLD_S: Final = 60.0

_log = logging.getLogger(__name__)


@asynccontextmanager
async def monitoring_alarms(app: FastAPI) -> AsyncIterator[None]:
    """Lifespan of the application: watch as long as it runs."""
    outbox = Outbox(POST, app.state.house.access)
    task = asyncio.create_task(_monitor(app.state.house, outbox))
    try:
        yield
    finally:
        task.cancel()
        with suppress(asyncio.CancelledError):
            await task
        await run_in_threadpool(outbox.close)


async def _monitor(house: House, outbox: Outbox) -> None:
    house.live.loop = asyncio.get_running_loop()
    told_s, untold = 0.0, False
    while True:
        untold = untold or house.live.came.is_set()
        if untold and not 0.0 <= house.clock.now_s() - told_s < _TOLD_S:
            house.live.recorded()
            told_s, untold = house.clock.now_s(), False
        house.live.came.clear()
        try:
            changed = await run_in_threadpool(look_round, house, outbox.deliver)
            if changed:
                house.live.tell()
        except Exception:
            # The watch must outlive whatever a look runs into; the next one tries again.
            _log.exception("a look at the cabinets failed")
        with suppress(TimeoutError):
            await asyncio.wait_for(house.live.came.wait(), _TICK_S)
            await asyncio.sleep(_BURST_S)


def _deliver_here(now_s: float) -> None:
    deliver(POST, now_s)


def look_round(house: House, send: Callable[[float], None] = _deliver_here) -> bool:
    """One look: alarms raised and ended, messages given to `send`, forecasts of the day kept.

    In a damaged house nothing is kept: that it is damaged goes out instead.
    """
    with house.access.use_when_open():
        return _look(house, send)


def _look(house: House, send: Callable[[float], None]) -> bool:
    now_s = house.clock.now_s()
    if found := damage():
        tell_of_damage(POST, found, now_s)
        house.looked_s = now_s
        return False
    further = () if house.demo else house_troubles(now_s, house.backups, house.problems)
    changes = update_alarms(house.snapshot(), now_s, further)
    # Not before: a look that fails each time is none.
    house.looked_s = now_s
    send(now_s)
    # A day's forecast, and what a closed clutch taught, can wait for the next minute or act.
    snapshot = house.snapshot()
    minute = (snapshot.version, int(now_s // 60.0))
    if not snapshot.kept.holds("forecasts kept", minute) and not issued_forecasts.keep_due(
        snapshot, now_s
    ):
        snapshot.kept.held("forecasts kept", minute, lambda: None)
    return bool(changes)
