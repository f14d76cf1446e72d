"""Notes on anything: written, corrected, found."""

from typing import Annotated, Final

from fastapi import APIRouter, Path, Query

from sandboa.services.acts.revisions import saved_over
from sandboa.services.notes import commands, views
from sandboa.web.house import NowS
from sandboa.web.notes.schemas import (
    NoteAddedResponse,
    NoteCorrectionRequest,
    NoteRequest,
    NoteResponse,
    form,
)
from sandboa.web.requests.revisions import Seen
from sandboa.web.schemas.common import ActResponse, Id, seconds_or_now
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api/notes", tags=["notes"])

NoteId = Annotated[int, Path(ge=1, le=2**53)]
#: Notes told at once at most (assumption).
_MOST: Final = 200


@router.get("", dependencies=[LOOK])
def find_notes(
    words: Annotated[str, Query(max_length=200)] = "",
    about: Annotated[Id | None, Query()] = None,
    limit: Annotated[int, Query(ge=1, le=_MOST)] = _MOST,
) -> list[NoteResponse]:
    """Notes, newest first: those `about` a thing by its id, or those in which every one of the
    `words` stands, in them or in the name of what they are about."""
    if about is not None:
        return [NoteResponse.of(view) for view in views.notes_about(about)[:limit]]
    return [NoteResponse.of(view) for view in views.find_notes(words, limit)]


@router.post("", dependencies=[RECORD], status_code=201)
def write_note(asked: NoteRequest, now_s: NowS) -> NoteAddedResponse:
    """Write a note on a thing."""
    at_s = seconds_or_now(asked.at, now_s)
    note, act = commands.write_note(asked.about, asked.text, at_s, now_s)
    return NoteAddedResponse(id=note, act=ActResponse.of(act))


@router.put("/{note}", dependencies=[RECORD])
def correct_note(
    note: NoteId, asked: NoteCorrectionRequest, seen: Seen, now_s: NowS
) -> ActResponse:
    """Correct a note; the earlier words stay in the log."""
    at_s = asked.at.timestamp() if asked.at else None
    with saved_over(seen, lambda: form(views.note_numbered(note))):
        return ActResponse.of(commands.correct_note(note, asked.text, at_s, now_s))


@router.delete("/{note}", dependencies=[RECORD])
def take_note_away(note: NoteId, now_s: NowS) -> ActResponse:
    """Take a note out of the record; undo brings it back."""
    return ActResponse.of(commands.take_note_away(note, now_s))
