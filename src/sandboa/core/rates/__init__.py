"""Small numbers: rates with intervals that know how little they rest on (rule H)."""

from sandboa.core.rates.compare import Comparison, compare
from sandboa.core.rates.groups import GroupRate, group_rates
from sandboa.core.rates.rate import Rate, Tally, intraclass_correlation, jeffreys, rate_of

__all__ = [
    "Comparison",
    "GroupRate",
    "Rate",
    "Tally",
    "compare",
    "group_rates",
    "intraclass_correlation",
    "jeffreys",
    "rate_of",
]
