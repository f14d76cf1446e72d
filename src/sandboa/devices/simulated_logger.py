"""A simulated logger: what a real one in a heated cabinet would have written.

It yields the same rows that a CSV file or a live logger brings in, and goes
through the same intake. Its physics is its own; the forecast is not imported.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

#: (time s, °C, relative humidity 0-1)
SimulatedRow = tuple[int, float, float]

_DAY_S = 86_400.0


@dataclass(frozen=True, slots=True)
class Spell:
    """A stretch during which the place drifts to another temperature, and back after it."""

    start_s: float
    end_s: float
    towards_c: float


@dataclass(frozen=True, slots=True)
class SimulatedLogger:
    """A probe at a place held near `held_c` by a thermostat.

    offset_c: the place against the set point. ripple_c: half the thermostat's
    sawtooth. room_c: half the swing that a day and a night leave.
    time_constant_s: how fast the place follows when heat or fan fail.
    """

    held_c: float
    offset_c: float = 0.0
    ripple_c: float = 0.15
    room_c: float = 0.12
    noise_c: float = 0.04
    humidity: float = 0.9
    time_constant_s: float = 5400.0
    step_c: float = 0.1
    spells: Sequence[Spell] = ()

    def rows(
        self, start_s: float, end_s: float, every_s: float, seed: int, silent: Sequence[Spell] = ()
    ) -> list[SimulatedRow]:
        """Readings from start to end, one every `every_s`; none during `silent`."""
        random = np.random.default_rng(seed)
        times = np.arange(start_s, end_s, every_s)
        place = self.held_c + self.offset_c + self._drift(times)
        place += self.room_c * np.sin(2 * np.pi * (times / _DAY_S - 0.4))
        place += self.ripple_c * (2 * np.abs((times / 1500.0) % 1.0 - 0.5) - 0.5)
        read = place + random.normal(0.0, self.noise_c, len(times))
        read = np.round(read / self.step_c) * self.step_c
        humid = np.clip(self.humidity + random.normal(0.0, 0.006, len(times)), 0.0, 1.0)
        speaks = np.ones(len(times), bool)
        for gap in silent:
            speaks &= (times < gap.start_s) | (times > gap.end_s)
        return [
            (int(t), round(float(c), 2), round(float(h), 3))
            for t, c, h in zip(times[speaks], read[speaks], humid[speaks], strict=True)
        ]

    def _drift(self, times: np.ndarray) -> np.ndarray:
        """Exponential approach to each spell's temperature, and exponential return."""
        drift = np.zeros(len(times))
        for spell in self.spells:
            depth = spell.towards_c - (self.held_c + self.offset_c)
            into = np.clip(times - spell.start_s, 0.0, spell.end_s - spell.start_s)
            reached = depth * (1.0 - np.exp(-into / self.time_constant_s))
            after = np.clip(times - spell.end_s, 0.0, None)
            drift += reached * np.exp(-after / self.time_constant_s)
        return drift
