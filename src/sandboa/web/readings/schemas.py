"""Requests and responses of this place."""

from typing import Annotated, Any, Final, Literal, Self

from pydantic import BaseModel, Field

from sandboa.formats.logger_files import Choices, Columns, ColumnUse, LoggerFile, Sensor
from sandboa.formats.logger_files.times import DateOrder
from sandboa.formats.logger_files.units import HumidityUnit, Unit
from sandboa.services.readings.commands import ReadingRow
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

#: Columns of a file that are told and can be chosen; bad rows told in full, and readings shown.
MOST_COLUMNS: Final = 200
_TOLD_BAD_ROWS: Final = 200
_SAMPLE_ROWS: Final = 5
#: The media types a logger's file may come as; what it is shows in itself.
_FILE_TYPES: Final = (
    "text/csv",
    "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "application/vnd.oasis.opendocument.spreadsheet",
)


def file_body(*, required: bool) -> dict[str, Any]:
    """What the API's description says of a body that is a logger's file as it lies."""
    file = {"schema": {"type": "string", "format": "binary"}}
    return {
        "requestBody": {"required": required, "content": dict.fromkeys(_FILE_TYPES, file)},
    }


class ByHandRequest(RequestSchema):
    place: PlaceRequest
    temperature_c: Temperature
    humidity: Humidity | None = None
    at: AskedMoment | None = None


class ConflictResponse(BaseModel):
    at: Moment
    temperature_c: float


class IntakeResponse(BaseModel):
    """What became of the readings of one sensor."""

    new: int
    known: int
    conflicting: int
    conflicts: list[ConflictResponse]
    before_probe: int
    in_future: int


class BadRowResponse(BaseModel):
    line: int
    reason: str


class QuestionResponse(BaseModel):
    about: Literal["zone", "order", "unit", "columns", "sheet"]
    text: str


class RowResponse(BaseModel):
    at: Moment
    temperature_c: float
    humidity: float | None


class SensorResponse(BaseModel):
    """One sensor of a file. `name` is what the file calls it, empty where it does not."""

    name: str
    temperature_column: int
    humidity_column: int | None
    unit: Unit
    humidity_unit: HumidityUnit | None
    rows: int
    first: RowResponse | None
    last: RowResponse | None
    sample: list[RowResponse]
    lowest_c: float | None
    highest_c: float | None

    @classmethod
    def of(cls, sensor: Sensor) -> Self:
        """As one is told."""
        temperatures = [row[1] for row in sensor.rows]
        told = [_row(row) for row in sensor.rows[:_SAMPLE_ROWS]]
        return cls(
            name=sensor.name,
            temperature_column=sensor.columns.temperature,
            humidity_column=sensor.columns.humidity,
            unit=sensor.unit,
            humidity_unit=sensor.humidity_unit,
            rows=len(sensor.rows),
            first=told[0] if told else None,
            last=_row(sensor.rows[-1]) if told else None,
            sample=told,
            lowest_c=min(temperatures, default=None),
            highest_c=max(temperatures, default=None),
        )


def _row(row: ReadingRow) -> RowResponse:
    return RowResponse(at=row[0], temperature_c=row[1], humidity=row[2])  # type: ignore[arg-type]


class ColumnResponse(BaseModel):
    """A column of a file: its heading, its first cells as written, and what it is used for."""

    heading: str
    cells: list[str]
    used_for: ColumnUse


class ReadFileResponse(BaseModel):
    """A file as understood, before anything is stored; with questions, no sensor has rows.

    `written` is the delimiter, or "spreadsheet", of which `sheet` is read.
    """

    columns: list[ColumnResponse]
    sensors: list[SensorResponse]
    written: str
    sheet: str
    sheets: list[str]
    order: DateOrder | None
    times_have_offset: bool
    bad_row_count: int
    bad_rows: list[BadRowResponse]
    questions: list[QuestionResponse]

    @classmethod
    def of(cls, file: LoggerFile) -> Self:
        """As one is told."""
        width = max(len(file.columns.uses), *(len(cells) for cells in file.sample))
        uses = (*file.columns.uses, *[ColumnUse.UNUSED] * width)
        return cls(
            columns=[
                ColumnResponse(
                    heading=file.heading[i] if i < len(file.heading) else "",
                    cells=[cells[i][:60] if i < len(cells) else "" for cells in file.sample],
                    used_for=uses[i],
                )
                for i in range(min(width, MOST_COLUMNS))
            ],
            sensors=[SensorResponse.of(sensor) for sensor in file.sensors],
            written=file.written,
            sheet=file.sheet,
            sheets=list(file.sheets),
            order=file.order,
            times_have_offset=file.times_have_offset,
            bad_row_count=len(file.bad_rows),
            bad_rows=[
                BadRowResponse(line=b.line, reason=b.reason) for b in file.bad_rows[:_TOLD_BAD_ROWS]
            ],
            questions=[QuestionResponse(about=q.about, text=q.text) for q in file.questions],  # type: ignore[arg-type]
        )


class StoredSensorResponse(BaseModel):
    """What became of one sensor's readings: of those stored, in the order asked for."""

    name: str
    probe: str
    intake: IntakeResponse


class StoredFileResponse(BaseModel):
    """`act` brought all of it in; null when nothing was new."""

    file: ReadFileResponse
    stored: list[StoredSensorResponse]
    act: ActResponse | None


class FileChoices(BaseModel):
    """What the keeper decided about a file; what is left out the file must tell.

    `column` says what each column is used for, from the first on: one for each column.
    """

    zone: Annotated[str, Field(max_length=60)] | None = None
    order: DateOrder | None = None
    unit: Unit | None = None
    sheet: Annotated[str, Field(max_length=200)] | None = None
    column: Annotated[list[ColumnUse], Field(max_length=MOST_COLUMNS)] = []

    def choices(self) -> Choices:
        """As a file is read with."""
        return Choices(
            zone=known_zone(self.zone) if self.zone else None,
            order=self.order,
            unit=self.unit,
            columns=Columns(tuple(self.column)) if self.column else None,
            sheet=self.sheet,
        )
