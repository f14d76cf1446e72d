"""Bench: what-if forecast, mixing, top-up; nothing is recorded."""

from typing import Annotated, Literal

from fastapi import APIRouter
from pydantic import BaseModel, Field

from sandboa.core.water import dry_mass_from_volume, medium_named, mix, top_up
from sandboa.formats.readings_csv import read_readings
from sandboa.records.readings import ReadingRow
from sandboa.services.overview.bench import what_if
from sandboa.web.house import NowS
from sandboa.web.routers.readings import BadRowResponse, FileChoices, QuestionResponse
from sandboa.web.shapes import (
    AskedMoment,
    ForecastResponse,
    RequestSchema,
    RibbonPieceResponse,
    Temperature,
)
from sandboa.web.water_shapes import TopUpResponse

router = APIRouter(prefix="/api/bench", tags=["bench"])


class WhatIfRequest(RequestSchema):
    """`as_of` is the moment to stand at, now when left out (or lay, when that is later)."""

    laid_at: AskedMoment
    set_point_c: Temperature
    eggs: Annotated[int, Field(ge=1, le=20)] = 6
    other_set_point_c: Temperature | None = None
    as_of: AskedMoment | None = None
    readings_csv: str | None = None
    zone: Annotated[str, Field(max_length=60)] | None = None
    order: Literal["dmy", "mdy"] | None = None
    unit: Literal["c", "f"] | None = None


class WhatIfResponse(BaseModel):
    """`forecast` is null while the readings leave questions open."""

    forecast: ForecastResponse | None
    other: ForecastResponse | None = None
    shift_days: float | None = None
    future_c: float | None = None
    rests_on: str = ""
    ribbon: list[RibbonPieceResponse] = []
    readings: int = 0
    bad_rows: list[BadRowResponse] = []
    questions: list[QuestionResponse] = []


class MixRequest(RequestSchema):
    """Either the dry mass, or the volume for a rough one."""

    medium: Annotated[str, Field(max_length=60)]
    dry_mass_g: float | None = None
    volume_l: float | None = None
    ratio: float | None = None


class MixResponse(BaseModel):
    """Masses in g. `dry_low_g`, `dry_high_g` are set when the mass came from a volume."""

    medium: str
    dry_mass_g: float
    dry_low_g: float | None
    dry_high_g: float | None
    ratio: float
    water_g: float
    total_g: float


class TopUpRequest(RequestSchema):
    reference_g: float
    current_g: float
    set_up_water_g: float


@router.post("/forecast")
def bench_forecast(asked: WhatIfRequest, now_s: NowS) -> WhatIfResponse:
    """A what-if: lay date, set point, perhaps readings, against another set point."""
    laid_s = asked.laid_at.timestamp()
    as_of_s = asked.as_of.timestamp() if asked.as_of else max(now_s, laid_s)
    rows: list[ReadingRow] = []
    told = WhatIfResponse(forecast=None)
    if asked.readings_csv:
        choices = FileChoices(zone=asked.zone, order=asked.order, unit=asked.unit).choices()
        file = read_readings(asked.readings_csv.encode(), choices)
        if file.questions:
            told.questions = [QuestionResponse(about=q.about, text=q.text) for q in file.questions]  # type: ignore[arg-type]
            return told
        rows = file.rows
        told.bad_rows = [BadRowResponse(line=b.line, reason=b.reason) for b in file.bad_rows[:200]]
    answer = what_if(laid_s, as_of_s, asked.set_point_c, asked.eggs, rows, asked.other_set_point_c)
    told.forecast = ForecastResponse.of(answer.forecast)
    told.other = ForecastResponse.of(answer.other) if answer.other else None
    told.shift_days = answer.shift_days
    told.future_c = answer.future_c
    told.rests_on = answer.rests_on
    told.ribbon = [RibbonPieceResponse.of(piece) for piece in answer.ribbon]
    told.readings = len(rows)
    return told


@router.post("/mix")
def bench_mix(asked: MixRequest) -> MixResponse:
    """Water for a mass of dry medium; from a volume it is rough, weighing wins."""
    medium = medium_named(asked.medium)
    rough = None
    if asked.dry_mass_g is None:
        rough = dry_mass_from_volume(medium.name, asked.volume_l if asked.volume_l else 0.0)
    mass_g = rough.mass_g if rough else asked.dry_mass_g
    mixed = mix(medium.name, mass_g or 0.0, asked.ratio)
    return MixResponse(
        medium=mixed.medium,
        dry_mass_g=mixed.dry_mass_g,
        dry_low_g=rough.low_g if rough else None,
        dry_high_g=rough.high_g if rough else None,
        ratio=mixed.ratio,
        water_g=mixed.water_g,
        total_g=mixed.total_g,
    )


@router.post("/top-up")
def bench_top_up(asked: TopUpRequest) -> TopUpResponse:
    """How much a box has lost since set-up and how much to put back."""
    return TopUpResponse.model_validate(
        top_up(asked.reference_g, asked.current_g, asked.set_up_water_g)
    )
