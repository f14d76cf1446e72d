"""Cabinets, shelves, set points, and the boxes that move between them."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.act_kinds import ActKind
from sandboa.core.development import SetPoints
from sandboa.core.errors import NotPlausible
from sandboa.core.messages import Message, Temperature
from sandboa.core.names import clean_name
from sandboa.core.units import SET_POINT_RANGE_C, require_moment, require_range
from sandboa.records.clutches import Box, BoxMove
from sandboa.records.facts import Act
from sandboa.records.hatching import Alteration
from sandboa.records.house import Cabinet, SetPoint, Shelf, named
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.preconditions import (
    box_called,
    of_this_moment,
    require_between_set_up_and_now,
    require_not_ahead,
)
from sandboa.services.acts.recording import act

#: l of a cabinet, from a small box to a walk-in room (assumption); of water standing in it.
VOLUME_RANGE_L: Final = (5.0, 100_000.0)
BALLAST_RANGE_L: Final = (0.0, 2_000.0)


class CabinetKind(StrEnum):
    """Bought ready, or built at home: then the cautions on mains and refrigerators show."""

    BOUGHT = "bought"
    HOME_BUILT = "home-built"


@dataclass(frozen=True, slots=True)
class CabinetCommand:
    """What a keeper says of a cabinet; shelves from top to bottom, litres where known."""

    name: str
    kind: CabinetKind
    shelves: tuple[str, ...]
    volume_l: float | None = None
    ballast_l: float | None = None


def add_cabinet(said: CabinetCommand, set_point_c: float, from_s: float, now_s: float) -> Act:
    """Record a new cabinet with its shelves and set point (20-36 °C) since `from_s`.

    Raises NotPlausible for values that cannot be true, Conflict when the name is taken.
    """
    name = clean_name("cabinet", said.name)
    values = _checked(said)
    require_not_ahead(from_s, now_s)
    if named(Cabinet, name) is not None:
        raise Conflict(f"there is a cabinet {name} already")
    with act(ActKind.CABINET, f"Cabinet {name} set up", now_s) as setting_up:
        cabinet = Cabinet.record(setting_up, name=name, **values)
        for shelf in _shelf_names(said):
            shelf_named(setting_up, cabinet.entity_id, shelf)
        set_point_from(setting_up, cabinet.entity_id, int(from_s), set_point_c)
    return setting_up


def correct_cabinet(held_name: str, said: CabinetCommand, now_s: float) -> Act:
    """Correct a cabinet: name, kind, litres; shelves can be added and put in another order.

    Raises NotFound, NotPlausible, Conflict for a taken name or for a shelf
    left out (shelves that hold or held a box stay).
    """
    cabinet = cabinet_called(held_name)
    name = clean_name("cabinet", said.name)
    other = named(Cabinet, name)
    if other is not None and other.entity_id != cabinet.entity_id:
        raise Conflict(f"there is a cabinet {name} already")
    values = {"name": name, **_checked(said)}
    with act(ActKind.CORRECT, f"Cabinet {name} corrected", now_s) as correcting:
        if cabinet.values() != values:
            cabinet.correct(correcting, **values)
        held = {s.name.casefold(): s for s in Shelf.current(cabinet_id=cabinet.entity_id)}
        for position, shelf_name in enumerate(_shelf_names(said), start=1):
            shelf = held.pop(shelf_name.casefold(), None)
            if shelf is None:
                Shelf.record(
                    correcting, cabinet_id=cabinet.entity_id, name=shelf_name, position=position
                )
            elif (shelf.position, shelf.name) != (position, shelf_name):
                shelf.correct(correcting, position=position, name=shelf_name)
        for left in held.values():
            raise Conflict(f"shelf {left.name} is missing: shelves with a history stay")
    return correcting


def change_set_point(cabinet_name: str, temperature_c: float, from_s: float, now_s: float) -> Act:
    """Record that the cabinet was set to another temperature (20-36 °C) at a time."""
    cabinet = cabinet_called(cabinet_name)
    require_not_ahead(from_s, now_s)
    summary = Message(
        "{cabinet} set to {warmth}", cabinet=cabinet.name, warmth=Temperature(temperature_c)
    )
    with act(ActKind.SET_POINT, summary, now_s) as setting:
        set_point_from(setting, cabinet.entity_id, int(from_s), temperature_c)
    return setting


def alter_cabinet(cabinet_name: str, what: str, at_s: float, now_s: float) -> Act:
    """Record that a cabinet itself was altered: foam drilled, parts glued or painted.

    Raises NotFound, or NotPlausible for a time ahead or no words.
    """
    cabinet = cabinet_called(cabinet_name)
    require_moment("at", at_s)
    require_not_ahead(at_s, now_s)
    words = clean_name("what", what)
    with act(ActKind.ALTERATION, f"{cabinet.name} altered: {words}", now_s) as altering:
        Alteration.record(altering, cabinet_id=cabinet.entity_id, at_s=int(at_s), what=words)
    return altering


def move_box(name: str, cabinet_name: str, shelf_name: str, at_s: float, now_s: float) -> Act:
    """Record that a box was put on another shelf.

    Raises NotFound for an unknown box, cabinet or shelf; NotPlausible when it
    stands there now and is told to be put there now, or for a time before it was set up or ahead.
    """
    box = box_called(name)
    shelf = shelf_called(cabinet_name, shelf_name)
    require_between_set_up_and_now(box, at_s, now_s)
    stands_there = place_of_box(box, at_s)[1].entity_id == shelf.entity_id
    if stands_there and of_this_moment(at_s, now_s):
        raise NotPlausible("shelf", f"box {box.name} stands on {shelf.name} already")
    where = f"{cabinet_called(cabinet_name).name}, {shelf.name}"
    with act(ActKind.MOVE, f"Box {box.name} moved to {where}", now_s) as moving:
        stand_on(moving, box, shelf, at_s)
    return moving


def place_of_box(box: Box, at_s: float) -> tuple[Cabinet, Shelf]:
    """Where a box stood at a time; NotFound when that is no more."""
    moves = sorted(BoxMove.current(box_id=box.entity_id), key=lambda move: move.from_s)
    stands = next((m.shelf_id for m in reversed(moves) if m.from_s <= at_s), box.shelf_id)
    shelf = Shelf.now(stands)
    cabinet = Cabinet.now(shelf.cabinet_id) if shelf is not None else None
    if shelf is None or cabinet is None:
        raise NotFound(f"box {box.name} stands nowhere")
    return cabinet, shelf


def stand_on(moving: Act, box: Box, shelf: Shelf, at_s: float) -> None:
    """The box stands on that shelf from `at_s` on; a move of the same moment is corrected."""
    BoxMove.put(moving, {"box_id": box.entity_id, "from_s": int(at_s)}, shelf_id=shelf.entity_id)


def cabinet_called(name: str) -> Cabinet:
    """The cabinet of that name; NotFound otherwise."""
    cabinet = named(Cabinet, name)
    if cabinet is None:
        raise NotFound(f"there is no cabinet {name or 'without a name'}")
    return cabinet


def shelf_called(cabinet_name: str, name: str) -> Shelf:
    """The shelf of that name in a cabinet; NotFound otherwise."""
    cabinet = cabinet_called(cabinet_name)
    for shelf in Shelf.current(cabinet_id=cabinet.entity_id):
        if shelf.name.casefold() == name.casefold():
            return shelf
    raise NotFound(f"cabinet {cabinet.name} has no shelf {name}")


def _checked(said: CabinetCommand) -> dict[str, str | float | None]:
    if said.volume_l is not None:
        require_range("volume_l", said.volume_l, VOLUME_RANGE_L, "l")
    if said.ballast_l is not None:
        require_range("ballast_l", said.ballast_l, BALLAST_RANGE_L, "l")
    return {"kind": said.kind.value, "volume_l": said.volume_l, "ballast_l": said.ballast_l}


def _shelf_names(said: CabinetCommand) -> list[str]:
    names = [clean_name("shelf", name) for name in said.shelves]
    if not names:
        raise NotPlausible("shelves", "a cabinet has at least one shelf")
    if len({name.casefold() for name in names}) < len(names):
        raise NotPlausible("shelves", "two shelves need two names")
    return names


def cabinet_named(act: Act, name: str) -> Cabinet:
    """The cabinet of that name, recorded now when it is new."""
    name = clean_name("cabinet", name)
    return named(Cabinet, name) or Cabinet.record(act, name=name)


def shelf_named(act: Act, cabinet: int, name: str) -> Shelf:
    """The cabinet's shelf of that name; a new one goes below the others."""
    name = clean_name("shelf", name)
    shelves = Shelf.current(cabinet_id=cabinet)
    for shelf in shelves:
        if shelf.name.casefold() == name.casefold():
            return shelf
    lowest = max((shelf.position for shelf in shelves), default=0)
    return Shelf.record(act, cabinet_id=cabinet, name=name, position=lowest + 1)


def set_point_from(act: Act, cabinet: int, from_s: int, temperature_c: float) -> None:
    """Record the cabinet's set point from `from_s` on, unless it is in force already.

    20-36 °C; NotPlausible otherwise.
    """
    require_range("set point", temperature_c, SET_POINT_RANGE_C, "°C")
    rows = sorted(SetPoint.current(cabinet_id=cabinet), key=lambda row: row.from_s)
    if rows and abs(set_points(rows).at(from_s) - temperature_c) < 0.005:
        return
    same_time = next((row for row in rows if row.from_s == from_s), None)
    if same_time is not None:
        same_time.correct(act, temperature_c=temperature_c)
    else:
        SetPoint.record(act, cabinet_id=cabinet, from_s=from_s, temperature_c=temperature_c)


def set_point_then(cabinet_name: str, at_s: float) -> float | None:
    """°C a cabinet of that name was set to at a time; None where nothing is recorded of it."""
    cabinet = named(Cabinet, cabinet_name)
    if cabinet is None:
        return None
    rows = sorted(SetPoint.current(cabinet_id=cabinet.entity_id), key=lambda r: r.from_s)
    return set_points(rows).at(at_s) if rows else None


def set_points(rows: list[SetPoint]) -> SetPoints:
    """The core's form of a cabinet's set points; `rows` in order of time, at least one."""
    return SetPoints(tuple(r.from_s for r in rows), tuple(r.temperature_c for r in rows))
