"""Which of several sires: by what the hatchlings show, as far as that can tell.

A dam that was with two sires has hatchlings of one of them ("one of these" is a fact). Where the
two carry different genes, what hatches tells them apart; every gene is taken by itself.
"""

import math
from collections.abc import Mapping, Sequence

from sandboa.core.pairing.genes import Copies, Gene, for_certain, offspring, visible_chance


def paternity(
    dam: Mapping[str, Copies],
    sires: Mapping[int, Mapping[str, Copies]],
    hatchlings: Sequence[frozenset[str]],
    genes: Sequence[Gene],
) -> dict[int, float] | None:
    """The chance (0-1, sum 1) of each sire, all equally likely before anything hatched.

    `dam` and each of `sires` are the chances of 0, 1, 2 copies by the gene's name in lower case;
    a gene not named has none. `hatchlings` are the genes, in lower case, that each hatchling
    somebody looked at shows. None where no sire can explain them. Raises ValueError for no sire.
    """
    if not sires:
        raise ValueError("no sire to choose from")
    logs = {
        sire: sum(_log_likelihood(dam, copies, shown, genes) for shown in hatchlings)
        for sire, copies in sires.items()
    }
    highest = max(logs.values())
    if highest == -math.inf:
        return None
    weights = {sire: math.exp(log - highest) for sire, log in logs.items()}
    total = sum(weights.values())
    return {sire: weight / total for sire, weight in weights.items()}


def _log_likelihood(
    dam: Mapping[str, Copies],
    sire: Mapping[str, Copies],
    shown: frozenset[str],
    genes: Sequence[Gene],
) -> float:
    total = 0.0
    for gene in genes:
        name = gene.name.casefold()
        copies = offspring(dam.get(name, for_certain(0)), sire.get(name, for_certain(0)))
        chance = visible_chance(gene, copies)
        of_this = chance if name in shown else 1.0 - chance
        if of_this <= 0.0:
            return -math.inf
        total += math.log(of_this)
    return total
