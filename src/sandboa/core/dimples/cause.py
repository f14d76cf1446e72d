"""Early dents while there is time: a dry box, the shell, or a failing egg? (rule B, D, G)

Each cause is given a log score by what speaks for and against it, and shares
are their softmax. Unknown is always one of them, so that no evidence gives
"unknown", not a guess. Scores are assumptions.
"""

import math
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.box import Shell, loses_water_fast, shell_words
from sandboa.core.dimples.rules import DEFAULT_DENTS, DentRules


class DentCause(StrEnum):
    """What makes an egg dent before its time."""

    DRY_BOX = "dry box"
    SHELL = "shell"
    FAILING = "failing egg"
    UNKNOWN = "unknown"


#: Log-odds of an egg nobody has anything against: more than half of it speaks against failing.
_USUAL_LOG_ODDS: Final = 2.4


@dataclass(frozen=True, slots=True)
class DentedEgg:
    """An egg with early dents in its box.

    Attributes
    ----------
    early_eggs, live_eggs: how many are early for their stage, of how many.
    water_share: (low, middle, high) share of set-up water left, None unknown.
    answered: it rounded out after water (True), did not within 5 days (False), not known (None).
    other_log_odds: log-odds alive : dead by all signs but its dents.
    """

    early_eggs: int
    live_eggs: int
    shells: tuple[Shell, ...]
    water_share: tuple[float, float, float] | None
    answered: bool | None
    other_log_odds: float


@dataclass(frozen=True, slots=True)
class CauseShare:
    """A cause with its share 0-1 and what spoke for (+) or against (-) it."""

    cause: DentCause
    share: float
    reasons: tuple[str, ...]


def dent_causes(egg: DentedEgg, rules: DentRules = DEFAULT_DENTS) -> tuple[CauseShare, ...]:
    """The causes, likeliest first; shares sum to 1."""
    said = {
        DentCause.DRY_BOX: [
            *_by_count(egg, rules),
            *_by_water(egg, rules),
            *_by_answer(egg, rules),
        ],
        DentCause.SHELL: _by_shell(egg, rules),
        DentCause.FAILING: _by_signs(egg, rules),
        DentCause.UNKNOWN: [],
    }
    sums = {cause: math.fsum(score for score, _ in reasons) for cause, reasons in said.items()}
    most = max(sums.values())
    whole = math.fsum(math.exp(score - most) for score in sums.values())
    shares = [
        CauseShare(
            cause,
            math.exp(sums[cause] - most) / whole,
            tuple(f"{'+' if score > 0 else '-'} {words}" for score, words in said[cause]),
        )
        for cause in DentCause
    ]
    return tuple(sorted(shares, key=lambda s: -s.share))


def _by_count(egg: DentedEgg, rules: DentRules) -> list[tuple[float, str]]:
    words = f"{egg.early_eggs} of {egg.live_eggs} eggs are early"
    return [(rules.scores["many early" if _box_wide(egg, rules) else "few early"], words)]


def _box_wide(egg: DentedEgg, rules: DentRules) -> bool:
    votes = egg.live_eggs >= rules.fewest_to_vote
    return votes and rules.box_wide(egg.early_eggs, egg.live_eggs)


def _by_water(egg: DentedEgg, rules: DentRules) -> list[tuple[float, str]]:
    if egg.water_share is None:
        return []
    low, middle, high = egg.water_share
    words = f"water left about {middle:.0%} ({low:.0%} to {high:.0%})".replace("%", " %")
    if middle < rules.water.dry:
        return [(rules.scores["water dry"], words)]
    if middle < rules.water.top_up:
        return [(rules.scores["water low"], words)]
    # Enough, and surely so, speaks against; where it may still be short it says nothing.
    return [(rules.scores["water enough"], words)] if low >= rules.water.top_up else []


def _by_answer(egg: DentedEgg, rules: DentRules) -> list[tuple[float, str]]:
    if egg.answered is None:
        return []
    if egg.answered:
        return [(rules.scores["answered"], "it rounded out after water")]
    return [(rules.scores["not answered"], "water was added and it did not round out")]


def _by_shell(egg: DentedEgg, rules: DentRules) -> list[tuple[float, str]]:
    words = f"its shell: {shell_words(egg.shells)}"
    if loses_water_fast(egg.shells) or Shell.THIN in egg.shells:
        return [(rules.scores["shell loses fast"], words)]
    return [(rules.scores["shell smooth"], words)]


def _by_signs(egg: DentedEgg, rules: DentRules) -> list[tuple[float, str]]:
    score = rules.scores["other signs"] * (egg.other_log_odds - _USUAL_LOG_ODDS / 2)
    alive = 1.0 / (1.0 + math.exp(-egg.other_log_odds))
    words = f"chance of being alive by its other signs {alive:.0%}".replace("%", " %")
    many = (
        [(rules.scores["siblings too"], "most of its siblings are dented too")]
        if _box_wide(egg, rules)
        else []
    )
    return [(score, words), *many]
