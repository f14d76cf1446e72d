"""Each person's practice: opened, exported, deleted."""

from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from pathlib import Path
from typing import Any, Final

from sandboa.practice.errors import NoSuchSession, Refused
from sandboa.records.practice_store import (
    Body,
    PracticeDamaged,
    PracticeStore,
    PracticeTooNew,
    StoredSession,
    forget,
    opened,
    practice_file,
)

__all__ = ["Practice", "delete_all", "exported", "practice_of", "require_session"]

Practice = PracticeStore

#: Of what practice writes: a session of a later version is not understood by this one.
VERSION: Final = 1
#: Sessions a person keeps (assumption: some years of practice).
MOST_SESSIONS: Final = 500


@contextmanager
def practice_of(house: Path, person: int | None) -> Iterator[PracticeStore]:
    """A person's practice; Refused where a newer Sandboa wrote it, or it cannot be read."""
    try:
        with opened(practice_file(house, person)) as store:
            yield store
    except PracticeTooNew as error:
        raise Refused(
            "Your practice was kept by a newer Sandboa. Nothing was changed: "
            "update this one to go on."
        ) from error
    except PracticeDamaged as error:
        raise Refused(
            "The file of your practice cannot be read. The house is not touched by that: "
            "delete your practice to begin anew."
        ) from error


def require_session(store: PracticeStore, id: int, kind: str) -> StoredSession:
    """A session of that kind; NoSuchSession without, Refused for one of a newer version."""
    session = store.session(id)
    if session is None or session.kind != kind:
        raise NoSuchSession("There is no such session in your practice.")
    if session.version > VERSION:
        raise Refused(
            "This session was begun with a newer Sandboa. Nothing was changed: "
            "update this one to go on."
        )
    return session


def require_room(store: PracticeStore) -> None:
    """Refused where a person has as many sessions as are kept."""
    if store.count() >= MOST_SESSIONS:
        raise Refused(
            f"{MOST_SESSIONS} sessions are kept. Delete some of yours, then begin another."
        )


def exported(store: PracticeStore, told: Mapping[str, Callable[[Body], Body]]) -> dict[str, Any]:
    """Everything of a person's practice, as plain values.

    `told` says of a kind of session what of it may be told by now: no truth before its time.
    """
    return {
        "version": VERSION,
        "sessions": [
            {
                "id": session.id,
                "kind": session.kind,
                "version": session.version,
                "began_s": session.began_s,
                "body": told.get(session.kind, _whole)(session.body),
            }
            for session in store.sessions()
        ],
        "answers": [{"at_s": at_s, **said} for at_s, said in store.answers()],
        "reviews": store.reviews(),
    }


def _whole(body: Body) -> Body:
    return body


def delete_all(house: Path, person: int | None) -> None:
    """Forget everything a person practised."""
    forget(practice_file(house, person))
