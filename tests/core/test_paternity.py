"""Which of several sires, by what hatched: known values, symmetry, and what tells nothing."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.pairing.genes import Gene, Inheritance
from sandboa.core.pairing.paternity import paternity

EMBER = Gene("Ember", Inheritance.INCOMPLETE_DOMINANT)
PUZZLE = Gene("Puzzle", Inheritance.RECESSIVE)
ONE, TWO = (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)
PLAIN, SHOWS = frozenset[str](), frozenset({"ember"})


def test_one_that_shows_what_only_one_sire_has_settles_it() -> None:
    told = paternity({}, {1: {"ember": ONE}, 2: {}}, [PLAIN, SHOWS], [EMBER])
    assert told == {1: pytest.approx(1.0), 2: 0.0}


def test_each_plain_one_halves_the_carrier() -> None:
    """Half the hatchlings of a carrier show it: three plain ones leave it 1 in 9."""
    told = paternity({}, {1: {"ember": ONE}, 2: {}}, [PLAIN] * 3, [EMBER])
    assert told is not None
    assert told[1] == pytest.approx(1 / 9)


def test_sires_alike_in_every_gene_are_not_told_apart() -> None:
    told = paternity({}, {1: {"ember": ONE}, 2: {"ember": ONE}}, [SHOWS, PLAIN], [EMBER])
    assert told == {1: pytest.approx(0.5), 2: pytest.approx(0.5)}


def test_a_hidden_gene_counts_by_what_the_dam_has() -> None:
    shown = [frozenset({"puzzle"})]
    assert paternity({"puzzle": ONE}, {1: {"puzzle": TWO}, 2: {}}, shown, [PUZZLE]) == {
        1: pytest.approx(1.0),
        2: 0.0,
    }


def test_what_no_sire_explains_is_told_so() -> None:
    assert paternity({}, {1: {}, 2: {}}, [SHOWS], [EMBER]) is None
    with pytest.raises(ValueError, match="no sire"):
        paternity({}, {}, [], [EMBER])


@given(st.integers(0, 12), st.integers(0, 12))
def test_the_chances_sum_to_one_and_the_order_of_hatching_plays_no_part(
    shows: int, plain: int
) -> None:
    sires = {1: {"ember": ONE}, 2: {"ember": TWO}}
    hatched = [SHOWS] * shows + [PLAIN] * plain
    told = paternity({}, sires, hatched, [EMBER])
    assert told is not None
    assert sum(told.values()) == pytest.approx(1.0)
    assert told == pytest.approx(paternity({}, sires, hatched[::-1], [EMBER]))
    if plain:
        assert told[2] == 0.0
