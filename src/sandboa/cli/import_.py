"""`sandboa import`: a logger's file, or a whole house's package, into a house."""

import argparse
import sys
import time
from pathlib import Path

from sandboa.cli.house_folder import DATABASE, add_data_folder, existing
from sandboa.cli.probe import probe_called
from sandboa.core.errors import NotPlausible
from sandboa.formats.data_package import PackageError, read_package
from sandboa.formats.logger_files import (
    Choices,
    Columns,
    ColumnUse,
    LoggerFile,
    NotReadable,
    read_logger_file,
)
from sandboa.records.database import nothing_half_made, only_server, open_database
from sandboa.records.house import Probe
from sandboa.services.readings.commands import store_file


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    command.add_argument(
        "file", type=Path, metavar="FILE|HOUSE.zip",
        help="CSV, XLSX or ODS of a logger, or a package",
    )  # fmt: skip
    command.add_argument(
        "--probe", action="append", metavar="[SENSOR=]NAME",
        help="name of a probe the house knows; for a file of several sensors one for each, "
        "those not named being left out",
    )  # fmt: skip
    command.add_argument(
        "--columns", help="what each column is used for, in their order: "
        + ", ".join(ColumnUse) + "; like time,unused,temperature",
    )  # fmt: skip
    command.add_argument("--unit", choices=("c", "f", "k"), help="of temperatures")
    command.add_argument("--sheet", help="name of the sheet of a spreadsheet")
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
    open_database(existing(asked))
    try:
        file = read_logger_file(asked.file.read_bytes(), _choices(asked))
        file.require_no_questions()
    except OSError as error:
        raise NotPlausible("file", f"{asked.file.name}: {error.strerror or error}") from error
    except NotReadable as error:
        raise NotPlausible("file", f"{asked.file.name}: {error}") from error
    probes = _probes(file, asked.probe)
    parts = [(probe.entity_id, file.sensors[place].rows) for place, probe in probes.items()]
    taken_in = store_file(parts, "csv", asked.file.name, time.time())
    for probe, intake in zip(probes.values(), taken_in, strict=True):
        print(
            f"{probe.name}: {intake.new} new, {intake.known} known already, "
            f"{len(intake.conflicting)} contradict, {intake.before_probe} before the probe hung "
            f"there, {intake.in_future} in the future"
        )
    for bad in file.bad_rows:
        sys.stderr.write(f"line {bad.line} left out: {bad.reason}\n")
    return 1 if file.bad_rows else 0


def _choices(asked: argparse.Namespace) -> Choices:
    columns = None
    if asked.columns is not None:
        try:
            columns = Columns(tuple(ColumnUse(name.strip()) for name in asked.columns.split(",")))
        except ValueError as error:
            raise NotPlausible("columns", f"{error}; there is: {', '.join(ColumnUse)}") from error
    return Choices(
        zone=asked.zone, order=asked.date_order, unit=asked.unit, columns=columns, sheet=asked.sheet
    )


def _probes(file: LoggerFile, named: list[str]) -> dict[int, Probe]:
    """The probe of each sensor of the file that one is named for, by the sensor's place."""
    if len(file.sensors) == 1 and len(named) == 1 and "=" not in named[0]:
        return {0: probe_called(named[0])}
    places = {sensor.name.casefold(): place for place, sensor in enumerate(file.sensors)}
    found = {}
    for line in named:
        sensor, parted, probe = line.rpartition("=")
        place = places.get(sensor.strip().casefold())
        if not parted or place is None:
            names = ", ".join(f'"{own.name}"' for own in file.sensors)
            raise NotPlausible(
                "probe", f"the file is of the sensors {names}: say --probe SENSOR=NAME for each"
            )
        found[place] = probe_called(probe.strip())
    return found


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
