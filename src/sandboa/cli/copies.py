"""`sandboa backup`, `restore`, `check`: copies of a house, and proof that it is whole."""

import argparse
import sys
import time
from pathlib import Path

from sandboa.cli.house import DATABASE, add_data_folder, existing
from sandboa.core.errors import NotPlausible
from sandboa.records.copies.backups import back_up
from sandboa.records.copies.restoring import NotRestored, restore
from sandboa.records.copies.what_lets_in import carried_over
from sandboa.records.database import only_server, open_database
from sandboa.records.integrity.check import check
from sandboa.services.safekeeping.accepting import accept_as_it_is
from sandboa.services.safekeeping.security_log import HERE


def add_to(commands: "argparse._SubParsersAction[argparse.ArgumentParser]") -> None:
    backing = commands.add_parser(
        "backup", help="copy the house with its photos, also while it runs, and prove the copy"
    )
    backing.add_argument("target", type=Path, metavar="COPY")
    restoring = commands.add_parser(
        "restore", help="put a copy in the place of the house, which is moved aside whole"
    )
    restoring.add_argument("copy", type=Path, metavar="COPY")
    checking = commands.add_parser("check", help="verify the house, or a copy of one")
    checking.add_argument("copy", type=Path, metavar="COPY", nargs="?")
    checking.add_argument(
        "--accept", action="store_true",
        help="let the house count as recorded though it was changed from outside",
    )  # fmt: skip
    for command, run in (
        (backing, run_backup), (restoring, run_restore), (checking, run_check),
    ):  # fmt: skip
        add_data_folder(command)
        command.set_defaults(run=run)


def run_backup(asked: argparse.Namespace) -> int:
    """Write a proven copy, the photos in a folder beside it; never over an existing file."""
    try:
        made = back_up(existing(asked), asked.target, time.time())
    except OSError as error:
        raise NotPlausible("target", str(error)) from error
    photos = f", photos beside it: {made.photos}" if made.photos else ""
    print(f"copied to {made.file} and checked{photos}")
    for trouble in made.troubles:
        sys.stderr.write(f"not in the copy: {trouble} in the house itself\n")
    return 1 if made.troubles else 0


def run_restore(asked: argparse.Namespace) -> int:
    """Put a copy in place; the house before is whole in a folder beside it, and can come back."""
    house: Path = asked.data / DATABASE
    try:
        with only_server(house):
            restored = restore(asked.copy, house, time.time(), carried_over(house))
    except NotRestored as error:
        raise NotPlausible("copy", f"{error}. The house is as it was") from error
    print(f"restored and checked: {restored.checked.found}")
    for problem in (*restored.missing, *restored.checked.problems):
        sys.stderr.write(f"{problem}\n")
    if restored.aside is not None:
        before = restored.aside / DATABASE
        print(
            f"The house before is whole in {restored.aside}. To go back:\n"
            f"  sandboa restore '{before}' --data '{asked.data}'"
        )
    return 1 if restored.checked.problems else 0


def run_check(asked: argparse.Namespace) -> int:
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
