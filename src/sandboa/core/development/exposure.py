"""How a stretch of temperature stands to the set point: what colours the ribbon."""

from enum import StrEnum
from typing import Final

from sandboa.core.development.cold_spells import COLD_BELOW_C

#: °C above which harm accumulates (rule E).
HARM_ABOVE_C: Final = 33.5
#: °C off the set point up to which all is fine (rule E).
FINE_OFF_C: Final = 0.5
#: °C off the set point from which a stretch is called cool or warm, and cold or hot (assumption:
#: twice the fine band of rule E, and what costs a day within a week).
NOTICEABLE_C: Final = 2.0 * FINE_OFF_C
LARGE_C: Final = 2.5


class Exposure(StrEnum):
    """In rising order of warmth."""

    COLD = "cold"
    COOL = "cool"
    FINE = "fine"
    WARM = "warm"
    HOT = "hot"


def exposure(mean_c: float, set_point_c: float) -> Exposure:
    """Class of a stretch by its mean and the set point in force (°C both).

    Below 27 or far under the set point: cold; above 33.5 or far over it: hot.
    """
    off = mean_c - set_point_c
    if mean_c < COLD_BELOW_C or off < -LARGE_C:
        return Exposure.COLD
    if mean_c > HARM_ABOVE_C or off > LARGE_C:
        return Exposure.HOT
    if abs(off) < NOTICEABLE_C:
        return Exposure.FINE
    return Exposure.WARM if off > 0 else Exposure.COOL
