"""Days from a sign to the first egg: the usual ones, and how a keeper's own shift them.

To change a usual interval, change `INTERVALS`; tests/core/test_laying.py guards it.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

import numpy as np

from sandboa.core.errors import NotPlausible
from sandboa.core.units import Z80


class Sign(StrEnum):
    """What is seen of a dam: what announces a clutch (rule P1), and illness, which bears on it."""

    OFF_FOOD = "off food"
    OVULATION = "ovulation"
    PRE_LAY_SHED = "pre-lay shed"
    ILL = "ill"


#: In the order in which they come; going off food alone forecasts nothing.
OFFERED_SIGNS: Final = (Sign.OFF_FOOD, Sign.OVULATION, Sign.PRE_LAY_SHED)

#: z of the 90th percentile: `low`..`high` of an interval hold 80 % (assumption).
_Z_USUAL: Final = Z80


@dataclass(frozen=True, slots=True)
class LayInterval:
    """Days from a sign to laying: `median`, and the usual range `low`..`high` (80 %)."""

    median_days: float
    low_days: float
    high_days: float

    @property
    def sd_days(self) -> float:
        """One standard deviation in days, the mean of both sides."""
        return (self.high_days - self.low_days) / (2.0 * _Z_USUAL)

    def days_at(self, z: float, spread: float = 1.0) -> float:
        """Days at `z` standard deviations; the two sides of the median differ in width."""
        side = self.median_days - self.low_days if z < 0 else self.high_days - self.median_days
        return self.median_days + spread * side * z / _Z_USUAL

    def z_of(self, days: float, spread: float = 1.0) -> float:
        """The inverse of `days_at`."""
        side = (
            self.median_days - self.low_days
            if days < self.median_days
            else self.high_days - self.median_days
        )
        return (days - self.median_days) * _Z_USUAL / (spread * side)


#: Rule P1 (keeper practice).
INTERVALS: Final = {
    Sign.OVULATION: LayInterval(44.0, 38.0, 54.0),
    Sign.PRE_LAY_SHED: LayInterval(30.0, 26.0, 38.0),
}

#: Days an interval can have at all, to be learned from (assumption): beyond is a slip.
_BELIEVABLE: Final = {Sign.OVULATION: (25.0, 75.0), Sign.PRE_LAY_SHED: (14.0, 55.0)}

#: Shares of the usual spread that belong to the house and to the dam; the rest to chance
#: (assumption, to be replaced by many keepers' records).
HOUSE_SHARE: Final = 0.15
DAM_SHARE: Final = 0.25


@dataclass(frozen=True, slots=True)
class PastInterval:
    """One clutch of this house: which dam (any id), and days from the sign to the first egg."""

    dam: int
    days: float


@dataclass(frozen=True, slots=True)
class Learned:
    """What the house's own clutches change.

    `shift_days` moves the whole usual window; `spread` (0-1) narrows it;
    `of_dam` and `of_house` count the clutches it rests on.
    """

    shift_days: float = 0.0
    spread: float = 1.0
    of_dam: int = 0
    of_house: int = 0


def believable(sign: Sign, days: float) -> bool:
    """Whether an interval can be learned from at all."""
    low, high = _BELIEVABLE[sign]
    return low <= days <= high


def learn(sign: Sign, past: Sequence[PastInterval], dam: int) -> Learned:
    """Shift and narrow the usual interval by the house's own clutches, dam by dam.

    An interval is the usual one, plus a shift of this house, plus a shift of
    this dam, plus chance, each normal with its share of the usual variance.
    The best guess for the dam's next clutch is their posterior mean, so few
    clutches move it a little and many of the same dam move it most.

    Raises NotPlausible for a sign that forecasts nothing (off food) and
    ValueError for intervals that are not finite. Order plays no part.
    Source: normal-normal shrinkage, as in rule A7; shares are assumptions.
    """
    interval = _interval(sign)
    if not past:
        return Learned()
    days = np.array([p.days for p in past], dtype=np.float64)
    if not np.isfinite(days).all():
        raise ValueError("intervals must be finite")
    dams = np.array([p.dam for p in past])
    variance = interval.sd_days**2
    house, own = HOUSE_SHARE * variance, DAM_SHARE * variance
    same_dam = dams[:, None] == dams[None, :]
    chance = (1.0 - HOUSE_SHARE - DAM_SHARE) * variance
    covariance = house + own * same_dam + chance * np.eye(len(days))
    towards_next = house + own * (dams == dam)
    weights = np.linalg.solve(covariance, towards_next)
    left = variance - float(weights @ towards_next)
    return Learned(
        shift_days=float(weights @ (days - interval.median_days)),
        spread=math.sqrt(max(left, 0.0) / variance),
        of_dam=int((dams == dam).sum()),
        of_house=len(days),
    )


def _interval(sign: Sign) -> LayInterval:
    try:
        return INTERVALS[sign]
    except KeyError:
        raise NotPlausible("sign", f"{sign} says nothing about when she lays") from None
