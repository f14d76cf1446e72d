"""From turgor grades to a judgement: the box is dry, or this egg is in trouble, or all is well."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from sandboa.core.dimples.rules import DEFAULT_DENTS, DentRules
from sandboa.core.dimples.stages import allowed_grade, excess_grade
from sandboa.core.errors import NotPlausible
from sandboa.core.units import SECONDS_PER_DAY


class Scope(StrEnum):
    """What the dents point at."""

    NONE = "none"
    EGG = "egg"
    BOX = "box"


class Urgency(StrEnum):
    """How soon to act; values in rising order."""

    NONE = "none"
    WATCH = "watch"
    TODAY = "today"
    URGENT = "urgent"

    @property
    def rank(self) -> int:
        """0 (nothing) to 3 (now): for ordering what needs the keeper first."""
        return list(Urgency).index(self)


@dataclass(frozen=True, slots=True)
class Grading:
    """One look at one egg: when (s), turgor grade 0-4, share developed then."""

    at_s: float
    grade: int
    development: float


@dataclass(frozen=True, slots=True)
class EggTurgor:
    """A live egg's latest grade at its share developed, and what its shell and past allow.

    `egg` names it in its box. `development` is its share p, 0-2; None takes that of the others.
    """

    egg: str
    grade: int
    loses_water_fast: bool = False
    rose_fast: bool = False
    development: float | None = None


@dataclass(frozen=True, slots=True)
class BoxDents:
    """The live eggs of a box, 1-30, and how many of them are early for the stage.

    They are counted without any allowance for shells. `water_says_dry`: by weight,
    by feel or by its lid the box is short of water.
    """

    live_eggs: int
    early_eggs: int
    water_says_dry: bool = False


@dataclass(frozen=True, slots=True)
class DimpleJudgement:
    """The verdict on one egg's dents at its stage."""

    allowed_grade: int
    excess: int
    scope: Scope
    urgency: Urgency
    #: Normal only because a rough or windowed shell is allowed a grade more.
    shell_allowance_used: bool = False
    rose_fast: bool = False
    full_term: bool = False


@dataclass(frozen=True, slots=True)
class BoxJudgement:
    """The verdict on a box: the scope that explains most, and each egg's own."""

    scope: Scope
    urgency: Urgency
    live_eggs: int
    early_eggs: tuple[str, ...]
    by_egg: dict[str, DimpleJudgement]


def judge_egg(
    development: float, egg: EggTurgor, box: BoxDents, rules: DentRules = DEFAULT_DENTS
) -> DimpleJudgement:
    """Judge one egg among its box (rule B).

    Parameters
    ----------
    development: share developed p, 0-2.
    egg: its grade, and what its shell and past allow.
    box: the eggs of its box, this one included.
    rules: the numbers in force.

    Raises NotPlausible for values out of range.

    Early dents in half or more of the live eggs: the box is dry, act today;
    rough shells excuse no box. Where the box is not to blame: the egg's own
    shell, which is allowed a grade, or a failing egg. A box of one or two eggs
    cannot vote: there the water has to say that it is dry.
    """
    if not 1 <= box.live_eggs <= 30:
        raise NotPlausible("live_eggs", f"{box.live_eggs} live eggs is outside 1 to 30")
    if not 0 <= box.early_eggs <= box.live_eggs:
        raise NotPlausible(
            "eggs_as_bad",
            f"{box.early_eggs} eggs as bad, but the box has {box.live_eggs} live eggs",
        )
    grade = egg.grade
    blamed = _box_is_blamed(box, rules)
    own_shell = egg.loses_water_fast and not blamed
    allowed = allowed_grade(development, loses_water_fast=own_shell, rules=rules)
    excess = excess_grade(development, grade, loses_water_fast=own_shell, rules=rules)
    scope = Scope.NONE
    if excess >= 1:
        scope = Scope.BOX if blamed else Scope.EGG
    urgent_rise = egg.rose_fast and development < rules.fast_rise_before
    return DimpleJudgement(
        allowed_grade=allowed,
        excess=excess,
        scope=Scope.EGG if urgent_rise and scope is Scope.NONE else scope,
        urgency=_urgency(scope, grade, urgent_rise),
        shell_allowance_used=excess == 0 and grade > allowed_grade(development, rules=rules),
        rose_fast=urgent_rise,
        full_term=development >= rules.full_term_from,
    )


def judge_box(
    development: float,
    eggs: Sequence[EggTurgor],
    rules: DentRules = DEFAULT_DENTS,
    *,
    water_says_dry: bool = False,
) -> BoxJudgement:
    """Judge a whole box of live, graded eggs, whoever's they are.

    Each is judged by its own share developed, and by `development` where it has
    none. The verdict does not depend on the order of `eggs`; the early ones are
    told in it. `water_says_dry` as in `BoxDents`. An empty box is judged as
    nothing to do.
    """

    def share(egg: EggTurgor) -> float:
        return development if egg.development is None else egg.development

    dented = {egg.egg for egg in eggs if excess_grade(share(egg), egg.grade, rules=rules)}
    box = BoxDents(len(eggs), len(dented), water_says_dry)
    blamed = _box_is_blamed(box, rules)
    early = tuple(
        egg.egg
        for egg in eggs
        if excess_grade(
            share(egg),
            egg.grade,
            loses_water_fast=egg.loses_water_fast and not blamed,
            rules=rules,
        )
    )
    by_egg = {egg.egg: judge_egg(share(egg), egg, box, rules) for egg in eggs}
    scopes = {judgement.scope for judgement in by_egg.values()}
    scope = Scope.BOX if Scope.BOX in scopes else Scope.EGG if Scope.EGG in scopes else Scope.NONE
    urgency = max((j.urgency for j in by_egg.values()), key=lambda u: u.rank, default=Urgency.NONE)
    return BoxJudgement(scope, urgency, len(eggs), early, by_egg)


def _box_is_blamed(box: BoxDents, rules: DentRules) -> bool:
    """Whether what its eggs show is the box's doing."""
    if not rules.box_wide(box.early_eggs, box.live_eggs):
        return False
    return box.live_eggs >= rules.fewest_to_vote or box.water_says_dry


def rose_fast(history: Sequence[Grading], at_s: float, rules: DentRules = DEFAULT_DENTS) -> bool:
    """Whether the latest grade is 2 or more above one of the 7 days before it, before p = 0.8.

    `history` in any order; looks after `at_s` are ignored. Rule B.
    """
    seen = sorted((g for g in history if g.at_s <= at_s), key=lambda g: g.at_s)
    if not seen or seen[-1].development >= rules.fast_rise_before:
        return False
    latest = seen[-1]
    since = latest.at_s - rules.fast_rise_days * SECONDS_PER_DAY
    recent = [g.grade for g in seen if g.at_s >= since]
    return latest.grade - min(recent) >= rules.fast_rise_grades


def answered_water(
    history: Sequence[Grading], watered_s: Sequence[float], rules: DentRules = DEFAULT_DENTS
) -> float | None:
    """The latest watering (s) that the egg answered, or None.

    Answered: the last look before it is followed, within 5 days of it, by a
    look at least one grade lower. That proves the box was dry (rule B).
    """
    before = sorted(history, key=lambda g: g.at_s)
    # Back in time, so that each look is met once: when a grade was seen soonest after `water_s`.
    soonest_s: dict[int, float] = {}
    for water_s in sorted(watered_s, reverse=True):
        while before and before[-1].at_s > water_s:
            look = before.pop()
            soonest_s[look.grade] = look.at_s
        if not before:
            return None
        until = water_s + rules.answer_days * SECONDS_PER_DAY
        if any(at_s <= until and g < before[-1].grade for g, at_s in soonest_s.items()):
            return water_s
    return None


def did_not_answer(
    history: Sequence[Grading],
    watered_s: Sequence[float],
    now_s: float,
    rules: DentRules = DEFAULT_DENTS,
) -> bool:
    """Whether the latest watering was looked at again, has had its 5 days, and changed nothing."""
    known = [w for w in watered_s if w <= now_s]
    if not known or answered_water(history, known, rules) is not None:
        return False
    water_s = max(known)
    before = [g for g in history if g.at_s <= water_s]
    after = [g for g in history if g.at_s > water_s]
    over = now_s - water_s >= rules.answer_days * SECONDS_PER_DAY
    return bool(over and before and after)


def _urgency(scope: Scope, grade: int, urgent_rise: bool) -> Urgency:
    if urgent_rise:
        return Urgency.URGENT
    if scope is Scope.BOX or (scope is Scope.EGG and grade == 4):
        return Urgency.TODAY
    return Urgency.WATCH if scope is Scope.EGG else Urgency.NONE
