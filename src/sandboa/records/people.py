"""People of the house, and what lets them in: passphrases, sessions, private links.

People are facts like others. What lets them in is none: it is never part of
the log or of a data package, and it is deleted, not superseded.
"""

from contextvars import ContextVar
from typing import Final

from peewee import Expression, IntegerField, TextField, fn

from sandboa.records.facts import Fact, Sealed

#: Entity of the person whose request is being carried out; None at the machine itself.
recorded_by: Final[ContextVar[int | None]] = ContextVar("recorded_by", default=None)


class Person(Fact):
    """Someone with a name and a role: keeper, helper or visitor."""

    name = TextField()
    role = TextField()


class Passphrase(Sealed):
    """The hash of a person's passphrase (argon2id, with its salt and costs)."""

    person_id = IntegerField(primary_key=True)
    hash = TextField()
    set_s = IntegerField()


class Session(Sealed):
    """A signed-in browser; only the hash of its token is kept. `device` is what it calls itself."""

    token_hash = TextField(primary_key=True)
    person_id = IntegerField()
    begun_s = IntegerField()
    used_s = IntegerField()
    device = TextField()


class PrivateLink(Sealed):
    """An address that is its own key: whoever has it reads the calendar. Null: the machine's."""

    token_hash = TextField(primary_key=True)
    person_id = IntegerField(null=True)
    made_s = IntegerField()


class Preference(Sealed):
    """What a person reads temperatures in; person 0 is whoever reads where nobody signs in."""

    person_id = IntegerField(primary_key=True)
    temperature_unit = TextField()


def preference_of(person_id: int | None) -> Preference | None:
    """What that person (None: whoever reads without signing in) chose, None for nothing yet."""
    found: Preference | None = Preference.get_or_none(Preference.person_id == (person_id or 0))
    return found


def put_preference(person_id: int | None, temperature_unit: str) -> None:
    """Keep what that person (None: whoever reads without signing in) reads temperatures in."""
    Preference.delete().where(Preference.person_id == (person_id or 0)).execute()
    Preference.create(person_id=person_id or 0, temperature_unit=temperature_unit)


def person_called(name: str) -> Person | None:
    """The current person of that name, upper and lower case alike."""
    wanted = name.casefold()
    return next((p for p in Person.current() if p.name.casefold() == wanted), None)


def names_of_people() -> dict[int, str]:
    """What every person who ever recorded anything is called, removed ones too."""
    rows = Person.select(Person.entity_id, Person.name).order_by(Person.id)
    return {row.entity_id: row.name for row in rows}


def with_passphrase() -> set[int]:
    """Entities of the current people who can sign in."""
    rows = (
        Person.select(Person.entity_id)
        .join(Passphrase, on=(Passphrase.person_id == Person.entity_id))
        .where(Person.superseded_by_id.is_null())
    )
    return {row.entity_id for row in rows}


def passphrases_are_kept() -> bool:
    """Whether anybody ever got a passphrase that was not taken away again."""
    return bool(Passphrase.select().exists())


def passphrase_of(person_id: int) -> Passphrase | None:
    """The hash of a person's passphrase, None without one."""
    found: Passphrase | None = Passphrase.get_or_none(Passphrase.person_id == person_id)
    return found


def put_passphrase(person_id: int, hashed: str, now_s: float) -> None:
    """Keep a person's passphrase in place of the one before, and end all their sessions."""
    Passphrase.delete().where(Passphrase.person_id == person_id).execute()
    Passphrase.create(person_id=person_id, hash=hashed, set_s=int(now_s))
    end_sessions_of(person_id)


def hash_better(passphrase: Passphrase, hashed: str) -> None:
    """Keep the same passphrase under a hash with today's costs."""
    Passphrase.change(Passphrase.person_id == passphrase.person_id, hash=hashed)


def session_with(token_hash: str) -> Session | None:
    """The session whose token has that hash, None for none."""
    found: Session | None = Session.get_or_none(Session.token_hash == token_hash)
    return found


def note_use(session: Session, now_s: float) -> None:
    """Keep that a session was used."""
    Session.change(Session.token_hash == session.token_hash, used_s=int(now_s))


def sessions_of(person_id: int) -> list[Session]:
    """A person's sessions, the one used last first."""
    own = Session.select().where(Session.person_id == person_id)
    return list(own.order_by(Session.used_s.desc()))


def end_session(token_hash: str) -> None:
    """End the session whose token has that hash."""
    Session.delete().where(Session.token_hash == token_hash).execute()


def end_session_named(person_id: int, beginning: str) -> bool:
    """End a person's session by the beginning of its hash; whether there was one."""
    named = fn.substr(Session.token_hash, 1, len(beginning)) == beginning
    ended: int = Session.delete().where((Session.person_id == person_id) & named).execute()
    return ended > 0


def end_sessions_of(person_id: int) -> int:
    """End every session of a person; returns how many."""
    ended: int = Session.delete().where(Session.person_id == person_id).execute()
    return ended


def end_sessions_before(used_s: float, begun_s: float) -> None:
    """End sessions last used, or begun, before those times (s)."""
    Session.delete().where((Session.used_s < used_s) | (Session.begun_s < begun_s)).execute()


def private_link_of(person_id: int | None) -> PrivateLink | None:
    """The link that person has (None: the machine's), None without one."""
    found: PrivateLink | None = PrivateLink.get_or_none(_link_of(person_id))
    return found


def end_private_link(person_id: int | None) -> None:
    """Let nobody in by that person's link any more."""
    PrivateLink.delete().where(_link_of(person_id)).execute()


def private_link_with(token_hash: str) -> PrivateLink | None:
    """The link whose token has that hash, None for none that holds."""
    found: PrivateLink | None = PrivateLink.get_or_none(PrivateLink.token_hash == token_hash)
    return found


def forget_keys_of(person_id: int) -> None:
    """Delete what is only a person's own: passphrase, sessions, private link, preference."""
    for table in (Passphrase, Session, PrivateLink, Preference):
        table.delete().where(table.person_id == person_id).execute()


def _link_of(person_id: int | None) -> Expression:
    own = PrivateLink.person_id
    return own.is_null() if person_id is None else own == person_id
