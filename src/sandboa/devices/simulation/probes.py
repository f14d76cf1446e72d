"""A simulated logger: lag, offset, noise, steps, saturation, and what befalls a probe."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from sandboa.devices.simulation.cabinet import Climate
from sandboa.devices.simulation.mishaps import Mishap, MishapKind, during

#: (time s, °C, relative humidity 0-1)
SimulatedRow = tuple[int, float, float]


@dataclass(frozen=True)
class Sensor:
    """How a sensor errs: constant offset and noise (°C, 1 sd), its step, how fast it follows.

    Capacitive humidity sensors saturate: nothing above `saturates` is told apart.
    """

    offset_c: float = 0.0
    noise_c: float = 0.03
    step_c: float = 0.1
    lag_s: float = 150.0
    humidity_offset: float = 0.0
    humidity_noise: float = 0.006
    humidity_step: float = 0.001
    saturates: float = 0.995
    every_s: float = 60.0
    in_box: bool = False


@dataclass(frozen=True)
class LoggedProbe:
    """What a probe wrote: times (s), °C and humidity, all (n,)."""

    name: str
    times_s: np.ndarray
    temperature_c: np.ndarray
    humidity: np.ndarray

    def rows(self) -> list[SimulatedRow]:
        """As a logger hands them over."""
        return [
            (int(t), round(float(c), 3), round(float(h), 4))
            for t, c, h in zip(self.times_s, self.temperature_c, self.humidity, strict=True)
        ]


def log_probe(
    name: str,
    climate: Climate,
    shelf: int,
    *,
    sensor: Sensor | None = None,
    mishaps: Sequence[Mishap] = (),
    seed: int = 0,
) -> LoggedProbe:
    """What a probe in the air of a shelf, or in its boxes, would have written."""
    sensor = sensor or Sensor()
    random = np.random.default_rng(seed)
    times = climate.times_s
    true_c = (climate.box_c if sensor.in_box else climate.air_c)[:, shelf]
    true_c = true_c.copy()
    humid = np.full(len(times), 0.985) if sensor.in_box else climate.humidity.copy()
    for mishap in mishaps:
        if mishap.probe != name:
            continue
        on = (times >= mishap.start_s) & (times < mishap.end_s)
        if mishap.kind is MishapKind.FALLEN:
            true_c[on] += mishap.size
        elif mishap.kind is MishapKind.DRIFT:
            true_c[on] += mishap.size * (times[on] - mishap.start_s) / 86_400.0
    read = _lagged(true_c, times, sensor.lag_s) + sensor.offset_c
    read = read + random.normal(0.0, sensor.noise_c, len(times))
    read = np.round(read / sensor.step_c) * sensor.step_c
    humid = humid + sensor.humidity_offset
    humid += random.normal(0.0, sensor.humidity_noise, len(times))
    humid = np.minimum(np.round(humid / sensor.humidity_step) * sensor.humidity_step, 1.0)
    humid = np.where(humid > sensor.saturates, 1.0, np.maximum(humid, 0.0))
    stuck = during(mishaps, MishapKind.STUCK, times, name)
    if stuck.any():
        # A stuck probe goes on telling the last thing it knew.
        last = np.maximum.accumulate(np.where(stuck, 0, np.arange(len(times))))
        read, humid = read[last], humid[last]
    speaks = ~during(mishaps, MishapKind.UNPLUGGED, times, name)
    step_s = float(times[1] - times[0]) if len(times) > 1 else sensor.every_s
    every = max(1, round(sensor.every_s / step_s))
    speaks &= np.arange(len(times)) % every == 0
    return LoggedProbe(name, times[speaks], read[speaks], humid[speaks])


def _lagged(values: np.ndarray, times: np.ndarray, lag_s: float) -> np.ndarray:
    """First-order follower, begun in equilibrium: a weighted mean of what was."""
    if len(values) < 2:
        return values.copy()
    share = 1.0 - np.exp(-float(times[1] - times[0]) / lag_s)
    # What is left out weighs less than a millionth. scipy.signal would take 2 s to import.
    count = min(len(values), int(np.ceil(np.log(1e-6) / np.log1p(-share)))) if share < 1.0 else 1
    weights = share * (1.0 - share) ** np.arange(count)
    return np.asarray(values[0] + np.convolve(values - values[0], weights)[: len(values)])
