"""Faults of a single probe: no readings, the same reading for hours, a step of its own."""

import math
from collections.abc import Iterator
from typing import Final

import numpy as np
from scipy.ndimage import maximum_filter1d

from sandboa.core.climate.faults.grid import Grid, joined, runs
from sandboa.core.climate.faults.kinds import Fault, FaultKind, ProbeRecord
from sandboa.core.climate.faults.known import mean, median
from sandboa.core.climate.faults.rules import DEFAULT_FAULTS, FaultRules
from sandboa.core.development.clock import FloatArray
from sandboa.core.development.sources import LOGGER_GAP_S
from sandboa.core.units import SECONDS_PER_HOUR

#: times the longest run of equal readings that chance makes likely (assumption).
_BEYOND_CHANCE: Final = 3.0
#: °C of any step of the others beside it (assumption).
_OTHERS_C: Final = 0.35
#: h a step must last, and s within which most of it happens (assumption).
_STEP_HOURS: Final = 2.0
_SHARP_S: Final = 900.0
#: Points of the grid whose median is a level: one odd reading moves none.
_LEVEL_POINTS: Final = 5
#: s after a step between which its new level has settled and is looked at (assumption).
_SETTLED_S: Final = (4_500.0, 14_400.0)
#: s for which a fallen probe may read as usual: a door stands open (assumption).
_DOOR_S: Final = 2_700.0
#: s within which air, and a box, may still answer to what moved the others (assumption).
_AIR_ANSWER_S: Final = 2_700.0
_BOX_ANSWER_S: Final = 21_600.0
#: Share of the change that must be there a step after half of it: less is a slide (assumption).
_AT_ONCE: Final = 0.85


def unplugged(probe: ProbeRecord, now_s: float) -> Iterator[Fault]:
    """Gaps of more than 2 h between readings, and since the last one."""
    if not len(probe.times_s):
        return
    ends = np.append(probe.times_s[1:], now_s)
    for at in np.flatnonzero(ends - probe.times_s > LOGGER_GAP_S).tolist():
        last = at == len(probe.times_s) - 1
        yield Fault(
            FaultKind.UNPLUGGED,
            float(probe.times_s[at]),
            None if last else float(ends[at]),
            (probe.name,),
        )


def stuck(probe: ProbeRecord, rules: FaultRules = DEFAULT_FAULTS) -> Iterator[Fault]:
    """Stretches in which temperature, and humidity where known, did not move by a digit.

    They must last some hours, and three times the longest run that this probe's
    usual changes make likely: a coarse sensor in a steady place stands still
    for a while too.
    """
    times = probe.times_s
    if len(times) < 10:
        return
    same = np.diff(probe.temperature_c) == 0.0
    humid = probe.humidity
    if not np.isnan(humid).all():
        same &= (np.diff(humid) == 0.0) | np.isnan(np.diff(humid))
    long = _likely_longest(same)
    for start, end in runs(same):
        lasted_s = float(times[end] - times[start])
        if lasted_s >= rules.stuck_hours * SECONDS_PER_HOUR and end - start > _BEYOND_CHANCE * long:
            ongoing = end == len(times) - 1
            yield Fault(
                FaultKind.STUCK,
                float(times[start]),
                None if ongoing else float(times[end]),
                (probe.name,),
            )


def fallen(grid: Grid, row: int, rules: FaultRules = DEFAULT_FAULTS) -> Iterator[Fault]:
    """A sharp step of one probe that stays, while no other moves: it lies elsewhere now."""
    off = grid.off_c[row]
    ahead = max(1, round(_SHARP_S / grid.step_s))
    step = _step(off, ahead)
    alone = _others_quiet(grid, row, ahead, rules.step_c)
    sharp = (np.abs(step) >= rules.step_c) & alone & grid.settled
    until = -1
    for start, end in runs(sharp):
        at = start + int(np.nanargmax(np.abs(step[start:end])))
        if at <= until:
            continue
        found = _stays(grid, row, at, float(step[at]), rules)
        if found is not None:
            yield found
            ended_s = found.end_s if found.end_s is not None else grid.times_s[-1]
            until = int(np.searchsorted(grid.times_s, ended_s)) + 2 * ahead


def _likely_longest(same: np.ndarray) -> float:
    """Longest run of equal steps that chance makes likely, from the usual share of equal ones."""
    # The usual share is taken outside the longest runs: a stuck day must not vouch for itself.
    lengths = np.array([end - start for start, end in runs(same)] or [0])
    usual = lengths[lengths <= np.quantile(lengths, 0.98)].sum() if len(lengths) > 20 else 0
    rest = len(same) - lengths.sum() + usual
    share = min(max(usual / rest if rest else 0.0, 0.05), 0.995)
    return math.log(max(len(same), 2)) / -math.log(share)


def _step(off: FloatArray, ahead: int) -> FloatArray:
    """Change of the level within `ahead` points: median of the next few minus that before."""
    wide = _LEVEL_POINTS
    n = len(off)
    step = np.full(n, np.nan)
    if n < 2 * wide + ahead:
        return step
    with np.errstate(invalid="ignore"):
        windows = np.lib.stride_tricks.sliding_window_view(off, wide)
        level = np.median(windows, axis=1)
        step[wide : n - wide - ahead + 1] = (
            level[wide + ahead :] - level[: n - 2 * wide - ahead + 1]
        )
    return step


def _others_quiet(grid: Grid, row: int, ahead: int, step_c: float) -> np.ndarray:
    others = [other for other in range(len(grid.names)) if other != row]
    quiet = np.ones(len(grid.times_s), dtype=bool)
    answer_s = _BOX_ANSWER_S if grid.in_box[row] else _AIR_ANSWER_S
    for other in others:
        with np.errstate(invalid="ignore"):
            quiet &= ~(np.abs(_step(grid.off_c[other], ahead)) > _OTHERS_C)
            # Shelves and boxes answer at their own pace: what moved others earlier moves this too.
            moved = np.abs(grid.off_c[other]) > step_c
            around = round(answer_s / grid.step_s)
            quiet &= ~maximum_filter1d(moved, 2 * around + 1)
    return quiet


def _stays(grid: Grid, row: int, at: int, size: float, rules: FaultRules) -> Fault | None:
    """The fault that begins with a step of `size` at `at`, or None when it goes back at once."""
    off = grid.off_c[row]
    hour = round(SECONDS_PER_HOUR / grid.step_s)
    before = median(off[max(0, at - hour) : at]) if at else 0.0
    level = before + size
    away = np.abs(off - before) > abs(size) / 2.0
    away &= np.sign(off - before) == np.sign(size)
    # An open door meanwhile does not hang it up again.
    away = joined(away | np.isnan(off), round(_DOOR_S / grid.step_s))
    # The step lies within the span it was measured over.
    soon_after = away[at : at + _LEVEL_POINTS + 1]
    first = at + int(np.argmax(soon_after)) if soon_after.any() else at
    after = np.flatnonzero(~away[first + 1 :])
    end = first + 1 + int(after[0]) if len(after) else None
    last = end if end is not None else len(off)
    if (last - first) * grid.step_s < _STEP_HOURS * SECONDS_PER_HOUR:
        return None
    settled, some_hours = (first + round(s / grid.step_s) for s in _SETTLED_S)
    later = off[settled : min(last, some_hours)]
    if len(later) and not np.isnan(later).all():
        reached = median(later) - before
        soon = float(off[first + 1]) - before
        if abs(soon) < _AT_ONCE * abs(reached):
            return None  # it slides: the place changes, not the probe's
        if abs(before + reached) < abs(before):
            return None  # back to what is usual: something else has ended
    humid = grid.humidity[row]
    drop = mean(humid[max(0, first - hour) : first])
    drop -= mean(humid[first : min(last, first + hour)])
    if drop > rules.door_humidity:
        return None  # the air changed with it: a door, not the probe's place
    return Fault(
        FaultKind.FALLEN,
        float(grid.times_s[first]),
        None if end is None else float(grid.times_s[end]),
        (grid.names[row],),
        largest_c=float(level - before),
    )
