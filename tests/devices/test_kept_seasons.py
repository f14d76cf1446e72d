"""A kept season: one seed is one season, and what is done changes what comes of it."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from sandboa.devices.simulation.kept import (
    BoxPlan,
    Deed,
    Impossible,
    KeptSeason,
    Plan,
    Trouble,
    plan_of,
)
from sandboa.devices.simulation.kept.plan import DIFFICULTIES, LONGEST_DAYS


def quiet(boxes: int = 1, **changes: object) -> Plan:
    """A season without troubles, of eggs that are sound and hardy."""
    plan = plan_of(1, boxes, "gentle")
    n = plan.eggs
    calm = replace(
        plan,
        troubles=(),
        boxes=tuple(
            BoxPlan(f"Box {at + 1}", at % 2, "lid with 1-2 pin holes", "vermiculite", 200, 200, 1.0)
            for at in range(boxes)
        ),
        hardy=np.full(n, 0.6),
        own_death=np.full(n, np.inf),
        blank=np.zeros(n, dtype=bool),
        thin=np.zeros(n, dtype=bool),
        sticks=np.zeros(n, dtype=bool),
        knocks=np.ones_like(plan.knocks),
    )
    return replace(calm, **changes)  # type: ignore[arg-type]


def over(season: KeptSeason, keep: object = None) -> KeptSeason:
    while not season.over:
        if callable(keep):
            keep(season)
        season.pass_night()
    return season


def supported(plan: Plan) -> KeptSeason:
    """A season on its second day, in which nothing hangs over its clump."""
    season = KeptSeason(plan)
    season.do(Deed("open", 0))
    season.do(Deed("support", 0, 1))
    season.pass_night()
    return season


def test_a_season_is_its_seed() -> None:
    for difficulty in DIFFICULTIES:
        first, second = (over(KeptSeason(plan_of(7, 4, difficulty))) for _ in range(2))
        assert first.left() == second.left()
        assert first.day == second.day <= LONGEST_DAYS
    assert plan_of(8, 4, "usual").troubles != plan_of(7, 4, "usual").troubles


def test_sound_eggs_in_a_sound_box_hatch_after_some_sixty_days() -> None:
    season = over(KeptSeason(quiet()))
    left = season.left()
    # One hangs over its clump, and is left without support.
    assert left.lost <= 1
    assert set(left.causes.values()) <= {"hanging"}
    assert 52 <= season.day <= 66


@pytest.mark.parametrize(
    ("trouble", "cause", "what"),
    [
        (Trouble("torn film", 5, 99, 0, 1.5), "dry", "pour"),
        (Trouble("soaked", 5, 99, 0, 1.2), "wet", "wipe"),
        (Trouble("no hole", 5, 99, 0, 1.0), "air", "holes"),
        (Trouble("too hot", 20, 40, None, 1.2), "heat", "mend"),
        (Trouble("too cold", 5, 60, None, 1.3), "cold", "mend"),
    ],
)
def test_each_trouble_kills_and_has_an_answer(trouble: Trouble, cause: str, what: str) -> None:
    # Tender eggs where a trouble works slowly.
    hardy = 0.1 if cause in ("dry", "cold") else 0.35
    plan = quiet(troubles=(trouble,), hardy=np.full(quiet().eggs, hardy))
    alone = over(supported(plan)).left()
    assert cause in alone.causes.values()

    def answer(season: KeptSeason) -> None:
        if what == "mend":
            season.do(Deed("mend"))
        elif season.day >= 5 and (what != "wipe" or season.water_g[0] > season.full_g[0]):
            season.do(Deed("open", 0))
            short_g = float(season.full_g[0] - season.water_g[0])
            season.do(Deed(what, 0, water_g=max(short_g, 1.0)))

    answered = over(supported(plan), answer).left()
    assert cause not in answered.causes.values()
    assert answered.hatched > alone.hatched


def test_a_dead_egg_moulds_and_takes_its_neighbours_unless_it_is_isolated() -> None:
    plan = quiet()
    dies = np.full(plan.eggs, np.inf)
    dies[1] = 0.1
    plan = replace(plan, own_death=dies, hardy=np.full(plan.eggs, 0.12))
    alone = over(KeptSeason(plan)).left()
    assert "infection" in alone.causes.values()

    def isolate(season: KeptSeason) -> None:
        if season.day == 20:
            season.do(Deed("open", 0))
            season.do(Deed("isolate", 0, 2))

    kept = over(KeptSeason(plan), isolate).left()
    assert "infection" not in kept.causes.values()


def test_a_door_costs_warmth_water_and_now_and_then_an_egg() -> None:
    shut, opened = KeptSeason(quiet()), KeptSeason(quiet())
    opened.do(Deed("open", 0))
    mended = KeptSeason(quiet())
    mended.do(Deed("mend"))
    for season in (shut, opened, mended):
        season.pass_night()
    # Who sees to the cabinet for nothing opens its door for nothing.
    assert mended.cabinet().mean_c[0] < shut.cabinet().mean_c[0]
    assert opened.water_g[0] < shut.water_g[0]
    assert opened.cabinet().mean_c[0] < shut.cabinet().mean_c[0]
    assert (opened.share < shut.share).all()
    clumsy = KeptSeason(quiet(knocks=np.zeros_like(quiet().knocks)))
    clumsy.do(Deed("open", 0))
    clumsy.pass_night()
    assert set(clumsy.left().causes.values()) == {"knock"}


def test_what_is_seen_is_of_an_open_box_alone_and_the_torch_of_an_egg_that_is_candled() -> None:
    season = KeptSeason(quiet())
    assert season.look(0) is None
    season.do(Deed("open", 0))
    seen = season.look(0)
    assert seen is not None
    assert seen.mass_g is None
    assert all(egg.torch is None for egg in seen.eggs)
    season.do(Deed("weigh", 0))
    season.do(Deed("candle", 0, 2))
    seen = season.look(0)
    assert seen is not None
    assert seen.mass_g == pytest.approx(400.0 - 1.2 + 82.0 * len(seen.eggs))
    assert [egg.number for egg in seen.eggs if egg.torch] == [2]
    season.pass_night()
    assert season.look(0) is None


@pytest.mark.parametrize(
    ("deed", "words"),
    [
        (Deed("pour", 0, water_g=20.0), "shut"),
        (Deed("open", 9), "no such box"),
        (Deed("open"), "no such box"),
        (Deed("dance", 0), "nobody can"),
    ],
)
def test_what_cannot_be_done_is_refused(deed: Deed, words: str) -> None:
    with pytest.raises(Impossible, match=words):
        KeptSeason(quiet()).do(deed)


def test_an_egg_that_is_out_or_none_and_water_that_nobody_pours_are_refused() -> None:
    season = KeptSeason(quiet())
    season.do(Deed("open", 0))
    season.do(Deed("remove", 0, 1))
    with pytest.raises(Impossible, match="out"):
        season.do(Deed("candle", 0, 1))
    with pytest.raises(Impossible, match="no such egg"):
        season.do(Deed("candle", 0, 10**30))
    for water_g in (0.0, -5.0, 5_000.0, float("nan")):
        with pytest.raises(Impossible, match="nobody pours"):
            season.do(Deed("pour", 0, water_g=water_g))
    assert season.left().causes[0] == "removed"
    over(season)
    with pytest.raises(Impossible, match="over"):
        season.pass_night()
    with pytest.raises(Impossible, match="over"):
        season.do(Deed("open", 0))


@given(seed=st.integers(0, 999_999), boxes=st.integers(3, 8))
@settings(max_examples=15, deadline=None)
def test_whatever_the_season_its_numbers_stay_numbers(seed: int, boxes: int) -> None:
    season = over(KeptSeason(plan_of(seed, boxes, "hard")))
    assert np.all((season.turgor >= 0.0) & (season.turgor <= 1.0))
    assert np.all(season.water_g >= 0.0)
    assert np.all(season.grades() <= 4)
    left = season.left()
    assert left.hatched + left.lost + int(season.plan.blank.sum()) == season.plan.eggs
