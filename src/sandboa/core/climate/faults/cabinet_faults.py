"""Faults of the whole cabinet: power, door, fan, thermostat."""

from collections.abc import Iterator
from typing import Final

import numpy as np

from sandboa.core.climate.faults.grid import Grid, joined, runs
from sandboa.core.climate.faults.kinds import Fault, FaultKind
from sandboa.core.climate.faults.known import column_highest, column_mean, lowest, median
from sandboa.core.climate.faults.rules import DEFAULT_FAULTS, FaultRules
from sandboa.core.units import SECONDS_PER_HOUR

#: °C below usual where a fall begins and where it is over (assumption).
_EDGE_C: Final = 0.2
#: Share of a power cut in which even the warmest shelf is low (assumption).
_MOST_OF_IT: Final = 0.5
#: °C lost in the first 10 minutes when the door opens (assumption).
_DOOR_FALL_C: Final = 0.9
#: Share of a window left aside at either end, and what is left of a sawtooth's height then.
_OUTERMOST: Final = 0.08
_MIDDLE: Final = 0.9
#: The same of each half of a window alone (assumption: a swing may lie across the middle).
_HALF: Final = 0.8
#: Swings that a window holds at least, and its h.
_SWINGS: Final = 3
_WINDOW_HOURS: Final = 6.0


def falls(grid: Grid, rules: FaultRules = DEFAULT_FAULTS) -> Iterator[Fault]:
    """Times when all shelves were too cold at once: a power cut, or a door left open.

    A door takes the humidity with it and is fast; without power it goes
    slowly, and the air keeps its humidity. Where humidity is not known the
    speed decides.
    """
    air = grid.off_c[grid.air()] if grid.air().any() else grid.off_c
    warmest, usual = column_highest(air), column_mean(air)
    with np.errstate(invalid="ignore"):
        low = joined((usual < -_EDGE_C) & grid.settled, 1)
    for start, end in runs(low):
        open_door = _went_with_the_air(grid, air, (start, end), rules)
        kind, level = (
            (FaultKind.DOOR, usual[start:end]) if open_door
            else (FaultKind.POWER_CUT, warmest[start:end])
        )  # fmt: skip
        least_c, least_s = (
            (rules.door_c, rules.door_s) if open_door else (rules.power_c, rules.power_s)
        )
        if np.isnan(level).all() or -lowest(level) < least_c:
            continue
        with np.errstate(invalid="ignore"):
            lasted_s = float((level < -least_c / 2).sum() * grid.step_s)
        # Without power no shelf stays warm: a fan that starts again cools the top for an hour too.
        whole_s = (end - start) * grid.step_s if not open_door else 0.0
        if lasted_s >= max(least_s, _MOST_OF_IT * whole_s):
            yield _told(grid, kind, start, end, grid.names)


def parted(grid: Grid, rules: FaultRules = DEFAULT_FAULTS) -> Iterator[Fault]:
    """Shelves drift apart while the warmest holds: nothing moves the air."""
    rows = np.flatnonzero(grid.air())
    if len(rows) < 2:
        return
    air = grid.off_c[rows]
    warmest, coldest = column_highest(air), -column_highest(-air)
    many = (~np.isnan(air)).sum(axis=0) >= 2
    with np.errstate(invalid="ignore"):
        apart = (
            (warmest - coldest > rules.apart_c) & (warmest > -rules.power_c) & many & grid.settled
        )
    apart = joined(apart, round(SECONDS_PER_HOUR / grid.step_s))
    told_until = 0
    for start, end in runs(apart):
        if (end - start) * grid.step_s < rules.apart_hours * SECONDS_PER_HOUR:
            continue
        # Back to where the shelves began to part: this often is when the fan stopped.
        with np.errstate(invalid="ignore"):
            while (
                start > told_until and warmest[start - 1] - coldest[start - 1] > rules.apart_c / 3
            ):
                start -= 1
        if told_until and start <= told_until:
            continue  # the shelves never came back together: one fault, told already
        told_until = end
        part = air[:, start:end]
        with np.errstate(invalid="ignore"):
            moved = column_highest(np.abs(part).T) > rules.apart_c / 2
        names = tuple(grid.names[row] for row in rows[moved])
        yield _told(grid, FaultKind.FAN, start, end, names)


def sawtooth(grid: Grid, rules: FaultRules = DEFAULT_FAULTS) -> Iterator[Fault]:
    """The thermostat drives the air far up and down, again and again."""
    rows = np.flatnonzero(grid.air())
    wide = round(_WINDOW_HOURS * SECONDS_PER_HOUR / grid.step_s)
    if not len(rows) or len(grid.times_s) < wide:
        return
    swinging = np.array([_swings(grid.off_c[row], wide, rules.sawtooth_c) for row in rows])
    flags = joined(swinging.any(axis=0) & grid.settled, wide)
    for start, end in runs(flags):
        moved = swinging[:, start:end].any(axis=1)
        names = tuple(grid.names[row] for row in rows[moved])
        yield _told(grid, FaultKind.OVERSHOOT, start, end, names)


def _swings(off: np.ndarray, wide: int, high_c: float) -> np.ndarray:
    """Whether a probe's readings go up and down by more than `high_c` several times around each
    point.

    Its outermost parts are left aside: one open door is no sawtooth.
    """
    flags = np.zeros(len(off), dtype=bool)
    worth = np.flatnonzero(_may_swing(off, wide, high_c))
    if not len(worth):
        return flags
    windows = np.lib.stride_tricks.sliding_window_view(off, wide)[worth]
    known = ~np.isnan(windows).any(axis=1)
    high, low = np.quantile(
        np.where(known[:, None], windows, 0.0), (1.0 - _OUTERMOST, _OUTERMOST), axis=1
    )
    # It goes on all the time: a fall that fills one half of the window is something else.
    half = wide // 2
    lively = (np.ptp(windows[:, :half], axis=1) > _HALF * high_c) & (
        np.ptp(windows[:, half:], axis=1) > _HALF * high_c
    )
    third = (high - low) / 3.0
    # A swing counts when it goes from the upper third to the lower and back.
    state = np.where(windows > (high - third)[:, None], 1, 0)
    state = np.where(windows < (low + third)[:, None], -1, state)
    held = np.zeros(len(windows))
    changes = np.zeros(len(windows))
    for column in range(wide):
        now = state[:, column]
        changes += (now != 0) & (held != 0) & (now != held)
        held = np.where(now != 0, now, held)
    bad = known & lively & (high - low > _MIDDLE * high_c) & (changes > 2 * _SWINGS - 2)
    for start in worth[bad]:
        flags[start : start + wide] = True
    return flags


def _may_swing(off: np.ndarray, wide: int, high_c: float) -> np.ndarray:
    """Windows (by their first point) whose halves both range wide enough for a sawtooth at all.

    What is worked out of a window costs a hundred times as much as its range,
    and a steady cabinet has no window worth it.
    """
    half, count = wide // 2, len(off) - wide + 1
    with np.errstate(invalid="ignore"):
        first, second = (
            _running(off, size, np.maximum) - _running(off, size, np.minimum) > _HALF * high_c
            for size in (half, wide - half)
        )
    return np.asarray(first[:count] & second[half : half + count])


def _running(off: np.ndarray, size: int, pick: np.ufunc) -> np.ndarray:
    """`pick` over each `size` neighbours, by doubling; NaN where any of them is."""
    reached, length = off, 1
    while 2 * length <= size:
        reached = pick(reached[:-length], reached[length:])
        length *= 2
    rest = size - length
    return np.asarray(pick(reached[: len(reached) - rest], reached[rest:]) if rest else reached)


def _went_with_the_air(
    grid: Grid, air: np.ndarray, span: tuple[int, int], rules: FaultRules
) -> bool:
    """Whether humidity fell away at the start, or, not knowing it, the temperature did at once."""
    start, end = span
    before = slice(max(0, start - 13), max(1, start - 1))
    soon = slice(start, min(end, start + max(4, round(1200 / grid.step_s))))
    humid = grid.humidity[grid.air()]
    if len(humid) and not np.isnan(humid[:, before]).all() and not np.isnan(humid[:, soon]).all():
        lost = median(humid[:, before]) - lowest(column_mean(humid[:, soon]))
        return bool(lost > rules.door_humidity)
    warmest = column_highest(air)
    first = warmest[start : min(end, start + max(2, round(600 / grid.step_s)))]
    return bool(-lowest(first) > _DOOR_FALL_C)


def _told(grid: Grid, kind: FaultKind, start: int, end: int, names: tuple[str, ...]) -> Fault:
    rows = [grid.names.index(name) for name in names]
    off = grid.off_c[rows][:, start:end]
    hours = grid.step_s / SECONDS_PER_HOUR
    ongoing = end >= len(grid.times_s)
    known = off[~np.isnan(off)]
    largest = float(known[int(np.abs(known).argmax())]) if len(known) else 0.0
    return Fault(
        kind,
        float(grid.times_s[start]),
        None if ongoing else float(grid.times_s[end]),
        names,
        degree_hours=float(np.nansum(np.abs(column_mean(off))) * hours),
        largest_c=largest,
    )
