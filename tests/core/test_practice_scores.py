"""What a learner's judgements were worth: known values and properties."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.errors import NotPlausible
from sandboa.core.practice import (
    Answer,
    by_sign,
    by_week,
    calibration,
    error,
    tally,
)
from sandboa.core.practice.scores import require_chance

SURE = Answer(0.0, chance=0.9, alive=True, usual_said=True, usual=True, worth=0.0, best=0.0)
DAY_S = 86_400.0

ANSWERS = st.lists(
    st.builds(
        Answer,
        at_s=st.floats(0, 1e7),
        chance=st.floats(0, 1),
        alive=st.booleans(),
        usual_said=st.booleans(),
        usual=st.booleans(),
        worth=st.sampled_from([-1.0, 0.0, 1.0]),
        best=st.sampled_from([0.0, 1.0]),
        signs=st.lists(st.sampled_from(["mould", "smell", "dents"]), unique=True).map(tuple),
    ),
    max_size=40,
)


def test_alarms_and_misses_are_told_apart() -> None:
    answers = [
        SURE,
        replace(SURE, chance=0.2),
        replace(SURE, alive=False),
        replace(SURE, alive=False, chance=0.5, usual=False),
        replace(SURE, alive=False, chance=0.49, worth=-1.0, best=1.0),
    ]
    told = tally(answers)
    assert (told.eggs, told.alive, told.false_alarms, told.missed) == (5, 2, 1, 2)
    assert (told.stages_right, told.lost, told.saved, told.could_save) == (4, 1.0, 0.0, 1.0)
    assert told.brier == pytest.approx((0.01 + 0.64 + 0.81 + 0.25 + 0.2401) / 5)
    assert tally([]).brier is None


def test_when_you_say_90_percent_you_are_right_in_72() -> None:
    answers = [replace(SURE, alive=n < 18) for n in range(25)]
    curve = calibration(answers)
    assert curve is not None
    (bin_,) = curve.bins
    assert (bin_.eggs, bin_.came, bin_.said) == (25, 18, pytest.approx(0.9))
    assert bin_.low < 0.72 < bin_.high < 0.9
    assert calibration([]) is None


def test_a_sign_is_told_once_enough_cases_showed_it_the_most_mistaken_first() -> None:
    wrong = replace(SURE, alive=False, signs=("smell",))
    mould, dents = replace(SURE, signs=("mould",)), replace(SURE, signs=("dents",))
    answers = [wrong] * 3 + [mould] * 3 + [dents] * 2
    assert [(s.sign, s.eggs, s.missed) for s in by_sign(answers)] == [
        ("smell", 3, 3),
        ("mould", 3, 0),
    ]


def test_weeks_are_counted_back_from_now() -> None:
    now_s = 30 * DAY_S
    answers = [replace(SURE, at_s=now_s - ago * DAY_S) for ago in (0.5, 6.9, 7.1, 20.0)]
    assert [(w.eggs, w.from_s / DAY_S) for w in by_week(answers, now_s)] == [
        (1, 9.0),
        (1, 16.0),
        (2, 23.0),
    ]


@given(ANSWERS)
def test_the_order_of_answers_plays_no_part_in_any_count(answers: list[Answer]) -> None:
    other = list(reversed(answers))
    assert by_sign(other) == by_sign(answers)
    one, two = tally(answers), tally(other)
    assert replace(one, brier=None) == replace(two, brier=None)
    assert one.false_alarms + one.missed <= one.eggs
    assert all(0.0 <= error(answer) <= 1.0 for answer in answers)
    assert sum(week.eggs for week in by_week(answers, 1e7)) == len(answers)


@pytest.mark.parametrize("per_cent", [101, -0.5, float("inf")])
def test_no_chance_is_beyond_0_to_100_percent(per_cent: float) -> None:
    with pytest.raises(NotPlausible, match="0 to 100"):
        require_chance(per_cent)
    assert require_chance(100) == 1.0
