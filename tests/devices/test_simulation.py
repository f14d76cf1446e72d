"""The simulated cabinet obeys physics, and its mishaps do what their names say."""

import numpy as np
import pytest

from sandboa.devices.simulation import (
    CabinetModel,
    Mishap,
    MishapKind,
    Sensor,
    SimulatedClutch,
    log_probe,
    pip_times,
    run,
)
from sandboa.devices.simulation.eggs import developed, heat_w, rate_per_day

HOUR, DAY = 3600.0, 86_400.0
QUIET = Sensor(noise_c=0.0, step_c=0.001, lag_s=1.0, humidity_noise=0.0)


def test_a_working_cabinet_holds_its_set_point_warmest_on_top() -> None:
    was = run(CabinetModel(), 0, 4 * DAY)
    settled = was.air_c[len(was.times_s) // 2 :]
    assert settled[:, 0].mean() == pytest.approx(31.5, abs=0.05)
    assert settled[:, 0].mean() > settled[:, 1].mean() > settled[:, 2].mean() > 31.0


def test_steps_of_one_and_of_five_minutes_tell_of_the_same_cooling() -> None:
    cut = (Mishap(MishapKind.POWER_CUT, 1 * DAY, 1.3 * DAY),)
    model = CabinetModel(mishaps=cut, room_swing_c=0.0, room_weather_c=0.0)
    fine, coarse = run(model, 0, 1.3 * DAY, 60.0), run(model, 0, 1.3 * DAY, 300.0)
    at = 1.25 * DAY
    assert fine.air_c[int(at // 60), 2] == pytest.approx(coarse.air_c[int(at // 300), 2], abs=0.05)


def test_without_power_it_cools_towards_the_room_and_ballast_slows_it() -> None:
    def after(hours: float, **make: float) -> float:
        cut = (Mishap(MishapKind.POWER_CUT, DAY, 9 * DAY),)
        model = CabinetModel(mishaps=cut, room_swing_c=0.0, room_weather_c=0.0, **make)
        was = run(model, 0, DAY + hours * HOUR)
        return float(was.air_c[-1].mean())

    assert 23.0 < after(6) < after(2) < 31.0
    assert after(150) == pytest.approx(23.0, abs=0.2)
    assert after(6, wall_j_k=160_000.0) > after(6) + 1.0


def test_a_fan_that_stops_leaves_the_lower_shelf_cold() -> None:
    still = (Mishap(MishapKind.FAN_STOPS, 1 * DAY, 3 * DAY),)
    was = run(CabinetModel(mishaps=still), 0, 2 * DAY)
    assert was.air_c[-1, 0] > was.air_c[-1, 1] > was.air_c[-1, 2]
    assert was.air_c[-1, 2] < 30.0


def test_what_befalls_a_probe() -> None:
    mishaps = (
        Mishap(MishapKind.UNPLUGGED, 1.0 * DAY, 1.2 * DAY, "p"),
        Mishap(MishapKind.STUCK, 2.0 * DAY, 2.2 * DAY, "p"),
        Mishap(MishapKind.FALLEN, 3.0 * DAY, 3.2 * DAY, "p", -2.0),
        Mishap(MishapKind.DRIFT, 4.0 * DAY, 9.0 * DAY, "p", 0.5),
    )
    was = run(CabinetModel(), 0, 6 * DAY)
    logged = log_probe("p", was, 0, sensor=QUIET, mishaps=mishaps)
    other = log_probe("q", was, 0, sensor=QUIET, mishaps=mishaps)
    assert np.diff(logged.times_s).max() == pytest.approx(0.2 * DAY, abs=120)
    assert np.diff(other.times_s).max() == 60.0

    def apart(day: float) -> float:
        here = logged.temperature_c[np.searchsorted(logged.times_s, day * DAY)]
        return float(here - other.temperature_c[np.searchsorted(other.times_s, day * DAY)])

    assert apart(3.1) == pytest.approx(-2.0, abs=0.05)
    assert apart(5.0) == pytest.approx(0.5, abs=0.05)
    stuck = (logged.times_s > 2.0 * DAY + 60) & (logged.times_s < 2.2 * DAY)
    assert np.ptp(logged.temperature_c[stuck]) == 0.0


def test_a_sensor_has_steps_and_saturates() -> None:
    was = run(CabinetModel(), 0, DAY)
    logged = log_probe("p", was, 0, sensor=Sensor(step_c=0.1, saturates=0.98, in_box=True))
    tenths = logged.temperature_c * 10
    assert np.allclose(tenths, np.round(tenths))
    assert set(np.unique(logged.humidity[logged.humidity > 0.98])) <= {1.0}
    assert all(isinstance(row[0], int) for row in logged.rows())


def test_eggs_take_about_as_long_as_keepers_say_and_none_at_all_in_the_cold() -> None:
    assert 1 / rate_per_day(np.array([31.67]))[0] == pytest.approx(58.0)
    assert 60 < 1 / rate_per_day(np.array([30.0]))[0] < 70
    assert rate_per_day(np.array([15.0, 21.0]))[1] == 0.0
    clutch = SimulatedClutch(0.0, 6, 0)
    times = np.arange(0.0, 70 * DAY, 600.0)
    warm = np.full(len(times), 31.67)
    pips = pip_times(clutch, times, warm, np.random.default_rng(1))
    assert pips is not None
    assert len(pips) == 6
    assert pips.mean() / DAY == pytest.approx(58, abs=1.2)
    assert pip_times(clutch, times, warm - 12.0, np.random.default_rng(1)) is None


def test_eggs_warm_their_box_late_in_term_and_not_after() -> None:
    times = np.arange(0.0, 66 * DAY, 600.0)
    clutch = SimulatedClutch(0.0, 6, 2)
    given = heat_w(developed(clutch, times, np.full(len(times), 31.67)), 6)
    assert given[(20 * 144)] < 0.1 * given.max()
    assert times[given.argmax()] / DAY == pytest.approx(0.88 * 58, abs=1)
    assert given[-1] == 0.0


def settled(**make: float) -> tuple[float, np.ndarray, np.ndarray]:
    """Mean air, each shelf's air and its boxes after two days in a steady room (°C)."""
    model = CabinetModel(room_swing_c=0.0, room_weather_c=0.0, **make)
    was = run(model, 0, 2 * DAY, 120.0)
    return float(was.air_c[-1].mean()), was.air_c[-1], was.box_c[-1]


def test_a_heater_too_weak_for_its_room_stays_where_loss_equals_its_power() -> None:
    # Two resistances in a row: three shelves of air to the wall, the wall to the room.
    power, air_to_wall, wall_to_room = 12.0, 3 * 1.1, 1.9
    mean, *_ = settled(heater_w=power, room_c=10.0, evaporation_g_day=0.0)
    assert mean == pytest.approx(10.0 + power / air_to_wall + power / wall_to_room, abs=0.3)


def test_boxes_are_cooled_by_what_leaves_them_and_by_nothing_else() -> None:
    _, air, dry = settled(evaporation_g_day=0.0)
    assert dry == pytest.approx(air, abs=0.01)
    _, air, wet = settled(evaporation_g_day=20.0)
    # 20 g a day in air of 62 % take 0.21 W; 0.35 W/K bring them back.
    watts = 2_430 * 20 * 0.38 / DAY
    assert air - wet == pytest.approx(np.full(3, watts / 0.35), rel=0.05)


def test_a_door_lets_warmth_and_damp_out_and_both_come_back() -> None:
    model = CabinetModel(opens=[(DAY, 600.0)], room_swing_c=0.0, room_weather_c=0.0)
    was = run(model, 0, DAY + 6 * HOUR)
    before, during = int(DAY // 60) - 5, int(DAY // 60) + 9
    assert was.air_c[before].min() - was.air_c[during].min() > 0.5
    assert was.humidity[before] - was.humidity[during] > 0.1
    assert was.air_c[-1] == pytest.approx(was.air_c[before], abs=0.15)
    assert was.humidity[-1] == pytest.approx(was.humidity[before], abs=0.04)


def test_boxes_follow_the_air_late_and_flattened() -> None:
    model = CabinetModel(opens=[(DAY, 900.0)], room_swing_c=0.0, room_weather_c=0.0)
    was = run(model, 0, DAY + 6 * HOUR)
    after = slice(int(DAY // 60), None)
    air, box = was.air_c[after, 0], was.box_c[after, 0]
    assert np.ptp(box) < 0.7 * np.ptp(air)
    assert box.argmin() > air.argmin()


def test_a_thermostat_that_overshoots_saws() -> None:
    over = (Mishap(MishapKind.OVERSHOOT, DAY, 2 * DAY),)
    was = run(CabinetModel(mishaps=over), 0, 2 * DAY)
    quiet, saw = was.air_c[720:1440, 0], was.air_c[1700:, 0]
    assert np.ptp(saw) > 1.5 > 5 * np.ptp(quiet)


def test_a_new_set_point_is_reached() -> None:
    model = CabinetModel(set_points=[(DAY, 29.0)])
    was = run(model, 0, 3 * DAY)
    assert was.air_c[1400, 0] == pytest.approx(31.5, abs=0.15)
    assert was.air_c[-1, 0] == pytest.approx(29.0, abs=0.15)


def test_the_same_seed_is_the_same_season_and_another_another() -> None:
    first, again, other = (run(CabinetModel(), 0, DAY, 300.0, seed=seed) for seed in (1, 1, 2))
    assert np.array_equal(first.air_c, again.air_c)
    assert not np.array_equal(first.room_c, other.room_c)
