"""All faults of a cabinet: the ones that explain others away are looked for first."""

from collections.abc import Sequence

import numpy as np

from sandboa.core.climate.faults.cabinet_faults import falls, parted, sawtooth
from sandboa.core.climate.faults.grid import Grid, on_grid
from sandboa.core.climate.faults.kinds import Fault, ProbeRecord
from sandboa.core.climate.faults.probe_faults import fallen, stuck, unplugged
from sandboa.core.climate.faults.rules import DEFAULT_FAULTS, FaultRules
from sandboa.core.climate.faults.slow_changes import slow_changes
from sandboa.core.development.sources import SetPoints
from sandboa.core.units import SECONDS_PER_HOUR

#: s around a power cut or an open door in which nothing else is judged (assumption: warming up).
_AFTERMATH_S = 3.0 * SECONDS_PER_HOUR


def recognise(
    probes: Sequence[ProbeRecord],
    set_points: SetPoints,
    now_s: float,
    rules: FaultRules = DEFAULT_FAULTS,
) -> tuple[Fault, ...]:
    """Recognise the faults in a cabinet's readings up to `now_s`, in order of their start.

    Parameters
    ----------
    probes: the cabinet's probes over the same time, offsets added. Ten days
        are enough for all but what changes over weeks, which needs at least 12.
    set_points: those in force; a change of them is no fault.
    rules: from what size on something is a fault.

    Gaps and stuck probes are found first and taken out, then steps of a
    single probe, the thermostat's sawtooth, what happens to all shelves at
    once, and what parts them. Source: rule E; limits beside each rule.
    Scored on simulated seasons by `./do bench faults`.
    """
    found = [fault for probe in probes for fault in unplugged(probe, now_s)]
    held = [fault for probe in probes for fault in stuck(probe, rules)]
    grid = on_grid(probes, set_points)
    if grid is None:
        return tuple(found)
    _drop(grid, held, now_s)
    grid.refresh(set_points)
    displaced = [fault for row in range(len(grid.names)) for fault in fallen(grid, row, rules)]
    _drop(grid, displaced, now_s)
    grid.refresh(set_points)
    swinging = list(sawtooth(grid, rules))
    _drop(grid, swinging, now_s, everywhere=True)
    low = list(falls(grid, rules))
    _drop(grid, low, now_s, everywhere=True, after_s=_AFTERMATH_S)
    uneven = list(parted(grid, rules))
    _drop(grid, uneven, now_s, everywhere=True, after_s=_AFTERMATH_S)
    slow = list(slow_changes(grid, _distance(grid, set_points), rules))
    every = [*found, *held, *displaced, *low, *uneven, *swinging, *slow]
    return tuple(sorted(every, key=lambda fault: (fault.start_s, fault.kind)))


def _drop(
    grid: Grid,
    faults: Sequence[Fault],
    now_s: float,
    *,
    everywhere: bool = False,
    after_s: float = 0.0,
) -> None:
    """Take the faults' times out, of their own probes or of all, and some time after them."""
    for fault in faults:
        end_s = now_s if fault.end_s is None else fault.end_s + after_s
        for row, name in enumerate(grid.names):
            if everywhere or name in fault.probes:
                grid.drop(row, fault.start_s, end_s)


def _distance(grid: Grid, set_points: SetPoints) -> np.ndarray:
    changes = np.searchsorted(set_points.from_s, grid.times_s, side="right") - 1
    wanted = np.asarray(set_points.temperature_c)[np.maximum(changes, 0)]
    return np.asarray(grid.temperature_c - wanted)
