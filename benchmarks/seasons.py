"""Simulated cabinets with known faults: what the recogniser is scored on."""

from dataclasses import dataclass, field, replace

import numpy as np

from sandboa.core.climate.faults import FaultKind, ProbeRecord
from sandboa.core.development import SetPoints
from sandboa.devices.simulation import (
    CabinetModel,
    Climate,
    Mishap,
    MishapKind,
    Sensor,
    SimulatedClutch,
    log_probe,
    run,
)
from sandboa.devices.simulation.eggs import developed, heat_w

DAY_S = 86_400.0
HOUR_S = 3_600.0
DAYS = 70

KIND = {
    MishapKind.FAN_STOPS: FaultKind.FAN,
    MishapKind.POWER_CUT: FaultKind.POWER_CUT,
    MishapKind.DOOR_AJAR: FaultKind.DOOR,
    MishapKind.OVERSHOOT: FaultKind.OVERSHOOT,
    MishapKind.UNPLUGGED: FaultKind.UNPLUGGED,
    MishapKind.STUCK: FaultKind.STUCK,
    MishapKind.FALLEN: FaultKind.FALLEN,
    MishapKind.DRIFT: FaultKind.DRIFT,
}


@dataclass(frozen=True)
class Truth:
    """A fault that was put in: its kind, when, and the probe it happened to ("": the cabinet)."""

    kind: FaultKind
    start_s: float
    end_s: float
    probe: str = ""


@dataclass(frozen=True)
class Season:
    """One cabinet's records over `days`, and what is true of them."""

    records: list[ProbeRecord]
    set_points: SetPoints
    truths: list[Truth]
    end_s: float
    climate: Climate = field(repr=False)


def season(seed: int, *, faults: bool, days: int = DAYS) -> Season:
    """A cabinet of random make, its probes and visits; with `faults`, a random set of them."""
    random = np.random.default_rng(seed)
    shelves = int(random.integers(2, 5)) if faults else int(random.integers(1, 5))
    set_point = float(random.choice([30.0, 31.1, 31.5]))
    end_s = days * DAY_S
    names = ["top", *(f"shelf {n}" for n in range(2, shelves + 1)), "box"]
    mishaps = _schedule(random, names[:shelves], days) if faults else []
    clutch = SimulatedClutch(
        float(random.uniform(2, 8)) * DAY_S, int(random.integers(5, 9)), shelves - 1
    )
    visits = [
        (d * DAY_S + random.uniform(8, 21) * HOUR_S, random.uniform(40, 170))
        for d in np.arange(1, days, random.integers(2, 6))
    ]
    model = CabinetModel(
        shelves=shelves,
        set_point_c=set_point,
        heater_w=32.0 * shelves,
        hysteresis_c=float(random.choice([0.0, 0.0, 0.08])),
        heater_share=tuple(np.array([0.62, 0.27, 0.11, 0.07])[:shelves]),
        room_c=float(random.uniform(20.5, 24.5)),
        room_swing_c=float(random.uniform(0.8, 2.5)),
        humidity=float(random.uniform(0.55, 0.85)),
        opens=visits,
        mishaps=mishaps,
    )
    climate, warmth = _with_eggs(model, clutch, end_s, seed)
    sensors = [
        Sensor(
            offset_c=float(random.normal(0, 0.2)),
            noise_c=float(random.uniform(0.02, 0.05)),
            step_c=float(random.choice([0.1, 0.06, 0.01])),
            humidity_step=float(random.choice([0.001, 0.005])),
        )
        for _ in names
    ]
    records = []
    for n, name in enumerate(names):
        in_box = name == "box"
        logged = log_probe(
            name, climate, shelves - 1 if in_box else n, mishaps=mishaps, seed=seed * 31 + n,
            sensor=replace(
                sensors[n], in_box=in_box, every_s=float(random.choice([60, 60, 300]))
            ),
        )  # fmt: skip
        records.append(
            ProbeRecord(
                name,
                logged.times_s,
                logged.temperature_c,
                logged.humidity,
                shelf=shelves if in_box else n + 1,
                in_box=in_box,
            )
        )
    truths = [Truth(KIND[m.kind], m.start_s, m.end_s, m.probe) for m in mishaps]
    if warmth is not None:
        truths.append(Truth(FaultKind.EGG_HEAT, *warmth, "box"))
    return Season(records, SetPoints((0.0,), (set_point,)), truths, end_s, climate)


def _with_eggs(
    model: CabinetModel, clutch: SimulatedClutch, end_s: float, seed: int
) -> tuple[Climate, tuple[float, float] | None]:
    """Run the cabinet with the heat its eggs give off; and from when to when that showed."""
    times = np.arange(0.0, end_s, 60.0)
    reached = developed(clutch, times, np.full(len(times), model.set_point_c))
    given = heat_w(reached, clutch.eggs)
    heat = np.zeros((len(times), model.shelves))
    heat[:, clutch.shelf] = given
    climate = run(replace(model, egg_heat_w=heat), 0.0, end_s, seed=seed)
    rise = given / model.air_to_box_w_k
    warm = times[rise > 0.3 * rise.max()] if rise.max() > 0.3 else times[:0]
    return climate, (float(warm[0]), float(warm[-1])) if len(warm) else None


def _schedule(random: np.random.Generator, air: list[str], days: int) -> list[Mishap]:
    """Faults of every kind at random times, three days apart so that each is seen by itself."""
    kinds = [
        MishapKind.FAN_STOPS, MishapKind.POWER_CUT, MishapKind.DOOR_AJAR, MishapKind.OVERSHOOT,
        MishapKind.UNPLUGGED, MishapKind.STUCK, MishapKind.FALLEN,
    ]  # fmt: skip
    random.shuffle(kinds)
    starts = np.linspace(6.0, days - 8.0, len(kinds)) + random.uniform(-1.5, 1.5, len(kinds))
    lasting = {
        MishapKind.FAN_STOPS: (6, 60), MishapKind.POWER_CUT: (1.5, 10),
        MishapKind.DOOR_AJAR: (0.4, 3), MishapKind.OVERSHOOT: (8, 48),
        MishapKind.UNPLUGGED: (3, 40), MishapKind.STUCK: (5, 40), MishapKind.FALLEN: (5, 60),
    }  # fmt: skip
    made = []
    for kind, start in zip(kinds, starts, strict=True):
        shortest, longest = lasting[kind]
        hours = float(np.exp(random.uniform(np.log(shortest), np.log(longest))))
        of_probe = kind in (MishapKind.UNPLUGGED, MishapKind.STUCK, MishapKind.FALLEN)
        size = float(random.choice([-1, 1]) * random.uniform(1.0, 4.0))
        probe = str(random.choice(air)) if of_probe else ""
        made.append(Mishap(kind, start * DAY_S, start * DAY_S + hours * HOUR_S, probe, size))
    if random.random() < 0.5:
        start = random.uniform(5, 25)
        slope = float(random.choice([-1, 1]) * random.uniform(0.015, 0.04))
        made.append(
            Mishap(MishapKind.DRIFT, start * DAY_S, days * DAY_S, str(random.choice(air)), slope)
        )
    return made
