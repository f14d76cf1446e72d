"""What no single hour shows: a place off its target for days, a slow rise, air that grew dry."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from sandboa.core.climate.rules import DEFAULT_CLIMATE, ClimateRules
from sandboa.core.development.clock import FloatArray
from sandboa.core.development.reading_series import ReadingSeries
from sandboa.core.development.sources import SetPoints
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR

#: Days back that are looked at, in spans of 24 h that end now.
DAYS_BACK: Final = 21
#: Days in a row off its target from which a place is told (assumption: longer than a cold spell of
#: the room).
LASTING_OFF_DAYS: Final = 3
#: Days over which a place warms or cools slowly, how many of them must be measured, and the share
#: of their variation a straight line explains (assumption).
SLOW_CHANGE_DAYS: Final = 14
SLOW_CHANGE_KNOWN_DAYS: Final = 10
SLOW_CHANGE_EXPLAINED: Final = 0.6
#: h for which the air in a box must be dry to be told (assumption).
DRY_BOX_HOURS: Final = 3.0
#: Days before the last that make what was usual, and how many of them must be measured.
_USUAL_DAYS: Final = 7
_USUAL_KNOWN: Final = 4
#: h with a reading that make a day measured.
_HOURS_OF_DAY: Final = 12


@dataclass(frozen=True, slots=True)
class LastingOff:
    """A place off its target by `off_c` (mean, °C; above 0 too warm) for `days` in a row."""

    off_c: float
    days: int


@dataclass(frozen=True, slots=True)
class HumidityFall:
    """Relative humidity (0-1) of the week before, and of the last 24 h."""

    before: float
    now: float


def days_off(series: ReadingSeries, set_points: SetPoints, now_s: float) -> FloatArray:
    """Mean °C off the set point of each 24 h before `now_s`, the latest first, shape (DAYS_BACK,).

    NaN for a day with readings in fewer than 12 of its hours, and for days the
    cabinet was still set to something else.
    """
    changed_s = set_points.from_s[-1] if len(set_points.from_s) > 1 else -np.inf
    days = _by_day(series.times_s, series.temperature_c, now_s) - set_points.at(now_s)
    begins_s = now_s - SECONDS_PER_DAY * np.arange(1, DAYS_BACK + 1)
    days[begins_s < changed_s] = np.nan
    return days


def lasting_off(days: FloatArray, rules: ClimateRules = DEFAULT_CLIMATE) -> LastingOff | None:
    """The run of days, up to the latest, each off the target the same way; None under 3 of them.

    `days` as `days_off` tells them. A day nobody measured ends the run. Source: rule E
    ("target ±0.5 °C fine"), limits above.
    """
    side = np.where(days >= rules.lasting_off_c, 1, np.where(days <= -rules.lasting_off_c, -1, 0))
    if not side[0]:
        return None
    others = np.flatnonzero(side != side[0])
    run = int(others[0]) if len(others) else len(days)
    if run < LASTING_OFF_DAYS:
        return None
    return LastingOff(float(days[:run].mean()), run)


def slow_change_c(days: FloatArray, rules: ClimateRules = DEFAULT_CLIMATE) -> float | None:
    """°C a place warmed (below 0: cooled) over two weeks in about a straight line; None if not.

    `days` as `days_off` tells them. A step of one night is no slow change: a
    line explains too little of it.
    """
    recent = days[:SLOW_CHANGE_DAYS]
    known = np.flatnonzero(~np.isnan(recent))
    if len(known) < SLOW_CHANGE_KNOWN_DAYS:
        return None
    age, off = -known.astype(float), recent[known]
    slope, level = np.polyfit(age, off, 1)
    spread = float(((off - off.mean()) ** 2).sum())
    left = float(((off - slope * age - level) ** 2).sum())
    change = float(slope) * (SLOW_CHANGE_DAYS - 1)
    if abs(change) < rules.slow_change_c or left > (1.0 - SLOW_CHANGE_EXPLAINED) * spread:
        return None
    return change


def humidity_fall(
    times_s: FloatArray,
    humidity: FloatArray,
    now_s: float,
    rules: ClimateRules = DEFAULT_CLIMATE,
) -> HumidityFall | None:
    """Whether the air of the last 24 h is far drier than that of the week before; None if not.

    `times_s` (s, rising) and `humidity` (0-1, NaN unknown) have shape (n,). What a sensor
    says from where it is "saturated" on counts as that.
    """
    known = ~np.isnan(humidity)
    days = _by_day(times_s[known], np.minimum(humidity[known], rules.saturated_humidity), now_s)
    week = days[1 : 1 + _USUAL_DAYS]
    week = week[~np.isnan(week)]
    if np.isnan(days[0]) or len(week) < _USUAL_KNOWN:
        return None
    before = float(np.median(week))
    fell = before - float(days[0]) >= rules.humidity_fall
    return HumidityFall(before, float(days[0])) if fell else None


def dry_air_in_box(
    times_s: FloatArray,
    humidity: FloatArray,
    now_s: float,
    rules: ClimateRules = DEFAULT_CLIMATE,
) -> float | None:
    """Mean relative humidity (0-1) in a box over the last 3 h where below 90 %; None if not.

    `times_s` (s, rising) and `humidity` (0-1, NaN unknown) have shape (n,). The
    readings must span most of the 3 h: a lid just lifted is not a dry box.
    """
    inside = (times_s > now_s - DRY_BOX_HOURS * SECONDS_PER_HOUR) & (times_s <= now_s)
    inside &= ~np.isnan(humidity)
    times, values = times_s[inside], humidity[inside]
    if not len(times) or times[-1] - times[0] < 0.8 * DRY_BOX_HOURS * SECONDS_PER_HOUR:
        return None
    mean = float(values.mean())
    return mean if values.max() < rules.dry_box_below else None


def _by_day(times_s: FloatArray, values: FloatArray, now_s: float) -> FloatArray:
    """Mean of each of the last days, the latest first; NaN where fewer than 12 h have a reading."""
    hour = np.floor((now_s - times_s) / SECONDS_PER_HOUR).astype(int)
    inside = (hour >= 0) & (hour < 24 * DAYS_BACK)
    counted = np.bincount(hour[inside], minlength=24 * DAYS_BACK)
    total = np.bincount(hour[inside], values[inside], 24 * DAYS_BACK)
    hourly = np.where(counted > 0, total / np.maximum(counted, 1), 0.0).reshape(DAYS_BACK, 24)
    hours = (counted > 0).reshape(DAYS_BACK, 24).sum(axis=1)
    days: FloatArray = np.full(DAYS_BACK, np.nan)
    enough = hours >= _HOURS_OF_DAY
    days[enough] = hourly[enough].sum(axis=1) / hours[enough]
    return days
