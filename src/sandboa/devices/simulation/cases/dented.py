"""Dents: of their age, of a dry box, or of an egg that sinks?"""

from dataclasses import replace
from typing import Final

import numpy as np

from sandboa.devices.simulation.cases.case import CaseBox
from sandboa.devices.simulation.cases.making import Draft, Make
from sandboa.devices.simulation.fates import Glance


def _of_age(random: np.random.Generator) -> Draft:
    return Draft(share=float(random.uniform(0.66, 0.82)))


def _dry(random: np.random.Generator) -> Draft:
    left = float(random.uniform(0.12, 0.34))
    box = CaseBox(
        medium="perlite", closing="film with a cracked corner", water_left=left,
        lid="none" if random.random() < 0.8 else "edges",
        feels="dry" if left < 0.2 else "barely damp",
    )  # fmt: skip
    return Draft(
        share=float(random.uniform(0.3, 0.58)), usual=False, cause="box dried out", box=box,
        dents=int(random.integers(1, 3)), neighbours_dents=1,
        doomed=bool(random.random() < 0.7), saved_by=("water",),
    )  # fmt: skip


def _windowed(random: np.random.Generator) -> Draft:
    return Draft(
        share=float(random.uniform(0.35, 0.6)), usual=False, cause="thin shell", shell="window",
        dents=1,
    )  # fmt: skip


def _sinking(random: np.random.Generator) -> Draft:
    died = float(random.uniform(0.2, 0.5))
    share = died + float(random.uniform(0.05, 0.13))

    def dented(seen: Glance) -> Glance:
        return replace(seen, grade=max(seen.grade, 1))

    return Draft(share=share, died=died, usual=False, cause="died, and sinks", seen=dented)


def _hanging(random: np.random.Generator) -> Draft:
    return Draft(
        share=float(random.uniform(0.25, 0.6)), usual=False, cause="hangs without support",
        hangs=True, dents=1, doomed=bool(random.random() < 0.4), saved_by=("support",),
    )  # fmt: skip


def _soaked(random: np.random.Generator) -> Draft:
    box = CaseBox(medium="perlite", lid="raining", feels="drips", water_left=1.05)
    return Draft(
        share=float(random.uniform(0.3, 0.7)), usual=False, cause="too wet", box=box,
        doomed=bool(random.random() < 0.35), saved_by=("air", "isolate"),
    )  # fmt: skip


KINDS: Final[dict[str, Make]] = {
    "dents of its age": _of_age,
    "dry box": _dry,
    "thin shell": _windowed,
    "sinking": _sinking,
    "hanging": _hanging,
    "soaked": _soaked,
}
