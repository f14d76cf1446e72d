"""Small numbers: intervals, clutches that share their luck, shrinkage, and "too few to call"."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.stats import beta

from sandboa.core.rates import (
    Tally,
    compare,
    group_rates,
    intraclass_correlation,
    jeffreys,
    rate_of,
)
from sandboa.core.rates.rate import PRIOR_CORRELATION

TALLY = st.integers(0, 9).flatmap(lambda n: st.builds(Tally, st.integers(0, n), st.just(n)))


def test_jeffreys_is_the_beta_quantile_with_its_ends_closed() -> None:
    low, high = jeffreys(5, 7)
    assert low == pytest.approx(beta.ppf(0.05, 5.5, 2.5))
    assert high == pytest.approx(beta.ppf(0.95, 5.5, 2.5))
    assert jeffreys(0, 7)[0] == 0.0
    assert jeffreys(7, 7)[1] == 1.0
    assert jeffreys(0, 0) == (0.0, 1.0)
    with pytest.raises(ValueError, match="cannot be"):
        jeffreys(8, 7)
    with pytest.raises(ValueError, match="cannot be"):
        Tally(3, 2)


@given(st.integers(0, 60), st.integers(0, 60))
def test_an_interval_holds_its_rate_and_narrows_with_more_eggs(k: int, more: int) -> None:
    n = k + more
    low, high = jeffreys(k, n)
    assert 0.0 <= low <= high <= 1.0
    if n:
        assert low <= k / n <= high
        wide = high - low
        assert jeffreys(4 * k, 4 * n)[1] - jeffreys(4 * k, 4 * n)[0] <= wide


def test_the_interval_holds_what_it_says() -> None:
    random = np.random.default_rng(3)
    rates, sizes = random.uniform(0.3, 0.97, 4000), random.integers(5, 60, 4000)
    ends = [
        (rate, *jeffreys(int(random.binomial(n, rate)), int(n)))
        for rate, n in zip(rates, sizes, strict=True)
    ]
    assert 0.87 <= np.mean([low <= rate <= high for rate, low, high in ends]) <= 0.93


def test_whole_clutches_that_fail_together_are_worth_fewer_eggs() -> None:
    together = [Tally(6, 6), Tally(0, 6), Tally(6, 6), Tally(6, 6), Tally(0, 6), Tally(6, 6)]
    mixed = [Tally(4, 6)] * 6
    assert intraclass_correlation(together) > 0.4
    assert intraclass_correlation(mixed) < PRIOR_CORRELATION
    wide, narrow = (rate_of(t, intraclass_correlation(t)) for t in (together, mixed))
    assert (wide.k, wide.n, narrow.n) == (24, 36, 36)
    assert wide.high - wide.low > narrow.high - narrow.low
    assert wide.effective_n < narrow.effective_n <= 36


@given(st.lists(TALLY, max_size=12))
def test_likeness_and_effective_eggs_stay_within_bounds(tallies: list[Tally]) -> None:
    correlation = intraclass_correlation(tallies)
    assert 0.0 <= correlation <= 0.8
    rate = rate_of(tallies, correlation)
    assert 0.0 <= rate.effective_n <= rate.n
    assert rate.low <= (rate.share if rate.share is not None else rate.low) <= rate.high


def test_five_of_seven_against_thirty_one_of_forty_is_too_few_to_call() -> None:
    told = compare("lid", "film", [Tally(5, 7)], [Tally(6, 8)] * 4 + [Tally(7, 8)], 0.1)
    assert told.words == "5 of 7 against 31 of 40: too few to call."
    assert not told.called
    assert told.difference_low < 0 < told.difference_high


def test_a_difference_that_is_plain_is_called_with_its_chance() -> None:
    told = compare("lid", "film", [Tally(7, 7)] * 6, [Tally(2, 7)] * 6, 0.1)
    assert told.called
    assert "lid did better than film" in told.words
    mirrored = compare("film", "lid", [Tally(2, 7)] * 6, [Tally(7, 7)] * 6, 0.1)
    assert math.isclose(mirrored.better, 1.0 - told.better, abs_tol=1e-6)
    assert "lid did better than film" in mirrored.words
    assert not compare("a", "b", [], [Tally(3, 4)], 0.1).called


def test_calling_is_seldom_wrong_where_nothing_differs() -> None:
    random = np.random.default_rng(5)
    called = 0
    for _ in range(400):
        groups = []
        for clutches in (4, 12):
            rates = random.beta(0.8 * 6, 0.2 * 6, clutches)
            groups.append([Tally(int(random.binomial(6, r)), 6) for r in rates])
        called += compare("a", "b", *groups, intraclass_correlation(groups[0] + groups[1])).called
    # 10 % would be called at most if the intervals were exact.
    assert called / 400 <= 0.12


def test_a_group_with_little_of_its_own_is_drawn_to_the_house() -> None:
    groups = {
        "one": [Tally(1, 4)],
        "many": [Tally(6, 7)] * 12,
        "others": [Tally(5, 7)] * 6,
    }
    one, _many, _ = sorted(group_rates(groups), key=lambda g: g.rate.n)
    assert [g.name for g in group_rates(groups)] == ["many", "one", "others"]
    assert one.rate.share < one.drawn < 0.83
    own = next(g for g in group_rates(groups) if g.name == "many")
    assert abs(own.drawn - own.rate.share) < 0.05
    assert group_rates({"none": []})[0].drawn is None


@given(st.dictionaries(st.sampled_from("abcdef"), st.lists(TALLY, max_size=6), max_size=6))
def test_shrunken_rates_lie_between_the_groups_and_the_house(groups: dict) -> None:
    everything = [t for ts in groups.values() for t in ts]
    house = rate_of(everything).share
    for told in group_rates(groups):
        if house is None:
            assert told.drawn is None
        elif told.rate.share is not None:
            low, high = sorted((told.rate.share, house))
            assert low - 1e-9 <= told.drawn <= high + 1e-9
