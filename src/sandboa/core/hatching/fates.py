"""What became of an egg (rule P8). Only the keeper declares one."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.errors import NotPlausible


class Fate(StrEnum):
    HATCHED = "hatched alive"
    HATCHED_DIED = "hatched and died"
    PIPPED_DIED = "pipped and died"
    DEAD_IN_EGG = "dead in egg"
    SLUG = "slug"
    REMOVED = "removed"
    UNKNOWN = "unknown"

    @property
    def has_pipped(self) -> bool:
        """Whether an egg with this fate pipped, seen or not."""
        return self in (Fate.HATCHED, Fate.HATCHED_DIED, Fate.PIPPED_DIED)

    @property
    def has_hatched(self) -> bool:
        """Whether a hatchling came out of an egg with this fate, whatever became of it."""
        return self in (Fate.HATCHED, Fate.HATCHED_DIED)

    @property
    def is_loss(self) -> bool:
        """Whether incubation lost it. A slug is none: nothing was there to lose."""
        return self in (
            Fate.HATCHED_DIED,
            Fate.PIPPED_DIED,
            Fate.DEAD_IN_EGG,
            Fate.REMOVED,
            Fate.UNKNOWN,
        )


class DeathStage(StrEnum):
    """How far along an egg was that died inside."""

    EARLY = "early"
    MIDDLE = "mid"
    LATE = "late"
    FULL_TERM = "full term"


#: Share developed from which a death counts as that stage (assumption: thirds, and the last tenth).
STAGE_FROM: Final = {
    DeathStage.EARLY: 0.0,
    DeathStage.MIDDLE: 1 / 3,
    DeathStage.LATE: 2 / 3,
    DeathStage.FULL_TERM: 0.9,
}


def stage_of(share: float) -> DeathStage:
    """The stage of a death at `share` developed (>= 0)."""
    return [stage for stage, from_share in STAGE_FROM.items() if share >= from_share][-1]


def span_of(stage: DeathStage) -> tuple[float, float]:
    """(from, until) share developed of a stage; full term ends at the pip and a little after."""
    stages = list(STAGE_FROM)
    place = stages.index(stage)
    until = STAGE_FROM[stages[place + 1]] if place + 1 < len(stages) else 1.1
    return STAGE_FROM[stage], until


@dataclass(frozen=True, slots=True)
class EggRecord:
    """What is recorded of an egg's end; moments in s, None where nothing was."""

    number: int
    slug: bool
    pipped_s: float | None = None
    emerged_s: float | None = None
    removed_s: float | None = None


def following_fate(egg: EggRecord) -> Fate | None:
    """The fate that follows from the record, None where the keeper has to say."""
    if egg.slug:
        return Fate.SLUG
    if egg.emerged_s is not None:
        return Fate.HATCHED
    return Fate.REMOVED if egg.removed_s is not None else None


def likely_fate(egg: EggRecord) -> Fate:
    """What to offer for an egg whose clutch is done: a proposal to agree to, never a verdict."""
    told = following_fate(egg)
    if told is not None:
        return told
    return Fate.PIPPED_DIED if egg.pipped_s is not None else Fate.DEAD_IN_EGG


def fitting_fates(egg: EggRecord) -> tuple[Fate, ...]:
    """The fates the record does not rule out, in order."""

    def fits(fate: Fate) -> bool:
        try:
            require_fate_fits(egg, fate, None)
        except NotPlausible:
            return False
        return True

    return tuple(fate for fate in Fate if fits(fate))


def require_fate_fits(egg: EggRecord, fate: Fate, stage: DeathStage | None) -> None:
    """Raise NotPlausible for a fate that the record rules out."""
    which = f"egg {egg.number}"
    if stage is not None and fate is not Fate.DEAD_IN_EGG:
        raise NotPlausible("stage", f"{which}: a stage goes with dead in egg only")
    if egg.slug and fate not in (Fate.SLUG, Fate.REMOVED):
        raise NotPlausible("fate", f"{which} is a slug: it cannot be {fate}")
    if fate is Fate.SLUG and (egg.pipped_s is not None or egg.emerged_s is not None):
        raise NotPlausible("fate", f"{which} has pipped: it was no slug")
    if fate is Fate.DEAD_IN_EGG and egg.pipped_s is not None:
        raise NotPlausible("fate", f"{which} has pipped: say pipped and died, or undo the pip")
    if egg.emerged_s is not None and not fate.value.startswith("hatched"):
        raise NotPlausible("fate", f"{which} has come out: say hatched alive, or hatched and died")
