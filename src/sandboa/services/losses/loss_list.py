"""The losses of a season, clutch by clutch."""

from dataclasses import dataclass
from datetime import UTC, datetime

from sandboa.core.clutch_count import ClutchCount
from sandboa.records.clutches import Clutch
from sandboa.services.clutches.clutch_view import clutch_now
from sandboa.services.clutches.egg_judgements import EggView
from sandboa.services.losses.why import ClutchLosses, losses_of
from sandboa.services.moment.lessons import lessons
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True)
class LossLine:
    """A clutch in the list; `views` are its eggs as they are drawn, by number."""

    losses: ClutchLosses
    dam: str
    sire: str | None
    count: str
    closed: bool
    views: dict[int, EggView]


def year_of(clutch: Clutch) -> int:
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


def losses_of_year(snapshot: Snapshot, year: int, as_of_s: float) -> list[LossLine]:
    """Clutches laid in a year of which eggs were lost, or that are closed; the latest first."""
    known = lessons(snapshot)
    lines = []
    for clutch in snapshot.clutches:
        if year_of(clutch) != year or clutch.laid_s >= as_of_s:
            continue
        losses = losses_of(snapshot, clutch, as_of_s)
        closed = snapshot.clutch(clutch.entity_id).finished is not None
        if not losses.lost and not closed:
            continue
        now = clutch_now(snapshot, clutch, as_of_s, known)
        eggs = snapshot.eggs.get(clutch.entity_id, [])
        lines.append(
            LossLine(
                losses,
                now.dam,
                now.sire,
                str(ClutchCount(len(eggs), sum(egg.slug for egg in eggs))),
                closed,
                {view.number: view for view in now.eggs},
            )
        )
    return sorted(lines, key=lambda line: -line.losses.clutch.laid_s)
