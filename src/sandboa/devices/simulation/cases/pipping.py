"""The first slit and after: to wait, or to help?"""

from dataclasses import replace
from typing import Final

import numpy as np

from sandboa.devices.simulation.cases.case import CaseBox
from sandboa.devices.simulation.cases.making import Draft, Make
from sandboa.devices.simulation.fates import Glance


def _at_term(random: np.random.Generator) -> float:
    return float(random.uniform(0.99, 1.04))


def _pipped(random: np.random.Generator) -> Draft:
    return Draft(
        share=_at_term(random),
        pipped_hours=float(random.uniform(2.0, 20.0)),
        first_pip_hours=float(random.uniform(20.0, 40.0)),
    )


def _resting(random: np.random.Generator) -> Draft:
    """Takes its time in the slit, as most do."""
    hours = float(random.uniform(26.0, 44.0))
    return Draft(share=_at_term(random), pipped_hours=hours, first_pip_hours=hours + 6.0)


def _glued(random: np.random.Generator) -> Draft:
    hours = float(random.uniform(30.0, 60.0))

    def wet(seen: Glance) -> Glance:
        return replace(seen, wet="leaking")

    return Draft(
        share=1.03, usual=False, cause="slit closed over fluid", pipped_hours=hours,
        first_pip_hours=hours + 8.0, doomed=bool(random.random() < 0.7), saved_by=("help",),
        seen=wet,
    )  # fmt: skip


def _locked(random: np.random.Generator) -> Draft:
    return Draft(
        share=float(random.uniform(1.02, 1.06)), usual=False, cause="cannot open its shell",
        first_pip_hours=float(random.uniform(40.0, 64.0)),
        doomed=bool(random.random() < 0.55), saved_by=("help",),
    )  # fmt: skip


def _dead_inside(random: np.random.Generator) -> Draft:
    return Draft(
        share=float(random.uniform(1.03, 1.07)), died=float(random.uniform(0.9, 0.97)),
        usual=False, cause="died at full term",
        first_pip_hours=float(random.uniform(40.0, 64.0)),
    )  # fmt: skip


def _cold(random: np.random.Generator) -> Draft:
    """Late by the calendar, not by the heat it got."""
    cool = CaseBox(temperature_c=float(random.uniform(29.2, 30.0)))
    return Draft(share=float(random.uniform(0.90, 0.96)), cause="cool cabinet", box=cool)


KINDS: Final[dict[str, Make]] = {
    "just pipped": _pipped,
    "resting in the slit": _resting,
    "slit closed": _glued,
    "siblings out": _locked,
    "dead at full term": _dead_inside,
    "late by the calendar": _cold,
}
