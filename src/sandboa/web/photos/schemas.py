"""Requests and responses of this place."""

from pydantic import BaseModel

from sandboa.web.schemas.common import ActResponse, PhotoResponse


class PhotoAddedResponse(BaseModel):
    photo: PhotoResponse
    act: ActResponse
