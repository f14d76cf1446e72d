"""The garden room's dams and sires: weights, meals, pairings and signs of the season."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from functools import partial
from typing import Final

from sandboa.core.animals import DAM, SIRE, TraitForm
from sandboa.core.dam_care import AftercareTask
from sandboa.core.laying import PreparationTask, Sign
from sandboa.core.pairing.genes import DoubleForm, Inheritance
from sandboa.records.animals import Pairing
from sandboa.records.clutches import Clutch
from sandboa.services.animals.commands import (
    AnimalCommand,
    add_animal,
    offer_meal,
    weigh,
)
from sandboa.services.animals.genes import GeneCommand, add_gene
from sandboa.services.animals.traits import TraitCommand
from sandboa.services.breeding.commands import tick_aftercare, tick_preparation
from sandboa.services.breeding.pairings import (
    begin_pairing,
    plan_pair,
    see_lock,
    see_sign,
)

Event = tuple[float, Callable[[], object]]

_DAY_S: Final = 86_400.0
_VISUAL, _COPY, _MAYBE = TraitForm.VISUAL, TraitForm.ONE_COPY, TraitForm.POSSIBLE


@dataclass(frozen=True)
class _Dam:
    """Days are counted back from today; `shed_days` and `ovulated_days` from laying."""

    name: str
    sire: str
    laid_days_ago: float
    hatched_years_ago: int
    traits: tuple[tuple[str, TraitForm], ...]
    before_g: float
    shed_days: float
    ovulated_days: float | None
    #: (days after laying, g)
    after_g: tuple[tuple[float, float], ...] = ()
    #: (days after laying, taken)
    meals: tuple[tuple[float, bool], ...] = ()
    ticked: tuple[AftercareTask, ...] = (
        AftercareTask.RINSE,
        AftercareTask.WATER,
        AftercareTask.CLEAN,
    )


_DAMS: Final = (
    _Dam("Lovage", "Slate", 60.2, 5, (("Cypress", _COPY),), 1760, 31.0, 46.5,
         ((0.1, 1205), (10, 1243), (24, 1330), (44, 1448)),
         ((3, False), (8, True), (16, True), (27, True), (40, True), (54, True))),
    _Dam("Tansy", "Flint", 54.3, 7, (("Desert Ghost", _VISUAL),), 2050, 29.5, 45.0,
         ((0.1, 1390), (8, 1430), (17, 1492), (29, 1580), (41, 1655), (52, 1738)),
         ((2, False), (5, True), (11, True), (18, True), (26, True), (33, True), (47, True))),
    _Dam("Sorrel", "Marl", 41.2, 6, (("Mahogany", _COPY), ("Puzzle", _MAYBE)), 2310, 33.0, None,
         ((0.1, 1520), (9, 1571), (20, 1664), (34, 1770)),
         ((2, True), (9, True), (15, True), (22, False), (29, True), (37, True))),
    _Dam("Yarrow", "Chert", 26.1, 8, (("Asphalt", _COPY),), 1980, 28.0, 44.0,
         ((0.1, 1340), (13, 1288)), ((2, False), (8, False), (15, False), (22, False))),
    _Dam("Chervil", "Flint", 19.0, 5, (("Puzzle", _VISUAL),), 1840, 34.5, None,
         ((0.1, 1255), (11, 1282)), ((3, True), (10, True), (16, True))),
    _Dam("Borage", "Marl", 6.2, 4, (("Desert Ghost", _COPY), ("Mahogany", _COPY)), 1610, 30.5, 43.0,
         ((0.1, 1120),), ((2, False),), (AftercareTask.WATER, AftercareTask.RINSE)),
    _Dam("Hyssop", "Slate", 0.22, 6, (("Cypress", _VISUAL),), 2120, 32.0, 47.0),
    # Not laid yet: expected about a week from now.
    _Dam("Costmary", "Chert", -6.0, 5, (("Asphalt", _VISUAL), ("Puzzle", _MAYBE)), 1890, 30.0,
         45.0),
)  # fmt: skip

_SIRES: Final = (
    ("Flint", 5, (("Asphalt", _COPY),), 940.0),
    ("Marl", 4, (("Cypress", _VISUAL), ("Desert Ghost", _MAYBE)), 870.0),
    ("Slate", 7, (("Mahogany", _VISUAL),), 1120.0),
    ("Chert", 3, (("Puzzle", _COPY),), 760.0),
)

#: The keeper's own list; what is said of double forms is made up like all the rest.
_GENES: Final = (
    GeneCommand("Desert Ghost", Inheritance.RECESSIVE),
    GeneCommand("Puzzle", Inheritance.RECESSIVE),
    GeneCommand("Cypress", Inheritance.INCOMPLETE_DOMINANT),
    GeneCommand("Mahogany", Inheritance.INCOMPLETE_DOMINANT),
    GeneCommand("Asphalt", Inheritance.INCOMPLETE_DOMINANT, DoubleForm.HARMFUL),
)

RECESSIVE: Final = frozenset(g.name for g in _GENES if g.inheritance is Inheritance.RECESSIVE)

#: Days before laying on which the sire came, and hours into the visit of the lock seen, if any.
_VISITS: Final = ((172.0, 9.0), (147.0, 30.0), (122.0, None), (97.0, 14.0))
_VISIT_DAYS: Final = 2.0
#: Days from laying, and share of her weight before pairing.
_WEIGHED_BEFORE: Final = (
    (-260.0, 0.93), (-215.0, 0.97), (-175.0, 1.0), (-130.0, 1.06), (-80.0, 1.12),
)  # fmt: skip


def copies_of(name: str) -> dict[str, int]:
    """Copies of each gene the animal really has; of what is possible only, it has none."""
    traits = {dam.name: dam.traits for dam in _DAMS} | {sire: held for sire, _, held, _ in _SIRES}
    return {
        gene: 2 if form is _VISUAL and gene in RECESSIVE else 1
        for gene, form in traits[name]
        if form is not _MAYBE
    }


def animals(now_s: float) -> Iterator[Event]:
    """What is told of the animals, each at its time."""
    year = datetime.fromtimestamp(now_s, UTC).year
    for number, gene in enumerate(_GENES):
        listed_s = now_s - 455 * _DAY_S + number
        yield listed_s, partial(add_gene, gene, listed_s)
    began_s = now_s - 450 * _DAY_S
    for name, age, traits, mass_g in _SIRES:
        yield began_s, partial(_add, SIRE, name, year - age, traits, began_s)
        for days_ago in (300, 180, 60):
            at_s = now_s - days_ago * _DAY_S
            grown = mass_g + (300 - days_ago) * 0.15
            yield at_s, partial(_weigh, name, round(grown), at_s)
    for dam in _DAMS:
        yield (
            began_s,
            partial(_add, DAM, dam.name, year - dam.hatched_years_ago, dam.traits, began_s),
        )
        yield from _season_of(dam, now_s)
    at_s = now_s - 3 * _DAY_S
    yield at_s, partial(_plan, "Tansy", "Slate", at_s)
    yield at_s + 60, partial(_plan, "Lovage", "Flint", at_s + 60)


def _season_of(dam: _Dam, now_s: float) -> Iterator[Event]:
    laid_s = now_s - dam.laid_days_ago * _DAY_S

    def told(days: float, tell: Callable[..., object], *arguments: object) -> Iterator[Event]:
        """`tell` at `days` after laying, unless that is still to come."""
        at_s = laid_s + days * _DAY_S
        if at_s <= now_s:
            yield at_s, partial(tell, dam.name, *arguments, at_s)

    for days, share in _WEIGHED_BEFORE:
        yield from told(days, _weigh, round(dam.before_g * share))
    for days, lock_hours in _VISITS:
        yield from told(-days, _visit, dam.sire, lock_hours)
    for n in range(13):
        yield from told(-240.0 + 14 * n, _meal, True)
    yield from told(-68, _meal, False)
    yield from told(-66, _sign, Sign.OFF_FOOD)
    if dam.ovulated_days is not None:
        yield from told(-dam.ovulated_days, _sign, Sign.OVULATION)
    yield from told(-dam.shed_days, _sign, Sign.PRE_LAY_SHED)
    if dam.laid_days_ago < 0:
        yield from told(-13.0, _prepared, PreparationTask.NEST)
        yield from told(-12.5, _prepared, PreparationTask.STOP_CLEANING)
        return
    for days, mass_g in dam.after_g:
        yield from told(days, _weigh, mass_g)
    for days, taken in dam.meals:
        yield from told(days, _meal, taken)
    for task in dam.ticked if dam.after_g else ():
        yield from told(0.2, _ticked, task)


#: Ids by name, as the animals of the house being furnished were added.
_id: dict[str, int] = {}


def _add(
    role: str, name: str, year: int, traits: tuple[tuple[str, TraitForm], ...], at_s: float
) -> None:
    said = AnimalCommand(
        role=role, name=name, hatch_year=year, traits=[TraitCommand(n, f) for n, f in traits]
    )
    _id[name], _ = add_animal(said, at_s)


def _weigh(name: str, mass_g: float, at_s: float) -> None:
    weigh(_id[name], mass_g, at_s, at_s)


def _meal(name: str, taken: bool, at_s: float) -> None:
    offer_meal(_id[name], taken, "small rat", None, at_s, at_s)


def _sign(name: str, sign: Sign, at_s: float) -> None:
    see_sign(_id[name], sign, at_s, at_s)


def _visit(name: str, sire: str, lock_hours: float | None, at_s: float) -> None:
    """A visit told when it is over, with its lock."""
    until_s = at_s + _VISIT_DAYS * _DAY_S
    visit, _ = begin_pairing(_id[name], _id[sire], at_s, until_s, until_s)
    if lock_hours is not None:
        see_lock(visit, at_s + lock_hours * 3600.0, until_s)
    assert Pairing.now(visit) is not None


def _plan(name: str, sire: str, at_s: float) -> None:
    plan_pair(_id[name], _id[sire], at_s)


def _prepared(name: str, task: PreparationTask, at_s: float) -> None:
    tick_preparation(_id[name], task, True, at_s)


def _ticked(name: str, task: AftercareTask, at_s: float) -> None:
    clutches = sorted(Clutch.current(dam_id=_id[name]), key=lambda c: c.laid_s)
    tick_aftercare(clutches[-1], task, at_s)
