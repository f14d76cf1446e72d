"""A recorded visit as it was told: what a keeper sees before correcting it whole."""

from collections.abc import Iterator
from dataclasses import dataclass

from sandboa.core.box import Closing, shell_marks
from sandboa.core.candling import Disc, Vessels
from sandboa.core.rounds import BoxActKind, EggActKind
from sandboa.core.standing import SignKind
from sandboa.records.clutches import (
    Box,
    BoxMove,
    Candling,
    Clutch,
    Egg,
    EggEvent,
    EggStay,
    ShellLook,
    Turgor,
    Watering,
)
from sandboa.records.facts import Fact, FactT
from sandboa.records.house import Cabinet, Shelf
from sandboa.records.notes import Note
from sandboa.records.rounds import (
    BoxDone,
    BoxSign,
    ClosingChange,
    EggSign,
    MassChange,
    SetUp,
    Visit,
    Weighing,
)
from sandboa.services.acts.errors import NotFound
from sandboa.services.rounds.box_under_visit import clutches_in
from sandboa.services.rounds.visit import BoxVisit, EggSeen, EggsMoved, FreshMedium

#: What a visit records beside itself and the boxes it sets up.
FINDINGS: tuple[type[Fact], ...] = (
    Turgor, Candling, ShellLook, EggSign, EggEvent, MassChange, BoxSign, Weighing, Watering,
    BoxDone, ClosingChange, SetUp, BoxMove, EggStay, Note,
)  # fmt: skip


def visit_numbered(visit_id: int) -> Visit:
    """The visit with that id; NotFound when there is none, or it was undone."""
    visit = Visit.now(visit_id)
    if visit is None:
        raise NotFound("there is no such visit: it may have been undone")
    return visit


def recorded_by(visit: Visit, table: type[FactT]) -> list[FactT]:
    """What holds now of that kind of what the visit recorded, by whichever act it was put right."""
    acts = {version.act_id for version in Visit.ever(entity_id=visit.entity_id)}
    recorded = {row.entity_id for row in table.ever(act_id=acts)}
    return sorted(table.current(entity_id=recorded), key=lambda row: row.id)


def told(visit: Visit) -> BoxVisit:
    """The visit as it would be told now; eggs it moved are told by the name of their box."""
    box = Box.now(visit.box_id)
    if box is None:
        raise NotFound("the box of that visit is no more")
    rows = _Rows.of(visit)
    fresh = next(iter(recorded_by(visit, SetUp)), None)
    return BoxVisit(
        key=visit.key,
        box=box.name,
        opened_s=float(visit.opened_s),
        closed_s=float(visit.closed_s),
        eggs=tuple(_eggs(rows, _codes(box, visit))),
        rest_as_before=bool(visit.rest_as_before),
        signs=tuple((sign.kind, sign.value) for sign in recorded_by(visit, BoxSign)),
        mass_g=next((row.mass_g for row in recorded_by(visit, Weighing)), None),
        water_g=next((row.water_g for row in recorded_by(visit, Watering)), None),
        acts=tuple(BoxActKind(row.kind) for row in recorded_by(visit, BoxDone)),
        closing=next((Closing(row.closing) for row in recorded_by(visit, ClosingChange)), None),
        shelf=next((_place(row) for row in recorded_by(visit, BoxMove)), None),
        fresh=FreshMedium(fresh.medium, fresh.water_g, fresh.mass_g) if fresh else None,
        mass_change_g=next((row.delta_g for row in rows.changes if row.egg_id is None), None),
        moved=tuple(_moved(rows, _codes(box, visit))),
        note=next((row.text for row in recorded_by(visit, Note)), ""),
    )


@dataclass(frozen=True, slots=True)
class RecordedVisit:
    """A visit by its id, as the act with id `act` recorded it, or put it right."""

    id: int
    act: int
    visit: BoxVisit


def recorded_visit(visit_id: int) -> RecordedVisit:
    """The visit with that id as it stands; NotFound when there is none, or it was undone."""
    held = visit_numbered(visit_id)
    return RecordedVisit(held.entity_id, held.act_id, told(held))


@dataclass(frozen=True)
class _Rows:
    """What a visit recorded of eggs."""

    looks: list[Turgor]
    candlings: list[Candling]
    shells: list[ShellLook]
    signs: list[EggSign]
    events: list[EggEvent]
    changes: list[MassChange]
    stays: list[EggStay]

    @classmethod
    def of(cls, visit: Visit) -> "_Rows":
        return cls(
            recorded_by(visit, Turgor),
            recorded_by(visit, Candling),
            recorded_by(visit, ShellLook),
            recorded_by(visit, EggSign),
            recorded_by(visit, EggEvent),
            recorded_by(visit, MassChange),
            recorded_by(visit, EggStay),
        )


def _codes(box: Box, visit: Visit) -> dict[int, str | None]:
    """What eggs of each clutch are told by: its code where several lie in the box, else nothing.

    Those moved out by the visit itself lay there as well.
    """
    clutches = clutches_in(box, visit.closed_s - 1)
    return {clutch.entity_id: clutch.code if len(clutches) > 1 else None for clutch in clutches}


def _eggs(rows: _Rows, codes: dict[int, str | None]) -> Iterator[EggSeen]:
    named = {
        row.egg_id
        for group in (rows.looks, rows.candlings, rows.shells, rows.signs, rows.events)
        for row in group
    }  # fmt: skip
    eggs = [egg for own in named if (egg := Egg.now(own)) is not None]
    for egg in sorted(eggs, key=lambda egg: (egg.clutch_id, egg.number)):
        own = egg.entity_id
        candled = next((row for row in rows.candlings if row.egg_id == own), None)
        yield EggSeen(
            number=egg.number,
            clutch=_code(egg, codes),
            grade=next((row.grade for row in rows.looks if row.egg_id == own), None),
            vessels=Vessels(candled.vessels) if candled else None,
            disc=Disc(candled.disc) if candled and candled.disc else None,
            shells=next((shell_marks(r.shells) for r in rows.shells if r.egg_id == own), None),
            signs=tuple((SignKind(r.kind), r.value) for r in rows.signs if r.egg_id == own),
            acts=tuple(EggActKind(row.kind) for row in rows.events if row.egg_id == own),
            mass_g=next((-row.delta_g for row in rows.changes if row.egg_id == own), None),
        )


def _moved(rows: _Rows, codes: dict[int, str | None]) -> Iterator[EggsMoved]:
    groups: dict[int, list[tuple[str | None, int]]] = {}
    for stay in rows.stays:
        egg = Egg.now(stay.egg_id)
        if egg is not None:
            groups.setdefault(stay.box_id, []).append((_code(egg, codes), egg.number))
    for own, eggs in groups.items():
        to = Box.now(own)
        yield EggsMoved(tuple(eggs), to.name if to else None)


def _code(egg: Egg, codes: dict[int, str | None]) -> str | None:
    if egg.clutch_id in codes:
        return codes[egg.clutch_id]
    clutch = Clutch.now(egg.clutch_id)
    return clutch.code if clutch is not None else None


def _place(move: BoxMove) -> tuple[str, str] | None:
    shelf = Shelf.now(move.shelf_id)
    cabinet = Cabinet.now(shelf.cabinet_id) if shelf else None
    return (cabinet.name, shelf.name) if shelf and cabinet else None
