"""What one act recorded, told anew: each thing at its fields, checked as when it was first told."""

from collections.abc import Callable
from functools import partial

import pytest

from boxes import now, visit
from samples import DAY_S, NOW_S, animal, close_clutch
from sandboa.core.box import BoxKind
from sandboa.core.candling import Vessels
from sandboa.core.climate.probe_checks import reference_check, salt_check
from sandboa.core.dam_care import AftercareTask
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching import Fate
from sandboa.core.laying import Sign
from sandboa.records.animals import Lock, Meal, Pairing, Weight
from sandboa.records.clutches import Clutch
from sandboa.records.facts import Act
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.log import log_about
from sandboa.services.acts.preconditions import clutch_called
from sandboa.services.acts.recording import undo
from sandboa.services.acts.single_records import tables_of
from sandboa.services.animals.commands import offer_meal, weigh
from sandboa.services.animals.meals import MealCommand
from sandboa.services.boxes.commands import candle_egg, grade_egg, water_box
from sandboa.services.boxes.set_up import BoxCommand, add_box, put_away
from sandboa.services.breeding.commands import tick_aftercare
from sandboa.services.breeding.pairings import begin_pairing, see_lock, see_sign
from sandboa.services.cabinets.commands import (
    CabinetCommand,
    CabinetKind,
    alter_cabinet,
    change_set_point,
    correct_cabinet,
    move_box,
)
from sandboa.services.clutches.photos import PhotoCommand, Picture, attach
from sandboa.services.corrections.commands import correct_record, recorded_fields
from sandboa.services.corrections.fields import Value
from sandboa.services.hatching.egg_events import cut_egg, see_emergence, see_pip
from sandboa.services.hatching.fates import FateCommand, declare_fates
from sandboa.services.hatching.hatchlings import HatchlingCommand, record_hatchling
from sandboa.services.hatching.raising import offer_first_meal, see_shed, weigh_hatchling
from sandboa.services.notes.commands import write_note
from sandboa.services.probes.commands import (
    ProbePlace,
    check_probe,
    hang_probe,
    leave_out,
    move_probe,
)
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


def _clutch() -> Clutch:
    return clutch_called("26-01")


def _fate(said: FateCommand) -> Act:
    return declare_fates("26-01", [said], AGO, NOW_S)


def _closed() -> Act:
    close_clutch("26-01", NOW_S, egg1=Fate.HATCHED_DIED)
    return log_about(_clutch().entity_id)[0].act


def _probe() -> int:
    probe, _ = hang_probe("Worn", ProbePlace(cabinet="North"), NOW_S - 9 * DAY_S, NOW_S)
    return probe.entity_id


def _photo_of(owner: int, egg: int | None = None) -> Act:
    picture = Picture(b"large", b"small", 40, 30)
    return attach(PhotoCommand(owner, picture, AGO, egg), NOW_S)[1]


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
    "fate": (
        lambda: _fate(FateCommand(1, Fate.DEAD_IN_EGG)),
        {"stage": "full term", "at": EARLIER},
        {"fate": "sold"},
    ),
    "closing": (lambda: _closed(), {"at": AGO}, {"at": NOW_S + DAY_S}),
    "tick": (
        lambda: tick_aftercare(_clutch(), AftercareTask.RINSE, NOW_S, AGO),
        {"at": EARLIER},
        {"at": NOW_S - 60 * DAY_S},
    ),
    "check beside a reference": (
        lambda: check_probe(_probe(), reference_check(AGO, 31.2, 31.6), NOW_S),
        {"shown": 31.1, "expected": 31.5, "at": EARLIER},
        {"expected": 58.0},
    ),
    "check over salt": (
        lambda: check_probe(_probe(), salt_check(AGO, 0.72), NOW_S),
        {"shown": 77.0},
        {"shown": 7.0},
    ),
    "readings left out": (
        lambda: leave_out(_probe(), EARLIER, AGO, "wet", NOW_S),
        {"reason": "knocked", "until": NOW_S},
        {"until": EARLIER - 1},
    ),
    "where a probe first hung": (
        lambda: hang_probe("Late", ProbePlace("26-01"), EARLIER, NOW_S)[1],
        {"place": "North, upper", "at": AGO},
        {"place": "South"},
    ),
    "where a probe was hung": (
        lambda: move_probe(_probe(), ProbePlace("26-01"), AGO, NOW_S),
        {"place": "North", "at": EARLIER},
        {"at": NOW_S - 15 * DAY_S},
    ),
    "a probe taken down": (
        lambda: move_probe(_probe(), None, AGO, NOW_S),
        {"at": EARLIER},
        {"place": "at home"},
    ),
    "pairing": (
        lambda: begin_pairing(
            animal("dam", "Tansy"), animal("sire", "Marl"), EARLIER, NOW_S, until_s=AGO
        )[1],
        {"until": None},
        {"until": EARLIER - DAY_S},
    ),
    "photo of an egg": (
        lambda: _photo_of(_clutch().entity_id, 2),
        {"of": "egg 3"},
        {"of": "egg 9"},
    ),
    "photo of a dam": (
        lambda: _photo_of(animal("dam", "Tansy")),
        {"at": EARLIER},
        {"at": NOW_S + DAY_S},
    ),
    "note": (
        lambda: write_note(_clutch().entity_id, "Two lines,\nboth kept.", AGO, NOW_S)[1],
        {"text": "Three\nlines\nnow", "at": EARLIER},
        {"text": " "},
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
    standing = _recorded(first.kind)
    undo(first.id, NOW_S)
    assert _recorded(first.kind) == standing - 1


def _recorded(kind: str) -> int:
    return sum(len(table.current()) for table in tables_of(kind))


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


def test_a_pairing_corrected_keeps_its_locks_and_counts_them(six: SnapshotCache) -> None:
    pairing = _pairing()
    begun = log_about(pairing)[0].act
    see_lock(pairing, AGO, NOW_S)
    with pytest.raises(NotPlausible, match="not together then"):
        correct_record(begun.id, {"until": EARLIER}, NOW_S)
    moved = correct_record(begun.id, {"until": EARLIER, "lock": EARLIER - 60}, NOW_S)
    assert [lock.seen_s for lock in Lock.current(pairing_id=pairing)] == [EARLIER - 60]
    undo(moved.id, NOW_S)
    see_lock(pairing, AGO + 60, NOW_S)
    with pytest.raises(NotPlausible, match="correct the lock first"):
        correct_record(begun.id, {"until": AGO + 30}, NOW_S)
    corrected = correct_record(begun.id, {"from": NOW_S - 9 * DAY_S, "until": NOW_S}, NOW_S)
    (stands,) = Pairing.current(entity_id=pairing)
    assert (stands.from_s, stands.until_s) == (NOW_S - 9 * DAY_S, NOW_S)
    assert [lock.seen_s for lock in Lock.current(pairing_id=pairing)] == [AGO, AGO + 60]
    undo(corrected.id, NOW_S)
    assert Pairing.current(entity_id=pairing)[0].until_s is None


def test_together_again_only_where_neither_is_with_another(six: SnapshotCache) -> None:
    her, him = animal("dam", "Tansy"), animal("sire", "Marl")
    _, over = begin_pairing(her, him, EARLIER, NOW_S, until_s=AGO)
    begin_pairing(animal("dam", "Yarrow"), him, AGO, NOW_S)
    with pytest.raises(Conflict, match="part them first"):
        correct_record(over.id, {"until": None}, NOW_S)


def test_a_probe_hung_first_after_a_check_of_it_is_refused(two_shelves: SnapshotCache) -> None:
    probe = _probe()
    hung = next(e.act for e in log_about(probe))
    check_probe(probe, reference_check(EARLIER, 31.2, 31.4), NOW_S)
    with pytest.raises(NotPlausible, match="checked before"):
        correct_record(hung.id, {"at": AGO}, NOW_S)
    move_probe(probe, ProbePlace("26-01"), EARLIER - DAY_S, NOW_S)
    with pytest.raises(NotPlausible, match="hung elsewhere"):
        correct_record(hung.id, {"at": AGO}, NOW_S)


def test_a_probe_in_a_box_put_away_keeps_its_place_while_its_time_changes(
    two_shelves: SnapshotCache,
) -> None:
    spare = BoxCommand(
        name="Spare", kind=BoxKind.OTHER_SPECIES, shelf=("North", "upper"), species="gecko"
    )
    add_box(spare, EARLIER, NOW_S)
    _, hung = hang_probe("In it", ProbePlace("Spare"), AGO, NOW_S)
    put_away("Spare", NOW_S, NOW_S)
    corrected = correct_record(hung.id, {"at": EARLIER}, NOW_S)
    assert values(corrected)["place"] == "box Spare"


def test_the_fates_of_several_eggs_are_corrected_where_fates_are_said(six: SnapshotCache) -> None:
    said = [FateCommand(1, Fate.DEAD_IN_EGG), FateCommand(2, Fate.DEAD_IN_EGG)]
    both = declare_fates("26-01", said, AGO, NOW_S)
    with pytest.raises(Conflict, match="several things"):
        recorded_fields(both.id)
