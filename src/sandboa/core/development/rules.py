"""The numbers of a forecast, as the house uses them (rules A3, A5 to A7, A9)."""

import math
from dataclasses import dataclass
from typing import Final

from sandboa.core.development.delays import Delay

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
#: Chance from which it is told beside the window (rule A6).
TOLD_FROM: Final = 0.20
#: Chance from which no date is given: hardly anything speaks for one any more (rule A6).
NO_DATE_FROM: Final = 0.80
#: Sds from the forecast beyond which a pip is asked about (rule A6).
ASKED_FROM_SDS: Final = 3.5
#: pip to emergence (rule A5, keeper practice).
EMERGENCE: Final = Delay(median_days=1.3, sigma=0.4)
#: emergence to first shed: 80 % within 5-10 days (range: rule A5; shape: assumption).
FIRST_SHED_WITHIN_DAYS: Final = (5.0, 10.0)
FIRST_SHED: Final = Delay.within(*FIRST_SHED_WITHIN_DAYS)
#: first shed to first meal: it is offered after the shed, taken within some days (assumption).
FIRST_MEAL: Final = Delay(median_days=2.0, sigma=0.6)
#: factor on the uncertainty when the dam incubates (rule A9).
MATERNAL_FACTOR: Final = 2.0


@dataclass(frozen=True, slots=True)
class ForecastRules:
    """Numbers in force. Sds are of ln D, `slope_sd` per °C, `curvature_sd` per °C²; `egg_sd_days`
    is in days, learned between `egg_sd_low_days` and `egg_sd_high_days` as worth
    `egg_sd_worth_clutches`; how far those of one kind differ is worth `effect_sd_worth` of them.
    Chance is learned between `chance_low_sd` and `chance_high_sd`, the logarithm of it being sure
    to `chance_log_sd` before, as Student's t with `chance_freedom` degrees. `told_from` and
    `no_date_from` are chances (0-1) that nothing is alive, `asked_from_sds` how far out a pip must
    be to be asked about.
    `emergence`, `first_shed` and `first_meal` follow one another after the pip."""

    house_sd: float = HOUSE_SD
    cabinet_sd: float = CABINET_SD
    dam_sd: float = DAM_SD
    chance_sd: float = CHANCE_SD
    slope_sd: float = SLOPE_SD
    curvature_sd: float = CURVATURE_SD
    egg_sd_days: float = EGG_SD_DAYS
    egg_sd_low_days: float = EGG_SD_RANGE_DAYS[0]
    egg_sd_high_days: float = EGG_SD_RANGE_DAYS[1]
    egg_sd_worth_clutches: float = EGG_SD_WORTH_CLUTCHES
    effect_sd_worth: float = EFFECT_SD_WORTH
    chance_low_sd: float = CHANCE_RANGE[0]
    chance_high_sd: float = CHANCE_RANGE[1]
    chance_log_sd: float = CHANCE_LOG_SD
    chance_freedom: float = CHANCE_FREEDOM
    told_from: float = TOLD_FROM
    no_date_from: float = NO_DATE_FROM
    asked_from_sds: float = ASKED_FROM_SDS
    maternal_factor: float = MATERNAL_FACTOR
    emergence: Delay = EMERGENCE
    first_shed: Delay = FIRST_SHED
    first_meal: Delay = FIRST_MEAL

    @property
    def untaught_sd(self) -> float:
        """Sd of ln D at the typical pip of a house's first clutch; 0.053 by default."""
        return math.hypot(self.house_sd, self.cabinet_sd, self.dam_sd, self.chance_sd)


DEFAULT_RULES: Final = ForecastRules()
