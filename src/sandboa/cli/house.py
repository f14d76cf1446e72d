"""`sandboa import`, `export`: readings and whole houses in and out, from the command line."""

import argparse
import csv
import sys
import time
from datetime import UTC, datetime
from pathlib import Path
from typing import Final

import platformdirs

from sandboa.cli.told import said
from sandboa.core.errors import NotPlausible
from sandboa.formats.data_package import PackageError, read_package, write_package
from sandboa.formats.readings_csv import Choices, NotReadable, read_readings
from sandboa.records import readings
from sandboa.records.database import nothing_half_made, only_server, open_database
from sandboa.records.house import Probe, named
from sandboa.services.readings.commands import store_readings

DATABASE: Final = "house.sqlite3"


def add_to(commands: "argparse._SubParsersAction[argparse.ArgumentParser]") -> None:
    taking = commands.add_parser(
        "import",
        help="store a logger's CSV file as readings of a probe, or a whole house's package",
    )
    taking.add_argument("file", type=Path, metavar="FILE.csv|HOUSE.zip")
    taking.add_argument("--probe", help="name of a probe the house knows; for a CSV file")
    taking.add_argument("--zone", help="zone of times without offset, like Europe/Berlin")
    taking.add_argument("--date-order", choices=("dmy", "mdy"))
    giving = commands.add_parser(
        "export", help="print a probe's readings as CSV, or write the whole house as a package"
    )
    what = giving.add_mutually_exclusive_group(required=True)
    what.add_argument("--probe")
    what.add_argument("--package", type=Path, metavar="HOUSE.zip")
    for command, run in ((taking, run_import), (giving, run_export)):
        add_data_folder(command)
        command.set_defaults(run=run)


def add_data_folder(command: argparse.ArgumentParser) -> None:
    """Add --data, the folder of the house."""
    usual = platformdirs.user_data_path("sandboa")
    command.add_argument(
        "--data", type=Path, default=Path(said("DATA") or usual),
        help=f"the house's folder (or SANDBOA_DATA); {usual} unless told otherwise",
    )  # fmt: skip


def run_import(asked: argparse.Namespace) -> int:
    """Store what can be read, list what cannot; exits 1 when rows were left out.

    A package goes into an empty house, whole or not at all.
    """
    if asked.file.suffix.lower() == ".zip":
        return _import_package(asked)
    if asked.probe is None:
        raise NotPlausible("probe", "whose readings are these? Name the probe with --probe")
    probe = _open_at_probe(asked)
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


def run_export(asked: argparse.Namespace) -> int:
    """Print time (RFC 3339), °C and humidity 0-1; or write the whole house as a package."""
    if asked.package is not None:
        return _export_package(asked)
    probe = _open_at_probe(asked)
    out = csv.writer(sys.stdout, lineterminator="\n")
    out.writerow(["time", "temperature_c", "humidity"])
    for at_s, temperature_c, humidity in readings.all_of(probe.entity_id):
        at = datetime.fromtimestamp(at_s, UTC).isoformat()
        out.writerow([at, temperature_c, "" if humidity is None else humidity])
    return 0


def _export_package(asked: argparse.Namespace) -> int:
    """Write the package aside and then into place; never over an existing file."""
    target: Path = asked.package
    if target.exists():
        raise NotPlausible("package", f"{target} exists already")
    open_database(existing(asked))
    partial = target.with_name(f"{target.name}.part")
    try:
        rows = write_package(partial, time.time())
        partial.rename(target)
    except (OSError, PackageError) as error:
        partial.unlink(missing_ok=True)
        why = getattr(error, "strerror", None) or error
        raise NotPlausible("package", f"{target}: {why}") from error
    print(f"{sum(rows.values())} rows of {len(rows)} tables written to {target}")
    return 0


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


def existing(asked: argparse.Namespace) -> Path:
    """The database in the folder asked for; NotPlausible when there is none."""
    path: Path = asked.data / DATABASE
    if not path.is_file():
        raise NotPlausible("data", f"there is no house in {asked.data}")
    return path


def _open_at_probe(asked: argparse.Namespace) -> Probe:
    open_database(existing(asked))
    probe = named(Probe, asked.probe)
    if probe is None:
        known = ", ".join(sorted(p.name for p in Probe.current())) or "none yet"
        raise NotPlausible(
            "probe", f'no probe "{asked.probe[:60]}" in this house; there is: {known}'
        )
    return probe
