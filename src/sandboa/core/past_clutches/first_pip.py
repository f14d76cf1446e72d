"""What a clutch of which only days are known teaches: D at its pip, and how unsure that is."""

import math
from collections.abc import Hashable
from typing import Final

from sandboa.core.development.clock import DEFAULT_CLOCK, DevelopmentClock
from sandboa.core.development.earlier_life import (
    ABOUT_SD_C,
    UNKNOWN_BEFORE_C,
    UNKNOWN_BEFORE_SD_C,
)
from sandboa.core.development.learning import Circumstances, FinishedClutch
from sandboa.core.development.rules import DEFAULT_RULES, ForecastRules
from sandboa.core.normal import quantile

#: Sd (days) of what a day of the calendar leaves open: it was any time of that day.
DAY_SD: Final = 1.0 / math.sqrt(12.0)
#: What stands for the probe of clutches of which a temperature is told, and of those without:
#: whatever it is off by, it is off by in all of them alike.
_TOLD: Final = "cards with a temperature"
_UNTOLD: Final = "cards without a temperature"
#: What stands for their cabinet: which it was, nobody knows.
_CABINET: Final = "cards"


def past_pip(
    dam: Hashable,
    days: float,
    eggs: int,
    kept_c: float | None,
    rules: ForecastRules = DEFAULT_RULES,
    clock: DevelopmentClock = DEFAULT_CLOCK,
) -> FinishedClutch:
    """The lesson of a clutch whose first of `eggs` eggs pipped `days` (> 0) after lay.

    It is taken to have been at `kept_c` (°C) all the time, give or take 1 °C, or where that is None
    at 31 °C give or take 1.5 (both as for eggs from elsewhere). What that is off by is the same
    for all such clutches, as a probe's error is, so that many of them are not sure together of
    what each is not: they teach how dams differ more than how fast the house is. The mean pip is
    later than the first by what the first of so many eggs is early on average (Blom). A first pip
    tells of the mean about as much as one egg's pip does. Source: rules A5, A7.
    """
    mean_days = days + rules.egg_sd_days * _first_is_early(eggs)
    at_c, sd_c = (UNKNOWN_BEFORE_C, UNKNOWN_BEFORE_SD_C) if kept_c is None else (kept_c, ABOUT_SD_C)
    developed = float(clock.rate_per_day(at_c)) * mean_days
    where = Circumstances(
        _CABINET,
        dam,
        at_c,
        _UNTOLD if kept_c is None else _TOLD,
        sd_c / (min(at_c, clock.cap_c) - clock.zero_c),
    )
    return FinishedClutch(where, math.log(developed), math.sqrt(2.0) * DAY_SD / mean_days, 1)


def _first_is_early(eggs: int) -> float:
    """By how many sds the first of so many normal values lies before their mean (Blom 1958)."""
    return -quantile((1.0 - 0.375) / (max(eggs, 1) + 0.25))
