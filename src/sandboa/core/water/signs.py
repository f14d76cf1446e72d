"""What lid, medium and hand say of a box's water: evidence with wide error (rule D5)."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.errors import NotPlausible


class WaterSignKind(StrEnum):
    MEDIUM = "medium"
    LID = "lid"
    FEEL = "weight"


#: (kind, value): share of the set-up water it speaks for, and its sd (assumption; rule D5).
WATER_SIGNS: Final = {
    (WaterSignKind.MEDIUM, "drips"): (1.00, 0.30),
    (WaterSignKind.MEDIUM, "clumps"): (0.70, 0.25),
    (WaterSignKind.MEDIUM, "barely damp"): (0.35, 0.20),
    (WaterSignKind.MEDIUM, "dry"): (0.10, 0.18),
    (WaterSignKind.LID, "raining"): (0.90, 0.45),
    (WaterSignKind.LID, "half"): (0.85, 0.40),
    (WaterSignKind.LID, "edges"): (0.70, 0.40),
    (WaterSignKind.LID, "none"): (0.35, 0.40),
    (WaterSignKind.FEEL, "as ever"): (0.75, 0.35),
    (WaterSignKind.FEEL, "light"): (0.35, 0.30),
}
#: Share developed from which a wet lid says nothing of the medium: eggs give off water
#: before pipping (rule D5).
LID_SILENT_FROM: Final = 0.85


@dataclass(frozen=True, slots=True)
class WaterSign:
    """One look at the box: when (s), what, and the share developed then."""

    at_s: float
    kind: WaterSignKind
    value: str
    development: float = 0.0


def speaks_for(sign: WaterSign) -> tuple[float, float] | None:
    """(share, sd) a sign speaks for, None when it says nothing; NotPlausible for no sign."""
    said = WATER_SIGNS.get((sign.kind, sign.value))
    if said is None:
        raise NotPlausible("value", f'"{sign.value[:40]}" is no sign of the {sign.kind}')
    if sign.kind is WaterSignKind.LID and sign.development >= LID_SILENT_FROM:
        return None
    return said
