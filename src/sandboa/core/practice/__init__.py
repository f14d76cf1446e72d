"""What a learner's judgements of simulated eggs were worth: scores, and what comes again when."""

from sandboa.core.practice.scores import (
    CHANCES_PER_CENT,
    Answer,
    SignScore,
    Tally,
    WeekScore,
    by_sign,
    by_week,
    calibration,
    error,
    mistaken,
    tally,
)

__all__ = [
    "CHANCES_PER_CENT",
    "Answer",
    "SignScore",
    "Tally",
    "WeekScore",
    "by_sign",
    "by_week",
    "calibration",
    "error",
    "mistaken",
    "tally",
]
