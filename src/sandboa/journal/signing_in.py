"""Passphrases and sessions: who is asking.

Passphrases are hashed by argon2id with the costs its library recommends;
sessions are random tokens of which only a hash is kept.
"""

import secrets
from dataclasses import dataclass
from functools import cache
from typing import Final

from pwdlib import PasswordHash

from sandboa.core.people import LONGEST_PASSPHRASE, Role, as_typed, clean_passphrase
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.journal.devices import hash_of
from sandboa.journal.errors import Conflict
from sandboa.journal.people import find_person
from sandboa.journal.private_link import end_link
from sandboa.records.database import database
from sandboa.records.people import Passphrase, Person, Session, person_called, with_passphrase

#: Days a session lasts unused (assumption: a phone that lies in the animal room all season).
SESSION_DAYS: Final = 90
#: Seconds between two notes of a session's use: not every look at a page is a write.
_NOTED_EVERY_S: Final = 3_600


class NotSignedIn(Exception):
    """Nobody is signed in who may do that; the text is a sentence."""


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
    kept = _hasher().hash(clean_passphrase(passphrase, person.name))
    with database.atomic("IMMEDIATE"):
        if first:
            # From now on every private link is somebody's.
            end_link(None)
        Passphrase.delete().where(Passphrase.person == entity).execute()
        Passphrase.create(person=entity, hash=kept, set_s=int(now_s))
        Session.delete().where(Session.person == entity).execute()


def change_passphrase(person: SignedIn, before: str, passphrase: str, now_s: float) -> None:
    """As `set_passphrase`, by the person; NotSignedIn when `before` is not the one they have."""
    kept = Passphrase.get_or_none(Passphrase.person == person.entity)
    if kept is None or not _hasher().verify(as_typed(before[:LONGEST_PASSPHRASE]), kept.hash):
        raise NotSignedIn("that is not the passphrase you have now")
    set_passphrase(person.entity, passphrase, now_s)


def sign_in(name: str, passphrase: str, device: str, now_s: float) -> str:
    """The token of a new session; NotSignedIn when name and passphrase do not fit.

    An unknown name takes as long as a wrong passphrase, and is answered alike.
    """
    person = person_called(" ".join(name.split()))
    kept = Passphrase.get_or_none(Passphrase.person == person.entity) if person else None
    fits, better = _hasher().verify_and_update(
        as_typed(passphrase[:LONGEST_PASSPHRASE]), kept.hash if kept else _nobodys_hash()
    )
    if person is None or kept is None or not fits:
        raise NotSignedIn("name and passphrase do not fit")
    token = secrets.token_urlsafe(32)
    with database.atomic("IMMEDIATE"):
        if better:
            Passphrase.change(Passphrase.person == person.entity, hash=better)
        Session.delete().where(Session.used_s < now_s - SESSION_DAYS * SECONDS_PER_DAY).execute()
        Session.create(
            token_hash=hash_of(token),
            person=person.entity,
            begun_s=int(now_s),
            used_s=int(now_s),
            device=device[:200],
        )
    return token


def whose(token: str | None, now_s: float) -> SignedIn | None:
    """Who is signed in with that token, None for nobody; notes at times that it is used."""
    if not token:
        return None
    session = Session.get_or_none(Session.token_hash == hash_of(token))
    if session is None or session.used_s < now_s - SESSION_DAYS * SECONDS_PER_DAY:
        return None
    person = Person.now(session.person)
    if person is None:
        return None
    if session.used_s < now_s - _NOTED_EVERY_S:
        Session.change(Session.token_hash == session.token_hash, used_s=int(now_s))
    return SignedIn(person.entity, person.name, Role(person.role))


def sign_out(token: str) -> None:
    """End this session."""
    Session.delete().where(Session.token_hash == hash_of(token)).execute()


def sign_out_everywhere(entity: int) -> int:
    """End every session of a person; returns how many there were."""
    ended: int = Session.delete().where(Session.person == entity).execute()
    return ended


@cache
def _hasher() -> PasswordHash:
    return PasswordHash.recommended()


@cache
def _nobodys_hash() -> str:
    return _hasher().hash(secrets.token_urlsafe(16))
