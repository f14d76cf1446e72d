"""The condition the house itself is in: damage, clock, disk, backups; as troubles for the watch."""

import shutil
from collections.abc import Iterator
from pathlib import Path
from typing import Final

from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records import readings
from sandboa.records.database import house_file
from sandboa.records.facts import first_recorded_s, last_recorded_s
from sandboa.records.machine import machine_setting, set_machine_setting
from sandboa.services.alarms.trouble import Severity, Trouble
from sandboa.services.safekeeping.backups import MISSED_S, backup_folder, backup_missed_s

#: Bytes free on the house's disk below which a keeper is told: a season of minutes and photos
#: needs about as much (assumption).
LITTLE_SPACE: Final = 300 * 2**20
#: s by which the clock may be behind the newest record before it is wrong: phones and time servers
#: differ by some (assumption).
CLOCK_OFF_S: Final = 600.0
_NO_BACKUP: Final = "no backup"
_SINCE: Final = "backups since"
_CLOCK: Final = "clock behind"
_DISK: Final = "disk nearly full"
_CHANGED: Final = "record changed"


def house_troubles(
    now_s: float, named: Path | None, problems: tuple[str, ...]
) -> Iterator[Trouble]:
    """What is wrong with the house itself; `problems` are those the last night found."""
    if first_recorded_s() is not None:
        missed_s = backup_missed_s(now_s, _asked_for_since_s(now_s))
        if missed_s is not None:
            days, folder = MISSED_S / SECONDS_PER_DAY, backup_folder(named)
            yield _trouble(
                _NO_BACKUP,
                f"no backup for {days:g} days: is {folder} there?",
                missed_s,
            )
    ahead_s = clock_behind_s(now_s)
    if ahead_s > 0.0:
        yield _trouble(
            _CLOCK,
            f"the computer's clock is {_span(ahead_s)} behind what is recorded already: "
            "set it right before anything is entered",
            now_s,
        )
    free = shutil.disk_usage(house_file().parent).free
    if free < LITTLE_SPACE:
        yield _trouble(_DISK, f"the house's disk has {free / 2**20:.0f} MB left: make room", now_s)
    if problems:
        more = f" and {len(problems) - 1} more" if len(problems) > 1 else ""
        yield _trouble(
            _CHANGED, f"what is recorded was changed from outside: {problems[0]}{more}", now_s
        )


def _asked_for_since_s(now_s: float) -> float:
    """Since when backups can be expected here (s): an old house may be new to this machine."""
    noted = machine_setting(_SINCE)
    if noted is None:
        set_machine_setting(_SINCE, str(int(now_s)))
        return now_s
    return float(noted)


def clock_behind_s(now_s: float) -> float:
    """By how much the clock is behind the newest thing recorded (s); 0 when it is not."""
    newest = [at_s for at_s in (last_recorded_s(), readings.newest_received_s()) if at_s]
    behind_s = max(newest, default=now_s) - now_s
    return behind_s if behind_s > CLOCK_OFF_S else 0.0


def _trouble(kind: str, text: str, began_s: float) -> Trouble:
    return Trouble(kind, Severity.ALARM, None, None, text, began_s)


def _span(span_s: float) -> str:
    hours = span_s / 3_600.0
    return f"{hours:.0f} h" if hours < 48 else f"{hours / 24:.0f} days"
