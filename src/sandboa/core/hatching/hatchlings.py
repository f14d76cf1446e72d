"""Hatchlings: what is recorded of one, what can be true, and when it sheds and eats."""

import math
from enum import StrEnum
from typing import Final

import numpy as np

from sandboa.core.development.delays import Delay
from sandboa.core.development.windows import QUANTILES, Window
from sandboa.core.normal import cdf, quantile
from sandboa.core.units import SECONDS_PER_DAY

#: g a hatchling can weigh (usual 45-85; usual and range: assumption).
HATCHLING_RANGE_G: Final = (10.0, 150.0)
#: Hatchlings one egg can hold: twins are real, triplets have not been believed yet (assumption).
MOST_IN_ONE_EGG: Final = 2


class Sex(StrEnum):
    """Sexing is a trained person's job: "not sexed" is what holds until then."""

    MALE = "male"
    FEMALE = "female"
    NOT_SEXED = "not sexed"


class Size(StrEnum):
    USUAL = "usual"
    SMALL = "small"
    LARGE = "large"


class YolkLeft(StrEnum):
    ABSORBED = "absorbed"
    SOME = "some left"
    MUCH = "much left"


class Defect(StrEnum):
    KINK = "kink"
    CLEFT = "cleft"
    OPEN_BELLY = "open belly"
    NO_EYES = "no eyes"
    OTHER = "other"


def still_to_come(delay: Delay, since_s: float, now_s: float) -> Window:
    """When something will happen that follows `delay` after `since_s` and has not by `now_s`.

    The lognormal waiting time cut off at what has gone by, so no quantile
    lies in the past. Past its 99.9 % it is said to be due now: waiting
    longer than nearly all others says nothing more of how long it will be.
    """
    gone_days = max((now_s - since_s) / SECONDS_PER_DAY, 0.0)
    passed = 0.0
    if gone_days > 0:
        passed = cdf(math.log(gone_days / delay.median_days) / delay.sigma)
    if passed > 0.999:
        return Window(now_s, now_s, now_s, now_s, now_s)
    z = np.array([quantile(passed + (1.0 - passed) * q) for q in QUANTILES])
    days = delay.median_days * np.exp(delay.sigma * z)
    return Window(*(max(since_s + float(d) * SECONDS_PER_DAY, now_s) for d in days))
