"""When a rate is told and a difference is called, as the house has it (rule H)."""

from dataclasses import dataclass
from typing import Final

#: Of every interval (rule H).
LEVEL: Final = 0.90
#: Chance from which one group is said to do better (assumption: 19 of 20).
CALLED_FROM: Final = 0.95


@dataclass(frozen=True, slots=True)
class RateRules:
    """Numbers in force: the share (0-1) an interval holds, and the chance from which it is called
    which of two groups did better."""

    level: float = LEVEL
    called_from: float = CALLED_FROM


DEFAULT_RATES: Final = RateRules()
