"""Alarms: what is wrong now, the log of what was, and the stream that tells of changes."""

from collections.abc import AsyncIterable, AsyncIterator
from typing import Annotated

from fastapi import APIRouter, Depends, Path, Query, Request
from fastapi.sse import EventSourceResponse, ServerSentEvent
from starlette.concurrency import run_in_threadpool

from sandboa.core.units import SECONDS_PER_DAY
from sandboa.services.alarms.monitor import (
    Alarm,
    acknowledge,
    acknowledged_at,
    alarms_between,
    open_alarms,
)
from sandboa.services.alarms.trouble import Severity
from sandboa.services.snapshot.snapshot import Snapshot
from sandboa.web.alarms.schemas import AlarmResponse, LiveResponse
from sandboa.web.house import Asking, House, NowS, TheHouse
from sandboa.web.requests.concurrency import who
from sandboa.web.requests.exclusive_use import HouseClosed
from sandboa.web.schemas.common import ActResponse, at, at_or_none
from sandboa.web.security.authorization import still_admitted
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api", tags=["alarms"])


@router.get("/alarms", dependencies=[LOOK])
def get_alarms(
    house: TheHouse,
    now_s: NowS,
    days: Annotated[float, Query(ge=0, le=3700)] = 14.0,
    cabinet: Annotated[str | None, Query(max_length=200)] = None,
) -> list[AlarmResponse]:
    """Open alarms and those of the last days, newest first."""
    snapshot = house.snapshot()
    rows = alarms_between(now_s - days * SECONDS_PER_DAY, now_s + SECONDS_PER_DAY)
    told = alarms_told(snapshot, rows)
    return [a for a in told if cabinet is None or _same(a.cabinet, cabinet)]


@router.post("/alarms/{alarm}/acknowledgement", dependencies=[RECORD], status_code=201)
async def acknowledge_alarm(
    alarm: Annotated[int, Path(ge=1, le=2**53)], house: TheHouse, now_s: NowS
) -> ActResponse:
    """Record that an alarm was seen."""
    act = await run_in_threadpool(acknowledge, alarm, now_s)
    house.live.tell()
    return ActResponse.of(act)


async def _follow(request: Request, house: TheHouse, person: Asking) -> AsyncIterator[None]:
    with house.listening.enter(who(request, person)):
        yield


#: For an answer that goes on: it is counted until it ends.
Followed = Annotated[None, Depends(_follow)]


@router.get("/live", dependencies=[LOOK], response_class=EventSourceResponse)
async def live(request: Request, house: TheHouse, _: Followed) -> AsyncIterable[ServerSentEvent]:
    """Tells at once, and again whenever alarms change, something is recorded, or readings came (of
    these once a minute); nothing more to who was signed out since."""
    change: int | None = house.live.change
    while change is not None:
        told = await run_in_threadpool(_live, request, house)
        if told is None:
            return
        yield ServerSentEvent(data=told, id=str(change))
        change = await house.live.after(change)


def alarms_told(snapshot: Snapshot, rows: list[Alarm]) -> list[AlarmResponse]:
    """Alarms as every screen shows them; those of cabinets long gone are left out."""
    seen = acknowledged_at(rows)
    return [
        AlarmResponse(
            id=row.id,
            kind=row.kind,
            severity=Severity(row.severity),
            cabinet=snapshot.cabinets[row.cabinet_id].name if row.cabinet_id else None,
            probe=snapshot.probes[row.probe_id].name if row.probe_id in snapshot.probes else None,
            text=row.said,
            began_at=at(row.began_s),
            raised_at=at(row.raised_s),
            ended_at=at_or_none(row.ended_s),
            acknowledged_at=at_or_none(seen.get(row.id)),
        )
        for row in rows
        if row.cabinet_id is None or row.cabinet_id in snapshot.cabinets
    ]


def _same(one: str | None, other: str) -> bool:
    return one is not None and one.casefold() == other.casefold()


def _live(request: Request, house: House) -> LiveResponse | None:
    """What is told now; None for who may not see it any more, or has to ask again in a moment."""
    try:
        with house.access.use():
            if not still_admitted(request):
                return None
            rows = open_alarms()
            seen = acknowledged_at(rows)
            snapshot = house.snapshot()
    except HouseClosed:
        return None
    waiting = [row.severity for row in rows if row.id not in seen]
    return LiveResponse(
        house=house.generation,
        revision=house.live.revision,
        act=snapshot.version,
        readings=snapshot.readings.newest_change(),
        shares=house.shares.change,
        emergencies=waiting.count(Severity.EMERGENCY),
        alarms=waiting.count(Severity.ALARM),
    )
