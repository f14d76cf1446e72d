"""Small numbers: rates with intervals that know how little they rest on (rule H)."""

from sandboa.core.rates.compare import Comparison, compare, sure_words
from sandboa.core.rates.groups import GroupRate, group_rates
from sandboa.core.rates.rate import Rate, Tally, intraclass_correlation, jeffreys, rate_of
from sandboa.core.rates.side_by_side import Cell, Group, LikeForLike, SideBySide

__all__ = [
    "Cell",
    "Comparison",
    "Group",
    "GroupRate",
    "LikeForLike",
    "Rate",
    "SideBySide",
    "Tally",
    "compare",
    "group_rates",
    "intraclass_correlation",
    "jeffreys",
    "rate_of",
    "sure_words",
]
