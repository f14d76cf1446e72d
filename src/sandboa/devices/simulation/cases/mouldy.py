"""Mould, smells, wet shells: a sign of death, or of nothing?"""

from dataclasses import replace
from typing import Final

import numpy as np

from sandboa.devices.simulation.cases.making import Draft, Make
from sandboa.devices.simulation.fates import Glance


def _spotted(random: np.random.Generator) -> Draft:
    return Draft(
        share=float(random.uniform(0.2, 0.8)), usual=False, cause="a stain, no more",
        shell="stained", seen=lambda seen: replace(seen, mould="spot"),
    )  # fmt: skip


def _furred_alive(random: np.random.Generator) -> Draft:
    return Draft(
        share=float(random.uniform(0.3, 0.7)), usual=False, cause="moulded, and lives",
        seen=lambda seen: replace(seen, mould="patch"),
    )  # fmt: skip


def _moulding(random: np.random.Generator) -> Draft:
    died = float(random.uniform(0.15, 0.55))
    share = died + float(random.uniform(0.10, 0.18))

    def mouldy(seen: Glance) -> Glance:
        return replace(seen, mould=seen.mould if seen.mould in ("patch", "furry") else "spot")

    return Draft(share=share, died=died, usual=False, cause="died, and moulds", seen=mouldy)


def _rotten(random: np.random.Generator) -> Draft:
    died = float(random.uniform(0.1, 0.5))
    share = died + float(random.uniform(0.26, 0.36))

    def rotten(seen: Glance) -> Glance:
        return replace(seen, mould="furry", smell="foul", grade=4, feel="mushy")

    return Draft(
        share=share, died=died, usual=False, cause="rotten", seen=rotten,
        taints=bool(random.random() < 0.4),
    )  # fmt: skip


def _smells_of_others(random: np.random.Generator) -> Draft:
    return Draft(
        share=float(random.uniform(0.25, 0.75)), usual=True, cause="a neighbour's smell",
        seen=lambda seen: replace(seen, smell="off", mould="none"),
    )  # fmt: skip


def _torn(random: np.random.Generator) -> Draft:
    return Draft(
        share=float(random.uniform(0.05, 0.5)), usual=False, cause="torn when peeled apart",
        seen=lambda seen: replace(seen, wet="weeping"),
    )  # fmt: skip


KINDS: Final[dict[str, Make]] = {
    "stained": _spotted,
    "moulded and alive": _furred_alive,
    "moulding": _moulding,
    "rotten": _rotten,
    "neighbour's smell": _smells_of_others,
    "torn": _torn,
}
