"""The heat of a cabinet: shelves of air, boxes, walls, a heater, a fan, a door, a room around.

Per shelf two masses, the air with what it touches at once and the boxes in it;
one wall. Between two steps nothing changes but by linear heat flow, which the
matrix exponential solves exactly at any step.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from scipy.linalg import expm

from sandboa.devices.simulation.mishaps import Mishap, MishapKind, during

_DAY_S = 86_400.0


@dataclass(frozen=True)
class CabinetModel:
    """A cabinet's make. Heat in J/K, conductance in W/K, power in W; shelf 0 is the top.

    `heater_share` is where the heat goes while the fan stands still; turning,
    it spreads half of it evenly. A `hysteresis_c` of 0 is a proportional
    thermostat of `gain_per_c` (share of its heat per °C), else it switches.
    `opens` are routine openings of the door: (start s, seconds).
    """

    shelves: int = 3
    set_point_c: float = 31.5
    set_points: Sequence[tuple[float, float]] = ()
    heater_w: float = 90.0
    heater_share: Sequence[float] = (0.62, 0.27, 0.11)
    hysteresis_c: float = 0.0
    thermostat_lag_s: float = 120.0
    gain_per_c: float = 0.55
    air_j_k: float = 2_500.0
    box_j_k: float = 6_000.0
    air_to_box_w_k: float = 0.35
    wall_j_k: float = 40_000.0
    air_to_wall_w_k: float = 1.1
    wall_to_room_w_k: float = 1.9
    fan_w_k: float = 24.0
    still_air_w_k: float = 0.25
    door_w_k: float = 9.0
    room_c: float = 23.0
    room_swing_c: float = 2.0
    room_weather_c: float = 1.2
    humidity: float = 0.62
    room_humidity: float = 0.42
    #: g a day that the boxes of a shelf lose in dry air; taken from their heat.
    evaporation_g_day: float = 4.0
    opens: Sequence[tuple[float, float]] = ()
    mishaps: Sequence[Mishap] = ()
    #: W of metabolic heat on each shelf at each step, shape (steps, shelves); None: no eggs.
    egg_heat_w: np.ndarray | None = field(default=None, compare=False)


@dataclass(frozen=True)
class Climate:
    """What was: `times_s` (n,), air and boxes per shelf °C (n, shelves), air humidity (n,)."""

    times_s: np.ndarray
    air_c: np.ndarray
    box_c: np.ndarray
    humidity: np.ndarray
    room_c: np.ndarray


def run(
    model: CabinetModel, start_s: float, end_s: float, step_s: float = 60.0, seed: int = 0
) -> Climate:
    """Let a cabinet be from start to end, already warm at the start."""
    random = np.random.default_rng(seed)
    times = np.arange(start_s, end_s, step_s)
    room = _room(model, times, random)
    still = during(model.mishaps, MishapKind.FAN_STOPS, times)
    dark = during(model.mishaps, MishapKind.POWER_CUT, times)
    over = during(model.mishaps, MishapKind.OVERSHOOT, times)
    open_share = _open_share(model, times, step_s)
    set_point = _set_points(model, times)
    n, shelves = len(times), model.shelves
    # Water takes 2.43 kJ/g with it where it leaves (at 31 °C).
    evaporated_w = 2_430.0 * model.evaporation_g_day * (1.0 - model.humidity) / _DAY_S
    boxes_w = np.full((n, shelves), -evaporated_w)
    if model.egg_heat_w is not None:
        boxes_w[: len(model.egg_heat_w)] += model.egg_heat_w[:n]
    mode = (still | dark).astype(int)
    closed = [_Mode(model, step_s, fan=not stands, door=0.0) for stands in (False, True)]
    ajar: dict[tuple[int, float], _Mode] = {}

    state = np.full(2 * shelves + 1, set_point[0] if n else model.set_point_c)
    if n:
        state[-1] = (set_point[0] + room[0]) / 2.0
    air, boxes = np.empty((n, shelves)), np.empty((n, shelves))
    sensed, integral, heating = float(state[0]), 0.0, False
    follow = 1.0 - np.exp(-step_s / model.thermostat_lag_s)
    for i in range(n):
        air[i], boxes[i] = state[:shelves], state[shelves:-1]
        sensed += follow * (float(state[0]) - sensed)
        error = set_point[i] - sensed
        if over[i] or model.hysteresis_c > 0:
            # A thermostat that overshoots switches late and far.
            band = 0.9 if over[i] else model.hysteresis_c
            heating = error > -band if heating else error > band
            power = model.heater_w if heating else 0.0
        else:
            integral = min(max(integral + error * step_s * 2e-4, 0.0), 1.0)
            power = model.heater_w * min(max(model.gain_per_c * error + integral, 0.0), 1.0)
        if dark[i]:
            power = 0.0
        share = round(float(open_share[i]), 2)
        step = closed[mode[i]]
        if share > 0:
            key = (int(mode[i]), share)
            if key not in ajar:
                ajar[key] = _Mode(model, step_s, fan=not key[0], door=share * model.door_w_k)
            step = ajar[key]
        state = step.advance(state, room[i], power, boxes_w[i])
    return Climate(times, air, boxes, _humidity(model, times, open_share, dark, random), room)


class _Mode:
    """One step of the linear heat flow with the fan and the door as they are."""

    def __init__(self, model: CabinetModel, step_s: float, *, fan: bool, door: float) -> None:
        shelves = model.shelves
        size = 2 * shelves + 1
        flow = np.zeros((size, size))
        heat = np.array([model.air_j_k] * shelves + [model.box_j_k] * shelves + [model.wall_j_k])
        room = np.zeros(size)

        def join(a: int, b: int, conductance: float) -> None:
            flow[a, b] += conductance
            flow[b, a] += conductance
            flow[a, a] -= conductance
            flow[b, b] -= conductance

        def lose(a: int, conductance: float) -> None:
            flow[a, a] -= conductance
            room[a] += conductance

        for shelf in range(shelves):
            join(shelf, shelves + shelf, model.air_to_box_w_k)
            join(shelf, size - 1, model.air_to_wall_w_k)
            lose(shelf, door)
            if shelf:
                join(shelf - 1, shelf, model.fan_w_k if fan else model.still_air_w_k)
        lose(size - 1, model.wall_to_room_w_k * shelves / 3.0)
        rates = flow / heat[:, None]
        self._step = expm(rates * step_s)
        # Constant inputs over a step: integral of the exponential, M^-1 (E - I).
        gained = np.linalg.solve(rates, self._step - np.eye(size)) / heat[None, :]
        spread = _share(model)
        if fan:
            spread = 0.5 * spread + 0.5 / shelves
        self._room = gained @ room
        self._heater = gained[:, :shelves] @ spread
        self._boxes = gained[:, shelves:-1]

    def advance(
        self, state: np.ndarray, room_c: float, heater_w: float, boxes_w: np.ndarray
    ) -> np.ndarray:
        after = self._step @ state + self._room * room_c + self._heater * heater_w
        return np.asarray(after + self._boxes @ boxes_w)


def _share(model: CabinetModel) -> np.ndarray:
    share = np.array(list(model.heater_share)[: model.shelves])
    return np.asarray(share / share.sum())


def _room(model: CabinetModel, times: np.ndarray, random: np.random.Generator) -> np.ndarray:
    """Day and night, and weather that wanders over days."""
    if not len(times):
        return np.empty(0)
    days = times / _DAY_S
    knots = np.arange(days[0] - 2.0, days[-1] + 4.0, 1.0)
    wandering = np.zeros(len(knots))
    for i in range(1, len(knots)):
        wandering[i] = 0.75 * wandering[i - 1] + random.normal(0.0, 0.66 * model.room_weather_c)
    night = model.room_swing_c * np.sin(2 * np.pi * (days - 0.4))
    return np.asarray(model.room_c + night + np.interp(days, knots, wandering))


def _open_share(model: CabinetModel, times: np.ndarray, step_s: float) -> np.ndarray:
    """How far the door stands open, averaged over each step: 1 wide, 0.3 ajar."""
    share = 0.3 * during(model.mishaps, MishapKind.DOOR_AJAR, times)
    for start_s, seconds in model.opens:
        first, last = np.searchsorted(times, [start_s, start_s + seconds])
        for i in range(max(first - 1, 0), min(last, len(times))):
            inside = min(times[i] + step_s, start_s + seconds) - max(times[i], start_s)
            share[i] = min(1.0, share[i] + max(inside, 0.0) / step_s)
    return np.asarray(share)


def _set_points(model: CabinetModel, times: np.ndarray) -> np.ndarray:
    wanted = np.full(len(times), model.set_point_c)
    for from_s, temperature_c in model.set_points:
        wanted[times >= from_s] = temperature_c
    return wanted


def _humidity(
    model: CabinetModel,
    times: np.ndarray,
    open_share: np.ndarray,
    dark: np.ndarray,
    random: np.random.Generator,
) -> np.ndarray:
    """Air humidity: held up by water in the cabinet, let out by the door within a minute or two."""
    step_s = float(times[1] - times[0]) if len(times) > 1 else 60.0
    recover, escape = 1.0 - np.exp(-step_s / 1500.0), 1.0 - np.exp(-step_s / 90.0)
    wander = 0.02 * np.sin(2 * np.pi * times / _DAY_S) + 0.004 * random.standard_normal(len(times))
    held = np.empty(len(times))
    now = model.humidity
    for i, share in enumerate(open_share.tolist()):
        now += recover * (model.humidity - now)
        if share:
            now += share * escape * (model.room_humidity - now)
        held[i] = now
    return np.asarray(np.clip(held + wander + 0.03 * dark, 0.05, 1.0))
