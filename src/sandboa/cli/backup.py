"""`sandboa backup`: a proven copy of a house."""

import argparse
import sys
import time
from pathlib import Path

from sandboa.cli.house_folder import add_data_folder, existing
from sandboa.core.errors import NotPlausible
from sandboa.records.copies.backups import back_up


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    command.add_argument("target", type=Path, metavar="COPY")
    add_data_folder(command)


def run(asked: argparse.Namespace) -> int:
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
