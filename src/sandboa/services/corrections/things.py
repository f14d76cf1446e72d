"""What recorded things are of, by the names commands take: eggs, boxes, shelves, places."""

from sandboa.records import clutches, house
from sandboa.services.acts.errors import NotFound
from sandboa.services.probes.commands import ProbePlace


def code_and_number(entity: int) -> tuple[str, int]:
    """Code of the clutch and number of an egg; NotFound where it is no more."""
    egg = clutches.Egg.now(entity)
    clutch = clutches.Clutch.now(egg.clutch_id) if egg else None
    if egg is None or clutch is None:
        raise NotFound("the egg of that is no more")
    return clutch.code, egg.number


def clutch_code(entity: int) -> str:
    """The code of a clutch; NotFound where it is no more."""
    clutch = clutches.Clutch.now(entity)
    if clutch is None:
        raise NotFound("the clutch of that is no more")
    return clutch.code


def box_name(entity: int) -> str:
    """The name of a box; NotFound where it is no more."""
    box = clutches.Box.now(entity)
    if box is None:
        raise NotFound("the box of that is no more")
    return box.name


def cabinet_name(entity: int) -> str:
    """The name of a cabinet; NotFound where it is no more."""
    cabinet = house.Cabinet.now(entity)
    if cabinet is None:
        raise NotFound("the cabinet of that is no more")
    return cabinet.name


def shelves() -> dict[str, tuple[str, str]]:
    """ "North, lower": cabinet and shelf, of every shelf there is."""
    cabinets = {cabinet.entity_id: cabinet.name for cabinet in house.Cabinet.current()}
    return {
        f"{cabinets[shelf.cabinet_id]}, {shelf.name}": (cabinets[shelf.cabinet_id], shelf.name)
        for shelf in sorted(house.Shelf.current(), key=lambda s: (s.cabinet_id, s.position))
        if shelf.cabinet_id in cabinets
    }


def shelf_words(shelf_id: int) -> str:
    """ "North, lower"; nothing for a shelf that is no more."""
    shelf = house.Shelf.now(shelf_id)
    return f"{cabinet_name(shelf.cabinet_id)}, {shelf.name}" if shelf else ""


def places_to_hang(held: int | None) -> dict[str, ProbePlace]:
    """ "box 26-04", "North, lower", "North": where a probe may hang, by the words for it.

    With the place `held`, where it hangs, also when no other could be hung there any more.
    """
    boxes = sorted(box.name for box in clutches.Box.current(until_s=None))
    cabinets = sorted(cabinet.name for cabinet in house.Cabinet.current())
    places = {
        **{_words_of_box(name): ProbePlace(box=name) for name in boxes},
        **{words: ProbePlace(cabinet=c, shelf=s) for words, (c, s) in shelves().items()},
        **{name: ProbePlace(cabinet=name) for name in cabinets},
    }
    box = clutches.Box.now(held) if held is not None else None
    return places if box is None else {_words_of_box(box.name): ProbePlace(box=box.name), **places}


def place_words(entity: int) -> str:
    """Words for a place a probe hangs at, as among those of `places_to_hang`."""
    box, shelf = clutches.Box.now(entity), house.Shelf.now(entity)
    if box is not None:
        return _words_of_box(box.name)
    return shelf_words(entity) if shelf is not None else cabinet_name(entity)


def _words_of_box(name: str) -> str:
    return f"box {name}"
