"""Standing: is the egg alive, by what evidence, and what would settle it?"""

from sandboa.core.standing.clutch import (
    HatchExpectation,
    after_silence,
    expected_hatch,
    nothing_alive,
    still_hopeful,
)
from sandboa.core.standing.death_time import DIES_IN_SLIT
from sandboa.core.standing.judgement import (
    EggStanding,
    Evidence,
    Observation,
    Situation,
    judge_standing,
)
from sandboa.core.standing.rules import (
    DEFAULT_RULES,
    PRIOR_WORDS,
    PRIORS,
    STANDING_FROM,
    Standing,
    StandingRules,
)
from sandboa.core.standing.score import (
    JUDGED_DAYS,
    StandingBin,
    StandingScore,
    ToldEgg,
    score_standings,
)
from sandboa.core.standing.settle import Settles, asks_for_torch, what_settles
from sandboa.core.standing.signs import (
    RECORDED_KINDS,
    SHELL_KINDS,
    SIGNS,
    Sign,
    SignKind,
    asked_from,
)

__all__ = [
    "DEFAULT_RULES",
    "DIES_IN_SLIT",
    "JUDGED_DAYS",
    "PRIORS",
    "PRIOR_WORDS",
    "RECORDED_KINDS",
    "SHELL_KINDS",
    "SIGNS",
    "STANDING_FROM",
    "EggStanding",
    "Evidence",
    "HatchExpectation",
    "Observation",
    "Settles",
    "Sign",
    "SignKind",
    "Situation",
    "Standing",
    "StandingBin",
    "StandingRules",
    "StandingScore",
    "ToldEgg",
    "after_silence",
    "asked_from",
    "asks_for_torch",
    "expected_hatch",
    "judge_standing",
    "nothing_alive",
    "score_standings",
    "still_hopeful",
    "what_settles",
]
