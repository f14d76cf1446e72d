"""The `sandboa` command: one file for each, imported only when it is the one called."""

import argparse
import os
import sys
from collections.abc import Sequence
from importlib import import_module
from typing import Final, NoReturn

from sandboa import __version__
from sandboa.cli.environment import SaidWrongly, require_known, take

#: Each command's module in this folder, and what it does in a line.
COMMANDS: Final = {
    "serve": ("serve", "run the application over a house"),
    "demo": ("demo", "run the application over made-up data"),
    "simulate": ("simulate", "a made-up cabinet that sends readings to a running Sandboa"),
    "import": ("import_", "store a logger's CSV file as readings of a probe, or a whole package"),
    "export": ("export", "print a probe's readings as CSV, or write the whole house as a package"),
    "backup": ("backup", "copy the house with its photos, also while it runs, and prove the copy"),
    "restore": ("restore", "put a copy in the place of the house, which is moved aside whole"),
    "check": ("check", "verify the house, or a copy of one"),
    "service": ("service", "print a systemd unit that runs the application from now on"),
    "people": ("people", "list the people of the house, or give one a passphrase"),
    "forecast": ("forecast", "forecast pip and emergence"),
    "mix": ("mix", "water for a mass of dry medium"),
    "dimple": ("dimple", "judge a dent for its stage"),
    "messages": ("messages", "list every template of what is said to a keeper"),
}
_HOUSE: Final = ("--data",)
_RUNNING: Final = ("--host", "--port", "--address", "--proxy", "--certificate", "--key")
#: Exit code of a command ended by Ctrl+C before it was done, as shells have it.
_INTERRUPTED: Final = 130


class _Parser(argparse.ArgumentParser):
    """Says what is wrong in one line on standard error and exits 2."""

    def error(self, message: str) -> NoReturn:
        self.exit(2, f"{self.prog}: {message}\n")


def main(arguments: Sequence[str] | None = None) -> int:
    """Run the command; returns its exit code. Wrong input exits 2 with one clear line."""
    given = list(sys.argv[1:] if arguments is None else arguments)
    asked = _parser(given).parse_args(given)
    # Houses, copies and exports are for whoever runs this, and nobody else on the machine.
    os.umask(0o077)
    _log()
    try:
        code: int = asked.run(asked)
    except BrokenPipeError:
        # Whoever read our output has had enough: `sandboa messages | head`.
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    except KeyboardInterrupt:
        sys.stderr.write(f"sandboa {asked.command}: stopped\n")
        return _INTERRUPTED
    except Exception as error:
        told = _told(error, asked)
        if told is None:
            raise
        sys.stderr.write(f"sandboa {asked.command}: {told}\n")
        return 2
    finally:
        _close_house()
    return code


def _parser(given: Sequence[str]) -> _Parser:
    """The parser, with the arguments of the one command that is called."""
    parser = _Parser(prog="sandboa", description="Follows ball python clutches.")
    parser.add_argument("--version", action="version", version=f"sandboa {__version__}")
    parser.add_argument(
        "--unit", choices=("C", "F"),
        help="what temperatures are told in; C unless told otherwise",
    )  # fmt: skip
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    called = next((word for word in given if word in COMMANDS), None)
    for name, (module, what) in COMMANDS.items():
        command = commands.add_parser(name, help=what)
        if name == called:
            own = import_module(f"sandboa.cli.{module}")
            own.add_arguments(command)
            command.set_defaults(run=own.run)
            _take_what_is_said(parser, command, name)
    return parser


def _take_what_is_said(parser: _Parser, command: argparse.ArgumentParser, name: str) -> None:
    """Let flags be said by the environment and the file: of the house for all, and how it runs."""
    try:
        take(parser)
        # A demo makes a house of its own, and never in the place of the keeper's.
        take(command, None if name == "serve" else _RUNNING if name == "demo" else _HOUSE)
        if name == "serve":
            require_known([*_flags(parser), *_flags(command)])
    except SaidWrongly as error:
        command.error(str(error))


def _flags(parser: argparse.ArgumentParser) -> list[str]:
    own = parser._option_string_actions
    return [flag for flag in own if flag.startswith("--") and flag not in ("--help", "--version")]


def _log() -> None:
    from sandboa.cli.logs import log_to_stderr

    log_to_stderr()


def _told(error: Exception, asked: argparse.Namespace) -> str | None:
    """What is said of an error that was foreseen, in one line; None for one that was not."""
    # Only now: a command that needs no database does without what these bring along.
    from sandboa.core.errors import NotPlausible
    from sandboa.records.database import CannotOpen, DatabaseFault
    from sandboa.services.acts.errors import Conflict
    from sandboa.words import Reader, sentence

    if isinstance(error, NotPlausible | Conflict):
        return sentence(error.reason, Reader.of(asked.unit))
    if isinstance(error, CannotOpen):
        return str(error)
    if isinstance(error, OSError):
        where = f"{error.filename}: " if error.filename else ""
        return f"{where}{error.strerror or error}; nothing of it was kept"
    if isinstance(error, DatabaseFault):
        return f"the database could not be read or written ({error}); nothing of it was kept"
    return None


def _close_house() -> None:
    """Close the house's file where a command has opened one."""
    if "sandboa.records.database" in sys.modules:
        from sandboa.records.database import close_database

        close_database()
