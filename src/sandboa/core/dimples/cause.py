"""Early dents while there is time: a dry box, the shell, or a failing egg? (rule B, D, G)

Each cause is given a log score by what speaks for and against it, and shares
are their softmax. Unknown is always one of them, so that no evidence gives
"unknown", not a guess. Scores are assumptions.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.box import Shell, loses_water_fast, shell_words
from sandboa.core.dimples.judgement import BOX_SHARE, FEWEST_TO_VOTE
from sandboa.core.water.shares import DRY_SHARE, TOP_UP_SHARE


class DentCause(StrEnum):
    """What makes an egg dent before its time."""

    DRY_BOX = "dry box"
    SHELL = "shell"
    FAILING = "failing egg"
    UNKNOWN = "unknown"


#: Log scores by name, with what they stand for (assumption; signs of rule B and G).
CAUSE_SCORES: Final = {
    "many early": (2.5, "dry box: half or more of the eggs are early"),
    "few early": (-1.5, "dry box: fewer are early"),
    "answered": (4.0, "dry box: it rounded out after water"),
    "not answered": (-1.5, "dry box: it did not round out within 5 days of water"),
    "water dry": (2.0, "dry box: less than a quarter of the water left"),
    "water low": (1.0, "dry box: less than half left"),
    "water enough": (-2.0, "dry box: surely more than half left"),
    "shell loses fast": (1.5, "shell: rough, window or thin"),
    "shell smooth": (-1.5, "shell: none of these"),
    "other signs": (-0.5, "failing egg: for each unit of log-odds its other signs give"),
    "siblings too": (-1.0, "failing egg: most siblings are dented too"),
}
#: Log-odds of an egg nobody has anything against: more than half of it speaks against failing.
_USUAL_LOG_ODDS: Final = 2.4
DEFAULT_SCORES: Final = {name: score for name, (score, _) in CAUSE_SCORES.items()}


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


def dent_causes(
    egg: DentedEgg, scores: Mapping[str, float] = DEFAULT_SCORES
) -> tuple[CauseShare, ...]:
    """The causes, likeliest first; shares sum to 1. `scores` by name, as in CAUSE_SCORES."""
    said = {
        DentCause.DRY_BOX: [
            *_by_count(egg, scores),
            *_by_water(egg, scores),
            *_by_answer(egg, scores),
        ],
        DentCause.SHELL: _by_shell(egg, scores),
        DentCause.FAILING: _by_signs(egg, scores),
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


def _by_count(egg: DentedEgg, scores: Mapping[str, float]) -> list[tuple[float, str]]:
    words = f"{egg.early_eggs} of {egg.live_eggs} eggs are early"
    return [(scores["many early" if _box_wide(egg) else "few early"], words)]


def _box_wide(egg: DentedEgg) -> bool:
    return egg.early_eggs >= BOX_SHARE * egg.live_eggs and egg.live_eggs >= FEWEST_TO_VOTE


def _by_water(egg: DentedEgg, scores: Mapping[str, float]) -> list[tuple[float, str]]:
    if egg.water_share is None:
        return []
    low, middle, high = egg.water_share
    words = f"water left about {middle:.0%} ({low:.0%} to {high:.0%})".replace("%", " %")
    if middle < DRY_SHARE:
        return [(scores["water dry"], words)]
    if middle < TOP_UP_SHARE:
        return [(scores["water low"], words)]
    # Enough, and surely so, speaks against; where it may still be short it says nothing.
    return [(scores["water enough"], words)] if low >= TOP_UP_SHARE else []


def _by_answer(egg: DentedEgg, scores: Mapping[str, float]) -> list[tuple[float, str]]:
    if egg.answered is None:
        return []
    if egg.answered:
        return [(scores["answered"], "it rounded out after water")]
    return [(scores["not answered"], "water was added and it did not round out within 5 days")]


def _by_shell(egg: DentedEgg, scores: Mapping[str, float]) -> list[tuple[float, str]]:
    words = f"its shell: {shell_words(egg.shells)}"
    if loses_water_fast(egg.shells) or Shell.THIN in egg.shells:
        return [(scores["shell loses fast"], words)]
    return [(scores["shell smooth"], words)]


def _by_signs(egg: DentedEgg, scores: Mapping[str, float]) -> list[tuple[float, str]]:
    score = scores["other signs"] * (egg.other_log_odds - _USUAL_LOG_ODDS / 2)
    alive = 1.0 / (1.0 + math.exp(-egg.other_log_odds))
    words = f"chance of being alive by its other signs {alive:.0%}".replace("%", " %")
    many = (
        [(scores["siblings too"], "most of its siblings are dented too")] if _box_wide(egg) else []
    )
    return [(score, words), *many]
