"""`sandboa serve`: the application over a house."""

import argparse
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from pathlib import Path
from typing import TYPE_CHECKING

from sandboa.cli.application import answer
from sandboa.cli.home import NEEDS_A_KEEPER, add_home, at_home, home_place, let_in_first_keeper
from sandboa.cli.house_folder import DATABASE, add_data_folder
from sandboa.cli.logs import FILE_BYTES, FILES, log_to_file
from sandboa.cli.place import add_place, listen, place_of
from sandboa.core.errors import NotPlausible
from sandboa.devices.mqtt import Broker, MqttIntake, MqttListener
from sandboa.records.database import close_database, nothing_half_made, only_server
from sandboa.services.people.signing_in import someone_signs_in
from sandboa.web.app import create_app
from sandboa.web.background.mqtt_messages import MqttMessages
from sandboa.web.house import House

if TYPE_CHECKING:
    from sandboa.devices.mqtt.broker import DevelopmentBroker


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    add_data_folder(command)
    ways = command.add_mutually_exclusive_group()
    ways.add_argument(
        "--mqtt", metavar="URL",
        help="take readings from this MQTT broker too",
    )  # fmt: skip
    ways.add_argument(
        "--broker", type=int, metavar="PORT", help="run an MQTT broker for development on this port"
    )
    command.add_argument(
        "--mqtt-password", metavar="PASSWORD",
        help="of the name in that address; better said by the variable or in a file, for others "
        "on the machine see what is typed",
    )  # fmt: skip
    command.add_argument(
        "--mqtt-password-file",
        type=Path,
        metavar="FILE",
        help="the file that holds the password",
    )
    command.add_argument(
        "--mqtt-authority", type=Path, metavar="PEM",
        help="with mqtts://: believe only what this authority has signed",
    )  # fmt: skip
    command.add_argument(
        "--backups", type=Path, metavar="FOLDER",
        help="put every night's backup there, best on another disk; "
        "else as set in Settings, else beside the house",
    )  # fmt: skip
    command.add_argument(
        "--log", type=Path, metavar="FILE",
        help=f"keep the log there, {FILES} files of at most {FILE_BYTES // 2**20} MB; "
        "sandboa.log in the house's folder unless told otherwise",
    )  # fmt: skip
    add_place(command)
    add_home(command)


def run(asked: argparse.Namespace) -> int:
    """Run until interrupted; the house is closed then, its one file whole."""
    place = home_place(asked) if asked.home else place_of(asked)
    path: Path = asked.data / DATABASE
    with ExitStack() as closing:
        listening = closing.enter_context(listen(place))
        port = listening.getsockname()[1]
        if place.open and not asked.home and not path.exists():
            raise NotPlausible("host", NEEDS_A_KEEPER)
        broker = closing.enter_context(_broker(asked))
        whole = closing.enter_context(nothing_half_made(path))
        closing.enter_context(only_server(path))
        if asked.home:
            let_in_first_keeper(path)
        log = asked.log or asked.data / "sandboa.log"
        closing.callback(close_database)
        home = closing.enter_context(at_home(asked, place, port)) if asked.home else None
        if home is not None:
            place = place.at_home(home)
        app = create_app(
            path, log=log, backups=_backups(asked.backups), reach=place.reach(port, home)
        )
        if place.open and not someone_signs_in():
            raise NotPlausible("host", NEEDS_A_KEEPER)
        if broker is not None:
            _follow(broker, app.state.house, closing)
        # What goes wrong from here on is no reason to remove what keepers recorded.
        whole()
        closing.callback(log_to_file(log))
        return answer(app, place, listening, asked.data)


def _follow(broker: Broker, house: House, closing: ExitStack) -> None:
    """Take what a broker passes on, until everything is closed."""
    messages = MqttMessages(house)
    intake = MqttIntake(broker, messages)
    closing.callback(intake.close)
    house.senders.broker_problem = lambda: intake.problem
    house.follow_named = intake.follow_named
    closing.callback(MqttListener(broker, messages.heard).close)


@contextmanager
def _broker(asked: argparse.Namespace) -> Iterator[Broker | None]:
    """The broker to take readings from, if one was asked for: the house's, or one of our own."""
    if not asked.broker:
        yield _broker_named(asked) if asked.mqtt else None
        return
    broker = _own_broker(asked.broker)
    print(f"MQTT broker for development at 127.0.0.1:{asked.broker}", flush=True)
    try:
        yield Broker(broker.url)
    finally:
        broker.close()


def _broker_named(asked: argparse.Namespace) -> Broker:
    password = asked.mqtt_password
    if asked.mqtt_password_file is not None:
        password = asked.mqtt_password_file.read_text(encoding="utf-8").rstrip("\r\n")
    return Broker(asked.mqtt, password, asked.mqtt_authority)


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
