"""Photos: taken in, listed, shown; always re-encoded, never by a name the user gave."""

from collections.abc import AsyncIterator
from typing import Annotated

from fastapi import APIRouter, Depends, Path, Query, Request
from starlette.responses import FileResponse

from sandboa.formats.pictures import readable_picture
from sandboa.services.acts.errors import NotFound
from sandboa.services.clutches import photos
from sandboa.web.house import Asking, NowS, TheHouse
from sandboa.web.photos.schemas import PhotoAddedResponse, PhotoQuery
from sandboa.web.requests.concurrency import who
from sandboa.web.requests.json_body import RawBody
from sandboa.web.schemas.common import ActResponse, PhotoResponse
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api", tags=["photos"])


FileName = Annotated[str, Path(pattern="^[0-9a-f]{64}$")]


async def _one_of_few(request: Request, house: TheHouse, person: Asking) -> AsyncIterator[None]:
    with house.photos.enter(who(request, person)):
        yield


@router.post(
    "/photos",
    status_code=201,
    # Counted before its bytes are read.
    dependencies=[RECORD, Depends(_one_of_few)],
    openapi_extra={"requestBody": {"required": True, "content": {"application/octet-stream": {}}}},
)
def add_photo(
    body: RawBody, asked: Annotated[PhotoQuery, Query()], now_s: NowS
) -> PhotoAddedResponse:
    """Attach a photo (the body: JPEG, PNG, WebP or HEIC) to a lay day, clutch or animal.

    `sent_at` is the device's own clock at this moment: `taken_at` is shifted by it, and
    a photo that was delivered before is told again.
    """
    ahead_s = asked.sent_at.timestamp() - now_s if asked.sent_at else 0.0
    taken_s = asked.taken_at.timestamp() - ahead_s if asked.taken_at else now_s
    photo, act = photos.attach(
        photos.PhotoCommand(
            asked.owner,
            readable_picture(body),
            taken_s,
            egg=asked.egg,
            step=asked.step,
            delivered=asked.sent_at is not None,
        ),
        now_s,
    )
    return PhotoAddedResponse(photo=PhotoResponse.model_validate(photo), act=ActResponse.of(act))


@router.delete("/photos/{photo}", dependencies=[RECORD])
def take_photo_away(photo: Annotated[int, Path(ge=1, le=2**53)], now_s: NowS) -> ActResponse:
    """Take a photo out of the record; undo brings it back."""
    return ActResponse.of(photos.take_away(photo, now_s))


@router.get("/clutches/{code}/photos", dependencies=[LOOK])
def get_clutch_photos(code: Annotated[str, Path(max_length=20)]) -> list[PhotoResponse]:
    """Photos of a clutch and its eggs, oldest first."""
    return [PhotoResponse.model_validate(p) for p in photos.photos_of_clutch(code)]


@router.get("/photos/{file}.jpg", dependencies=[LOOK], response_class=FileResponse)
def get_photo(file: FileName, small: bool = False) -> FileResponse:
    """The picture itself, whole or small."""
    path = photos.picture_path(file, small=small)
    if not path.is_file():
        raise NotFound("the photo's file is not here")
    headers = {"Cache-Control": "private, max-age=31536000, immutable"}
    return FileResponse(path, media_type="image/jpeg", headers=headers)
