"""What is true inside an egg, as far as a torch can show it."""

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from sandboa.devices.simulation.fates import EggFate

#: Shares of a term after death in which vessels fade by half, and blood gathers in a ring at most.
_FADES_BY_HALF: Final = 0.035
_RING_WITHIN: Final = 0.16
#: Share of embryos dying within the first third whose blood gathers in a ring, and that third.
_RINGS: Final = 0.55
_EARLY: Final = 0.34
#: Share developed from which a body throws a shadow, and at which it fills what it ever fills.
_BODY_FROM: Final = 0.30
_BODY_FULL: Final = 0.94
#: Share developed from which a shell thickened by salts hides the vessels, by degrees.
_HIDES_FROM: Final = 0.62
_MOVES_FROM: Final = 0.35
#: Fullness of vessels that an eye calls strong, and that it sees at all; share developed from
#: which a body that fills the egg leaves too little to say.
_STRONG: Final = 0.62
_FAINT: Final = 0.14
_DARK_FROM: Final = 0.8
#: How much of an egg a body darkens to be seen, how far contents curdle to hide it, and how low a
#: disc lies (half heights) to be called at the side.
_BODY_SEEN: Final = 0.3
_CURDLED: Final = 0.5
_ASIDE_BELOW: Final = 0.15


@dataclass(frozen=True, slots=True)
class TorchState:
    """The inside of an egg.

    Attributes
    ----------
    seed: which egg it is: the course of its vessels and the grain of its shell, >= 0.
    share: share developed of the animal, 0-1; of a dead one, when it died.
    vessels: how full of blood they are, 0 (none) to 1 (strong).
    reach: how far from the disc they run, 0 (nowhere) to 1 (all round).
    disc: where the disc lies, (x, y) from the middle, -1 to 1, y upwards.
    body: how much of the egg the animal darkens, 0-1.
    clouds: how far what is inside has curdled, 0-1.
    ring: how much blood has gathered in a ring around the disc, 0-1.
    blank: whether there never was an animal: yellow throughout.
    moves: whether the animal moves while the torch is held.
    sunk: how far the side has fallen in, 0-1.
    """

    seed: int
    share: float
    vessels: float
    reach: float
    disc: tuple[float, float] = (0.0, 0.45)
    body: float = 0.0
    clouds: float = 0.0
    ring: float = 0.0
    blank: bool = False
    moves: bool = False
    sunk: float = 0.0


def readable(state: TorchState) -> str:
    """What a trained eye reads off the picture of that state: how its vessels look."""
    if state.ring > 0.5:
        return "broken"
    if state.vessels >= _STRONG:
        return "strong"
    if state.share >= _DARK_FROM and state.clouds < _CURDLED:
        return "unsure"
    return "weak" if state.vessels >= _FAINT else "none"


def shows_body(state: TorchState) -> bool:
    """Whether a dark body is seen below, and nothing curdled above it."""
    return state.body > _BODY_SEEN and state.clouds < _CURDLED


def lies_aside(state: TorchState) -> bool:
    """Whether the disc is seen at the side of the egg, or lower."""
    return not state.blank and state.disc[1] < _ASIDE_BELOW


def state_of(
    fate: EggFate, share: float, seed: int, *, disc: tuple[float, float] = (0.0, 0.45)
) -> TorchState:
    """The inside of an egg of that fate, `share` of its time after it was laid (0-1.2).

    Whether a living one moves while it is looked at is drawn by the seed.
    """
    random = np.random.default_rng([seed, 17])
    stirs, gathers = random.random() < 0.5, random.random() < _RINGS
    grown = share if fate.died is None else min(share, fate.died)
    inside = inside_of(seed, grown, share - grown, stirs=stirs, disc=disc)
    if fate.weak_from_start and share < 0.3:
        inside = replace(inside, vessels=0.4 * inside.vessels)
    since = share - grown
    early = fate.died is not None and fate.died < _EARLY
    if early and gathers and since < _RING_WITHIN:
        inside = replace(inside, ring=float(np.clip(since / 0.02, 0.0, 1.0)))
    return replace(inside, sunk=0.25 * sum(share >= from_ for from_ in fate.dents))


def inside_of(
    seed: int,
    grown: float,
    since: float,
    *,
    stirs: bool = False,
    disc: tuple[float, float] = (0.0, 0.45),
) -> TorchState:
    """The inside of an egg that grew to a share (0-1.2) and died `since` (share of a term) ago.

    `since` is 0 for one that lives; `stirs`: whether it would move now, old enough for that.
    """
    hidden = np.clip((grown - _HIDES_FROM) / (1.0 - _HIDES_FROM), 0.0, 1.0) * 0.75
    return TorchState(
        seed=seed,
        share=grown,
        vessels=float(0.5 ** (since / _FADES_BY_HALF) * (1.0 - hidden)),
        reach=float(np.clip(0.18 + 1.9 * grown, 0.0, 1.0)),
        disc=disc,
        body=float(np.clip((grown - _BODY_FROM) / (_BODY_FULL - _BODY_FROM), 0.0, 1.0)) * 0.85,
        clouds=float(np.clip(since / 0.12, 0.0, 1.0)),
        moves=since == 0.0 and grown > _MOVES_FROM and stirs,
    )
