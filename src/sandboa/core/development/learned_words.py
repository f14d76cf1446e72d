"""What finished clutches taught, said where it is used (rule A7)."""

import math
from collections.abc import Iterator
from typing import Final

from sandboa.core.development.curve import DevelopmentCurve
from sandboa.core.development.learning import Effect, Learned
from sandboa.core.messages import Message, Temperature, Words
from sandboa.core.units import SECONDS_PER_DAY

#: Days below which a difference is not worth a sentence of its own (assumption).
_LEAST_DAYS: Final = 0.25


def learned_words(learned: Learned, curve: DevelopmentCurve, dam: str) -> tuple[Words, ...]:
    """What the house, and the dam of that name, need longer or shorter than the default.

    "Your eggs need 1.2 days longer than the default at 30.0 °C (4 clutches)." The days are those
    at the temperature along `curve`. Nothing is said without a finished clutch, or where they
    never pip at that temperature.
    """
    return tuple(_words(learned, curve, dam)) if learned.clutches else ()


def _words(learned: Learned, curve: DevelopmentCurve, dam: str) -> Iterator[Words]:
    at_1_s = curve.time_of(1.0)
    if at_1_s is None:
        return
    usual_days = (at_1_s - curve.temperature.start_s) / SECONDS_PER_DAY
    house, hers = learned.house, learned.dam
    days = usual_days * math.expm1(house.mean)
    here = Temperature(curve.mean_c())
    if abs(days) < _LEAST_DAYS:
        yield Message(
            "Your eggs need as long as the default at {here} ({rests}).",
            here=here, rests=_count(house),
        )  # fmt: skip
    else:
        yield Message(
            "Your eggs need {days} {way} than the default at {here} ({rests}).",
            days=_days(days), way="longer" if days > 0 else "less", here=here,
            rests=_rests_on(house),
        )  # fmt: skip
    own = usual_days * math.expm1(hers.mean)
    if hers.clutches and abs(own) >= _LEAST_DAYS:
        yield Message(
            "{dam}'s pip {days} {way} ({rests}).",
            dam=dam, days=_days(own), way="late" if own > 0 else "early",
            rests=_rests_on(hers),
        )  # fmt: skip


def _days(days: float) -> str:
    size = abs(days)
    if size < 0.75:
        return "half a day"
    return "1 day" if 0.95 <= size < 1.05 else f"{size:.1f} days"


def _count(effect: Effect) -> str:
    return "1 clutch" if effect.clutches == 1 else f"{effect.clutches} clutches"


def _rests_on(effect: Effect) -> str:
    return f"{_count(effect)}, may be chance" if effect.may_be_chance else _count(effect)
