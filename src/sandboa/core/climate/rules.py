"""The numbers of a climate, as the house uses them (rules E, P6)."""

from dataclasses import dataclass
from typing import Final

from sandboa.core.climate.probe_checks import SATURATED_HUMIDITY
from sandboa.core.development.cold_spells import COLD_BELOW_C
from sandboa.core.development.exposure import FINE_OFF_C, HARM_ABOVE_C
from sandboa.core.units import SECONDS_PER_HOUR

#: (°C, s) above which, for which, it is an emergency; and below which (rule E).
HOT_EMERGENCIES: Final = ((35.0, 6.0 * SECONDS_PER_HOUR), (37.0, 1.0 * SECONDS_PER_HOUR))
COLD_EMERGENCY: Final = (20.0, 24.0 * SECONDS_PER_HOUR)
#: °C off the set point from which a keeper is told (assumption: three times what is fine).
OFF_TARGET_C: Final = 3.0 * FINE_OFF_C
#: °C of swing over 24 h: up to the first good, up to the second to be watched, beyond it to act on.
SWING_C: Final = (1.0, 2.0)
#: °C a place's day is off its target to count (assumption: half again of what is fine).
LASTING_OFF_C: Final = 1.5 * FINE_OFF_C
#: °C by which a place warms or cools over two weeks to be told (assumption).
SLOW_CHANGE_C: Final = 0.6
#: Relative humidity by which a cabinet's air falls from the week before to be told (assumption:
#: in a dry room it makes a box lose half as much again).
HUMIDITY_FALL: Final = 0.15
#: Relative humidity in a box below which it is dry (rule E: 0.90 to 1.00).
DRY_BOX_BELOW: Final = 0.90
#: °C between lowest and highest reading of a day, and °C the mean may lie off target, of a cabinet
#: that is ready (rule P6).
DAILY_SWING_C: Final = 1.0
MEAN_OFF_C: Final = 0.5


@dataclass(frozen=True, slots=True)
class ClimateRules:
    """Numbers in force: °C, s, and relative humidity 0-1, each named as its default is."""

    fine_off_c: float = FINE_OFF_C
    swing_good_c: float = SWING_C[0]
    saturated_humidity: float = SATURATED_HUMIDITY
    harm_above_c: float = HARM_ABOVE_C
    slow_below_c: float = COLD_BELOW_C
    hot_emergencies: tuple[tuple[float, float], ...] = HOT_EMERGENCIES
    cold_emergency: tuple[float, float] = COLD_EMERGENCY
    off_target_c: float = OFF_TARGET_C
    swing_c: float = SWING_C[1]
    lasting_off_c: float = LASTING_OFF_C
    slow_change_c: float = SLOW_CHANGE_C
    humidity_fall: float = HUMIDITY_FALL
    dry_box_below: float = DRY_BOX_BELOW
    ready_swing_c: float = DAILY_SWING_C
    ready_off_c: float = MEAN_OFF_C


DEFAULT_CLIMATE: Final = ClimateRules()
