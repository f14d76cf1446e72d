"""Requests and responses of this place."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from sandboa.web.readings.schemas import (
    BadRowResponse,
    ColumnResponse,
    FileChoices,
    QuestionResponse,
)
from sandboa.web.schemas.common import (
    AskedMoment,
    ForecastResponse,
    RequestSchema,
    RibbonPieceResponse,
    Temperature,
)


class WhatIf(FileChoices):
    """What the query says; a logger's file may be the body.

    `as_of` is the moment to stand at, now when left out (or lay, when that is
    later). The rest is about the file.
    """

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    laid_at: AskedMoment
    set_point_c: Temperature
    eggs: Annotated[int, Field(ge=1, le=20)] = 6
    other_set_point_c: Temperature | None = None
    as_of: AskedMoment | None = None


class WhatIfResponse(BaseModel):
    """`forecast` is null while the file leaves questions open. `sheets` are a spreadsheet's."""

    forecast: ForecastResponse | None
    other: ForecastResponse | None = None
    shift_days: float | None = None
    future_c: float | None = None
    rests_on: str = ""
    ribbon: list[RibbonPieceResponse] = []
    readings: int = 0
    bad_rows: list[BadRowResponse] = []
    questions: list[QuestionResponse] = []
    columns: list[ColumnResponse] = []
    sheets: list[str] = []


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


class DepthRequest(RequestSchema):
    """Water under a grid: mm deep, on a floor of so many cm."""

    depth_mm: float
    length_cm: float
    width_cm: float


class DepthResponse(BaseModel):
    water_g: float


class TopUpRequest(RequestSchema):
    reference_g: float
    current_g: float
    set_up_water_g: float
