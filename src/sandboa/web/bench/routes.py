"""Bench: what-if forecast, mixing, top-up; nothing is recorded."""

from typing import Annotated

from fastapi import APIRouter, Query, Request
from starlette.concurrency import run_in_threadpool

from sandboa.core.development.bench import BenchClutch, what_if
from sandboa.core.water.mixing import dry_mass_from_volume, medium_named, mix, water_of_depth
from sandboa.core.water.top_up import top_up
from sandboa.formats.logger_files import read_logger_file
from sandboa.services.readings.commands import ReadingRow
from sandboa.web.bench.schemas import (
    DepthRequest,
    DepthResponse,
    MixRequest,
    MixResponse,
    TopUpRequest,
    WhatIf,
    WhatIfResponse,
)
from sandboa.web.house import House, NowS, TheHouse
from sandboa.web.readings.schemas import QuestionResponse, ReadFileResponse, file_body
from sandboa.web.schemas.common import (
    ForecastResponse,
    RibbonPieceResponse,
)
from sandboa.web.schemas.water import TopUpResponse
from sandboa.web.security.permissions import LOOK

router = APIRouter(prefix="/api/bench", tags=["bench"])


@router.post("/forecast", dependencies=[LOOK], openapi_extra=file_body(required=False))
async def bench_forecast(
    request: Request, asked: Annotated[WhatIf, Query()], house: TheHouse, now_s: NowS
) -> WhatIfResponse:
    """A what-if: lay date, set point, perhaps a logger's file, against another set point."""
    data = await request.body()
    return await run_in_threadpool(_forecast, data, asked, house, now_s)


def _forecast(data: bytes, asked: WhatIf, house: House, now_s: float) -> WhatIfResponse:
    laid_s = asked.laid_at.timestamp()
    as_of_s = asked.as_of.timestamp() if asked.as_of else max(now_s, laid_s)
    rows: list[ReadingRow] = []
    told = WhatIfResponse(forecast=None)
    if data:
        file = read_logger_file(data, asked.choices())
        read = ReadFileResponse.of(file)
        told.columns = read.columns
        told.sheets = read.sheets
        if file.questions:
            told.questions = read.questions
            return told
        if len(file.sensors) > 1:
            text = f"The file is of {len(file.sensors)} sensors: which one's temperature is it?"
            told.questions = [QuestionResponse(about="columns", text=text)]
            return told
        rows = file.rows
        told.bad_rows = read.bad_rows
    own = house.snapshot().settings.rules
    answer = what_if(
        BenchClutch(laid_s, as_of_s, asked.set_point_c, asked.eggs, rows),
        asked.other_set_point_c,
        own.clock,
        own.forecast,
    )
    told.forecast = ForecastResponse.of(answer.forecast)
    told.other = ForecastResponse.of(answer.other) if answer.other else None
    told.shift_days = answer.shift_days
    told.future_c = answer.future_c
    told.rests_on = answer.rests_on
    told.ribbon = [RibbonPieceResponse.of(piece) for piece in answer.ribbon]
    told.readings = len(rows)
    return told


@router.post("/mix", dependencies=[LOOK])
def bench_mix(asked: MixRequest, house: TheHouse) -> MixResponse:
    """Water for a mass of dry medium; from a volume it is rough, weighing wins."""
    media = house.snapshot().settings.rules.media
    medium = medium_named(asked.medium, media)
    rough = None
    if asked.dry_mass_g is None:
        rough = dry_mass_from_volume(medium.name, asked.volume_l if asked.volume_l else 0.0, media)
    mass_g = rough.mass_g if rough else asked.dry_mass_g
    mixed = mix(medium.name, mass_g or 0.0, asked.ratio, media)
    return MixResponse(
        medium=mixed.medium,
        dry_mass_g=mixed.dry_mass_g,
        dry_low_g=rough.low_g if rough else None,
        dry_high_g=rough.high_g if rough else None,
        ratio=mixed.ratio,
        water_g=mixed.water_g,
        total_g=mixed.total_g,
    )


@router.post("/depth", dependencies=[LOOK])
def bench_depth(asked: DepthRequest) -> DepthResponse:
    """Water that stands so deep in a box."""
    return DepthResponse(water_g=water_of_depth(asked.depth_mm, asked.length_cm, asked.width_cm))


@router.post("/top-up", dependencies=[LOOK])
def bench_top_up(asked: TopUpRequest, house: TheHouse) -> TopUpResponse:
    """How much a box has lost since set-up and how much to put back."""
    return TopUpResponse.model_validate(
        top_up(
            asked.reference_g,
            asked.current_g,
            asked.set_up_water_g,
            rules=house.snapshot().settings.rules.water,
        )
    )
