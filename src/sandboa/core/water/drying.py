"""How fast a box dries when nobody weighs it: vapour, air exchange, medium (handbook D3)."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.box import Closing
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.core.water.mixing import medium_named

#: Relative humidity of the air in a box with damp medium (handbook D3).
BOX_HUMIDITY: Final = 0.99
#: Effective air exchange by closing, l/day (handbook D3; assumption).
EXCHANGE_L_DAY: Final = {
    Closing.SEALED_FILM: 10.0,
    Closing.PIN_HOLES: 20.0,
    Closing.SMALL_HOLES: 70.0,
    Closing.CRACKED_CORNER: 110.0,
    Closing.LOOSE_LID: 180.0,
}
#: Factor of the medium on it (handbook D3; keeper practice).
MEDIUM_FACTOR: Final = {
    "vermiculite": 0.6,
    "ready-mixed": 0.7,
    "half and half": 0.8,
    "perlite": 1.0,
    "saturated perlite": 1.0,
    "sponges": 1.0,
    "water under a grid": 1.1,
}
#: Sd of the exchange as a factor, before any weighing (handbook D3; assumption).
EXCHANGE_SD_FACTOR: Final = 2.0
_Z80: Final = 1.2815515655446004


@dataclass(frozen=True, slots=True)
class WaterLeft:
    """Share of the set-up water that is left, with its 80 % band, and the loss, g/day."""

    share: float
    share_low: float
    share_high: float
    loss_g_day: float


def vapour_density_g_l(temperature_c: float, humidity: float) -> float:
    """Water in air, g/l, at °C and relative humidity 0-1.

    Magnus form, Alduchov & Eskridge 1996 (J. Appl. Meteorol. 35:601-609);
    within 0.4 % between -40 and 50 °C. Ideal gas.
    """
    saturation_pa = 610.94 * math.exp(17.625 * temperature_c / (temperature_c + 243.04))
    # Molar mass of water over the gas constant: 18.015 g/mol / 8.31446 J/(mol K); m³ to l.
    return humidity * saturation_pa * 18.015 / 8.31446 / (temperature_c + 273.15) / 1000.0


def loss_g_day(
    closing: Closing, medium: str, box_c: float, cabinet_c: float, cabinet_humidity: float
) -> float:
    """Water a box loses a day by its closing and medium (g); >= 0.

    Example of the handbook: perlite, cracked corner, 31.5 °C and 40 %: 2.1 g a day.
    """
    exchange = EXCHANGE_L_DAY[closing] * MEDIUM_FACTOR[medium_named(medium).name]
    inside = vapour_density_g_l(box_c, BOX_HUMIDITY)
    outside = vapour_density_g_l(cabinet_c, cabinet_humidity)
    return exchange * max(inside - outside, 0.0)


def water_left(
    set_up_g: float,
    loss_per_day_g: float,
    set_up_s: float,
    now_s: float,
    poured: Sequence[tuple[float, float]] = (),
) -> WaterLeft:
    """What is left of the water a box was set up with, without any weighing.

    `poured`: (time s, g) of what was added since. The exchange is lognormal
    with a factor of 2: the band is what it makes of the same days. A box is
    never fuller than it was set up, nor emptier than empty.
    """
    spread = EXCHANGE_SD_FACTOR**_Z80
    low, middle, high = (
        _left(set_up_g, loss_per_day_g * factor, set_up_s, now_s, poured)
        for factor in (spread, 1.0, 1.0 / spread)
    )
    return WaterLeft(middle / set_up_g, low / set_up_g, high / set_up_g, loss_per_day_g)


def _left(
    set_up_g: float,
    loss_per_day_g: float,
    set_up_s: float,
    now_s: float,
    poured: Sequence[tuple[float, float]],
) -> float:
    left, since_s = set_up_g, set_up_s
    for at_s, water_g in sorted(p for p in poured if p[0] <= now_s):
        left = max(left - loss_per_day_g * (at_s - since_s) / SECONDS_PER_DAY, 0.0)
        left, since_s = min(left + water_g, set_up_g), at_s
    return max(left - loss_per_day_g * (now_s - since_s) / SECONDS_PER_DAY, 0.0)
