"""How many grams a box has lost, and how many to put back (rule D2)."""

import math
from dataclasses import dataclass
from typing import Final

from sandboa.core.errors import NotPlausible
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR, require_range
from sandboa.core.water.rules import DEFAULT_WATER, ROUND_TO_G, WaterRules

#: g of water a keeper pours into one box at once (assumption).
POURED_RANGE_G: Final = (1.0, 2_000.0)
#: g of a whole box (assumption).
BOX_MASS_RANGE_G: Final = (10.0, 50_000.0)


@dataclass(frozen=True, slots=True)
class TopUp:
    """What to add, g. `left_out_g` is deficit beyond what the medium takes up.

    `split`: too much at once; `today_g` is what to pour now, the rest tomorrow.
    """

    deficit_g: float
    add_g: float
    split: bool
    left_out_g: float
    round_to_g: float = ROUND_TO_G

    @property
    def today_g(self) -> float:
        """What to pour now: all of it, or about half, to what a keeper can pour."""
        step_g = self.round_to_g
        return step_g * math.ceil(self.add_g / 2 / step_g) if self.split else self.add_g


#: Hours after the first half of a split top-up from which the second is due, and days until which
#: it is asked for (rule D2: over two days; assumption: the next morning is the next day).
REST_AFTER_HOURS: Final = 14.0
REST_WITHIN_DAYS: Final = 7.0
#: Times what a pour is rounded to that must have been missing after the first half for a second to
#: be worth opening the box.
_WORTH_POURING: Final = 2.0


def rest_of_split(
    poured: tuple[float, float],
    missing: TopUp | None,
    set_up_water_g: float | None,
    lost_since_g: float,
    now_s: float,
    rules: WaterRules = DEFAULT_WATER,
) -> tuple[float, float] | None:
    """When the rest of a top-up split over two days is due (s), and its grams; None for none.

    Parameters: `poured`, the last pour (s, g); `missing` now, of `set_up_water_g`;
    `lost_since_g`, what the box lost since the pour. It was split when pour
    and what was still missing after it are together too much at once. It is
    due on the next day, and no longer asked for after a week.
    """
    if missing is None or not set_up_water_g:
        return None
    poured_s, poured_g = poured
    worth_g = _WORTH_POURING * rules.round_to_g
    was_missing_g = missing.deficit_g - lost_since_g
    if was_missing_g < worth_g or missing.add_g < worth_g:
        return None
    if poured_g + was_missing_g <= rules.split_above * set_up_water_g:
        return None
    due_s = poured_s + REST_AFTER_HOURS * SECONDS_PER_HOUR
    if not due_s <= now_s <= poured_s + REST_WITHIN_DAYS * SECONDS_PER_DAY:
        return None
    return due_s, missing.add_g


def top_up(
    reference_g: float,
    current_g: float,
    set_up_water_g: float,
    *,
    takes_up_g: float | None = None,
    rules: WaterRules = DEFAULT_WATER,
) -> TopUp:
    """Deficit = reference - current mass; top-up = deficit rounded to what can be poured.

    Parameters
    ----------
    reference_g: box at set-up, less whatever was taken out since.
    current_g: box on the scale today; at most the reference.
    set_up_water_g: water mixed in at set-up, > 0.
    takes_up_g: most water the medium can take; by default the set-up water,
        which it is known to have held.

    Raises NotPlausible when the box weighs more than its reference (something
    was added or weighed differently) or a value is out of range.
    """
    require_range("set-up mass", reference_g, BOX_MASS_RANGE_G, "g")
    require_range("mass today", current_g, BOX_MASS_RANGE_G, "g")
    require_range("set-up water", set_up_water_g, (1.0, BOX_MASS_RANGE_G[1]), "g")
    deficit = reference_g - current_g
    if deficit < 0:
        raise NotPlausible(
            "current_g",
            f"the box is {-deficit:g} g heavier than at set-up: "
            "check the scale, or what was put in since",
        )
    most = set_up_water_g if takes_up_g is None else takes_up_g
    wanted = min(deficit, most)
    add = rules.round_to_g * round(wanted / rules.round_to_g)
    if add > most:
        add -= rules.round_to_g
    return TopUp(
        deficit,
        max(add, 0.0),
        add > rules.split_above * set_up_water_g,
        max(0.0, deficit - most),
        rules.round_to_g,
    )
