"""A pair: what it can produce, what hatched of it, and how many eggs the double form cost."""

from dataclasses import dataclass

from sandboa.core.animals import DAM, SIRE
from sandboa.core.hatching import Fate
from sandboa.core.pairing.expected import against_expected
from sandboa.core.pairing.genes import Gene, Odds
from sandboa.services.animals.commands import find_animal
from sandboa.services.animals.genes import odds_of
from sandboa.services.breeding.proving import HouseCarriers, shown_traits
from sandboa.services.losses.outcomes import ClutchOutcomes, outcomes_by_now
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
    """`odds` take each possible trait at what its hatchlings made of it, told in `proofs`."""

    dam: str
    sire: str
    odds: Odds
    hatched: tuple[SeenForm, ...]
    losses_words: str | None
    proofs: tuple[str, ...]


def pair_record(snapshot: Snapshot, dam: int, sire: int, as_of_s: float) -> PairRecord:
    """What is known of a pair; NotFound for unknown animals, Conflict for the wrong roles."""
    her, him = find_animal(dam, DAM), find_animal(sire, SIRE)
    carriers = HouseCarriers(snapshot)
    # What hatched of a pair is held against what was to be expected of it before.
    before = odds_of(dam, sire, list(carriers.listed.values()))
    odds = odds_of(dam, sire, list(carriers.listed.values()), carriers.together(dam, sire))
    own = [
        outcomes
        for outcomes in outcomes_by_now(snapshot, as_of_s)[0]
        if outcomes.clutch.dam_id == dam and outcomes.clutch.sire_id == sire
    ]
    return PairRecord(
        her.name,
        him.name,
        odds,
        tuple(_seen(snapshot, own, before, carriers.listed)),
        _losses(own, odds),
        tuple(
            f"{name}, {told.gene}: {told.words}"
            for animal, name in ((dam, her.name), (sire, him.name))
            for told in carriers.proofs(animal)
        ),
    )


def _seen(
    snapshot: Snapshot, own: list[ClutchOutcomes], odds: Odds, listed: dict[str, Gene]
) -> list[SeenForm]:
    known = [
        shown
        for outcomes in own
        for end in outcomes.eggs
        for hatchling in snapshot.egg(end.egg.entity_id).hatchlings
        if (
            shown := shown_traits(
                snapshot.herd.traits.get(hatchling.entity_id, []),
                plain=bool(hatchling.plain),
                listed=listed,
            )
        )
        is not None
    ]
    told = []
    for visible in odds.visible:
        seen = sum(visible.gene.casefold() in shown for shown in known)
        words = against_expected(seen, len(known), visible.chance)
        told.append(SeenForm(visible.gene, visible.chance, seen, len(known), words))
    return told


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
