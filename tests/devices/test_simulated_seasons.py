"""The seasons the causes are held to account with: possible worlds, and not told from our rules."""

from collections import Counter
from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest
from benchmarks import causes

from sandboa.core.causes import Cause
from sandboa.devices.simulation.season import SEASON_DAYS, Habits, season
from sandboa.devices.simulation.season_findings import falsified, findings_of, stage_of
from sandboa.devices.simulation.season_hazards import OF_BOX, OF_CABINET, OF_EGG, UNLISTED, draw
from sandboa.devices.simulation.season_stories import ClutchStory, EggStory, SeasonStory

BEGAN_S = 1_743_465_600.0
SEEDS = (7, 8, 9)


@pytest.fixture(scope="module")
def seasons() -> list[SeasonStory]:
    return [season(seed, BEGAN_S, clutches=3) for seed in SEEDS]


def clutches(seasons: list[SeasonStory]) -> list[ClutchStory]:
    return [clutch for story in seasons for clutch in story.clutches]


def eggs(seasons: list[SeasonStory]) -> list[EggStory]:
    return [egg for clutch in clutches(seasons) for egg in clutch.eggs]


def test_a_seed_is_a_season_and_another_seed_another_one() -> None:
    first, again, other = (season(seed, BEGAN_S, cabinets=1, clutches=2) for seed in (7, 7, 8))
    assert first.clutches == again.clutches
    assert first.clutches != other.clutches


def test_it_holds_what_was_asked_for(seasons: list[SeasonStory]) -> None:
    for story in seasons:
        assert len(story.cabinets) == 2
        assert Counter(c.cabinet for c in story.clutches) == {"Cabinet 1": 3, "Cabinet 2": 3}
        names = [animal.name for animal in story.animals]
        assert len(names) == len(set(names)) == 12
        assert {c.dam for c in story.clutches} | {c.sire for c in story.clutches} == set(names)


def test_every_egg_has_one_end(seasons: list[SeasonStory]) -> None:
    """A slug, an animal that came out, or a death with its cause: never two of them."""
    for egg in eggs(seasons):
        hatched = egg.out_day is not None
        assert [egg.slug, hatched, egg.cause is not None].count(True) == 1, egg
        if egg.cause is None:
            assert egg.died_day is None
            assert egg.findings == {}


def test_days_come_in_their_order(seasons: list[SeasonStory]) -> None:
    for clutch in clutches(seasons):
        assert 0 < clutch.laid_day < clutch.laid_day + clutch.days <= SEASON_DAYS + 60
        days = [visit.day for visit in clutch.visits]
        assert days == sorted(days)
        assert all(0 < day < clutch.days for day in days)
        for egg in clutch.eggs:
            if egg.out_day is not None:
                assert egg.pip_day is not None
                assert 40 < egg.pip_day < egg.out_day < clutch.days
            if egg.died_day is not None:
                assert 0 <= egg.died_day <= clutch.days
                assert egg.pip_day is None or egg.pip_day <= egg.died_day + 1


def test_nothing_is_seen_of_an_egg_that_is_none(seasons: list[SeasonStory]) -> None:
    for clutch in clutches(seasons):
        slugs = {egg.number for egg in clutch.eggs if egg.slug}
        seen = {number for visit in clutch.visits for number in visit.glances}
        assert not slugs & seen
        assert [egg.number for egg in clutch.eggs] == list(range(1, len(clutch.eggs) + 1))


def test_a_box_loses_water_and_never_gains_it_by_itself(seasons: list[SeasonStory]) -> None:
    for clutch in clutches(seasons):
        weighed = [(v.mass_g, v.water_g or 0.0) for v in clutch.visits if v.mass_g is not None]
        for (before, poured), (after, _) in pairwise(weighed):
            # A scale is off by a few grams.
            assert after <= before + poured + 12.0


def test_a_keeper_who_does_not_weigh_or_candle_leaves_no_trace_of_it() -> None:
    story = season(8, BEGAN_S, cabinets=1, habits=Habits(weighs=False, candles=False))
    visits = [visit for clutch in story.clutches for visit in clutch.visits]
    assert visits
    assert all(visit.mass_g is None for visit in visits)
    assert all(g.vessels is None for visit in visits for g in visit.glances.values())


def test_every_cause_occurs_in_enough_seasons() -> None:
    """A cause that never strikes is never tested. Chances are assumptions, not frequencies."""
    random = np.random.default_rng(3)
    for hazards in (OF_CABINET, OF_BOX, OF_EGG):
        drawn = Counter(draw(hazards, random) for _ in range(4_000))
        assert set(drawn) == {name for name, _ in hazards} | {None}
        for name, chance in hazards:
            assert drawn[name] / 4_000 == pytest.approx(chance, abs=0.02)


@pytest.mark.parametrize("cause", [name for name, _ in (*OF_EGG, *OF_BOX, *OF_CABINET)])
def test_what_is_found_can_be_found(cause: str) -> None:
    """An egg that never began holds no animal: no position, cord or form of one."""
    random = np.random.default_rng(5)
    for share in (0.1, 0.5, 0.97):
        found = findings_of(cause, share, under=False, more={}, random=random)
        assert all(len(values) == 1 for values in found.values())
        if cause == "blank":
            assert found["stage"] == ("yolk only",)
            assert not {"position", "cord", "form"} & set(found)
        elif share < 0.45 and cause != "tether":
            assert "cord" not in found


def test_an_opening_is_misread_now_and_then_but_not_often() -> None:
    random = np.random.default_rng(6)
    told = [findings_of("parched", 0.8, under=False, more={}, random=random) for _ in range(600)]
    right = sum(found["stage"] == ("late",) for found in told) / 600
    assert 0.88 < right < 1.0
    noted = sum("yolk" in found for found in told) / 600
    assert 0.8 < noted < 0.95


def test_stages_follow_the_share_that_was_developed() -> None:
    stages = [stage_of("heat wave", share) for share in (0.1, 0.4, 0.8, 0.95)]
    assert stages == ["early", "mid", "late", "full term"]
    assert stage_of("blank", 0.9) == "early"


def test_a_lethal_form_comes_from_two_parents_that_carry_it() -> None:
    for seed in range(20, 60):
        story = season(seed, BEGAN_S, cabinets=1, clutches=2)
        traits = {animal.name: dict(animal.traits) for animal in story.animals}
        for clutch in story.clutches:
            causes = {egg.cause for egg in clutch.eggs}
            if "double dose" in causes:
                assert "Asphalt" in traits[clutch.dam]
                assert "Asphalt" in traits[clutch.sire]
                return
    pytest.fail("forty seasons without it")


def test_a_story_is_told_in_plain_values(seasons: list[SeasonStory]) -> None:
    """Nothing of the product's own kinds: the simulation may not know the rules it tests."""
    egg = eggs(seasons)[0]
    assert replace(egg, number=99).number == 99
    for value in (egg.shell, egg.vessels_at_lay, egg.disc, egg.stage):
        assert value is None or type(value) is str


def test_what_is_noted_wrong_is_as_much_as_was_asked_and_still_possible() -> None:
    random = np.random.default_rng(11)
    true = findings_of("parched", 0.8, under=False, more={}, random=random)
    noted = [falsified(true, 0.10, random) for _ in range(2_000)]
    kinds = [kind for kind in true if kind != "stage"]
    wrong = np.mean([told[kind] != true[kind] for told in noted for kind in kinds])
    assert wrong == pytest.approx(0.10, abs=0.01)
    assert falsified(true, 0.0, random) == true
    blank = findings_of("blank", 0.0, under=False, more={}, random=random)
    assert all(falsified(blank, 1.0, random)["stage"] == ("yolk only",) for _ in range(20))


def test_some_eggs_are_struck_twice_and_some_by_what_no_list_holds() -> None:
    every = [
        egg
        for seed in (41, 43, 47)
        for clutch in season(seed, BEGAN_S, cabinets=1, clutches=25).clutches
        for egg in clutch.eggs
        if egg.cause is not None
    ]
    assert all(egg.also != egg.cause for egg in every)
    assert 0.01 < np.mean([egg.also is not None for egg in every]) < 0.15
    assert 0.04 < np.mean([egg.cause in UNLISTED for egg in every]) < 0.16


def test_every_hazard_has_its_name_in_the_product_and_no_word_is_shared() -> None:
    """The simulation must not speak in the words of the rules it tests."""
    hazards = {name for name, _ in (*OF_EGG, *OF_BOX, *OF_CABINET)}
    assert set(causes.CALLED) == hazards
    assert set(causes.CALLED.values()) == set(Cause)
    assert not hazards & {cause.value for cause in Cause}


def test_a_season_is_scored_by_what_killed_and_by_what_helped() -> None:
    scored = causes.losses(range(3, 4), causes.FULL)
    assert len(scored) > 2
    assert sum(s.place == 0 for s in scored) > 0.4 * len(scored)
    told = causes.Scored(
        Cause.TOO_DRY, ((Cause.TOO_HOT, 0.7), (Cause.TOO_DRY, 0.2), (Cause.CORD, 0.1)), Cause.CORD
    )
    assert (told.place, told.both_among, told.falsely_sure) == (1, True, True)
