"""What the house gathers by itself of a lost egg: from its box, its cabinet, its parents."""

import pytest

from samples import DAY_S, NOW_S, animal, close_clutch, lay_day
from sandboa.core.animals import TraitForm
from sandboa.core.box import Shell, usual_places
from sandboa.core.candling import Vessels
from sandboa.core.causes.evidence import LossEvidence
from sandboa.core.hatching import Fate
from sandboa.core.pairing.genes import DoubleForm, Inheritance
from sandboa.core.rounds import EggActKind
from sandboa.records.house import Probe, named
from sandboa.services.animals.commands import AnimalCommand, add_animal, weigh
from sandboa.services.animals.genes import GeneCommand, add_gene
from sandboa.services.animals.traits import TraitCommand
from sandboa.services.cabinets.commands import alter_cabinet, move_box
from sandboa.services.hatching.egg_events import cut_egg, see_emergence, see_pip
from sandboa.services.lay_day import EggLaid, lay_clutch
from sandboa.services.losses.why import clutch_losses
from sandboa.services.probes.commands import ProbePlace, hang_probe
from sandboa.services.readings.commands import store_readings
from sandboa.services.rounds.close_visit import close_visit
from sandboa.services.rounds.visit import BoxVisit, EggSeen
from sandboa.services.snapshot.cache import SnapshotCache

AGO = 70.0
LAID_S = NOW_S - AGO * DAY_S


def lay(code: str, dam: str, *, ago: float = AGO, eggs: int = 5, **more: object) -> None:
    """A clutch of good eggs; they lie apart, and the last of them is a slug."""
    laid = more.pop("laid", None) or tuple(
        EggLaid(x, y, slug=n == eggs - 1, vessels=None if n == eggs - 1 else Vessels.STRONG)
        for n, (x, y) in enumerate(usual_places(eggs))
    )
    lay_clutch(lay_day(ago, code=code, dam=dam, eggs=laid, **more), NOW_S - ago * DAY_S + 60)


def end(code: str, *lost: int, ago: float = AGO, eggs: int = 5) -> None:
    """The others hatch on day 60; the clutch is closed."""
    laid_s = NOW_S - ago * DAY_S
    for number in range(1, eggs):
        if number not in lost:
            see_pip(code, number, laid_s + 59 * DAY_S, NOW_S)
            see_emergence(code, number, laid_s + 60 * DAY_S, NOW_S)
    close_clutch(code, NOW_S, **{f"egg{n}": Fate.DEAD_IN_EGG for n in lost})


def visit(code: str, day: float, *eggs: EggSeen, **more: object) -> None:
    at_s = LAID_S + day * DAY_S
    seen = BoxVisit(f"{code}.{day}", code, at_s - 50, at_s, eggs=eggs, **more)  # type: ignore[arg-type]
    close_visit(seen, at_s)


def evidence(house: SnapshotCache, code: str, number: int) -> LossEvidence:
    lost = clutch_losses(house.current(), code, NOW_S).lost
    return next(e.evidence for e in lost if e.end.egg.number == number)


def test_what_nobody_looked_at_is_not_known(house: SnapshotCache) -> None:
    """No probe, no visit, no weight: nothing is taken for good, it is taken for unknown."""
    lay("26-01", "Sorrel", medium="perlite", dry_mass_g=None, water_g=None)
    end("26-01", 2)
    known = evidence(house, "26-01", 2)
    assert known.heat is None
    assert known.pests_seen is None
    assert known.opened is None
    assert known.parents.dam_before_g is None
    assert known.parents.can_double is None
    assert known.water is not None
    assert (known.water.weighed, known.water.medium, known.water.plump_until) == (0, (), None)


def test_signs_dents_and_weighings_of_the_box_are_in_it(house: SnapshotCache) -> None:
    lay("26-01", "Sorrel", set_up_mass_g=1400.0)
    visit(
        "26-01", 20.0, *(EggSeen(n, grade=2) for n in (1, 2, 3)), EggSeen(4, grade=0),
        signs=(("lid", "none"), ("medium", "dry"), ("pests", "ants")), mass_g=1310.0,
    )  # fmt: skip
    end("26-01", 2)
    known = evidence(house, "26-01", 2)
    assert known.water is not None
    assert known.water.weighed == 1
    ((share, value),) = known.water.medium
    assert (value, known.water.lid[0][1]) == ("dry", "none")
    assert 0.25 < share < 0.45
    ((at, early, of),) = known.water.dented_early
    assert (at, early, of) == (pytest.approx(share), 3, 4)
    assert known.pests_seen is True
    # Ninety grams of two hundred were gone by then, and more by the time it died.
    low, middle, high = known.water.lowest
    assert 0.0 <= low <= middle <= high < 0.55


def test_a_box_that_was_looked_at_and_firm_is_known_to_be(house: SnapshotCache) -> None:
    lay("26-01", "Sorrel")
    visit("26-01", 30.0, rest_as_before=True, signs=(("pests", "none"),))
    end("26-01", 2)
    known = evidence(house, "26-01", 2)
    assert known.pests_seen is False
    assert known.water is not None
    assert known.water.dented_early == ()
    assert known.water.plump_until == pytest.approx(0.5, abs=0.1)


def test_dents_of_one_egg_are_its_own_and_not_the_boxs(house: SnapshotCache) -> None:
    lay("26-01", "Sorrel")
    visit("26-01", 20.0, EggSeen(2, grade=2), rest_as_before=True)
    end("26-01", 2, 3)
    assert evidence(house, "26-01", 2).own_dents_early == pytest.approx(0.33, abs=0.1)
    assert evidence(house, "26-01", 3).own_dents_early is None


def test_a_hot_day_at_the_probe_is_in_the_heat(house: SnapshotCache) -> None:
    lay("26-01", "Sorrel")
    hang_probe("Low", ProbePlace("26-01"), LAID_S, LAID_S, checked=True)
    probe = named(Probe, "Low")
    assert probe is not None
    hours = range(69 * 24)
    rows = [(LAID_S + h * 3_600, 35.5 if 30 * 24 <= h < 31 * 24 else 31.5, 0.95) for h in hours]
    store_readings(probe.entity_id, rows, "csv", "log.csv", NOW_S)
    end("26-01", 2)
    heat = evidence(house, "26-01", 2).heat
    assert heat is not None
    assert heat.measured > 0.95
    assert heat.highest_c == pytest.approx(35.5, abs=0.1)
    # Two degrees above the limit for a day.
    assert heat.hot_degree_hours == pytest.approx(48.0, rel=0.15)
    assert heat.lowest_c == pytest.approx(31.5, abs=0.2)
    assert heat.cold_hours == 0.0
    assert heat.largest_swing_c == pytest.approx(4.0, abs=0.3)


def test_what_happened_to_an_egg_lies_between_two_looks(house: SnapshotCache) -> None:
    lay("26-01", "Sorrel")
    visit("26-01", 12.0, rest_as_before=True)
    visit("26-01", 20.0, EggSeen(2, acts=(EggActKind.DROPPED,)))
    end("26-01", 2)
    (happened,) = evidence(house, "26-01", 2).happened
    assert happened.kind == EggActKind.DROPPED
    assert 0.15 < happened.after <= happened.share < 0.45


def test_a_cut_is_told_with_what_was_developed_then(house: SnapshotCache) -> None:
    lay("26-01", "Sorrel")
    at_s = LAID_S + 50 * DAY_S
    cut_egg("26-01", 2, "set day", at_s, at_s, bled=True)
    end("26-01", 2)
    share, bled = evidence(house, "26-01", 2).cut
    assert bled is True
    assert 0.75 < share < 0.95


def test_the_shell_and_the_siblings_are_in_it(house: SnapshotCache) -> None:
    eggs = (
        EggLaid(0.20, 0.5, vessels=Vessels.STRONG, shells=(Shell.WINDOW,)),
        EggLaid(0.32, 0.5, vessels=Vessels.STRONG),
        EggLaid(0.80, 0.5, vessels=Vessels.STRONG),
    )
    lay("26-01", "Sorrel", laid=eggs)
    end("26-01", 1, 3, eggs=4)
    known = evidence(house, "26-01", 1)
    assert known.shells == (Shell.WINDOW,)
    touching, apart = known.siblings
    assert (touching.fate, touching.touching, touching.died) == (Fate.HATCHED, True, None)
    assert (apart.fate, apart.touching) == (Fate.DEAD_IN_EGG, False)
    assert apart.died is not None


def test_a_dams_weight_and_record_are_those_of_before(house: SnapshotCache) -> None:
    dam = animal("dam", "Sorrel", hatch_year=2023)
    weigh(dam, 1_420.0, LAID_S - 60 * DAY_S, NOW_S, confirmed=True)
    # Heavy with eggs, and long ago: neither tells how she went into the season.
    weigh(dam, 1_900.0, LAID_S - 10 * DAY_S, NOW_S, confirmed=True)
    weigh(dam, 1_100.0, LAID_S - 400 * DAY_S, NOW_S, confirmed=True)
    lay("26-01", "Sorrel")
    end("26-01", 2)
    parents = evidence(house, "26-01", 2).parents
    assert parents.dam_before_g == 1_420.0
    assert parents.first_clutch is True
    # Her own clutch is left out of what is known of her.
    assert (parents.dam_slugs, parents.dam_hatched) == ((0, 0), (0, 0))


def test_other_clutches_of_the_pair_are_counted(house: SnapshotCache) -> None:
    lay("25-01", "Sorrel", ago=400.0)
    end("25-01", 3, ago=400.0)
    lay("26-01", "Sorrel", second_clutch=True)
    end("26-01", 2)
    parents = evidence(house, "26-01", 2).parents
    assert parents.first_clutch is False
    assert parents.dam_slugs == parents.sire_slugs == (1, 5)
    assert parents.dam_hatched == (3, 4)
    assert parents.pair_lost_alike == (1, 4)


@pytest.mark.parametrize(
    ("of_sire", "can", "share"), [(TraitForm.VISUAL, True, 0.25), (None, False, 0.0)]
)
def test_a_pair_that_can_give_a_deadly_form_is_known_to(
    house: SnapshotCache, of_sire: TraitForm | None, can: bool, share: float
) -> None:
    gene = GeneCommand("Asphalt", Inheritance.INCOMPLETE_DOMINANT, DoubleForm.DIES)
    add_gene(gene, LAID_S - DAY_S)
    for role, name, form in (("dam", "Sorrel", TraitForm.VISUAL), ("sire", "Flint", of_sire)):
        traits = (TraitCommand("Asphalt", form),) if form else ()
        add_animal(AnimalCommand(role, name, traits=traits), LAID_S - DAY_S)
    lay("26-01", "Sorrel")
    end("26-01", 2)
    parents = evidence(house, "26-01", 2).parents
    assert (parents.can_double, parents.double_share) == (can, pytest.approx(share))


def test_boxes_beside_and_elsewhere_are_told_apart(house: SnapshotCache) -> None:
    lay("26-01", "Sorrel")
    lay("26-02", "Tansy", ago=AGO - 1)
    lay("26-03", "Yarrow", ago=AGO - 1, cabinet="Small", shelf="shelf")
    end("26-01", 2, 3)
    end("26-02", 1, ago=AGO - 1)
    end("26-03", ago=AGO - 1)
    around = evidence(house, "26-01", 2).neighbours
    assert around.same_cabinet == (1, 4)
    assert around.elsewhere == (0, 4)
    assert around.boxes == 1
    assert around.altered_days is None


def test_a_box_that_was_moved_has_the_neighbours_of_its_new_place(house: SnapshotCache) -> None:
    lay("26-01", "Sorrel")
    lay("26-02", "Tansy", ago=AGO - 1, cabinet="Small", shelf="shelf")
    move_box("26-01", "Small", "shelf", LAID_S + 5 * DAY_S, NOW_S)
    end("26-01", 2)
    end("26-02", 1, ago=AGO - 1)
    assert evidence(house, "26-01", 2).neighbours.same_cabinet == (1, 4)


def test_an_alteration_counts_from_its_day_and_only_before_the_death(house: SnapshotCache) -> None:
    lay("26-01", "Sorrel")
    end("26-01", 2)
    alter_cabinet("North", "foam drilled", NOW_S - 60, NOW_S)
    assert evidence(house, "26-01", 2).neighbours.altered_days is None
    alter_cabinet("North", "shelf glued", LAID_S - 3 * DAY_S, NOW_S)
    days = evidence(house, "26-01", 2).neighbours.altered_days
    assert days is not None
    assert 3.0 < days < 73.0


def test_what_comes_to_light_later_changes_the_evidence(house: SnapshotCache) -> None:
    """Held while the record stands, and not a moment longer."""
    lay("26-01", "Sorrel")
    end("26-01", 2)
    assert evidence(house, "26-01", 2).parents.dam_before_g is None
    dam = next(a.entity_id for a in house.current().animals.values() if a.name == "Sorrel")
    weigh(dam, 1_700.0, LAID_S - 60 * DAY_S, NOW_S, confirmed=True)
    assert evidence(house, "26-01", 2).parents.dam_before_g == 1_700.0
