"""Rounds held to account: simulated boxes that dry out, simulated eggs that live or die."""

import numpy as np

from benchmarks import egg_standings
from benchmarks.report import met
from sandboa.core.box import Closing
from sandboa.core.water.estimate import WaterLeft, water_left
from sandboa.core.water.ledger import MassLedger, Weighing
from sandboa.core.water.loss_curve import AirOfDay, loss_curve
from sandboa.core.water.rules import DRY_SHARE
from sandboa.devices.simulation.boxes import BoxMade, BoxTruth, dry_out

DAY_S = 86_400.0
_BOXES = 600
#: Seeds from here on were never looked at before the rules were done.
FIRST_SEED = 520_000
_CLOSINGS = {
    "sealed film": Closing.SEALED_FILM,
    "pin holes": Closing.PIN_HOLES,
    "small holes": Closing.SMALL_HOLES,
    "cracked corner": Closing.CRACKED_CORNER,
    "loose lid": Closing.LOOSE_LID,
}
_SCALE_SD_G = 2.0
_SET_UP_G = 1_200.0


def report(boxes: int = _BOXES, clutches: int = egg_standings.CLUTCHES) -> str:
    """The report as text, from so many simulated boxes and clutches of each keeper."""
    taught = min(clutches, egg_standings.TAUGHT)
    return "\n".join([*drying(boxes), "", *egg_standings.report(clutches, taught=taught)])


def drying(boxes: int = _BOXES) -> list[str]:
    """How near the predicted day of drying comes, by how often the box was weighed."""
    errors: dict[int, list[float]] = {0: [], 1: [], 2: [], 3: []}
    held = dict.fromkeys(errors, 0)
    for seed in range(FIRST_SEED, FIRST_SEED + boxes):
        for weighings, (error, inside) in _one_box(seed).items():
            errors[weighings].append(error)
            held[weighings] += inside
    lines = [f"Day of drying (25 %), {len(errors[0])} of {boxes} simulated boxes that dry in term"]
    for weighings, found in errors.items():
        off = np.abs(found)
        near = float(np.mean(off <= 0.2))
        aim = ""
        if weighings == 2:
            aim = f"  (aim: within 20 %)  {met(float(np.median(off)) <= 0.2)} by the median box"
        lines.append(
            f"  set-up mass and {weighings} weighings: median error {np.median(off):.0%} of the "
            f"true remaining time, within 20 % in {near:.0%}, "
            f"80 % band held {held[weighings] / len(found):.0%}{aim}"
        )
    return lines


def _one_box(seed: int) -> dict[int, tuple[float, bool]]:
    """Relative error of the remaining time, and whether the band held it, by weighings."""
    random = np.random.default_rng(seed)
    name = str(random.choice(list(_CLOSINGS)))
    medium = str(random.choice(["vermiculite", "perlite", "half and half"]))
    full_g = float(random.choice([100.0, 150.0, 200.0, 250.0]))
    humidity = float(random.uniform(0.35, 0.75))
    temperature = float(random.uniform(30.0, 32.0))
    made = BoxMade(name, medium, full_g, 6)
    truth = dry_out(made, 120, temperature, humidity, random)
    dry_day = truth.day_at(DRY_SHARE, full_g)
    if dry_day is None or not 16.0 <= dry_day <= 70.0:
        return {}
    # Weighed at the rounds of every fortnight or so; the last at half of its time.
    now = int(np.floor(dry_day / 2))
    every = max(now // 3, 1)
    days = [now - 2 * every, now - every, now]
    told = {}
    for weighings in range(4):
        left = _estimate(truth, made, days[3 - weighings :], now, random)
        middle = left.dry.middle_s
        remaining = dry_day - now
        predicted = 999.0 if middle is None else middle / DAY_S - now
        early = (left.dry.early_s or np.inf) / DAY_S
        late = (left.dry.late_s or np.inf) / DAY_S
        told[weighings] = (predicted / remaining - 1.0, bool(early <= dry_day <= late))
    return told


def _estimate(
    truth: BoxTruth,
    made: BoxMade,
    weighed_days: list[int],
    now: int,
    random: np.random.Generator,
) -> WaterLeft:
    air = [
        AirOfDay(
            d * DAY_S, (d + 1) * DAY_S, float(truth.temperature_c[d]), float(truth.humidity[d])
        )
        for d in range(now)
    ]
    # The days to come: the mean of the last week.
    week = slice(max(now - 7, 0), now)
    air.append(
        AirOfDay(
            now * DAY_S,
            now * DAY_S + 1,
            float(truth.temperature_c[week].mean()),
            float(truth.humidity[week].mean()),
        )
    )
    noise = random.normal(0.0, _SCALE_SD_G, len(weighed_days) + 1)
    ledger = MassLedger(
        0.0,
        _SET_UP_G + noise[-1],
        made.full_g,
        weighings=tuple(
            Weighing(d * DAY_S, _SET_UP_G + float(truth.mass_g[d - 1]) + n)
            for d, n in zip(weighed_days, noise[:-1], strict=True)
        ),
    )
    curve = loss_curve(air, [(0.0, _CLOSINGS[made.closing])], made.medium)
    left = water_left(ledger, curve, now * DAY_S)
    assert left is not None
    return left


if __name__ == "__main__":
    print(report())
