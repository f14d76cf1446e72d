"""Pairing odds: Mendel's shares, doubles that die, and what is not on the list."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.animals import TraitForm
from sandboa.core.pairing.genes import (
    DoubleForm,
    Gene,
    Inheritance,
    copies_of,
    offspring,
    pairing_odds,
)

PUZZLE = Gene("Puzzle", Inheritance.RECESSIVE)
ASPHALT = Gene("Asphalt", Inheritance.INCOMPLETE_DOMINANT, DoubleForm.DIES)
CYPRESS = Gene("Cypress", Inheritance.INCOMPLETE_DOMINANT, DoubleForm.HARMFUL)
GENES = [PUZZLE, ASPHALT, CYPRESS]
VISUAL, ONE, TWO, MAYBE = (
    TraitForm.VISUAL, TraitForm.ONE_COPY, TraitForm.TWO_COPIES, TraitForm.POSSIBLE,
)  # fmt: skip


def forms(odds) -> dict[str, float]:
    return {form.words: form.chance for form in odds.forms}


def test_two_carriers_of_a_recessive_gene_give_a_quarter() -> None:
    odds = pairing_odds({"puzzle": ONE}, {"Puzzle": ONE}, GENES)
    assert forms(odds) == {
        "1 copy of Puzzle": 0.5, "Puzzle": 0.25, "no trait of your list": 0.25,
    }  # fmt: skip
    assert odds.dies == 0.0
    assert odds.may_die == ()
    assert odds.visible[0].chance == 0.25


def test_a_double_that_dies_costs_a_quarter_of_the_eggs() -> None:
    odds = pairing_odds({"Asphalt": VISUAL}, {"Asphalt": ONE}, GENES)
    assert odds.dies == 0.25
    assert odds.may_die == ("Asphalt",)
    # Of those that hatch two in three show it.
    assert math.isclose(odds.visible[0].chance, 2 / 3)
    assert forms(odds)["double Asphalt"] == 0.25
    assert pairing_odds({"Asphalt": VISUAL}, {}, GENES).dies == 0.0


def test_harmful_doubles_are_told_apart_from_deadly_ones() -> None:
    odds = pairing_odds({"Cypress": TWO}, {"Cypress": ONE}, GENES)
    assert (odds.dies, odds.harmful) == (0.0, 0.5)


def test_genes_are_passed_on_by_themselves() -> None:
    odds = pairing_odds({"Puzzle": VISUAL, "Asphalt": ONE}, {"Puzzle": ONE}, GENES)
    told = forms(odds)
    assert math.isclose(told["Asphalt, Puzzle"], 0.25)
    assert math.isclose(sum(told.values()), 1.0)


def test_traits_that_are_not_on_the_list_are_named_and_count_nothing() -> None:
    odds = pairing_odds({"Mahogany": ONE}, {"desert ghost": VISUAL}, GENES)
    assert odds.unlisted == ("desert ghost", "Mahogany")
    assert forms(odds) == {"no trait of your list": 1.0}


@pytest.mark.parametrize(
    ("gene", "form", "copies"),
    [
        (PUZZLE, VISUAL, (0, 0, 1)),
        (PUZZLE, MAYBE, (0.5, 0.5, 0)),
        (ASPHALT, VISUAL, (0, 1, 0)),
        (ASPHALT, TWO, (0, 0, 1)),
        (ASPHALT, None, (1, 0, 0)),
    ],
)
def test_copies_follow_from_the_form(gene, form, copies) -> None:
    assert copies_of(gene, form) == copies


FORM = st.one_of(st.none(), st.sampled_from(TraitForm))


@given(FORM, FORM, FORM, FORM)
def test_odds_are_a_distribution_and_the_same_for_dam_and_sire(a, b, c, d) -> None:
    dam = {n: f for n, f in (("Puzzle", a), ("Asphalt", b)) if f}
    sire = {n: f for n, f in (("Puzzle", c), ("Asphalt", d)) if f}
    odds, mirrored = pairing_odds(dam, sire, GENES), pairing_odds(sire, dam, GENES)
    assert math.isclose(sum(forms(odds).values()), 1.0)
    assert forms(odds) == pytest.approx(forms(mirrored))
    assert 0.0 <= odds.dies <= 1.0
    assert all(0.0 <= v.chance <= 1.0 for v in odds.visible)


@given(FORM, FORM)
def test_copies_of_an_egg_sum_to_one(a, b) -> None:
    assert math.isclose(sum(offspring(copies_of(PUZZLE, a), copies_of(PUZZLE, b))), 1.0)
