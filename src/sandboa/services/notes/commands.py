"""Notes written, corrected and taken away; each is an act that can be undone."""

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.core.notes import beginning, clean_note
from sandboa.core.units import require_moment
from sandboa.records.facts import Act
from sandboa.records.notes import Note
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.preconditions import require_not_ahead
from sandboa.services.acts.recording import act
from sandboa.services.notes.about import About, thing

#: Notes on one thing at most (assumption: one a day for ten years).
MOST_NOTES = 4_000


def write_note(about: int, text: str, at_s: float, now_s: float) -> tuple[int, Act]:
    """Write a note on something, of `at_s`; returns its id and the act.

    Raises NotFound for nothing such; NotPlausible for no words, too many, or a time that is
    none or ahead.
    """
    of = thing(about)
    words = clean_note(text)
    require_moment("at", at_s)
    require_not_ahead(at_s, now_s)
    if len(Note.current(about_id=about)) >= MOST_NOTES:
        raise NotPlausible("text", f"{MOST_NOTES:,} notes are enough on one thing")
    with act(ActKind.NOTE, f"Note on {of.name}: {beginning(words)}", now_s) as writing:
        written = Note.record(writing, about_id=about, at_s=int(at_s), text=words)
    return written.entity_id, writing


def correct_note(note: int, text: str, at_s: float | None, now_s: float) -> Act:
    """Correct a note's words, and its time where one is given; the earlier ones stay in the log.

    Raises as `write_note` does; NotFound for a note that is not there.
    """
    held, of = _held(note)
    words = clean_note(text)
    moment_s = float(held.at_s) if at_s is None else at_s
    require_moment("at", moment_s)
    require_not_ahead(moment_s, now_s)
    with act(
        ActKind.NOTE, f"Corrected: Note on {of.name}: {beginning(words)}", now_s
    ) as correcting:
        held.correct(correcting, text=words, at_s=int(moment_s))
    return correcting


def take_note_away(note: int, now_s: float) -> Act:
    """Take a note out of the record; NotFound for one that is not there."""
    held, of = _held(note)
    with act(
        ActKind.NOTE, f"Note on {of.name} taken away: {beginning(held.text)}", now_s
    ) as taking:
        held.retire(taking)
    return taking


def _held(note: int) -> tuple[Note, About]:
    held = Note.now(note)
    if held is None:
        raise NotFound("there is no such note")
    return held, thing(held.about_id)
