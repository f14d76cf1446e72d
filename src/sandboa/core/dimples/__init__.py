"""Dimples by stage: is this dent normal today, and is it the egg or the box?"""

from sandboa.core.dimples.advice import advice
from sandboa.core.dimples.judgement import (
    BoxDents,
    BoxJudgement,
    DimpleJudgement,
    EggTurgor,
    Grading,
    Scope,
    Urgency,
    answered_water,
    did_not_answer,
    judge_box,
    judge_egg,
    rose_fast,
)
from sandboa.core.dimples.stages import allowed_grade, excess_grade

__all__ = [
    "BoxDents",
    "BoxJudgement",
    "DimpleJudgement",
    "EggTurgor",
    "Grading",
    "Scope",
    "Urgency",
    "advice",
    "allowed_grade",
    "answered_water",
    "did_not_answer",
    "excess_grade",
    "judge_box",
    "judge_egg",
    "rose_fast",
]
