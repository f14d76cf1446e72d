"""Passphrases and sessions: who is asking.

Passphrases are hashed by argon2id with the costs its library recommends;
sessions are random tokens of which only a hash is kept.
"""

import secrets
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from functools import cache
from threading import BoundedSemaphore
from typing import Final

from pwdlib import PasswordHash

from sandboa.core.people import LONGEST_PASSPHRASE, Role, as_typed, clean_passphrase
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records import people as recorded
from sandboa.records.database import damage, transaction
from sandboa.records.people import Person, person_called, with_passphrase
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.people.commands import find_person
from sandboa.services.people.private_link import end_link
from sandboa.services.people.tokens import hash_of

#: Days a session lasts unused (assumption: a phone that lies in the animal room all season).
SESSION_DAYS: Final = 90
#: Days after which a session ends however much it is used (product requirement).
LONGEST_SESSION_DAYS: Final = 180
#: Passphrases hashed at a time, each some 64 MB, and how many more may wait for their turn.
HASHING_AT_A_TIME: Final = 2
WAITING_TO_BE_HASHED: Final = 8
#: s that one waits for its turn: on a slow computer a hash takes a second (assumption).
_TURN_S: Final = 20.0
#: Seconds between two notes of a session's use: not every look at a page is a write.
_NOTED_EVERY_S: Final = 3_600


class NotSignedIn(Exception):
    """Nobody is signed in who may do that; the text is a sentence."""


class Busy(Exception):
    """More sign in at once than can be answered; the text is a sentence."""


@dataclass(frozen=True, slots=True)
class SessionNow:
    """A session of somebody: `key` ends it, `here` says that it is the one that asks."""

    key: str
    begun_s: int
    used_s: int
    device: str
    here: bool


@dataclass(frozen=True, slots=True)
class SignedIn:
    """Somebody signed in: a person by entity and name, with their role."""

    entity: int
    name: str
    role: Role


def someone_signs_in() -> bool:
    """Whether anybody has a passphrase: from then on everybody signs in."""
    return bool(with_passphrase())


def set_passphrase(entity: int, passphrase: str, now_s: float) -> None:
    """Give a person a passphrase; whoever was signed in with the one before is signed out.

    Raises NotPlausible for a weak one, Conflict when the first of a house
    would go to somebody who is no keeper.
    """
    person = find_person(entity)
    first = not someone_signs_in()
    if first and person.role != Role.KEEPER:
        raise Conflict("the first passphrase of a house is a keeper's")
    cleaned = clean_passphrase(passphrase, person.name)
    with _turn():
        kept = _hasher().hash(cleaned)
    with transaction():
        if first:
            # From now on every private link is somebody's.
            end_link(None)
        recorded.put_passphrase(entity, kept, now_s)


def change_passphrase(person: SignedIn, before: str, passphrase: str, now_s: float) -> None:
    """As `set_passphrase`, by the person; NotSignedIn when `before` is not the one they have."""
    kept = recorded.passphrase_of(person.entity)
    with _turn():
        known = kept is not None and _hasher().verify(
            as_typed(before[:LONGEST_PASSPHRASE]), kept.hash
        )
    if not known:
        raise NotSignedIn("that is not the passphrase you have now")
    set_passphrase(person.entity, passphrase, now_s)


def sign_in(name: str, passphrase: str, device: str, now_s: float) -> str:
    """The token of a new session; NotSignedIn when name and passphrase do not fit.

    An unknown name takes as long as a wrong passphrase, and is answered alike.
    In a damaged house, which stores nothing, the session lasts as long as the
    application runs. Raises Busy when more sign in than can be answered.
    """
    person = person_called(" ".join(name.split()))
    kept = recorded.passphrase_of(person.entity_id) if person else None
    with _turn():
        fits, better = _hasher().verify_and_update(
            as_typed(passphrase[:LONGEST_PASSPHRASE]), kept.hash if kept else _nobodys_hash()
        )
    if person is None or kept is None or not fits:
        raise NotSignedIn("name and passphrase do not fit")
    token = secrets.token_urlsafe(32)
    if damage():
        _while_damaged[hash_of(token)] = person.entity_id
        return token
    with transaction():
        if better:
            recorded.hash_better(kept, better)
        recorded.end_sessions_before(
            used_s=now_s - SESSION_DAYS * SECONDS_PER_DAY,
            begun_s=now_s - LONGEST_SESSION_DAYS * SECONDS_PER_DAY,
        )
        recorded.Session.create(
            token_hash=hash_of(token),
            person_id=person.entity_id,
            begun_s=int(now_s),
            used_s=int(now_s),
            device=device[:200],
        )
    return token


def record_as(person: SignedIn | None) -> None:
    """Let what this request records be told as that person's; None: the machine's itself."""
    recorded.recorded_by.set(person.entity if person else None)


def whose(token: str | None, now_s: float) -> SignedIn | None:
    """Who is signed in with that token, None for nobody; notes at times that it is used."""
    if not token:
        return None
    session = recorded.session_with(hash_of(token))
    if session is None:
        entity = _while_damaged.get(hash_of(token)) if damage() else None
        return _signed_in(entity)
    if session.used_s < now_s - SESSION_DAYS * SECONDS_PER_DAY:
        return None
    if session.begun_s < now_s - LONGEST_SESSION_DAYS * SECONDS_PER_DAY:
        return None
    found = _signed_in(session.person_id)
    if found is None:
        return None
    if session.used_s < now_s - _NOTED_EVERY_S and not damage():
        recorded.note_use(session, now_s)
    return found


def sessions_of(entity: int, token: str | None) -> list[SessionNow]:
    """The sessions of a person, the one used last first; `token` is that of the one that asks."""
    own = hash_of(token) if token else ""
    return [
        SessionNow(
            row.token_hash[:_KEY], row.begun_s, row.used_s, row.device, row.token_hash == own
        )
        for row in recorded.sessions_of(entity)
    ]


def end_session(entity: int, key: str) -> None:
    """End one session of a person by its key; NotFound when there is none such."""
    if len(key) != _KEY or not recorded.end_session_named(entity, key):
        raise NotFound("that session has ended already")


def sign_out(token: str) -> None:
    """End this session."""
    _while_damaged.pop(hash_of(token), None)
    if not damage():
        recorded.end_session(hash_of(token))


def sign_out_everywhere(entity: int) -> int:
    """End every session of a person, and their calendar link; returns how many sessions."""
    ended = recorded.end_sessions_of(entity)
    end_link(entity)
    return ended


#: Sessions begun while the house is damaged and stores nothing: person by hash of the token.
_while_damaged: dict[str, int] = {}
#: Characters of a session's hash that name it to its owner.
_KEY: Final = 16

_hashing: Final = BoundedSemaphore(HASHING_AT_A_TIME)
_queue: Final = BoundedSemaphore(HASHING_AT_A_TIME + WAITING_TO_BE_HASHED)


@contextmanager
def _turn() -> Iterator[None]:
    """Hash one passphrase among few: each takes much memory and all of a processor."""
    if not _queue.acquire(blocking=False):
        raise Busy("more sign in at once than can be answered: try again in a moment")
    try:
        if not _hashing.acquire(timeout=_TURN_S):
            raise Busy("signing in takes too long at this moment: try again")
        try:
            yield
        finally:
            _hashing.release()
    finally:
        _queue.release()


def _signed_in(entity: int | None) -> SignedIn | None:
    person = Person.now(entity) if entity is not None else None
    return SignedIn(person.entity_id, person.name, Role(person.role)) if person else None


@cache
def _hasher() -> PasswordHash:
    return PasswordHash.recommended()


@cache
def _nobodys_hash() -> str:
    return _hasher().hash(secrets.token_urlsafe(16))
