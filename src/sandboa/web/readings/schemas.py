"""Requests and responses of this place."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from sandboa.formats.readings_csv import Choices, Columns
from sandboa.web.probes.schemas import PlaceRequest
from sandboa.web.requests.zones import known_zone
from sandboa.web.schemas.common import (
    ActResponse,
    AskedMoment,
    Humidity,
    Moment,
    RequestSchema,
    Temperature,
)


class ByHandRequest(RequestSchema):
    place: PlaceRequest
    temperature_c: Temperature
    humidity: Humidity | None = None
    at: AskedMoment | None = None


class ConflictResponse(BaseModel):
    at: Moment
    temperature_c: float


class IntakeResponse(BaseModel):
    """What became of the readings. `act` is null when nothing changed."""

    new: int
    known: int
    conflicting: int
    conflicts: list[ConflictResponse]
    before_probe: int
    in_future: int
    act: ActResponse | None


class BadRowResponse(BaseModel):
    line: int
    reason: str


class QuestionResponse(BaseModel):
    about: Literal["zone", "order", "unit", "columns"]
    text: str


class RowResponse(BaseModel):
    at: Moment
    temperature_c: float
    humidity: float | None


class ReadFileResponse(BaseModel):
    """A file as understood, before anything is stored."""

    heading: list[str]
    time_column: int | None
    clock_column: int | None
    temperature_column: int | None
    humidity_column: int | None
    delimiter: str
    unit: Literal["c", "f"]
    humidity_unit: Literal["percent", "fraction"] | None
    order: Literal["dmy", "mdy"] | None
    times_have_offset: bool
    rows: int
    first: RowResponse | None
    last: RowResponse | None
    sample: list[RowResponse]
    lowest_c: float | None
    highest_c: float | None
    bad_row_count: int
    bad_rows: list[BadRowResponse]
    questions: list[QuestionResponse]


class StoredFileResponse(BaseModel):
    file: ReadFileResponse
    intake: IntakeResponse


class FileChoices(BaseModel):
    """What the keeper decided about a file; what is left out the file must tell."""

    zone: Annotated[str, Field(max_length=60)] | None = None
    order: Literal["dmy", "mdy"] | None = None
    unit: Literal["c", "f"] | None = None
    time_column: Annotated[int, Field(ge=0, le=200)] | None = None
    temperature_column: Annotated[int, Field(ge=0, le=200)] | None = None
    humidity_column: Annotated[int, Field(ge=0, le=200)] | None = None

    def choices(self) -> Choices:
        columns = None
        if self.time_column is not None and self.temperature_column is not None:
            columns = Columns(self.time_column, self.temperature_column, self.humidity_column)
        zone = known_zone(self.zone) if self.zone else None
        return Choices(zone=zone, order=self.order, unit=self.unit, columns=columns)
