"""From what size on something in the readings is a fault, as the house has it (rule E)."""

from dataclasses import dataclass
from typing import Final

#: °C a power cut makes at least, and s it lasts at least (assumption: shorter ones harm nothing).
POWER_C: Final = 0.8
POWER_S: Final = 1_200.0
#: °C an open door costs at least, and s it must stand open to be told: a visit is shorter
#: (assumption).
DOOR_C: Final = 0.4
DOOR_S: Final = 1_500.0
#: Relative humidity lost at once when the door opens (assumption).
DOOR_HUMIDITY: Final = 0.05
#: °C by which shelves part from each other, and h it lasts, when the fan stands (assumption).
APART_C: Final = 0.8
APART_HOURS: Final = 1.5
#: °C from top to bottom of the sawtooth (rule E).
SAWTOOTH_C: Final = 1.0
#: h a probe tells the same to the last digit, at least (rule E: "for hours"; assumption).
STUCK_HOURS: Final = 3.0
#: °C of a step in one probe, and of any step of the others beside it (assumption).
STEP_C: Final = 0.8
#: °C a drift amounts to before it is told, and days it takes at least (assumption).
DRIFT_C: Final = 0.3
DRIFT_DAYS: Final = 8
#: °C by which eggs warm their place (rule E: 0.3 to 1; less is not told apart from drift).
EGG_HEAT_C: Final = (0.25, 1.5)


@dataclass(frozen=True, slots=True)
class FaultRules:
    """Numbers in force: °C, s, h, days, relative humidity 0-1, each named as its default is."""

    power_c: float = POWER_C
    power_s: float = POWER_S
    door_c: float = DOOR_C
    door_s: float = DOOR_S
    door_humidity: float = DOOR_HUMIDITY
    apart_c: float = APART_C
    apart_hours: float = APART_HOURS
    sawtooth_c: float = SAWTOOTH_C
    stuck_hours: float = STUCK_HOURS
    step_c: float = STEP_C
    drift_c: float = DRIFT_C
    drift_days: float = float(DRIFT_DAYS)
    egg_heat_low_c: float = EGG_HEAT_C[0]
    egg_heat_high_c: float = EGG_HEAT_C[1]


DEFAULT_FAULTS: Final = FaultRules()
