"""`sandboa export`: a probe's readings as CSV, or a whole house as a package."""

import argparse
import csv
import sys
import time
from datetime import UTC, datetime
from pathlib import Path

from sandboa.cli.house_folder import add_data_folder, existing
from sandboa.cli.probe import open_at_probe
from sandboa.core.errors import NotPlausible
from sandboa.formats.data_package import PackageError, write_package
from sandboa.records import readings
from sandboa.records.database import open_database


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    what = command.add_mutually_exclusive_group(required=True)
    what.add_argument("--probe", help="whose readings")
    what.add_argument("--package", type=Path, metavar="HOUSE.zip", help="write the whole house")
    add_data_folder(command)


def run(asked: argparse.Namespace) -> int:
    """Print time (RFC 3339), °C and humidity 0-1; or write the whole house as a package."""
    if asked.package is not None:
        return _export_package(asked)
    probe = open_at_probe(asked)
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
