"""Alarms: what is wrong now, the log of what was, and the stream that tells of changes."""

from collections.abc import AsyncIterable
from typing import Annotated

from fastapi import APIRouter, Path, Query, Request
from fastapi.sse import EventSourceResponse, ServerSentEvent
from pydantic import BaseModel
from starlette.concurrency import run_in_threadpool

from sandboa.core.units import SECONDS_PER_DAY
from sandboa.journal.facts_now import Facts
from sandboa.journal.watch import Severity, acknowledge, acknowledged_at
from sandboa.records.alarms import Alarm, alarms_between, open_alarms
from sandboa.web.doors import still_admitted
from sandboa.web.house import NowS, TheHouse
from sandboa.web.shapes import ActTold, Moment, at, at_or_none

router = APIRouter(prefix="/api", tags=["alarms"])


class AlarmTold(BaseModel):
    """An alarm; open while `ended_at` is null."""

    id: int
    kind: str
    severity: Severity
    cabinet: str
    probe: str | None
    text: str
    began_at: Moment
    raised_at: Moment
    ended_at: Moment | None
    acknowledged_at: Moment | None


class LiveTold(BaseModel):
    """How many alarms are open and not yet acknowledged; notices are not counted."""

    revision: int
    emergencies: int
    alarms: int


@router.get("/alarms")
def get_alarms(
    house: TheHouse,
    now_s: NowS,
    days: Annotated[float, Query(ge=0, le=3700)] = 14.0,
    cabinet: Annotated[str | None, Query(max_length=200)] = None,
) -> list[AlarmTold]:
    """Open alarms and those of the last days, newest first."""
    facts = house.now.facts()
    rows = alarms_between(now_s - days * SECONDS_PER_DAY, now_s + SECONDS_PER_DAY)
    told = alarms_told(facts, rows)
    return [a for a in told if cabinet is None or a.cabinet.casefold() == cabinet.casefold()]


@router.post("/alarms/{alarm}/acknowledgement", status_code=201)
async def acknowledge_alarm(
    alarm: Annotated[int, Path(ge=1, le=2**53)], house: TheHouse, now_s: NowS
) -> ActTold:
    """Record that an alarm was seen."""
    act = await run_in_threadpool(acknowledge, alarm, now_s)
    house.live.tell()
    return ActTold.of(act)


@router.get("/live", response_class=EventSourceResponse)
async def live(request: Request, house: TheHouse) -> AsyncIterable[ServerSentEvent]:
    """Tells at once, and again whenever alarms change; nothing more to who was signed out since."""
    revision: int | None = house.live.revision
    while revision is not None and await run_in_threadpool(still_admitted, request):
        told = await run_in_threadpool(_live, revision)
        yield ServerSentEvent(data=told, id=str(revision))
        revision = await house.live.after(revision)


def alarms_told(facts: Facts, rows: list[Alarm]) -> list[AlarmTold]:
    """Alarms as every screen shows them; those of cabinets long gone are left out."""
    seen = acknowledged_at(rows)
    return [
        AlarmTold(
            id=row.id,
            kind=row.kind,
            severity=Severity(row.severity),
            cabinet=facts.cabinets[row.cabinet].name,
            probe=facts.probes[row.probe].name if row.probe in facts.probes else None,
            text=row.text,
            began_at=at(row.began_s),
            raised_at=at(row.raised_s),
            ended_at=at_or_none(row.ended_s),
            acknowledged_at=at_or_none(seen.get(row.id)),
        )
        for row in rows
        if row.cabinet in facts.cabinets
    ]


def _live(revision: int) -> LiveTold:
    rows = open_alarms()
    seen = acknowledged_at(rows)
    waiting = [row.severity for row in rows if row.id not in seen]
    return LiveTold(
        revision=revision,
        emergencies=waiting.count(Severity.EMERGENCY),
        alarms=waiting.count(Severity.ALARM),
    )
