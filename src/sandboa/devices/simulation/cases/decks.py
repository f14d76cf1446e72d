"""Kinds of cases by deck, and a case drawn of one."""

from typing import Final
from zlib import crc32

import numpy as np

from sandboa.devices.simulation.cases import dented, fresh, late, mouldy, pipping
from sandboa.devices.simulation.cases.case import Case
from sandboa.devices.simulation.cases.making import Make, made

#: Kinds of each deck; what a mixed one holds is all of them.
DECKS: Final[dict[str, dict[str, Make]]] = {
    "fresh": fresh.KINDS,
    "dimples": dented.KINDS,
    "mould": mouldy.KINDS,
    "last": late.KINDS,
    "pipping": pipping.KINDS,
}

#: Every kind by its name.
KINDS: Final[dict[str, Make]] = {
    name: make for kinds in DECKS.values() for name, make in kinds.items()
}


def draw_case(kind: str, seed: int) -> Case:
    """The case of that kind that comes of a seed (>= 0); KeyError for a kind there is not."""
    random = np.random.default_rng([seed, crc32(kind.encode())])
    return made(kind, seed, KINDS[kind](random), random)
