"""What is to be expected of a clutch: sums by hand, and what must hold for any chances."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from sandboa.core.standing import (
    Situation,
    StandingRules,
    after_silence,
    expected_hatch,
    judge_standing,
    nothing_alive,
    still_hopeful,
)
from sandboa.core.standing.clutch import ALL_AT_ONCE

CHANCES = st.lists(st.floats(0.0, 1.0), min_size=1, max_size=12)


def test_sure_eggs_are_counted_and_the_words_say_it() -> None:
    told = expected_hatch([1.0, 1.0, 1.0, 0.0])
    assert (told.low, told.middle, told.high, told.eggs) == (3, 3, 3, 4)
    assert told.words == "Expect 3 of 4 to hatch."
    assert expected_hatch([]) is None


def test_shared_luck_makes_a_clutch_wider_than_eggs_by_themselves() -> None:
    """Ten eggs at 70 %: by themselves 80 % of clutches have 5 to 9."""
    told = expected_hatch([0.7] * 10)
    alone = np.random.default_rng(1).binomial(10, 0.7, 100_000)
    low, high = np.percentile(alone, [10, 90])
    assert told.high - told.low > high - low
    assert told.middle == 7
    assert told.words == f"Expect 7 of 10 to hatch ({told.low} to {told.high})."


@settings(deadline=None)
@given(CHANCES)
def test_it_lies_within_the_clutch_and_near_the_sum_of_its_eggs(chances: list[float]) -> None:
    told = expected_hatch(chances)
    assert 0 <= told.low <= told.middle <= told.high <= len(chances)
    assert told.middle == pytest.approx(sum(chances), abs=1.0)


@settings(deadline=None)
@given(CHANCES, st.integers(0, 11), st.floats(0.0, 1.0))
def test_a_better_egg_never_lowers_it(chances: list[float], which: int, more: float) -> None:
    better = chances[:]
    place = which % len(chances)
    better[place] = min(1.0, better[place] + more)
    one, other = expected_hatch(chances), expected_hatch(better)
    assert (one.low, one.middle, one.high) <= (other.low, other.middle, other.high)


def test_of_eggs_nobody_knows_anything_of_nothing_is_alive_in_one_clutch_of_25() -> None:
    assert nothing_alive([], [], 0.5) == 0.04
    # 0.917 on lay day, and 7 in 100 lost since.
    usual = 0.856
    assert nothing_alive([usual] * 6, [1.0] * 6, 0.5) == pytest.approx(0.04, abs=0.001)


def test_what_is_usual_is_what_the_keeper_set() -> None:
    """Where half of all eggs die on the way, eggs that stand as usual say nothing."""
    rules = StandingRules(dies=0.5)
    usual = judge_standing([], Situation(0.0, 30 * 86_400.0, 0.5), rules).alive
    assert usual < 0.75
    told = nothing_alive([usual] * 6, [1.0] * 6, 0.5, rules)
    assert told == pytest.approx(0.04, abs=1e-6)
    assert nothing_alive([usual] * 6, [1.0] * 6, 0.5) > 0.1


def test_eggs_seen_to_live_leave_what_may_befall_all_and_eggs_seen_lost_leave_little() -> None:
    assert nothing_alive([0.99] * 7, [0.95] * 7, 0.5) == pytest.approx(ALL_AT_ONCE, abs=0.001)
    assert nothing_alive([0.03] * 6, [0.02] * 6, 0.5) > 0.85
    assert nothing_alive([0.99, 0.03, 0.03], [0.95, 0.02, 0.02], 0.5) < 0.15


@given(CHANCES, st.floats(0.0, 1.0))
def test_the_better_each_egg_stands_the_less_likely_nothing_lives(chances, share) -> None:
    worse = [0.8 * chance for chance in chances]
    told = nothing_alive(chances, [0.9 * c for c in chances], share)
    assert 0.0 <= told <= nothing_alive(worse, [0.9 * c for c in worse], share) + 1e-9 <= 1.0 + 1e-9


def test_time_without_a_pip_takes_from_every_egg_and_from_what_is_expected() -> None:
    """Nine in ten that none will pip: of six good eggs not one is to be expected."""
    good = judge_standing([], Situation(0.0, 60 * 86_400.0, 1.0))
    still = still_hopeful(0.04, 0.90)
    assert still == pytest.approx(0.10 / 0.96)
    told = after_silence(good, still)
    assert told.alive == pytest.approx(still * good.alive)
    assert told.will_hatch == pytest.approx(still * good.will_hatch)
    assert (told.standing, good.standing) == ("probably lost", "watch")
    (late,) = [e for e in told.evidence if "no egg of the clutch" in e.words]
    assert late.push == pytest.approx(told.log_odds - good.log_odds)
    pushes = sum(e.push for e in told.evidence) + told.prior.push
    assert pushes == pytest.approx(told.log_odds, abs=1e-6)
    waiting = expected_hatch([good.will_hatch] * 6, still)
    assert (waiting.low, waiting.middle) == (0, 0)
    assert after_silence(good, 1.0) is good
    assert expected_hatch([0.7] * 6, 0.0).words == "Expect 0 of 6 to hatch."


@given(st.floats(0.0, 1.0), st.floats(0.0, 1.0))
def test_waiting_never_makes_hope(before: float, now: float) -> None:
    assert 0.0 <= still_hopeful(before, now) <= 1.0
    assert still_hopeful(before, max(before, now)) <= still_hopeful(before, before)
