"""How good a learner's chances were: calibration, false alarms, missed deaths, sign by sign."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.errors import NotPlausible
from sandboa.core.standing.reliability import Reliability, reliability
from sandboa.core.units import SECONDS_PER_DAY

#: Range of a chance a learner says, per cent.
CHANCES_PER_CENT: Final = (0, 100)
#: Chance below which a learner took an egg for dead.
_EVEN: Final = 0.5
#: Cases that showed a sign below which nothing is said of it (assumption).
FEWEST_OF_SIGN: Final = 3
_WEEK_S: Final = 7 * SECONDS_PER_DAY


@dataclass(frozen=True, slots=True)
class Answer:
    """One egg judged, with its truth.

    Attributes
    ----------
    at_s: when, s.
    chance: that it lives, as the learner said, 0-1.
    alive: whether it did.
    usual_said, usual: whether it looked as it should at its stage, as said and in truth.
    worth: animals that live more, or fewer, by what the learner would have done next than by
        leaving it alone.
    best: animals that would live more by the best that could be done.
    signs: what was to be seen.
    """

    at_s: float
    chance: float
    alive: bool
    usual_said: bool
    usual: bool
    worth: float
    best: float
    signs: tuple[str, ...] = ()

    @property
    def false_alarm(self) -> bool:
        """Whether it lived, and was taken for dead."""
        return self.alive and mistaken(self.chance, self.alive)

    @property
    def missed(self) -> bool:
        """Whether it was dead, and taken for alive."""
        return not self.alive and mistaken(self.chance, self.alive)


@dataclass(frozen=True, slots=True)
class Tally:
    """Counts over `eggs` judged: of those `alive` the false alarms, of the others those missed,
    how often the stage was judged rightly, and what acts would have saved and lost.

    `brier` is the mean squared error of the chance, 0 (always right and sure) to 1; None of none.
    """

    eggs: int
    alive: int
    false_alarms: int
    missed: int
    stages_right: int
    saved: float
    could_save: float
    lost: float
    brier: float | None


@dataclass(frozen=True, slots=True)
class SignScore:
    """A sign in `eggs` of the cases: how many of those lived, and how they were mistaken."""

    sign: str
    eggs: int
    alive: int
    false_alarms: int
    missed: int


@dataclass(frozen=True, slots=True)
class WeekScore:
    """A week that began at `from_s` (s): eggs judged, and the mean squared error of the chance."""

    from_s: float
    eggs: int
    brier: float


def mistaken(chance: float, alive: bool) -> bool:
    """Whether an egg was taken for dead that lives, or for alive that does not."""
    return (chance >= _EVEN) is not alive


def error(answer: Answer) -> float:
    """How far the chance was off the truth, 0-1."""
    return abs(answer.chance - float(answer.alive))


def tally(answers: Sequence[Answer]) -> Tally:
    """Counts over answers in any order."""
    return Tally(
        eggs=len(answers),
        alive=sum(a.alive for a in answers),
        false_alarms=sum(a.false_alarm for a in answers),
        missed=sum(a.missed for a in answers),
        stages_right=sum(a.usual_said == a.usual for a in answers),
        saved=sum(max(a.worth, 0.0) for a in answers),
        could_save=sum(a.best for a in answers),
        lost=sum(max(-a.worth, 0.0) for a in answers),
        brier=sum(error(a) ** 2 for a in answers) / len(answers) if answers else None,
    )


def calibration(answers: Sequence[Answer]) -> Reliability | None:
    """ "When you say 90 % you are right in 72": chances held against the truth; None of none.

    Raises NotPlausible for a chance beyond 0-1.
    """
    return reliability([a.chance for a in answers], [a.alive for a in answers])


def by_sign(answers: Iterable[Answer]) -> tuple[SignScore, ...]:
    """Each sign that `FEWEST_OF_SIGN` cases showed, the most mistaken first, then by name."""
    seen: dict[str, list[Answer]] = defaultdict(list)
    for answer in answers:
        for sign in answer.signs:
            seen[sign].append(answer)
    scores = [
        SignScore(
            sign,
            len(of),
            sum(a.alive for a in of),
            sum(a.false_alarm for a in of),
            sum(a.missed for a in of),
        )
        for sign, of in seen.items()
        if len(of) >= FEWEST_OF_SIGN
    ]
    return tuple(
        sorted(scores, key=lambda s: (-(s.false_alarms + s.missed) / s.eggs, -s.eggs, s.sign))
    )


def by_week(answers: Iterable[Answer], now_s: float) -> tuple[WeekScore, ...]:
    """Weeks back from now in which eggs were judged, the earliest first."""
    weeks: dict[int, list[float]] = defaultdict(list)
    for answer in answers:
        weeks[int((now_s - answer.at_s) // _WEEK_S)].append(error(answer) ** 2)
    return tuple(
        WeekScore(now_s - (ago + 1) * _WEEK_S, len(of), sum(of) / len(of))
        for ago, of in sorted(weeks.items(), reverse=True)
    )


def require_chance(per_cent: float) -> float:
    """A chance said in per cent as 0-1; NotPlausible beyond 0-100."""
    low, high = CHANCES_PER_CENT
    if not low <= per_cent <= high:
        raise NotPlausible("chance_percent", f"a chance of {per_cent:g} % is none: say 0 to 100")
    return per_cent / 100.0
