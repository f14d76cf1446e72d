"""Time goes by without a pip: late by heat, or is nothing alive in it (rule A6)?"""

from typing import Final

from sandboa.core.development.rules import DEFAULT_RULES, NONE_ALIVE, ForecastRules
from sandboa.core.errors import NotPlausible


def none_alive(no_pip_by_now: float, prior: float = NONE_ALIVE) -> float:
    """Chance (0-1) that no egg of the clutch will pip, after time without one.

    Parameters: `no_pip_by_now`, the chance (0-1) that a clutch with something
    alive in it would not have pipped by now; `prior`, the chance that nothing
    is alive before time said anything (0-1).

    Bayes: prior / (prior + (1 - prior) · no_pip_by_now). It is `prior` while
    no pip is due, rises as time goes by and never falls. Raises NotPlausible
    outside 0 to 1. Source: rule A6.
    """
    for name, share in (("no_pip_by_now", no_pip_by_now), ("prior", prior)):
        if not 0.0 <= share <= 1.0:
            raise NotPlausible(name, f"{name} {share:g} is outside 0 to 1")
    if prior == 0.0:
        return 0.0
    return prior / (prior + (1.0 - prior) * no_pip_by_now)


#: Share developed above which the number itself says nothing any more (assumption).
FAR_BEYOND: Final = 1.25


def developed_words(share: float) -> str:
    """The share developed as it is told: "45 %", and far beyond its term no number at all."""
    return f"over {100 * FAR_BEYOND:.0f} %" if share > FAR_BEYOND else f"{100 * share:.0f} %"


def late_words(chance: float, rules: ForecastRules = DEFAULT_RULES) -> str | None:
    """What to say of it, in words first; None while it is not worth telling."""
    if chance < rules.told_from:
        return None
    if chance < rules.no_date_from:
        return f"By heat it is late: {_in_ten(chance)} that none will pip. Candle the eggs."
    return (
        f"By heat it is long over: {_in_ten(chance)} that none will pip, so no date is told. "
        "Candle the eggs, and check the lay date and the probe."
    )


def _in_ten(chance: float) -> str:
    tenths = round(chance * 10)
    words = {2: "two", 3: "three", 4: "four", 5: "five", 6: "six", 7: "seven", 8: "eight"}
    return f"{words.get(tenths, 'nine')} in ten" if tenths < 10 else "more than nine in ten"
