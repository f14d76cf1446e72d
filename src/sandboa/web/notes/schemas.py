"""Requests and responses of this place."""

from typing import Annotated

from pydantic import BaseModel, Field

from sandboa.services.acts.revisions import revision_of
from sandboa.services.notes.views import NoteView
from sandboa.web.requests.revisions import Revision
from sandboa.web.schemas.common import (
    ActResponse,
    AskedMoment,
    Id,
    Moment,
    PhotoResponse,
    RequestSchema,
    ResponseSchema,
    at,
)

#: Characters read at most; the core says how many fit.
_Text = Annotated[str, Field(max_length=1_000_000)]


class NoteCorrectionRequest(RequestSchema):
    """A note's words; `at` left out leaves its time."""

    text: _Text
    at: AskedMoment | None = None


class NoteRequest(RequestSchema):
    """A note on a thing by its id; `at` is when it is of, now when left out."""

    about: Id
    text: _Text
    at: AskedMoment | None = None


class AboutResponse(ResponseSchema):
    """What a note is about: `name` in words; the rest where it leads."""

    kind: str
    id: int
    name: str
    clutch: str | None
    egg: int | None
    box: str | None
    cabinet: str | None
    animal: int | None


class NoteResponse(BaseModel):
    id: int
    about: AboutResponse
    at: Moment
    text: str
    photos: list[PhotoResponse]
    revision: Revision

    @classmethod
    def of(cls, view: NoteView) -> "NoteResponse":
        return cls(
            id=view.note.entity_id,
            about=AboutResponse.model_validate(view.about),
            at=at(view.note.at_s),
            text=view.note.text,
            photos=[PhotoResponse.model_validate(photo) for photo in view.photos],
            revision=revision_of(form(view)),
        )


class NoteAddedResponse(BaseModel):
    id: int
    act: ActResponse


def form(view: NoteView) -> dict[str, str | int]:
    """The note as a form that two people may correct at once."""
    return {"text": view.note.text, "at_s": view.note.at_s}
