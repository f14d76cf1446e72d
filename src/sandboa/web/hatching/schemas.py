"""Requests and responses of this place."""

from typing import Annotated

from pydantic import BaseModel, Field

from sandboa.core.development import Window
from sandboa.core.hatching import AdviceKind, DeathStage, Fate
from sandboa.core.hatching.last_week import LastWeekTask
from sandboa.core.methods import CuttingSchool
from sandboa.services.hatching.overview import HatchingClutch, HatchingEgg
from sandboa.web.hatchlings.schemas import HatchlingResponse, MomentRequest
from sandboa.web.schemas.common import (
    ImpossiblePipResponse,
    Moment,
    RequestSchema,
    ResponseSchema,
    WindowResponse,
    at_or_none,
)
from sandboa.web.schemas.eggs import EggResponse, egg_told

_SHORT_NAME = Annotated[str, Field(max_length=200)]


class SeveralRequest(MomentRequest):
    """Eggs of a clutch by their numbers: pipped, or with `out` out of their shells."""

    eggs: Annotated[list[Annotated[int, Field(ge=1, le=1000)]], Field(min_length=1, max_length=30)]
    out: bool


class CutRequest(MomentRequest):
    """An egg opened by hand: why, and whether it bled."""

    reason: _SHORT_NAME
    bled: bool = False


class FateRequest(RequestSchema):
    """What became of an egg; `stage` where it died inside."""

    number: Annotated[int, Field(ge=1, le=1000)]
    fate: Fate
    stage: DeathStage | None = None


class FatesRequest(MomentRequest):
    fates: list[FateRequest] = Field(max_length=100)


class LastWeekTickRequest(MomentRequest):
    task: LastWeekTask
    done: bool


class ScoreResponse(ResponseSchema):
    """Forecasts made on `day` after lay, held against the mean pip that came.

    Errors in days, positive when the forecast was too late; `in_half` and
    `in_eighty` are how many pips the 50 % and the 80 % window held. Those of a `first_season`
    were made before any clutch of the house had taught something.
    """

    day: int
    first_season: bool
    clutches: int
    bias_days: float
    error_days: float
    in_half: int
    in_eighty: int


class AdviceResponse(ResponseSchema):
    kind: AdviceKind
    text: str
    reason: str


class HatchingEggResponse(BaseModel):
    """`fate` is declared by the keeper or follows from the record; `fitting_fates` are those the
    record does not rule out. `lost`: incubation lost it."""

    egg: EggResponse
    advice: AdviceResponse | None
    emergence: WindowResponse | None
    fate: Fate | None
    stage: DeathStage | None
    declared: bool
    lost: bool
    fitting_fates: list[Fate]
    hatchlings: list[HatchlingResponse]


class LastWeekResponse(BaseModel):
    task: LastWeekTask
    text: str
    done_at: Moment | None


class BoxPlaceResponse(BaseModel):
    """A box and where it stands."""

    name: str
    cabinet: str
    shelf: str


class HatchingClutchResponse(BaseModel):
    """A clutch at hatch. `closed` are the eggs waited for, `to_say` those without a fate."""

    id: int
    code: str
    dam: str
    sire: str | None
    boxes: list[BoxPlaceResponse]
    day: int
    fraction: float
    maternal: bool
    school: CuttingSchool
    first_pip: WindowResponse | None
    first_pipped_at: Moment | None
    next_pip: WindowResponse | None
    last_pip: WindowResponse | None
    next_out: WindowResponse | None
    all_out: WindowResponse | None
    impossible_pip: ImpossiblePipResponse | None
    closed: list[int]
    to_say: list[int]
    eggs: list[HatchingEggResponse]
    preparations: list[LastWeekResponse]
    finished_at: Moment | None


class HatchOverviewResponse(BaseModel):
    as_of: Moment
    clutches: list[HatchingClutchResponse]


def hatching_clutch_told(standing: HatchingClutch) -> HatchingClutchResponse:
    """The clutch as the Hatch watch place draws it."""
    now, forecast = standing.now, standing.now.forecast
    shown = forecast if forecast and not forecast.overdue else None
    return HatchingClutchResponse(
        id=now.clutch.entity_id,
        code=now.clutch.code,
        dam=now.dam,
        sire=now.sire,
        boxes=[
            BoxPlaceResponse(name=box.box.name, cabinet=box.cabinet, shelf=box.shelf.name)
            for box in now.boxes
        ],
        day=now.day,
        fraction=now.fraction,
        maternal=now.maternal,
        school=standing.school,
        first_pip=_window(shown.first_pip if shown else None),
        first_pipped_at=at_or_none(forecast.first_pipped_s if forecast else None),
        next_pip=_window(shown.next_pip if shown else None),
        last_pip=_window(shown.last_pip if shown else None),
        next_out=_window(shown.next_out if shown else None),
        all_out=_window(shown.all_out if shown else None),
        impossible_pip=ImpossiblePipResponse.of(now.impossible_pip),
        closed=list(standing.closed),
        to_say=list(standing.to_say),
        eggs=[_egg(egg) for egg in standing.eggs],
        preparations=[
            LastWeekResponse(task=line.task, text=line.text, done_at=at_or_none(done_s))
            for line, done_s in standing.preparations
        ],
        finished_at=at_or_none(now.finished_s),
    )


def _window(window: Window | None) -> WindowResponse | None:
    return None if window is None else WindowResponse.model_validate(window)


def _egg(egg: HatchingEgg) -> HatchingEggResponse:
    return HatchingEggResponse(
        egg=egg_told(egg.view),
        advice=AdviceResponse.model_validate(egg.advice) if egg.advice else None,
        emergence=WindowResponse.model_validate(egg.emergence) if egg.emergence else None,
        fate=egg.fate,
        stage=DeathStage(egg.stage) if egg.stage else None,
        declared=egg.declared,
        lost=egg.fate is not None and egg.fate.is_loss,
        fitting_fates=list(egg.fitting_fates),
        hatchlings=[HatchlingResponse.of(h) for h in egg.hatchlings],
    )
