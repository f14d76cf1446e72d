"""`sandboa serve`: the application over a house."""

import argparse
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from pathlib import Path
from typing import TYPE_CHECKING, Final

from sandboa.cli.application import answer
from sandboa.cli.environment import said
from sandboa.cli.house_folder import DATABASE, add_data_folder
from sandboa.cli.place import add_place, listen, place_of
from sandboa.core.errors import NotPlausible
from sandboa.devices.mqtt import MqttIntake, require_broker
from sandboa.records.database import close_database, nothing_half_made, only_server
from sandboa.services.people.signing_in import someone_signs_in
from sandboa.web.app import create_app
from sandboa.web.house import House

if TYPE_CHECKING:
    from sandboa.devices.mqtt.broker import DevelopmentBroker

NEEDS_A_KEEPER: Final = (
    "other machines are let in once a keeper has a passphrase: set one in Settings, "
    "or here with: sandboa people NAME"
)


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    add_data_folder(command)
    ways = command.add_mutually_exclusive_group()
    ways.add_argument(
        "--mqtt", metavar="URL", default=said("MQTT"),
        help="take readings from this MQTT broker too (or SANDBOA_MQTT)",
    )  # fmt: skip
    ways.add_argument(
        "--broker", type=int, metavar="PORT", help="run an MQTT broker for development on this port"
    )
    command.add_argument(
        "--backups", type=Path, metavar="FOLDER", default=said("BACKUPS"),
        help="put every night's backup there, best on another disk (or SANDBOA_BACKUPS); "
        "else as set in Settings, else beside the house",
    )  # fmt: skip
    add_place(command)


def run(asked: argparse.Namespace) -> int:
    """Run until interrupted; the house is closed then, its one file whole."""
    place = place_of(asked)
    path: Path = asked.data / DATABASE
    with ExitStack() as closing:
        listening = closing.enter_context(listen(place))
        if place.open and not path.exists():
            raise NotPlausible("host", NEEDS_A_KEEPER)
        broker = closing.enter_context(_readings_by_mqtt(asked))
        whole = closing.enter_context(nothing_half_made(path))
        closing.enter_context(only_server(path))
        closing.callback(close_database)
        address = place.address(listening.getsockname()[1])
        app = create_app(
            path, address=address, backups=_backups(asked.backups), proxies=place.proxies
        )
        if place.open and not someone_signs_in():
            raise NotPlausible("host", NEEDS_A_KEEPER)
        if broker is not None:
            house: House = app.state.house
            intake = MqttIntake(
                broker,
                house.clock.now_s,
                house.readings_came_by_mqtt,
                house.access.use_when_open,
                house.mqtt_refused,
            )
            house.senders.broker_problem = lambda: intake.problem
            closing.callback(intake.close)
        # What goes wrong from here on is no reason to remove what keepers recorded.
        whole()
        return answer(app, place, listening, asked.data)


@contextmanager
def _readings_by_mqtt(asked: argparse.Namespace) -> Iterator[str | None]:
    """The broker to take readings from, if one was asked for: the house's, or one of our own."""
    if not asked.broker:
        if asked.mqtt:
            require_broker(asked.mqtt)
        yield asked.mqtt
        return
    broker = _own_broker(asked.broker)
    print(f"MQTT broker for development at 127.0.0.1:{asked.broker}", flush=True)
    try:
        yield broker.url
    finally:
        broker.close()


def _own_broker(port: int) -> "DevelopmentBroker":
    try:
        from sandboa.devices.mqtt.broker import DevelopmentBroker
    except ImportError as error:
        raise NotPlausible("broker", "the broker is an extra: install sandboa[broker]") from error
    return DevelopmentBroker(port)


def _backups(folder: Path | None) -> Path | None:
    if folder is not None and not folder.is_dir():
        raise NotPlausible("backups", f"--backups: there is no folder {folder}")
    return folder
