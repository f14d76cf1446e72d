"""What hatched of a pair against what was to be expected: the plain ones count too."""

import pytest

from samples import DAY_S, NOW_S, animal, lay_day
from sandboa.core.animals import TraitForm
from sandboa.core.errors import NotPlausible
from sandboa.core.pairing.genes import DoubleForm, Inheritance
from sandboa.records.hatching import Hatchling
from sandboa.services.animals.genes import GeneCommand, add_gene
from sandboa.services.animals.traits import TraitCommand
from sandboa.services.breeding.pair_record import pair_record
from sandboa.services.hatching.egg_events import see_emergence
from sandboa.services.hatching.hatchlings import HatchlingCommand, record_hatchling
from sandboa.services.lay_day import lay_clutch
from sandboa.services.snapshot.cache import SnapshotCache

VISUAL, ONE, TWO = TraitForm.VISUAL, TraitForm.ONE_COPY, TraitForm.TWO_COPIES


@pytest.fixture
def pair(house: SnapshotCache) -> tuple[SnapshotCache, int, int]:
    """Mahogany shows with one copy, Puzzle with two; five eggs of theirs are out: 26-01."""
    add_gene(GeneCommand("Mahogany", Inheritance.INCOMPLETE_DOMINANT, DoubleForm.FINE), NOW_S)
    add_gene(GeneCommand("Puzzle", Inheritance.RECESSIVE), NOW_S)
    dam = animal("dam", "Sorrel", traits=(TraitCommand("Puzzle", ONE),))
    sire = animal(
        "sire", "Flint", traits=(TraitCommand("Mahogany", VISUAL), TraitCommand("Puzzle", ONE))
    )
    lay_clutch(lay_day(60.0), NOW_S - 60 * DAY_S + 60)
    for egg in range(1, 6):
        see_emergence("26-01", egg, NOW_S - 600, NOW_S)
    return house, dam, sire


def said(number: int, *traits: tuple[str, TraitForm], plain: bool = False) -> HatchlingCommand:
    return HatchlingCommand(number, traits=[TraitCommand(*trait) for trait in traits], plain=plain)


def test_plain_ones_count_and_what_is_carried_unseen_does_not(
    pair: tuple[SnapshotCache, int, int],
) -> None:
    house, dam, sire = pair
    for hatchling in (
        said(1, ("mahogany", VISUAL)),
        said(2, ("Mahogany", ONE), ("Puzzle", ONE)),
        said(3, plain=True),
        said(4, ("Puzzle", TraitForm.POSSIBLE), plain=True),
        said(5),
    ):
        record_hatchling("26-01", hatchling, NOW_S)
    told = {form.gene: form for form in pair_record(house.current(), dam, sire, NOW_S).hatched}
    # Nobody said what the fifth shows.
    assert (told["Mahogany"].seen, told["Mahogany"].of) == (2, 4)
    assert (told["Puzzle"].seen, told["Puzzle"].of) == (0, 4)
    assert told["Puzzle"].expected == 0.25
    assert told["Mahogany"].words == "2 of 4 hatchlings, 2.0 expected: too few to say more"


def test_it_shows_none_or_it_shows_these(pair: tuple[SnapshotCache, int, int]) -> None:
    with pytest.raises(NotPlausible, match="say one of the two") as refused:
        record_hatchling("26-01", said(1, ("Puzzle", TWO), plain=True), NOW_S)
    assert refused.value.field == "traits"
    assert Hatchling.current() == []
    record_hatchling("26-01", said(1, ("Puzzle", ONE), plain=True), NOW_S)
    (held,) = Hatchling.current()
    assert held.plain == 1
