"""Chances that were told, held against what came, bin by bin (rule C)."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from sandboa.core.errors import NotPlausible
from sandboa.core.rates.rate import jeffreys
from sandboa.core.rates.rules import LEVEL

#: Edges of the bins of chances; the last one holds its upper end too (assumption: a house's few
#: eggs fill no finer ones).
RELIABILITY_EDGES: Final = (0.0, 0.15, 0.5, 0.7, 0.85, 0.95, 1.0)


@dataclass(frozen=True, slots=True)
class ReliabilityBin:
    """Of `eggs` told about so much (`said`, mean chance 0-1) it `came` for so many.

    `low` to `high` is the interval of the share behind them (Jeffreys).
    """

    eggs: int
    said: float
    came: int
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class Reliability:
    """What was said against what came: mean squared error (Brier 1950), that of saying the share
    that came of every egg alike, and the bins that held an egg, in rising order."""

    eggs: int
    came: int
    brier: float
    brier_of_always: float
    bins: tuple[ReliabilityBin, ...]


def reliability(
    said: Sequence[float], came: Sequence[bool], level: float = LEVEL
) -> Reliability | None:
    """Hold chances (0-1) against what came, of as many eggs; None without any.

    Raises NotPlausible for a chance beyond 0-1, ValueError for two lengths.
    """
    if len(said) != len(came):
        raise ValueError("as many chances as outcomes")
    if not said:
        return None
    chances, happened = np.asarray(said, dtype=float), np.asarray(came, dtype=float)
    if not np.all((chances >= 0.0) & (chances <= 1.0)):
        raise NotPlausible("chance", "a chance is between 0 and 1")
    place = np.clip(np.searchsorted(RELIABILITY_EDGES, chances, side="right") - 1, 0,
                    len(RELIABILITY_EDGES) - 2)  # fmt: skip
    bins = []
    for number in np.unique(place):
        held = place == number
        eggs, k = int(held.sum()), int(happened[held].sum())
        bins.append(ReliabilityBin(eggs, float(chances[held].mean()), k, *jeffreys(k, eggs, level)))
    share = float(happened.mean())
    return Reliability(
        len(chances),
        int(happened.sum()),
        float(np.mean((chances - happened) ** 2)),
        share * (1.0 - share),
        tuple(bins),
    )
