"""House methods: the schools a keeper chooses from, and how a clutch differs from its house's.

Practice differs on every line; core.methods.reasons says what speaks for each choice.
"""

import math
from dataclasses import dataclass, fields
from enum import StrEnum
from typing import Final

from sandboa.core.box import Closing
from sandboa.core.dam_care.aftercare import TubSchool
from sandboa.core.development.clock import DEFAULT_CLOCK, DevelopmentClock
from sandboa.core.errors import NotPlausible
from sandboa.core.messages import Message, Temperature, Words
from sandboa.core.names import clean_name
from sandboa.core.units import SET_POINT_RANGE_C, require_range
from sandboa.core.water.mixing import RATIO_RANGE, WaterBy, medium_named


class Contact(StrEnum):
    """How the eggs meet what is under them."""

    BEDDED = "bedded in a hollow"
    GRID = "on a grid"


class Visits(StrEnum):
    SET_AND_FORGET = "set and forget"
    EVERY_14_DAYS = "every 14 days"
    EVERY_7_DAYS = "every 7 days"
    EVERY_2_3_DAYS = "every 2-3 days"


class MouldSchool(StrEnum):
    LEAVE = "leave unless it comes away freely"
    ISOLATE = "isolate"
    POWDER = "antifungal powder and dry brush"
    DISCARD = "discard only when certain"


class CuttingSchool(StrEnum):
    NEVER = "never, only to rescue when siblings are out"
    AFTER_FIRST_PIP = "after the first pip"
    FULL_TERM = "when full term and all eggs deflated"
    SET_DAY = "on a set day"


class LastDays(StrEnum):
    LEAVE = "leave as is"
    MOVE = "to damp warm paper, grid removed"


class DamSchool(StrEnum):
    TAKEN = "eggs taken"
    MATERNAL = "maternal incubation"


class ClumpSchool(StrEnum):
    KEEP = "keep the clump"
    SEPARATE = "separate while fresh"


#: Day before which no egg is cut on a set day, and the temperature it is meant at (rule P4).
EARLIEST_SET_DAY: Final = 55
STANDARD_C: Final = 31.67
#: Days a set day can be at all (assumption).
_SET_DAY_RANGE: Final = (40.0, 110.0)


@dataclass(frozen=True, slots=True)
class Method:
    """One choice on every line of the table in rule P4.

    `ratio` is g of water per g of dry medium, None where nothing is mixed by
    weight; `temperature_c` the set point; `set_day` counts for cutting on a
    set day only.
    """

    name: str
    medium: str = "vermiculite"
    ratio: float | None = 1.0
    contact: Contact = Contact.BEDDED
    closing: Closing = Closing.PIN_HOLES
    temperature_c: float = 31.5
    visits: Visits = Visits.EVERY_7_DAYS
    mould: MouldSchool = MouldSchool.LEAVE
    cutting: CuttingSchool = CuttingSchool.AFTER_FIRST_PIP
    set_day: int | None = None
    last_days: LastDays = LastDays.LEAVE
    clump: ClumpSchool = ClumpSchool.KEEP
    tub: TubSchool = TubSchool.AT_ONCE
    dam: DamSchool = DamSchool.TAKEN

    @property
    def maternal(self) -> bool:
        return self.dam is DamSchool.MATERNAL


#: What a house starts with.
STANDARD: Final = Method("Standard")

_LINES: Final = {
    "medium": "medium",
    "ratio": "water per g of medium",
    "contact": "contact",
    "closing": "closing",
    "temperature_c": "temperature",
    "visits": "visits",
    "mould": "mould",
    "cutting": "cutting",
    "set_day": "set day",
    "last_days": "last days",
    "clump": "clump",
    "tub": "dam's tub",
    "dam": "dam",
}


@dataclass(frozen=True, slots=True)
class Difference:
    """A line on which a clutch departs from its house method."""

    line: str
    house: Words
    own: Words


def checked(method: Method, clock: DevelopmentClock = DEFAULT_CLOCK) -> Method:
    """The method with its name tidied; NotPlausible when a line cannot be true.

    Temperature 20-36 °C, ratio 0.1-8; a set day needs the day, and never one
    before day 55 at the standard temperature, or as far developed by the house's `clock`.
    """
    name = clean_name("name", method.name)
    medium = medium_named(method.medium)
    require_range("temperature_c", method.temperature_c, SET_POINT_RANGE_C, "°C")
    # What is not mixed by weight has no ratio, whatever stood there for another medium.
    ratio = method.ratio if medium.water is WaterBy.WEIGHT else None
    if ratio is not None:
        require_range("ratio", ratio, RATIO_RANGE, "")
    set_day = None
    if method.cutting is CuttingSchool.SET_DAY:
        if method.set_day is None:
            raise NotPlausible("set_day", "which day are eggs cut on?")
        earliest = earliest_set_day(method.temperature_c, clock)
        require_range("set_day", method.set_day, _SET_DAY_RANGE, "days")
        if method.set_day < earliest:
            raise NotPlausible(
                "set_day",
                Message(
                    "day {day} is too early to cut at {warmth}: not before day {earliest}",
                    day=method.set_day,
                    warmth=Temperature(method.temperature_c),
                    earliest=earliest,
                ),
            )
        set_day = method.set_day
    kept = {f.name: getattr(method, f.name) for f in fields(method)}
    kept |= {"name": name, "medium": medium.name, "ratio": ratio, "set_day": set_day}
    return Method(**kept)


def earliest_set_day(temperature_c: float, clock: DevelopmentClock = DEFAULT_CLOCK) -> int:
    """First day on which cutting on a set day can be meant: day 55 at 31.67 °C, by heat elsewhere.

    `temperature_c` above the clock's zero; at or below it nothing develops and
    the latest day of all is returned.
    """
    developed = EARLIEST_SET_DAY * float(clock.rate_per_day(STANDARD_C))
    rate = float(clock.rate_per_day(temperature_c))
    if rate <= 0:
        return int(_SET_DAY_RANGE[1])
    return math.ceil(developed / rate - 1e-9)


def differences(house: Method, own: Method) -> tuple[Difference, ...]:
    """The lines on which `own` departs from `house`, in the order of the table."""
    return tuple(
        Difference(words, _shown(line, house), _shown(line, own))
        for line, words in _LINES.items()
        if getattr(house, line) != getattr(own, line)
    )


def _shown(line: str, method: Method) -> Words:
    value = getattr(method, line)
    if value is None:
        return "none"
    if line == "temperature_c":
        return Message("{warmth}", warmth=Temperature(value))
    return f"{value:g}" if isinstance(value, float) else str(value)
