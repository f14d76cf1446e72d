"""Requests and responses of this place."""

from typing import Annotated

from pydantic import BaseModel, Field

from sandboa.core.box import Closing, Shell
from sandboa.web.schemas.common import ActResponse, AskedMoment, RequestSchema, Temperature
from sandboa.web.schemas.water import MediumResponse

#: Longer than any name may be, so that the core's own sentence answers.
Name = Annotated[str, Field(min_length=1, max_length=20_000)]


class EggPlace(RequestSchema):
    """An egg where it lies: x from left, y from the far side, shares of the box."""

    x: Annotated[float, Field(ge=0, le=1)]
    y: Annotated[float, Field(ge=0, le=1)]
    slug: bool = False
    shells: list[Shell] = Field(max_length=len(Shell), default_factory=list)


class LayDayRequest(RequestSchema):
    """A clutch whole; medium and closing are null where the dam keeps her eggs."""

    dam: Name
    sire: Name | None = None
    code: Annotated[str, Field(max_length=20)] | None = None
    laid_at: AskedMoment
    eggs: Annotated[list[EggPlace], Field(max_length=200)]
    medium: Annotated[str, Field(max_length=60)] | None = None
    dry_mass_g: float | None = None
    water_g: float | None = None
    closing: Closing | None = None
    cabinet: Name
    shelf: Name
    set_point_c: Temperature
    second_clutch: bool = False


class LaidResponse(BaseModel):
    code: str
    act: ActResponse


class CabinetChoiceResponse(BaseModel):
    name: str
    shelves: list[str]
    set_point_c: float | None


class ChoicesResponse(BaseModel):
    """What the form offers."""

    media: list[MediumResponse]
    closings: list[str]
    shells: list[str]
    cabinets: list[CabinetChoiceResponse]
    dams: list[str]
    sires: list[str]
    next_code: str
    most_further_boxes: int


class SuggestionResponse(BaseModel):
    """A count such as 7-2 understood, with usual places; the slugs come last."""

    laid: int
    slugs: int
    eggs: list[EggPlace]
