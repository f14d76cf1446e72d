"""`sandboa serve` and `sandboa demo`: the application on this machine."""

import argparse
import gc
import socket
import tempfile
from contextlib import ExitStack
from datetime import datetime
from pathlib import Path
from types import FrameType
from typing import TYPE_CHECKING

import uvicorn
from fastapi import FastAPI

from sandboa.cli.house import DATABASE, data_folder
from sandboa.cli.place import Place, listen, place_of
from sandboa.core.errors import NotPlausible
from sandboa.core.units import require_moment
from sandboa.demo import furnish
from sandboa.devices.mqtt import MqttIntake
from sandboa.journal.signing_in import someone_signs_in
from sandboa.web.app import STATIC, create_app
from sandboa.web.clock import Clock, StoppedClock, SystemClock
from sandboa.web.house import House

if TYPE_CHECKING:
    from sandboa.devices.mqtt.broker import DevelopmentBroker

#: This machine only, unless told otherwise.
_HOST = "127.0.0.1"
_PORT = 8350


def add_to(commands: "argparse._SubParsersAction[argparse.ArgumentParser]") -> None:
    serving = commands.add_parser("serve", help="run the application over a house")
    serving.add_argument("--data", type=Path, default=data_folder(), help="the house's folder")
    ways = serving.add_mutually_exclusive_group()
    ways.add_argument("--mqtt", metavar="URL", help="take readings from this MQTT broker too")
    ways.add_argument(
        "--broker", type=int, metavar="PORT", help="run an MQTT broker for development on this port"
    )
    serving.add_argument(
        "--host", default=_HOST, metavar="ADDRESS",
        help="listen there; 0.0.0.0 lets other machines in, once a keeper has a passphrase",
    )  # fmt: skip
    serving.add_argument(
        "--address", metavar="URL", help="how other machines reach this one, as printed on cards"
    )
    serving.add_argument("--certificate", type=Path, metavar="PEM", help="answer by https")
    serving.add_argument("--key", type=Path, metavar="PEM", help="the certificate's private key")
    serving.set_defaults(run=run_serve)
    showing = commands.add_parser("demo", help="run the application over made-up data")
    showing.add_argument("--data", type=Path, help="where to make the demo house (a new folder)")
    showing.add_argument("--today", metavar="TIME", help="stop the demo's clock at this moment")
    showing.set_defaults(run=run_demo)
    for command in (serving, showing):
        command.add_argument("--port", type=int, default=_PORT, help="0 takes a free one")


def run_serve(asked: argparse.Namespace) -> int:
    """Run until interrupted."""
    place = place_of(asked)
    with ExitStack() as closing:
        listening = closing.enter_context(listen(place))
        address = place.address(listening.getsockname()[1])
        app = create_app(asked.data / DATABASE, address=address)
        if place.open and not someone_signs_in():
            raise NotPlausible(
                "host",
                "other machines are let in once a keeper has a passphrase: set one in Settings, "
                "or here with: sandboa people NAME",
            )
        if asked.broker or asked.mqtt:
            _take_mqtt(app, asked, closing)
        return _run(app, place, listening)


def _take_mqtt(app: FastAPI, asked: argparse.Namespace, closing: ExitStack) -> None:
    """Let readings in by MQTT as well, from a broker of the house or from our own."""
    url = asked.mqtt
    if asked.broker:
        broker = _own_broker(asked.broker)
        closing.callback(broker.close)
        url = broker.url
        print(f"MQTT broker for development at 127.0.0.1:{asked.broker}", flush=True)
    house: House = app.state.house
    intake = MqttIntake(url, house.clock.now_s, lambda _: house.live.readings_came_elsewhere())
    closing.callback(intake.close)


def _own_broker(port: int) -> "DevelopmentBroker":
    try:
        from sandboa.devices.mqtt.broker import DevelopmentBroker
    except ImportError as error:
        raise NotPlausible("broker", "the broker is an extra: install sandboa[broker]") from error
    return DevelopmentBroker(port)


def run_demo(asked: argparse.Namespace) -> int:
    """Furnish a fresh house and run it; changes are forgotten at the next start."""
    clock: Clock = StoppedClock(_today(asked.today)) if asked.today else SystemClock()
    if asked.data and (asked.data / DATABASE).exists():
        raise NotPlausible("data", f"{asked.data} holds a house already; the demo wants a new one")
    place = Place(_HOST, asked.port)
    with tempfile.TemporaryDirectory(prefix="sandboa-demo-") as made, listen(place) as listening:
        app = create_app((asked.data or Path(made)) / DATABASE, clock, demo=True)
        furnish(clock.now_s())
        return _run(app, place, listening)


def _run(app: FastAPI, place: Place, listening: socket.socket) -> int:
    if not STATIC.is_dir():
        print("The front end is not built; only the API will answer (see the README).")
    house: House = app.state.house
    here = place.here(listening.getsockname()[1])
    print(f"Sandboa is at {here}/  (Ctrl+C stops it)", flush=True)
    if house.address is not None:
        print(f"Others reach it at {house.address}/", flush=True)
    if place.open and not place.certificate:
        print(
            "Passphrases travel unencrypted in your network. With --certificate and --key they "
            "do not, and phones keep pages for when they are out of reach."
        )
    # What start-up made stays for good: spare the collector walking over it at every batch.
    gc.collect()
    gc.freeze()
    config = uvicorn.Config(
        app,
        log_level="warning",
        access_log=False,
        timeout_graceful_shutdown=3,
        ssl_certfile=place.certificate,
        ssl_keyfile=place.key,
    )
    _Server(config, house).run(sockets=[listening])
    return 0


class _Server(uvicorn.Server):
    """Lets open pages go when it is told to stop: their stream has no end of its own."""

    def __init__(self, config: uvicorn.Config, house: House) -> None:
        super().__init__(config)
        self._house = house

    def handle_exit(self, sig: int, frame: FrameType | None) -> None:
        self._house.live.close_elsewhere()
        super().handle_exit(sig, frame)


def _today(text: str) -> float:
    try:
        moment = datetime.fromisoformat(text)
    except ValueError as error:
        raise NotPlausible("today", f'--today "{text[:40]}" is not a time') from error
    return require_moment("--today", moment.astimezone().timestamp())
