"""A pair: what it can produce, what hatched of it, and how many eggs the double form cost."""

from dataclasses import dataclass

from sandboa.core.hatching import Fate
from sandboa.core.pairing.expected import against_expected
from sandboa.core.pairing.genes import Odds
from sandboa.journal.animals import find_animal
from sandboa.journal.genes import odds_of
from sandboa.journal.house_now import Facts, HouseNow
from sandboa.journal.losses.ends import ClutchEnds
from sandboa.journal.losses.why import all_ends
from sandboa.records.animals import Trait
from sandboa.records.house import DAM, SIRE


@dataclass(frozen=True, slots=True)
class SeenForm:
    """A trait among the pair's hatchlings: `seen` of `of`, `expected` the chance of each."""

    gene: str
    expected: float
    seen: int
    of: int
    words: str


@dataclass(frozen=True)
class PairRecord:
    dam: str
    sire: str
    odds: Odds
    hatched: tuple[SeenForm, ...]
    losses_words: str | None


def pair_record(house: HouseNow, dam: int, sire: int, as_of_s: float) -> PairRecord:
    """What is known of a pair; NotFound for unknown animals, Conflict for the wrong roles."""
    her, him = find_animal(dam, DAM), find_animal(sire, SIRE)
    odds = odds_of(dam, sire)
    facts = house.facts()
    own = [
        ends
        for ends in all_ends(house, facts, as_of_s)
        if ends.clutch.dam == dam and ends.clutch.sire == sire
    ]
    return PairRecord(her.name, him.name, odds, tuple(_seen(facts, own, odds)), _losses(own, odds))


def _seen(facts: Facts, own: list[ClutchEnds], odds: Odds) -> list[SeenForm]:
    hatchlings = [
        {t.name.casefold() for t in Trait.current(Trait.animal == h.entity)}
        for ends in own
        for end in ends.eggs
        for h in facts.hatchlings.get(end.egg.entity, [])
    ]
    # One whose traits nobody wrote down shows nothing either way.
    known = [traits for traits in hatchlings if traits]
    told = []
    for visible in odds.visible:
        seen = sum(visible.gene.casefold() in traits for traits in known)
        words = against_expected(seen, len(known), visible.chance)
        told.append(SeenForm(visible.gene, visible.chance, seen, len(known), words))
    return told


def _losses(own: list[ClutchEnds], odds: Odds) -> str | None:
    """How many eggs the double form would cost, against what was lost; None where it costs none."""
    if not odds.dies:
        return None
    fertile = [e for ends in own for e in ends.eggs if e.fate not in (None, Fate.SLUG)]
    lost = sum(e.lost for e in fertile)
    share = f"About {100 * odds.dies:.0f} % of its eggs get a double form that dies"
    if not fertile:
        return f"{share}."
    return (
        f"{share}: {odds.dies * len(fertile):.1f} of {len(fertile)} expected, "
        f"{lost} were lost for whatever reason."
    )
