"""A clutch from pip to closing, through the services: what is refused, undone and kept."""

import pytest

from boxes import now
from samples import DAY_S, NOW_S, close_clutch, lay_day
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching import DeathStage, Fate, Sex
from sandboa.core.rounds import EggActKind
from sandboa.services.acts.errors import Conflict, NotFound, Question
from sandboa.services.acts.recording import undo
from sandboa.services.animals.meals import MealCommand
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.hatching.egg_events import (
    confirm_pip,
    cut_egg,
    see_emergence,
    see_pip,
    see_several,
)
from sandboa.services.hatching.fates import (
    FateCommand,
    declare_fates,
    finish,
    reopen,
)
from sandboa.services.hatching.hatchlings import HatchlingCommand, record_hatchling
from sandboa.services.hatching.overview import hatch_overview, hatching_clutch
from sandboa.services.hatching.raising import offer_first_meal, see_shed, weigh_hatchling
from sandboa.services.lay_day import correct_clutch, lay_clutch
from sandboa.services.overview.today import today
from sandboa.services.rounds.close_visit import close_visit
from sandboa.services.rounds.visit import BoxVisit, EggSeen
from sandboa.services.snapshot.cache import SnapshotCache
from sandboa.services.snapshot.settings import set_setting

HOUR_S = 3600.0


@pytest.fixture
def due(house: SnapshotCache) -> SnapshotCache:
    """A clutch of five eggs and a slug at term: 26-01."""
    lay_clutch(lay_day(59.0), NOW_S - 59 * DAY_S + 60)
    return house


def test_emergence_before_the_pip_is_refused_in_either_order(due: SnapshotCache) -> None:
    see_pip("26-01", 1, NOW_S - HOUR_S, NOW_S)
    with pytest.raises(NotPlausible, match="pipped after that"):
        see_emergence("26-01", 1, NOW_S - 2 * HOUR_S, NOW_S)
    see_emergence("26-01", 2, NOW_S - 2 * HOUR_S, NOW_S)
    with pytest.raises(NotPlausible, match="out before that"):
        see_pip("26-01", 2, NOW_S - HOUR_S, NOW_S)
    with pytest.raises(Conflict, match="out already"):
        see_emergence("26-01", 2, NOW_S, NOW_S)
    with pytest.raises(NotPlausible, match="slug"):
        see_emergence("26-01", 6, NOW_S, NOW_S)


def test_an_egg_cut_open_is_neither_closed_nor_pipped(due: SnapshotCache) -> None:
    for number in (1, 2, 3, 4):
        see_pip("26-01", number, NOW_S - DAY_S, NOW_S)
    assert clutch_page(due.current(), "26-01", NOW_S).now.forecast.next_pip is not None
    cut_egg("26-01", 5, "looked in", NOW_S, NOW_S)
    told = clutch_page(due.current(), "26-01", NOW_S).now.forecast
    assert (told.pipped, told.next_pip, told.last_pip) == (4, None, None)
    assert told.all_out is not None


def test_out_are_those_that_are_waited_for(due: SnapshotCache) -> None:
    for number in range(1, 6):
        see_pip("26-01", number, NOW_S - 2 * DAY_S, NOW_S)
    before = clutch_page(due.current(), "26-01", NOW_S).now.forecast
    assert NOW_S <= before.next_out.p10 <= before.all_out.p10
    for number in range(1, 5):
        see_emergence("26-01", number, NOW_S - HOUR_S, NOW_S)
    one = clutch_page(due.current(), "26-01", NOW_S).now.forecast
    assert one.next_out == one.all_out
    see_emergence("26-01", 5, NOW_S, NOW_S)
    assert clutch_page(due.current(), "26-01", NOW_S).now.forecast.all_out is None


def asked(house: SnapshotCache) -> str | None:
    found = clutch_page(house.current(), "26-01", NOW_S).now.impossible_pip
    return None if found is None else str(found.words)


def test_a_pip_that_cannot_be_is_kept_and_asked_about_until_it_is_mended(
    house: SnapshotCache,
) -> None:
    lay_clutch(lay_day(36.0), NOW_S - 36 * DAY_S + 60)
    assert asked(house) is None
    see_pip("26-01", 1, NOW_S, NOW_S)
    assert clutch_page(house.current(), "26-01", NOW_S).now.forecast.pipped == 1
    question = asked(house)
    assert "laid about 23 days earlier: is the lay date right?" in question
    (line,) = today(house.current(), NOW_S).boxes
    assert question in [str(a.text) for a in line.attention]
    correct_clutch("26-01", lay_day(58.0), NOW_S)
    assert asked(house) is None


def test_a_pip_that_cannot_be_may_be_right_all_the_same(house: SnapshotCache) -> None:
    lay_clutch(lay_day(36.0), NOW_S - 36 * DAY_S + 60)
    see_pip("26-01", 1, NOW_S, NOW_S)
    said = confirm_pip("26-01", NOW_S)
    assert asked(house) is None
    undo(said.id, NOW_S)
    assert asked(house) is not None
    with pytest.raises(NotFound):
        confirm_pip("26-09", NOW_S)


def test_a_pip_nobody_saw_is_taken_from_the_emergence(due: SnapshotCache) -> None:
    see_emergence("26-01", 2, NOW_S - HOUR_S, NOW_S)
    now = clutch_page(due.current(), "26-01", NOW_S).now
    assert now.forecast.pipped == 1
    egg = next(e for e in now.eggs if e.number == 2)
    assert egg.pipped_s == pytest.approx(NOW_S - HOUR_S - 1.3 * DAY_S)
    assert egg.standing is None
    set_setting("forecast.emergence_days", 2.0, NOW_S)
    egg = next(e for e in clutch_page(due.current(), "26-01", NOW_S).now.eggs if e.number == 2)
    assert egg.pipped_s == pytest.approx(NOW_S - HOUR_S - 2.0 * DAY_S)


def test_a_removed_egg_neither_pips_nor_hatches(due: SnapshotCache) -> None:
    visit = BoxVisit(
        key="visit.one.1", box="26-01", opened_s=NOW_S - 600, closed_s=NOW_S - 500,
        eggs=(EggSeen(3, acts=(EggActKind.REMOVED,)),),
    )  # fmt: skip
    close_visit(visit, NOW_S)
    with pytest.raises(NotPlausible, match="removed"):
        see_pip("26-01", 3, NOW_S, NOW_S)
    assert 3 not in hatching_clutch(due.current(), "26-01", NOW_S).closed


def test_an_egg_cut_by_hand_says_why(due: SnapshotCache) -> None:
    cut_egg("26-01", 1, "siblings out for two days", NOW_S - HOUR_S, NOW_S, bled=True)
    with pytest.raises(Conflict, match="already"):
        cut_egg("26-01", 1, "again", NOW_S, NOW_S)
    with pytest.raises(NotPlausible) as refused:
        cut_egg("26-01", 2, "  ", NOW_S, NOW_S)
    assert refused.value.field == "reason"
    see_emergence("26-01", 3, NOW_S - HOUR_S, NOW_S)
    with pytest.raises(NotPlausible, match="was out by then"):
        cut_egg("26-01", 3, "rescue", NOW_S, NOW_S)


def test_the_eggs_declared_lost_are_not_waited_for(due: SnapshotCache) -> None:
    before = clutch_page(due.current(), "26-01", NOW_S).now.live_eggs
    lost = declare_fates(
        "26-01", [FateCommand(4, Fate.DEAD_IN_EGG, DeathStage.LATE)], NOW_S - HOUR_S, NOW_S
    )
    after = clutch_page(due.current(), "26-01", NOW_S).now
    assert after.live_eggs == before - 1
    assert next(e for e in after.eggs if e.number == 4).standing is None
    undo(lost.id, NOW_S)
    assert clutch_page(due.current(), "26-01", NOW_S).now.live_eggs == before


def test_fates_are_declared_whole_or_not_at_all(due: SnapshotCache) -> None:
    see_pip("26-01", 2, NOW_S, NOW_S)
    with pytest.raises(NotPlausible, match="egg 2 has pipped"):
        declare_fates(
            "26-01", [FateCommand(1, Fate.UNKNOWN), FateCommand(2, Fate.DEAD_IN_EGG)], NOW_S, NOW_S
        )
    assert not any(e.declared for e in hatching_clutch(due.current(), "26-01", NOW_S).eggs)
    with pytest.raises(NotPlausible, match="twice"):
        declare_fates("26-01", [FateCommand(1, Fate.UNKNOWN)] * 2, NOW_S, NOW_S)
    with pytest.raises(NotPlausible, match="which egg"):
        declare_fates("26-01", [], NOW_S, NOW_S)
    with pytest.raises(NotFound):
        declare_fates("26-01", [FateCommand(9, Fate.UNKNOWN)], NOW_S, NOW_S)


def test_a_clutch_is_closed_once_every_egg_has_its_fate_and_can_be_reopened(
    due: SnapshotCache,
) -> None:
    with pytest.raises(Conflict, match="what became of eggs 1, 2, 3, 4, 5"):
        finish("26-01", NOW_S, NOW_S)
    close_clutch("26-01", NOW_S, egg2=Fate.UNKNOWN)
    assert hatch_overview(due.current(), NOW_S) == ()
    with pytest.raises(Conflict, match="closed already"):
        finish("26-01", NOW_S, NOW_S)
    for late in (
        lambda: see_pip("26-01", 1, NOW_S, NOW_S),
        lambda: see_emergence("26-01", 1, NOW_S, NOW_S),
        lambda: cut_egg("26-01", 1, "late", NOW_S, NOW_S),
        lambda: declare_fates("26-01", [FateCommand(2, Fate.REMOVED)], NOW_S, NOW_S),
    ):
        with pytest.raises(Conflict, match="reopen it first"):
            late()
    reopen("26-01", NOW_S)
    declare_fates("26-01", [FateCommand(2, Fate.REMOVED)], NOW_S, NOW_S)
    finish("26-01", NOW_S, NOW_S)
    standing = hatching_clutch(due.current(), "26-01", NOW_S)
    assert [e.fate for e in standing.eggs][1] is Fate.REMOVED
    assert standing.to_say == ()


def test_hatchlings_are_recorded_followed_and_corrected(due: SnapshotCache) -> None:
    with pytest.raises(NotPlausible, match="nothing has come out"):
        record_hatchling("26-01", HatchlingCommand(1), NOW_S)
    see_emergence("26-01", 1, NOW_S - 10 * DAY_S, NOW_S)
    with pytest.raises(NotPlausible, match="15000 g"):
        record_hatchling("26-01", HatchlingCommand(1, mass_g=15_000.0), NOW_S)
    entity, _ = record_hatchling("26-01", HatchlingCommand(1, mass_g=58.0), NOW_S)
    again, correcting = record_hatchling(
        "26-01", HatchlingCommand(1, mass_g=60.0, sex=Sex.MALE, note=" lively  one "), NOW_S
    )
    assert again == entity
    (hatchling,) = hatching_clutch(due.current(), "26-01", NOW_S).eggs[0].hatchlings
    assert [w.mass_g for w in hatchling.weights] == [60.0]
    assert hatchling.recorded.note == "lively one"
    undo(correcting.id, NOW_S)
    (hatchling,) = hatching_clutch(due.current(), "26-01", NOW_S).eggs[0].hatchlings
    assert [w.mass_g for w in hatchling.weights] == [58.0]
    with pytest.raises(NotPlausible, match="still in its egg"):
        see_shed(entity, NOW_S - 11 * DAY_S, NOW_S)
    see_shed(entity, NOW_S - 2 * DAY_S, NOW_S)
    with pytest.raises(NotPlausible, match="within 10 days"):
        see_shed(entity, NOW_S, NOW_S)
    offer_first_meal(entity, MealCommand(False), NOW_S - DAY_S, NOW_S)
    offer_first_meal(entity, MealCommand(True, "rat pup", 9.0), NOW_S, NOW_S)
    weigh_hatchling(entity, 66.0, NOW_S, NOW_S)
    (hatchling,) = hatching_clutch(due.current(), "26-01", NOW_S).eggs[0].hatchlings
    assert [m.taken for m in hatchling.meals] == [0, 1]
    assert not hatchling.settled
    with pytest.raises(NotFound):
        weigh_hatchling(10**6, 60.0, NOW_S, NOW_S)


def test_more_hatchlings_than_eggs_are_asked_about(due: SnapshotCache) -> None:
    see_emergence("26-01", 1, NOW_S, NOW_S)
    record_hatchling("26-01", HatchlingCommand(1, mass_g=35.0), NOW_S)
    with pytest.raises(Question, match="Twins"):
        record_hatchling("26-01", HatchlingCommand(1, part=2, mass_g=30.0), NOW_S)
    record_hatchling("26-01", HatchlingCommand(1, part=2, mass_g=30.0), NOW_S, twins=True)
    assert len(hatching_clutch(due.current(), "26-01", NOW_S).eggs[0].hatchlings) == 2


def test_a_hatchling_of_which_more_is_recorded_is_not_undone_away(due: SnapshotCache) -> None:
    see_emergence("26-01", 1, NOW_S, NOW_S)
    entity, recording = record_hatchling("26-01", HatchlingCommand(1), NOW_S)
    shed = see_shed(entity, NOW_S, NOW_S)
    with pytest.raises(Conflict, match="more is recorded"):
        undo(recording.id, NOW_S)
    undo(shed.id, NOW_S)
    undo(recording.id, NOW_S)
    assert hatching_clutch(due.current(), "26-01", NOW_S).eggs[0].hatchlings == ()


def test_the_watch_begins_a_week_before_the_first_pip_and_ends_with_settled_hatchlings(
    house: SnapshotCache,
) -> None:
    lay_clutch(lay_day(40.0), NOW_S - 40 * DAY_S)
    assert hatch_overview(house.current(), NOW_S) == ()
    later_s = NOW_S + 18 * DAY_S
    assert [c.now.clutch.code for c in hatch_overview(house.current(), later_s)] == ["26-01"]
    see_emergence("26-01", 1, later_s, later_s)
    entity, _ = record_hatchling("26-01", HatchlingCommand(1), later_s)
    close_clutch("26-01", later_s)
    assert len(hatch_overview(house.current(), later_s)) == 1
    for _ in range(3):
        offer_first_meal(entity, MealCommand(True), later_s, later_s)
    assert hatch_overview(house.current(), later_s) == ()


def test_several_are_out_in_one_act_or_none_is(six: SnapshotCache) -> None:
    see_pip("26-01", 1, NOW_S - 2 * DAY_S, NOW_S)
    pips = see_several("26-01", [2, 3], NOW_S - DAY_S, NOW_S, out=False)
    assert str(pips.said) == "Eggs 2, 3 pipped"
    with pytest.raises(NotPlausible):
        see_several("26-01", [1, 2, 6], NOW_S, NOW_S, out=True)
    with pytest.raises(Conflict):
        see_several("26-01", [4, 2], NOW_S, NOW_S, out=False)
    for none in ([], [1, 1]):
        with pytest.raises(NotPlausible):
            see_several("26-01", none, NOW_S, NOW_S, out=True)
    assert [egg.pipped_s is None for egg in now(six).eggs] == [False] * 3 + [True] * 3
    out = see_several("26-01", [1, 2, 3, 4], NOW_S, NOW_S, out=True)
    assert [egg.emerged_s is not None for egg in now(six).eggs] == [True] * 4 + [False] * 2
    undo(out.id, NOW_S)
    assert all(egg.emerged_s is None for egg in now(six).eggs)
    undo(pips.id, NOW_S)
    assert [egg.pipped_s is None for egg in now(six).eggs[:3]] == [False, True, True]
