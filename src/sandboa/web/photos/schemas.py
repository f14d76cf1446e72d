"""Requests and responses of this place."""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from sandboa.core.lay_day import Step
from sandboa.web.schemas.common import ActResponse, AskedMoment, Id, PhotoResponse


class PhotoAddedResponse(BaseModel):
    photo: PhotoResponse
    act: ActResponse


class PhotoQuery(BaseModel):
    """Of what a photo is, and when it was taken: from the address, where all is text."""

    model_config = ConfigDict(extra="forbid")

    owner: Id
    egg: Annotated[int | None, Field(ge=1, le=20)] = None
    step: Step | Literal["candling"] | None = None
    taken_at: AskedMoment | None = None
    sent_at: AskedMoment | None = None
