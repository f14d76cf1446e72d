"""`sandboa serve --home`: the house by https in its network, with a page for new phones."""

import argparse
import sys
import threading
import time
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import replace
from pathlib import Path
from typing import Final

import segno
import uvicorn

from sandboa.cli.people import typed_twice
from sandboa.cli.place import Place, listen, place_of
from sandboa.core.errors import NotPlausible
from sandboa.core.people import Role
from sandboa.devices.home_network import HomeNetwork, Unreadable, multicast
from sandboa.records.database import close_database, nothing_half_made, open_database
from sandboa.records.people import person_called
from sandboa.services.people.commands import add_person
from sandboa.services.people.signing_in import set_passphrase, someone_signs_in
from sandboa.web.front_door.app import front_door
from sandboa.web.requests.connections import Ledger, guarded

NEEDS_A_KEEPER: Final = (
    "other machines are let in once a keeper has a passphrase: set one in Settings, "
    "or here with: sandboa people NAME"
)
#: Folder of the house's authority, within the house's.
FOLDER: Final = "home"
_EVERYWHERE: Final = "0.0.0.0"
_DOOR_PORT: Final = 8351
#: Connections of phones that do not know the house yet, in all and from one address.
_MOST_AT_THE_DOOR: Final = (64, 16)


def add_home(command: argparse.ArgumentParser) -> None:
    """Add the flags of a house in its keeper's network."""
    command.add_argument(
        "--home", action=argparse.BooleanOptionalAction, default=False,
        help="answer phones in your network by https, with a certificate of the house's own",
    )  # fmt: skip
    command.add_argument(
        "--door", type=int, metavar="PORT", default=_DOOR_PORT,
        help=f"with --home: the page for new phones; {_DOOR_PORT} unless told otherwise",
    )  # fmt: skip


def home_place(asked: argparse.Namespace) -> Place:
    """The place of a house at home: at every adapter, with no certificate but its own."""
    if asked.certificate or asked.key:
        raise NotPlausible(
            "home", "--home makes a certificate of its own: leave --certificate and --key away"
        )
    place = place_of(asked)
    return place if place.listens_to_others else replace(place, host=_EVERYWHERE)


def let_in_first_keeper(path: Path) -> None:
    """Ask for a keeper's name and passphrase where nobody has one; NotPlausible without a terminal.

    The house is opened for it, and made when there is none.
    """
    with nothing_half_made(path):
        open_database(path)
        try:
            if someone_signs_in():
                return
            if not sys.stdin.isatty():
                raise NotPlausible("home", NEEDS_A_KEEPER)
            print("Phones sign in with a passphrase. Who keeps this house?")
            _ask_for_keeper()
        finally:
            close_database()


def _ask_for_keeper() -> None:
    name = ""
    while True:
        try:
            name = name or input("Name: ")
            phrase = typed_twice()
            now_s = time.time()
            person = person_called(name) or add_person(name, Role.KEEPER, now_s)[0]
            set_passphrase(person.entity_id, phrase, now_s)
        except EOFError as error:
            raise NotPlausible("home", NEEDS_A_KEEPER) from error
        except NotPlausible as error:
            print(f"{str(error).capitalize()}. Once again, please.")
            if error.field == "name":
                name = ""
        else:
            return


@contextmanager
def at_home(asked: argparse.Namespace, place: Place, port: int) -> Iterator[HomeNetwork]:
    """The standing in its network of a house at `place` and `port`, told to the network, and the
    page for new phones answering."""
    door = Place(place.host, asked.door)
    with closing(listen(door)) as listening:
        door_port = listening.getsockname()[1]
        try:
            home = HomeNetwork(asked.data / FOLDER, (port, door_port), multicast, place.names)
        except Unreadable as error:
            raise NotPlausible("home", str(error)) from error
        with home:
            server = _DoorServer(home)
            thread = threading.Thread(
                target=server.run, kwargs={"sockets": [listening]}, name="door", daemon=True
            )
            thread.start()
            try:
                yield home
            finally:
                server.should_exit = True
                thread.join()


class _DoorServer(uvicorn.Server):
    def __init__(self, home: HomeNetwork) -> None:
        app = front_door(home.authority.der, home.authority.begins_with, home.addresses)
        most, most_of_one = _MOST_AT_THE_DOOR
        super().__init__(
            uvicorn.Config(
                app,
                log_config=None,
                log_level="warning",
                access_log=False,
                timeout_graceful_shutdown=1,
                http=guarded(Ledger(most, most_of_one)),
                proxy_headers=False,
            )
        )


def say_the_way_in(home: HomeNetwork) -> None:
    """Print what a new phone scans, and what tells it that it is this house."""
    door = home.door()
    segno.make_qr(door, error="m").terminal(sys.stdout, compact=True)
    print(f"A new phone scans this, or opens {door}")
    print(f"The house's certificate begins with {home.authority.begins_with}")
    for name in home.unbelieved():
        print(
            f"Phones will not believe the house under {name}: its authority was made without it. "
            f"Move the folder {FOLDER} away, and every phone trusts a new one once more."
        )
    if not home.name_is_known:
        print("The house's name could not be made known here: phones use its address.")
    sys.stdout.flush()
