"""`sandboa people`: who may come in; the way back in when a passphrase is forgotten."""

import argparse
import getpass
import sys
import time

from sandboa.cli.house_folder import DATABASE, add_data_folder, existing
from sandboa.core.errors import NotPlausible
from sandboa.core.people import Role
from sandboa.records.database import nothing_half_made, open_database
from sandboa.records.people import person_called
from sandboa.services.people.commands import add_person, change_person
from sandboa.services.people.signing_in import set_passphrase
from sandboa.services.people.views import people_now


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    command.add_argument("name", nargs="?", help="who gets a (new) passphrase; added when unknown")
    command.add_argument(
        "--role",
        choices=[role.value for role in Role],
        help="what they are from now on; somebody new is a keeper unless told otherwise",
    )
    command.add_argument(
        "--stdin", action="store_true", help="read the passphrase from standard input"
    )
    add_data_folder(command)


def run(asked: argparse.Namespace) -> int:
    """List everybody, or set a passphrase. It is never taken from the command line itself."""
    if asked.name is None:
        open_database(existing(asked))
        for now in people_now():
            can = "can sign in" if now.can_sign_in else "has no passphrase"
            print(f"{now.person.name}: {now.person.role}, {can}")
        return 0
    phrase = sys.stdin.readline().rstrip("\r\n") if asked.stdin else typed_twice()
    now_s = time.time()
    path = asked.data / DATABASE
    # A house that is to be opened to others may begin with its keeper.
    with nothing_half_made(path):
        open_database(path)
        known = person_called(asked.name)
        role = Role(asked.role or (known.role if known else Role.KEEPER))
        person = known or add_person(asked.name, role, now_s)[0]
        if role != person.role:
            change_person(person.entity_id, person.name, role, now_s)
        set_passphrase(person.entity_id, phrase, now_s)
    print(f"{person.name} ({role}) signs in with it from now on")
    return 0


def typed_twice() -> str:
    """A passphrase asked for at the terminal; NotPlausible when the two were not the same."""
    phrase = getpass.getpass("Passphrase: ")
    if getpass.getpass("Once more: ") != phrase:
        raise NotPlausible("passphrase", "the two were not the same; nothing was changed")
    return phrase
