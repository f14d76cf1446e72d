"""What faults are looked for in: one grid of all probes, quiet after a new set point."""

import numpy as np
import pytest

from sandboa.core.climate.faults import FaultKind, ProbeRecord
from sandboa.core.climate.faults.cabinet_faults import falls
from sandboa.core.climate.faults.grid import on_grid
from sandboa.core.climate.faults.rules import DOOR_C, POWER_C
from sandboa.core.climate.faults.slow_changes import slow_changes
from sandboa.core.development import SetPoints

HOUR, DAY = 3600.0, 86_400.0


def probe(name: str, times: np.ndarray, degrees: np.ndarray) -> ProbeRecord:
    return ProbeRecord(name, times, degrees, np.full(len(times), 0.65), shelf=1)


def test_nothing_is_judged_from_a_step_before_a_new_set_point_until_six_hours_after() -> None:
    times = np.arange(0.0, DAY, 60.0)
    grid = on_grid(
        [probe("middle", times, np.full(len(times), 31.5))], SetPoints((0.0, 6 * HOUR), (31.5, 30))
    )
    assert grid is not None
    unsettled = grid.times_s[~grid.settled]
    assert unsettled[0] == 6 * HOUR - grid.step_s
    assert unsettled[-1] == 12 * HOUR - grid.step_s
    assert np.diff(unsettled).tolist() == [grid.step_s] * (len(unsettled) - 1)


@pytest.mark.parametrize(("others_c", "held_c"), [(0.0, 0.8), (-0.4, 1.0)])
def test_of_two_probes_the_set_point_vouches_as_much_as_the_other(
    others_c: float, held_c: float
) -> None:
    times = np.arange(0.0, 40 * DAY, 600.0)
    ramp = np.clip((times / DAY - 15.0) / 25.0, 0.0, 1.0)
    grid = on_grid(
        [
            probe("lower", times, 31.5 + 0.8 * ramp),
            probe("upper", times, 31.5 + others_c * ramp),
        ],
        SetPoints((0.0,), (31.5,)),
    )
    assert grid is not None
    fault = next(slow_changes(grid, grid.temperature_c - 31.5))
    assert (fault.kind, fault.probes) == (FaultKind.DRIFT, ("lower",))
    assert fault.largest_c == pytest.approx(held_c, abs=0.05)


@pytest.mark.parametrize(("humidity", "limit_c"), [(0.65, POWER_C), (0.45, DOOR_C)])
def test_a_fall_is_told_from_its_limit_on(humidity: float, limit_c: float) -> None:
    """A power cut keeps the humidity, a door takes it along; each has a fall it begins with."""
    for fell_c, kinds in ((limit_c, 1), (np.nextafter(limit_c, 0.0), 0)):
        times = np.arange(0.0, DAY, 300.0)
        cold = (times >= 6 * HOUR) & (times < 8 * HOUR)
        grid = on_grid(
            [probe("middle", times, np.full(len(times), 31.5))], SetPoints((0.0,), (31.5,))
        )
        assert grid is not None
        grid.off_c[0, cold] = -fell_c
        grid.humidity[0, cold] = humidity
        assert len(list(falls(grid))) == kinds
