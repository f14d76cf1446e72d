"""What changes over weeks: a sensor that drifts, and eggs that warm their box."""

from collections.abc import Iterator
from typing import Final

import numpy as np

from sandboa.core.climate.faults.grid import Grid
from sandboa.core.climate.faults.kinds import Fault, FaultKind
from sandboa.core.climate.faults.rules import DEFAULT_FAULTS, FaultRules
from sandboa.core.development.clock import FloatArray
from sandboa.core.units import SECONDS_PER_DAY

#: days (1 sd) of the bump in which eggs' heat grows (assumption: from oxygen use, rule F).
_BUMP_DAYS: Final = (8.0, 11.0, 14.0)
#: Share of the variation that a shape must explain before it is believed (assumption).
_EXPLAINED: Final = 0.8
_FEWEST_DAYS: Final = 12


def slow_changes(
    grid: Grid, distance_c: FloatArray, rules: FaultRules = DEFAULT_FAULTS
) -> Iterator[Fault]:
    """Drift and eggs' heat, probe by probe, from daily means.

    Parameters: `distance_c`, °C from the set point, (probes, n) as the grid's.

    Each probe is held against the median of the others, or against the set
    point when it is alone. A drifting sensor goes on in a straight line;
    eggs warm their place in a bump that grows over weeks and ends when they
    hatch. Both shapes are fitted; the better one is told, if it explains most.
    """
    days, daily = _daily(grid, distance_c)
    if len(days) < _FEWEST_DAYS:
        return
    daily = daily - _level(daily)[:, None]
    believed = np.ones(len(daily), dtype=bool)
    while True:
        told = [
            (fault, row)
            for row in np.flatnonzero(believed).tolist()
            if (fault := _of_probe(grid, (days, daily), row, believed, rules)) is not None
        ]
        if not told:
            return
        # The largest change explains the others' apparent ones: its probe vouches for none.
        fault, row = max(told, key=lambda pair: abs(pair[0].largest_c))
        believed[row] = False
        yield fault


def _of_probe(
    grid: Grid,
    by_day: tuple[FloatArray, FloatArray],
    row: int,
    believed: np.ndarray,
    rules: FaultRules,
) -> Fault | None:
    """What changed slowly in one probe, held against the others and the set point."""
    days, daily = by_day
    others = believed.copy()
    others[row] = False
    # The set point vouches too: distances from it are held against a change of nought.
    held = np.vstack([daily[others], np.zeros((1, len(days)))])
    held = np.where(np.isnan(held), 0.0, held)
    own = daily[row] - np.median(held, axis=0)
    known = ~np.isnan(own)
    if known.sum() < _FEWEST_DAYS:
        return None
    may_be_eggs = bool(grid.in_box[row]) or grid.shelf[row] > 1
    return next(_shape(grid.names[row], days[known], own[known], may_be_eggs, rules), None)


def _level(daily: FloatArray) -> FloatArray:
    """Each probe's level in its first days, 0 where it has none."""
    level = np.zeros(len(daily))
    for row, values in enumerate(daily):
        known = values[~np.isnan(values)][:10]
        if len(known):
            level[row] = float(np.median(known))
    return level


def _shape(
    name: str, days: FloatArray, own: FloatArray, may_be_eggs: bool, rules: FaultRules
) -> Iterator[Fault]:
    spread = float(((own - own.mean()) ** 2).sum())
    if spread <= 0:
        return
    ramp_left, ramp_c, ramp_from = _best_ramp(days, own, round(rules.drift_days))
    bump_left, bump_c, bump_at, bump_sd = _best_bump(days, own)
    eggs = may_be_eggs and rules.egg_heat_low_c <= bump_c <= rules.egg_heat_high_c
    if eggs and bump_left < ramp_left and 1.0 - bump_left / spread >= _EXPLAINED:
        start = max(days[0], bump_at - 1.9 * bump_sd)
        ended = days[-1] > bump_at + 1.2 * bump_sd
        yield Fault(
            FaultKind.EGG_HEAT,
            float(start * SECONDS_PER_DAY),
            float((bump_at + bump_sd) * SECONDS_PER_DAY) if ended else None,
            (name,),
            largest_c=bump_c,
        )
    elif (
        abs(ramp_c) >= rules.drift_c
        and days[-1] - ramp_from >= rules.drift_days
        and ramp_left <= bump_left
        and 1.0 - ramp_left / spread >= _EXPLAINED
    ):
        yield Fault(
            FaultKind.DRIFT,
            float(ramp_from * SECONDS_PER_DAY),
            None,
            (name,),
            largest_c=ramp_c,
        )


def _best_ramp(days: FloatArray, own: FloatArray, least_days: int) -> tuple[float, float, float]:
    """Level, then a straight line from some day on: what is left, total change, that day."""
    best = (np.inf, 0.0, float(days[0]))
    for start in days[:-least_days]:
        shape = np.maximum(days - start, 0.0)
        left, slope = _fit(shape, own)
        if left < best[0]:
            best = (left, slope * float(shape[-1]), float(start))
    return best


def _best_bump(days: FloatArray, own: FloatArray) -> tuple[float, float, float, float]:
    """Level plus a bump: what is left, its height so far, its middle and its sd in days."""
    best = (np.inf, 0.0, float(days[-1]), _BUMP_DAYS[0])
    for sd in _BUMP_DAYS:
        for middle in np.arange(days[0] + sd, days[-1] + sd, 1.0):
            shape = np.exp(-(((days - middle) / sd) ** 2) / 2.0)
            # The eggs hatch soon after their heat is greatest: then it is over.
            shape[days > middle + 1.1 * sd] = 0.0
            left, height = _fit(shape, own)
            if left < best[0]:
                best = (left, height * float(shape.max() - shape[0]), float(middle), sd)
    return best


def _fit(shape: FloatArray, own: FloatArray) -> tuple[float, float]:
    """Least squares of level + factor * shape: what is left over, and the factor."""
    x, y = shape - shape.mean(), own - own.mean()
    power = float(x @ x)
    factor = float(x @ y) / power if power > 0 else 0.0
    return float(((y - factor * x) ** 2).sum()), factor


def _daily(grid: Grid, distance_c: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Days since the epoch, and each probe's mean of the day; NaN with less than half a day."""
    day = (grid.times_s // SECONDS_PER_DAY).astype(int)
    first, count = int(day[0]), int(day[-1] - day[0]) + 1
    fewest = 0.5 * SECONDS_PER_DAY / grid.step_s
    daily = np.full((len(distance_c), count), np.nan)
    for row, values in enumerate(distance_c):
        known = ~np.isnan(values) & grid.settled & (np.abs(grid.off_c[row]) < 1.0)
        counted = np.bincount(day[known] - first, minlength=count)
        total = np.bincount(day[known] - first, values[known], count)
        enough = counted >= fewest
        daily[row, enough] = total[enough] / counted[enough]
    return first + 0.5 + np.arange(count, dtype=float), daily
