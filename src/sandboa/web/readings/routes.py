"""Readings: probes, by hand, from a logger's file, and live from a logger."""

from typing import Annotated

from fastapi import APIRouter, Query, Request
from starlette.concurrency import run_in_threadpool

from sandboa.formats.readings_csv import ReadingsFile, read_readings
from sandboa.services.readings import commands as readings
from sandboa.web.house import NowS
from sandboa.web.readings.schemas import (
    BadRowResponse,
    ByHandRequest,
    ConflictResponse,
    FileChoices,
    IntakeResponse,
    QuestionResponse,
    ReadFileResponse,
    RowResponse,
    StoredFileResponse,
)
from sandboa.web.schemas.common import ActResponse, Id, seconds_or_now
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api", tags=["readings"])


#: Bad rows told in full; the rest is counted.
_TOLD_BAD_ROWS = 200


@router.post("/readings/by-hand", dependencies=[RECORD], status_code=201)
def read_by_hand(asked: ByHandRequest, now_s: NowS) -> ActResponse:
    """Record one reading of a thermometer."""
    at_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(
        readings.read_by_hand(asked.place.place(), at_s, asked.temperature_c, asked.humidity, now_s)
    )


_FILE_BODY = {
    "requestBody": {
        "required": True,
        "content": {"text/csv": {"schema": {"type": "string", "format": "binary"}}},
    }
}


@router.post("/readings/files/preview", dependencies=[LOOK], openapi_extra=_FILE_BODY)
async def preview_file(
    request: Request, choices: Annotated[FileChoices, Query()]
) -> ReadFileResponse:
    """Say what is understood of a logger's file; nothing is stored."""
    data = await request.body()
    return _file(await run_in_threadpool(read_readings, data, choices.choices()))


@router.post("/readings/files", dependencies=[RECORD], status_code=201, openapi_extra=_FILE_BODY)
async def store_file(
    request: Request,
    choices: Annotated[FileChoices, Query()],
    probe: Annotated[Id, Query()],
    now_s: NowS,
    file_name: Annotated[str, Query(max_length=300)] = "",
) -> StoredFileResponse:
    """Store a logger's file as readings of a probe, all that can be read, or nothing at all."""
    data = await request.body()

    def store() -> StoredFileResponse:
        file = read_readings(data, choices.choices())
        file.require_no_questions()
        # Its last part, on one line: it is shown in logs and lists.
        shown_name = " ".join(file_name.rsplit("/", 1)[-1].rsplit("\\", 1)[-1].split())[:120]
        intake = readings.store_readings(probe, file.rows, "csv", shown_name, now_s)
        return StoredFileResponse(file=_file(file), intake=_intake(intake))

    return await run_in_threadpool(store)


def _file(file: ReadingsFile) -> ReadFileResponse:
    columns = file.columns
    temperatures = [row[1] for row in file.rows]
    told = [RowResponse(at=a, temperature_c=t, humidity=h) for a, t, h in file.rows[:5]]  # type: ignore[arg-type]
    last = file.rows[-1] if file.rows else None
    return ReadFileResponse(
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
        last=RowResponse(at=last[0], temperature_c=last[1], humidity=last[2]) if last else None,  # type: ignore[arg-type]
        sample=told,
        lowest_c=min(temperatures, default=None),
        highest_c=max(temperatures, default=None),
        bad_row_count=len(file.bad_rows),
        bad_rows=[
            BadRowResponse(line=b.line, reason=b.reason) for b in file.bad_rows[:_TOLD_BAD_ROWS]
        ],
        questions=[QuestionResponse(about=q.about, text=q.text) for q in file.questions],  # type: ignore[arg-type]
    )


def _intake(intake: readings.Intake) -> IntakeResponse:
    return IntakeResponse(
        new=intake.new,
        known=intake.known,
        conflicting=len(intake.conflicting),
        conflicts=[
            ConflictResponse(at=row[0], temperature_c=row[1])  # type: ignore[arg-type]
            for row in intake.conflicting[:20]
        ],
        before_probe=intake.before_probe,
        in_future=intake.in_future,
        act=ActResponse.of(intake.act) if intake.act else None,
    )
