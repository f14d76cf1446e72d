"""The keeper's own list of traits, and what a pair of animals can produce by it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from sandboa.core.act_kinds import ActKind
from sandboa.core.animals import TraitForm
from sandboa.core.names import clean_name
from sandboa.core.pairing.genes import DoubleForm, Gene, Inheritance, Odds, pairing_odds
from sandboa.records import hatching
from sandboa.records.animals import Trait
from sandboa.records.facts import Act
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import act


@dataclass(frozen=True, slots=True)
class GeneCommand:
    """What the keeper says of a trait."""

    name: str
    inheritance: Inheritance
    double_form: DoubleForm = DoubleForm.FINE


def genes() -> list[hatching.Gene]:
    """The list, by name."""
    return sorted(hatching.Gene.current(), key=lambda gene: gene.name.casefold())


def as_genes(rows: list[hatching.Gene]) -> list[Gene]:
    """The list as the core reads it."""
    return [
        Gene(row.name, Inheritance(row.inheritance), DoubleForm(row.double_form)) for row in rows
    ]


def add_gene(said: GeneCommand, now_s: float) -> tuple[int, Act]:
    """Put a trait on the list; Conflict when its name is on it, NotPlausible for none."""
    name = clean_name("name", said.name)
    _require_free(name, None)
    with act(ActKind.GENE, f"Trait {name}: {said.inheritance}{_double(said)}", now_s) as adding:
        row = hatching.Gene.record(
            adding,
            name=name,
            inheritance=said.inheritance.value,
            double_form=said.double_form.value,
        )
    return row.entity_id, adding


def correct_gene(entity: int, said: GeneCommand, now_s: float) -> Act:
    """Change a trait of the list; raises as `add_gene` does, NotFound when it is not on it."""
    held = find_gene(entity)
    name = clean_name("name", said.name)
    _require_free(name, entity)
    summary = f"Trait {name} corrected: {said.inheritance}{_double(said)}"
    with act(ActKind.GENE, summary, now_s) as correcting:
        held.correct(
            correcting,
            name=name,
            inheritance=said.inheritance.value,
            double_form=said.double_form.value,
        )
    return correcting


def drop_gene(entity: int, now_s: float) -> Act:
    """Take a trait off the list; animals keep it as a word."""
    held = find_gene(entity)
    with act(ActKind.GENE, f"Trait {held.name} taken off the list", now_s) as dropping:
        held.retire(dropping)
    return dropping


def odds_of(
    dam: int,
    sire: int,
    listed: list[Gene],
    together: Mapping[str, Sequence[Sequence[float]]] | None = None,
) -> Odds:
    """What a dam and a sire can produce, by what is recorded of them and the genes `listed`.

    `together`: what more is known of the two, as in core.pairing.genes.pairing_odds.
    """
    return pairing_odds(_traits(dam), _traits(sire), listed, together)


def _traits(animal: int) -> dict[str, TraitForm]:
    return {row.name: TraitForm(row.form) for row in Trait.current(animal_id=animal)}


def find_gene(entity: int) -> hatching.Gene:
    """A trait of the list; NotFound otherwise."""
    held = hatching.Gene.now(entity)
    if held is None:
        raise NotFound("there is no such trait on your list")
    return held


def _require_free(name: str, own: int | None) -> None:
    for row in hatching.Gene.current():
        if row.name.casefold() == name.casefold() and row.entity_id != own:
            raise Conflict(f"{row.name} is on your list already")


def _double(said: GeneCommand) -> str:
    return "" if said.double_form is DoubleForm.FINE else f", double form {said.double_form}"
