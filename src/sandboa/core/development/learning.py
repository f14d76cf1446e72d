"""What finished clutches teach about this house and its cabinets (rule A7)."""

from collections.abc import Hashable, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from sandboa.core.development.windows import EGG_SD_DAYS, HatchPrior

#: Sd of the house's and of a cabinet's bias in ln D before anything is known (rule A7).
HOUSE_SD: Final = 0.03
CABINET_SD: Final = 0.02
#: Days a typical clutch takes, to turn days between eggs into ln D (rule A1, standard method).
_TYPICAL_DAYS: Final = 58.0


@dataclass(frozen=True, slots=True)
class FinishedClutch:
    """`log_development` is ln D at the mean pip of `eggs` eggs, and `sd` how far D may be off."""

    cabinet: Hashable
    log_development: float
    sd: float
    eggs: int


@dataclass(frozen=True, slots=True)
class Learned:
    """The prior for a new clutch in a cabinet, and what it rests on."""

    prior: HatchPrior
    clutches: int
    in_cabinet: int


def learn(
    finished: Sequence[FinishedClutch], cabinet: Hashable, untaught: HatchPrior | None = None
) -> Learned:
    """House bias plus cabinet bias by normal-normal shrinkage.

    Every clutch's ln D is house + cabinet + chance; chance has the spread
    between clutches (0.045), the error of its own record and that of a mean
    over few eggs. Both biases are shrunk towards zero jointly: one odd clutch
    moves little, six alike move most of the way. The spread between clutches
    stays as it is. Order of `finished` does not matter. Source: rule A7.
    """
    untaught = untaught or HatchPrior()
    if not finished:
        return Learned(untaught, 0, 0)
    cabinets = sorted({f.cabinet for f in finished} | {cabinet}, key=repr)
    design = np.zeros((len(finished), 1 + len(cabinets)))
    design[:, 0] = 1.0
    for row, clutch in enumerate(finished):
        design[row, 1 + cabinets.index(clutch.cabinet)] = 1.0
    surprise = np.array([f.log_development - untaught.mean for f in finished])
    egg_sd = EGG_SD_DAYS / _TYPICAL_DAYS
    variance = np.array([untaught.sd**2 + f.sd**2 + egg_sd**2 / max(f.eggs, 1) for f in finished])
    precision = np.diag([HOUSE_SD**-2] + [CABINET_SD**-2] * len(cabinets))
    precision += design.T @ (design / variance[:, None])
    bias = np.linalg.solve(precision, design.T @ (surprise / variance))
    mean = untaught.mean + float(bias[0] + bias[1 + cabinets.index(cabinet)])
    return Learned(
        HatchPrior(mean, untaught.sd),
        len(finished),
        sum(f.cabinet == cabinet for f in finished),
    )
