"""From the pip to the first meals: advice at the closed egg, hatchlings, and fates."""

from sandboa.core.hatching.advice import AdviceKind, CuttingState, EggAtHatch, HatchAdvice, advise
from sandboa.core.hatching.fates import DeathStage, Fate, stage_of
from sandboa.core.hatching.hatchlings import Defect, Sex, Size, YolkLeft

__all__ = [
    "AdviceKind",
    "CuttingState",
    "DeathStage",
    "Defect",
    "EggAtHatch",
    "Fate",
    "HatchAdvice",
    "Sex",
    "Size",
    "YolkLeft",
    "advise",
    "stage_of",
]
