"""Readings: probes, by hand, from a logger's file, and live from a logger."""

from typing import Annotated

from fastapi import APIRouter, Query, Request
from starlette.concurrency import run_in_threadpool

from sandboa.core.errors import NotPlausible
from sandboa.formats.logger_files import read_logger_file
from sandboa.services.readings import commands as readings
from sandboa.web.house import NowS, TheHouse
from sandboa.web.readings.schemas import (
    MOST_COLUMNS,
    ByHandRequest,
    ConflictResponse,
    FileChoices,
    IntakeResponse,
    ReadFileResponse,
    StoredFileResponse,
    StoredSensorResponse,
    file_body,
)
from sandboa.web.schemas.common import ActResponse, seconds_or_now
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api", tags=["readings"])


@router.post("/readings/by-hand", dependencies=[RECORD], status_code=201)
def read_by_hand(asked: ByHandRequest, now_s: NowS) -> ActResponse:
    """Record one reading of a thermometer."""
    at_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(
        readings.read_by_hand(asked.place.place(), at_s, asked.temperature_c, asked.humidity, now_s)
    )


@router.post("/readings/files/preview", dependencies=[LOOK], openapi_extra=file_body(required=True))
async def preview_file(
    request: Request, choices: Annotated[FileChoices, Query()]
) -> ReadFileResponse:
    """Say what is understood of a logger's file; nothing is stored."""
    data = await request.body()
    file = await run_in_threadpool(read_logger_file, data, choices.choices())
    return ReadFileResponse.of(file)


@router.post(
    "/readings/files",
    dependencies=[RECORD],
    status_code=201,
    openapi_extra=file_body(required=True),
)
async def store_file(
    request: Request,
    choices: Annotated[FileChoices, Query()],
    probe: Annotated[list[int], Query(max_length=MOST_COLUMNS)],
    house: TheHouse,
    now_s: NowS,
    file_name: Annotated[str, Query(max_length=300)] = "",
) -> StoredFileResponse:
    """Store a logger's file as readings of probes, all that can be read, or nothing at all.

    `probe` is asked for once for each sensor of the file, in their order; 0 leaves one out.
    """
    data = await request.body()

    def store() -> StoredFileResponse:
        file = read_logger_file(data, choices.choices())
        file.require_no_questions()
        if len(probe) != len(file.sensors):
            raise NotPlausible(
                "probe",
                f"the file is of {len(file.sensors)} sensors and {len(probe)} probes are named",
            )
        wanted = [(s, id_) for s, id_ in zip(file.sensors, probe, strict=True) if id_]
        # Its last part, on one line: it is shown in logs and lists.
        shown_name = " ".join(file_name.rsplit("/", 1)[-1].rsplit("\\", 1)[-1].split())[:120]
        parts = [(id_, sensor.rows) for sensor, id_ in wanted]
        taken_in = readings.store_file(parts, "csv", shown_name, now_s)
        probes = house.snapshot().probes
        return StoredFileResponse(
            file=ReadFileResponse.of(file),
            stored=[
                StoredSensorResponse(
                    name=sensor.name, probe=probes[id_].name, intake=_intake(intake)
                )
                for (sensor, id_), intake in zip(wanted, taken_in, strict=True)
            ],
            act=next((ActResponse.of(i.act) for i in taken_in if i.act), None),
        )

    return await run_in_threadpool(store)


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
    )
