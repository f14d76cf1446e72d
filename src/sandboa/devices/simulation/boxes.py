"""Simulated boxes: how they lose their water. A physics of its own.

Vapour leaves through the closing by diffusion and by air that the cabinet's
swings push in and out; the medium gives it off freely until it is nearly dry.
Saturation after Buck 1981 (J. Appl. Meteorol. 20:1527-1532), not the form
that Sandboa estimates with.
"""

from dataclasses import dataclass

import numpy as np

#: l of air a day that a closing lets through in a still cabinet, and how boxes differ (sd of ln).
_PASSES_L_DAY = {
    "sealed film": (9.0, 0.5),
    "pin holes": (22.0, 0.5),
    "small holes": (75.0, 0.45),
    "cracked corner": (115.0, 0.45),
    "loose lid": (190.0, 0.4),
}
#: How freely a medium gives its water off.
_GIVES = {"vermiculite": 0.62, "perlite": 1.0, "half and half": 0.8}
#: Share of the set-up water below which the surface dries and the loss slows down.
_SURFACE_DRIES = 0.22
#: Share of a day's loss by which days differ: doors, drafts, film lifted.
_DAYS_DIFFER = 0.15
#: g of water a day that one egg takes up in the first two thirds of its time, on average.
_EGG_DRINKS_G = 0.02


@dataclass(frozen=True)
class BoxTruth:
    """A box day by day: water left (g) at the end of each day, and the cabinet's air that day.

    All arrays have shape (days,). `mass_g` is the whole box less what it weighed at set-up.
    """

    water_g: np.ndarray
    mass_g: np.ndarray
    humidity: np.ndarray
    temperature_c: np.ndarray

    def day_at(self, share: float, full_g: float) -> float | None:
        """The day on which the water falls to a share of what it was; None if it never does."""
        below = np.flatnonzero(self.water_g <= share * full_g)
        if not len(below):
            return None
        last = int(below[0])
        before = full_g if last == 0 else float(self.water_g[last - 1])
        lost = before - float(self.water_g[last])
        return last + (before - share * full_g) / lost if lost > 0 else float(last + 1)


@dataclass(frozen=True, slots=True)
class BoxMade:
    """A box as it was made: its closing, its medium with `full_g` of water, and its eggs."""

    closing: str
    medium: str
    full_g: float
    eggs: int


def dry_out(
    box: BoxMade, days: int, temperature_c: float, humidity: float, random: np.random.Generator
) -> BoxTruth:
    """Let a box stand for `days` in a cabinet of that mean temperature and relative humidity."""
    full_g, eggs = box.full_g, box.eggs
    typical, differ = _PASSES_L_DAY[box.closing]
    passes = typical * np.exp(random.normal(0.0, differ)) * _GIVES[box.medium]
    air = np.clip(humidity + _weather(days, 0.05, random), 0.15, 0.97)
    warmth = temperature_c + _weather(days, 0.25, random)
    per_day = passes * np.maximum(0.985 - air, 0.0) * saturated_g_l(warmth)
    per_day *= np.exp(random.normal(0.0, _DAYS_DIFFER, days))
    thirst = _EGG_DRINKS_G * random.gamma(2.0, 0.5)
    water = np.empty(days)
    left, drunk = full_g, np.zeros(days)
    for day in range(days):
        surface = min(1.0, left / (_SURFACE_DRIES * full_g))
        drinks = eggs * thirst if day < 40 else 0.0
        taken = min(per_day[day] * surface + drinks, left)
        left -= taken
        drunk[day] = min(drinks, taken)
        water[day] = left
    # What eggs drink stays in the box: the scale does not see it go.
    return BoxTruth(water, water - full_g + np.cumsum(drunk), air, warmth)


def saturated_g_l(temperature_c: np.ndarray) -> np.ndarray:
    """Buck 1981, over water; g/l."""
    pressure_pa = 611.21 * np.exp(
        (18.678 - temperature_c / 234.5) * temperature_c / (257.14 + temperature_c)
    )
    return np.asarray(pressure_pa / (461.5 * (temperature_c + 273.15)))


def _weather(days: int, sd: float, random: np.random.Generator) -> np.ndarray:
    """Slow changes from day to day around nothing."""
    out = np.empty(days)
    at = random.normal(0.0, sd)
    for day in range(days):
        at = 0.8 * at + random.normal(0.0, sd * 0.6)
        out[day] = at
    return out
