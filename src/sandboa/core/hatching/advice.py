"""What to do at an egg that is closed or pipped, by the keeper's school of cutting.

To change when a rescue is considered, change `RESCUE_HOURS`; the test that
guards it is tests/core/test_hatch_advice.py. Source: rule P8, sections 3
and 5, rule G (opened too early; could not get out); keeper practice.
"""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.development.none_alive import FAR_BEYOND, developed_words
from sandboa.core.methods import CuttingSchool
from sandboa.core.rounds.due import which_eggs
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR

#: h after the first pip from which a closed egg may be, and is, considered for rescue (rule P8).
RESCUE_HOURS: Final = (36.0, 48.0)
#: Share developed from which an egg is full term: before it, cutting opens it too early (G).
FULL_TERM: Final = 0.95
#: h after the pip from which it is looked whether the slit still stands open (G).
SLIT_HOURS: Final = 24.0
#: h after the pip in which most are out; cut eggs take longer (rule P8; cut: assumption).
OUT_HOURS: Final = 72.0
CUT_OUT_HOURS: Final = 120.0
#: Turgor grade that counts as deflated (rule P8: "full term and all eggs deflated").
DEFLATED_GRADE: Final = 2
#: Days from lay which a calendar calls full term at any temperature (keeper practice).
CALENDAR_DAYS: Final = 60.0


class AdviceKind(StrEnum):
    """In rising order of how soon somebody should act."""

    OUT = "out"
    WAIT = "wait"
    TOO_EARLY = "too early"
    WIDEN = "widen"
    WINDOW = "consider a window"


class CuttingState(StrEnum):
    """How an egg stands open or closed."""

    CLOSED = "closed"
    CUT = "cut"
    PIPPED = "pipped"
    OUT = "out"


@dataclass(frozen=True, slots=True)
class EggAtHatch:
    """A live egg of a clutch at term: moments in s, None where it has not happened.

    `grade` is its latest turgor grade, None while nobody looked.
    """

    number: int
    pipped_s: float | None = None
    cut_s: float | None = None
    emerged_s: float | None = None
    grade: int | None = None

    @property
    def state(self) -> CuttingState:
        if self.emerged_s is not None:
            return CuttingState.OUT
        if self.pipped_s is not None:
            return CuttingState.PIPPED
        return CuttingState.CUT if self.cut_s is not None else CuttingState.CLOSED


@dataclass(frozen=True, slots=True)
class HatchAdvice:
    """What to do at one egg, and why."""

    number: int
    kind: AdviceKind
    text: str
    reason: str


def advise(
    eggs: tuple[EggAtHatch, ...],
    *,
    school: CuttingSchool | None,
    set_day: int | None,
    share: float,
    laid_s: float,
    now_s: float,
) -> tuple[HatchAdvice, ...]:
    """Advice for each live egg of a clutch, in the order given.

    Parameters: `school` the keeper chose, None where nobody chose one: then an
    egg is opened only to rescue it. `share` developed now by heat (p, 1 at the typical pip);
    `set_day` the day of the school that cuts on a set day, None otherwise;
    `laid_s`, `now_s` in s. Never advice to cut before `FULL_TERM`, whatever
    the calendar or the school says.
    """
    clutch = _Clutch(eggs, school, set_day, share, laid_s, now_s)
    return tuple(clutch.advice(egg) for egg in eggs)


@dataclass(frozen=True)
class _Clutch:
    eggs: tuple[EggAtHatch, ...]
    school: CuttingSchool | None
    set_day: int | None
    share: float
    laid_s: float
    now_s: float

    def advice(self, egg: EggAtHatch) -> HatchAdvice:
        if egg.state is CuttingState.OUT:
            return HatchAdvice(egg.number, AdviceKind.OUT, "Out.", "")
        if egg.state is CuttingState.CLOSED:
            return self._closed(egg)
        return self._open(egg)

    @property
    def day(self) -> float:
        return (self.now_s - self.laid_s) / SECONDS_PER_DAY

    @property
    def hours_since_first_pip(self) -> float | None:
        pips = [egg.pipped_s for egg in self.eggs if egg.pipped_s is not None]
        return (self.now_s - min(pips)) / SECONDS_PER_HOUR if pips else None

    def _closed(self, egg: EggAtHatch) -> HatchAdvice:
        percent = developed_words(self.share)
        if self.share < FULL_TERM:
            return self._not_at_term(egg, percent)
        rescue = self._rescue(egg)
        if rescue is not None:
            return rescue
        by_school = self._by_school(egg)
        if by_school is not None:
            return by_school
        hours = self.hours_since_first_pip
        if hours is None:
            return HatchAdvice(
                egg.number,
                AdviceKind.WAIT,
                "Wait: none has pipped yet.",
                f"Full term by heat ({percent}); the first pip is still to come."
                if self.share <= FAR_BEYOND
                else f"It is long past its term by heat ({percent}): candle the eggs.",
            )
        return HatchAdvice(
            egg.number,
            AdviceKind.WAIT,
            "Wait.",
            f"First pip {hours:.0f} h ago: siblings usually follow within 24 to 72 h.",
        )

    def _not_at_term(self, egg: EggAtHatch, percent: str) -> HatchAdvice:
        late_by_calendar = self.day >= min(self.set_day or CALENDAR_DAYS, CALENDAR_DAYS)
        wants_it = (
            (self.school is CuttingSchool.SET_DAY and late_by_calendar)
            or (self.school is CuttingSchool.FULL_TERM and self._all_deflated())
            or (self.school is CuttingSchool.AFTER_FIRST_PIP and self.hours_since_first_pip)
        )
        if wants_it or late_by_calendar:
            return HatchAdvice(
                egg.number,
                AdviceKind.TOO_EARLY,
                "Too early to cut: wait.",
                f"Day {self.day:.0f} by the calendar, but only {percent} by the heat it got; "
                f"full term is {100 * FULL_TERM:.0f} %.",
            )
        return HatchAdvice(egg.number, AdviceKind.WAIT, "Wait.", f"{percent} developed by heat.")

    def _rescue(self, egg: EggAtHatch) -> HatchAdvice | None:
        """Siblings out, this one closed 36-48 h after the first pip, full term by heat."""
        hours = self.hours_since_first_pip
        siblings = [other for other in self.eggs if other.number != egg.number]
        out = [other for other in siblings if other.state is CuttingState.OUT]
        if hours is None or hours < RESCUE_HOURS[0] or 2 * len(out) < len(siblings) or not out:
            return None
        soon = hours < RESCUE_HOURS[1]
        numbers = tuple(other.number for other in out)
        return HatchAdvice(
            egg.number,
            AdviceKind.WINDOW,
            "A small window on top may be considered; by 48 h it should be."
            if soon
            else "Consider a small window on top, between vessels.",
            f"{_sentence(which_eggs(numbers))} {'is' if len(out) == 1 else 'are'} out, the first "
            f"pip was {hours:.0f} h ago, and it is full term by heat "
            f"({developed_words(self.share)}).",
        )

    def _by_school(self, egg: EggAtHatch) -> HatchAdvice | None:
        why = None
        if self.school is CuttingSchool.AFTER_FIRST_PIP and self.hours_since_first_pip is not None:
            why = "a sibling has pipped"
        elif self.school is CuttingSchool.FULL_TERM and self._all_deflated():
            why = "every closed egg is deflated"
        elif (
            self.school is CuttingSchool.SET_DAY
            and self.set_day is not None
            and self.day >= self.set_day
        ):
            why = f"day {self.set_day} has come"
        if why is None:
            return None
        return HatchAdvice(
            egg.number,
            AdviceKind.WINDOW,
            "Your method allows cutting from now: a small window on top, between vessels. "
            "Waiting is as good.",
            f"{_sentence(why)}, and it is full term by heat ({developed_words(self.share)}).",
        )

    def _open(self, egg: EggAtHatch) -> HatchAdvice:
        since_s = egg.pipped_s if egg.pipped_s is not None else egg.cut_s
        assert since_s is not None, "neither closed nor out"
        hours = (self.now_s - since_s) / SECONDS_PER_HOUR
        was_cut = egg.cut_s is not None
        longest = CUT_OUT_HOURS if was_cut else OUT_HOURS
        if hours < SLIT_HOURS or (was_cut and hours < longest):
            more = " Cut eggs take longer." if was_cut else ""
            return HatchAdvice(
                egg.number,
                AdviceKind.WAIT,
                "Wait: let it absorb its yolk.",
                f"Most come out 24 to 48 h after the pip, some after {OUT_HOURS:.0f}.{more}",
            )
        text = "Look whether the slit stands open; if it has closed over fluid, widen it at the top"
        if hours >= longest:
            return HatchAdvice(
                egg.number,
                AdviceKind.WIDEN,
                f"{text}, now. If it is weak or bleeding: a reptile vet.",
                f"{hours:.0f} h is longer than nearly all take.",
            )
        return HatchAdvice(
            egg.number,
            AdviceKind.WIDEN,
            f"{text}, between vessels. If it stands open and it breathes: wait.",
            "It can drown where the slit closes over fluid.",
        )

    def _all_deflated(self) -> bool:
        closed = [egg for egg in self.eggs if egg.state is CuttingState.CLOSED]
        return bool(closed) and all((egg.grade or 0) >= DEFLATED_GRADE for egg in closed)


def _sentence(words: str) -> str:
    return words[0].upper() + words[1:]
