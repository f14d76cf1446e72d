"""The air a box stood in, day by day: its own warmth, its cabinet's humidity."""

from collections.abc import Callable, Iterator
from typing import Final

import numpy as np

from sandboa.core.development import DevelopmentCurve
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.core.water.loss_curve import AirOfDay
from sandboa.services.probes.calibrated_readings import loggers_ever_at, with_humidity_offset
from sandboa.services.snapshot.snapshot import Snapshot

#: Days whose mean humidity stands for the days to come (assumption).
_RECENT_DAYS: Final = 7


def humidity_by_day(
    snapshot: Snapshot, cabinet: int, from_s: float, until_s: float
) -> dict[int, float]:
    """Mean relative humidity of the cabinet's air by UTC day (its start, s), offsets added.

    Of its own probe, else of one on a shelf, for the days it hung there.
    """
    shelves = sorted(s.entity_id for s in snapshot.shelves.values() if s.cabinet_id == cabinet)
    days = until_s // SECONDS_PER_DAY - from_s // SECONDS_PER_DAY + 1
    told: dict[int, float] = {}
    for place in (cabinet, *shelves):
        for probe in loggers_ever_at(snapshot, place):
            if len(told) == days:
                return told
            stays = snapshot.probe(probe.entity_id).locations
            for day, humidity in snapshot.readings.humidity.days(probe.entity_id, from_s, until_s):
                if day not in told and stays.at(day + SECONDS_PER_DAY / 2) == place:
                    told[day] = with_humidity_offset(snapshot, probe, humidity, day)
    return told


def box_air(
    curve: DevelopmentCurve,
    humidity: dict[int, float],
    unknown: float,
    from_s: float,
    until_s: float,
) -> list[AirOfDay]:
    """The box's air day by day; its mean temperature is what made its development.

    `unknown` is the humidity (0-1) where nothing measured it.
    """
    times, _, reached = curve.samples()

    def box_c(start_s: float, end_s: float) -> float:
        if end_s <= start_s or len(times) < 2:
            return curve.temperature.future_c
        gained = float(np.interp(end_s, times, reached) - np.interp(start_s, times, reached))
        rate = gained / (end_s - start_s) * SECONDS_PER_DAY
        return curve.clock.zero_c + rate * curve.clock.sum_c_days

    stretches = list(air_by_day(humidity, unknown, from_s, until_s, box_c))
    now = stretches[-1]
    ahead = AirOfDay(
        now.until_s,
        now.until_s + 1.0,
        curve.temperature.future_c,
        recent_humidity(humidity, until_s) or unknown,
    )
    return [*stretches, ahead]


def air_by_day(
    humidity: dict[int, float],
    unknown: float,
    from_s: float,
    until_s: float,
    box_c: Callable[[float, float], float],
) -> Iterator[AirOfDay]:
    """from..until cut at UTC midnights; a day nobody measured has the last known humidity."""
    known = unknown if not humidity else humidity[min(humidity)]
    start_s = from_s
    while True:
        day = int(start_s // SECONDS_PER_DAY * SECONDS_PER_DAY)
        known = humidity.get(day, known)
        end_s = min(day + SECONDS_PER_DAY, until_s)
        yield AirOfDay(start_s, max(end_s, start_s), box_c(start_s, end_s), known)
        if end_s >= until_s:
            return
        start_s = end_s


def recent_humidity(humidity: dict[int, float], as_of_s: float) -> float | None:
    """Mean of the last week's days, None where nothing measured."""
    from_s = as_of_s - (_RECENT_DAYS + 1) * SECONDS_PER_DAY
    days = [h for day, h in humidity.items() if from_s < day <= as_of_s]
    return sum(days) / len(days) if days else None
