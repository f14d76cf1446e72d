"""Clutches as counts: hatched of fertile, slugs of laid, and the groups each belongs to."""

from collections import Counter, defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime

from sandboa.core.hatching import Fate
from sandboa.core.rates import Cell, Tally
from sandboa.records.clutches import Clutch, PastClutch
from sandboa.services.boxes.box_stays import BoxStay
from sandboa.services.clutches.methods import method_of
from sandboa.services.losses.outcomes import (
    ClutchOutcomes,
    EggOutcome,
    outcomes_by_now,
    stays_of_egg,
)
from sandboa.services.seasons.changes import PlaceChange, place_changes, where_longest
from sandboa.services.seasons.dimensions import PLACES, SIDE_BY_SIDE, Dimension, while_developing
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True)
class CountedClutch:
    """A closed clutch, or a past one; `groups` names its group on every dimension that is known.

    Of a past clutch nothing is known of its eggs one by one: its `outcomes` are None. Where nobody
    knows how many hatched, `hatched` is of no eggs.

    Of medium, closing, cabinet and shelf, `by_place` counts its eggs by where each lay while it
    developed, `groups` names that of most of them, and `changes` tells of those that changed it.
    `cells` are its eggs by all that they had in common.
    """

    laid_s: float
    outcomes: ClutchOutcomes | None
    hatched: Tally
    slugs: Tally
    groups: dict[Dimension, str]
    by_place: dict[Dimension, dict[str, Tally]]
    cells: tuple[Cell, ...]
    changes: dict[Dimension, tuple[PlaceChange, ...]]

    @property
    def year(self) -> int:
        return datetime.fromtimestamp(self.laid_s, UTC).year


def counted_clutches(
    snapshot: Snapshot, as_of_s: float, year: int | None = None
) -> list[CountedClutch]:
    """Closed and past clutches, of a year of laying or of all years, in order of laying."""
    return count(snapshot, outcomes_by_now(snapshot, as_of_s)[0], year)


def count(
    snapshot: Snapshot, outcomes: Sequence[ClutchOutcomes], year: int | None = None
) -> list[CountedClutch]:
    """The closed ones of those clutches, and past ones, as `counted_clutches` tells them."""
    counted = [
        _counted(snapshot, one)
        for one in outcomes
        if snapshot.clutch(one.clutch.entity_id).finished is not None
    ]
    counted += [_counted_past(snapshot, row) for row in snapshot.past_clutches]
    told = [c for c in counted if year is None or c.year == year]
    return sorted(told, key=lambda c: c.laid_s)


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
    lain = {end.egg.entity_id: stays_of_egg(snapshot, end) for end in outcomes.eggs}
    places = {own: _places(stays) for own, stays in lain.items()}
    by_place = {
        dimension: counted
        for dimension in PLACES
        if (counted := _tallies(fertile, places, dimension))
    }
    named = _groups(snapshot, outcomes, list(places.values()))
    return CountedClutch(
        outcomes.clutch.laid_s,
        outcomes,
        Tally(hatched, len(fertile)),
        Tally(slugs, len(outcomes.eggs)),
        named,
        by_place,
        _cells(outcomes, fertile, named, places),
        place_changes(outcomes.clutch.code, fertile, lain),
    )


def _counted_past(snapshot: Snapshot, row: PastClutch) -> CountedClutch:
    fertile = row.eggs - row.slugs
    hatched = Tally(0, 0) if row.hatched is None else Tally(row.hatched, fertile)
    named = _groups_of_all(snapshot, row)
    alike = tuple((d.value, named[d]) for d in SIDE_BY_SIDE if d in named)
    cells = (Cell(row.entity_id, hatched.k, hatched.n, alike),) if hatched.n else ()
    slugs = Tally(row.slugs, row.eggs)
    return CountedClutch(row.laid_s, None, hatched, slugs, named, {}, cells, {})


def _places(stays: Sequence[BoxStay]) -> dict[Dimension, str]:
    """Where an egg lay longest from lay to its end, hatching boxes aside."""
    developing = while_developing(stays)
    named = {dimension: where_longest(developing, dimension) for dimension in PLACES}
    return {dimension: name for dimension, name in named.items() if name is not None}


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


def _cells(
    outcomes: ClutchOutcomes,
    fertile: Sequence[EggOutcome],
    named: dict[Dimension, str],
    places: dict[int, dict[Dimension, str]],
) -> tuple[Cell, ...]:
    """The fertile eggs of a clutch by their groups: one cell where all lay alike."""
    counted: dict[tuple[tuple[str, str], ...], list[bool]] = defaultdict(list)
    for end in fertile:
        own = {**named, **places[end.egg.entity_id]}
        groups = tuple((d.value, own[d]) for d in SIDE_BY_SIDE if d in own)
        counted[groups].append(end.fate is Fate.HATCHED)
    clutch = outcomes.clutch.entity_id
    return tuple(
        Cell(clutch, sum(hatched), len(hatched), groups) for groups, hatched in counted.items()
    )


def _groups(
    snapshot: Snapshot, outcomes: ClutchOutcomes, places: Sequence[dict[Dimension, str]]
) -> dict[Dimension, str]:
    clutch = outcomes.clutch
    own = snapshot.clutch(clutch.entity_id).method
    named = {
        **_groups_of_all(snapshot, clutch),
        **{dimension: _of_most(places, dimension) for dimension in PLACES},
        Dimension.METHOD: method_of(own).name if own else None,
    }
    return {dimension: name for dimension, name in named.items() if name}


def _groups_of_all(snapshot: Snapshot, clutch: Clutch | PastClutch) -> dict[Dimension, str]:
    """The groups of every clutch, whoever recorded it."""
    sire = snapshot.animals.get(clutch.sire_id) if clutch.sire_id is not None else None
    named = {
        Dimension.DAM: snapshot.animals[clutch.dam_id].name,
        Dimension.SIRE: sire.name if sire else None,
        Dimension.MONTH: f"{datetime.fromtimestamp(clutch.laid_s, UTC):%B}",
    }
    return {dimension: name for dimension, name in named.items() if name}


def _of_most(places: Sequence[dict[Dimension, str]], dimension: Dimension) -> str | None:
    names = Counter(place[dimension] for place in places if dimension in place)
    return names.most_common(1)[0][0] if names else None
