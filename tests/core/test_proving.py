"""What hatchlings say of a "possible" parent: known values, brute force, and calibration."""

from itertools import product
from math import comb, inf, isclose

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from sandboa.core.animals import TraitForm
from sandboa.core.pairing.genes import DoubleForm, Gene, Inheritance, pairing_odds
from sandboa.core.pairing.proving import (
    MOST_TOGETHER,
    Carriers,
    Progeny,
    chance_by_parents,
)

PUZZLE = Gene("Puzzle", Inheritance.RECESSIVE)
EMBER = Gene("Ember", Inheritance.INCOMPLETE_DOMINANT)
LETHAL = Gene("Spark", Inheritance.INCOMPLETE_DOMINANT, DoubleForm.DIES)
NONE, ONE, TWO = (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)
MAYBE = (0.5, 0.5, 0.0)
DAM, SIRE, OTHER = 1, 2, 3


def test_plain_hatchlings_of_a_visual_mate_halve_it_each() -> None:
    """A carrier and a visual sire: one in two shows it. Five that do not: 1 in 33."""
    proof = Carriers(PUZZLE, {DAM: MAYBE, SIRE: TWO}, [Progeny(DAM, SIRE, 0, 5)]).proof(DAM)
    assert proof.chance == pytest.approx(1 / 33)
    assert proof.times == pytest.approx(1 / 32)
    (pair,) = proof.by_mate
    assert (pair.mate, pair.shown, pair.of, pair.expected) == (SIRE, 0, 5, 0.5)
    assert not proof.proved


def test_one_hatchling_that_shows_it_proves_it() -> None:
    proof = Carriers(PUZZLE, {DAM: MAYBE, SIRE: ONE}, [Progeny(DAM, SIRE, 1, 9)]).proof(DAM)
    assert proof.chance == pytest.approx(1.0)
    assert proof.proved
    assert proof.times == inf


def test_what_its_parents_make_certain_is_not_proved_by_plain_hatchlings() -> None:
    proof = Carriers(PUZZLE, {DAM: ONE, SIRE: TWO}, [Progeny(DAM, SIRE, 0, 4)]).proof(DAM)
    assert (proof.before, proof.chance) == (1.0, 1.0)
    assert not proof.proved


def test_a_mate_who_has_none_says_nothing() -> None:
    proof = Carriers(PUZZLE, {DAM: MAYBE, SIRE: NONE}, [Progeny(DAM, SIRE, 0, 12)]).proof(DAM)
    assert (proof.chance, proof.by_mate) == (0.5, ())
    assert not proof.proved


def test_what_no_parents_explain_is_no_chance_at_all() -> None:
    """The sire is recorded without the trait, and a hatchling shows it: somebody is wrong."""
    proof = Carriers(PUZZLE, {DAM: MAYBE, SIRE: NONE}, [Progeny(DAM, SIRE, 1, 6)]).proof(DAM)
    assert proof.chance is None
    assert proof.by_mate[0].shown == 1
    assert not proof.proved


def test_two_that_are_possible_are_reckoned_together() -> None:
    """Eight plain hatchlings of two possible parents: (3/4)^8 where both carry it, else 1."""
    carriers = Carriers(PUZZLE, {DAM: MAYBE, SIRE: MAYBE}, [Progeny(DAM, SIRE, 0, 8)])
    both = 0.75**8
    assert carriers.proof(DAM).chance == pytest.approx((1 + both) / (3 + both))
    table = carriers.together(DAM, SIRE)
    assert table[1][1] == pytest.approx(both / (3 + both))
    assert table.sum() == pytest.approx(1.0)
    # Each may carry it, and hardly both: less than the two chances multiplied.
    assert table[1][1] < carriers.proof(DAM).chance ** 2


def test_what_one_mate_proves_tells_of_the_other() -> None:
    """The sire is proved by another dam, so that plain hatchlings weigh more on this one."""
    maybe = {DAM: MAYBE, SIRE: MAYBE, OTHER: ONE}
    alone = Carriers(PUZZLE, maybe, [Progeny(DAM, SIRE, 0, 4)])
    proved = Carriers(PUZZLE, maybe, [Progeny(DAM, SIRE, 0, 4), Progeny(OTHER, SIRE, 1, 3)])
    assert proved.proof(SIRE).proved
    assert proved.proof(DAM).chance == pytest.approx(0.75**4 / (1 + 0.75**4))
    assert proved.proof(DAM).chance < alone.proof(DAM).chance


def test_a_double_form_that_dies_is_not_among_those_that_hatch() -> None:
    """Both carry it: of those that hatch two in three show it, for the doubles die."""
    carriers = Carriers(LETHAL, {DAM: MAYBE, SIRE: ONE}, [Progeny(DAM, SIRE, 2, 3)])
    with_it, without = 3 * (2 / 3) ** 2 * (1 / 3), 3 * 0.5**3
    assert carriers.proof(DAM).times == pytest.approx(with_it / without)


def test_its_parents_tell_what_it_was_before() -> None:
    one, visual = TraitForm.ONE_COPY, TraitForm.VISUAL
    assert chance_by_parents(PUZZLE, one, one) == pytest.approx(2 / 3)
    assert chance_by_parents(PUZZLE, one, None) == pytest.approx(0.5)
    assert chance_by_parents(PUZZLE, visual, None) == pytest.approx(1.0)
    assert chance_by_parents(PUZZLE, TraitForm.POSSIBLE, None) == pytest.approx(0.25)
    # Nothing recorded, or a trait it could only show: half, an assumption.
    assert chance_by_parents(PUZZLE, None, None) == 0.5
    assert chance_by_parents(EMBER, one, None) == 0.5


def test_more_show_it_than_there_are_is_refused() -> None:
    with pytest.raises(ValueError, match="3 of 2"):
        Progeny(DAM, SIRE, 3, 2)


def test_the_odds_of_a_pair_take_what_its_hatchlings_said() -> None:
    possible = {"Puzzle": TraitForm.POSSIBLE}
    visual = {"Puzzle": TraitForm.VISUAL}
    assert pairing_odds(possible, visual, [PUZZLE]).visible[0].chance == pytest.approx(0.25)
    carriers = Carriers(PUZZLE, {DAM: MAYBE, SIRE: TWO}, [Progeny(DAM, SIRE, 0, 5)])
    together = {"puzzle": carriers.together(DAM, SIRE)}
    odds = pairing_odds(possible, visual, [PUZZLE], together)
    assert odds.visible[0].chance == pytest.approx(0.5 / 33)


GENES = st.sampled_from([PUZZLE, EMBER, LETHAL])
COPIES = st.sampled_from([NONE, ONE, TWO, MAYBE, (0.75, 0.25, 0.0), (0.2, 0.5, 0.3)])


@st.composite
def herds(draw: st.DrawFn):
    dams = [DAM + 10 * n for n in range(draw(st.integers(1, 3)))]
    sires = [SIRE + 10 * n for n in range(draw(st.integers(1, 3)))]
    copies = {animal: draw(COPIES) for animal in (*dams, *sires)}
    progeny = []
    for dam, sire in product(dams, sires):
        if draw(st.booleans()):
            of = draw(st.integers(0, 6))
            progeny.append(Progeny(dam, sire, draw(st.integers(0, of)), of))
    return draw(GENES), copies, progeny


def chance_to_show(gene: Gene, dam: int, sire: int) -> float:
    """Counted in a square of what each parent gives, those that die left out."""
    shown = alive = 0
    for from_dam, from_sire in product(
        ((0, 0), (0, 1), (1, 1))[dam], ((0, 0), (0, 1), (1, 1))[sire]
    ):
        copies = from_dam + from_sire
        if copies == 2 and gene.double_form is DoubleForm.DIES:
            continue
        alive += 1
        shown += copies == 2 or (copies == 1 and gene.inheritance is not Inheritance.RECESSIVE)
    return shown / alive if alive else 0.0


@given(herds())
@settings(max_examples=150)
def test_it_is_what_counting_every_world_gives(herd) -> None:
    gene, copies, progeny = herd
    animals = sorted(copies)
    carried = dict.fromkeys(animals, 0.0)
    total = 0.0
    for world in product(range(3), repeat=len(animals)):
        held = dict(zip(animals, world, strict=True))
        weight = 1.0
        for animal, count in held.items():
            weight *= copies[animal][count]
        for pair in progeny:
            chance = chance_to_show(gene, held[pair.dam], held[pair.sire])
            weight *= (
                comb(pair.of, pair.shown)
                * chance**pair.shown
                * (1 - chance) ** (pair.of - pair.shown)
            )
        total += weight
        for animal, count in held.items():
            carried[animal] += weight * (count > 0)
    carriers = Carriers(gene, copies, progeny)
    for animal in animals:
        proof = carriers.proof(animal)
        if total == 0.0 and proof.chance is None:
            continue
        if proof.by_mate and total > 0.0:
            assert isclose(proof.chance, carried[animal] / total, abs_tol=1e-9)


def test_a_large_group_is_still_answered() -> None:
    """More animals uncertain together than are reckoned at once: each with its mates as before."""
    dams, sires = range(1, 16), range(101, 116)
    copies = dict.fromkeys((*dams, *sires), MAYBE)
    progeny = [Progeny(dam, sire, 0, 1) for dam in dams for sire in sires]
    assert len(copies) > MOST_TOGETHER
    chance = Carriers(PUZZLE, copies, progeny).proof(1).chance
    assert chance == pytest.approx(0.875**15 / (1 + 0.875**15))
