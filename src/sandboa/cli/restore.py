"""`sandboa restore`: a copy in the place of the house, which is moved aside whole."""

import argparse
import sys
import time
from pathlib import Path

from sandboa.cli.house_folder import DATABASE, add_data_folder
from sandboa.core.errors import NotPlausible
from sandboa.records.copies.restoring import NotRestored, restore
from sandboa.records.copies.what_lets_in import carried_over
from sandboa.records.database import only_server


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    command.add_argument("copy", type=Path, metavar="COPY")
    add_data_folder(command)


def run(asked: argparse.Namespace) -> int:
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
