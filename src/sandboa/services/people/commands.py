"""People of the house: added, renamed, given a role, removed."""

from sandboa.core.act_kinds import ActKind
from sandboa.core.names import clean_name
from sandboa.core.people import Role
from sandboa.records.facts import Act
from sandboa.records.people import (
    Person,
    forget_keys_of,
)
from sandboa.records.people import names_of_people as names_of_people
from sandboa.records.people import person_called as person_called
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import act
from sandboa.services.acts.undo_constraints import require_keeper_left


def find_person(entity: int) -> Person:
    """The person with that id; NotFound otherwise."""
    person = Person.now(entity)
    if person is None:
        raise NotFound("there is no such person in this house")
    return person


def add_person(name: str, role: Role, now_s: float) -> tuple[Person, Act]:
    """Record a person; they sign in once they have a passphrase. Conflict when the name is taken.

    Raises NotPlausible for a name that is none.
    """
    name = _free_name(name)
    with act(ActKind.PERSON, f"{name} is a {role} of the house", now_s) as adding:
        person = Person.record(adding, name=name, role=role.value)
    return person, adding


def change_person(entity: int, name: str, role: Role, now_s: float) -> Act:
    """Rename a person or give another role. Conflict when no keeper would be left."""
    person = find_person(entity)
    name = _free_name(name, entity)
    with act(ActKind.PERSON, f"{name} is a {role} of the house", now_s) as changing:
        person.correct(changing, name=name, role=role.value)
        require_keeper_left()
    return changing


def remove_person(entity: int, now_s: float) -> Act:
    """Let a person in no more. What they recorded stays, with their name.

    Their passphrase, sessions and calendar link are deleted for good; undone,
    the person comes back without them. Conflict when no keeper would be left.
    """
    person = find_person(entity)
    with act(ActKind.PERSON, f"{person.name} is of the house no more", now_s) as removing:
        person.retire(removing)
        require_keeper_left()
        forget_keys_of(entity)
    return removing


def _free_name(text: str, but: int | None = None) -> str:
    name = clean_name("name", text)
    held = person_called(name)
    if held is not None and held.entity_id != but:
        raise Conflict(f"there is a {held.name} already")
    return name
