"""Kept seasons as sessions: what is stored, refused and told."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from benchmarks.practice import report

from sandboa.core.errors import NotPlausible
from sandboa.devices.simulation.kept import Deed, KeptSeason, plan_of
from sandboa.devices.simulation.kept.night import CAUSES
from sandboa.practice.errors import Refused
from sandboa.practice.files import Practice, delete_all, practice_of
from sandboa.practice.seasons import sessions as seasons
from sandboa.practice.seasons.players import (
    FollowsSandboa,
    foresees,
    leaves_alone,
    played,
    school,
    waters_always,
)
from sandboa.practice.seasons.replay import Done, replay
from sandboa.practice.seasons.telling import LESSONS, TROUBLES, tell

NOW_S = 1_800_000_000.0


@pytest.fixture
def practice(tmp_path: Path) -> Iterator[Practice]:
    with practice_of(tmp_path / "house.sqlite3", None) as store:
        yield store


def lost(player: object, seed: int) -> int:
    season = KeptSeason(plan_of(seed, 4, "usual"))
    keep = FollowsSandboa(season) if player is FollowsSandboa else player
    return played(season, keep).left().lost  # type: ignore[arg-type]


def test_who_follows_sandboa_loses_fewest() -> None:
    seeds = range(700, 712)
    ours = sum(lost(FollowsSandboa, seed) for seed in seeds)
    for player in (leaves_alone, waters_always, school(7), school(2), school(None)):
        assert ours < sum(lost(player, seed) for seed in seeds)
    assert sum(lost(foresees, seed) for seed in seeds) < ours


def test_the_bench_prints_who_loses_fewest() -> None:
    told = report(2)
    assert "follows Sandboa against leaves alone" in told
    assert "2 seasons" in told


def test_a_season_is_kept_and_stored_as_what_was_done(practice: Practice) -> None:
    begun = seasons.begin(practice, NOW_S, seed="4711")
    assert (begun.seed, begun.now.season.day, begun.revision) == (4711, 0, 0)
    opened = seasons.do(practice, begun.id, 0, 0, Deed("open", 1))
    weighed = seasons.do(practice, begun.id, opened.revision, 0, Deed("weigh", 1))
    assert weighed.now.seen[1].mass_g is not None
    later = seasons.pass_days(practice, begun.id, weighed.revision, 7)
    again = seasons.season_session(practice, begun.id)
    assert again.now.season.day == later.now.season.day == 7
    # How a box was seen last is shown after days and from the store alike.
    assert again.now.seen[1] == weighed.now.seen[1]
    assert again.now.season.water_g.tolist() == later.now.season.water_g.tolist()
    other = seasons.begin(practice, NOW_S, seed="4711")
    assert other.now.season.plan.troubles == begun.now.season.plan.troubles


def test_a_school_says_which_boxes_it_opens_and_opens_none(practice: Practice) -> None:
    weekly = seasons.begin(practice, NOW_S, seed="3", school="weekly")
    assert weekly.due == (0, 1, 2, 3)
    later = seasons.pass_days(practice, weekly.id, weekly.revision, 3)
    assert (later.school, later.due) == ("weekly", ())
    assert seasons.begin(practice, NOW_S, seed="3").due == ()
    with pytest.raises(NotPlausible, match="no school"):
        seasons.begin(practice, NOW_S, school="montessori")


def test_a_page_that_has_not_seen_what_another_did_is_refused(practice: Practice) -> None:
    begun = seasons.begin(practice, NOW_S, seed="1")
    seasons.do(practice, begun.id, 0, 0, Deed("open", 0))
    for go_on in (
        lambda: seasons.do(practice, begun.id, 0, 0, Deed("open", 1)),
        lambda: seasons.pass_days(practice, begun.id, 0, 1),
    ):
        with pytest.raises(Refused, match="another page"):
            go_on()
    assert seasons.season_session(practice, begun.id).revision == 1


def test_a_day_that_was_and_what_cannot_be_done_store_nothing(practice: Practice) -> None:
    begun = seasons.begin(practice, NOW_S, seed="1")
    later = seasons.pass_days(practice, begun.id, 0, 3)
    with pytest.raises(Refused, match="Day 1 was"):
        seasons.do(practice, begun.id, later.revision, 1, Deed("open", 0))
    with pytest.raises(Refused, match="the box is shut"):
        seasons.do(practice, begun.id, later.revision, 3, Deed("pour", 0, water_g=10.0))
    with pytest.raises(NotPlausible, match="1 to 7 days"):
        seasons.pass_days(practice, begun.id, later.revision, 8)
    with pytest.raises(Refused, match="once it is over"):
        seasons.telling(practice, begun.id)
    assert seasons.season_session(practice, begun.id).revision == later.revision


@pytest.mark.parametrize("asked", [{"boxes": 2}, {"boxes": 9}, {"difficulty": "absurd"}])
def test_no_season_begins_with_what_cannot_be(practice: Practice, asked: dict[str, int]) -> None:
    with pytest.raises(NotPlausible):
        seasons.begin(practice, NOW_S, **asked)  # type: ignore[arg-type]
    assert seasons.listed(practice) == []


def test_a_season_is_told_once_it_is_over(practice: Practice) -> None:
    session = seasons.begin(practice, NOW_S, seed="42", difficulty="hard")
    while not session.now.season.over:
        session = seasons.pass_days(practice, session.id, session.revision, 7)
    with pytest.raises(Refused, match="over"):
        seasons.pass_days(practice, session.id, session.revision, 1)
    told = seasons.telling(practice, session.id)
    alone = next(kept for kept in told.others if kept.who == "leaving it alone")
    best = next(kept for kept in told.others if kept.who.startswith("the best"))
    # Nothing was done: it is as if it had been left alone, and no choice was worth anything.
    assert (told.own.hatched, told.own.lost) == (alone.hatched, alone.lost)
    assert told.choices == ()
    assert best.hatched > told.own.hatched
    assert 1 <= len(told.lessons) <= 3
    assert sum(lesson.eggs for lesson in told.lessons) <= told.own.lost
    assert {trouble.kind for trouble, _ in told.hidden} <= set(TROUBLES)


def test_what_a_choice_was_worth_is_told_by_leaving_it_out() -> None:
    plan = plan_of(42, 4, "hard")
    helped = [Done(day, Deed("mend")) for day in range(60)]
    harmed = [Done(3, Deed("open", 0)), *(Done(3, Deed("remove", 0, egg)) for egg in (2, 3))]
    told = tell(plan, [*helped, *harmed])
    worth = {(choice.what, choice.box): choice.worth for choice in told.choices}
    assert worth["mend", None] > 0
    assert worth["remove", "Box 1"] <= 0


def test_every_cause_and_trouble_has_words() -> None:
    drawn = {t.kind for seed in range(80) for t in plan_of(seed, 8, "hard").troubles}
    assert drawn == set(TROUBLES)
    assert {*CAUSES, "removed"} == set(LESSONS)


def test_a_season_at_hand_goes_on_as_one_that_is_lived_through_again(practice: Practice) -> None:
    session = seasons.begin(practice, NOW_S, seed="9", difficulty="hard")
    for day in range(0, 21, 3):
        for deed in (Deed("open", 1), Deed("pour", 1, water_g=5.0), Deed("candle", 1, 1)):
            session = seasons.do(practice, session.id, session.revision, day, deed)
        # Refused, it leaves no trace in what is at hand.
        with pytest.raises(Refused):
            seasons.do(practice, session.id, session.revision, day, Deed("candle", 1, 99))
        session = seasons.pass_days(practice, session.id, session.revision, 3)
    stored = practice.session(session.id)
    assert stored is not None
    anew = replay(
        plan_of(9, 4, "hard"),
        [Done(day, Deed(*deed)) for day, *deed in stored.body["done"]],
        stored.body["day"],
    )
    for name in ("water_g", "share", "turgor", "hazard", "died_day"):
        mine, other = (getattr(told.season, name) for told in (session.now, anew))
        assert mine.tolist() == other.tolist()
    assert session.now.seen == anew.seen
    assert session.now.season.minutes == anew.season.minutes


def test_a_season_begun_after_all_was_deleted_is_its_own(tmp_path: Path) -> None:
    house = tmp_path / "house.sqlite3"
    with practice_of(house, None) as practice:
        before = seasons.begin(practice, NOW_S, seed="1")
        seasons.pass_days(practice, before.id, before.revision, 7)
    delete_all(house, None)
    with practice_of(house, None) as practice:
        anew = seasons.begin(practice, NOW_S + 60, seed="2")
        later = seasons.pass_days(practice, anew.id, anew.revision, 1)
        # The same number at the same revision as the one before, and another season.
        assert (anew.id, later.revision) == (before.id, 1)
        again = seasons.season_session(practice, anew.id)
        assert (again.seed, again.now.season.plan.seed, again.now.season.day) == (2, 2, 1)
