"""Many readings drawn with few points, no peak lost: lowest and highest of each bucket."""

from dataclasses import dataclass

import numpy as np

from sandboa.core.development.clock import FloatArray


@dataclass(frozen=True)
class Buckets:
    """Lowest and highest value of each bucket, shape (n,); NaN where nothing was read."""

    low: FloatArray
    high: FloatArray


def thinned(
    times_s: FloatArray,
    low: FloatArray,
    high: FloatArray,
    start_s: float,
    bucket_s: float,
    count: int,
) -> Buckets:
    """Gather samples into `count` buckets of `bucket_s` from `start_s` on.

    Parameters: `times_s`, `low` and `high` of each sample (the same array for
    raw readings, two for roll-ups), all (m,), times rising. Samples outside
    are left out. Every lowest and highest value among those inside is kept.
    """
    place = np.floor((times_s - start_s) / bucket_s).astype(np.intp)
    inside = (place >= 0) & (place < count)
    place, low, high = place[inside], low[inside], high[inside]
    lowest, highest = np.full(count, np.nan), np.full(count, np.nan)
    if len(place):
        first = np.flatnonzero(np.diff(place, prepend=-1))
        lowest[place[first]] = np.minimum.reduceat(low, first)
        highest[place[first]] = np.maximum.reduceat(high, first)
    return Buckets(lowest, highest)
