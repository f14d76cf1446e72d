"""The numbers of a forecast, as the house uses them (rules A3, A5 to A7, A9)."""

import math
from dataclasses import dataclass
from typing import Final

#: Sds of ln D at the typical pip before anything is known (rule A3; assumption): what is the
#: house's, its cabinets', its dams' own, and what is left to chance from clutch to clutch.
HOUSE_SD: Final = 0.025
CABINET_SD: Final = 0.015
DAM_SD: Final = 0.015
CHANCE_SD: Final = 0.042
#: Between which chance is learned (rule A3), and the sd of its logarithm before (assumption);
#: its mean is CHANCE_SD then.
CHANCE_RANGE: Final = (0.02, 0.10)
CHANCE_LOG_SD: Final = 0.5
#: Sds of what the temperature norm is off by, in ln D per °C and per °C² (rule A7; assumption).
SLOPE_SD: Final = 0.02
CURVATURE_SD: Final = 0.006
#: days (1 sd) by which eggs of one clutch differ, between which it is learned, and how many
#: clutches that prior is worth (rule A5).
EGG_SD_DAYS: Final = 1.0
EGG_SD_RANGE_DAYS: Final = (0.4, 3.0)
EGG_SD_WORTH_CLUTCHES: Final = 4.0
#: How many houses, cabinets, dams or norms each of their sds is worth: it is learned from those
#: that the house has (assumption).
EFFECT_SD_WORTH: Final = 4.0
#: Degrees of freedom of chance, so that one wrong lay date does not move a house (rule A7).
CHANCE_FREEDOM: Final = 4.0
#: Chance that no egg of a clutch will pip, where nothing is known of its eggs (rule A6).
NONE_ALIVE: Final = 0.04
#: factor on the uncertainty when the dam incubates (rule A9).
MATERNAL_FACTOR: Final = 2.0


@dataclass(frozen=True, slots=True)
class ForecastRules:
    """Numbers in force. Sds are of ln D, `slope_sd` per °C, `curvature_sd` per °C²; `egg_sd_days`
    is in days."""

    house_sd: float = HOUSE_SD
    cabinet_sd: float = CABINET_SD
    dam_sd: float = DAM_SD
    chance_sd: float = CHANCE_SD
    slope_sd: float = SLOPE_SD
    curvature_sd: float = CURVATURE_SD
    egg_sd_days: float = EGG_SD_DAYS

    @property
    def untaught_sd(self) -> float:
        """Sd of ln D at the typical pip of a house's first clutch; 0.053 by default."""
        return math.hypot(self.house_sd, self.cabinet_sd, self.dam_sd, self.chance_sd)


DEFAULT_RULES: Final = ForecastRules()
