"""The demo's finished season, simulated and told: it holds what it must, and teaches."""

import shutil
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest

from samples import DAY_S, NOW_S
from sandboa.cli.house_folder import DATABASE
from sandboa.core.causes import Cause
from sandboa.core.hatching import DeathStage, Fate
from sandboa.records.database import database, open_database
from sandboa.services.acts.errors import NotFound
from sandboa.services.clutches.issued_forecasts import keep_due
from sandboa.services.hatching.fates import FateCommand, declare_fates
from sandboa.services.hatching.overview import hatch_overview
from sandboa.services.losses.loss_list import losses_of_year
from sandboa.services.losses.outcomes import outcomes_by_now
from sandboa.services.losses.why import clutch_losses, losses_at_hand, losses_of
from sandboa.services.rounds.close_visit import close_visit
from sandboa.services.rounds.visit import BoxVisit
from sandboa.services.seasons.dimensions import Dimension
from sandboa.services.seasons.views import (
    SeasonPage,
    compare_groups,
    go_on_with_season,
    season_page,
)
from sandboa.services.snapshot.cache import SnapshotCache


@pytest.fixture(scope="module")
def furnished(
    demo_house: Path, tmp_path_factory: pytest.TempPathFactory
) -> Iterator[SnapshotCache]:
    folder = shutil.copytree(demo_house, tmp_path_factory.mktemp("season") / "house")
    opened = open_database(folder / DATABASE)
    house = SnapshotCache()
    for _ in range(10):
        keep_due(house.current(), NOW_S)
    yield house
    opened.close()


def leads(house: SnapshotCache, code: str) -> dict[int, Cause]:
    return {
        e.end.egg.number: e.causes[0].cause
        for e in clutch_losses(house.current(), code, NOW_S).lost
    }


def test_it_holds_seven_closed_clutches_with_slugs_and_losses(furnished: SnapshotCache) -> None:
    lines = losses_of_year(furnished.current(), 2025, NOW_S).lines
    assert [line.losses.clutch.code for line in lines] == [f"25-0{n}" for n in range(7, 0, -1)]
    assert all(line.closed for line in lines)
    assert sum(len(line.losses.slugs) for line in lines) == 4
    assert all(line.losses.waiting == 0 for line in lines)


def test_the_causes_it_was_made_of_are_found(furnished: SnapshotCache) -> None:
    assert set(leads(furnished, "25-02").values()) == {Cause.STALE_AIR}
    assert list(leads(furnished, "25-03").values()).count(Cause.TOO_DRY) >= 4
    assert leads(furnished, "25-05") == {4: Cause.MALFORMED}
    assert leads(furnished, "25-07") == {2: Cause.KNOCKED}


def test_in_autumn_it_says_what_the_open_corner_cost(furnished: SnapshotCache) -> None:
    page = season_page(furnished.current(), 2025, NOW_S)
    assert page.years == (2025,)
    assert (page.hatched.n, len(page.clutches)) == (41, 7)
    assert page.costs[0].cause == "too dry"
    assert page.costs[0].code == "25-03"
    assert 3.5 <= page.costs[0].eggs <= 5.5
    assert any("25-03" in sentence.text for sentence in page.findings)
    assert all(sentence.number for sentence in page.findings)
    corner = next(
        g for g in page.dimensions[Dimension.MEDIUM] if g.told.name == "saturated perlite"
    )
    rate, alike = corner.told.rate, corner.like_for_like
    assert rate.low < rate.share < rate.high
    # One clutch is no proof: what to expect of it is drawn far towards the house.
    assert alike.rate > rate.share + 0.2
    assert alike.high - alike.low > 0.2
    assert sum(cost.eggs for cost in page.costs) == pytest.approx(page.lost)
    # Two were forecast on their last scored day when others had taught the house already.
    assert [score.clutches for score in page.scores] == [7, 7, 5, 2]
    assert [score.first_season for score in page.scores] == [True, True, True, False]


def never() -> bool:
    return False


def times(more: int) -> Callable[[], bool]:
    """Goes on so many times."""
    left = iter([True] * more)
    return lambda: next(left, False)


def test_a_long_record_is_worked_out_bit_by_bit(furnished: SnapshotCache) -> None:
    whole = season_page(furnished.current(), 2025, NOW_S)
    assert whole.waiting == 0
    fresh = SnapshotCache()

    def at_once() -> SeasonPage:
        return season_page(fresh.current(), 2025, NOW_S, never)

    nothing, laid = at_once(), len(fresh.current().clutches)
    assert (nothing.uncounted, nothing.clutches, nothing.findings) == (laid, (), ())
    assert nothing.years == whole.years
    # How all ended comes before why any died; of that the latest first.
    outcomes_by_now(fresh.current(), NOW_S, times(laid - 1))
    assert (at_once().uncounted, at_once().findings) == (1, ())
    left = []
    for done in range(7):
        more = times(2 if done == 0 else 1)
        assert go_on_with_season(fresh.current(), 2025, NOW_S, more) is (done == 6)
        left.append(at_once())
    assert [page.waiting for page in left] == [6, 5, 4, 3, 2, 1, 0]
    assert left[0].lost == len(clutch_losses(fresh.current(), "25-07", NOW_S).lost)
    # Nothing is taught of causes before all are known.
    assert not any("Too dry" in sentence.text for sentence in left[5].findings)
    assert (left[6].costs, left[6].findings) == (whole.costs, whole.findings)


def test_rounds_at_other_boxes_leave_a_closed_clutch_alone(furnished: SnapshotCache) -> None:
    """Worked out anew after what may tell of it; not after every visit of the season."""
    facts = furnished.current()
    closed = facts.clutch_called("25-03")
    losses_of(facts, closed, NOW_S)
    with database.atomic() as undone:
        visit = BoxVisit(
            key="visit.elsewhere", box="26-03", opened_s=NOW_S - 60, closed_s=NOW_S, mass_g=1_890
        )
        close_visit(visit, NOW_S)
        assert losses_at_hand(furnished.current(), closed, NOW_S + 9 * DAY_S)
        chervils = FateCommand(3, Fate.DEAD_IN_EGG, DeathStage.EARLY)
        declare_fates("26-05", [chervils], NOW_S, NOW_S)
        assert not losses_at_hand(furnished.current(), closed, NOW_S)
        undone.rollback()


def test_two_media_of_so_few_clutches_are_too_few_to_call(furnished: SnapshotCache) -> None:
    told = compare_groups(
        furnished.current(), Dimension.MEDIUM, "saturated perlite", "half and half", 2025, NOW_S
    )
    assert told.words.endswith("too few to call.")
    with pytest.raises(NotFound, match="sand"):
        compare_groups(furnished.current(), Dimension.MEDIUM, "sand", "half and half", None, NOW_S)
    assert season_page(furnished.current(), 2019, NOW_S).findings == ()


def test_the_season_behind_moves_the_forecasts_of_this_one(furnished: SnapshotCache) -> None:
    watched = {c.now.clutch.code: c for c in hatch_overview(furnished.current(), NOW_S)}
    assert set(watched) == {"26-01", "26-02"}
    assert watched["26-02"].now.learned.clutches == 7
    assert watched["26-01"].closed == (5,)
    assert abs(watched["26-02"].now.learned_days) > 0.05
    assert watched["26-02"].now.forecast.first_pip.p50 < NOW_S + 7 * DAY_S
