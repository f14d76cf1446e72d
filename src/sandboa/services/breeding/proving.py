"""What hatchlings say of the possible traits of their parents, from what is recorded."""

from collections.abc import Iterator
from dataclasses import dataclass

from sandboa.core.animals import TraitForm
from sandboa.core.pairing.genes import Copies, Gene, copies_of, shows
from sandboa.core.pairing.proving import ByMate, Carriers, Progeny, Proof, chance_by_parents
from sandboa.records.animals import Trait
from sandboa.services.animals.genes import as_genes, genes
from sandboa.services.snapshot.herd import Herd
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True, slots=True)
class TraitProof:
    """A possible trait of an animal: `words` say what its hatchlings make of it, `by_mate` pair
    by pair."""

    gene: str
    proof: Proof
    words: str
    by_mate: tuple[str, ...]


class HouseCarriers:
    """What is believed of the animals of the house, gene by gene; read once for a request."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._herd = snapshot.herd
        self.listed = {gene.name.casefold(): gene for gene in as_genes(genes())}
        self._looked_at = list(_looked_at(snapshot, self.listed))
        self._carriers: dict[str, Carriers] = {}

    def proofs(self, animal: int) -> list[TraitProof]:
        """Of each possible trait of an animal that is on the list, by name."""
        possible = [
            self.listed[name]
            for trait in self._herd.traits.get(animal, [])
            if trait.form == TraitForm.POSSIBLE and (name := trait.name.casefold()) in self.listed
        ]
        return [self._proof(animal, gene) for gene in possible]

    def together(self, dam: int, sire: int) -> dict[str, list[list[float]]]:
        """Chances of 0, 1, 2 copies in the two at once (3 x 3), by the genes that either may
        carry, in lower case."""
        names = {trait.name.casefold() for own in (dam, sire) for trait in self._traits(own)}
        return {
            name: self._of(self.listed[name]).together(dam, sire).tolist()
            for name in names & self.listed.keys()
        }

    def _proof(self, animal: int, gene: Gene) -> TraitProof:
        proof = self._of(gene).proof(animal)
        by_mate = tuple(self._pair_words(gene, pair) for pair in proof.by_mate)
        return TraitProof(gene.name, proof, proof_words(gene.name, proof), by_mate)

    def _pair_words(self, gene: Gene, pair: ByMate) -> str:
        mate = self._herd.name(pair.mate) or "a mate"
        show = "hatchling shows" if pair.of == 1 else "hatchlings show"
        return (
            f"With {mate}: {pair.shown} of {pair.of} {show} {gene.name}; of a carrier "
            f"{pair.expected * pair.of:.1f} were to be expected."
        )

    def _of(self, gene: Gene) -> Carriers:
        held = self._carriers.get(gene.name)
        if held is None:
            held = Carriers(gene, self._copies(gene), self._progeny(gene))
            self._carriers[gene.name] = held
        return held

    def _progeny(self, gene: Gene) -> list[Progeny]:
        name = gene.name.casefold()
        pairs: dict[tuple[int, int], list[bool]] = {}
        for dam, sire, shown in self._looked_at:
            pairs.setdefault((dam, sire), []).append(name in shown)
        return [
            Progeny(dam, sire, sum(seen), len(seen)) for (dam, sire), seen in sorted(pairs.items())
        ]

    def _copies(self, gene: Gene) -> dict[int, Copies]:
        found = {}
        for animal, row in self._herd.animals.items():
            form = self._form(animal, gene)
            if form is None:
                continue
            before = chance_by_parents(
                gene, self._form(row.dam_id, gene), self._form(row.sire_id, gene)
            )
            found[animal] = copies_of(gene, form, before)
        return found

    def _form(self, animal: int | None, gene: Gene) -> TraitForm | None:
        """How it is recorded to carry the gene; None for an unknown animal or where it is not."""
        for trait in self._traits(animal):
            if trait.name.casefold() == gene.name.casefold():
                return TraitForm(trait.form)
        return None

    def _traits(self, animal: int | None) -> list[Trait]:
        return [] if animal is None else self._herd.traits.get(animal, [])


def shown_traits(traits: list[Trait], *, plain: bool, listed: dict[str, Gene]) -> set[str] | None:
    """Traits of the list a hatchling is seen to have; None when nobody said what it shows.

    Left out, the plain ones would make every trait look commoner than it is.
    """
    if not traits and not plain:
        return None
    return {
        name
        for trait in traits
        if (gene := listed.get(name := trait.name.casefold()))
        and shows(gene, TraitForm(trait.form))
    }


def proof_words(gene: str, proof: Proof) -> str:
    """ "By 12 hatchlings that could have shown it: 3 %, from 50 % before." """
    if proof.chance is None:
        return (
            f"A hatchling shows {gene}, and by what is recorded of its parents it cannot: its "
            "other parent carries it too, or its sire or the trait is another."
        )
    if proof.proved:
        return f"Proved: a hatchling shows {gene} that has it from no one else."
    if proof.before >= 1.0:
        return f"It carries {gene} by its parents: one of them has nothing else to give."
    if not proof.by_mate:
        return f"{_percent(proof.before)}: no hatchling that was looked at could have shown it."
    of = sum(pair.of for pair in proof.by_mate)
    which = "1 hatchling" if of == 1 else f"{of} hatchlings"
    return (
        f"{_percent(proof.chance)} by {which} that could have shown it, from "
        f"{_percent(proof.before)} before. {_likelihood(proof.times)}"
    )


def _likelihood(times: float) -> str:
    if times < 1.0:
        return f"They are {_times(1.0 / times)} times likelier if it has none."
    return f"They are {_times(times)} times likelier if it has one."


def _times(times: float) -> str:
    return f"{times:.1f}" if times < 10.0 else f"{times:,.0f}"


def _percent(chance: float) -> str:
    if chance < 0.01:
        return "Under 1 %"
    return f"{100.0 * chance:.0f} %" if chance <= 0.99 else "Over 99 %"


def _looked_at(snapshot: Snapshot, listed: dict[str, Gene]) -> Iterator[tuple[int, int, set[str]]]:
    """Dam, sire and the shown traits of every hatchling that somebody looked at."""
    herd: Herd = snapshot.herd
    for clutch in snapshot.clutches:
        if clutch.sire_id is None:
            continue
        for egg in snapshot.eggs.get(clutch.entity_id, []):
            for hatchling in snapshot.egg(egg.entity_id).hatchlings:
                traits = herd.traits.get(hatchling.entity_id, [])
                shown = shown_traits(traits, plain=bool(hatchling.plain), listed=listed)
                if shown is not None:
                    yield clutch.dam_id, clutch.sire_id, shown
