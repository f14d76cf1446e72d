"""What is to be expected of a clutch from the chances of its eggs (rules A6, C)."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from sandboa.core.normal import quantile
from sandboa.core.standing.death_time import alive_log_odds
from sandboa.core.standing.judgement import EggStanding, Evidence
from sandboa.core.standing.rules import DEFAULT_RULES, NONE_ALIVE_KEY, StandingRules

#: Sd of the log-odds that eggs of one clutch share: they hatch or die together more often than eggs
#: of two clutches (assumption).
SHARED_LUCK: Final = 0.8
#: Chance that something befell all eggs since they were looked at (assumption).
ALL_AT_ONCE: Final = 0.005
#: What time without a pip leaves of hope from which nothing is said of it: days before a pip is due
#: it says nothing anybody would see (assumption).
_NOTHING_SAID: Final = 0.995
#: Equally likely values of what a clutch's eggs share.
_LUCK: Final = tuple(quantile((n + 0.5) / 9) for n in range(9))


@dataclass(frozen=True, slots=True)
class HatchExpectation:
    """Of `eggs` eggs `middle` are to hatch on average; 80 % of the time `low` to `high` do."""

    eggs: int
    low: int
    middle: int
    high: int

    @property
    def counts(self) -> str:
        """ "5 of 7 to hatch (4 to 6)" """
        most = f"{self.middle} of {self.eggs} to hatch"
        return most if self.low == self.high else f"{most} ({self.low} to {self.high})"

    @property
    def words(self) -> str:
        """ "Expect 5 of 7 to hatch (4 to 6)." """
        return f"Expect {self.counts}."


def expected_hatch(chances: Sequence[float], still: float = 1.0) -> HatchExpectation | None:
    """How many eggs of one clutch hatch, by the chance (0-1) of each; None without eggs.

    Eggs share their luck: given it each hatches by itself, and their number is summed up exactly.
    Which eggs hatch more likely stays as it is. `still` (0-1) is the chance that time without a
    pip leaves for any of them (see `still_hopeful`). Source: rules A6, C.
    """
    if not chances:
        return None
    log_odds = [_log_odds(chance) for chance in chances]
    # So that the mean of each egg over all luck stays near its own chance.
    stretch = math.sqrt(1.0 + SHARED_LUCK**2 * math.pi / 8.0)
    counts = np.zeros(len(chances) + 1)
    for luck in _LUCK:
        hatched = np.ones(1)
        for odds in log_odds:
            share = 1.0 / (1.0 + math.exp(-(odds * stretch + SHARED_LUCK * luck)))
            hatched = np.convolve(hatched, [1.0 - share, share])
        counts += hatched / len(_LUCK)
    counts *= still
    counts[0] += 1.0 - still
    cumulative = np.cumsum(counts)
    low, high = (int(np.searchsorted(cumulative, q - 1e-9)) for q in (0.1, 0.9))
    middle = min(max(round(still * sum(chances)), low), high)
    return HatchExpectation(len(chances), low, middle, high)


def still_hopeful(none_alive_before: float, none_alive_now: float) -> float:
    """By how much (0-1) time without a pip has lowered the chance of anything alive in a clutch.

    Of the chances that no egg will pip, before time said anything and now (both 0-1; rule A6).
    """
    if none_alive_before >= 1.0:
        return 1.0
    return min((1.0 - none_alive_now) / (1.0 - none_alive_before), 1.0)


def after_silence(
    standing: EggStanding, still: float, rules: StandingRules = DEFAULT_RULES
) -> EggStanding:
    """An egg's standing once its whole clutch is late by heat, and nothing of it has pipped.

    `still` as of `still_hopeful`; its chances are that share of what they were. The list of
    evidence says so in a line of its own. Source: rules A6, C.
    """
    if still >= _NOTHING_SAID:
        return standing
    alive, will_pip = still * standing.alive, still * standing.will_pip
    log_odds = _log_odds(alive)
    late = Evidence(
        NONE_ALIVE_KEY, "by heat it is late, and no egg of the clutch has pipped", rules.none_alive,
        1.0, log_odds - standing.log_odds, None,
    )  # fmt: skip
    return replace(
        standing,
        standing=rules.standing(alive, will_pip),
        alive=alive,
        will_pip=will_pip,
        will_hatch=still * standing.will_hatch,
        log_odds=log_odds,
        evidence=tuple(sorted((*standing.evidence, late), key=lambda e: (e.push, e.key))),
    )


def nothing_alive(
    alive: Sequence[float],
    will_pip: Sequence[float],
    share: float,
    rules: StandingRules = DEFAULT_RULES,
) -> float:
    """Chance (0-1) that no egg of a clutch will pip, before time without a pip said anything.

    Parameters: the chances of each of its closed eggs, as many of both, told by `rules`; `share`
    developed.

    What was seen of each egg speaks for or against a clutch of which nothing lives, as far as it
    is more than is known of any egg at that stage. One hand and one torch saw them all, so that n
    eggs count as the root of n; and nothing rules out that something befell all of them since.
    It is no less than that all of them are lost one by one. Source: rule A6.
    """
    if not alive:
        return rules.none_alive
    usual = float(alive_log_odds(rules.prior("not candled"), (), share, rules.dies)[0])
    usual_share = 1.0 / (1.0 + math.exp(-usual))
    speaks = sum(
        math.log(usual_share * math.exp(_log_odds(chance) - usual) + 1.0 - usual_share)
        for chance in alive
    )
    odds = rules.none_alive / (1.0 - rules.none_alive) * math.exp(-speaks / math.sqrt(len(alive)))
    dead = max(odds / (1.0 + odds), ALL_AT_ONCE)
    return max(dead, math.prod(1.0 - chance for chance in will_pip))


def _log_odds(chance: float) -> float:
    inside = min(max(chance, 1e-4), 1.0 - 1e-4)
    return math.log(inside / (1.0 - inside))
