"""The losses of a season, clutch by clutch."""

from dataclasses import dataclass
from datetime import UTC, datetime

from sandboa.core.clutch_count import ClutchCount
from sandboa.records.clutches import Clutch, PastClutch
from sandboa.services.clutches.clutch_view import clutch_now
from sandboa.services.clutches.egg_judgements import EggView
from sandboa.services.losses.ahead import losses_by_now
from sandboa.services.losses.outcomes import GoesOn, without_end
from sandboa.services.losses.why import ClutchLosses
from sandboa.services.moment.lessons import lessons
from sandboa.services.snapshot.kept import Same
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True)
class LossLine:
    """A clutch in the list; `views` are its lost eggs as they are drawn, by number."""

    losses: ClutchLosses
    dam: str
    sire: str | None
    count: str
    closed: bool
    views: dict[int, EggView]


def year_of(clutch: Clutch | PastClutch) -> int:
    """The year a clutch belongs to: that in which it was laid (UTC)."""
    return datetime.fromtimestamp(clutch.laid_s, UTC).year


def loss_years(snapshot: Snapshot) -> list[int]:
    """Years with a clutch of which an egg has a fate, or that is closed; the latest first."""
    fated = {
        clutch.entity_id
        for clutch in snapshot.clutches
        if snapshot.clutch(clutch.entity_id).finished is not None
        or any(
            snapshot.egg(egg.entity_id).fate is not None
            for egg in snapshot.eggs.get(clutch.entity_id, [])
        )
    }
    return sorted({year_of(c) for c in snapshot.clutches if c.entity_id in fated}, reverse=True)


@dataclass(frozen=True)
class LossYear:
    """Clutches of a year of which eggs were lost, or that are closed, the latest first; of the
    `worked_out` of `clutches` laid in it."""

    lines: tuple[LossLine, ...]
    worked_out: int
    clutches: int


def clutches_of_year(snapshot: Snapshot, year: int, as_of_s: float) -> list[Clutch]:
    """Clutches laid in a year by then, in order of laying."""
    return [c for c in snapshot.clutches if year_of(c) == year and c.laid_s < as_of_s]


def go_on_with_year(snapshot: Snapshot, year: int, as_of_s: float, goes_on: GoesOn) -> bool:
    """Work on at the losses of a year; returns whether all of it is at hand."""
    found = losses_of_year(snapshot, year, as_of_s, goes_on)
    return found.worked_out == found.clutches


def losses_of_year(
    snapshot: Snapshot, year: int, as_of_s: float, goes_on: GoesOn = without_end
) -> LossYear:
    """The losses of a year, as far as they are worked out while it may go on."""
    clutches = clutches_of_year(snapshot, year, as_of_s)
    told = list(losses_by_now(snapshot, clutches, as_of_s, goes_on))
    lines = (_line(snapshot, losses, as_of_s) for losses in told)
    return LossYear(
        tuple(line for line in lines if line.losses.lost or line.closed), len(told), len(clutches)
    )


def _line(snapshot: Snapshot, losses: ClutchLosses, as_of_s: float) -> LossLine:
    """Held as long as the losses: its eggs are drawn as they were then."""
    clutch = losses.clutch

    def read() -> LossLine:
        now = clutch_now(snapshot, clutch, as_of_s, lessons(snapshot))
        eggs = snapshot.eggs.get(clutch.entity_id, [])
        lost = {one.end.egg.number for one in losses.lost}
        return LossLine(
            losses,
            now.dam,
            now.sire,
            str(ClutchCount(len(eggs), sum(egg.slug for egg in eggs))),
            snapshot.clutch(clutch.entity_id).finished is not None,
            {view.number: view for view in now.eggs if view.number in lost},
        )

    return snapshot.kept.held(("loss line", clutch.entity_id), Same(losses), read)
