"""Dimples by stage: the table of rule B, and what must hold for any egg and box."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.dimples import (
    BoxDents,
    DimpleJudgement,
    EggTurgor,
    Grading,
    Scope,
    Urgency,
    advice,
    allowed_grade,
    answered_water,
    judge_box,
    judge_egg,
    rose_fast,
)
from sandboa.core.errors import NotPlausible

DAY = 86_400.0
shares = st.floats(0, 1.2)
grades = st.integers(0, 4)


def judged_egg(
    p: float, grade: int, live_eggs: int, eggs_as_bad: int, **egg: bool
) -> DimpleJudgement:
    return judge_egg(p, EggTurgor(1, grade, **egg), BoxDents(live_eggs, eggs_as_bad))


@pytest.mark.parametrize(
    ("development", "allowed"),
    [
        (0.0, 0),
        (0.49, 0),
        (0.50, 1),
        (0.64, 1),
        (0.65, 2),
        (0.84, 2),
        (0.85, 3),
        (0.95, 3),
        (1.1, 3),
    ],
)
def test_allowed_grade_by_stage(development: float, allowed: int) -> None:
    assert allowed_grade(development) == allowed


def test_a_rough_or_windowed_shell_is_allowed_one_grade_early_but_never_collapse() -> None:
    assert allowed_grade(0.45, loses_water_fast=True) == 1
    assert allowed_grade(0.9, loses_water_fast=True) == 3


def test_half_the_box_early_blames_the_box_and_asks_for_water_today() -> None:
    judged = judged_egg(0.45, 2, live_eggs=6, eggs_as_bad=5)
    assert (judged.allowed_grade, judged.excess, judged.scope) == (0, 2, Scope.BOX)
    assert judged.urgency is Urgency.TODAY
    assert "water" in advice(judged, 2, early_eggs=5)


@pytest.mark.parametrize(
    ("bad", "scope"), [(1, Scope.EGG), (2, Scope.EGG), (3, Scope.BOX), (6, Scope.BOX)]
)
def test_scope_turns_at_half_of_six(bad: int, scope: Scope) -> None:
    assert judged_egg(0.45, 1, live_eggs=6, eggs_as_bad=bad).scope is scope


def test_collapse_is_an_alarm_early_and_look_today_at_full_term() -> None:
    early = judged_egg(0.7, 4, live_eggs=6, eggs_as_bad=1)
    late = judged_egg(0.96, 4, live_eggs=6, eggs_as_bad=1)
    assert early.urgency is late.urgency is Urgency.TODAY
    assert "before its time" in advice(early, 4)
    assert "pip" in advice(late, 4)


def test_rising_by_two_within_a_week_is_urgent_before_four_fifths() -> None:
    history = [Grading(0 * DAY, 0, 0.55), Grading(6 * DAY, 2, 0.66)]
    assert rose_fast(history, 6 * DAY)
    assert not rose_fast([Grading(0, 0, 0.5), Grading(8 * DAY, 2, 0.66)], 8 * DAY)
    assert not rose_fast([Grading(0, 0, 0.75), Grading(6 * DAY, 2, 0.82)], 6 * DAY)
    judged = judged_egg(0.66, 2, live_eggs=6, eggs_as_bad=0, rose_fast=True)
    assert judged.urgency is Urgency.URGENT


def test_an_egg_answers_water_when_it_falls_by_a_grade_within_five_days() -> None:
    before, after, late = (Grading(d * DAY, g, 0.4) for d, g in ((9, 2), (13, 1), (16, 1)))
    assert answered_water([before, after], [10 * DAY]) == 10 * DAY
    assert answered_water([before, late], [10 * DAY]) is None
    assert answered_water([before], [10 * DAY]) is None
    assert answered_water([before, after], []) is None


@given(
    st.lists(st.tuples(st.integers(0, 40), grades), max_size=12, unique_by=lambda look: look[0]),
    st.lists(st.integers(0, 40), max_size=6),
)
def test_the_latest_water_that_was_answered_is_found_whatever_the_order(
    looks: list[tuple[int, int]], waters: list[int]
) -> None:
    def was_answered(water: int) -> bool:
        before = max((look for look in looks if look[0] <= water), default=None)
        return before is not None and any(
            water < day <= water + 5 and grade < before[1] for day, grade in looks
        )

    history = [Grading(day * DAY, grade, 0.4) for day, grade in looks]
    latest = max((water for water in waters if was_answered(water)), default=None)
    assert answered_water(history, [w * DAY for w in waters]) == (
        None if latest is None else latest * DAY
    )


@pytest.mark.parametrize(
    ("development", "grade", "live", "bad"),
    [
        (-0.1, 0, 6, 0),
        (float("nan"), 0, 6, 0),
        (0.5, 5, 6, 0),
        (0.5, -1, 6, 0),
        (0.5, 1, 0, 0),
        (0.5, 1, 6, 7),
    ],
)
def test_what_cannot_be_true_is_refused(
    development: float, grade: int, live: int, bad: int
) -> None:
    with pytest.raises(NotPlausible):
        judged_egg(development, grade, live_eggs=live, eggs_as_bad=bad)


@given(shares, shares, grades)
def test_a_later_stage_never_makes_a_dent_worse(a: float, b: float, grade: int) -> None:
    early, late = sorted((a, b))
    judge = lambda p: judged_egg(p, grade, live_eggs=6, eggs_as_bad=1).excess
    assert judge(late) <= judge(early)


@given(shares, st.lists(st.tuples(grades, st.booleans()), min_size=1, max_size=12), st.randoms())
def test_a_box_is_judged_the_same_in_any_order_of_entry(development, eggs, random) -> None:
    box = [EggTurgor(i, grade, thin) for i, (grade, thin) in enumerate(eggs, start=1)]
    shuffled = random.sample(box, len(box))
    told, again = judge_box(development, box), judge_box(development, shuffled)
    assert replace(told, early_eggs=()) == replace(again, early_eggs=())
    assert set(told.early_eggs) == set(again.early_eggs)


@given(shares, grades, st.booleans())
def test_advice_never_tells_anyone_to_throw_an_egg_away(development, grade, thin) -> None:
    for bad in (0, 1, 2, 6):
        judged = judged_egg(development, grade, live_eggs=6, eggs_as_bad=bad, loses_water_fast=thin)
        words = advice(judged, grade, early_eggs=bad).lower()
        assert words
        assert not any(w in words for w in ("discard", "throw", "bin", "remove"))


def test_an_empty_box_needs_nothing() -> None:
    assert judge_box(0.4, []).urgency is Urgency.NONE


def test_rough_shells_excuse_no_box() -> None:
    """Seven of eight rough eggs with one dimple at 38 %: a dry box."""
    eggs = [EggTurgor(n, 1 if n <= 7 else 0, loses_water_fast=True) for n in range(1, 9)]
    judged = judge_box(0.38, eggs)
    assert (judged.scope, judged.urgency) == (Scope.BOX, Urgency.TODAY)
    assert judged.early_eggs == (1, 2, 3, 4, 5, 6, 7)
    # Three of eight: no box, and a rough shell is allowed its grade.
    few = judge_box(0.38, [EggTurgor(n, int(n <= 3), loses_water_fast=True) for n in range(1, 9)])
    assert (few.scope, few.early_eggs) == (Scope.NONE, ())
    assert few.by_egg[1].shell_allowance_used


@pytest.mark.parametrize("live", [1, 2])
def test_a_box_of_one_or_two_eggs_is_dry_only_by_the_waters_word(live: int) -> None:
    eggs = [EggTurgor(n, 4) for n in range(1, live + 1)]
    alone = judge_box(0.30, eggs)
    assert alone.scope is Scope.EGG
    words = advice(alone.by_egg[1], 4, early_eggs=live, live_eggs=live)
    assert "weigh it or feel the medium" in words
    assert judge_box(0.30, eggs, water_says_dry=True).scope is Scope.BOX


def test_three_eggs_can_say_that_their_box_is_dry() -> None:
    assert judge_box(0.30, [EggTurgor(n, 2) for n in (1, 2, 3)]).scope is Scope.BOX


def test_a_support_that_was_given_is_not_missed() -> None:
    judged = judged_egg(0.30, 2, live_eggs=6, eggs_as_bad=1)
    assert "missing support" in advice(judged, 2, live_eggs=6)
    assert "missing support" not in advice(judged, 2, live_eggs=6, supported=True)
