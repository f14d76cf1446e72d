"""Student's t distribution: its quantiles, for the few that are asked for.

`scipy.stats` has them too, but brings a second of imports to every command.
"""

import math
from functools import lru_cache
from typing import Final

import numpy as np

#: Steps in which half of the distribution is summed up, each finer than 1e-4 sds of it.
_ANGLES: Final = 20_001


@lru_cache(maxsize=16)
def quantile(chance: float, freedom: float) -> float:
    """The value below which Student's t with so many degrees of freedom lies with `chance`.

    `chance` above 0 and below 1, `freedom` at least 1; ValueError outside. Right to 1e-6.

    By the angle a = atan(t / sqrt(freedom)), in which the density is cos(a)^(freedom - 1).
    """
    if not 0.0 < chance < 1.0 or freedom < 1.0:
        raise ValueError("Student's t needs a chance between 0 and 1, and a degree of freedom")
    angles = np.linspace(0.0, math.pi / 2.0, _ANGLES)
    density = np.cos(angles) ** (freedom - 1.0)
    cumulative = np.concatenate([[0.0], np.cumsum(density[1:] + density[:-1])])
    side = abs(chance - 0.5) * 2.0
    angle = float(np.interp(side, cumulative / cumulative[-1], angles))
    return math.copysign(math.tan(angle) * math.sqrt(freedom), chance - 0.5)
