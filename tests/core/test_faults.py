"""Each fault of rule E from series made by hand: found, named, bounded, and nothing else told.

How well they are told apart in whole seasons is measured by `./do bench faults`.
"""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.climate.faults import Fault, FaultKind, ProbeRecord, recognise
from sandboa.core.climate.faults.cabinet_faults import _HALF, _may_swing
from sandboa.core.climate.faults.rules import SAWTOOTH_C
from sandboa.core.development import SetPoints

HOUR, DAY = 3600.0, 86_400.0
SET = SetPoints((0.0,), (31.5,))


class Cabinet:
    """Three probes over some days, a reading a minute, with noise and steps as sensors have."""

    def __init__(self, days: float = 12.0) -> None:
        random = np.random.default_rng(4)
        self.times = np.arange(0.0, days * DAY, 60.0)
        n = len(self.times)
        self.now_s = days * DAY
        self.degrees = {
            name: 31.5 + offset + random.normal(0, 0.03, n)
            for name, offset in (("top", 0.1), ("middle", 0.0), ("lower", -0.2))
        }
        self.humidity = {name: 0.65 + random.normal(0, 0.006, n) for name in self.degrees}
        self.silent: dict[str, np.ndarray] = {}

    def during(self, from_h: float, to_h: float) -> np.ndarray:
        return (self.times >= from_h * HOUR) & (self.times < to_h * HOUR)

    def recognise(self, set_points: SetPoints = SET) -> list[Fault]:
        records = []
        for shelf, name in enumerate(self.degrees, start=1):
            kept = ~self.silent.get(name, np.zeros(len(self.times), bool))
            records.append(
                ProbeRecord(
                    name, self.times[kept], np.round(self.degrees[name], 2)[kept],
                    np.round(self.humidity[name], 3)[kept], shelf=shelf,
                )
            )  # fmt: skip
        return list(recognise(records, set_points, self.now_s))


def only(found: list[Fault]) -> Fault:
    assert len(found) == 1, [(f.kind, f.start_s / HOUR, f.probes) for f in found]
    return found[0]


def near(fault: Fault, from_h: float, to_h: float | None, within_h: float = 0.6) -> None:
    assert fault.start_s / HOUR == pytest.approx(from_h, abs=within_h)
    if to_h is None:
        assert fault.end_s is None
    else:
        assert fault.end_s is not None
        assert fault.end_s / HOUR == pytest.approx(to_h, abs=within_h)


def sliding(cabinet: Cabinet, from_h: float, to_h: float, depth: float, tau_h: float) -> np.ndarray:
    """An exponential fall by `depth` °C, and back within half an hour."""
    into = np.clip(cabinet.times / HOUR - from_h, 0, to_h - from_h)
    since = np.clip(cabinet.times / HOUR - to_h, 0, None)
    return -depth * (1 - np.exp(-into / tau_h)) * np.exp(-since / 0.3)


def test_a_steady_cabinet_has_no_faults() -> None:
    assert Cabinet().recognise() == []
    assert recognise([], SET, 0.0) == ()


def test_a_fan_that_stops_parts_the_shelves() -> None:
    cabinet = Cabinet()
    cabinet.degrees["lower"] += sliding(cabinet, 240, 262, 5.0, 3.0)
    cabinet.degrees["middle"] += sliding(cabinet, 240, 262, 2.5, 3.0)
    fault = only(cabinet.recognise())
    assert fault.kind is FaultKind.FAN
    near(fault, 240, 262, 1.0)
    assert {"lower", "middle"} <= set(fault.probes)
    assert fault.largest_c == pytest.approx(-5.0, abs=0.4)
    # The mean of the probes it shows in: between one shelf's 5 °C and another's 2.5, for 20 h.
    assert 35 < fault.degree_hours < 90


def test_a_power_cut_takes_all_shelves_and_keeps_the_humidity() -> None:
    cabinet = Cabinet()
    for values in cabinet.degrees.values():
        values += sliding(cabinet, 200, 204, 8.0, 4.0)
    fault = only(cabinet.recognise())
    assert fault.kind is FaultKind.POWER_CUT
    near(fault, 200, 204, 1.0)
    assert set(fault.probes) == {"top", "middle", "lower"}


def test_a_door_takes_the_humidity_with_it() -> None:
    cabinet = Cabinet()
    ajar = cabinet.during(200, 200.8)
    for name, values in cabinet.degrees.items():
        values[ajar] -= 1.6
        cabinet.humidity[name][ajar] -= 0.15
    fault = only(cabinet.recognise())
    assert fault.kind is FaultKind.DOOR
    near(fault, 200, 200.8, 0.3)


def test_a_visit_of_two_minutes_is_no_fault() -> None:
    cabinet = Cabinet()
    visit = cabinet.during(200, 200.04)
    for name, values in cabinet.degrees.items():
        values[visit] -= 2.5
        cabinet.humidity[name][visit] -= 0.15
    assert cabinet.recognise() == []


def test_an_unplugged_probe_is_a_gap_and_a_silent_one_goes_on() -> None:
    cabinet = Cabinet()
    cabinet.silent = {"lower": cabinet.during(100, 109), "top": cabinet.during(280, 288)}
    gap, silent = cabinet.recognise()
    assert (gap.kind, gap.probes) == (FaultKind.UNPLUGGED, ("lower",))
    near(gap, 100, 109)
    assert silent.probes == ("top",)
    near(silent, 280, None)


def test_a_stuck_probe_tells_the_same_to_the_last_digit() -> None:
    cabinet = Cabinet()
    stuck = cabinet.during(150, 158)
    cabinet.degrees["middle"][stuck] = 31.47
    cabinet.humidity["middle"][stuck] = 0.651
    fault = only(cabinet.recognise())
    assert (fault.kind, fault.probes) == (FaultKind.STUCK, ("middle",))
    near(fault, 150, 158, 0.1)


def test_a_coarse_sensor_in_a_steady_place_is_not_stuck() -> None:
    """0.1 °C steps and little noise: equal for an hour and more, by chance."""
    cabinet = Cabinet()
    random = np.random.default_rng(1)
    for name, values in cabinet.degrees.items():
        cabinet.degrees[name] = np.round(
            np.round(values.mean(), 1) + random.normal(0, 0.024, len(values)), 1
        )
        cabinet.humidity[name] = np.full(len(values), np.nan)
    assert cabinet.recognise() == []


def test_a_fallen_probe_jumps_alone_and_stays() -> None:
    cabinet = Cabinet()
    cabinet.degrees["lower"][cabinet.during(220, 232)] -= 2.2
    fault = only(cabinet.recognise())
    assert (fault.kind, fault.probes) == (FaultKind.FALLEN, ("lower",))
    near(fault, 220, 232, 0.4)
    assert fault.largest_c == pytest.approx(-2.2, abs=0.15)


def test_a_thermostat_that_overshoots_saws() -> None:
    cabinet = Cabinet()
    swinging = cabinet.during(190, 214)
    saw = 1.2 * (2 * np.abs((cabinet.times / HOUR / 0.75) % 1 - 0.5) * 2 - 1)
    for values in cabinet.degrees.values():
        values[swinging] += 0.7 * saw[swinging]
    fault = only(cabinet.recognise())
    assert fault.kind is FaultKind.OVERSHOOT
    near(fault, 190, 214, 6.0)


def test_a_sensor_that_drifts_is_told_from_eggs_that_warm_their_place() -> None:
    drifting = Cabinet(45)
    drifting.degrees["lower"] += 0.03 * np.clip(drifting.times / DAY - 15, 0, None)
    fault = only(drifting.recognise())
    assert (fault.kind, fault.probes, fault.end_s) == (FaultKind.DRIFT, ("lower",), None)
    assert fault.start_s / DAY == pytest.approx(15, abs=3)
    assert fault.largest_c == pytest.approx(0.9, abs=0.1)
    warming = Cabinet(60)
    days = warming.times / DAY
    warming.degrees["lower"] += np.where(days < 57, 0.6 * np.exp(-(((days - 48) / 15) ** 2)), 0.0)
    fault = only(warming.recognise())
    assert (fault.kind, fault.probes) == (FaultKind.EGG_HEAT, ("lower",))
    assert fault.largest_c == pytest.approx(0.6, abs=0.1)


def test_a_new_set_point_is_no_fault() -> None:
    cabinet = Cabinet()
    for values in cabinet.degrees.values():
        values[cabinet.during(150, 999)] -= 1.5
    assert cabinet.recognise(SetPoints((0.0, 150 * HOUR), (31.5, 30.0))) == []


def test_a_fault_under_way_has_no_end() -> None:
    cabinet = Cabinet()
    cabinet.degrees["lower"] += sliding(cabinet, 270, 999, 5.0, 2.0)
    fault = only(cabinet.recognise())
    assert fault.kind is FaultKind.FAN
    near(fault, 270, None, 1.0)


def test_one_probe_alone_is_enough_for_what_one_can_show() -> None:
    cabinet = Cabinet()
    cabinet.degrees = {"only": cabinet.degrees["top"]}
    cabinet.humidity = {"only": cabinet.humidity["top"]}
    cabinet.degrees["only"] += sliding(cabinet, 200, 204, 8.0, 4.0)
    cabinet.silent = {"only": cabinet.during(100, 104)}
    assert [f.kind for f in cabinet.recognise()] == [FaultKind.UNPLUGGED, FaultKind.POWER_CUT]


@given(
    st.lists(st.floats(-2, 2) | st.just(float("nan")), min_size=30, max_size=90),
    st.integers(6, 13),
)
def test_a_look_at_the_range_leaves_out_no_window_that_could_swing(values, wide: int) -> None:
    """What the sawtooth asks of a window's halves is asked of running extremes, and is the same."""
    off = np.array(values)
    windows = np.lib.stride_tricks.sliding_window_view(off, wide)
    half = wide // 2
    limit = _HALF * SAWTOOTH_C
    asked = (np.ptp(windows[:, :half], axis=1) > limit) & (
        np.ptp(windows[:, half:], axis=1) > limit
    )
    assert _may_swing(off, wide, SAWTOOTH_C).tolist() == asked.tolist()
