"""`sandboa import`: a logger's file, or a whole house's package, into a house."""

import argparse
import sys
import time
from pathlib import Path

from sandboa.cli.house_folder import DATABASE, add_data_folder
from sandboa.cli.probe import open_at_probe
from sandboa.core.errors import NotPlausible
from sandboa.formats.data_package import PackageError, read_package
from sandboa.formats.readings_csv import Choices, NotReadable, read_readings
from sandboa.records.database import nothing_half_made, only_server, open_database
from sandboa.services.readings.commands import store_readings


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    command.add_argument("file", type=Path, metavar="FILE.csv|HOUSE.zip")
    command.add_argument("--probe", help="name of a probe the house knows; for a CSV file")
    command.add_argument("--zone", help="zone of times without offset, like Europe/Berlin")
    command.add_argument("--date-order", choices=("dmy", "mdy"))
    add_data_folder(command)


def run(asked: argparse.Namespace) -> int:
    """Store what can be read, list what cannot; exits 1 when rows were left out.

    A package goes into an empty house, whole or not at all.
    """
    if asked.file.suffix.lower() == ".zip":
        return _import_package(asked)
    if asked.probe is None:
        raise NotPlausible("probe", "whose readings are these? Name the probe with --probe")
    probe = open_at_probe(asked)
    try:
        file = read_readings(
            asked.file.read_bytes(), Choices(zone=asked.zone, order=asked.date_order)
        )
        file.require_no_questions()
    except OSError as error:
        raise NotPlausible("file", f"{asked.file.name}: {error.strerror or error}") from error
    except NotReadable as error:
        raise NotPlausible("file", f"{asked.file.name}: {error}") from error
    intake = store_readings(probe.entity_id, file.rows, "csv", asked.file.name, time.time())
    print(
        f"{intake.new} new, {intake.known} known already, {len(intake.conflicting)} contradict, "
        f"{intake.before_probe} before the probe hung there, {intake.in_future} in the future"
    )
    for bad in file.bad_rows:
        sys.stderr.write(f"line {bad.line} left out: {bad.reason}\n")
    return 1 if file.bad_rows else 0


def _import_package(asked: argparse.Namespace) -> int:
    path = asked.data / DATABASE
    with nothing_half_made(path), only_server(path):
        open_database(path)
        try:
            rows = read_package(asked.file)
        except PackageError as error:
            raise NotPlausible("file", f"{asked.file.name}: {error}") from error
    print(f"{sum(rows.values())} rows of {len(rows)} tables taken in")
    return 0
