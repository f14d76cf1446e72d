"""Eggs nobody saw laid, or that come from elsewhere: how far they are, and how sure that is."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.development.clock import DEFAULT_CLOCK, DevelopmentClock
from sandboa.core.errors import NotPlausible
from sandboa.core.units import SECONDS_PER_DAY, require_range


class OriginKind(StrEnum):
    """How eggs came into their box, where they were not seen laid."""

    FOUND = "found"
    FROM_DAM = "taken from the dam"
    ELSEWHERE = "from elsewhere"


class TorchStage(StrEnum):
    """What a torch shows of an egg's age."""

    DISC = "disc only"
    QUARTER = "vessels a quarter round"
    HALF = "vessels half round"
    ALL_ROUND = "vessels all round"
    DARK = "dark body"


#: D from and to which an egg shows each stage, all of it equally likely (assumption: the order is
#: keeper practice, the shares are ours and wide; a house's own closed clutches narrow them).
TORCH_STAGES: Final[Mapping[TorchStage, tuple[float, float]]] = {
    TorchStage.DISC: (0.0, 0.08),
    TorchStage.QUARTER: (0.05, 0.16),
    TorchStage.HALF: (0.12, 0.28),
    TorchStage.ALL_ROUND: (0.22, 0.60),
    TorchStage.DARK: (0.50, 0.98),
}
#: Clutches whose worth a stage's shares have against the house's own (assumption, as with the
#: spread within a clutch).
STAGE_WORTH: Final = 4.0
#: °C eggs can have had and live (assumption).
BEFORE_RANGE_C: Final = (24.0, 36.0)
#: days within which a lay time must be known to be worth anything (assumption).
LONGEST_SPAN_DAYS: Final = 60.0


@dataclass(frozen=True, slots=True)
class StageShare:
    """The mean and spread (1 sd) of D at which eggs show a stage, and how many clutches of the
    house it was learned from."""

    mean: float
    sd: float
    clutches: int = 0


def stage_share(stage: TorchStage, seen: Sequence[float] = ()) -> StageShare:
    """D at which eggs of this house show a stage, from the table and the house's own clutches.

    `seen` are values of D at which clutches of the house showed it, as their pips told later. The
    table counts as much as four clutches. Raises ValueError for a D that is not a number.
    """
    if not all(math.isfinite(value) for value in seen):
        raise ValueError("a development that is not a number")
    low, high = TORCH_STAGES[stage]
    middle, variance = (low + high) / 2.0, (high - low) ** 2 / 12.0
    weight = STAGE_WORTH + len(seen)
    mean = (STAGE_WORTH * middle + sum(seen)) / weight
    # What the house saw lies around its mean; what the table holds, around the table's.
    spread = STAGE_WORTH * (variance + (middle - mean) ** 2) + sum((d - mean) ** 2 for d in seen)
    return StageShare(max(mean, 0.0), math.sqrt(spread / weight), len(seen))


def laid_by_stage(
    share: StageShare,
    seen_s: float,
    temperature_c: float,
    clock: DevelopmentClock = DEFAULT_CLOCK,
) -> float:
    """When eggs were laid (s) that at `seen_s` (s) had come that far at a temperature (°C).

    Raises NotPlausible at a temperature at which nothing develops.
    """
    rate = float(clock.rate_per_day(temperature_c))
    if rate <= 0.0:
        raise NotPlausible("before_c", "at that temperature no egg develops")
    return seen_s - share.mean / rate * SECONDS_PER_DAY


def laid_between(from_s: float, until_s: float) -> float:
    """The middle of the time eggs were laid in (s), what is taken for the lay time.

    NotPlausible when it ends before it began, or is longer than 60 days.
    """
    if until_s < from_s:
        raise NotPlausible("laid_until", "it ends before it begins: check both times")
    if until_s - from_s > LONGEST_SPAN_DAYS * SECONDS_PER_DAY:
        raise NotPlausible(
            "laid_until",
            f"more than {LONGEST_SPAN_DAYS:.0f} days apart: candle an egg and say what you see",
        )
    return (from_s + until_s) / 2.0


def require_before(temperature_c: float) -> float:
    """Return a temperature (°C) eggs can have had before they came; NotPlausible otherwise."""
    return require_range("before_c", temperature_c, BEFORE_RANGE_C, "°C")
