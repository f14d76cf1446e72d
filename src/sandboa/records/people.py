"""People of the house, and what lets them in: passphrases, sessions, private links.

People are facts like others. What lets them in is none: it is never part of
the log or of a data package, and it is deleted, not superseded.
"""

from contextvars import ContextVar
from typing import Final

from peewee import IntegerField, TextField

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
