"""Closed clutches as counts: hatched of fertile, slugs of laid, and the groups each belongs to."""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from enum import StrEnum

from sandboa.core.hatching import Fate
from sandboa.core.rates import Tally
from sandboa.services.clutches.methods import method_of
from sandboa.services.losses.loss_list import year_of
from sandboa.services.losses.outcomes import ClutchOutcomes
from sandboa.services.losses.why import all_outcomes
from sandboa.services.snapshot.snapshot import Snapshot


class Dimension(StrEnum):
    """By what hatch rates are grouped (rule H)."""

    DAM = "dam"
    SIRE = "sire"
    MEDIUM = "medium"
    CLOSING = "closing"
    CABINET = "cabinet"
    SHELF = "shelf"
    METHOD = "method"
    MONTH = "month"


@dataclass(frozen=True)
class CountedClutch:
    """A closed clutch; `groups` names its group on every dimension that is known."""

    outcomes: ClutchOutcomes
    hatched: Tally
    slugs: Tally
    groups: dict[Dimension, str]

    @property
    def year(self) -> int:
        return year_of(self.outcomes.clutch)


def counted_clutches(
    snapshot: Snapshot, as_of_s: float, year: int | None = None
) -> list[CountedClutch]:
    """Closed clutches, of a year of laying or of all years, in order of laying."""
    counted = [
        _counted(snapshot, outcomes)
        for outcomes in all_outcomes(snapshot, as_of_s)
        if snapshot.clutch(outcomes.clutch.entity_id).finished is not None
    ]
    told = [c for c in counted if year is None or c.year == year]
    return sorted(told, key=lambda c: c.outcomes.clutch.laid_s)


def grouped(clutches: Sequence[CountedClutch], dimension: Dimension) -> dict[str, list[Tally]]:
    """Hatched of fertile by group; clutches whose group is not known are left out."""
    groups: dict[str, list[Tally]] = defaultdict(list)
    for clutch in clutches:
        name = clutch.groups.get(dimension)
        if name is not None and clutch.hatched.n:
            groups[name].append(clutch.hatched)
    return dict(groups)


def _counted(snapshot: Snapshot, outcomes: ClutchOutcomes) -> CountedClutch:
    fertile = [e for e in outcomes.eggs if e.fate is not Fate.SLUG and not e.egg.slug]
    slugs = len(outcomes.eggs) - len(fertile)
    hatched = sum(e.fate is Fate.HATCHED for e in fertile)
    return CountedClutch(
        outcomes,
        Tally(hatched, len(fertile)),
        Tally(slugs, len(outcomes.eggs)),
        _groups(snapshot, outcomes),
    )


def _groups(snapshot: Snapshot, outcomes: ClutchOutcomes) -> dict[Dimension, str]:
    clutch = outcomes.clutch
    box = snapshot.boxes[clutch.entity_id]
    shelf = snapshot.shelf_at(box, clutch.laid_s)
    cabinet = snapshot.cabinets[shelf.cabinet_id].name
    own = snapshot.clutch(clutch.entity_id).method
    sire = snapshot.animals.get(clutch.sire_id) if clutch.sire_id is not None else None
    named = {
        Dimension.DAM: snapshot.animals[clutch.dam_id].name,
        Dimension.SIRE: sire.name if sire else None,
        Dimension.MEDIUM: box.medium,
        Dimension.CLOSING: box.closing,
        Dimension.CABINET: cabinet,
        Dimension.SHELF: f"{cabinet}, {shelf.name}",
        Dimension.METHOD: method_of(own).name if own else None,
        Dimension.MONTH: f"{datetime.fromtimestamp(clutch.laid_s, UTC):%B}",
    }
    return {dimension: name for dimension, name in named.items() if name}
