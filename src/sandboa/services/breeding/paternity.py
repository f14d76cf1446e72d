"""Clutches of "one of these sires": said, and told apart by what hatched."""

from collections.abc import Sequence
from dataclasses import dataclass

from sandboa.core.act_kinds import ActKind
from sandboa.core.animals import SIRE, TraitForm
from sandboa.core.errors import NotPlausible
from sandboa.core.pairing.genes import Copies, Gene, copies_of
from sandboa.core.pairing.paternity import paternity
from sandboa.records.animals import Trait
from sandboa.records.clutches import Clutch, PossibleSire
from sandboa.records.facts import Act
from sandboa.services.acts.preconditions import clutch_called
from sandboa.services.acts.recording import act
from sandboa.services.animals.commands import find_animal
from sandboa.services.animals.genes import as_genes, genes
from sandboa.services.breeding.proving import shown_traits
from sandboa.services.snapshot.snapshot import Snapshot

#: Sires one clutch can be of (assumption: more than a season has).
MOST_SIRES = 10


@dataclass(frozen=True, slots=True)
class SireChance:
    """A sire a clutch may be of; `chance` 0-1 by what hatched, None where nothing explains it."""

    id: int
    name: str
    chance: float | None


def name_sires(code: str, sires: Sequence[int], now_s: float) -> Act:
    """Say that a clutch is of one of those sires; of one alone, that it is his; of none: unknown.

    Raises NotFound for an unknown clutch or animal, Conflict for one that is no sire, NotPlausible
    for one named twice or too many.
    """
    clutch = clutch_called(code)
    if len(set(sires)) < len(sires) or len(sires) > MOST_SIRES:
        raise NotPlausible("sires", f"each sire once, and {MOST_SIRES} at the most")
    names = [find_animal(sire, SIRE).name for sire in sires]
    told = "not known" if not names else ", ".join(names)
    words = f"Clutch {clutch.code}: sire {'one of ' if len(names) > 1 else ''}{told}"
    with act(ActKind.CORRECT, words, now_s, clutch.entity_id) as naming:
        held = {row.sire_id: row for row in PossibleSire.current(clutch_id=clutch.entity_id)}
        possible = set(sires) if len(sires) > 1 else set()
        for sire, row in held.items():
            if sire not in possible:
                row.retire(naming)
        for sire in sires:
            if sire in possible and sire not in held:
                PossibleSire.record(naming, clutch_id=clutch.entity_id, sire_id=sire)
        only = sires[0] if len(sires) == 1 else None
        if clutch.sire_id != only:
            clutch.correct(naming, sire_id=only)
    return naming


def possible_sires(snapshot: Snapshot, clutch: Clutch) -> list[SireChance]:
    """The sires a clutch may be of, the likeliest by its hatchlings first; none where it is known
    or nobody said."""
    herd = snapshot.herd
    ids = sorted(row.sire_id for row in PossibleSire.current(clutch_id=clutch.entity_id))
    if not ids:
        return []
    listed = as_genes(genes())
    by_name = {gene.name.casefold(): gene for gene in listed}
    shown = []
    for egg in snapshot.eggs.get(clutch.entity_id, []):
        for hatchling in snapshot.egg(egg.entity_id).hatchlings:
            traits = herd.traits.get(hatchling.entity_id, [])
            seen = shown_traits(traits, plain=bool(hatchling.plain), listed=by_name)
            if seen is not None:
                shown.append(frozenset(seen))
    chances = paternity(
        _copies(herd.traits.get(clutch.dam_id, []), by_name),
        {sire: _copies(herd.traits.get(sire, []), by_name) for sire in ids},
        shown,
        listed,
    )
    told = [
        SireChance(sire, herd.name(sire) or "", None if chances is None else chances[sire])
        for sire in ids
    ]
    return sorted(told, key=lambda one: (-(one.chance or 0.0), one.name))


def _copies(traits: Sequence[Trait], listed: dict[str, Gene]) -> dict[str, Copies]:
    return {
        name: copies_of(listed[name], TraitForm(trait.form))
        for trait in traits
        if (name := trait.name.casefold()) in listed
    }
