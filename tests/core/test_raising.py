"""What is due at a young animal: its first shed, its first meal, the next ones."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.errors import NotPlausible
from sandboa.core.hatching.raising import (
    REMINDED_DAYS,
    Meals,
    RaisingTask,
    raising_due,
    require_sheds_apart,
    require_young_weight,
)

DAY = 86_400.0
OUT = 1_000 * DAY


def due(day: float, *, shed: float | None = None, meals: tuple[tuple[float, bool], ...] = ()):
    offered = tuple((OUT + at * DAY, taken) for at, taken in meals)
    shed_s = None if shed is None else OUT + shed * DAY
    return raising_due(OUT, shed_s, Meals(offered), OUT + day * DAY)


def test_a_shed_nobody_saw_is_asked_after_once_nine_in_ten_have_had_it() -> None:
    assert due(9) is None
    told = due(11)
    assert told is not None
    assert told.task is RaisingTask.SHED
    assert "11 days" in told.words


def test_the_first_meal_is_due_from_the_shed_on() -> None:
    told = due(7, shed=7)
    assert told is not None
    assert told.task is RaisingTask.FIRST_MEAL
    assert told.since_s == OUT + 7 * DAY


def test_the_next_meal_is_due_a_week_after_the_last_taken_or_refused() -> None:
    assert due(20, shed=7, meals=((14, False),)) is None
    told = due(21, shed=7, meals=((8, True), (14, False)))
    assert told is not None
    assert told.task is RaisingTask.MEAL
    assert told.words == "last offered a meal 7 days ago, refused"


def test_one_that_was_fed_has_shed_though_nobody_saw_it() -> None:
    told = due(30, meals=((12, True),))
    assert told is not None
    assert told.task is RaisingTask.MEAL


def test_four_refusals_in_a_row_are_told_with_whom_to_ask() -> None:
    told = due(50, shed=7, meals=((8, True), *((day, False) for day in (15, 22, 29, 36))))
    assert told is not None
    assert "refused 4 in a row" in told.words
    assert "reptile vet" in told.words


def test_where_nobody_records_it_any_more_nobody_is_reminded() -> None:
    assert due(69, meals=((2, True),)) is not None
    assert due(70, meals=((2, True),)) is None
    assert due(300) is None


def test_nothing_is_asked_of_one_that_is_a_year_old() -> None:
    assert due(366, shed=7, meals=((14, True),)) is None


def test_an_interval_that_cannot_be_is_refused() -> None:
    with pytest.raises(NotPlausible, match="is outside 3 to 21 days"):
        raising_due(OUT, None, Meals(), OUT, every_days=0.5)


@given(st.floats(0, 364), st.floats(0, 40), st.lists(st.floats(0, 364), max_size=6))
def test_what_is_due_was_due_before_now_and_stays_until_it_is_done(
    day: float, shed: float, offered: list[float]
) -> None:
    meals = tuple((at, True) for at in sorted(offered) if at <= day)
    told = due(day, shed=shed, meals=meals)
    if told is not None:
        gone = (OUT + day * DAY - told.since_s) / DAY
        assert 0.0 <= gone <= REMINDED_DAYS
        next_day = min(day + 1, 365)
        assert due(next_day, shed=shed, meals=meals) is not None or gone + 1 >= REMINDED_DAYS


def test_a_weight_fits_its_age() -> None:
    assert require_young_weight(61.5, 0) == 61.5
    assert require_young_weight(300, 60) == 300
    for mass_g, age in ((615, 3), (5, 0), (9, 100)):
        with pytest.raises(NotPlausible, match="is outside 10 to"):
            require_young_weight(mass_g, age)


def test_two_sheds_of_one_week_are_one() -> None:
    require_sheds_apart(OUT, (OUT + 11 * DAY, OUT - 30 * DAY))
    with pytest.raises(NotPlausible, match="within 10 days"):
        require_sheds_apart(OUT, (OUT + 9 * DAY,))
