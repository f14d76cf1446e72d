"""What an undo must leave standing because other facts lean on it."""

from sandboa.core.act_kinds import ActKind, Touch
from sandboa.core.people import Role
from sandboa.records.animals import (
    Departure,
    Lock,
    Meal,
    Pair,
    Pairing,
    Sign,
    Trait,
    Tub,
    Weight,
)
from sandboa.records.clutches import (
    Box,
    BoxMove,
    Clutch,
    Egg,
    EggStay,
    PastClutch,
    PossibleSire,
)
from sandboa.records.facts import Act, Fact
from sandboa.records.hatching import Finished, Hatchling, Shed
from sandboa.records.house import (
    Animal,
    Cabinet,
    Device,
    Probe,
    ProbeMove,
    SetPoint,
    Shelf,
)
from sandboa.records.notes import Note
from sandboa.records.people import Person, passphrases_are_kept, with_passphrase
from sandboa.services.acts.errors import Conflict

#: Tables whose rows other acts share, in the order in which they can be let go.
SHARED: tuple[type[Fact], ...] = (
    Hatchling,
    Pairing,
    Box,
    Animal,
    Probe,
    Device,
    Shelf,
    Cabinet,
    SetPoint,
)

#: Tables whose rows do not stay behind: their undo is refused until what leans on them is undone.
_REFUSED: dict[type[Fact], str] = {
    Pairing: "a lock was seen during this visit: undo that first",
    Box: "other eggs lie in that box: move them out first",
    Hatchling: "more is recorded of this hatchling: undo that first",
}


def require_open_for(act: Act) -> None:
    """Raise Conflict when the act may not change because its clutch was closed after it."""
    fateful = Touch.FATES in ActKind.touched_by(act.kind)
    if fateful and Finished.only(clutch_id=act.clutch_id) is not None:
        raise Conflict("its clutch is closed: reopen it first")


def require_keeper_left() -> None:
    """Raise Conflict when the house was locked and no keeper could open it any more.

    Not even by going back to a house without people: behind a proxy on the
    same machine that would let everybody in.
    """
    keepers = {person.entity_id for person in Person.current(role=Role.KEEPER.value)}
    if passphrases_are_kept() and not with_passphrase() & keepers:
        raise Conflict("somebody must stay keeper: give another keeper a passphrase first")


def refusal(row: Fact) -> str | None:
    """Why an undo is refused when the row must stay; None where the row just stays behind."""
    if isinstance(row, Animal) and row.hatchling_id is not None:
        return f"more is recorded of {row.name} since it was held back: undo that first"
    return _REFUSED.get(type(row))


def must_stay(row: Fact) -> bool:
    """Whether a current fact leans on this one: a clutch on its dam, a box on its shelf.

    The first clutch of a house brings its cabinet, shelf and animals with it;
    undone, it must not take them away from the clutches that came after.
    """
    entity = row.entity_id
    if isinstance(row, Animal):
        return _animal_needed(entity)
    if isinstance(row, Hatchling):
        held_back = Animal.current(hatchling_id=entity)
        return _recorded_of(entity) or bool(held_back or Shed.current(hatchling_id=entity))
    if isinstance(row, Pairing):
        return bool(Lock.current(pairing_id=entity))
    if isinstance(row, Box):
        return any(Egg.now(stay.egg_id) for stay in EggStay.current(box_id=entity))
    if isinstance(row, Probe):
        return bool(ProbeMove.current(probe_id=entity))
    if isinstance(row, Device):
        return bool(Probe.current(device_id=entity))
    if isinstance(row, Shelf):
        boxes = Box.current(shelf_id=entity) or BoxMove.current(shelf_id=entity)
        return bool(boxes) or _place_needed(entity)
    if isinstance(row, Cabinet):
        return bool(Shelf.current(cabinet_id=entity)) or _place_needed(entity)
    if isinstance(row, SetPoint):
        points = SetPoint.current(cabinet_id=row.cabinet_id)
        return Cabinet.now(row.cabinet_id) is not None and all(p.id == row.id for p in points)
    return False


def _place_needed(place: int) -> bool:
    """Whether a probe hangs or hung there."""
    moved = ProbeMove.current(place_id=place)
    return bool(moved or Probe.current(place_id=place))


def _animal_needed(entity: int) -> bool:
    """Whether anything else is recorded of the animal, or it is another one's parent."""
    as_parent = [
        table.current(**{parent: entity})
        for table in (Clutch, PastClutch, Pair, Pairing, Animal)
        for parent in ("dam_id", "sire_id")
    ]
    perhaps = PossibleSire.current(sire_id=entity)
    noted = perhaps or Sign.current(dam_id=entity) or Note.current(about_id=entity)
    return any(as_parent) or _recorded_of(entity) or bool(noted)


def _recorded_of(entity: int) -> bool:
    """Whether a weight, meal, trait or tub of an animal or hatchling stands, or that it left."""
    tables = (Weight, Meal, Trait, Tub, Departure)
    return any(table.current(animal_id=entity) for table in tables)
