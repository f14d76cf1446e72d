"""Rates of groups, each drawn towards the house's mean as far as it has little of its own."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.rates.rate import Rate, Tally, effective_eggs, intraclass_correlation, rate_of
from sandboa.core.rates.rules import LEVEL

#: Independent eggs the house's mean is worth when nothing is known of how groups differ
#: (assumption), and the least and most it can be.
PRIOR_STRENGTH: Final = 12.0
_STRENGTH_RANGE: Final = (2.0, 200.0)


@dataclass(frozen=True, slots=True)
class GroupRate:
    """A group's own rate, and `drawn`, what to expect of it: own record and house together."""

    name: str
    rate: Rate
    drawn: float | None


def group_rates(
    groups: Mapping[str, Sequence[Tally]], level: float = LEVEL
) -> tuple[GroupRate, ...]:
    """The groups in order of their names, each with its interval and its shrunken rate.

    Beta-binomial: a group's mean has a beta prior around the house's rate,
    whose strength (in independent eggs) is found from how far groups differ beyond
    chance. No ranking: whoever ranks them must show the intervals.
    """
    everything = [t for tallies in groups.values() for t in tallies]
    correlation = intraclass_correlation(everything)
    house = rate_of(everything, correlation)
    strength = _strength(groups, house.share, correlation)
    told = []
    for name in sorted(groups, key=str.casefold):
        own = rate_of(groups[name], correlation, level)
        told.append(GroupRate(name, own, _drawn(own, house.share, strength)))
    return tuple(told)


def _drawn(own: Rate, house: float | None, strength: float) -> float | None:
    if house is None:
        return None
    if own.share is None:
        return house
    weight = own.effective_n / (own.effective_n + strength)
    return weight * own.share + (1.0 - weight) * house


def _strength(
    groups: Mapping[str, Sequence[Tally]], house: float | None, correlation: float
) -> float:
    """Method of moments: the spread of groups beyond what chance makes, as a beta's strength."""
    if house is None or house in (0.0, 1.0):
        return PRIOR_STRENGTH
    counted = [
        (sum(t.k for t in ts) / n, effective_eggs(list(ts), correlation))
        for ts in groups.values()
        if (n := sum(t.n for t in ts))
    ]
    if len(counted) < 3:
        return PRIOR_STRENGTH
    spread = house * (1.0 - house)
    excess = [(share - house) ** 2 - spread / eggs for share, eggs in counted if eggs > 0]
    beyond = sum(excess) / len(excess)
    if beyond <= 0:
        return _STRENGTH_RANGE[1]
    found = spread / beyond - 1.0
    # Few groups say little of how groups differ: half way to what is usual.
    held = (len(counted) * found + 4.0 * PRIOR_STRENGTH) / (len(counted) + 4.0)
    return min(max(held, _STRENGTH_RANGE[0]), _STRENGTH_RANGE[1])
