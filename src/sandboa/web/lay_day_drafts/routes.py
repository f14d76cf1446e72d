"""Lay days under way: begun, carried on from any device, recorded."""

from typing import Annotated

from fastapi import APIRouter, Path, Query

from sandboa.services.lay_day import drafts
from sandboa.web.house import NowS
from sandboa.web.lay_day.schemas import LaidResponse
from sandboa.web.lay_day_drafts.schemas import (
    AsideRequest,
    BeginRequest,
    LayDayResponse,
    SaveRequest,
)
from sandboa.web.schemas.common import (
    ActResponse,
)
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api/lay-day-drafts", tags=["lay day"])


LayDayId = Annotated[int, Path(ge=1, le=2**53)]


@router.get("", dependencies=[LOOK])
def get_lay_days(now_s: NowS, aside: Annotated[bool, Query()] = False) -> list[LayDayResponse]:
    """Lay days begun and not recorded: those under way, or those set `aside`."""
    return [LayDayResponse.of(now) for now in drafts.open_lay_days(now_s, aside=aside)]


@router.post("", dependencies=[RECORD], status_code=201)
def begin_lay_day(asked: BeginRequest, now_s: NowS) -> LayDayResponse:
    """Begin a lay day."""
    laid_at = asked.laid_at or drafts.moment(now_s)
    draft = drafts.begin(
        asked.dam,
        asked.sire,
        laid_at,
        now_s,
        second_clutch=asked.second_clutch,
        origin=asked.origin,
    )
    return LayDayResponse.of(drafts.lay_day_now(draft, now_s))


@router.get("/{lay_day}", dependencies=[LOOK])
def get_lay_day(lay_day: LayDayId, now_s: NowS) -> LayDayResponse:
    """How a lay day stands."""
    return LayDayResponse.of(drafts.lay_day_now(lay_day, now_s))


@router.put("/{lay_day}", dependencies=[RECORD])
def save_lay_day(lay_day: LayDayId, asked: SaveRequest, now_s: NowS) -> LayDayResponse:
    """Keep what a step gathered; a conflict when another device was faster."""
    drafts.save(lay_day, asked.revision, asked.step, asked.state, now_s)
    return LayDayResponse.of(drafts.lay_day_now(lay_day, now_s))


@router.post("/{lay_day}/clutch", dependencies=[RECORD], status_code=201)
def record_lay_day(lay_day: LayDayId, now_s: NowS) -> LaidResponse:
    """Record the clutch, in one act."""
    code, act = drafts.record(lay_day, now_s)
    return LaidResponse(code=code, act=ActResponse.of(act))


@router.post("/{lay_day}/aside", dependencies=[RECORD])
def set_lay_day_aside(lay_day: LayDayId, asked: AsideRequest, now_s: NowS) -> LayDayResponse:
    """Put a lay day away that came to nothing, or take it out again."""
    drafts.set_aside(lay_day, asked.aside)
    return LayDayResponse.of(drafts.lay_day_now(lay_day, now_s))
