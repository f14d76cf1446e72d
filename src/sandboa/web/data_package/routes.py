"""The whole house: where it lies, and as a data package out of it and into an empty one."""

import shutil
import tempfile
from datetime import UTC, datetime
from pathlib import Path

from fastapi import APIRouter, Request
from starlette.background import BackgroundTask
from starlette.concurrency import run_in_threadpool
from starlette.responses import FileResponse

from sandboa.core.errors import NotPlausible
from sandboa.formats.data_package import PackageError, read_package, write_package
from sandboa.services.safekeeping.house_file import house_path
from sandboa.services.safekeeping.security_log import Kind, note
from sandboa.web.data_package.schemas import HouseResponse, PackageTakenResponse
from sandboa.web.house import NowS, TheHouse
from sandboa.web.security.permissions import RUN
from sandboa.web.security.requester import AskedBy

router = APIRouter(prefix="/api/house", tags=["house"])


@router.get("", dependencies=[RUN])
def get_house() -> HouseResponse:
    """Where the house lies: for keepers, who copy it."""
    file = house_path()
    return HouseResponse(folder=str(file.parent), database_bytes=file.stat().st_size)


@router.get("/package", dependencies=[RUN], response_class=FileResponse)
def get_package(by: AskedBy, now_s: NowS) -> FileResponse:
    """Everything recorded, as a Tabular Data Package: a zip of CSV files and pictures."""
    note(Kind.EXPORTED, "the whole house was exported", by, now_s)
    folder = Path(tempfile.mkdtemp(prefix="sandboa-package-"))
    written = folder / "house.zip"
    try:
        write_package(written, now_s)
    except BaseException:
        shutil.rmtree(folder)
        raise
    day = datetime.fromtimestamp(now_s, UTC).date()
    return FileResponse(
        written,
        media_type="application/zip",
        filename=f"sandboa-house-{day}.zip",
        headers={"Cache-Control": "no-store"},
        background=BackgroundTask(shutil.rmtree, folder),
    )


@router.post(
    "/package",
    dependencies=[RUN],
    status_code=201,
    openapi_extra={
        "requestBody": {
            "required": True,
            "content": {"application/zip": {"schema": {"type": "string", "format": "binary"}}},
        }
    },
)
async def post_package(
    request: Request, house: TheHouse, by: AskedBy, now_s: NowS
) -> PackageTakenResponse:
    """Take a package into this house, which must be empty: whole, or not at all with the reason."""
    with tempfile.TemporaryDirectory(prefix="sandboa-package-") as folder:
        came = Path(folder) / "house.zip"
        with came.open("wb") as file:
            async for chunk in request.stream():
                await run_in_threadpool(file.write, chunk)
        tables = await run_in_threadpool(_take_in, came)
    await run_in_threadpool(note, Kind.EXPORTED, "a package was imported", by, now_s)
    house.live.tell()
    return PackageTakenResponse(rows=sum(tables.values()), tables=tables)


def _take_in(came: Path) -> dict[str, int]:
    try:
        return read_package(came)
    except PackageError as error:
        raise NotPlausible("file", f"{error}. Nothing was stored.") from error
