"""The folder of a house, as commands are asked for it."""

import argparse
from pathlib import Path
from typing import Final

import platformdirs

from sandboa.core.errors import NotPlausible

DATABASE: Final = "house.sqlite3"


def add_data_folder(command: argparse.ArgumentParser) -> None:
    """Add --data, the folder of the house."""
    usual = platformdirs.user_data_path("sandboa")
    command.add_argument(
        "--data", type=Path, default=usual,
        help=f"the house's folder; {usual} unless told otherwise",
    )  # fmt: skip


def existing(asked: argparse.Namespace) -> Path:
    """The database in the folder asked for; NotPlausible when there is none."""
    path: Path = asked.data / DATABASE
    if not path.is_file():
        raise NotPlausible("data", f"there is no house in {asked.data}")
    return path
