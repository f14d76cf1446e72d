"""How good the forecasts were: error in days, and how often the windows held (rule A8)."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from sandboa.core.development.windows import Window
from sandboa.core.units import SECONDS_PER_DAY

#: Days after lay on which a forecast is kept to be scored (rule A8).
SCORED_DAYS: Final = (0, 30, 50)


@dataclass(frozen=True, slots=True)
class Score:
    """Of `clutches` forecasts made on `day`: mean error and mean size of error in days
    (positive: forecast too late), and how many pips the 50 % and the 80 % window held.

    Those of a `first_season` were made before any clutch of the house had taught something.
    """

    day: int
    first_season: bool
    clutches: int
    bias_days: float
    error_days: float
    in_half: int
    in_eighty: int


def score(
    day: int, forecasts: Sequence[tuple[Window, float]], *, first_season: bool = False
) -> Score | None:
    """Score forecasts of one day: windows, and the mean pip that came (s). None without any.

    First seasons and later ones are scored apart: a house that learned must not hide how wide it
    had to guess before, nor the other way round. Source: rule A8.
    """
    if not forecasts:
        return None
    errors = np.array([(w.p50 - came_s) / SECONDS_PER_DAY for w, came_s in forecasts])
    return Score(
        day,
        first_season,
        len(forecasts),
        float(errors.mean()),
        float(np.abs(errors).mean()),
        sum(w.p25 <= came_s <= w.p75 for w, came_s in forecasts),
        sum(w.p10 <= came_s <= w.p90 for w, came_s in forecasts),
    )
