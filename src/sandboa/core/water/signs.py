"""What lid, medium and hand say of a box's water: evidence with wide error (rule D5)."""

from dataclasses import dataclass

from sandboa.core.errors import NotPlausible
from sandboa.core.water.kinds import WaterSignKind
from sandboa.core.water.rules import DEFAULT_WATER, WaterRules


@dataclass(frozen=True, slots=True)
class WaterSign:
    """One look at the box: when (s), what, and the share developed then."""

    at_s: float
    kind: WaterSignKind
    value: str
    development: float = 0.0


def speaks_for(sign: WaterSign, rules: WaterRules = DEFAULT_WATER) -> tuple[float, float] | None:
    """(share, sd) a sign speaks for, None when it says nothing; NotPlausible for no sign."""
    said = rules.signs.get((sign.kind, sign.value))
    if said is None:
        raise NotPlausible("value", f'"{sign.value[:40]}" is no sign of the {sign.kind}')
    if sign.kind is WaterSignKind.LID and sign.development >= rules.lid_silent_from:
        return None
    return said
