"""The `sandboa` command."""

import argparse
import os
import sys
from collections.abc import Sequence
from typing import NoReturn

from sandboa import __version__
from sandboa.cli import copies, dimple, forecast, house, mix, people, serve, simulate
from sandboa.cli.logs import log_to_stderr
from sandboa.core.errors import NotPlausible
from sandboa.records.database import CannotOpen, DatabaseFault, close_database
from sandboa.services.acts.errors import Conflict

_COMMANDS = (serve, simulate, house, copies, people, forecast, mix, dimple)
#: Exit code of a command ended by Ctrl+C before it was done, as shells have it.
_INTERRUPTED = 130


class _Parser(argparse.ArgumentParser):
    """Says what is wrong in one line on standard error and exits 2."""

    def error(self, message: str) -> NoReturn:
        self.exit(2, f"{self.prog}: {message}\n")


def main(arguments: Sequence[str] | None = None) -> int:
    """Run the command; returns its exit code. Wrong input exits 2 with one clear line."""
    parser = _Parser(prog="sandboa", description="Follows ball python clutches.")
    parser.add_argument("--version", action="version", version=f"sandboa {__version__}")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    for module in _COMMANDS:
        module.add_to(commands)
    asked = parser.parse_args(arguments)
    # Houses, copies and exports are for whoever runs this, and nobody else on the machine.
    os.umask(0o077)
    log_to_stderr()
    try:
        code: int = asked.run(asked)
    except (NotPlausible, Conflict, CannotOpen) as error:
        sys.stderr.write(f"sandboa {asked.command}: {error}\n")
        return 2
    except (OSError, DatabaseFault) as error:
        sys.stderr.write(f"sandboa {asked.command}: {_what_failed(error)}\n")
        return 2
    except KeyboardInterrupt:
        sys.stderr.write(f"sandboa {asked.command}: stopped\n")
        return _INTERRUPTED
    finally:
        close_database()
    return code


def _what_failed(error: OSError | DatabaseFault) -> str:
    """A disk that is full or broken, or a database that is, in one line."""
    if isinstance(error, OSError):
        where = f"{error.filename}: " if error.filename else ""
        return f"{where}{error.strerror or error}; nothing of it was kept"
    return f"the database could not be read or written ({error}); nothing of it was kept"
