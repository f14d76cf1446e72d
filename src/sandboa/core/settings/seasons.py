"""Numbers of rates and comparisons (rule H)."""

from collections.abc import Iterator

from sandboa.core.rates.rules import DEFAULT_RATES
from sandboa.core.settings.setting import Quantity, Setting


def seasons() -> Iterator[Setting]:
    """When a rate is told and a difference is called."""
    yield Setting(
        "rates.level", "Intervals of rates hold", "of the chance", DEFAULT_RATES.level,
        (0.5, 0.99), "Nine in ten: the rate behind the counts lies within.", "Seasons",
        Quantity.SHARE,
    )  # fmt: skip
    yield Setting(
        "rates.called_from", "A difference is called from", "sure", DEFAULT_RATES.called_from,
        (0.8, 0.999), "Below it two groups are “too few to call”.", "Seasons", Quantity.SHARE,
    )  # fmt: skip
