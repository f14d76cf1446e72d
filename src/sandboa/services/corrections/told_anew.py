"""For each thing that is recorded alone: its fields, and the command that records it again.

A thing is checked by the command that first recorded it, as if it had never been told.
"""

from collections.abc import Callable, Mapping
from typing import Any, Final

from sandboa.core.candling import Disc, Vessels
from sandboa.core.dimples.advice import GRADE_WORDS
from sandboa.core.hatching.raising import Departure
from sandboa.core.laying import Sign
from sandboa.records import animals, clutches, hatching, house
from sandboa.records.facts import Act, Fact
from sandboa.services.acts.errors import NotFound
from sandboa.services.animals.commands import offer_meal, weigh
from sandboa.services.animals.leaving import leave_house, put_in_tub
from sandboa.services.animals.meals import MealCommand
from sandboa.services.boxes.commands import candle_egg, grade_egg, water_box
from sandboa.services.breeding.pairings import see_lock, see_sign
from sandboa.services.cabinets.commands import alter_cabinet, change_set_point, move_box
from sandboa.services.corrections.fields import Answers, FieldKind, RecordField
from sandboa.services.hatching.egg_events import cut_egg, see_emergence, see_pip
from sandboa.services.hatching.raising import offer_first_meal, see_shed, weigh_hatchling

#: What a disc is where it was not looked for.
_NO_DISC: Final = "not looked for"
_TAKEN: Final = ("taken", "refused")

Fields = tuple[RecordField, ...]


def fields_of(row: Any) -> Fields:
    """The fields of a recorded thing as it stands."""
    return _FIELDS[type(row)](row)


def tell_again(row: Any, answers: Answers, now_s: float) -> Act:
    """Record the thing anew, of what it was of; raises as the command for it does."""
    return _AGAIN[type(row)](row, answers, now_s)


def _moment(name: str, label: str, at_s: float) -> RecordField:
    return RecordField(name, label, FieldKind.MOMENT, float(at_s))


def _grams(name: str, label: str, mass_g: float | None, *, required: bool = True) -> RecordField:
    return RecordField(name, label, FieldKind.GRAMS, mass_g, required=required)


def _choice(name: str, label: str, value: str, choices: tuple[str, ...]) -> RecordField:
    return RecordField(name, label, FieldKind.CHOICE, value, choices)


_FIELDS: Final[Mapping[type[Fact], Callable[[Any], Fields]]] = {
    animals.Weight: lambda row: (
        _grams("mass_g", "Weight, g", row.mass_g),
        _moment("at", "Weighed", row.at_s),
    ),
    animals.Meal: lambda row: (
        _choice("taken", "The meal was", _TAKEN[0 if row.taken else 1], _TAKEN),
        RecordField("prey", "Prey", FieldKind.TEXT, row.prey, required=False),
        _grams("mass_g", "Its weight, g", row.mass_g, required=False),
        _moment("at", "Offered", row.at_s),
    ),
    animals.Sign: lambda row: (
        _choice("sign", "Seen at her", row.kind, tuple(sign.value for sign in Sign)),
        _moment("seen", "Seen", row.seen_s),
    ),
    animals.Lock: lambda row: (_moment("seen", "Lock seen", row.seen_s),),
    clutches.Watering: lambda row: (
        _grams("water_g", "Water added, g", row.water_g),
        _moment("at", "Poured", row.poured_s),
    ),
    clutches.Turgor: lambda row: (
        _choice("grade", "Dents", GRADE_WORDS[row.grade], GRADE_WORDS),
        _moment("at", "Seen", row.seen_s),
    ),
    clutches.Candling: lambda row: (
        _choice("vessels", "Vessels", row.vessels, tuple(v.value for v in Vessels)),
        _choice("disc", "Disc", row.disc or _NO_DISC, (_NO_DISC, *(disc.value for disc in Disc))),
        _moment("at", "Candled", row.seen_s),
    ),
    clutches.BoxMove: lambda row: (
        _choice("place", "Stands on", _place_of(row.shelf_id), tuple(_places())),
        _moment("at", "Moved", row.from_s),
    ),
    hatching.Pip: lambda row: (_moment("at", "Pip seen", row.seen_s),),
    hatching.Emergence: lambda row: (_moment("at", "Seen out", row.seen_s),),
    hatching.Cut: lambda row: (
        RecordField("reason", "Why it was cut", FieldKind.TEXT, row.reason),
        _moment("at", "Cut", row.at_s),
    ),
    hatching.Shed: lambda row: (_moment("at", "Shed", row.seen_s),),
    animals.Tub: lambda row: (
        RecordField("name", "Tub", FieldKind.TEXT, row.name),
        _moment("at", "Since", row.from_s),
    ),
    animals.Departure: lambda row: (
        _choice("how", "How it left", row.how, tuple(how.value for how in Departure)),
        RecordField("note", "In your own words", FieldKind.TEXT, row.note, required=False),
        _moment("at", "Left", row.at_s),
    ),
    hatching.Alteration: lambda row: (
        RecordField("what", "What was altered", FieldKind.TEXT, row.what),
        _moment("at", "Done", row.at_s),
    ),
    house.SetPoint: lambda row: (
        RecordField("temperature_c", "Set to", FieldKind.CELSIUS, row.temperature_c),
        _moment("at", "Since", row.from_s),
    ),
}


def _weight(row: animals.Weight, said: Answers, now_s: float) -> Act:
    mass_g, at_s = said.number("mass_g"), said.moment("at")
    if _is_hatchling(row.animal_id):
        return weigh_hatchling(row.animal_id, mass_g, at_s, now_s)
    return weigh(row.animal_id, mass_g, at_s, now_s, confirmed=True)


def _meal(row: animals.Meal, said: Answers, now_s: float) -> Act:
    taken, at_s = said.choice("taken") == _TAKEN[0], said.moment("at")
    prey, mass_g = said.text("prey"), said.number_or_none("mass_g")
    if _is_hatchling(row.animal_id):
        return offer_first_meal(row.animal_id, MealCommand(taken, prey, mass_g), at_s, now_s)
    return offer_meal(row.animal_id, taken, prey, mass_g, at_s, now_s)


def _is_hatchling(entity: int) -> bool:
    return hatching.Hatchling.now(entity) is not None


def _grade(row: clutches.Turgor, said: Answers, now_s: float) -> Act:
    grade = GRADE_WORDS.index(said.choice("grade"))
    return grade_egg(*_egg(row.egg_id), grade, said.moment("at"), now_s)


def _candling(row: clutches.Candling, said: Answers, now_s: float) -> Act:
    chosen = said.choice("disc")
    disc = None if chosen == _NO_DISC else Disc(chosen)
    vessels = Vessels(said.choice("vessels"))
    return candle_egg(*_egg(row.egg_id), vessels, disc, said.moment("at"), now_s)


def _cut(row: hatching.Cut, said: Answers, now_s: float) -> Act:
    reason, at_s = said.text("reason"), said.moment("at")
    return cut_egg(*_egg(row.egg_id), reason, at_s, now_s, bled=bool(row.bled))


def _box_move(row: clutches.BoxMove, said: Answers, now_s: float) -> Act:
    place = _places()[said.choice("place")]
    return move_box(_box_name(row.box_id), *place, said.moment("at"), now_s)


def _set_point(row: house.SetPoint, said: Answers, now_s: float) -> Act:
    cabinet = _cabinet_name(row.cabinet_id)
    return change_set_point(cabinet, said.number("temperature_c"), said.moment("at"), now_s)


_AGAIN: Final[Mapping[type[Fact], Callable[[Any, Answers, float], Act]]] = {
    animals.Weight: _weight,
    animals.Meal: _meal,
    animals.Sign: lambda row, said, now_s: see_sign(
        row.dam_id, Sign(said.choice("sign")), said.moment("seen"), now_s
    ),
    animals.Lock: lambda row, said, now_s: see_lock(row.pairing_id, said.moment("seen"), now_s),
    clutches.Watering: lambda row, said, now_s: water_box(
        _box_name(row.box_id), said.number("water_g"), said.moment("at"), now_s
    ),
    clutches.Turgor: _grade,
    clutches.Candling: _candling,
    clutches.BoxMove: _box_move,
    hatching.Pip: lambda row, said, now_s: see_pip(*_egg(row.egg_id), said.moment("at"), now_s),
    hatching.Emergence: lambda row, said, now_s: see_emergence(
        *_egg(row.egg_id), said.moment("at"), now_s
    ),
    hatching.Cut: _cut,
    hatching.Shed: lambda row, said, now_s: see_shed(row.hatchling_id, said.moment("at"), now_s),
    animals.Tub: lambda row, said, now_s: put_in_tub(
        row.animal_id, said.text("name"), said.moment("at"), now_s
    ),
    animals.Departure: lambda row, said, now_s: leave_house(
        row.animal_id,
        Departure(said.choice("how")),
        said.text("note"),
        said.moment("at"),
        now_s,
    ),
    hatching.Alteration: lambda row, said, now_s: alter_cabinet(
        _cabinet_name(row.cabinet_id), said.text("what"), said.moment("at"), now_s
    ),
    house.SetPoint: _set_point,
}


def _egg(entity: int) -> tuple[str, int]:
    """Code of the clutch and number of an egg."""
    egg = clutches.Egg.now(entity)
    clutch = clutches.Clutch.now(egg.clutch_id) if egg else None
    if egg is None or clutch is None:
        raise NotFound("the egg of that is no more")
    return clutch.code, egg.number


def _box_name(entity: int) -> str:
    box = clutches.Box.now(entity)
    if box is None:
        raise NotFound("the box of that is no more")
    return box.name


def _cabinet_name(entity: int) -> str:
    cabinet = house.Cabinet.now(entity)
    if cabinet is None:
        raise NotFound("the cabinet of that is no more")
    return cabinet.name


def _places() -> dict[str, tuple[str, str]]:
    """ "North, lower": cabinet and shelf, of every shelf there is."""
    cabinets = {cabinet.entity_id: cabinet.name for cabinet in house.Cabinet.current()}
    return {
        f"{cabinets[shelf.cabinet_id]}, {shelf.name}": (cabinets[shelf.cabinet_id], shelf.name)
        for shelf in sorted(house.Shelf.current(), key=lambda s: (s.cabinet_id, s.position))
        if shelf.cabinet_id in cabinets
    }


def _place_of(shelf_id: int) -> str:
    shelf = house.Shelf.now(shelf_id)
    return f"{_cabinet_name(shelf.cabinet_id)}, {shelf.name}" if shelf else ""
