"""Cold spells: when the box ran cold, and by how many days that moved the forecast."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from sandboa.core.development.curve import DevelopmentCurve
from sandboa.core.development.sources import SetPoints
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR

#: °C below which development is noticeably slow (rule E).
COLD_BELOW_C: Final = 27.0
#: s a spell must last to be told (assumption: shorter ones are an open door).
SHORTEST_SPELL_S: Final = 2.0 * SECONDS_PER_HOUR


@dataclass(frozen=True, slots=True)
class ColdSpell:
    """One spell below the limit. `delay_days` is how much later the pips come because of it."""

    start_s: float
    end_s: float
    lowest_c: float
    delay_days: float


def cold_spells(curve: DevelopmentCurve, set_points: SetPoints) -> tuple[ColdSpell, ...]:
    """Find the measured spells below 27 °C and what each cost, in order of time.

    The delay is the development missed against the set point in force, over
    the rate expected from now on: what the forecast gained in days, everything
    else the same. Spells less than 2 h apart count as one. Source: rule E.
    """
    times, values = _measured_samples(curve)
    if len(times) == 0:
        return ()
    cold = np.flatnonzero(values < COLD_BELOW_C)
    if len(cold) == 0:
        return ()
    breaks = np.flatnonzero(np.diff(times[cold]) > SHORTEST_SPELL_S) + 1
    spells = []
    for run in np.split(cold, breaks):
        start_s, end_s = float(times[run[0]]), float(times[run[-1]])
        if end_s - start_s >= SHORTEST_SPELL_S:
            spells.append(
                ColdSpell(
                    start_s,
                    end_s,
                    float(values[run].min()),
                    _delay(curve, set_points, start_s, end_s),
                )
            )
    return tuple(spells)


def _measured_samples(curve: DevelopmentCurve) -> tuple[np.ndarray, np.ndarray]:
    measured = [s for s in curve.temperature.stretches if s.measured]
    if not measured:
        return np.empty(0), np.empty(0)
    return (
        np.concatenate([s.times_s for s in measured]),
        np.concatenate([s.temperature_c for s in measured]),
    )


def _delay(curve: DevelopmentCurve, set_points: SetPoints, start_s: float, end_s: float) -> float:
    wanted = sum(
        float(curve.clock.rate_per_day(temperature_c)) * (right - left) / SECONDS_PER_DAY
        for left, right, temperature_c in set_points.pieces(start_s, end_s)
    )
    missed = wanted - (curve.at(end_s) - curve.at(start_s))
    expected = curve.future_rate_per_day or float(curve.clock.rate_per_day(set_points.at(end_s)))
    return missed / expected if expected > 0 else float("inf")
