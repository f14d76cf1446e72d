"""Air in a closed box: what the eggs use and what the closing lets in (rule F)."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from sandboa.core.box import Closing
from sandboa.core.errors import NotPlausible
from sandboa.core.units import SECONDS_PER_HOUR, Z80
from sandboa.core.water.drying import DEFAULT_EXCHANGE, ExchangeRules
from sandboa.core.water.estimate import Exchange

#: Oxygen in fresh air, volume share.
FRESH: Final = 0.209
#: (share developed, ml O2 an hour of one egg), rule F (assumption).
USE_ML_HOUR: Final = ((0.2, 0.3), (0.5, 1.0), (0.85, 3.0))
#: Factor by which eggs differ in it (rule F; taken as an 80 % band).
USE_FACTOR: Final = 2.0
#: Oxygen below which airing is advised (rule F).
AIR_BELOW: Final = 0.17
#: Sd of ln exchange that the weighings of a box leave open for its air: they tell of water, which
#: a medium gives off more or less freely than its factor says (assumption).
WEIGHED_AIR_SD: Final = 0.25
#: l of free air in a box whose size nobody gave (assumption).
FREE_AIR_L: Final = 5.0


@dataclass(frozen=True, slots=True)
class AirRules:
    """Numbers in force: (share developed, ml O2 an hour of one egg) in rising order, the factor by
    which eggs differ in it, the oxygen below which airing is advised, l of free air in a box."""

    use_ml_hour: tuple[tuple[float, float], ...] = USE_ML_HOUR
    use_factor: float = USE_FACTOR
    below: float = AIR_BELOW
    free_air_l: float = FREE_AIR_L


DEFAULT_AIR: Final = AirRules()


@dataclass(frozen=True, slots=True)
class Oxygen:
    """Estimated volume share of oxygen, with its 80 % band; airing is advised under `below`."""

    share: float
    low: float
    high: float
    below: float = AIR_BELOW

    @property
    def advise_airing(self) -> bool:
        """Whether it is more likely than not below that."""
        return self.share < self.below

    @property
    def may_need_airing(self) -> bool:
        """Whether it may be below that, though it likely is not."""
        return not self.advise_airing and self.low < self.below


def oxygen_use_ml_hour(development: float, rules: AirRules = DEFAULT_AIR) -> float:
    """ml of O2 one egg uses in an hour at share `development` (0-2).

    Between three points on a logarithmic scale; before them in
    proportion to what is developed, after 85 % as there (it peaks near hatch).
    Raises NotPlausible outside 0-2.
    """
    if not 0.0 <= development <= 2.0:
        raise NotPlausible("development", f"share developed {development:g} is outside 0 to 2")
    shares, uses = zip(*rules.use_ml_hour, strict=True)
    if development <= shares[0]:
        return float(uses[0] * development / shares[0])
    return math.exp(float(np.interp(development, shares, np.log(uses))))


def oxygen(
    eggs: Sequence[float],
    closing: Closing,
    since_opened_s: float,
    *,
    air: AirRules = DEFAULT_AIR,
    rules: ExchangeRules = DEFAULT_EXCHANGE,
    learned: Exchange | None = None,
) -> Oxygen:
    """Oxygen in a box `since_opened_s` seconds after it was last full of fresh air.

    `eggs` are the shares developed (0-2) of its live eggs, in any order. `learned` is what its
    weighings, or those of other boxes, made of the closing's exchange; a factor of 2 without.

    The air in the box is mixed: dC/dt = Q/V (fresh - C) - use/V. Exchange and
    use are each lognormal; the band is what both make of it. Raises
    NotPlausible for a negative time, no free air, or a share out of range.
    """
    if since_opened_s < 0 or air.free_air_l <= 0:
        raise NotPlausible("since_opened", "time since opening and free air must be positive")
    known = learned or Exchange()
    exchange_l_hour = rules.l_day(closing) / 24.0 * math.exp(known.mean)
    use_l_hour = math.fsum(oxygen_use_ml_hour(share, air) for share in eggs) / 1000.0
    hours = since_opened_s / SECONDS_PER_HOUR
    exchange_sd = math.hypot(known.sd, WEIGHED_AIR_SD) if learned else known.sd
    of_eggs, of_closing = math.log(air.use_factor), Z80 * exchange_sd
    spread = math.hypot(of_eggs, of_closing)
    levels = [
        # Each moves the level the same way; of the spread each takes the part that it makes.
        _level(
            use_l_hour * math.exp(side * of_eggs**2 / spread),
            exchange_l_hour * math.exp(-side * of_closing**2 / spread),
            air.free_air_l,
            hours,
        )
        for side in (-1.0, 0.0, 1.0)
    ]
    return Oxygen(levels[1], levels[2], levels[0], air.below)


def _level(use_l_hour: float, exchange_l_hour: float, free_air_l: float, hours: float) -> float:
    settled = use_l_hour / exchange_l_hour
    done = -math.expm1(-exchange_l_hour / free_air_l * hours)
    return max(FRESH - settled * done, 0.0)
