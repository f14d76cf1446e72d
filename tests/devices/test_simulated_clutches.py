"""A clutch as its keeper plans it: visits on the days meant, soft eggs first, Mendel's odds."""

from collections import Counter
from dataclasses import replace

import numpy as np
import pytest

from sandboa.devices.simulation.fates import life
from sandboa.devices.simulation.heredity import shown_traits
from sandboa.devices.simulation.season_boxes import clutch
from sandboa.devices.simulation.season_hazards import CabinetHazard
from sandboa.devices.simulation.season_nests import Nest, Planned
from sandboa.devices.simulation.season_stories import ClutchStory

PLANNED = (
    Planned(3.0),
    Planned(6.5, candles=True),
    Planned(20.0, weighs=True),
    Planned(55.0, weighs=True, candles=True),
)
NEST = Nest(
    "Yarrow", "Chert", 0.0, "North", "lower", 6, 1, None, CabinetHazard(),
    curve=(np.array([0.0, 100.0]), np.array([0.0, 100.0 / 58.0])), humidity=0.6, every_days=9.0,
    only_forced=True, closing="film with a cracked corner", medium="saturated perlite",
    dry_g=180.0, water_g=100.0, set_up_g=1_180.0, planned=PLANNED,
)  # fmt: skip


def told(seed: int, **changes: object) -> ClutchStory:
    return clutch(replace(NEST, **changes), np.random.default_rng(seed))  # type: ignore[arg-type]


def test_a_planned_visit_is_made_on_its_day_and_does_what_was_meant() -> None:
    story = told(1)
    assert [visit.day for visit in story.visits] == [plan.day for plan in PLANNED]
    for plan, visit in zip(PLANNED, story.visits, strict=True):
        assert (visit.mass_g is not None) == plan.weighs
        assert all((look.vessels is not None) == plan.candles for look in visit.glances.values())
        assert set(visit.glances) == {1, 2, 3, 4, 5}
        # That there are no flies says who held the eggs to a torch.
        assert visit.pests == ("none" if plan.candles else None)
    assert told(1, planned=()).visits == ()


def test_a_box_is_set_up_as_said_and_dries_from_there() -> None:
    story = told(2)
    assert (story.dry_g, story.water_g, story.set_up_g) == (180.0, 100.0, 1_180.0)
    first, last = (visit.mass_g for visit in story.visits if visit.mass_g is not None)
    assert 1_080.0 - 4.0 <= last < first < 1_180.0


def test_what_was_drawn_does_not_hang_on_a_day_more_or_less() -> None:
    """The demo is told at any today; a term a little longer must not make another clutch of it."""
    days, shares = NEST.curve
    slower = told(3, curve=(days, shares * 0.975))
    for egg, other in zip(told(3).eggs, slower.eggs, strict=True):
        assert (egg.shell, egg.vessels_at_lay, egg.mass_g) == (
            other.shell, other.vessels_at_lay, other.mass_g,
        )  # fmt: skip


@pytest.mark.parametrize("left", [0.1, 0.3, 0.5, 0.7])
def test_the_eggs_that_dent_sooner_anyway_dent_sooner_when_it_is_dry(left: float) -> None:
    lives = [life(None, np.random.default_rng(seed)) for seed in range(300)]
    dented = [egg.dents[0] for egg in lives if egg.dented_at(left)]
    others = [egg.dents[0] for egg in lives if not egg.dented_at(left)]
    assert not dented or not others or max(dented) <= min(others)
    # A box half full dents few; one that is nearly dry dents nearly all.
    assert {0.1: len(dented) > 280, 0.7: len(dented) < 20}.get(left, 0 < len(dented) < 290)


def test_a_lid_rains_in_the_last_week_whatever_the_medium() -> None:
    late = (Planned(40.0), Planned(55.0))
    lids = [
        tuple(visit.lid for visit in told(seed, planned=late, medium="vermiculite").visits)
        for seed in range(40)
    ]
    assert {lid for _, lid in lids} == {"raining", "half"}
    assert "raining" not in {lid for lid, _ in lids}


def test_what_weakness_shows_on_lay_day_is_told_of_it() -> None:
    lay = Counter(egg.vessels_at_lay for seed in range(120) for egg in told(seed).eggs)
    assert lay[None] == 120
    assert 0.01 < lay["weak"] / lay["strong"] < 0.09


def test_genes_are_handed_on_as_mendel_has_it() -> None:
    random = np.random.default_rng(9)
    hers, his = {"Puzzle": 1, "Mahogany": 1}, {"Puzzle": 1, "Cypress": 2, "Mahogany": 1}
    shown = [shown_traits(hers, his, {"Puzzle"}, random) for _ in range(2_000)]
    count = Counter(trait for traits in shown for trait in traits)
    assert set(count) == {
        ("Puzzle", "visual"), ("Cypress", "visual"),
        ("Mahogany", "visual"), ("Mahogany", "two copies"),
    }  # fmt: skip
    assert count["Cypress", "visual"] == 2_000
    assert count["Puzzle", "visual"] / 2_000 == pytest.approx(0.25, abs=0.03)
    assert count["Mahogany", "visual"] / 2_000 == pytest.approx(0.5, abs=0.035)
    assert count["Mahogany", "two copies"] / 2_000 == pytest.approx(0.25, abs=0.03)
    assert shown_traits({}, {"Puzzle": 2}, {"Puzzle"}, random) == ()
