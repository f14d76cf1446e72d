"""Dams and sires on a real database: weighed, paired, forecast, cared for; undo of all of it."""

from datetime import UTC, datetime

import pytest

from samples import DAY_S, NOW_S, animal, lay_day
from sandboa.core.animals import TraitForm
from sandboa.core.dam_care import AftercareTask, TubSchool
from sandboa.core.errors import NotPlausible
from sandboa.core.lay_day import Lump
from sandboa.core.laying import PreparationTask, Sign
from sandboa.core.methods import STANDARD
from sandboa.records.house import Task
from sandboa.services.acts.errors import Conflict, NotFound, Question
from sandboa.services.acts.recording import undo
from sandboa.services.animals.commands import (
    AnimalCommand,
    correct_animal,
    offer_meal,
    weigh,
)
from sandboa.services.animals.traits import TraitCommand
from sandboa.services.breeding.aftercare import dams_after_laying, last_clutch
from sandboa.services.breeding.commands import tick_aftercare, tick_preparation
from sandboa.services.breeding.lay_windows import lay_season
from sandboa.services.breeding.pairings import (
    begin_pairing,
    drop_pair,
    end_pairing,
    plan_pair,
    see_lock,
    see_sign,
)
from sandboa.services.lay_day import lay_clutch
from sandboa.services.snapshot.cache import SnapshotCache
from sandboa.services.snapshot.settings import house_settings, set_setting

MONTH_S = 30 * DAY_S


@pytest.fixture
def pair(house: SnapshotCache) -> tuple[int, int]:
    """Costmary and Chert, strangers so far."""
    return animal("dam", "Costmary"), animal("sire", "Chert")


def test_an_animal_is_corrected_trait_by_trait_and_undone(house: SnapshotCache) -> None:
    traits = [TraitCommand("Cypress", TraitForm.VISUAL), TraitCommand("Puzzle", TraitForm.POSSIBLE)]
    sorrel = animal("dam", "Sorrel", hatch_year=2019, traits=traits)
    better = [
        TraitCommand("Puzzle", TraitForm.ONE_COPY),
        TraitCommand("Mahogany", TraitForm.VISUAL),
    ]
    said = AnimalCommand("dam", "Sorrel", code="S1", hatch_year=2019, traits=better)
    correcting = correct_animal(sorrel, said, NOW_S)
    told = {t.name: t.form for t in house.current().herd.traits[sorrel]}
    assert told == {"Puzzle": "one copy", "Mahogany": "visual"}
    undo(correcting.id, NOW_S)
    told = {t.name: t.form for t in house.current().herd.traits[sorrel]}
    assert told == {"Cypress": "visual", "Puzzle": "possible"}
    assert house.current().herd.animals[sorrel].code is None


def test_names_codes_and_parents_that_cannot_be(house: SnapshotCache, pair) -> None:
    dam, sire = pair
    with pytest.raises(Conflict, match="Costmary already"):
        animal("sire", "costmary")
    daughter = animal("dam", "Sorrel", dam=dam, sire=sire)
    with pytest.raises(NotPlausible, match="descended from Costmary itself"):
        correct_animal(dam, AnimalCommand("dam", "Costmary", dam=daughter), NOW_S)
    with pytest.raises(NotPlausible, match="Chert is a sire, not a dam"):
        animal("dam", "Tansy", dam=sire)
    with pytest.raises(NotPlausible, match="hatch year 2031"):
        animal("dam", "Tansy", hatch_year=2031)
    with pytest.raises(Conflict, match="cannot change"):
        correct_animal(dam, AnimalCommand("sire", "Costmary"), NOW_S)
    with pytest.raises(NotFound):
        correct_animal(9999, AnimalCommand("dam", "Nobody"), NOW_S)


def test_a_leap_in_weight_is_asked_about_once(house: SnapshotCache, pair) -> None:
    dam, _ = pair
    weigh(dam, 1850.0, NOW_S - MONTH_S, NOW_S)
    with pytest.raises(Question, match="1850 g before, now 850 g") as asked:
        weigh(dam, 850.0, NOW_S, NOW_S)
    assert asked.value.confirm == "confirmed"
    weigh(dam, 850.0, NOW_S, NOW_S, confirmed=True)
    with pytest.raises(NotPlausible, match="no weight of an adult"):
        weigh(dam, 12.0, NOW_S, NOW_S)
    with pytest.raises(NotPlausible, match="future"):
        weigh(dam, 1850.0, NOW_S + DAY_S, NOW_S)
    assert [w.mass_g for w in house.current().herd.weights[dam]] == [1850.0, 850.0]


def test_a_visit_a_lock_and_the_plan_that_follows(house: SnapshotCache, pair) -> None:
    dam, sire = pair
    tansy = animal("dam", "Tansy")
    began = NOW_S - 10 * DAY_S
    visit, _ = begin_pairing(dam, sire, began, NOW_S)
    with pytest.raises(Conflict, match="Costmary and Chert are together"):
        begin_pairing(tansy, sire, NOW_S, NOW_S)
    see_lock(visit, began + 3600, NOW_S)
    with pytest.raises(NotPlausible, match="not together then"):
        see_lock(visit, began - 3600, NOW_S)
    end_pairing(visit, began + 2 * DAY_S, NOW_S)
    plan_pair(tansy, sire, NOW_S)
    plan = lay_season(house.current().herd, NOW_S).plan
    assert [(p.dam, round((p.visit.from_s - NOW_S) / DAY_S)) for p in plan] == [
        ("Tansy", 0),
        ("Costmary", 15),
    ]
    assert plan[0].warnings == ("Tansy has no weight recorded: weigh her before pairing.",)
    set_setting("visit_interval_days", 30.0, NOW_S)
    assert (
        round((lay_season(house.current().herd, NOW_S).plan[1].visit.from_s - NOW_S) / DAY_S) == 20
    )
    drop_pair(tansy, sire, NOW_S)
    assert len(lay_season(house.current().herd, NOW_S).plan) == 1
    # An ovulation ends the pairings of that dam.
    see_sign(dam, Sign.OVULATION, NOW_S, NOW_S)
    assert lay_season(house.current().herd, NOW_S).plan == ()


def test_more_dams_than_one_sire_should_have_and_a_dam_too_light(house: SnapshotCache) -> None:
    flint = animal("sire", "Flint")
    for name in ("Sorrel", "Tansy", "Yarrow", "Lovage", "Chervil"):
        dam = animal("dam", name)
        weigh(dam, 1400.0, NOW_S, NOW_S)
        plan_pair(dam, flint, NOW_S)
    warnings = lay_season(house.current().herd, NOW_S).plan[0].warnings
    assert any("below your minimum of 1500 g" in w for w in warnings)
    assert any("Flint is planned for 5 dams" in w for w in warnings)
    set_setting("lightest_dam_g", 1300.0, NOW_S)
    set_setting("most_dams_per_sire", 5.0, NOW_S)
    assert lay_season(house.current().herd, NOW_S).plan[0].warnings == ()
    with pytest.raises(NotPlausible, match="outside 500 to 5000"):
        set_setting("lightest_dam_g", 50.0, NOW_S)
    assert house_settings()["lightest_dam_g"] == 1300.0


def test_the_shed_overrides_and_the_list_counts_back_from_it(house: SnapshotCache, pair) -> None:
    dam, _ = pair
    see_sign(dam, Sign.OVULATION, NOW_S - 20 * DAY_S, NOW_S)
    (told,) = lay_season(house.current().herd, NOW_S).dams
    assert told.forecast.sign is Sign.OVULATION
    see_sign(dam, Sign.PRE_LAY_SHED, NOW_S - 2 * DAY_S, NOW_S)
    (told,) = lay_season(house.current().herd, NOW_S).dams
    assert told.forecast.sign is Sign.PRE_LAY_SHED
    assert (told.forecast.window.p50 - NOW_S) / DAY_S == pytest.approx(28.0, abs=0.1)
    assert told.learned_words is None
    nest = told.preparations[0]
    assert nest.line.task is PreparationTask.NEST
    assert not nest.due(NOW_S)
    assert nest.due(nest.line.from_s)
    ticking = tick_preparation(dam, PreparationTask.NEST, True, NOW_S)
    assert lay_season(house.current().herd, NOW_S).dams[0].preparations[0].done_s == int(NOW_S)
    undo(ticking.id, NOW_S)
    assert lay_season(house.current().herd, NOW_S).dams[0].preparations[0].done_s is None


def test_the_house_learns_from_its_own_clutches(house: SnapshotCache) -> None:
    lay_clutch(lay_day(0.5, dam="Sorrel"), NOW_S)
    sorrel = next(a.entity_id for a in house.current().herd.animals.values() if a.name == "Sorrel")
    see_sign(sorrel, Sign.PRE_LAY_SHED, NOW_S - 38.5 * DAY_S, NOW_S)
    costmary = animal("dam", "Costmary")
    see_sign(costmary, Sign.PRE_LAY_SHED, NOW_S, NOW_S)
    told = next(d for d in lay_season(house.current().herd, NOW_S).dams if d.name == "Costmary")
    assert (
        told.learned_words == "Based on 1 clutch of yours, none of hers: 1.2 days later than usual."
    )
    assert (told.forecast.window.p50 - NOW_S) / DAY_S == pytest.approx(31.2, abs=0.05)
    # A sign that belongs to a clutch already laid forecasts nothing any more.
    assert (
        next(d for d in lay_season(house.current().herd, NOW_S).dams if d.name == "Sorrel").forecast
        is None
    )


def test_a_dam_after_laying_is_followed_until_she_is_back(house: SnapshotCache) -> None:
    code, _ = lay_clutch(lay_day(22.0, dam="Sorrel"), NOW_S)
    sorrel = next(a.entity_id for a in house.current().herd.animals.values() if a.name == "Sorrel")
    weigh(sorrel, 1900.0, NOW_S - 120 * DAY_S, NOW_S)
    weigh(sorrel, 1300.0, NOW_S - 21.5 * DAY_S, NOW_S)
    (told,) = dams_after_laying(house.current().herd, NOW_S)
    assert (told.clutch, told.before_g, told.target_g) == (code, 1900.0, 1900.0)
    assert told.flags == (
        "Sorrel has taken nothing since laying, 22 days ago. Offer smaller prey, warmer; "
        "thin or weak, she is a case for a reptile vet.",
    )
    offer_meal(sorrel, False, "small rat", 60.0, NOW_S - 2 * DAY_S, NOW_S)
    assert dams_after_laying(house.current().herd, NOW_S)[0].flags
    offer_meal(sorrel, True, "", None, NOW_S - DAY_S, NOW_S)
    weigh(sorrel, 1260.0, NOW_S, NOW_S)
    (told,) = dams_after_laying(house.current().herd, NOW_S)
    assert told.flags == (
        "Sorrel is still losing weight after laying. Look at her; weak, she is a case for "
        "a reptile vet.",
    )
    clutch = last_clutch(house.current().herd, sorrel)
    with pytest.raises(NotPlausible):
        tick_aftercare(clutch, AftercareTask.RINSE, NOW_S, clutch.laid_s - DAY_S)
    with pytest.raises(NotPlausible):
        tick_aftercare(clutch, AftercareTask.RINSE, NOW_S, NOW_S + DAY_S)
    tick_aftercare(clutch, AftercareTask.RINSE, NOW_S, clutch.laid_s + 60.0)
    assert Task.only(name=AftercareTask.RINSE.value).done_s == clutch.laid_s + 60
    with pytest.raises(NotPlausible, match="already"):
        tick_aftercare(clutch, AftercareTask.RINSE, NOW_S)
    with pytest.raises(NotPlausible, match="record the weight"):
        tick_aftercare(clutch, AftercareTask.WEIGH, NOW_S)
    done = {i.task for i in dams_after_laying(house.current().herd, NOW_S)[0].items if i.done_s}
    assert done == {AftercareTask.RINSE, AftercareTask.WEIGH, AftercareTask.FIRST_MEAL}


def test_her_target_is_the_weight_before_pairing_else_the_keepers_minimum(house, pair) -> None:
    dam, sire = pair
    for days_ago, mass_g in ((200, 1700.0), (100, 2100.0)):
        weigh(dam, mass_g, NOW_S - days_ago * DAY_S, NOW_S)
    begin_pairing(dam, sire, NOW_S - 150 * DAY_S, NOW_S, NOW_S - 148 * DAY_S)
    lay_clutch(lay_day(1.0, dam="Costmary", sire="Chert"), NOW_S)
    (told,) = dams_after_laying(house.current().herd, NOW_S)
    assert told.target_g == 1700.0
    lay_clutch(lay_day(1.0, dam="Tansy", sire="Chert"), NOW_S)
    tansy = next(d for d in dams_after_laying(house.current().herd, NOW_S) if d.name == "Tansy")
    assert (tansy.before_g, tansy.target_g) == (None, 1500.0)


def test_undoing_her_first_clutch_leaves_a_dam_who_was_weighed(house: SnapshotCache) -> None:
    _, laying = lay_clutch(lay_day(5.0, dam="Sorrel"), NOW_S)
    sorrel = next(a.entity_id for a in house.current().herd.animals.values() if a.name == "Sorrel")
    weigh(sorrel, 1300.0, NOW_S, NOW_S)
    undo(laying.id, NOW_S)
    assert house.current().herd.animals[sorrel].name == "Sorrel"
    assert dams_after_laying(house.current().herd, NOW_S) == []


def test_an_aftercare_that_is_over_ends_though_she_is_not_back_to_weight(
    house: SnapshotCache,
) -> None:
    lay_clutch(lay_day(20.0, lump=Lump.UNSURE), NOW_S)
    clutch = house.current().clutches[0]
    weigh(clutch.dam_id, 1200.0, NOW_S - 15 * DAY_S, NOW_S)
    over = tick_aftercare(clutch, AftercareTask.OVER, NOW_S)
    (told,) = dams_after_laying(house.current().herd, NOW_S)
    assert "whether a lump was left" in told.flags[0], "an egg may still be left in her"
    seen = tick_aftercare(clutch, AftercareTask.VET, NOW_S)
    assert dams_after_laying(house.current().herd, NOW_S) == []
    undo(over.id, NOW_S)
    (told,) = dams_after_laying(house.current().herd, NOW_S)
    assert not any("lump" in flag for flag in told.flags)
    undo(seen.id, NOW_S)
    (told,) = dams_after_laying(house.current().herd, NOW_S)
    assert "lump" in told.flags[0]


def test_the_tub_school_is_that_of_the_clutchs_own_method(house: SnapshotCache) -> None:
    from dataclasses import replace

    method = replace(STANDARD, tub=TubSchool.REST_FIRST)
    lay_clutch(lay_day(1.0, method=method), NOW_S)
    (told,) = dams_after_laying(house.current().herd, NOW_S)
    clean = next(i for i in told.items if i.task is AftercareTask.CLEAN)
    assert clean.from_s == datetime.fromtimestamp(NOW_S, UTC).timestamp() + 6 * DAY_S


def test_a_dam_in_whom_an_egg_may_be_left_is_followed_until_somebody_felt_her(
    house: SnapshotCache,
) -> None:
    lay_clutch(lay_day(150.0, lump=Lump.LEFT), NOW_S)
    lay_clutch(lay_day(150.0, dam="Tansy", lump=Lump.NONE), NOW_S)
    (followed,) = dams_after_laying(house.current().herd, NOW_S)
    assert followed.name == "Sorrel"
    assert "A retained egg is dangerous" in followed.flags[0]
    tick_aftercare(last_clutch(house.current().herd, followed.dam), AftercareTask.FEEL, NOW_S)
    assert dams_after_laying(house.current().herd, NOW_S) == []
