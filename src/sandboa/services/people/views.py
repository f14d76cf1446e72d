"""The people of the house as they are now."""

from dataclasses import dataclass

from sandboa.records.people import (
    Person,
    sessions_of,
    with_passphrase,
)
from sandboa.records.people import names_of_people as names_of_people
from sandboa.records.people import person_called as person_called


@dataclass(frozen=True, slots=True)
class PersonNow:
    """A person, whether they can sign in, and when one of their browsers last did anything (s)."""

    person: Person
    can_sign_in: bool
    sessions: int
    used_s: int | None


def people_now() -> list[PersonNow]:
    """Everyone of the house, by name."""
    admitted = with_passphrase()
    told = []
    for person in sorted(Person.current(), key=lambda p: p.name.casefold()):
        used = [session.used_s for session in sessions_of(person.entity_id)]
        told.append(
            PersonNow(person, person.entity_id in admitted, len(used), max(used, default=None))
        )
    return told
