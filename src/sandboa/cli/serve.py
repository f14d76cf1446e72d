"""`sandboa serve` and `sandboa demo`: the application on this machine."""

import argparse
import asyncio
import gc
import signal
import socket
import tempfile
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from datetime import datetime
from functools import partial
from pathlib import Path
from types import FrameType
from typing import TYPE_CHECKING

import uvicorn
from fastapi import FastAPI

from sandboa.cli.house import DATABASE, add_data_folder
from sandboa.cli.place import Place, add_place, listen, place_of
from sandboa.cli.told import said
from sandboa.core.errors import NotPlausible
from sandboa.core.units import require_moment
from sandboa.demo import furnish
from sandboa.demo.scenario.keeper import let_in_a_keeper
from sandboa.devices.mqtt import MqttIntake, require_broker
from sandboa.records.database import close_database, nothing_half_made, only_server
from sandboa.services.people.signing_in import someone_signs_in
from sandboa.web.app import STATIC, create_app
from sandboa.web.clock import Clock, StoppedClock, SystemClock
from sandboa.web.house import House
from sandboa.web.requests.connections import HEADERS_S, guarded

if TYPE_CHECKING:
    from sandboa.devices.mqtt.broker import DevelopmentBroker

#: Bytes of a request's line and headers.
LARGEST_HEADERS = 32 * 1024
_STOPPED_BY = (signal.SIGINT, signal.SIGTERM)
NEEDS_A_KEEPER = (
    "other machines are let in once a keeper has a passphrase: set one in Settings, "
    "or here with: sandboa people NAME"
)


def add_to(commands: "argparse._SubParsersAction[argparse.ArgumentParser]") -> None:
    serving = commands.add_parser("serve", help="run the application over a house")
    add_data_folder(serving)
    ways = serving.add_mutually_exclusive_group()
    ways.add_argument(
        "--mqtt", metavar="URL", default=said("MQTT"),
        help="take readings from this MQTT broker too (or SANDBOA_MQTT)",
    )  # fmt: skip
    ways.add_argument(
        "--broker", type=int, metavar="PORT", help="run an MQTT broker for development on this port"
    )
    serving.add_argument(
        "--backups", type=Path, metavar="FOLDER", default=said("BACKUPS"),
        help="put every night's backup there, best on another disk (or SANDBOA_BACKUPS); "
        "else as set in Settings, else beside the house",
    )  # fmt: skip
    serving.set_defaults(run=run_serve)
    showing = commands.add_parser("demo", help="run the application over made-up data")
    showing.add_argument("--data", type=Path, help="where to make the demo house (a new folder)")
    showing.add_argument("--today", metavar="TIME", help="stop the demo's clock at this moment")
    showing.set_defaults(run=run_demo)
    for command in (serving, showing):
        add_place(command)


def run_serve(asked: argparse.Namespace) -> int:
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
                lambda _: house.live.readings_came_elsewhere(),
                house.access.use_when_open,
            )
            closing.callback(intake.close)
        # What goes wrong from here on is no reason to remove what keepers recorded.
        whole()
        return _run(app, place, listening, asked.data)


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


def run_demo(asked: argparse.Namespace) -> int:
    """Furnish a fresh house and run it; changes are forgotten at the next start."""
    clock: Clock = StoppedClock(_today(asked.today)) if asked.today else SystemClock()
    if asked.data and (asked.data / DATABASE).exists():
        raise NotPlausible("data", f"{asked.data} holds a house already; the demo wants a new one")
    place = place_of(asked)
    with ExitStack() as closing:
        folder = asked.data or Path(
            closing.enter_context(tempfile.TemporaryDirectory(prefix="sandboa-demo-"))
        )
        listening = closing.enter_context(listen(place))
        path = folder / DATABASE
        whole = closing.enter_context(nothing_half_made(path))
        closing.enter_context(only_server(path))
        closing.callback(close_database)
        address = place.address(listening.getsockname()[1])
        app = create_app(path, clock, demo=True, address=address, proxies=place.proxies)
        furnish(clock.now_s())
        if place.open:
            # As in a real house: others are let in once somebody signs in.
            name, passphrase = let_in_a_keeper(clock.now_s())
            print(f'Sign in to the demo as "{name}" with the passphrase: {passphrase}', flush=True)
        whole()
        return _run(app, place, listening, folder)


def _run(app: FastAPI, place: Place, listening: socket.socket, folder: Path) -> int:
    if not STATIC.is_dir():
        print("The front end is not built; only the API will answer (see the README).")
    house: House = app.state.house
    here = place.here(listening.getsockname()[1])
    print(f"The house is in {folder.resolve()}")
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
        # Our own logging, with times, is set up by the command.
        log_config=None,
        log_level="warning",
        access_log=False,
        timeout_graceful_shutdown=3,
        ssl_certfile=place.certificate,
        ssl_keyfile=place.key,
        http=guarded(house.connections),
        h11_max_incomplete_event_size=LARGEST_HEADERS,
        proxy_headers=False,
    )
    _Server(config, house).run(sockets=[listening])
    print("Sandboa has stopped; the house is closed.", flush=True)
    return 0


class _Server(uvicorn.Server):
    """Lets open pages go when it is told to stop: their stream has no end of its own."""

    def __init__(self, config: uvicorn.Config, house: House) -> None:
        super().__init__(config)
        self._house = house

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        """As uvicorn starts, with an end to handshakes: it has no setting for that."""
        loop = asyncio.get_running_loop()
        if self.config.is_ssl:
            loop.create_server = partial(  # type: ignore[method-assign]
                loop.create_server, ssl_handshake_timeout=HEADERS_S
            )
        await super().startup(sockets)

    @contextmanager
    def capture_signals(self) -> Iterator[None]:
        """Stop for a signal, and only that.

        Uvicorn raises the signal anew once it has stopped, which would end the
        process before the house is closed.
        """
        before = {one: signal.signal(one, self.handle_exit) for one in _STOPPED_BY}
        try:
            yield
        finally:
            for one, handler in before.items():
                signal.signal(one, handler)

    def handle_exit(self, sig: int, frame: FrameType | None) -> None:
        self._house.live.close_elsewhere()
        super().handle_exit(sig, frame)


def _backups(folder: Path | None) -> Path | None:
    if folder is not None and not folder.is_dir():
        raise NotPlausible("backups", f"--backups: there is no folder {folder}")
    return folder


def _today(text: str) -> float:
    try:
        moment = datetime.fromisoformat(text)
    except ValueError as error:
        raise NotPlausible("today", f'--today "{text[:40]}" is not a time') from error
    return require_moment("--today", moment.astimezone().timestamp())
