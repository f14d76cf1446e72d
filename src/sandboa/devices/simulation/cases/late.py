"""The last ten days, when a torch shows little."""

from dataclasses import replace
from typing import Final

import numpy as np

from sandboa.devices.simulation.cases.case import CaseBox
from sandboa.devices.simulation.cases.making import Draft, Make
from sandboa.devices.simulation.fates import Glance


def _late_share(random: np.random.Generator) -> float:
    return float(random.uniform(0.84, 0.98))


def _dented(random: np.random.Generator) -> Draft:
    return Draft(share=_late_share(random))


def _sweating(random: np.random.Generator) -> Draft:
    return Draft(share=float(random.uniform(0.9, 0.98)), box=CaseBox(lid="raining"))


def _stuffy(random: np.random.Generator) -> Draft:
    box = CaseBox(closing="sealed film", lid="half" if random.random() < 0.5 else "raining")
    return Draft(
        share=float(random.uniform(0.82, 0.93)), usual=False, cause="no air", box=box,
        doomed=bool(random.random() < 0.65), saved_by=("air", "isolate"),
    )  # fmt: skip


def _gone(random: np.random.Generator) -> Draft:
    died = float(random.uniform(0.68, 0.85))
    share = min(died + float(random.uniform(0.09, 0.16)), 0.98)
    return Draft(share=share, died=died, usual=False, cause="died late")


def _plump(random: np.random.Generator) -> Draft:
    def plump(seen: Glance) -> Glance:
        return replace(seen, grade=min(seen.grade, 1))

    return Draft(share=_late_share(random), seen=plump)


def _parched(random: np.random.Generator) -> Draft:
    box = CaseBox(
        medium="perlite", closing="loose lid", lid="none", feels="dry",
        water_left=float(random.uniform(0.08, 0.22)),
    )  # fmt: skip
    return Draft(
        share=float(random.uniform(0.82, 0.93)), usual=False, cause="box dried out late", box=box,
        dents=1, neighbours_dents=1, doomed=bool(random.random() < 0.5), saved_by=("water",),
    )  # fmt: skip


KINDS: Final[dict[str, Make]] = {
    "late dents": _dented,
    "sweating lid": _sweating,
    "no air": _stuffy,
    "died late": _gone,
    "plump to the last": _plump,
    "dry at the last": _parched,
}
