"""Rates of all groups at once: what coincides, what is shrunk, what can be called."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from sandboa.core.rates import Cell, Group, SideBySide

PERLITE, VERMICULITE = ("medium", "perlite"), ("medium", "vermiculite")


def cell(clutch: int, k: int, n: int, *groups: Group) -> Cell:
    return Cell(clutch, k, n, groups)


def world(seed: int, clutches: int, perlite: float) -> list[Cell]:
    """A house whose perlite moves the log-odds by so much, and nothing else anything."""
    random = np.random.default_rng(seed)
    cells = []
    for number in range(clutches):
        medium = PERLITE if random.random() < 0.4 else VERMICULITE
        dam = ("dam", f"dam {random.integers(6)}")
        month = ("month", f"month {random.integers(4)}")
        odds = 1.8 + perlite * (medium == PERLITE) + random.normal(0.0, 0.5)
        k = int(random.binomial(7, 1.0 / (1.0 + np.exp(-odds))))
        cells.append(cell(number, k, 7, medium, dam, month))
    return cells


def test_without_any_egg_it_expects_what_the_house_begins_with() -> None:
    assert SideBySide([]).groups == ()
    assert SideBySide([cell(1, 0, 0, PERLITE)]).groups == ()


def test_a_group_with_little_of_its_own_is_drawn_to_the_house() -> None:
    cells = [cell(n, 6, 7, VERMICULITE) for n in range(12)]
    one = SideBySide([*cells, cell(99, 1, 7, PERLITE)]).like_for_like(PERLITE)
    many = SideBySide([*cells, *(cell(100 + n, 1, 7, PERLITE) for n in range(8))])
    told = many.like_for_like(PERLITE)
    assert 1 / 7 < told.rate < one.rate < 6 / 7
    assert told.high - told.low < one.high - one.low


def test_what_a_medium_did_is_not_laid_to_the_dam_who_shared_it() -> None:
    """Tansy laid on perlite twice and on vermiculite twice: hers is the better half of each."""
    tansy = ("dam", "Tansy")
    cells = [
        *(cell(n, 6, 7, VERMICULITE, ("dam", "others")) for n in range(8)),
        *(cell(20 + n, 2, 7, PERLITE, ("dam", "others")) for n in range(8)),
        *(cell(40 + n, 6, 7, VERMICULITE, tansy) for n in range(1)),
        *(cell(50 + n, 2, 7, PERLITE, tansy) for n in range(5)),
    ]
    rates = SideBySide(cells)
    assert rates.better([PERLITE]) < 0.02
    raw = 16 / 42
    assert rates.like_for_like(tansy).rate > raw + 0.1
    assert 0.2 < rates.better([tansy]) < 0.8


def test_groups_of_the_very_same_clutches_are_named_and_their_sum_is_told() -> None:
    chervil = ("dam", "Chervil")
    cells = [
        *(cell(n, 7, 7, VERMICULITE, ("dam", f"d{n}")) for n in range(10)),
        *(cell(20 + n, 1, 7, PERLITE, chervil) for n in range(4)),
    ]
    rates = SideBySide(cells)
    assert rates.together(PERLITE) == (chervil,)
    assert rates.together(VERMICULITE) == ()
    both = rates.better([PERLITE, chervil])
    assert both < 0.02
    assert both < rates.better([PERLITE])
    once = SideBySide([*cells[:10], cell(30, 1, 7, PERLITE, chervil)])
    assert once.together(PERLITE) == (), "one clutch makes no pattern"


def test_a_plain_difference_is_called_and_chance_seldom() -> None:
    told = SideBySide(world(3, 40, -2.0)).compare(PERLITE, VERMICULITE)
    assert told.called
    assert "vermiculite did better than perlite" in told.words
    called = sum(
        SideBySide(world(seed, 30, 0.0)).compare(PERLITE, VERMICULITE).called for seed in range(40)
    )
    assert called <= 5, "one in ten at the 5 % of each side"


def test_the_interval_holds_what_it_says() -> None:
    """90 % intervals of perlite against what it is in that world, over many houses."""
    held = 0
    for seed in range(60):
        told = SideBySide(world(1_000 + seed, 30, -1.0)).like_for_like(PERLITE)
        # A typical clutch of that medium: the chance of a typical one is not the mean of all.
        held += told.low <= 1.0 / (1.0 + np.exp(-0.8)) <= told.high
    assert held / 60 > 0.85


@settings(max_examples=40, deadline=None)
@given(
    st.lists(
        st.tuples(st.integers(0, 7), st.sampled_from("ab"), st.sampled_from("xyz")),
        min_size=1, max_size=12,
    ),
    st.permutations(range(12)),
)  # fmt: skip
def test_the_order_of_clutches_plays_no_part_and_chances_are_chances(rows, order) -> None:
    cells = [
        cell(n, k, 7, ("medium", medium), ("dam", dam)) for n, (k, medium, dam) in enumerate(rows)
    ]
    rates = SideBySide(cells)
    mixed = SideBySide([cells[n] for n in order if n < len(cells)])
    for group in rates.groups:
        told = rates.like_for_like(group)
        assert 0.0 <= told.low <= told.rate <= told.high <= 1.0
        assert mixed.like_for_like(group).rate == pytest.approx(told.rate, abs=1e-6)
        assert 0.0 <= rates.better([group]) <= 1.0
