"""For each thing that is recorded alone: its fields, and the command that records it again.

A thing is checked by the command that first recorded it, as if it had never been told.
"""

from collections.abc import Callable, Mapping
from typing import Any, Final

from sandboa.core.candling import Disc, Vessels
from sandboa.core.climate.probe_checks import CheckKind, reference_check, salt_check
from sandboa.core.dimples.advice import GRADE_WORDS
from sandboa.core.hatching import DeathStage, Fate
from sandboa.core.hatching.raising import Departure
from sandboa.core.laying import Sign
from sandboa.records import animals, clutches, hatching, house
from sandboa.records.facts import Act, Fact
from sandboa.services.animals.commands import offer_meal, weigh
from sandboa.services.animals.leaving import leave_house, put_in_tub
from sandboa.services.animals.meals import MealCommand
from sandboa.services.boxes.commands import candle_egg, grade_egg, water_box
from sandboa.services.breeding.pairings import see_lock, see_sign
from sandboa.services.cabinets.commands import alter_cabinet, change_set_point, move_box
from sandboa.services.corrections.fields import (
    Answers,
    FieldKind,
    Fields,
    RecordField,
    choice_field,
    grams_field,
    moment_field,
)
from sandboa.services.corrections.things import (
    box_name,
    cabinet_name,
    clutch_code,
    code_and_number,
    shelf_words,
    shelves,
)
from sandboa.services.hatching.egg_events import cut_egg, see_emergence, see_pip
from sandboa.services.hatching.fates import FateCommand, declare_fates, finish
from sandboa.services.hatching.raising import offer_first_meal, see_shed, weigh_hatchling
from sandboa.services.probes.commands import check_probe, leave_out

#: What a disc is where it was not looked for.
_NO_DISC: Final = "not looked for"
#: What a stage of death is where nobody said.
_NO_STAGE: Final = "not said"
_STAGES: Final = (_NO_STAGE, *(stage.value for stage in DeathStage))
_TAKEN: Final = ("taken", "refused")


def fields_of(row: Any) -> Fields:
    """The fields of a recorded thing as it stands."""
    return _FIELDS[type(row)](row)


def tell_again(row: Any, answers: Answers, now_s: float) -> Act:
    """Record the thing anew, of what it was of; raises as the command for it does."""
    return _AGAIN[type(row)](row, answers, now_s)


_FIELDS: Final[Mapping[type[Fact], Callable[[Any], Fields]]] = {
    animals.Weight: lambda row: (
        grams_field("mass_g", "Weight, g", row.mass_g),
        moment_field("at", "Weighed", row.at_s),
    ),
    animals.Meal: lambda row: (
        choice_field("taken", "The meal was", _TAKEN[0 if row.taken else 1], _TAKEN),
        RecordField("prey", "Prey", FieldKind.TEXT, row.prey, required=False),
        grams_field("mass_g", "Its weight, g", row.mass_g, required=False),
        moment_field("at", "Offered", row.at_s),
    ),
    animals.Sign: lambda row: (
        choice_field("sign", "Signs seen", row.kind, tuple(sign.value for sign in Sign)),
        moment_field("seen", "Seen", row.seen_s),
    ),
    animals.Lock: lambda row: (moment_field("seen", "Lock seen", row.seen_s),),
    clutches.Watering: lambda row: (
        grams_field("water_g", "Water added, g", row.water_g),
        moment_field("at", "Poured", row.poured_s),
    ),
    clutches.Turgor: lambda row: (
        choice_field("grade", "Dents", GRADE_WORDS[row.grade], GRADE_WORDS),
        moment_field("at", "Seen", row.seen_s),
    ),
    clutches.Candling: lambda row: (
        choice_field("vessels", "Vessels", row.vessels, tuple(v.value for v in Vessels)),
        choice_field(
            "disc", "Disc", row.disc or _NO_DISC, (_NO_DISC, *(disc.value for disc in Disc))
        ),
        moment_field("at", "Candled", row.seen_s),
    ),
    clutches.BoxMove: lambda row: (
        choice_field("place", "Stands on", shelf_words(row.shelf_id), tuple(shelves())),
        moment_field("at", "Moved", row.from_s),
    ),
    hatching.Pip: lambda row: (moment_field("at", "Pip seen", row.seen_s),),
    hatching.Emergence: lambda row: (moment_field("at", "Seen out", row.seen_s),),
    hatching.Cut: lambda row: (
        RecordField("reason", "Why it was cut", FieldKind.TEXT, row.reason),
        moment_field("at", "Cut", row.at_s),
    ),
    hatching.EggFate: lambda row: (
        choice_field("fate", "What became of it", row.fate, tuple(fate.value for fate in Fate)),
        choice_field("stage", "Where it died", row.stage or _NO_STAGE, _STAGES),
        moment_field("at", "Seen", row.at_s),
    ),
    hatching.Finished: lambda row: (moment_field("at", "Closed", row.at_s),),
    hatching.Shed: lambda row: (moment_field("at", "Shed", row.seen_s),),
    animals.Tub: lambda row: (
        RecordField("name", "Tub", FieldKind.TEXT, row.name),
        moment_field("at", "Since", row.from_s),
    ),
    animals.Departure: lambda row: (
        choice_field("how", "How it left", row.how, tuple(how.value for how in Departure)),
        RecordField("note", "In your own words", FieldKind.TEXT, row.note, required=False),
        moment_field("at", "Left", row.at_s),
    ),
    hatching.Alteration: lambda row: (
        RecordField("what", "What was altered", FieldKind.TEXT, row.what),
        moment_field("at", "Done", row.at_s),
    ),
    house.ProbeCheck: lambda row: (
        *_check_fields(row),
        moment_field("at", "Checked", row.at_s),
    ),
    house.LeftOut: lambda row: (
        RecordField("reason", "Why", FieldKind.TEXT, row.reason, required=False),
        moment_field("from", "Left out from", row.from_s),
        moment_field("until", "Until", row.until_s),
    ),
    house.SetPoint: lambda row: (
        RecordField("temperature_c", "Set to", FieldKind.CELSIUS, row.temperature_c),
        moment_field("at", "Since", row.from_s),
    ),
}


def _check_fields(row: house.ProbeCheck) -> Fields:
    if row.kind == CheckKind.SALT:
        return (RecordField("shown", "It showed, %", FieldKind.PERCENT, 100.0 * row.shown),)
    return (
        RecordField("shown", "It showed", FieldKind.CELSIUS, row.shown),
        RecordField("expected", "The reference showed", FieldKind.CELSIUS, row.expected),
    )


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
    return grade_egg(*code_and_number(row.egg_id), grade, said.moment("at"), now_s)


def _candling(row: clutches.Candling, said: Answers, now_s: float) -> Act:
    chosen = said.choice("disc")
    disc = None if chosen == _NO_DISC else Disc(chosen)
    vessels = Vessels(said.choice("vessels"))
    return candle_egg(*code_and_number(row.egg_id), vessels, disc, said.moment("at"), now_s)


def _cut(row: hatching.Cut, said: Answers, now_s: float) -> Act:
    reason, at_s = said.text("reason"), said.moment("at")
    return cut_egg(*code_and_number(row.egg_id), reason, at_s, now_s, bled=bool(row.bled))


def _fate(row: hatching.EggFate, said: Answers, now_s: float) -> Act:
    code, number = code_and_number(row.egg_id)
    chosen = said.choice("stage")
    stage = None if chosen == _NO_STAGE else DeathStage(chosen)
    told = FateCommand(number, Fate(said.choice("fate")), stage)
    return declare_fates(code, [told], said.moment("at"), now_s)


def _check(row: house.ProbeCheck, said: Answers, now_s: float) -> Act:
    at_s, shown = said.moment("at"), said.number("shown")
    if row.kind == CheckKind.SALT:
        return check_probe(row.probe_id, salt_check(at_s, shown / 100.0), now_s)
    return check_probe(row.probe_id, reference_check(at_s, shown, said.number("expected")), now_s)


def _box_move(row: clutches.BoxMove, said: Answers, now_s: float) -> Act:
    place = shelves()[said.choice("place")]
    return move_box(box_name(row.box_id), *place, said.moment("at"), now_s)


def _set_point(row: house.SetPoint, said: Answers, now_s: float) -> Act:
    cabinet = cabinet_name(row.cabinet_id)
    return change_set_point(cabinet, said.number("temperature_c"), said.moment("at"), now_s)


_AGAIN: Final[Mapping[type[Fact], Callable[[Any, Answers, float], Act]]] = {
    animals.Weight: _weight,
    animals.Meal: _meal,
    animals.Sign: lambda row, said, now_s: see_sign(
        row.dam_id, Sign(said.choice("sign")), said.moment("seen"), now_s
    ),
    animals.Lock: lambda row, said, now_s: see_lock(row.pairing_id, said.moment("seen"), now_s),
    clutches.Watering: lambda row, said, now_s: water_box(
        box_name(row.box_id), said.number("water_g"), said.moment("at"), now_s
    ),
    clutches.Turgor: _grade,
    clutches.Candling: _candling,
    clutches.BoxMove: _box_move,
    hatching.Pip: lambda row, said, now_s: see_pip(
        *code_and_number(row.egg_id), said.moment("at"), now_s
    ),
    hatching.Emergence: lambda row, said, now_s: see_emergence(
        *code_and_number(row.egg_id), said.moment("at"), now_s
    ),
    hatching.Cut: _cut,
    hatching.EggFate: _fate,
    hatching.Finished: lambda row, said, now_s: finish(
        clutch_code(row.clutch_id), said.moment("at"), now_s
    ),
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
        cabinet_name(row.cabinet_id), said.text("what"), said.moment("at"), now_s
    ),
    house.ProbeCheck: _check,
    house.LeftOut: lambda row, said, now_s: leave_out(
        row.probe_id, said.moment("from"), said.moment("until"), said.text("reason"), now_s
    ),
    house.SetPoint: _set_point,
}
