"""The first days: is there an animal in it?"""

from typing import Final

import numpy as np

from sandboa.devices.simulation.cases.case import CaseBox
from sandboa.devices.simulation.cases.making import Draft, Make


def _sound(random: np.random.Generator) -> Draft:
    return Draft(share=float(random.uniform(0.0, 0.14)))


def _blank(random: np.random.Generator) -> Draft:
    return Draft(share=float(random.uniform(0.0, 0.14)), usual=False, cause="blank", blank=True)


def _weak(random: np.random.Generator) -> Draft:
    return Draft(
        share=float(random.uniform(0.02, 0.12)), usual=False, cause="weak start", weak=True
    )


def _gone(random: np.random.Generator) -> Draft:
    died = float(random.uniform(0.03, 0.10))
    share = died + float(random.uniform(0.04, 0.09))
    return Draft(share=share, died=died, usual=False, cause="died in its first days")


def _aside(random: np.random.Generator) -> Draft:
    side = float(random.choice([-0.7, 0.7]))
    return Draft(
        share=float(random.uniform(0.03, 0.12)), usual=False, cause="disc at the side",
        disc=(side, float(random.uniform(-0.3, 0.1))), box=CaseBox(medium="half and half"),
    )  # fmt: skip


KINDS: Final[dict[str, Make]] = {
    "sound and fresh": _sound,
    "blank": _blank,
    "weak start": _weak,
    "died in its first days": _gone,
    "disc at the side": _aside,
}
