"""`sandboa demo`: the application over made-up data, forgotten at the next start."""

import argparse
import tempfile
from contextlib import ExitStack
from datetime import datetime
from pathlib import Path

from sandboa.cli.application import answer
from sandboa.cli.house_folder import DATABASE
from sandboa.cli.place import add_place, listen, place_of
from sandboa.core.errors import NotPlausible
from sandboa.core.units import require_moment
from sandboa.demo import furnish
from sandboa.demo.scenario.keeper import let_in_a_keeper
from sandboa.records.database import close_database, nothing_half_made, only_server
from sandboa.web.app import create_app
from sandboa.web.clock import Clock, StoppedClock, SystemClock


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    command.add_argument("--data", type=Path, help="where to make the demo house (a new folder)")
    command.add_argument("--today", metavar="TIME", help="stop the demo's clock at this moment")
    add_place(command)


def run(asked: argparse.Namespace) -> int:
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
        reach = place.reach(listening.getsockname()[1])
        app = create_app(path, clock, demo=True, reach=reach)
        furnish(clock.now_s())
        if place.open:
            # As in a real house: others are let in once somebody signs in.
            name, passphrase = let_in_a_keeper(clock.now_s())
            print(f'Sign in to the demo as "{name}" with the passphrase: {passphrase}', flush=True)
        whole()
        return answer(app, place, listening, folder)


def _today(text: str) -> float:
    try:
        moment = datetime.fromisoformat(text)
    except ValueError as error:
        raise NotPlausible("today", f'--today "{text[:40]}" is not a time') from error
    return require_moment("--today", moment.astimezone().timestamp())
