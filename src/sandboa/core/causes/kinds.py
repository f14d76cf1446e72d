"""The causes of loss: what would settle each, and what to change (rule G)."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.causes.findings import FindingKind


class Cause(StrEnum):
    """In the order of rule G; unknown is always one of them."""

    INFERTILE = "infertile"
    TOO_DRY = "too dry"
    TOO_WET = "too wet"
    TOO_HOT = "too hot"
    TOO_COLD = "too cold, too long"
    UNSTABLE = "unstable temperature"
    UNDERNEATH = "embryo underneath or rolled"
    KNOCKED = "knock, drop or torn shell"
    INFECTION = "infection first"
    STALE_AIR = "stale air"
    OPENED_EARLY = "opened too early"
    COULD_NOT_GET_OUT = "could not get out"
    CORD = "cord around the body"
    MALFORMED = "malformed"
    LETHAL_GENES = "lethal gene combination"
    SHELL = "shell defect"
    DAM = "dam's condition"
    POISONED_AIR = "poisoned air"
    PESTS = "pests"
    EQUIPMENT = "equipment failure"
    UNKNOWN = "unknown"


@dataclass(frozen=True, slots=True)
class Remedy:
    """The check that would settle a cause, and what to change about it.

    `looked_at`: what an opening has to tell of for the check to be made; () where none can.
    """

    settle_by: str
    change: str
    looked_at: tuple[FindingKind, ...] = ()


#: rule G.
REMEDIES: Final = {
    Cause.INFERTILE: Remedy(
        "Open it: yolk and nothing else.",
        "More locks about three to four weeks apart; three to four dams a sire at most; look at "
        "the age and weight of the dam, and at clutches very early or late in the season.",
        (FindingKind.STAGE,),
    ),
    Cause.TOO_DRY: Remedy(
        "Open it: yolk thick or hard.",
        "Weigh the boxes, close them tighter, top up in time.",
        (FindingKind.YOLK,),
    ),
    Cause.TOO_WET: Remedy(
        "Look at its underside: soft, mould below.",
        "Drain the medium, put a grid under the eggs, wipe a lid that rains.",
        (FindingKind.SHELL, FindingKind.OUTSIDE),
    ),
    Cause.TOO_HOT: Remedy(
        "Look for defects in its siblings.",
        "A cut-out of its own against too much heat, and a lower set point.",
    ),
    Cause.TOO_COLD: Remedy(
        "Open it: immature for its days.",
        "Move the air, and give the cabinet more thermal mass.",
        (FindingKind.STAGE,),
    ),
    Cause.UNSTABLE: Remedy(
        "Hold the time of death against the swings.",
        "A steadier cabinet, and a probe where the eggs are.",
    ),
    Cause.UNDERNEATH: Remedy(
        "Open it from the top: where does the embryo lie?",
        "Mark the tops before anything is moved, and candle on lay day.",
        (FindingKind.POSITION,),
    ),
    Cause.KNOCKED: Remedy(
        "Open it: blood or a tear at that place.",
        "Support eggs that sag; separate a clump only while it is fresh.",
        (FindingKind.SHELL,),
    ),
    Cause.INFECTION: Remedy(
        "A culture by a vet.",
        "Clean hands, new medium, more space between eggs.",
    ),
    Cause.STALE_AIR: Remedy(
        "Open it: fully formed, no defect; all losses late.",
        "Crack the film from 70 % developed on.",
        (FindingKind.STAGE, FindingKind.FORM),
    ),
    Cause.OPENED_EARLY: Remedy(
        "Open it fully: yolk not absorbed, a vessel cut.",
        "Wait for the first pip.",
        (FindingKind.YOLK, FindingKind.VESSELS),
    ),
    Cause.COULD_NOT_GET_OUT: Remedy(
        "Fluid in its mouth, and how far the slit stood open.",
        "Widen a slit that has closed, 24 h after the pip.",
        (FindingKind.FLUID,),
    ),
    Cause.CORD: Remedy(
        "As seen on opening.",
        "Nothing is known to prevent it; note the pairing.",
        (FindingKind.CORD,),
    ),
    Cause.MALFORMED: Remedy(
        "As seen on opening.",
        "Look at the heat it got; think before repeating the pairing.",
        (FindingKind.FORM,),
    ),
    Cause.LETHAL_GENES: Remedy(
        "Numbers over several clutches of this pair.",
        "Another pairing.",
    ),
    Cause.SHELL: Remedy(
        "Look at its shell on opening.",
        "The dam's food and condition before the next season.",
        (FindingKind.SHELL,),
    ),
    Cause.DAM: Remedy(
        "Her next years.",
        "Weigh her before pairing. Whether to rest her, her record over the seasons tells.",
    ),
    Cause.POISONED_AIR: Remedy(
        "Eggs of the same days in another cabinet: are they fine?",
        "Stop using this cabinet.",
    ),
    Cause.PESTS: Remedy(
        "Look for larvae in it.",
        "Finer holes, or film.",
        (FindingKind.LARVAE,),
    ),
    Cause.EQUIPMENT: Remedy(
        "The readings of those days.",
        "An alarm, and water bottles as ballast.",
    ),
    Cause.UNKNOWN: Remedy("Open the next one that fails, and weigh and candle more often.", ""),
}
