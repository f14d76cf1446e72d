"""Simulated eggs: how they develop, warm their box, and when they pip. A biology of its own.

Rate of development after Brière et al. 1999 (Environ. Entomol. 28:22-29), a
curve with two zeros: not the straight line that Sandboa forecasts with.
"""

from dataclasses import dataclass

import numpy as np

#: °C between which eggs develop, and the scale that gives 58 days at 31.67 °C (assumption).
_LOWEST_C = 21.0
_HIGHEST_C = 38.5
_SCALE = 1.0 / (58.0 * 31.67 * (31.67 - _LOWEST_C) * np.sqrt(_HIGHEST_C - 31.67))
#: W an egg gives off at its peak: some 5 ml of oxygen an hour at 20 J/ml (assumption). In a
#: closed box that loses 0.35 W/K six of them make half a degree.
_PEAK_W = 0.03
_EGG_SD_DAYS = 1.0
_DAY_S = 86_400.0


@dataclass(frozen=True)
class SimulatedClutch:
    """`eggs` laid at `laid_s` on a shelf. `pace` is ln of the development its eggs need."""

    laid_s: float
    eggs: int
    shelf: int
    pace: float = 0.0


def rate_per_day(temperature_c: np.ndarray) -> np.ndarray:
    """Share of development per day, >= 0; shape of `temperature_c`."""
    within = np.clip(temperature_c, _LOWEST_C, _HIGHEST_C)
    return np.asarray(
        _SCALE * within * (within - _LOWEST_C) * np.sqrt(np.maximum(_HIGHEST_C - within, 0.0))
    )


def developed(clutch: SimulatedClutch, times_s: np.ndarray, box_c: np.ndarray) -> np.ndarray:
    """Development at each time, 0 before lay, 1 when the typical egg pips; shape (n,)."""
    step_days = np.diff(times_s, prepend=times_s[0]) / _DAY_S
    gained = np.where(times_s > clutch.laid_s, rate_per_day(box_c) * step_days, 0.0)
    return np.asarray(np.cumsum(gained) / np.exp(clutch.pace))


def pip_times(
    clutch: SimulatedClutch,
    times_s: np.ndarray,
    box_c: np.ndarray,
    random: np.random.Generator,
) -> np.ndarray | None:
    """When each egg pips (s), in order; None when the record ends before the typical one."""
    reached = developed(clutch, times_s, box_c)
    if reached[-1] < 1.0:
        return None
    typical = float(np.interp(1.0, reached, times_s))
    apart = random.normal(0.0, _EGG_SD_DAYS * _DAY_S, clutch.eggs)
    return np.sort(typical + apart)


def heat_w(development: np.ndarray, eggs: int) -> np.ndarray:
    """Metabolic heat of a clutch (W): highest near 0.88 of term, gone once they are out."""
    grown = np.exp(-(((development - 0.88) / 0.26) ** 2))
    return np.asarray(eggs * _PEAK_W * np.where(development < 1.03, grown, 0.0))
