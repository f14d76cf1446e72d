"""After laying: what the dam needs, and when she will be herself again."""

from sandboa.core.dam_care.aftercare import (
    AftercareTask,
    CareItem,
    LaidDam,
    TubSchool,
    aftercare,
    not_eating,
    retained_egg,
    settled_s,
)
from sandboa.core.dam_care.recovery import Recovery, Weighing, recovery

__all__ = [
    "AftercareTask",
    "CareItem",
    "LaidDam",
    "Recovery",
    "TubSchool",
    "Weighing",
    "aftercare",
    "not_eating",
    "recovery",
    "retained_egg",
    "settled_s",
]
