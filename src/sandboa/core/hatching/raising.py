"""Raising a hatchling: its first shed, its first meal and the meals after that."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.development.delays import Delay
from sandboa.core.development.rules import FIRST_SHED
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching.hatchlings import HATCHLING_RANGE_G
from sandboa.core.units import SECONDS_PER_DAY, require_range

#: days from one meal of a hatchling to the next (keeper practice: 5 to 10).
MEAL_EVERY_DAYS: Final = 7.0
MEAL_EVERY_RANGE_DAYS: Final = (3.0, 21.0)
#: days after it came out for which a young animal is reminded of (assumption: its first year).
RAISED_DAYS: Final = 365.0
#: days from one shed to the next below which they are the same one (assumption).
SHEDS_APART_DAYS: Final = 10.0
#: days for which something that is due is reminded of: where nobody records it any more, nobody
#: wants to be told (assumption).
REMINDED_DAYS: Final = 60.0
#: meals refused one after another from which that is told (assumption).
REFUSALS_TOLD: Final = 4
#: g a day a young animal can gain at the most (assumption), above what it can weigh at hatching.
FASTEST_GAIN_G_DAY: Final = 6.0


class Departure(StrEnum):
    """How an animal left the house."""

    SOLD = "sold"
    GIVEN_AWAY = "given away"
    DIED = "died"
    OTHER = "other"


class RaisingTask(StrEnum):
    """What is due at a young animal."""

    SHED = "shed"
    FIRST_MEAL = "first meal"
    MEAL = "meal"


@dataclass(frozen=True, slots=True)
class Meals:
    """When meals were offered to an animal (s), and whether each was taken; in order of time."""

    offered: tuple[tuple[float, bool], ...] = ()

    @property
    def refused_in_a_row(self) -> int:
        """Meals refused since the last one it took."""
        refused = 0
        for _, taken in reversed(self.offered):
            if taken:
                break
            refused += 1
        return refused


@dataclass(frozen=True, slots=True)
class RaisingDue:
    """What is due since `since_s`, in words for one animal."""

    task: RaisingTask
    since_s: float
    words: str


def raising_due(
    out_s: float,
    shed_s: float | None,
    meals: Meals,
    now_s: float,
    every_days: float = MEAL_EVERY_DAYS,
    first_shed: Delay = FIRST_SHED,
) -> RaisingDue | None:
    """What is due at a young animal of the house by `now_s`, None for nothing.

    `out_s` is when it came out of the egg and `shed_s` its first shed, None where none was seen;
    all in s. Its first shed is asked after once nine in ten have had it; one that was offered a
    meal has shed, seen or not. The first meal is due from the shed on (rule P8), the next
    `every_days` (3-21) after the last one offered, taken or refused. Nothing is due once it is a
    year old, nor what has been for two months: then nobody records it here. Raises NotPlausible
    for an interval out of range.
    """
    require_range("meal_every_days", every_days, MEAL_EVERY_RANGE_DAYS, "days")
    if now_s - out_s > RAISED_DAYS * SECONDS_PER_DAY:
        return None
    due = _next(out_s, shed_s, meals, now_s, every_days, first_shed)
    reminded = 0.0 <= now_s - due.since_s <= REMINDED_DAYS * SECONDS_PER_DAY
    return due if reminded else None


def _next(
    out_s: float,
    shed_s: float | None,
    meals: Meals,
    now_s: float,
    every_days: float,
    first_shed: Delay,
) -> RaisingDue:
    """What comes next for it, due from `since_s` on, which may be to come."""
    offered = [at_s for at_s, _ in meals.offered if at_s <= now_s]
    if offered:
        since_s = offered[-1] + every_days * SECONDS_PER_DAY
        return RaisingDue(RaisingTask.MEAL, since_s, _meal_words(offered[-1], now_s, meals))
    if shed_s is not None and shed_s <= now_s:
        return RaisingDue(RaisingTask.FIRST_MEAL, shed_s, "has shed: offer its first meal")
    since_s = out_s + first_shed.quantile_days(0.9) * SECONDS_PER_DAY
    days = (now_s - out_s) / SECONDS_PER_DAY
    return RaisingDue(
        RaisingTask.SHED, since_s, f"no shed seen in {days:.0f} days: look for it, keep it damp"
    )


def require_young_weight(mass_g: float, age_days: float) -> float:
    """Return a weight (g) that a hatchling of that age (days, from 0) can have.

    NotPlausible otherwise: it weighs 10-150 g as it hatches, and gains 6 g a day at the most.
    """
    lowest, highest = HATCHLING_RANGE_G
    limit = highest + FASTEST_GAIN_G_DAY * max(age_days, 0.0)
    return require_range("mass_g", mass_g, (lowest, round(limit)), "g")


def require_sheds_apart(seen_s: float, others_s: tuple[float, ...]) -> None:
    """NotPlausible for a shed within ten days of another one of the same animal: they are one."""
    if any(abs(seen_s - other) < SHEDS_APART_DAYS * SECONDS_PER_DAY for other in others_s):
        raise NotPlausible(
            "at",
            f"a shed is recorded within {SHEDS_APART_DAYS:.0f} days of that: correct its time in "
            "the log, if it was this one",
        )


def _meal_words(last_s: float, now_s: float, meals: Meals) -> str:
    days = round((now_s - last_s) / SECONDS_PER_DAY)
    words = f"last offered a meal {days} {'day' if days == 1 else 'days'} ago"
    refused = meals.refused_in_a_row
    if refused >= REFUSALS_TOLD:
        return f"{words}, refused {refused} in a row: weigh it; losing weight, ask a reptile vet"
    return words if not refused else f"{words}, refused"
