"""Two groups in one sentence that knows when they are too few to call."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy.special import betaincinv

from sandboa.core.rates.rate import Tally, rate_of
from sandboa.core.rates.rules import DEFAULT_RATES, RateRules

#: Points of the beta quantiles over which the difference is worked out.
_POINTS: Final = 400


@dataclass(frozen=True, slots=True)
class Comparison:
    """`better` is the chance 0-1 that the first group's rate is the higher one.

    `called` when that is sure enough either way; `difference_low` and `difference_high` are the
    80 % band of first minus second.
    """

    words: str
    better: float
    called: bool
    difference_low: float
    difference_high: float


def compare(
    first: str,
    second: str,
    of_first: Sequence[Tally],
    of_second: Sequence[Tally],
    correlation: float,
    rules: RateRules = DEFAULT_RATES,
) -> Comparison:
    """Compare two groups of clutches; by the counts, and by what they are worth.

    `correlation` is how alike eggs of one clutch are. The chance comes from the
    two Jeffreys posteriors, by quantiles, without random draws.
    """
    one, other = rate_of(of_first, correlation), rate_of(of_second, correlation)
    counts = f"{one.k} of {one.n} against {other.k} of {other.n}"
    if not one.n or not other.n:
        return Comparison(f"{counts}: nothing to compare yet.", 0.5, False, -1.0, 1.0)
    steps = (np.arange(_POINTS) + 0.5) / _POINTS
    quantiles = []
    for rate in (one, other):
        k = rate.k / rate.n * rate.effective_n
        quantiles.append(betaincinv(k + 0.5, rate.effective_n - k + 0.5, steps))
    gaps = np.sort((quantiles[0][:, None] - quantiles[1][None, :]).ravel())
    better = float((gaps > 0).mean())
    low, high = (float(np.quantile(gaps, q)) for q in (0.1, 0.9))
    words = called_words(first, second, counts, better, rules)
    return Comparison(words, better, is_called(better, rules), low, high)


def is_called(better: float, rules: RateRules = DEFAULT_RATES) -> bool:
    """Whether a chance of being better, 0-1, is sure enough either way to be called."""
    return better >= rules.called_from or better <= 1.0 - rules.called_from


def called_words(
    first: str, second: str, counts: str, better: float, rules: RateRules = DEFAULT_RATES
) -> str:
    """The counts, and which did better where that can be called."""
    if not is_called(better, rules):
        return f"{counts}: too few to call."
    ahead, behind = (first, second) if better > 0.5 else (second, first)
    return f"{counts}: {ahead} did better than {behind} ({sure_words(better)})."


def sure_words(better: float) -> str:
    """ "97 % sure"; never all of it, for counts cannot."""
    chance = max(better, 1.0 - better)
    return "more than 99 % sure" if chance > 0.99 else f"{100 * chance:.0f} % sure"
