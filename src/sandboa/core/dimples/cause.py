"""Early dents while there is time: a dry box, the shell, or a failing egg? (handbook B, D, G)

Each cause is given a log score by what speaks for and against it, and shares
are their softmax. Unknown is always one of them, so that no evidence gives
"unknown", not a guess. Scores are assumptions.
"""

import math
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.box import Shell
from sandboa.core.dimples.judgement import BOX_SHARE
from sandboa.core.water.estimate import DRY_SHARE, TOP_UP_SHARE


class DentCause(StrEnum):
    """What makes an egg dent before its time."""

    DRY_BOX = "dry box"
    SHELL = "shell"
    FAILING = "failing egg"
    UNKNOWN = "unknown"


#: Log scores (assumption; signs of handbook B and G).
MANY_EARLY: Final = 2.5
FEW_EARLY: Final = -1.5
ANSWERED: Final = 4.0
NOT_ANSWERED: Final = -1.5
DRY_BY_WATER: Final = 2.0
TOP_UP_BY_WATER: Final = 1.0
WET_ENOUGH: Final = -2.0
LOSES_FAST: Final = 1.5
SMOOTH: Final = -1.5
#: What signs other than dents add or take, for each unit of log-odds of being alive.
BY_OTHER_SIGNS: Final = -0.5
#: Log-odds of an egg nobody has anything against: more than this speaks against failing.
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
    shell: Shell
    water_share: tuple[float, float, float] | None
    answered: bool | None
    other_log_odds: float


@dataclass(frozen=True, slots=True)
class CauseShare:
    """A cause with its share 0-1 and what spoke for (+) or against (-) it."""

    cause: DentCause
    share: float
    reasons: tuple[str, ...]


def dent_causes(egg: DentedEgg) -> tuple[CauseShare, ...]:
    """The causes, likeliest first; shares sum to 1."""
    said = {
        DentCause.DRY_BOX: [*_by_count(egg), *_by_water(egg), *_by_answer(egg)],
        DentCause.SHELL: _by_shell(egg),
        DentCause.FAILING: _by_signs(egg),
        DentCause.UNKNOWN: [],
    }
    scores = {cause: math.fsum(score for score, _ in reasons) for cause, reasons in said.items()}
    most = max(scores.values())
    whole = math.fsum(math.exp(score - most) for score in scores.values())
    shares = [
        CauseShare(
            cause,
            math.exp(scores[cause] - most) / whole,
            tuple(f"{'+' if score > 0 else '-'} {words}" for score, words in said[cause]),
        )
        for cause in DentCause
    ]
    return tuple(sorted(shares, key=lambda s: -s.share))


def _by_count(egg: DentedEgg) -> list[tuple[float, str]]:
    words = f"{egg.early_eggs} of {egg.live_eggs} eggs are early"
    return [(MANY_EARLY if _box_wide(egg) else FEW_EARLY, words)]


def _box_wide(egg: DentedEgg) -> bool:
    return egg.early_eggs >= BOX_SHARE * egg.live_eggs and egg.live_eggs > 1


def _by_water(egg: DentedEgg) -> list[tuple[float, str]]:
    if egg.water_share is None:
        return []
    low, middle, high = egg.water_share
    words = f"water left about {middle:.0%} ({low:.0%} to {high:.0%})".replace("%", " %")
    if middle < DRY_SHARE:
        return [(DRY_BY_WATER, words)]
    if middle < TOP_UP_SHARE:
        return [(TOP_UP_BY_WATER, words)]
    # Enough, and surely so, speaks against; where it may still be short it says nothing.
    return [(WET_ENOUGH, words)] if low >= TOP_UP_SHARE else []


def _by_answer(egg: DentedEgg) -> list[tuple[float, str]]:
    if egg.answered is None:
        return []
    if egg.answered:
        return [(ANSWERED, "it rounded out after water")]
    return [(NOT_ANSWERED, "water was added and it did not round out within 5 days")]


def _by_shell(egg: DentedEgg) -> list[tuple[float, str]]:
    if egg.shell.loses_water_fast or egg.shell is Shell.THIN:
        return [(LOSES_FAST, f"its shell: {egg.shell}")]
    return [(SMOOTH, f"its shell: {egg.shell}")]


def _by_signs(egg: DentedEgg) -> list[tuple[float, str]]:
    score = BY_OTHER_SIGNS * (egg.other_log_odds - _USUAL_LOG_ODDS / 2)
    alive = 1.0 / (1.0 + math.exp(-egg.other_log_odds))
    words = f"chance of being alive by its other signs {alive:.0%}".replace("%", " %")
    many = [(-1.0, "most of its siblings are dented too")] if _box_wide(egg) else []
    return [(score, words), *many]
