"""A season of several dams: signs that override, ticks that belong to a cycle, plans that end."""

import pytest

from samples import DAY_S, NOW_S, animal, lay_day
from sandboa.core.errors import NotPlausible
from sandboa.core.laying import PreparationTask, Sign
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import undo
from sandboa.services.animals.commands import AnimalCommand, correct_animal, weigh
from sandboa.services.breeding.commands import tick_preparation
from sandboa.services.breeding.lay_windows import DamLaySeason, lay_season
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


def of(house: SnapshotCache, name: str, now_s: float = NOW_S) -> DamLaySeason:
    return next(d for d in lay_season(house.current().herd, now_s).dams if d.name == name)


@pytest.fixture
def sorrel(house: SnapshotCache) -> int:
    return animal("dam", "Sorrel")


@pytest.fixture
def flint(house: SnapshotCache) -> int:
    return animal("sire", "Flint")


def test_the_next_to_lay_comes_first_and_who_laid_comes_last(
    house: SnapshotCache, sorrel: int
) -> None:
    lay_clutch(lay_day(3.0, dam="Tansy"), NOW_S)
    tansy = next(a.entity_id for a in house.current().herd.animals.values() if a.name == "Tansy")
    see_sign(tansy, Sign.PRE_LAY_SHED, NOW_S - 33 * DAY_S, NOW_S)
    late, soon = animal("dam", "Yarrow"), animal("dam", "Borage")
    see_sign(late, Sign.PRE_LAY_SHED, NOW_S - 2 * DAY_S, NOW_S)
    see_sign(soon, Sign.PRE_LAY_SHED, NOW_S - 25 * DAY_S, NOW_S)
    see_sign(sorrel, Sign.OFF_FOOD, NOW_S - 5 * DAY_S, NOW_S)
    names = [d.name for d in lay_season(house.current().herd, NOW_S).dams]
    assert names[:2] == ["Borage", "Yarrow"]
    assert set(names[2:]) == {"Sorrel", "Tansy"}
    assert of(house, "Tansy").clutches
    assert of(house, "Sorrel").forecast is None


def test_a_weaker_sign_seen_later_does_not_override(house: SnapshotCache, sorrel: int) -> None:
    see_sign(sorrel, Sign.PRE_LAY_SHED, NOW_S - 10 * DAY_S, NOW_S)
    see_sign(sorrel, Sign.OVULATION, NOW_S - 2 * DAY_S, NOW_S)
    forecast = of(house, "Sorrel").forecast
    assert forecast
    assert forecast.sign is Sign.PRE_LAY_SHED


def test_a_sign_is_undone_and_the_window_with_it(house: SnapshotCache, sorrel: int) -> None:
    seeing = see_sign(sorrel, Sign.PRE_LAY_SHED, NOW_S, NOW_S)
    assert of(house, "Sorrel").forecast
    undo(seeing.id, NOW_S)
    assert [d for d in lay_season(house.current().herd, NOW_S).dams if d.forecast] == []
    with pytest.raises(NotPlausible, match="future"):
        see_sign(sorrel, Sign.PRE_LAY_SHED, NOW_S + DAY_S, NOW_S)


def test_long_past_her_window_no_date_is_told_and_nothing_is_to_prepare(house, sorrel) -> None:
    see_sign(sorrel, Sign.PRE_LAY_SHED, NOW_S - 60 * DAY_S, NOW_S)
    told = of(house, "Sorrel")
    assert told.forecast
    assert told.forecast.overdue
    assert told.forecast.window is None
    assert told.preparations == ()


def test_a_window_never_reaches_into_the_past(house: SnapshotCache, sorrel: int) -> None:
    see_sign(sorrel, Sign.PRE_LAY_SHED, NOW_S - 31 * DAY_S, NOW_S)
    window = of(house, "Sorrel").forecast.window
    assert NOW_S <= window.p10 <= window.p50 <= window.p90


def test_ticks_belong_to_their_cycle(house: SnapshotCache, sorrel: int) -> None:
    """A tick of last year does not tick this year's list."""
    last_year_s = NOW_S - 365 * DAY_S
    see_sign(sorrel, Sign.PRE_LAY_SHED, last_year_s, last_year_s)
    tick_preparation(sorrel, PreparationTask.NEST, True, last_year_s + DAY_S)
    lay_clutch(lay_day(335.0, dam="Sorrel"), NOW_S)
    see_sign(sorrel, Sign.PRE_LAY_SHED, NOW_S - DAY_S, NOW_S)
    assert [p.done_s for p in of(house, "Sorrel").preparations if p.done_s] == []
    tick_preparation(sorrel, PreparationTask.NEST, True, NOW_S)
    tick_preparation(sorrel, PreparationTask.NEST, False, NOW_S)
    assert [p.done_s for p in of(house, "Sorrel").preparations if p.done_s] == []
    with pytest.raises(NotPlausible, match="not ticked"):
        tick_preparation(sorrel, PreparationTask.NEST, False, NOW_S)


def test_a_visit_has_a_beginning_an_end_and_only_one_partner(house, sorrel, flint) -> None:
    with pytest.raises(NotPlausible, match="before it began"):
        begin_pairing(sorrel, flint, NOW_S - DAY_S, NOW_S, NOW_S - 2 * DAY_S)
    with pytest.raises(NotPlausible, match="future"):
        begin_pairing(sorrel, flint, NOW_S + DAY_S, NOW_S)
    visit, _ = begin_pairing(sorrel, flint, NOW_S - DAY_S, NOW_S)
    with pytest.raises(NotPlausible, match="before it began"):
        end_pairing(visit, NOW_S - 2 * DAY_S, NOW_S)
    with pytest.raises(NotPlausible, match="future"):
        end_pairing(visit, NOW_S + DAY_S, NOW_S)
    for nobody in (end_pairing, see_lock):
        with pytest.raises(NotFound):
            nobody(9999, NOW_S, NOW_S)
    end_pairing(visit, NOW_S, NOW_S)
    # Over, it stands in the way of nobody, and a visit of the past can be told later.
    begin_pairing(sorrel, flint, NOW_S - 9 * DAY_S, NOW_S, NOW_S - 8 * DAY_S)
    begin_pairing(sorrel, flint, NOW_S, NOW_S)


def test_a_visit_of_the_past_with_its_lock_is_one_act(house, sorrel: int, flint: int) -> None:
    began, ended = NOW_S - 30 * DAY_S, NOW_S - 28 * DAY_S
    for outside in (began - 1, ended + 1):
        with pytest.raises(NotPlausible, match="not together then") as refused:
            begin_pairing(sorrel, flint, began, NOW_S, ended, outside)
        assert refused.value.field == "lock_at"
    assert [d.pairings for d in lay_season(house.current().herd, NOW_S).dams] == []
    visit, visiting = begin_pairing(sorrel, flint, began, NOW_S, ended, began + 3600)
    assert [lock.seen_s for lock in house.current().herd.locks[visit]] == [int(began + 3600)]
    # Its own lock is no obstacle: the act goes as a whole and comes back as a whole.
    undoing = undo(visiting.id, NOW_S)
    assert visit not in house.current().herd.locks
    undo(undoing.id, NOW_S)
    assert len(house.current().herd.locks[visit]) == 1


def test_undo_of_a_visit_takes_its_lock_only_when_that_is_undone_first(house, sorrel, flint):
    visit, visiting = begin_pairing(sorrel, flint, NOW_S - DAY_S, NOW_S)
    locking = see_lock(visit, NOW_S - 3600, NOW_S)
    with pytest.raises(Conflict, match="a lock was seen during this visit"):
        undo(visiting.id, NOW_S)
    undo(locking.id, NOW_S)
    undo(visiting.id, NOW_S)
    assert lay_season(house.current().herd, NOW_S).plan == ()


def test_who_is_retired_is_planned_no_more(house: SnapshotCache, sorrel: int, flint: int) -> None:
    plan_pair(sorrel, flint, NOW_S)
    with pytest.raises(Conflict, match="planned already"):
        plan_pair(sorrel, flint, NOW_S)
    weigh(sorrel, 1800.0, NOW_S, NOW_S)
    assert [p.warnings for p in lay_season(house.current().herd, NOW_S).plan] == [()]
    correct_animal(flint, AnimalCommand("sire", "Flint", retired=True), NOW_S)
    assert lay_season(house.current().herd, NOW_S).plan == ()
    correct_animal(flint, AnimalCommand("sire", "Flint"), NOW_S)
    assert len(lay_season(house.current().herd, NOW_S).plan) == 1
    drop_pair(sorrel, flint, NOW_S)
    with pytest.raises(NotFound, match="not planned"):
        drop_pair(sorrel, flint, NOW_S)


def test_laying_ends_the_plan_for_this_season(
    house: SnapshotCache, sorrel: int, flint: int
) -> None:
    plan_pair(sorrel, flint, NOW_S - 40 * DAY_S)
    assert len(lay_season(house.current().herd, NOW_S).plan) == 1
    lay_clutch(lay_day(2.0, dam="Sorrel", sire="Flint"), NOW_S)
    assert lay_season(house.current().herd, NOW_S).plan == ()
    # Next season they are planned anew.
    drop_pair(sorrel, flint, NOW_S)
    plan_pair(sorrel, flint, NOW_S)
    assert len(lay_season(house.current().herd, NOW_S).plan) == 1
