"""Closed clutches as counts: hatched of fertile, slugs of laid, and the groups each belongs to."""

from collections import Counter, defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from enum import StrEnum
from itertools import pairwise
from typing import Final

from sandboa.core.box import BoxKind
from sandboa.core.hatching import Fate
from sandboa.core.rates import Tally
from sandboa.services.boxes.egg_paths import Stay, stays
from sandboa.services.clutches.methods import method_of
from sandboa.services.losses.loss_list import year_of
from sandboa.services.losses.outcomes import ClutchOutcomes, EggOutcome
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


#: What is told of each egg by where it lay.
_BY_PLACE: Final = (Dimension.MEDIUM, Dimension.CLOSING, Dimension.CABINET, Dimension.SHELF)


@dataclass(frozen=True)
class CountedClutch:
    """A closed clutch; `groups` names its group on every dimension that is known.

    Of medium, closing, cabinet and shelf, `by_place` counts its eggs by where each lay while it
    developed, and `groups` names that of most of them.
    """

    outcomes: ClutchOutcomes
    hatched: Tally
    slugs: Tally
    groups: dict[Dimension, str]
    by_place: dict[Dimension, dict[str, Tally]]

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
        if dimension in clutch.by_place:
            for place, tally in clutch.by_place[dimension].items():
                groups[place].append(tally)
        elif name is not None and clutch.hatched.n:
            groups[name].append(clutch.hatched)
    return dict(groups)


def _counted(snapshot: Snapshot, outcomes: ClutchOutcomes) -> CountedClutch:
    fertile = [e for e in outcomes.eggs if e.fate is not Fate.SLUG and not e.egg.slug]
    slugs = len(outcomes.eggs) - len(fertile)
    hatched = sum(e.fate is Fate.HATCHED for e in fertile)
    places = {end.egg.entity_id: place_of(snapshot, end) for end in outcomes.eggs}
    by_place = {
        dimension: counted
        for dimension in _BY_PLACE
        if (counted := _tallies(fertile, places, dimension))
    }
    return CountedClutch(
        outcomes,
        Tally(hatched, len(fertile)),
        Tally(slugs, len(outcomes.eggs)),
        _groups(snapshot, outcomes, list(places.values())),
        by_place,
    )


def place_of(snapshot: Snapshot, end: EggOutcome) -> dict[Dimension, str]:
    """Where an egg lay longest from lay to its end, hatching boxes aside."""
    lain = stays(snapshot, end.way.path, max(end.ended_s, end.way.path.start_s + 1.0))
    spent: dict[tuple[int, int, str | None], float] = defaultdict(float)
    for stay in lain:
        for closing, seconds in _closings(snapshot, stay):
            spent[stay.box, stay.shelf, closing] += seconds
    kept = {
        where: seconds
        for where, seconds in spent.items()
        if snapshot.boxes[where[0]].kind != BoxKind.HATCHING
    }
    box, place, closing = max(kept or spent, key=lambda where: (kept or spent)[where])
    shelf = snapshot.shelves[place]
    cabinet = snapshot.cabinets[shelf.cabinet_id].name
    named = {
        Dimension.MEDIUM: snapshot.boxes[box].medium,
        Dimension.CLOSING: closing,
        Dimension.CABINET: cabinet,
        Dimension.SHELF: f"{cabinet}, {shelf.name}",
    }
    return {dimension: name for dimension, name in named.items() if name}


def _closings(snapshot: Snapshot, stay: Stay) -> Iterator[tuple[str | None, float]]:
    """How the box was closed during a stay, and for how long (s)."""
    changes = snapshot.box(stay.box).closings
    cuts = [stay.start_s, *(c.from_s for c in changes if stay.start_s < c.from_s < stay.end_s)]
    for start_s, end_s in pairwise([*cuts, stay.end_s]):
        before = [c.closing for c in changes if c.from_s <= start_s]
        yield before[-1] if before else snapshot.boxes[stay.box].closing, end_s - start_s


def _tallies(
    fertile: Sequence[EggOutcome], places: dict[int, dict[Dimension, str]], dimension: Dimension
) -> dict[str, Tally]:
    counted: dict[str, tuple[int, int]] = {}
    for end in fertile:
        name = places[end.egg.entity_id].get(dimension)
        if name is not None:
            hatched, eggs = counted.get(name, (0, 0))
            counted[name] = (hatched + (end.fate is Fate.HATCHED), eggs + 1)
    return {name: Tally(*numbers) for name, numbers in counted.items()}


def _groups(
    snapshot: Snapshot, outcomes: ClutchOutcomes, places: Sequence[dict[Dimension, str]]
) -> dict[Dimension, str]:
    clutch = outcomes.clutch
    own = snapshot.clutch(clutch.entity_id).method
    sire = snapshot.animals.get(clutch.sire_id) if clutch.sire_id is not None else None
    named = {
        Dimension.DAM: snapshot.animals[clutch.dam_id].name,
        Dimension.SIRE: sire.name if sire else None,
        **{dimension: _of_most(places, dimension) for dimension in _BY_PLACE},
        Dimension.METHOD: method_of(own).name if own else None,
        Dimension.MONTH: f"{datetime.fromtimestamp(clutch.laid_s, UTC):%B}",
    }
    return {dimension: name for dimension, name in named.items() if name}


def _of_most(places: Sequence[dict[Dimension, str]], dimension: Dimension) -> str | None:
    names = Counter(place[dimension] for place in places if dimension in place)
    return names.most_common(1)[0][0] if names else None
