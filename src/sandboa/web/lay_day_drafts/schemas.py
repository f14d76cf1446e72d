"""Requests and responses of this place."""

from typing import Annotated

from pydantic import BaseModel, Field

from sandboa.core.lay_day import Step
from sandboa.services.clutches.photos import photos_of_owner
from sandboa.services.lay_day.drafts import LayDayNow
from sandboa.services.lay_day.state import LayDayState, OriginState
from sandboa.web.lay_day.schemas import Name
from sandboa.web.schemas.common import (
    AskedMoment,
    Moment,
    PhotoResponse,
    RequestSchema,
    ResponseSchema,
    at,
)


class BeginRequest(RequestSchema):
    """`laid_at` null: now, as she is found; `origin` where nobody saw them laid."""

    dam: Name
    sire: Name | None = None
    laid_at: AskedMoment | None = None
    second_clutch: bool = False
    origin: OriginState | None = None


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
