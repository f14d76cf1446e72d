"""The mass of a box over its time: what it should weigh, and what is missing (rule D2)."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.errors import NotPlausible
from sandboa.core.units import require_range
from sandboa.core.water.rules import DEFAULT_WATER, WaterRules
from sandboa.core.water.top_up import BOX_MASS_RANGE_G

#: g by which a kitchen scale errs (1 sd; rule D3).
SCALE_SD_G: Final = 2.0
#: g a box may seem heavier than it can be before the entry is doubted: 3 sd of two weighings.
HEAVIER_G: Final = 8.0


@dataclass(frozen=True, slots=True)
class MassChange:
    """Something put in (+) or taken out (-) that is not water: an egg, a grid, film; g.

    `sd_g` is how far off it may be: nought where it was weighed.
    """

    at_s: float
    delta_g: float
    sd_g: float = 0.0


def unweighed_egg(
    at_s: float,
    weighed_g: Sequence[float],
    *,
    into: bool = False,
    rules: WaterRules = DEFAULT_WATER,
) -> MassChange:
    """An egg taken out, or put `into` the box, without its mass: the mean of those beside it, else
    what is usual.

    `weighed_g` are the masses (g) of the eggs of its box that were weighed.
    """
    mean_g = sum(weighed_g) / len(weighed_g) if weighed_g else rules.unweighed_egg_g
    return MassChange(at_s, mean_g if into else -mean_g, rules.unweighed_egg_sd_g)


@dataclass(frozen=True, slots=True)
class Pour:
    """Water added, g."""

    at_s: float
    water_g: float


@dataclass(frozen=True, slots=True)
class Weighing:
    """The whole box on the scale, g."""

    at_s: float
    mass_g: float


@dataclass(frozen=True)
class MassLedger:
    """A box from its set-up on.

    `set_up_g` is box, medium, water and eggs together, None when nobody
    weighed it; `water_g` the water mixed in, None when nobody measured it.
    The order of the tuples plays no part. At one moment the box is weighed
    as it was found, before anything is poured or taken out.
    """

    set_up_s: float
    set_up_g: float | None
    water_g: float | None
    changes: tuple[MassChange, ...] = ()
    pours: tuple[Pour, ...] = ()
    weighings: tuple[Weighing, ...] = ()

    def reference_g(self, at_s: float) -> float | None:
        """What the box, as found at `at_s`, would weigh had it lost no water; None if unknown."""
        if self.set_up_g is None:
            return None
        return self.set_up_g + sum(c.delta_g for c in self.changes if c.at_s < at_s)

    def unsure_g(self, at_s: float) -> float:
        """By how much (1 sd, g) the reference may be off, for what went out unweighed by then."""
        return math.sqrt(sum(c.sd_g**2 for c in self.changes if c.at_s < at_s))

    def deficit_g(self, weighing: Weighing) -> float | None:
        """Reference - mass, g: the water that is missing. Below 0 within the scale's error."""
        reference = self.reference_g(weighing.at_s)
        return None if reference is None else reference - weighing.mass_g


def heaviest_g(ledger: MassLedger, at_s: float) -> float | None:
    """More than a box can weigh at `at_s`: as set up, all that was poured, and the scale's error.

    An egg taken out unweighed may have weighed less than it counts. None where
    nobody weighed the box at set-up.
    """
    reference = ledger.reference_g(at_s)
    if reference is None:
        return None
    poured_g = sum(p.water_g for p in ledger.pours if p.at_s < at_s)
    return reference + poured_g + HEAVIER_G + 2.0 * ledger.unsure_g(at_s)


def require_plausible_weighing(ledger: MassLedger, weighing: Weighing) -> None:
    """Raise NotPlausible for a weighing that cannot be.

    Heavier than at set-up and all that was put in since, or heavier than it was
    at its last weighing by more than was put in since: a box loses water, it
    gains none of itself. 8 g are allowed for the scale, and what an egg taken
    out unweighed may have weighed less than it counts.
    """
    require_range("the box", weighing.mass_g, BOX_MASS_RANGE_G, "g", field="mass_g")
    reference = ledger.reference_g(weighing.at_s)
    allowed_g = HEAVIER_G + 2.0 * ledger.unsure_g(weighing.at_s)
    most = heaviest_g(ledger, weighing.at_s)
    if reference is not None and most is not None and weighing.mass_g > most:
        raise NotPlausible(
            "mass_g",
            f"{weighing.mass_g:g} g is more than the {reference:g} g the box had at set-up: "
            "check the scale, or record what was put in since",
        )
    last = max(
        (w for w in ledger.weighings if w.at_s <= weighing.at_s), key=lambda w: w.at_s, default=None
    )
    if last is None:
        return
    put_in = sum(p.water_g for p in ledger.pours if last.at_s <= p.at_s <= weighing.at_s)
    put_in += sum(c.delta_g for c in ledger.changes if last.at_s <= c.at_s <= weighing.at_s)
    gained = weighing.mass_g - last.mass_g - put_in
    if gained > allowed_g:
        raise NotPlausible(
            "mass_g",
            f"the box gained {gained:g} g since its last weighing ({last.mass_g:g} g) "
            "beyond what was put in: check the scale, or record the water that was added",
        )
