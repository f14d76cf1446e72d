"""Late by heat, or nothing alive: the rival of every forecast (rule A6)."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.special import ndtr

from core.test_forecast import at_set_point
from sandboa.core.development.none_alive import developed_words, late_words, none_alive
from sandboa.core.development.rules import NO_DATE_FROM, NONE_ALIVE, TOLD_FROM
from sandboa.core.errors import NotPlausible

shares = st.floats(0.0, 1.0)


def test_bayes_by_hand() -> None:
    assert none_alive(1.0) == pytest.approx(NONE_ALIVE)
    assert none_alive(0.5, 0.5) == pytest.approx(0.5 / 0.75)
    # At 2.3 sd four in five of those still silent have nothing alive in them.
    assert none_alive(float(ndtr(-2.312))) == pytest.approx(0.80, abs=0.005)
    assert (none_alive(0.0), none_alive(0.3, 0.0)) == (1.0, 0.0)


@given(shares, shares, st.floats(0.01, 0.99))
def test_it_never_falls_as_time_goes_by(one: float, other: float, prior: float) -> None:
    sooner, later = max(one, other), min(one, other)
    assert prior - 1e-12 <= none_alive(sooner, prior) <= none_alive(later, prior) <= 1.0


@pytest.mark.parametrize("share", [-0.01, 1.01, float("nan")])
def test_chances_outside_0_to_1_are_refused(share: float) -> None:
    with pytest.raises(NotPlausible):
        none_alive(share)


@pytest.mark.parametrize(
    ("chance", "words"),
    [
        (TOLD_FROM - 0.001, None),
        (TOLD_FROM, "two in ten"),
        (0.31, "three in ten"),
        (NO_DATE_FROM - 0.001, "eight in ten that none will pip. Candle"),
        (NO_DATE_FROM, "no date is told"),
        (0.97, "more than nine in ten"),
    ],
)
def test_it_is_told_from_one_fifth_on_and_ends_the_dates_at_four(chance, words) -> None:
    said = late_words(chance)
    assert (said is None) if words is None else (words in said)


def test_a_clutch_is_told_a_date_until_hardly_anything_speaks_for_one() -> None:
    made = [at_set_point(31.5, day=day) for day in range(90)]
    told = [m.none_alive for m in made]
    assert told == sorted(told)
    assert told[0] == pytest.approx(NONE_ALIVE)
    for one in made:
        assert one.overdue == (one.none_alive >= NO_DATE_FROM)
        assert (one.typical_pip is None) == one.overdue
    # Beyond 2.4 sd no window is left: those told at 2 to 2.5 sd held a third.
    last = max(m.day for m in made if not m.overdue)
    assert 66 <= last <= 70


def test_far_beyond_its_term_a_share_is_no_number() -> None:
    assert developed_words(0.452) == "45 %"
    assert developed_words(1.25) == "125 %"
    assert developed_words(15.81) == "over 125 %"
