"""Back to weight: how much is missing, how fast it comes, and when it will be there."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from sandboa.core.units import SECONDS_PER_DAY, Z80

#: g (1 sd) by which a fed or emptied dam's weight differs from her true one (assumption).
WEIGHING_SD_G: Final = 25.0
#: Days two weighings must lie apart before a rate is read from them (assumption).
LEAST_DAYS: Final = 6.0
#: g/day a recovering dam can gain at most, for a forecast to be made (assumption).
FASTEST_G_PER_DAY: Final = 40.0


@dataclass(frozen=True, slots=True)
class Weighing:
    """A weight (g) and when it was taken (s)."""

    at_s: float
    mass_g: float


@dataclass(frozen=True, slots=True)
class Recovery:
    """Where a dam stands after laying.

    `missing_g` is 0 once the target is reached. `gain_g_per_day` is None
    until two weighings lie apart far enough. `expected_s` with its 80 %
    window `early_s`..`late_s` is None while nothing can be said; `late_s`
    alone is None when the gain is too uncertain to set a latest date.
    `falling`: she lost weight since the weighing after laying, by more than
    weighing can err.
    """

    latest_g: float
    missing_g: float
    reached: bool
    falling: bool
    gain_g_per_day: float | None
    expected_s: float | None
    early_s: float | None
    late_s: float | None


def recovery(since_laying: Sequence[Weighing], target_g: float) -> Recovery | None:
    """Straight line through the weighings since laying, and when it meets the target.

    `since_laying` in any order; None when it is empty. The line is fitted by
    least squares with a known error of 25 g a weighing; the 80 % window
    follows from the slope's error. Assumption: over the weeks of recovery the
    gain is steady.
    """
    if not since_laying:
        return None
    rows = sorted(since_laying, key=lambda w: w.at_s)
    latest = rows[-1]
    missing = max(0.0, target_g - latest.mass_g)
    days = np.array([(w.at_s - rows[0].at_s) / SECONDS_PER_DAY for w in rows])
    mass = np.array([w.mass_g for w in rows])
    apart = float(days[-1]) >= LEAST_DAYS
    falling = apart and latest.mass_g < rows[0].mass_g - WEIGHING_SD_G
    if not apart:
        return Recovery(latest.mass_g, missing, missing == 0, falling, None, None, None, None)
    centred = days - days.mean()
    spread = float(centred @ centred)
    gain = float(centred @ mass) / spread
    gain_sd = WEIGHING_SD_G / spread**0.5
    if missing == 0 or gain <= 0 or gain > FASTEST_G_PER_DAY:
        return Recovery(latest.mass_g, missing, missing == 0, falling, gain, None, None, None)
    fitted_now = float(mass.mean()) + gain * float(days[-1] - days.mean())
    to_go = max(target_g - fitted_now, 0.0)

    def met(rate: float) -> float:
        return latest.at_s + to_go / rate * SECONDS_PER_DAY

    slow = gain - Z80 * gain_sd
    return Recovery(
        latest.mass_g,
        missing,
        reached=False,
        falling=falling,
        gain_g_per_day=gain,
        expected_s=met(gain),
        early_s=met(gain + Z80 * gain_sd),
        late_s=met(slow) if slow > 0 else None,
    )
