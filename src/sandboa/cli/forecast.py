"""`sandboa forecast`: the Bench's numbers for people who script."""

import argparse
import json
import sys
import time
from dataclasses import fields
from datetime import UTC, datetime, tzinfo
from pathlib import Path
from zoneinfo import ZoneInfo, available_timezones

from sandboa.core.clutch_count import clutch_count
from sandboa.core.development import Forecast, Window, forecast
from sandboa.core.development.basis import rests_on
from sandboa.core.development.bench import BenchClutch, ReadingRow, curve_from
from sandboa.core.development.none_alive import developed_words, late_words
from sandboa.core.errors import NotPlausible
from sandboa.core.units import SET_POINT_RANGE_C, parse_temperature, require_moment, require_range

_WINDOWS = ("first_pip", "typical_pip", "last_pip", "next_out", "all_out")


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    command.add_argument("--laid", required=True, metavar="TIME", help="with offset, RFC 3339")
    command.add_argument("--set-point", required=True, metavar="31.5C", help="with C or F")
    command.add_argument("--eggs", required=True, type=int, help="eggs expected to pip")
    command.add_argument("--readings", metavar="FILE", help="readings of the box: CSV, XLSX or ODS")
    command.add_argument(
        "--as-of", metavar="TIME", help="stand at this moment (now); no egg has pipped by then"
    )
    command.add_argument("--zone", help="zone of times without offset in FILE, like Europe/Berlin")
    command.add_argument("--date-order", choices=("dmy", "mdy"), help="order of 03/04 in FILE")
    command.add_argument("--json", action="store_true", help="print JSON")


def run(asked: argparse.Namespace) -> int:
    """Print the forecast; numbers are those of Bench and Clutch for the same input."""
    laid = _moment("--laid", asked.laid)
    as_of = (
        _moment("--as-of", asked.as_of) if asked.as_of else datetime.fromtimestamp(time.time(), UTC)
    )
    if as_of < laid:
        raise NotPlausible(
            "as_of", f"laid {asked.laid} is after {'--as-of' if asked.as_of else 'now'}"
        )
    set_point_c = parse_temperature(asked.set_point)
    require_range("set point", set_point_c, SET_POINT_RANGE_C, "°C")
    clutch_count(asked.eggs)
    rows = _readings(asked, laid) if asked.readings else []
    curve = curve_from(
        BenchClutch(laid.timestamp(), as_of.timestamp(), set_point_c, asked.eggs, rows)
    )
    made = forecast(curve, asked.eggs)
    zone = laid.tzinfo or UTC
    if asked.json:
        print(json.dumps(_as_json(made, zone, as_of)))
    else:
        print(_as_text(made, zone, rests_on(curve)))
    return 0


def _moment(option: str, text: str) -> datetime:
    try:
        moment = datetime.fromisoformat(text)
    except ValueError as error:
        raise NotPlausible(
            option, f'{option} "{text[:40]}" is not a time like 2026-03-01T09:00+00:00'
        ) from error
    if moment.tzinfo is None:
        raise NotPlausible(option, f"{option} {text} needs its offset, like {text}+00:00")
    require_moment(option, moment.timestamp())
    return moment


def _readings(asked: argparse.Namespace, laid: datetime) -> list[ReadingRow]:
    # Reading files brings much along that a forecast from a set point does without.
    from sandboa.formats.logger_files import (
        LARGEST_FILE_BYTES,
        Choices,
        NotReadable,
        read_logger_file,
    )

    path = Path(asked.readings)
    if asked.zone is not None and asked.zone not in available_timezones():
        raise NotPlausible("--zone", f'--zone "{asked.zone[:40]}" is not a time zone')
    try:
        if path.stat().st_size > LARGEST_FILE_BYTES:
            raise NotReadable(f"larger than {LARGEST_FILE_BYTES / 1e6:.0f} MB")
        zone: tzinfo | None = ZoneInfo(asked.zone) if asked.zone else laid.tzinfo
        file = read_logger_file(path.read_bytes(), Choices(zone=zone, order=asked.date_order))
        file.require_no_questions()
        rows = file.rows
    except OSError as error:
        raise NotPlausible("--readings", f"{path.name}: {error.strerror or error}") from error
    except NotReadable as error:
        hint = " (use --date-order dmy or mdy)" if "April" in str(error) else ""
        raise NotPlausible("--readings", f"{path.name}: {error}{hint}") from error
    if not file.times_have_offset and not asked.zone:
        sys.stderr.write(
            f"sandboa forecast: times in {path.name} carry no offset, taken as that of --laid\n"
        )
    for bad in file.bad_rows[:10]:
        sys.stderr.write(f"sandboa forecast: {path.name} line {bad.line} left out: {bad.reason}\n")
    if len(file.bad_rows) > 10:
        sys.stderr.write(f"sandboa forecast: and {len(file.bad_rows) - 10} more lines left out\n")
    return rows


def _as_json(made: Forecast, zone: tzinfo, as_of: datetime) -> dict[str, object]:
    told: dict[str, object] = {
        "as_of": as_of.astimezone(zone).isoformat(timespec="seconds"),
        "day": round(made.day, 4),
        "development": round(made.development, 6),
        "measured_share": round(made.measured_share, 6),
        "none_alive": round(made.none_alive, 4),
        "overdue": made.overdue,
    }
    for name in _WINDOWS:
        window: Window | None = getattr(made, name)
        told[name] = window and {
            f.name: _time(getattr(window, f.name), zone) for f in fields(Window)
        }
    return told


def _as_text(made: Forecast, zone: tzinfo, basis: str) -> str:
    lines = [f"day {made.day:.1f}, {developed_words(made.development)} developed", basis]
    late = late_words(made.none_alive, made.rules)
    if late is not None:
        lines.append(late)
    if made.overdue:
        return "\n".join(lines)
    for name in _WINDOWS:
        window: Window | None = getattr(made, name)
        label = f"{name.replace('_', ' ')}:"
        if window is None:
            lines.append(f"{label:<13} never at this temperature")
        else:
            lines.append(
                f"{label:<13} {_short(window.p50, zone)}   "
                f"50 % {_short(window.p25, zone)} to {_short(window.p75, zone)}   "
                f"80 % {_short(window.p10, zone)} to {_short(window.p90, zone)}"
            )
    return "\n".join(lines)


def _time(at_s: float, zone: tzinfo) -> str:
    return datetime.fromtimestamp(round(at_s), zone).isoformat(timespec="seconds")


def _short(at_s: float, zone: tzinfo) -> str:
    return datetime.fromtimestamp(at_s, zone).strftime("%d %b %Y %H:%M")
