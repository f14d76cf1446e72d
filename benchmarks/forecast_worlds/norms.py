"""How warmth drives development, as far as anybody knows: several curves, none the core's own.

Each takes °C, any shape, and gives the share of development a day. All of them give a steady
31.67 °C its 58 days; they differ in what they make of other temperatures.
"""

from collections.abc import Callable
from typing import Final

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
Norm = Callable[[Array], Array]

_AT_C: Final = 31.67
_DAYS: Final = 58.0


def _anchored(curve: Norm) -> Norm:
    scale = 1.0 / (_DAYS * float(curve(np.array([_AT_C]))[0]))
    return lambda temperature_c: scale * np.maximum(curve(temperature_c), 0.0)


def straight(zero_c: float, flat_from_c: float) -> Norm:
    """A straight line from `zero_c` up, flat above `flat_from_c`."""
    return _anchored(lambda t: np.minimum(t, flat_from_c) - zero_c)


def tenfold(factor: float) -> Norm:
    """So many times as fast for every 10 °C more (a Q10)."""
    return _anchored(lambda t: factor ** ((t - _AT_C) / 10.0))


def two_zeros(low_c: float, high_c: float) -> Norm:
    """Brière et al. 1999, Environ. Entomol. 28:22-29: rising to an optimum, then falling fast."""
    return _anchored(
        lambda t: (
            t * np.maximum(t - low_c, 0.0) * np.sqrt(np.maximum(high_c - np.minimum(t, high_c), 0))
        )
    )


def dome(best_c: float, half_width_c: float) -> Norm:
    """A parabola about `best_c`, nothing `half_width_c` away from it."""
    return _anchored(lambda t: 1.0 - ((t - best_c) / half_width_c) ** 2)
