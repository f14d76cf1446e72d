"""Candling: what the torch shows, and what follows from it (rule P3)."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR

#: h after laying within which an egg is turned once; after that never (rule P3).
TURN_WITHIN_HOURS: Final = 24.0
#: Days after laying on which an unsure egg is candled again (rule P3).
AGAIN_DAYS: Final = (5.0, 7.0)
#: Days after laying at which the second look is over, done or not (assumption).
AGAIN_GIVEN_UP_DAYS: Final = 14.0


class Vessels(StrEnum):
    """Vessels near the top. `UNSURE`: looked, could not tell."""

    STRONG = "strong"
    WEAK = "weak"
    NONE = "none"
    BROKEN = "broken"
    UNSURE = "unsure"


def vessels_words(vessels: Vessels) -> str:
    """ "strong vessels", "no vessels", "vessels: not sure"."""
    if vessels is Vessels.UNSURE:
        return "vessels: not sure"
    return "no vessels" if vessels is Vessels.NONE else f"{vessels} vessels"


class Disc(StrEnum):
    """Where the embryo's disc lies as the egg was found."""

    TOP = "top"
    SIDE = "side"
    UNDER = "under"


@dataclass(frozen=True, slots=True)
class TurnAdvice:
    """Whether to turn the egg, and the sentence for it; `until_s` is the end of the first day."""

    turn: bool
    until_s: float
    text: str


def turn_advice(disc: Disc, laid_s: float, now_s: float) -> TurnAdvice | None:
    """What to do with an egg whose disc is not on top; None when it is.

    Within 24 h of laying (s) it is turned once, gently; later the embryo is
    attached and the egg stays as it lies, the risk noted.
    """
    if disc is Disc.TOP:
        return None
    until_s = laid_s + TURN_WITHIN_HOURS * SECONDS_PER_HOUR
    where = "underneath" if disc is Disc.UNDER else "at the side"
    if now_s <= until_s:
        return TurnAdvice(
            turn=True,
            until_s=until_s,
            text=f"Disc {where}: turn the egg once, slowly, so that the disc is on top, "
            "and mark the new top. Never again after that.",
        )
    return TurnAdvice(
        turn=False,
        until_s=until_s,
        text=f"Disc {where}, and more than a day old: do not turn it, the embryo holds on. "
        "It may well hatch as it lies; the risk is noted.",
    )


def candle_again(
    vessels: Vessels | None, laid_s: float, seen_s: float, now_s: float
) -> tuple[float, float] | None:
    """From when to when (s) to candle an egg again, None when there is no need.

    An egg seen with weak vessels, none, or unsure on its first days is kept and
    candled again on day 5-7. `vessels` is the latest look, at `seen_s`; None
    is an egg never candled. Past day 14 the reminder is over.
    """
    start, end = (laid_s + d * SECONDS_PER_DAY for d in AGAIN_DAYS)
    if vessels in (Vessels.STRONG, Vessels.BROKEN) or seen_s >= start:
        return None
    if now_s > laid_s + AGAIN_GIVEN_UP_DAYS * SECONDS_PER_DAY:
        return None
    return start, end
