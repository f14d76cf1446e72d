"""The standard normal distribution, from Python's own library.

`scipy.special` has it too, but brings a second of imports to every command
that asks for a quantile.
"""

import math
from statistics import NormalDist
from typing import Final

import numpy as np
import numpy.typing as npt

_STANDARD: Final = NormalDist()
_SQRT_2: Final = math.sqrt(2.0)
_erfc: Final = np.vectorize(math.erfc, otypes=[np.float64])


def cdf(z: float) -> float:
    """Chance of a value below `z` standard deviations; exact far into either tail."""
    return 0.5 * math.erfc(-z / _SQRT_2)


def cdf_of(z: npt.NDArray[np.float64]) -> npt.NDArray[np.float64]:
    """As `cdf`, for an array of any shape."""
    return np.asarray(0.5 * _erfc(-z / _SQRT_2))


def quantile(chance: float) -> float:
    """Standard deviations below which a value lies with `chance`, 0-1.

    Infinite at 0 and 1; ValueError outside.
    """
    if chance in (0.0, 1.0):
        return math.copysign(math.inf, chance - 0.5)
    return _STANDARD.inv_cdf(chance)
