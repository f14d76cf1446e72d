"""Eggs that changed their medium, closing, cabinet or shelf while they developed."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import groupby

from sandboa.core.units import SECONDS_PER_DAY
from sandboa.services.boxes.box_stays import BoxStay
from sandboa.services.losses.outcomes import EggOutcome
from sandboa.services.seasons.dimensions import PLACES, Dimension, names_of, while_developing


@dataclass(frozen=True, slots=True)
class PlaceChange:
    """Eggs of a clutch that changed on one dimension, all on the same days.

    `spells` are names with the day after lay each begins on; the eggs are counted under `counted`.
    """

    code: str
    numbers: tuple[int, ...]
    spells: tuple[tuple[int, str], ...]
    counted: str


def place_changes(
    code: str, eggs: Sequence[EggOutcome], lain: Mapping[int, Sequence[BoxStay]]
) -> dict[Dimension, tuple[PlaceChange, ...]]:
    """The changes of a clutch's eggs; `lain` are the stays of each, by its entity."""
    told = {}
    for dimension in PLACES:
        alike: dict[tuple[tuple[tuple[int, str], ...], str], list[int]] = {}
        for end in eggs:
            stays = while_developing(lain[end.egg.entity_id])
            spells = _spells(stays, dimension, end.way.path.start_s)
            counted = where_longest(stays, dimension)
            if len(spells) > 1 and counted is not None:
                alike.setdefault((spells, counted), []).append(end.egg.number)
        if alike:
            told[dimension] = tuple(
                PlaceChange(code, tuple(sorted(numbers)), spells, counted)
                for (spells, counted), numbers in alike.items()
            )
    return told


def where_longest(stays: Sequence[BoxStay], dimension: Dimension) -> str | None:
    """The name under which stays add up to the longest time; None where none is known."""
    spent: dict[str, float] = {}
    for stay in stays:
        name = names_of(stay).get(dimension)
        if name is not None:
            spent[name] = spent.get(name, 0.0) + stay.end_s - stay.start_s
    return max(spent, key=lambda name: spent[name], default=None)


def _spells(
    stays: Sequence[BoxStay], dimension: Dimension, laid_s: float
) -> tuple[tuple[int, str], ...]:
    named = [(stay, name) for stay in stays if (name := names_of(stay).get(dimension))]
    return tuple(
        (int((next(spell)[0].start_s - laid_s) // SECONDS_PER_DAY), name)
        for name, spell in groupby(named, key=lambda pair: pair[1])
    )
