"""Simulated heredity: each parent hands on one of its two copies of a gene, by itself."""

from collections.abc import Collection, Mapping

import numpy as np


def shown_traits(
    dam: Mapping[str, int],
    sire: Mapping[str, int],
    recessive: Collection[str],
    random: np.random.Generator,
) -> tuple[tuple[str, str], ...]:
    """(gene, form) of what one offspring shows; () when it looks like any other.

    `dam` and `sire` are copies 0-2 by gene. A recessive gene shows with two copies only,
    another with one, and differently with two.
    """
    told = []
    for gene in sorted({*dam, *sire}):
        copies = sum(random.random() < parent.get(gene, 0) / 2.0 for parent in (dam, sire))
        if gene in recessive:
            if copies == 2:
                told.append((gene, "visual"))
        elif copies:
            told.append((gene, "visual" if copies == 1 else "two copies"))
    return tuple(told)
