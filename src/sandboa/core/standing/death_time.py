"""When an egg may have died: losses along its development, and what each look says of that (C).

To change when eggs are lost, change `LOSSES`; how soon a dead egg shows it, `SHOWS_AFTER`.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from typing import Final

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.standing.signs import SignKind

#: Of eggs that live on lay day, the share that dies before it pips, and of those that pip the
#: share that never comes out (assumption, until the house has its own).
DIES: Final = 0.12
DIES_IN_SLIT: Final = 0.03
#: When they die: share of these deaths, and the middle and sd of the share developed then. Early,
#: around half, at full term (rule C; numbers: assumption).
LOSSES: Final = ((0.40, 0.15, 0.12), (0.30, 0.50, 0.15), (0.30, 0.95, 0.06))
#: Share developed after its death by which an egg shows most of what a dead one shows: at once
#: what moves, within days its vessels, later its shell and its smell (assumption).
SHOWS_AFTER: Final = {
    SignKind.MOVEMENT: 0.005,
    SignKind.TOUCH: 0.005,
    SignKind.SIBLINGS: 0.005,
    SignKind.VESSELS: 0.04,
    SignKind.BODY: 0.04,
    SignKind.FEEL: 0.06,
    SignKind.DENTS: 0.08,
    SignKind.SHELL: 0.10,
    SignKind.COLOUR: 0.08,
    SignKind.MOULD: 0.10,
    SignKind.SMELL: 0.10,
    SignKind.WET: 0.10,
}
#: Times of death that are told apart, shares developed.
_STEP: Final = 0.01
_LAST: Final = 1.15


@dataclass(frozen=True, slots=True)
class Look:
    """One sign at the share developed when it was seen; `push` is its log likelihood ratio, alive
    to long dead."""

    kind: SignKind
    share: float
    push: float


@dataclass(frozen=True, slots=True)
class Chances:
    """Of one egg: that it is `alive` now, `will_pip` and `will_hatch`, each 0-1."""

    alive: float
    will_pip: float
    will_hatch: float


@cache
def _times() -> FloatArray:
    """Times of death, shares developed, shape (t,)."""
    return np.arange(_STEP / 2.0, _LAST, _STEP)


@cache
def _losses() -> FloatArray:
    """How the deaths of eggs are spread over `_times`, shape (t,); sum 1."""
    times = _times()
    density = np.zeros(len(times))
    for share, middle, sd in LOSSES:
        hump = np.exp(-0.5 * ((times - middle) / sd) ** 2)
        density += share * hump / hump.sum()
    return np.asarray(density)


def alive_log_odds(
    start: float, looks: Sequence[Look], share: float, dies: float = DIES
) -> FloatArray:
    """Log-odds of being alive at `share`: with none of `looks`, with the first, with the first two.

    Parameters: `start`, the log-odds on lay day; `looks` in any order; `dies`, the share of living
    eggs that die before they pip. Returns shape (len(looks) + 1,).

    A dead egg died at some time, or was never alive. A look before that time says nothing of it;
    one after it counts by how long the egg had been dead then. Source: rule C.
    """
    log_alive, log_dead = _before_looks(start, share, dies)
    pushes = np.array([[look.push] for look in looks]).reshape(-1, 1)
    said = np.zeros((len(looks) + 1, len(log_dead)))
    np.cumsum(pushes * _shown(looks, len(log_dead) - 1), axis=0, out=said[1:])
    return np.asarray(log_alive - np.logaddexp.reduce(log_dead - said, axis=1))


def dead_at_each_time(
    start: float, looks: Sequence[Look], share: float, dies: float = DIES
) -> tuple[float, FloatArray, FloatArray]:
    """The last of `alive_log_odds`, and what it rests on: for a dead egg the chance of each time
    of death, the first being before it lived, shape (t,); and how much of what each look sees it
    would have shown by then, shape (len(looks), t)."""
    log_alive, log_dead = _before_looks(start, share, dies)
    shown = _shown(looks, len(log_dead) - 1)
    log_dead = log_dead - np.array([look.push for look in looks]) @ shown if looks else log_dead
    whole = float(np.logaddexp.reduce(log_dead))
    return log_alive - whole, np.asarray(np.exp(log_dead - whole)), shown


def _before_looks(start: float, share: float, dies: float) -> tuple[float, FloatArray]:
    """Log chance to be alive at `share`, and to have died at each time until then, (t + 1,)."""
    times, spread = _times(), _losses()
    by_now = int(np.searchsorted(times, share, side="right"))
    lost = dies * spread[:by_now]
    lived = float(-np.logaddexp(0.0, -start))
    log_dead = np.empty(by_now + 1)
    log_dead[0] = -np.logaddexp(0.0, start)
    log_dead[1:] = lived + np.log(np.maximum(lost, 1e-300))
    return lived + math.log(max(1.0 - float(lost.sum()), 1e-12)), log_dead


def _shown(looks: Sequence[Look], by_now: int) -> FloatArray:
    """How much of what each look sees an egg that died at each time would have shown by then, the
    first of them being before it lived; 0-1, shape (len(looks), by_now + 1)."""
    if not looks:
        return np.zeros((0, by_now + 1))
    seen = np.array([[look.share, SHOWS_AFTER[look.kind]] for look in looks])
    died_at = np.concatenate([[-1.0], _times()[:by_now]])
    dead_for = np.maximum(seen[:, :1] - died_at, 0.0)
    return np.asarray(-np.expm1(-dead_for / seen[:, 1:2]))


def ahead(alive: float, share: float, risk: float = 1.0, dies: float = DIES) -> Chances:
    """What is still to come of an egg that is `alive` with that chance at a share developed.

    `risk` multiplies the losses that are ahead of it: of an egg with fur on it they are more than
    of others. Source: rule C.
    """
    by_now = int(np.searchsorted(_times(), share, side="right"))
    later = dies * float(_losses()[by_now:].sum())
    surviving = (1.0 - dies) / (1.0 - dies + later)
    will_pip = alive * surviving**risk
    return Chances(alive, will_pip, will_pip * (1.0 - DIES_IN_SLIT))
