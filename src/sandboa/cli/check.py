"""`sandboa check`: whether a house, or a copy of one, is whole and as it was recorded."""

import argparse
import sys
import time
from pathlib import Path

from sandboa.cli.house_folder import add_data_folder, existing
from sandboa.core.errors import NotPlausible
from sandboa.records.database import only_server, open_database
from sandboa.records.integrity.check import check
from sandboa.services.safekeeping.accepting import accept_as_it_is
from sandboa.services.safekeeping.security_log import HERE


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    command.add_argument("copy", type=Path, metavar="COPY", nargs="?")
    command.add_argument(
        "--accept", action="store_true",
        help="let the house count as recorded though it was changed from outside",
    )  # fmt: skip
    add_data_folder(command)


def run(asked: argparse.Namespace) -> int:
    """Say what is in the house, or the copy, and what is wrong; exits 1 when anything is."""
    if asked.accept:
        return _accept(asked)
    if asked.copy is not None and not asked.copy.is_file():
        raise NotPlausible("copy", f"there is no file {asked.copy}")
    checked = check(asked.copy or existing(asked))
    for problem in checked.problems:
        sys.stderr.write(f"{problem}\n")
    if checked.found:
        print(f"{'damaged' if checked.problems else 'sound'}: {checked.found}")
    return 1 if checked.problems else 0


def _accept(asked: argparse.Namespace) -> int:
    """Prove the house anew as it lies there; Conflict where its file is damaged."""
    if asked.copy is not None:
        raise NotPlausible("copy", "a copy is accepted once it is the house: restore it first")
    house = existing(asked)
    with only_server(house):
        open_database(house)
        accepted = accept_as_it_is(HERE, time.time())
    for problem in accepted:
        print(f"accepted: {problem}")
    if not accepted:
        print("sound: there was nothing to accept")
    return 0
