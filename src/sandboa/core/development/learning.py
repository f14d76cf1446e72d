"""What finished clutches teach about a house, its cabinets and its dams (rule A7)."""

import math
from collections.abc import Hashable, Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum
from typing import Final

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.development.conditioning import Conditioned, Surprises
from sandboa.core.development.rules import (
    DEFAULT_RULES,
    EGG_SD_DAYS,
    ForecastRules,
)
from sandboa.core.development.windows import HatchPrior
from sandboa.core.units import Z80

#: Days a typical clutch takes, to turn days between eggs into ln D (rule A1, standard method).
_TYPICAL_DAYS: Final = 58.0
#: Pips of a clutch from which what is among them can be told from chance; a clutch of six has five
#: such differences.
_USUAL_DIFFERENCES: Final = 5.0
#: Rounds of learning how much houses, cabinets, dams and norms differ; more of them move nothing
#: any more.
_ROUNDS: Final = 2
#: Clutches from which on taking one out is told from all, not learned anew (assumption: of fewer
#: it takes little, and moves more).
_MANY: Final = 30


@dataclass(frozen=True, slots=True)
class Circumstances:
    """What a clutch may share with others: its cabinet, its dam, its mean temperature (°C) from
    lay to pip, and the probe on which most depends, with what that may be off by (sd of ln D)."""

    cabinet: Hashable
    dam: Hashable
    mean_c: float
    probe: str | None = None
    probe_sd: float = 0.0


@dataclass(frozen=True, slots=True)
class FinishedClutch:
    """ln D at the mean pip of `eggs` eggs, and `sd` by how much its record may be off, beside what
    its probe is off by. `egg_variance` (days²) is among its pips, None where too few were seen.
    """

    where: Circumstances
    log_development: float
    sd: float
    eggs: int
    egg_variance: float | None = None


@dataclass(frozen=True, slots=True)
class Effect:
    """What something adds to ln D at the pip, `mean` and `sd`, told by `clutches` of its own."""

    mean: float
    sd: float
    clutches: int

    @property
    def may_be_chance(self) -> bool:
        """Whether its 80 % interval holds zero."""
        return abs(self.mean) < Z80 * self.sd


@dataclass(frozen=True, slots=True)
class Learned:
    """The prior of one clutch and what it rests on.

    `house` is of the house, the cabinet with its probe, and the temperature together, `dam` of
    the dam alone; `clutches` were learned from, `in_cabinet` of them in that cabinet.
    """

    prior: HatchPrior
    house: Effect
    dam: Effect
    clutches: int
    in_cabinet: int


class _Kind(StrEnum):
    """What adds to ln D, by kind: the sd of each kind is learned, that of probes is known."""

    HOUSE = "house"
    SLOPE = "slope"
    CURVATURE = "curvature"
    CABINET = "cabinet"
    DAM = "dam"
    PROBE = "probe"


#: A house has one of each of these.
_NORM: Final = ((_Kind.HOUSE, None), (_Kind.SLOPE, None), (_Kind.CURVATURE, None))
_Place = tuple[_Kind, Hashable]
_NOTHING: Final = Conditioned(
    means=np.zeros((0, 0)),
    precision=np.zeros((0, 0, 0)),
    likely=np.zeros(0),
    chance=np.zeros(0),
    weights=np.zeros((0, 0)),
    log_own=np.zeros((0, 0)),
)


@dataclass(frozen=True)
class HouseLearning:
    """What all finished clutches taught together; `expect` tells it of one clutch.

    `known` is of all that is looked for, `covariances` with it, `places` being where each of it
    stands, and `sds` by how much those of a kind differ, learned as well from `surprises`;
    `usual_c` (°C) is where the norm's terms are zero.
    """

    rules: ForecastRules = DEFAULT_RULES
    finished: tuple[FinishedClutch, ...] = ()
    egg_sd_days: float = EGG_SD_DAYS
    usual_c: float = 0.0
    places: dict[_Place, int] = field(default_factory=dict)
    sds: dict[_Kind, float] = field(default_factory=dict)
    known: Conditioned = field(default_factory=lambda: _NOTHING)
    covariances: FloatArray = field(default_factory=lambda: _NOTHING.precision)
    surprises: Surprises | None = None

    def without(self, left_out: FinishedClutch) -> "HouseLearning":
        """What the others taught; all of it where that clutch is not among them.

        Among many it is taken out of what is known: by how much those of a kind differ, and what
        each of the others counts for, stays as it is with it. A mean is off by less than 0.15 of
        its sd that way, and an sd by less than 5 %.
        """
        rows = [row for row, clutch in enumerate(self.finished) if clutch is left_out]
        if not rows or self.surprises is None:
            return self
        (row,) = rows
        others = (*self.finished[:row], *self.finished[row + 1 :])
        if len(self.finished) < _MANY:
            return learn(others, self.rules)
        known, covariances = self.surprises.without(row, self.known, self.covariances)
        return replace(
            self,
            finished=others,
            egg_sd_days=_egg_sd_days(others, self.rules),
            known=known,
            covariances=covariances,
            surprises=None,
        )

    def expect(self, where: Circumstances) -> Learned:
        """The prior of a clutch that is to be forecast.

        Its sd is of all that is still open: what was left over of house, cabinet, dam, norm and
        probe, and chance. Of a cabinet, a dam or a probe without a finished clutch nothing is
        known beyond the others. Source: rules A3, A7.
        """
        if not self.finished:
            return self._untaught()
        norm = dict(zip(_NORM, _norm_terms(where.mean_c - self.usual_c), strict=True))
        house = norm | {(_Kind.CABINET, where.cabinet): 1.0}
        known_probe = (_Kind.PROBE, where.probe) in self.places
        if known_probe:
            house[_Kind.PROBE, where.probe] = where.probe_sd
        dam: dict[_Place, float] = {(_Kind.DAM, where.dam): 1.0}
        mean, variance = self._of(house | dam)
        chance = self.known.chance_variance
        prior = HatchPrior(
            mean,
            math.sqrt(variance + chance),
            self.egg_sd_days,
            where.probe if known_probe else None,
            self._freedom(variance + chance),
            self.rules,
        )
        return Learned(
            prior,
            self._effect(house, len(self.finished)),
            self._effect(dam, sum(f.where.dam == where.dam for f in self.finished)),
            len(self.finished),
            sum(f.where.cabinet == where.cabinet for f in self.finished),
        )

    def _untaught(self) -> Learned:
        rules = self.rules
        prior = HatchPrior(0.0, rules.untaught_sd, rules.egg_sd_days, rules=rules)
        here = Effect(0.0, math.hypot(rules.house_sd, rules.cabinet_sd), 0)
        return Learned(prior, here, Effect(0.0, rules.dam_sd, 0), 0, 0)

    def _freedom(self, whole_variance: float) -> float:
        """Degrees of freedom of the t that has the kurtosis of a normal whose variance is not sure:
        3 Var(V) / E(V)² beyond a normal's."""
        known = self.known
        unsure = float(known.likely @ (known.chance**2 - known.chance_variance) ** 2)
        excess = 3.0 * unsure / whole_variance**2
        return 4.0 + 6.0 / max(excess, 1e-9)

    def _effect(self, terms: dict[_Place, float], clutches: int) -> Effect:
        mean, variance = self._of(terms)
        return Effect(mean, math.sqrt(variance), clutches)

    def _of(self, terms: dict[_Place, float]) -> tuple[float, float]:
        """Mean and variance of a sum of what is looked for, chance being unknown."""
        known = [place for place in terms if place in self.places]
        about = np.array([terms[place] for place in known])
        unknown = sum((terms[p] * self.sds[p[0]]) ** 2 for p in terms if p not in self.places)
        # Of a house's many dams and probes a sum has a few.
        at = np.array([self.places[place] for place in known], dtype=np.intp)
        means = self.known.means[:, at] @ about
        variances = self.covariances[:, at[:, None], at] @ about @ about
        mean = float(self.known.likely @ means)
        spread = float(self.known.likely @ (variances + (means - mean) ** 2))
        return mean, max(spread, 0.0) + unknown


def learn(
    finished: Sequence[FinishedClutch], rules: ForecastRules = DEFAULT_RULES
) -> HouseLearning:
    """Learn house, cabinets, dams, probes, the temperature norm, chance, and how eggs differ.

    Every clutch's ln D at its mean pip is a sum: house + cabinet + dam + what its probe is off by
    + slope·(T - usual) + curvature·(T - usual)² + chance, usual being the mean temperature of
    them all. All but chance are normal about zero, so that a dam or a norm of which nothing speaks
    adds nothing; their sds start from rules A3 and A7 and are learned by kind, each counting as
    four. Chance, with the error of its record and of a mean over few eggs, is
    Student's t (4 degrees of freedom by default): one wrong lay date counts little. How wide it
    is, is looked for on a grid (between 0.02 and 0.10 by default). Given that, surprises are
    weighed by how far out they are and the rest is exact normal conditioning; its probability is
    Laplace's. No sampling.

    How far eggs of one clutch differ is the pooled variance of their pips, the prior counting as
    four clutches. Order of `finished` does not matter. Source: rules A5, A7.
    """
    if not finished:
        return HouseLearning(rules)
    finished = tuple(finished)
    egg_sd_days = _egg_sd_days(finished, rules)
    usual_c = sum(f.where.mean_c for f in finished) / len(finished)
    places = _places(finished)
    eggs_log_sd = egg_sd_days / _TYPICAL_DAYS
    surprises = Surprises(
        np.array([f.log_development for f in finished]),
        _design(finished, places, usual_c),
        np.array([f.sd**2 + eggs_log_sd**2 / max(f.eggs, 1) for f in finished]),
        rules,
    )
    kinds = [kind for kind, _ in places]
    sds = _untaught_sds(rules)
    known = surprises.condition(np.array([sds[kind] for kind in kinds]))
    for _ in range(_ROUNDS):
        sds = _sds_of_kinds(kinds, known, rules)
        known = surprises.condition(np.array([sds[kind] for kind in kinds]), known)
    return HouseLearning(
        rules, finished, egg_sd_days, usual_c, places, sds, known, known.covariances(), surprises
    )


def _design(
    finished: Sequence[FinishedClutch], places: dict[_Place, int], usual_c: float
) -> FloatArray:
    """What of all that is looked for is in each clutch, shape (n, k)."""
    design = np.zeros((len(finished), len(places)))
    for row, where in enumerate(f.where for f in finished):
        design[row, : len(_NORM)] = _norm_terms(where.mean_c - usual_c)
        design[row, places[_Kind.CABINET, where.cabinet]] = 1.0
        design[row, places[_Kind.DAM, where.dam]] = 1.0
        if where.probe is not None:
            design[row, places[_Kind.PROBE, where.probe]] = where.probe_sd
    return design


def _untaught_sds(rules: ForecastRules) -> dict[_Kind, float]:
    return {
        _Kind.HOUSE: rules.house_sd,
        _Kind.SLOPE: rules.slope_sd,
        _Kind.CURVATURE: rules.curvature_sd,
        _Kind.CABINET: rules.cabinet_sd,
        _Kind.DAM: rules.dam_sd,
        # In sds of what each probe may be off by.
        _Kind.PROBE: 1.0,
    }


def _norm_terms(warmer_c: float) -> tuple[float, float, float]:
    """What the house, the norm's slope and its curvature count for, so far from the usual °C."""
    return 1.0, warmer_c, warmer_c * warmer_c


def _places(finished: Sequence[FinishedClutch]) -> dict[_Place, int]:
    named: list[_Place] = list(_NORM)
    shared = [f.where for f in finished]
    named += [(_Kind.CABINET, key) for key in sorted({w.cabinet for w in shared}, key=repr)]
    named += [(_Kind.DAM, key) for key in sorted({w.dam for w in shared}, key=repr)]
    named += [
        (_Kind.PROBE, key) for key in sorted({w.probe for w in shared if w.probe is not None})
    ]
    return {name: place for place, name in enumerate(named)}


def _egg_sd_days(finished: Sequence[FinishedClutch], rules: ForecastRules) -> float:
    worth = rules.egg_sd_worth_clutches * _USUAL_DIFFERENCES
    squares = worth * rules.egg_sd_days**2
    for clutch in finished:
        if clutch.egg_variance is not None and clutch.eggs > 1:
            squares += (clutch.eggs - 1) * clutch.egg_variance
            worth += clutch.eggs - 1
    return min(max(math.sqrt(squares / worth), rules.egg_sd_low_days), rules.egg_sd_high_days)


def _sds_of_kinds(
    kinds: Sequence[_Kind], known: Conditioned, rules: ForecastRules
) -> dict[_Kind, float]:
    """How much those of one kind differ, from what is known of each: one step of expectation and
    maximisation, the prior sd counting as `rules.effect_sd_worth` of them."""
    squares = known.mean_squares()
    sds = _untaught_sds(rules)
    for kind, untaught in sds.items():
        of_kind = [square for own, square in zip(kinds, squares, strict=True) if own is kind]
        if kind is not _Kind.PROBE and of_kind:
            whole = rules.effect_sd_worth * untaught**2 + sum(of_kind)
            sds[kind] = math.sqrt(whole / (rules.effect_sd_worth + len(of_kind)))
    return sds
