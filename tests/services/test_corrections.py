"""What one act recorded, told anew: each thing at its fields, checked as when it was first told."""

from collections.abc import Callable
from functools import partial

import pytest

from boxes import now, visit
from samples import DAY_S, NOW_S, animal, close_clutch
from sandboa.core.candling import Vessels
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching import Fate
from sandboa.core.laying import Sign
from sandboa.records.animals import Meal, Pairing, Weight
from sandboa.records.facts import Act
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.log import log_about
from sandboa.services.acts.recording import undo
from sandboa.services.acts.single_records import SINGLE
from sandboa.services.animals.commands import offer_meal, weigh
from sandboa.services.animals.meals import MealCommand
from sandboa.services.boxes.commands import candle_egg, grade_egg, water_box
from sandboa.services.breeding.pairings import begin_pairing, see_lock, see_sign
from sandboa.services.cabinets.commands import (
    CabinetCommand,
    CabinetKind,
    alter_cabinet,
    change_set_point,
    correct_cabinet,
    move_box,
)
from sandboa.services.corrections.commands import correct_record, recorded_fields
from sandboa.services.corrections.fields import Value
from sandboa.services.hatching.egg_events import cut_egg, see_emergence, see_pip
from sandboa.services.hatching.hatchlings import HatchlingCommand, record_hatchling
from sandboa.services.hatching.raising import offer_first_meal, see_shed, weigh_hatchling
from sandboa.services.snapshot.cache import SnapshotCache

AGO = NOW_S - 2 * DAY_S
EARLIER = NOW_S - 3 * DAY_S


def values(act: Act) -> dict[str, Value]:
    return {field.name: field.value for field in recorded_fields(act.id)}


def _hatchling() -> int:
    see_pip("26-01", 2, NOW_S - 6 * DAY_S, NOW_S)
    see_emergence("26-01", 2, NOW_S - 5 * DAY_S, NOW_S)
    made, _ = record_hatchling("26-01", HatchlingCommand(2, mass_g=60.0, plain=True), NOW_S)
    return made


def _pairing() -> int:
    dam, sire = animal("dam", "Tansy"), animal("sire", "Marl")
    begin_pairing(dam, sire, NOW_S - 8 * DAY_S, NOW_S)
    (pairing,) = Pairing.current(dam_id=dam)
    return pairing.entity_id


#: What is recorded, which field is corrected to what, and what may not be said of it.
CASES: dict[str, tuple[Callable[[], Act], dict[str, Value], dict[str, Value]]] = {
    "weight": (
        lambda: weigh(animal("dam", "Tansy"), 1500.0, AGO, NOW_S),
        {"mass_g": 1550.0, "at": EARLIER},
        {"mass_g": 5.0},
    ),
    "a hatchling's weight": (
        lambda: weigh_hatchling(_hatchling(), 62.0, AGO, NOW_S),
        {"mass_g": 64.0},
        {"mass_g": 900.0},
    ),
    "meal": (
        lambda: offer_meal(animal("dam", "Tansy"), True, "rat", 60.0, AGO, NOW_S),
        {"taken": "refused", "mass_g": None},
        {"taken": "perhaps"},
    ),
    "a hatchling's meal": (
        lambda: offer_first_meal(_hatchling(), MealCommand(True, "rat", 9.0), AGO, NOW_S),
        {"prey": "mouse"},
        {"mass_g": -3.0},
    ),
    "sign": (
        lambda: see_sign(animal("dam", "Tansy"), Sign.OFF_FOOD, AGO, NOW_S),
        {"sign": "ovulation", "seen": EARLIER},
        {"seen": NOW_S + DAY_S},
    ),
    "lock": (lambda: see_lock(_pairing(), AGO, NOW_S), {"seen": EARLIER}, {"seen": AGO - 9e6}),
    "water": (
        lambda: water_box("26-01", 30.0, AGO, NOW_S),
        {"water_g": 40.0, "at": EARLIER},
        {"water_g": -4.0},
    ),
    "dents": (
        lambda: grade_egg("26-01", 1, 1, AGO, NOW_S),
        {"grade": "clear dents"},
        {"at": AGO - 60 * DAY_S},
    ),
    "candling": (
        lambda: candle_egg("26-01", 1, Vessels.WEAK, None, AGO, NOW_S),
        {"vessels": "strong", "disc": "top"},
        {"vessels": "many"},
    ),
    "move": (
        partial(move_box, "26-01", "North", "upper", AGO, NOW_S),
        {"place": "North, lower", "at": EARLIER},
        {"place": "South, lower"},
    ),
    "pip": (lambda: see_pip("26-01", 1, AGO, NOW_S), {"at": EARLIER}, {"at": NOW_S + DAY_S}),
    "emergence": (
        lambda: see_emergence("26-01", 1, AGO, NOW_S),
        {"at": EARLIER},
        {"at": AGO - 60 * DAY_S},
    ),
    "cut": (
        lambda: cut_egg("26-01", 1, "siblings out", AGO, NOW_S),
        {"reason": "on a set day"},
        {"reason": " "},
    ),
    "shed": (lambda: see_shed(_hatchling(), AGO, NOW_S), {"at": EARLIER}, {"at": NOW_S + DAY_S}),
    "alteration": (
        lambda: alter_cabinet("North", "drilled", AGO, NOW_S),
        {"what": "sealed"},
        {"what": ""},
    ),
    "set point": (
        lambda: change_set_point("North", 31.0, AGO, NOW_S),
        {"temperature_c": 30.5, "at": EARLIER},
        {"temperature_c": 77.0},
    ),
}


@pytest.fixture
def two_shelves(six: SnapshotCache) -> SnapshotCache:
    correct_cabinet("North", CabinetCommand("North", CabinetKind.BOUGHT, ("upper", "lower")), NOW_S)
    return six


@pytest.mark.parametrize("thing", CASES)
def test_it_is_told_as_it_was_corrected_and_that_undone(
    two_shelves: SnapshotCache, thing: str
) -> None:
    record, changed, wrong = CASES[thing]
    first = record()
    held = values(first)
    assert held.keys() >= changed.keys()
    with pytest.raises(NotPlausible):
        correct_record(first.id, wrong, NOW_S)
    assert values(first) == held
    corrected = correct_record(first.id, changed, NOW_S)
    assert values(corrected) == {**held, **changed}
    assert str(corrected.said).startswith("Corrected: ")
    assert corrected.kind == first.kind
    with pytest.raises(Conflict, match="since"):
        recorded_fields(first.id)
    again = correct_record(corrected.id, held, NOW_S)
    assert values(again) == held
    undo(again.id, NOW_S)
    assert values(corrected) == {**held, **changed}
    undo(corrected.id, NOW_S)
    assert values(first) == held
    standing = {row.id for row in SINGLE[first.kind].current()}
    undo(first.id, NOW_S)
    assert len(standing) == len(SINGLE[first.kind].current()) + 1


def test_undone_again_the_first_value_holds(six: SnapshotCache) -> None:
    dam = animal("dam", "Tansy")
    first = weigh(dam, 1500.0, AGO, NOW_S)
    corrected = correct_record(first.id, {"mass_g": 1550.0}, NOW_S)
    assert [row.mass_g for row in Weight.current(animal_id=dam)] == [1550.0]
    undo(corrected.id, NOW_S)
    assert [row.mass_g for row in Weight.current(animal_id=dam)] == [1500.0]
    assert [(e.act.kind, e.single) for e in log_about(dam)][:2] == [
        ("undo", False),
        ("weigh", False),
    ]


def test_what_cannot_be_corrected_so_says_where_it_can(six: SnapshotCache) -> None:
    laid = log_about(six.current().clutches[0].entity_id)[0].act
    with pytest.raises(Conflict, match="own page"):
        recorded_fields(laid.id)
    with pytest.raises(Conflict, match="own page"):
        recorded_fields(visit("one", days_ago=1.0).act.id)
    with pytest.raises(NotFound):
        recorded_fields(9_999)
    meal = offer_meal(animal("dam", "Tansy"), True, "rat", None, AGO, NOW_S)
    with pytest.raises(NotPlausible, match="to correct here"):
        correct_record(meal.id, {"colour": "brown"}, NOW_S)
    undo(meal.id, NOW_S)
    with pytest.raises(Conflict, match="undone"):
        recorded_fields(meal.id)
    assert Meal.current() == []


def test_a_corrected_pip_moves_what_is_made_of_it(six: SnapshotCache) -> None:
    pip = see_pip("26-01", 1, AGO, NOW_S)
    correct_record(pip.id, {"at": EARLIER}, NOW_S)
    assert now(six).eggs[0].pipped_s == EARLIER


def test_a_pip_of_a_closed_clutch_stays(six: SnapshotCache) -> None:
    pip = see_pip("26-01", 1, AGO, NOW_S)
    close_clutch("26-01", NOW_S, egg1=Fate.HATCHED_DIED)
    with pytest.raises(Conflict, match="closed"):
        correct_record(pip.id, {"at": EARLIER}, NOW_S)
