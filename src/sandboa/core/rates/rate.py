"""One rate: k of n with its interval, eggs of one clutch sharing their luck.

Jeffreys interval (Brown, Cai & DasGupta 2001, Stat. Sci. 16:101-133). Eggs of a
clutch are no independent draws: n is divided by the design effect
1 + (m - 1)·rho (Kish 1965), rho being how alike the eggs of one clutch are.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from scipy.special import betaincinv

from sandboa.core.rates.rules import LEVEL

#: How alike eggs of one clutch are before the house has its own record, and how many clutches
#: that is worth (assumption: whole clutches fail together now and then).
PRIOR_CORRELATION: Final = 0.15
PRIOR_CLUTCHES: Final = 8.0
#: Beyond this eggs of a clutch would be one egg (assumption).
_MOST_ALIKE: Final = 0.8


@dataclass(frozen=True, slots=True)
class Tally:
    """One clutch's count: `k` of `n` eggs, 0 <= k <= n; ValueError otherwise."""

    k: int
    n: int

    def __post_init__(self) -> None:
        if not 0 <= self.k <= self.n:
            raise ValueError(f"{self.k} of {self.n} cannot be")


@dataclass(frozen=True, slots=True)
class Rate:
    """`k` of `n` eggs in `clutches`, and the interval of the rate behind them.

    `effective_n` is how many independent eggs they are worth.
    """

    k: int
    n: int
    clutches: int
    share: float | None
    low: float
    high: float
    effective_n: float


def jeffreys(k: float, n: float, level: float = LEVEL) -> tuple[float, float]:
    """Interval of a rate of which k of n were seen (0 <= k <= n, fractions allowed).

    Its lower end is 0 where none was seen, its upper end 1 where all were.
    Without any (n = 0) everything is possible. Raises ValueError for k > n or k < 0.
    """
    if not 0 <= k <= n:
        raise ValueError(f"{k} of {n} cannot be")
    if n == 0:
        return 0.0, 1.0
    tail = (1.0 - level) / 2.0
    low = 0.0 if k == 0 else float(betaincinv(k + 0.5, n - k + 0.5, tail))
    high = 1.0 if k == n else float(betaincinv(k + 0.5, n - k + 0.5, 1.0 - tail))
    return low, high


def intraclass_correlation(tallies: Iterable[Tally]) -> float:
    """How alike the eggs of one clutch are (intraclass correlation), 0 to 0.8.

    By the analysis of variance of binary data (Fleiss 1981), drawn towards
    `PRIOR_CORRELATION` as if that came from `PRIOR_CLUTCHES` clutches.
    """
    counted = [t for t in tallies if t.n > 0]
    clutches, eggs = len(counted), sum(t.n for t in counted)
    if clutches < 2 or eggs <= clutches:
        return PRIOR_CORRELATION
    mean = sum(t.k for t in counted) / eggs
    between = sum(t.n * (t.k / t.n - mean) ** 2 for t in counted) / (clutches - 1)
    within = sum(t.k * (t.n - t.k) / t.n for t in counted) / (eggs - clutches)
    size = (eggs - sum(t.n**2 for t in counted) / eggs) / (clutches - 1)
    total = between + (size - 1.0) * within
    seen = (between - within) / total if total > 0 else PRIOR_CORRELATION
    held = (clutches * seen + PRIOR_CLUTCHES * PRIOR_CORRELATION) / (clutches + PRIOR_CLUTCHES)
    return min(max(held, 0.0), _MOST_ALIKE)


def effective_eggs(tallies: Sequence[Tally], correlation: float) -> float:
    """How many independent eggs those clutches are worth."""
    eggs = sum(t.n for t in tallies)
    if eggs == 0:
        return 0.0
    effect = sum(t.n * (1.0 + (t.n - 1) * correlation) for t in tallies) / eggs
    return eggs / max(effect, 1.0)


def rate_of(
    tallies: Sequence[Tally], correlation: float = PRIOR_CORRELATION, level: float = LEVEL
) -> Rate:
    """The rate over several clutches, its interval widened because clutches share their luck."""
    counted = [t for t in tallies if t.n > 0]
    k, n = sum(t.k for t in counted), sum(t.n for t in counted)
    effective = effective_eggs(counted, correlation)
    low, high = jeffreys(k / n * effective if n else 0.0, effective, level)
    return Rate(k, n, len(counted), k / n if n else None, low, high, effective)
