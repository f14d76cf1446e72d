"""Lay days under way: begun, carried on from any device, recorded."""

from typing import Annotated

from fastapi import APIRouter, Path
from pydantic import BaseModel, Field

from sandboa.core.lay_day import Step
from sandboa.services.clutches.photos import photos_of_owner
from sandboa.services.lay_day import drafts
from sandboa.services.lay_day.drafts import LayDayNow
from sandboa.services.lay_day.state import LayDayState
from sandboa.web.house import NowS
from sandboa.web.routers.lay_day import LaidResponse, Name
from sandboa.web.shapes import (
    ActResponse,
    AskedMoment,
    Moment,
    PhotoResponse,
    RequestSchema,
    ResponseSchema,
    at,
)

router = APIRouter(prefix="/api/lay-days", tags=["lay day"])

LayDayId = Annotated[int, Path(ge=1, le=2**53)]


class BeginRequest(RequestSchema):
    """`laid_at` null: now, as she is found."""

    dam: Name
    sire: Name | None = None
    laid_at: AskedMoment | None = None
    second_clutch: bool = False


class SaveRequest(RequestSchema):
    """The whole state after a step; `revision` is the one it was made from."""

    revision: Annotated[int, Field(ge=1, le=2**53)]
    step: Step
    state: LayDayState


class AsideRequest(RequestSchema):
    aside: bool


class TurnResponse(ResponseSchema):
    turn: bool
    text: str
    until: Moment = Field(validation_alias="until_s")


class DamLossResponse(ResponseSchema):
    before_g: float
    share: float | None
    usual: bool | None


class LayDayResponse(BaseModel):
    """`turning` has an entry for each egg, null where the disc is on top or not seen."""

    id: int
    revision: int
    step: Step
    steps: list[Step]
    state: LayDayState
    started_at: Moment
    saved_at: Moment
    count: str | None
    next_code: str
    turning: list[TurnResponse | None]
    dam_loss: DamLossResponse | None
    found_again: str | None
    clutch: str | None
    photos: list[PhotoResponse]

    @classmethod
    def of(cls, now: LayDayNow) -> "LayDayResponse":
        return cls(
            id=now.id,
            revision=now.revision,
            step=now.step,
            steps=list(now.steps),
            state=now.state,
            started_at=at(now.started_s),
            saved_at=at(now.saved_s),
            count=str(now.count) if now.count else None,
            next_code=now.next_code,
            turning=[TurnResponse.model_validate(t) if t else None for t in now.turning],
            dam_loss=DamLossResponse.model_validate(now.dam_loss) if now.dam_loss else None,
            found_again=now.found_again,
            clutch=now.clutch,
            photos=[PhotoResponse.model_validate(p) for p in photos_of_owner(now.id)],
        )


@router.get("")
def get_lay_days(now_s: NowS) -> list[LayDayResponse]:
    """Lay days begun and neither recorded nor set aside."""
    return [LayDayResponse.of(now) for now in drafts.open_lay_days(now_s)]


@router.post("", status_code=201)
def begin_lay_day(asked: BeginRequest, now_s: NowS) -> LayDayResponse:
    """Begin a lay day."""
    laid_at = asked.laid_at or drafts.moment(now_s)
    draft = drafts.begin(asked.dam, asked.sire, laid_at, now_s, second_clutch=asked.second_clutch)
    return LayDayResponse.of(drafts.lay_day_now(draft, now_s))


@router.get("/{lay_day}")
def get_lay_day(lay_day: LayDayId, now_s: NowS) -> LayDayResponse:
    """How a lay day stands."""
    return LayDayResponse.of(drafts.lay_day_now(lay_day, now_s))


@router.put("/{lay_day}")
def save_lay_day(lay_day: LayDayId, asked: SaveRequest, now_s: NowS) -> LayDayResponse:
    """Keep what a step gathered; a conflict when another device was faster."""
    drafts.save(lay_day, asked.revision, asked.step, asked.state, now_s)
    return LayDayResponse.of(drafts.lay_day_now(lay_day, now_s))


@router.post("/{lay_day}/clutch", status_code=201)
def record_lay_day(lay_day: LayDayId, now_s: NowS) -> LaidResponse:
    """Record the clutch, in one act."""
    code, act = drafts.record(lay_day, now_s)
    return LaidResponse(code=code, act=ActResponse.of(act))


@router.post("/{lay_day}/aside")
def set_lay_day_aside(lay_day: LayDayId, asked: AsideRequest, now_s: NowS) -> LayDayResponse:
    """Put a lay day away that came to nothing, or take it out again."""
    drafts.set_aside(lay_day, asked.aside)
    return LayDayResponse.of(drafts.lay_day_now(lay_day, now_s))
