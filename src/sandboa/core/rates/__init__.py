"""Small numbers: rates with intervals that know how little they rest on (handbook H)."""

from sandboa.core.rates.compare import Comparison, compare
from sandboa.core.rates.groups import GroupRate, group_rates
from sandboa.core.rates.rate import Rate, Tally, clutch_likeness, jeffreys, rate_of

__all__ = [
    "Comparison",
    "GroupRate",
    "Rate",
    "Tally",
    "clutch_likeness",
    "compare",
    "group_rates",
    "jeffreys",
    "rate_of",
]
