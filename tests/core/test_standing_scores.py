"""Standings against what became of the eggs: known values and properties."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.errors import NotPlausible
from sandboa.core.standing import Standing, StandingRules, ToldEgg, score_standings
from sandboa.core.standing.reliability import reliability

TOLD = st.lists(
    st.builds(ToldEgg, st.floats(0, 1), st.floats(0, 1), st.booleans()), min_size=1, max_size=60
)


def egg(chance: float, hatched: bool) -> ToldEgg:
    return ToldEgg(chance, chance, hatched)


def test_known_values() -> None:
    told = [egg(0.9, True), egg(0.9, True), egg(0.6, False), egg(0.1, False)]
    score = score_standings(30, told)
    assert score is not None
    # (0.01 + 0.01 + 0.36 + 0.01) / 4, and half of them hatched: 0.25.
    assert score.brier == pytest.approx(0.0975)
    assert score.brier_of_always == pytest.approx(0.25)
    assert [(b.standing, b.eggs, b.hatched) for b in score.bins] == [
        (Standing.SOUND, 2, 2), (Standing.WATCH, 1, 0), (Standing.PROBABLY_LOST, 1, 0),
    ]  # fmt: skip
    assert score.bins[0].said == pytest.approx(0.9)


@given(TOLD)
def test_every_egg_is_in_one_bin_and_scores_stay_in_their_range(told) -> None:
    score = score_standings(50, told)
    assert score is not None
    assert sum(b.eggs for b in score.bins) == score.eggs == len(told)
    assert sum(b.hatched for b in score.bins) == score.hatched
    assert 0.0 <= score.brier <= 1.0
    assert 0.0 <= score.brier_of_always <= 0.25
    ranks = [b.standing.rank for b in score.bins]
    assert ranks == sorted(ranks)


@given(TOLD)
def test_saying_the_share_of_every_egg_scores_what_always_scores(told) -> None:
    share = float(np.mean([one.hatched for one in told]))
    score = score_standings(30, [egg(share, one.hatched) for one in told])
    assert score is not None
    assert score.brier == pytest.approx(score.brier_of_always)


def test_it_says_so_when_the_eggs_are_too_few() -> None:
    few = score_standings(30, [egg(0.95, True)] * 8 + [egg(0.05, False)] * 2)
    many = score_standings(30, [egg(0.95, True)] * 80 + [egg(0.05, False)] * 20)
    wrong = score_standings(30, [egg(0.05, True)] * 80 + [egg(0.95, False)] * 20)
    assert few is not None
    assert many is not None
    assert wrong is not None
    assert "Too few" in few.words
    assert "told eggs apart" in many.words
    assert "misled" in wrong.words


def test_bins_follow_the_keepers_own_limits() -> None:
    strict = StandingRules(standing_from={Standing.SOUND: 0.99, Standing.WATCH: 0.5})
    score = score_standings(30, [egg(0.9, True)], strict)
    assert score is not None
    assert score.bins[0].standing is Standing.WATCH


def test_nothing_told_is_no_score_and_no_chance_is_beyond_one() -> None:
    assert score_standings(30, []) is None
    with pytest.raises(NotPlausible):
        score_standings(30, [egg(1.2, True)])


def test_an_egg_that_lived_at_risk_stands_where_it_was_told_to_stand() -> None:
    score = score_standings(30, [ToldEgg(0.95, 0.6, hatched=True)])
    assert score is not None
    assert score.bins[0].standing is Standing.WATCH


def test_chances_are_held_against_what_came_bin_by_bin_with_how_few_they_are() -> None:
    told = reliability([0.9, 0.9, 0.92, 0.3, 0.98], [True, True, False, False, True])
    assert told is not None
    assert [(b.eggs, b.came) for b in told.bins] == [(1, 0), (3, 2), (1, 1)]
    assert told.bins[1].said == pytest.approx(0.9067, abs=1e-3)
    assert told.bins[1].low < 2 / 3 < told.bins[1].high
    assert (told.bins[0].low, told.bins[2].high) == (0.0, 1.0)
    assert reliability([], []) is None
    with pytest.raises(NotPlausible):
        reliability([1.2], [True])
    with pytest.raises(ValueError, match="as many"):
        reliability([0.5], [])


@given(st.lists(st.tuples(st.floats(0, 1), st.booleans()), min_size=1, max_size=60))
def test_every_chance_is_in_one_bin(told: list[tuple[float, bool]]) -> None:
    found = reliability([said for said, _ in told], [came for _, came in told])
    assert found is not None
    assert sum(b.eggs for b in found.bins) == found.eggs == len(told)
    assert sum(b.came for b in found.bins) == found.came
    assert [b.said for b in found.bins] == sorted(b.said for b in found.bins)


def test_alive_is_scored_by_the_eggs_of_which_a_pip_or_an_opening_tells() -> None:
    told = [
        ToldEgg(0.9, 0.8, hatched=True, lived=True),
        ToldEgg(0.8, 0.6, hatched=False, lived=True),
        ToldEgg(0.3, 0.2, hatched=False, lived=False),
        ToldEgg(0.6, 0.5, hatched=False, lived=None),
    ]
    score = score_standings(50, told)
    assert score is not None
    assert score.alive is not None
    assert score.will_hatch is not None
    assert (score.will_hatch.eggs, score.will_hatch.came) == (4, 1)
    assert (score.alive.eggs, score.alive.came) == (3, 2)
    unseen = score_standings(50, [ToldEgg(0.9, 0.8, hatched=False)])
    assert unseen is not None
    assert unseen.alive is None
