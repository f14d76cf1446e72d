"""Notes as screens show them: on one thing, and found by their words."""

from dataclasses import dataclass

from sandboa.core.notes import is_found
from sandboa.records.notes import Note
from sandboa.records.photos import Photo
from sandboa.services.acts.errors import NotFound
from sandboa.services.notes.about import About, thing, thing_or_none


@dataclass(frozen=True)
class NoteView:
    """A note, what it is about, and its photos."""

    note: Note
    about: About
    photos: tuple[Photo, ...]


def notes_about(about: int) -> list[NoteView]:
    """Notes on a thing, newest first; NotFound for nothing such."""
    of = thing(about)
    return [_view(note, of) for note in _newest_first(Note.current(about_id=about))]


def note_numbered(note: int) -> NoteView:
    """One note; NotFound when there is none such."""
    held = Note.now(note)
    if held is None:
        raise NotFound("there is no such note")
    return _view(held, thing(held.about_id))


def find_notes(words: str, limit: int) -> list[NoteView]:
    """Notes in which every word stands, or in the name of what they are about; newest first.

    Notes on what was undone are left out.
    """
    found: list[NoteView] = []
    for note in _newest_first(Note.current()):
        of = thing_or_none(note.about_id)
        if of is not None and is_found(f"{of.name}\n{note.text}", words):
            found.append(_view(note, of))
            if len(found) == limit:
                break
    return found


def _newest_first(notes: list[Note]) -> list[Note]:
    return sorted(notes, key=lambda note: (note.at_s, note.id), reverse=True)


def _view(note: Note, of: About) -> NoteView:
    photos = sorted(Photo.current(owner_id=note.entity_id), key=lambda p: (p.taken_s, p.id))
    return NoteView(note, of, tuple(photos))
