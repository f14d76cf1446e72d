"""Hatch rates by dam, sire, medium, closing, cabinet and month at once (rule H).

One logistic model: each dimension's groups are random effects around the
house's rate, and so is each clutch, for its eggs share their luck. The mode is
found by Newton's method, the spread of a dimension by expectation-maximisation
from the groups there are and a prior; nothing is drawn at random (Laplace's
approximation; Breslow & Clayton 1993, J. Am. Stat. Assoc. 88:9-25).
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.normal import cdf, quantile
from sandboa.core.rates.compare import Comparison, called_words, is_called
from sandboa.core.rates.rules import DEFAULT_RATES, RateRules
from sandboa.core.units import Z80

#: Sd of the log-odds between groups of a dimension, and between clutches, before the house has its
#: own record; and how many groups, or clutches, that is worth (assumption).
GROUP_SD: Final = 0.5
GROUPS_WORTH: Final = 5.0
CLUTCH_SD: Final = 0.8
CLUTCHES_WORTH: Final = 8.0
#: Sd of the house's log-odds before any egg, around nine in ten (assumption).
_HOUSE: Final = (math.log(9.0), 1.5)
_ROUNDS: Final = 12
_NEWTON: Final = 30
_LONGEST_STEP: Final = 1.0

#: A group of a dimension: ("medium", "perlite").
Group = tuple[str, str]


@dataclass(frozen=True, slots=True)
class Cell:
    """`k` of `n` eggs of a clutch that were in the same `groups`, one of each dimension known."""

    clutch: int
    k: int
    n: int
    groups: tuple[Group, ...]


@dataclass(frozen=True, slots=True)
class LikeForLike:
    """What to expect of a group where all else is as usual in the house, with its interval."""

    rate: float
    low: float
    high: float


class SideBySide:
    """The fitted model. Questions about groups it does not hold raise KeyError."""

    def __init__(self, cells: Sequence[Cell], rules: RateRules = DEFAULT_RATES) -> None:
        """Fit it to all cells with eggs; without any it knows the house's prior only."""
        self.rules = rules
        self._cells = [cell for cell in cells if cell.n]
        groups = sorted({g for cell in self._cells for g in cell.groups})
        self._at: dict[Group, int] = {group: 1 + place for place, group in enumerate(groups)}
        self._blocks = _blocks(groups)
        self._mode, self._covariance = self._fit()

    @property
    def groups(self) -> tuple[Group, ...]:
        """The groups it holds, by dimension and name."""
        return tuple(self._at)

    def like_for_like(self, group: Group) -> LikeForLike:
        """The rate of a group with all else as usual (rule H: shrunk to the house's mean)."""
        pick = self._pick({group: 1.0})
        pick[0] = 1.0
        middle, sd = self._told(pick)
        z = quantile((1.0 + self.rules.level) / 2.0)
        low, high = middle - z * sd, middle + z * sd
        return LikeForLike(_rate(middle), _rate(low), _rate(high))

    def better(self, groups: Iterable[Group]) -> float:
        """Chance 0-1 that these groups together do better than the others of their dimensions.

        Several where they came together: then it is their sum that can be told.
        """
        weights: dict[Group, float] = {}
        for group in groups:
            others = [g for g in self._at if g[0] == group[0] and g != group]
            eggs = {g: self._eggs(g) for g in others}
            whole = sum(eggs.values())
            weights[group] = 1.0
            for other, own in eggs.items():
                weights[other] = weights.get(other, 0.0) - own / whole
        return self._chance(weights)

    def compare(self, first: Group, second: Group) -> Comparison:
        """Two groups of a dimension, all else as usual; by the counts and by the chance."""
        counts = [self._counts(group) for group in (first, second)]
        pick = {first: 1.0, second: -1.0}
        better = self._chance(pick)
        middle, sd = self._told(self._pick(pick))
        # A difference of log-odds as one of rates, where the house stands.
        slope = _rate(float(self._mode[0])) * (1.0 - _rate(float(self._mode[0])))
        low, high = (slope * (middle + z * sd) for z in (-Z80, Z80))
        (k1, n1), (k2, n2) = counts
        words = called_words(
            first[1], second[1], f"{k1} of {n1} against {k2} of {n2}", better, self.rules
        )
        return Comparison(
            words, better, is_called(better, self.rules), max(low, -1.0), min(high, 1.0)
        )

    def counts_words(self, group: Group) -> str:
        """ "5 of 14 against 80 of 95": hatched of a group, and of the others of its dimension."""
        others = [g for g in self._at if g[0] == group[0] and g != group]
        k, n = self._counts(group)
        against = [self._counts(other) for other in others]
        return f"{k} of {n} against {sum(a for a, _ in against)} of {sum(b for _, b in against)}"

    def together(self, group: Group) -> tuple[Group, ...]:
        """Groups of other dimensions that hold the very same clutches: they cannot be told apart.

        One clutch makes no pattern: () for a group of one.
        """
        own = self._clutches(group)
        if len(own) < 2:
            return ()
        return tuple(g for g in self._at if g[0] != group[0] and self._clutches(g) == own)

    def _fit(self) -> tuple[FloatArray, FloatArray]:
        """The likeliest log-odds of house and groups, and their covariance."""
        design = np.zeros((len(self._cells), 1 + len(self._at)))
        design[:, 0] = 1.0
        for row, cell in enumerate(self._cells):
            design[row, [self._at[group] for group in cell.groups]] = 1.0
        names = {n: at for at, n in enumerate(sorted({cell.clutch for cell in self._cells}))}
        data = _Data(
            design,
            np.array([names[cell.clutch] for cell in self._cells], dtype=int),
            len(names),
            np.array([cell.k for cell in self._cells], dtype=float),
            np.array([cell.n for cell in self._cells], dtype=float),
        )
        found = _Found.begin(data)
        variances = dict.fromkeys(self._blocks, GROUP_SD**2)
        of_clutches = CLUTCH_SD**2
        for _ in range(_ROUNDS if self._cells else 0):
            precision = np.full(design.shape[1], 1.0 / _HOUSE[1] ** 2)
            for name, places in self._blocks.items():
                precision[places] = 1.0 / variances[name]
            found = _mode(data, precision, 1.0 / of_clutches, found)
            for name, places in self._blocks.items():
                spread = found.mode[places] ** 2 + np.diag(found.covariance)[places]
                variances[name] = _spread(spread, GROUP_SD, GROUPS_WORTH)
            spread = found.clutches**2 + found.clutch_variance
            of_clutches = _spread(spread, CLUTCH_SD, CLUTCHES_WORTH)
        return found.mode, found.covariance

    def _pick(self, weights: Mapping[Group, float]) -> FloatArray:
        pick: FloatArray = np.zeros(len(self._mode))
        for group, weight in weights.items():
            pick[self._at[group]] += weight
        return pick

    def _told(self, pick: FloatArray) -> tuple[float, float]:
        return float(pick @ self._mode), math.sqrt(max(float(pick @ self._covariance @ pick), 0.0))

    def _chance(self, weights: Mapping[Group, float]) -> float:
        middle, sd = self._told(self._pick(weights))
        return 0.5 if sd == 0.0 else cdf(middle / sd)

    def _counts(self, group: Group) -> tuple[int, int]:
        own = [cell for cell in self._cells if group in cell.groups]
        return sum(cell.k for cell in own), sum(cell.n for cell in own)

    def _eggs(self, group: Group) -> int:
        return self._counts(group)[1]

    def _clutches(self, group: Group) -> frozenset[int]:
        return frozenset(cell.clutch for cell in self._cells if group in cell.groups)


def _blocks(groups: Sequence[Group]) -> dict[str, slice]:
    """By dimension its places among the unknowns; the house stands first."""
    found: dict[str, slice] = {}
    for place, (dimension, _) in enumerate(groups, start=1):
        begun = found.get(dimension, slice(place, place)).start
        found[dimension] = slice(begun, place + 1)
    return found


def _spread(squares: FloatArray, sd: float, worth: float) -> float:
    """A variance from the squares of its effects and a prior worth so many."""
    return (float(squares.sum()) + worth * sd**2) / (len(squares) + worth)


@dataclass(frozen=True)
class _Data:
    """Cells as arrays: `design` (cells, 1 + groups), `clutch` (cells,) of `clutches`, counts."""

    design: FloatArray
    clutch: np.ndarray
    clutches: int
    k: FloatArray
    n: FloatArray

    def by_clutch(self, values: FloatArray) -> FloatArray:
        """Sums over the cells of each clutch."""
        return np.asarray(np.bincount(self.clutch, values, self.clutches), dtype=float)


@dataclass(frozen=True)
class _Found:
    """Log-odds of house and groups with their covariance, and of each clutch with its variance."""

    mode: FloatArray
    covariance: FloatArray
    clutches: FloatArray
    clutch_variance: FloatArray

    @classmethod
    def begin(cls, data: _Data) -> "_Found":
        """Before any egg: the house's prior, groups and clutches as usual."""
        size = data.design.shape[1]
        mode = np.zeros(size)
        mode[0] = _HOUSE[0]
        covariance = np.diag(np.full(size, GROUP_SD**2))
        covariance[0, 0] = _HOUSE[1] ** 2
        clutches = np.zeros(data.clutches)
        return cls(mode, covariance, clutches, np.full_like(clutches, CLUTCH_SD**2))


def _mode(data: _Data, precision: FloatArray, of_clutch: float, start: _Found) -> _Found:
    """The likeliest unknowns by Newton's method, and their covariance there.

    A cell is of one clutch, so that the clutches' own part of the Hessian is
    diagonal and is eliminated: what is left to solve is as large as the groups.
    """
    mode, clutches = start.mode, start.clutches
    prior = np.zeros_like(mode)
    prior[0] = _HOUSE[0]
    for _ in range(_NEWTON):
        rate = _rates(data.design @ mode + clutches[data.clutch])
        weight = data.n * rate * (1.0 - rate)
        own = data.by_clutch(weight) + of_clutch
        weighted = data.design * weight[:, None]
        across = np.stack([data.by_clutch(column) for column in weighted.T], axis=1)
        left = data.design.T @ weighted + np.diag(precision) - across.T @ (across / own[:, None])
        pull = data.design.T @ (data.k - data.n * rate) - precision * (mode - prior)
        pull_clutch = data.by_clutch(data.k - data.n * rate) - of_clutch * clutches
        step = np.linalg.solve(left, pull - across.T @ (pull_clutch / own))
        step_clutch = (pull_clutch - across @ step) / own
        longest = max(float(np.abs(step).max()), float(np.abs(step_clutch).max(initial=0.0)))
        # Far from the mode a whole step may overshoot; its direction is right.
        part = min(1.0, _LONGEST_STEP / max(longest, 1e-12))
        mode, clutches = mode + part * step, clutches + part * step_clutch
        if longest < 1e-8:
            break
    covariance = np.asarray(np.linalg.inv(left), dtype=float)
    carried = across / own[:, None]
    variance = 1.0 / own + np.einsum("ij,jk,ik->i", carried, covariance, carried)
    return _Found(mode, covariance, clutches, variance)


def _rates(log_odds: FloatArray) -> FloatArray:
    return np.asarray(1.0 / (1.0 + np.exp(-np.clip(log_odds, -30.0, 30.0))))


def _rate(log_odds: float) -> float:
    return 1.0 / (1.0 + math.exp(-min(max(log_odds, -30.0), 30.0)))
