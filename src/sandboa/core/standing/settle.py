"""What would settle an egg's standing, and when (handbook C; handbook 1, section 2)."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

from sandboa.core.standing.judgement import EggStanding, Observation
from sandboa.core.standing.rules import Standing
from sandboa.core.standing.signs import SIGNS, SignKind
from sandboa.core.units import SECONDS_PER_DAY

#: Days before a torch shows anything new (assumption).
CANDLE_EVERY_DAYS: Final = 4.0
#: Days after which a closed, doubtful egg late in term is looked at again (assumption).
LOOK_EVERY_DAYS: Final = 2.0


@dataclass(frozen=True, slots=True)
class Settles:
    """What to do and from when (s); `candle` when it is the torch that settles it."""

    text: str
    from_s: float
    candle: bool


def what_settles(
    judged: EggStanding,
    observations: Iterable[Observation],
    laid_s: float,
    now_s: float,
    development: float,
) -> Settles | None:
    """What to look for next at an egg that is not sound; None for one that is.

    `development` is the share developed now. Before 80 % the torch settles it:
    never before day 7, and not sooner than 4 days after the last look with it.
    After that vessels are hidden: a dark body with vessels on top or movement
    speaks for it, and from 90 % how it feels.
    """
    if judged.standing is Standing.SOUND:
        return None
    no_vessels = SIGNS[SignKind.VESSELS, "none"]
    torch = [
        o.at_s
        for o in observations
        if o.kind in (SignKind.VESSELS, SignKind.MOVEMENT, SignKind.BODY) and o.at_s <= now_s
    ]
    if development < no_vessels.until_share:
        start_s = laid_s + no_vessels.from_day * SECONDS_PER_DAY
        if torch:
            start_s = max(start_s, max(torch) + CANDLE_EVERY_DAYS * SECONDS_PER_DAY)
        return Settles(
            "Candle it: strong vessels or movement say it lives, "
            "no vessels or a blood ring that it does not.",
            max(start_s, now_s),
            candle=True,
        )
    start_s = max(torch) + LOOK_EVERY_DAYS * SECONDS_PER_DAY if torch else now_s
    feel = SIGNS[SignKind.FEEL, "firm"].from_share
    feels = " Feel it: firm or full is good, mushy is not." if development >= feel else ""
    return Settles(
        "Candle it for movement, or a dark body below with vessels on top; "
        f"vessels alone are hidden by now.{feels}",
        max(start_s, now_s),
        candle=True,
    )
