"""Readings: probes, by hand, from a logger's file, and live from a logger."""

from typing import Annotated, Literal

from fastapi import APIRouter, Query, Request
from pydantic import BaseModel, Field
from starlette.concurrency import run_in_threadpool

from sandboa.formats.readings_csv import Choices, Columns, ReadingsFile, read_readings
from sandboa.services.readings import commands as readings
from sandboa.web.house import NowS
from sandboa.web.routers.probes import PlaceAsked
from sandboa.web.shapes import ActTold, Asked, AskedMoment, Humidity, Id, Moment, Temperature
from sandboa.web.zones import known_zone

router = APIRouter(prefix="/api", tags=["readings"])

#: Bad rows told in full; the rest is counted.
_TOLD_BAD_ROWS = 200


class ByHandAsked(Asked):
    place: PlaceAsked
    temperature_c: Temperature
    humidity: Humidity | None = None
    at: AskedMoment | None = None


class ConflictTold(BaseModel):
    at: Moment
    temperature_c: float


class IntakeTold(BaseModel):
    """What became of the readings. `act` is null when nothing changed."""

    new: int
    known: int
    conflicting: int
    conflicts: list[ConflictTold]
    before_probe: int
    in_future: int
    act: ActTold | None


class BadRowTold(BaseModel):
    line: int
    reason: str


class QuestionTold(BaseModel):
    about: Literal["zone", "order", "unit", "columns"]
    text: str


class RowTold(BaseModel):
    at: Moment
    temperature_c: float
    humidity: float | None


class FileTold(BaseModel):
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
    first: RowTold | None
    last: RowTold | None
    sample: list[RowTold]
    lowest_c: float | None
    highest_c: float | None
    bad_row_count: int
    bad_rows: list[BadRowTold]
    questions: list[QuestionTold]


class StoredFileTold(BaseModel):
    file: FileTold
    intake: IntakeTold


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


@router.post("/readings/by-hand", status_code=201)
def read_by_hand(asked: ByHandAsked, now_s: NowS) -> ActTold:
    """Record one reading of a thermometer."""
    at_s = asked.at.timestamp() if asked.at else now_s
    return ActTold.of(
        readings.read_by_hand(asked.place.place(), at_s, asked.temperature_c, asked.humidity, now_s)
    )


_FILE_BODY = {
    "requestBody": {
        "required": True,
        "content": {"text/csv": {"schema": {"type": "string", "format": "binary"}}},
    }
}


@router.post("/readings/files/preview", openapi_extra=_FILE_BODY)
async def preview_file(request: Request, choices: Annotated[FileChoices, Query()]) -> FileTold:
    """Say what is understood of a logger's file; nothing is stored."""
    data = await request.body()
    return _file(await run_in_threadpool(read_readings, data, choices.choices()))


@router.post("/readings/files", status_code=201, openapi_extra=_FILE_BODY)
async def store_file(
    request: Request,
    choices: Annotated[FileChoices, Query()],
    probe: Annotated[Id, Query()],
    now_s: NowS,
    file_name: Annotated[str, Query(max_length=300)] = "",
) -> StoredFileTold:
    """Store a logger's file as readings of a probe, all that can be read, or nothing at all."""
    data = await request.body()

    def store() -> StoredFileTold:
        file = read_readings(data, choices.choices())
        file.require_no_questions()
        # Its last part, on one line: it is shown in logs and lists.
        shown_name = " ".join(file_name.rsplit("/", 1)[-1].rsplit("\\", 1)[-1].split())[:120]
        intake = readings.store_readings(probe, file.rows, "csv", shown_name, now_s)
        return StoredFileTold(file=_file(file), intake=_intake(intake))

    return await run_in_threadpool(store)


def _file(file: ReadingsFile) -> FileTold:
    columns = file.columns
    temperatures = [row[1] for row in file.rows]
    told = [RowTold(at=a, temperature_c=t, humidity=h) for a, t, h in file.rows[:5]]  # type: ignore[arg-type]
    last = file.rows[-1] if file.rows else None
    return FileTold(
        heading=list(file.heading),
        time_column=columns.time if columns else None,
        clock_column=columns.clock if columns else None,
        temperature_column=columns.temperature if columns else None,
        humidity_column=columns.humidity if columns else None,
        delimiter=file.delimiter,
        unit=file.unit,
        humidity_unit=file.humidity_unit,
        order=file.order,
        times_have_offset=file.times_have_offset,
        rows=len(file.rows),
        first=told[0] if told else None,
        last=RowTold(at=last[0], temperature_c=last[1], humidity=last[2]) if last else None,  # type: ignore[arg-type]
        sample=told,
        lowest_c=min(temperatures, default=None),
        highest_c=max(temperatures, default=None),
        bad_row_count=len(file.bad_rows),
        bad_rows=[BadRowTold(line=b.line, reason=b.reason) for b in file.bad_rows[:_TOLD_BAD_ROWS]],
        questions=[QuestionTold(about=q.about, text=q.text) for q in file.questions],  # type: ignore[arg-type]
    )


def _intake(intake: readings.Intake) -> IntakeTold:
    return IntakeTold(
        new=intake.new,
        known=intake.known,
        conflicting=len(intake.conflicting),
        conflicts=[
            ConflictTold(at=row[0], temperature_c=row[1])  # type: ignore[arg-type]
            for row in intake.conflicting[:20]
        ],
        before_probe=intake.before_probe,
        in_future=intake.in_future,
        act=ActTold.of(intake.act) if intake.act else None,
    )
