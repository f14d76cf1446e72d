"""A pair: what it can produce, what hatched of it, and how many eggs the double form cost."""

from dataclasses import dataclass

from sandboa.core.animals import DAM, SIRE, TraitForm
from sandboa.core.hatching import Fate
from sandboa.core.pairing.expected import against_expected
from sandboa.core.pairing.genes import Gene, Odds, shows
from sandboa.records.animals import Trait
from sandboa.records.hatching import Hatchling
from sandboa.services.animals.commands import find_animal
from sandboa.services.animals.genes import as_genes, genes, odds_of
from sandboa.services.losses.outcomes import ClutchOutcomes
from sandboa.services.losses.why import all_outcomes
from sandboa.services.snapshot.snapshot import Snapshot


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


def pair_record(snapshot: Snapshot, dam: int, sire: int, as_of_s: float) -> PairRecord:
    """What is known of a pair; NotFound for unknown animals, Conflict for the wrong roles."""
    her, him = find_animal(dam, DAM), find_animal(sire, SIRE)
    odds = odds_of(dam, sire)
    own = [
        outcomes
        for outcomes in all_outcomes(snapshot, as_of_s)
        if outcomes.clutch.dam_id == dam and outcomes.clutch.sire_id == sire
    ]
    return PairRecord(
        her.name, him.name, odds, tuple(_seen(snapshot, own, odds)), _losses(own, odds)
    )


def _seen(snapshot: Snapshot, own: list[ClutchOutcomes], odds: Odds) -> list[SeenForm]:
    listed = {gene.name.casefold(): gene for gene in as_genes(genes())}
    known = [
        shown
        for outcomes in own
        for end in outcomes.eggs
        for hatchling in snapshot.egg(end.egg.entity_id).hatchlings
        if (shown := _shown(hatchling, listed)) is not None
    ]
    told = []
    for visible in odds.visible:
        seen = sum(visible.gene.casefold() in shown for shown in known)
        words = against_expected(seen, len(known), visible.chance)
        told.append(SeenForm(visible.gene, visible.chance, seen, len(known), words))
    return told


def _shown(hatchling: Hatchling, listed: dict[str, Gene]) -> set[str] | None:
    """Traits of the list it is seen to have; None when nobody said what it shows.

    Left out, the plain ones would make every trait look commoner than it is.
    """
    traits = Trait.current(animal_id=hatchling.entity_id)
    if not traits and not hatchling.plain:
        return None
    return {
        name
        for trait in traits
        if (gene := listed.get(name := trait.name.casefold()))
        and shows(gene, TraitForm(trait.form))
    }


def _losses(own: list[ClutchOutcomes], odds: Odds) -> str | None:
    """How many eggs the double form would cost, against what was lost; None where it costs none."""
    if not odds.dies:
        return None
    fertile = [e for outcomes in own for e in outcomes.eggs if e.fate not in (None, Fate.SLUG)]
    lost = sum(e.lost for e in fertile)
    share = f"About {100 * odds.dies:.0f} % of its eggs get a double form that dies"
    if not fertile:
        return f"{share}."
    return (
        f"{share}: {odds.dies * len(fertile):.1f} of {len(fertile)} expected, "
        f"{lost} were lost for whatever reason."
    )
