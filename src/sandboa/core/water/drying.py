"""How fast a box dries when nobody weighs it: vapour, air exchange, medium (rule D3)."""

import math
from dataclasses import dataclass, field
from typing import Final

from sandboa.core.box import Closing
from sandboa.core.climate.probe_checks import SATURATED_HUMIDITY
from sandboa.core.units import Z80
from sandboa.core.water.mixing import medium_named
from sandboa.core.water.rules import DEFAULT_WATER, WaterRules

#: Relative humidity of the air in a box with damp medium (rule D3).
BOX_HUMIDITY: Final = 0.99
#: Effective air exchange by closing, l/day (rule D3; assumption).
EXCHANGE_L_DAY: Final = {
    Closing.SEALED_FILM: 10.0,
    Closing.PIN_HOLES: 20.0,
    Closing.SMALL_HOLES: 70.0,
    Closing.CRACKED_CORNER: 110.0,
    Closing.LOOSE_LID: 180.0,
}
#: Factor of the medium on it (rule D3; keeper practice).
MEDIUM_FACTOR: Final = {
    "vermiculite": 0.6,
    "ready-mixed": 0.7,
    "half and half": 0.8,
    "perlite": 1.0,
    "saturated perlite": 1.0,
    "sponges": 1.0,
    "water under a grid": 1.1,
    "damp paper": 1.0,
}
#: Sd of the exchange as a factor, before any weighing (rule D3; assumption).
EXCHANGE_SD_FACTOR: Final = 2.0


def vapour_density_g_l(temperature_c: float, humidity: float) -> float:
    """Water in air, g/l, at °C and relative humidity 0-1.

    Magnus form, Alduchov & Eskridge 1996 (J. Appl. Meteorol. 35:601-609);
    within 0.4 % between -40 and 50 °C. Ideal gas.
    """
    saturation_pa = 610.94 * math.exp(17.625 * temperature_c / (temperature_c + 243.04))
    # Molar mass of water over the gas constant: 18.015 g/mol / 8.31446 J/(mol K); m³ to l.
    return humidity * saturation_pa * 18.015 / 8.31446 / (temperature_c + 273.15) / 1000.0


@dataclass(frozen=True)
class ExchangeRules:
    """Air exchange (l/day) and medium factor in force; what is not set is the default."""

    exchange_l_day: dict[Closing, float] = field(default_factory=dict)
    medium_factor: dict[str, float] = field(default_factory=dict)
    sd_factor: float = EXCHANGE_SD_FACTOR
    box_humidity: float = BOX_HUMIDITY
    saturated_humidity: float = SATURATED_HUMIDITY

    def l_day(self, closing: Closing) -> float:
        """Effective air exchange of a closing."""
        return self.exchange_l_day.get(closing, EXCHANGE_L_DAY[closing])

    def factor(self, medium: str) -> float:
        """What the medium makes of it; NotPlausible for one not known."""
        name = medium_named(medium).name
        return self.medium_factor.get(name, MEDIUM_FACTOR[name])


DEFAULT_EXCHANGE: Final = ExchangeRules()


def loss_g_day(
    closing: Closing,
    medium: str,
    box_c: float,
    cabinet_c: float,
    cabinet_humidity: float,
    rules: ExchangeRules = DEFAULT_EXCHANGE,
) -> float:
    """Water a box loses a day by its closing and medium (g); > 0: also in a damp cabinet a little.

    A cabinet humidity of 97 % or more is a sensor at its end, which says
    "saturated" and no number: it counts as 97 %.

    Example: perlite, cracked corner, 31.5 °C and 40 %: 2.1 g a day.
    """
    inside = vapour_density_g_l(box_c, rules.box_humidity)
    outside = vapour_density_g_l(cabinet_c, min(cabinet_humidity, rules.saturated_humidity))
    return rules.l_day(closing) * rules.factor(medium) * max(inside - outside, 0.0)


def unmeasured_air_sd(rules: WaterRules = DEFAULT_WATER) -> float:
    """Sd of ln loss for not knowing the cabinet's humidity: half the log width of its 80 % range.

    A box loses in proportion to how much drier the cabinet is than the box.
    """
    dry, damp = rules.unknown_humidity_low, rules.unknown_humidity_high
    return math.log((BOX_HUMIDITY - dry) / (BOX_HUMIDITY - damp)) / 2.0 / Z80
