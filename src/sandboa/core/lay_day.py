"""The order of work on lay day (rule P2), and what each method leaves out."""

from enum import StrEnum
from typing import Final

from sandboa.core.units import SECONDS_PER_DAY

#: Days between two clutches of one dam within which the house asks (rule P2).
SECOND_CLUTCH_DAYS: Final = 60.0
#: Share of her weight a dam loses by laying: a quarter to two fifths (rule P2).
USUAL_LOSS: Final = (0.25, 0.40)
#: g of one egg that can be true; usual is 65-105 (usual: rule P2; range: assumption).
EGG_MASS_RANGE_G: Final = (10.0, 250.0)
USUAL_EGG_G: Final = (65.0, 105.0)


class Step(StrEnum):
    """One screen each, in the order of work."""

    PREPARE = "prepare"
    DAM = "dam"
    MARKS = "marks"
    COUNT = "count"
    PLACES = "places"
    EGGS = "eggs"
    TURNING = "turning"
    HANDLING = "handling"
    BOX = "box"
    SHELF = "shelf"
    CARD = "card"
    AFTERCARE = "aftercare"


class Lump(StrEnum):
    """What is felt in her belly after laying."""

    NONE = "none"
    LEFT = "left"
    UNSURE = "unsure"


class EggEvent(StrEnum):
    """What happened to an egg in the keeper's hands."""

    TURNED = "turned"
    LEFT_AS_IT_LIES = "left as it lies"
    SEPARATED = "separated"
    TORN = "torn"
    DROPPED = "dropped"
    SUPPORTED = "supported"


#: Eggs a dam keeps are not touched: nothing is marked, turned, candled or boxed.
_MATERNAL: Final = (Step.PREPARE, Step.DAM, Step.COUNT, Step.SHELF, Step.CARD, Step.AFTERCARE)


def steps(*, maternal: bool, to_turn: bool) -> tuple[Step, ...]:
    """The steps of a lay day; turning only where an egg's disc is not on top."""
    if maternal:
        return _MATERNAL
    return tuple(step for step in Step if to_turn or step is not Step.TURNING)


def may_be_second_clutch(
    earlier_laid_s: float, laid_s: float, within_days: float = SECOND_CLUTCH_DAYS
) -> bool:
    """Whether two clutches of one dam lie so close that one should ask."""
    return abs(laid_s - earlier_laid_s) < within_days * SECONDS_PER_DAY
