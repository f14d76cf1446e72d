"""What weighed boxes teach of a closing in this house (rule D3).

A house's film may be laid tighter than another's: the mean factor of a
closing is learned by normal-normal shrinkage over the boxes weighed with it.
"""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

from sandboa.core.box import Closing
from sandboa.core.water.drying import EXCHANGE_SD_FACTOR
from sandboa.core.water.estimate import Exchange

#: Share of the variance of ln q that boxes of one closing in one house have in common (assumption).
SHARED_VARIANCE: Final = 0.6
_WHOLE_VARIANCE: Final = math.log(EXCHANGE_SD_FACTOR) ** 2


@dataclass(frozen=True, slots=True)
class WeighedBox:
    """A box with two or more weighings: `exchange` is what they made of a prior of factor 2."""

    box: int
    closing: Closing
    exchange: Exchange


def closing_exchange(
    boxes: Iterable[WeighedBox],
    closing: Closing,
    *,
    besides: int | None = None,
    sd_factor: float = EXCHANGE_SD_FACTOR,
) -> tuple[Exchange, int]:
    """What to expect of another box of that closing, and of how many boxes it was learned.

    `besides` leaves a box out, so that none is taught by itself. With no
    other box it is the prior: a factor of `sd_factor`.
    """
    whole = math.log(sd_factor) ** 2
    between = (1.0 - SHARED_VARIANCE) * whole
    precision, pull, learned = 1.0 / (SHARED_VARIANCE * whole), 0.0, 0
    for box in boxes:
        own = _own_evidence(box.exchange)
        if box.closing is not closing or box.box == besides or own is None:
            continue
        mean, variance = own
        precision += 1.0 / (between + variance)
        pull += mean / (between + variance)
        learned += 1
    return Exchange(pull / precision, math.sqrt(1.0 / precision + between)), learned


def _own_evidence(exchange: Exchange) -> tuple[float, float] | None:
    """Mean and variance of what the weighings alone say of ln q; None when they say nothing."""
    precision = 1.0 / exchange.sd**2 - 1.0 / _WHOLE_VARIANCE
    if precision <= 1e-6:
        return None
    return exchange.mean / exchange.sd**2 / precision, 1.0 / precision
