"""How good the standings were: the chance that was told, against what became of the egg (C)."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
import numpy.typing as npt

from sandboa.core.errors import NotPlausible
from sandboa.core.standing.death_time import DIES_IN_SLIT
from sandboa.core.standing.reliability import Reliability, reliability
from sandboa.core.standing.rules import DEFAULT_RULES, Standing, StandingRules

#: Days after lay on which standings are kept to be compared later (assumption): mid-term, and
#: when pipping is near. On lay day nothing but the prior is known.
JUDGED_DAYS: Final = (30, 50)
#: Eggs below which nothing is said of the scores (assumption).
_FEWEST_EGGS: Final = 12
#: Standard errors by which a mean gain must be off zero: 95 % one way.
_SURE_ERRORS: Final = 1.645


@dataclass(frozen=True, slots=True)
class ToldEgg:
    """What was told of an egg, chances 0-1 of being `alive` then and that it `will_hatch`, and
    whether it `hatched`; `lived`, whether it did live then, None where nobody can say."""

    alive: float
    will_hatch: float
    hatched: bool
    lived: bool | None = None


@dataclass(frozen=True, slots=True)
class StandingBin:
    """Of `eggs` told so: the mean chance of hatching that was said (0-1), and how many did."""

    standing: Standing
    eggs: int
    said: float
    hatched: int


@dataclass(frozen=True, slots=True)
class StandingScore:
    """What was told on `day` (days after lay) of `eggs`, of which `hatched` did so later.

    `brier` is the mean squared error of the chance, 0 (always right and sure)
    to 1; `brier_of_always` what saying the share that hatched of every egg alike
    would have had: the standings are worth something where theirs is smaller.
    `bins` are by standing, in falling order of hope, those that occurred;
    `gain_sure` whether there were eggs enough to tell the two scores apart.
    `will_hatch` holds every chance of hatching against what came, `alive` those of
    being alive that day, for eggs whose pip or opening tells it; None where no egg's does.
    """

    day: int
    eggs: int
    hatched: int
    brier: float
    brier_of_always: float
    bins: tuple[StandingBin, ...]
    gain_sure: bool
    will_hatch: Reliability | None = None
    alive: Reliability | None = None

    @property
    def words(self) -> str:
        """What the scores say, or that it is too early to say."""
        scores = (
            f"Brier score {self.brier:.3f}, against {self.brier_of_always:.3f} for saying "
            f"{100 * self.hatched / self.eggs:.0f} % of every egg."
        )
        if not self.gain_sure:
            return f"{scores} Too few to tell them apart."
        if self.brier < self.brier_of_always:
            return f"{scores} The standings told eggs apart."
        return f"{scores} Here they misled: go by the torch."


def score_standings(
    day: int, told: Sequence[ToldEgg], rules: StandingRules = DEFAULT_RULES
) -> StandingScore | None:
    """Compare chances of hatching (0-1) with whether the egg hatched; None without any.

    An egg that was alive that day and died afterwards counts as not hatched: how likely that is,
    is in its chance to hatch. Raises NotPlausible for a chance beyond 0-1. Source: Brier 1950.
    """
    if not told:
        return None
    said = np.array([egg.will_hatch for egg in told], dtype=float)
    came = np.array([egg.hatched for egg in told], dtype=float)
    for chances in (said, np.array([egg.alive for egg in told], dtype=float)):
        if not np.all((chances >= 0.0) & (chances <= 1.0)):
            raise NotPlausible("chance", "a chance is between 0 and 1")
    standings = [rules.standing(egg.alive, egg.will_hatch / (1.0 - DIES_IN_SLIT)) for egg in told]
    bins = []
    for standing in Standing:
        held = np.array([s is standing for s in standings])
        if held.any():
            bins.append(
                StandingBin(
                    standing, int(held.sum()), float(said[held].mean()), int(came[held].sum())
                )
            )
    share = float(came.mean())
    return StandingScore(
        day,
        len(told),
        int(came.sum()),
        float(np.mean((said - came) ** 2)),
        share * (1.0 - share),
        tuple(bins),
        _is_sure((share - came) ** 2 - (said - came) ** 2),
        reliability([egg.will_hatch for egg in told], [egg.hatched for egg in told]),
        reliability(
            [egg.alive for egg in told if egg.lived is not None],
            [egg.lived for egg in told if egg.lived is not None],
        ),
    )


def _is_sure(gains: npt.NDArray[np.float64]) -> bool:
    """Whether the mean gain over the eggs is off zero, taking eggs as independent (assumption)."""
    if len(gains) < _FEWEST_EGGS:
        return False
    error = float(gains.std(ddof=1)) / math.sqrt(len(gains))
    return abs(float(gains.mean())) > _SURE_ERRORS * error
