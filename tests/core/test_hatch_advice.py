"""Advice at a closed egg by cutting school, fates that fit, and what a hatchling does next."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.development.rules import EMERGENCE, FIRST_SHED
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching import (
    AdviceKind,
    DeathStage,
    EggAtHatch,
    Fate,
    advise,
    stage_of,
)
from sandboa.core.hatching.advice import FULL_TERM
from sandboa.core.hatching.fates import (
    EggRecord,
    following_fate,
    likely_fate,
    require_fate_fits,
    span_of,
)
from sandboa.core.hatching.hatchlings import still_to_come
from sandboa.core.hatching.last_week import LastWeekTask, last_week
from sandboa.core.methods import CuttingSchool, LastDays

HOUR_S = 3600.0
DAY_S = 24 * HOUR_S
NOW_S = 60 * DAY_S


def at_hatch(
    *eggs: EggAtHatch,
    school: CuttingSchool = CuttingSchool.NEVER,
    share: float = 1.0,
    set_day: int | None = None,
    day: float = 60.0,
) -> dict[int, AdviceKind]:
    told = advise(
        eggs, school=school, set_day=set_day, share=share, laid_s=NOW_S - day * DAY_S, now_s=NOW_S
    )
    return {advice.number: advice.kind for advice in told}


def ago(hours: float) -> float:
    return NOW_S - hours * HOUR_S


OUT = EggAtHatch(1, pipped_s=ago(50), emerged_s=ago(20))
ALSO_OUT = EggAtHatch(2, pipped_s=ago(49), emerged_s=ago(10))


def test_a_rescue_is_considered_when_siblings_are_out_36_hours_after_the_first_pip() -> None:
    closed = EggAtHatch(3)
    assert at_hatch(OUT, ALSO_OUT, closed)[3] is AdviceKind.WINDOW
    early = EggAtHatch(1, pipped_s=ago(30), emerged_s=ago(5))
    assert at_hatch(early, closed)[3] is AdviceKind.WAIT
    # Most siblings are still in: nothing is late yet.
    pipped = [EggAtHatch(n, pipped_s=ago(49)) for n in (4, 5, 6)]
    assert at_hatch(OUT, *pipped, closed)[3] is AdviceKind.WAIT


@pytest.mark.parametrize("school", list(CuttingSchool))
def test_nothing_is_cut_before_full_term_by_heat_whatever_the_calendar_says(
    school: CuttingSchool,
) -> None:
    deflated = EggAtHatch(3, grade=3)
    told = at_hatch(OUT, ALSO_OUT, deflated, school=school, set_day=55, share=0.90, day=63.0)
    assert told[3] is AdviceKind.TOO_EARLY


def test_each_school_cuts_when_it_says() -> None:
    pipped, closed = EggAtHatch(1, pipped_s=ago(3)), EggAtHatch(2)
    first_pip = CuttingSchool.AFTER_FIRST_PIP
    assert at_hatch(pipped, closed, school=first_pip)[2] is AdviceKind.WINDOW
    assert at_hatch(closed, school=first_pip)[2] is AdviceKind.WAIT
    deflated, firm = EggAtHatch(3, grade=2), EggAtHatch(4, grade=0)
    term = CuttingSchool.FULL_TERM
    assert at_hatch(deflated, school=term)[3] is AdviceKind.WINDOW
    assert at_hatch(deflated, firm, school=term)[3] is AdviceKind.WAIT
    on_day = CuttingSchool.SET_DAY
    assert at_hatch(closed, school=on_day, set_day=60)[2] is AdviceKind.WINDOW
    assert at_hatch(closed, school=on_day, set_day=61)[2] is AdviceKind.WAIT
    assert at_hatch(pipped, closed, school=CuttingSchool.NEVER)[2] is AdviceKind.WAIT


def test_a_pipped_egg_is_left_alone_and_then_its_slit_is_looked_at() -> None:
    assert at_hatch(EggAtHatch(1, pipped_s=ago(20)))[1] is AdviceKind.WAIT
    assert at_hatch(EggAtHatch(1, pipped_s=ago(30)))[1] is AdviceKind.WIDEN
    # A cut egg stands open already and takes longer.
    assert at_hatch(EggAtHatch(1, pipped_s=ago(30), cut_s=ago(40)))[1] is AdviceKind.WAIT
    assert at_hatch(EggAtHatch(1, cut_s=ago(130)))[1] is AdviceKind.WIDEN
    assert at_hatch(OUT)[1] is AdviceKind.OUT


@given(
    school=st.sampled_from(CuttingSchool),
    share=st.floats(0.0, FULL_TERM - 1e-6),
    day=st.floats(30.0, 110.0),
    hours=st.floats(0.0, 200.0),
)
def test_never_a_window_before_full_term(
    school: CuttingSchool, share: float, day: float, hours: float
) -> None:
    eggs = (EggAtHatch(1, pipped_s=ago(hours), emerged_s=ago(hours / 2)), EggAtHatch(2, grade=4))
    assert at_hatch(*eggs, school=school, share=share, day=day, set_day=55)[2] in (
        AdviceKind.WAIT,
        AdviceKind.TOO_EARLY,
    )


def test_fates_follow_from_the_record_where_they_can() -> None:
    assert following_fate(EggRecord(1, slug=True)) is Fate.SLUG
    assert following_fate(EggRecord(1, slug=False, emerged_s=5.0)) is Fate.HATCHED
    assert following_fate(EggRecord(1, slug=False, removed_s=5.0)) is Fate.REMOVED
    assert following_fate(EggRecord(1, slug=False, pipped_s=5.0)) is None
    assert likely_fate(EggRecord(1, slug=False, pipped_s=5.0)) is Fate.PIPPED_DIED
    assert likely_fate(EggRecord(1, slug=False)) is Fate.DEAD_IN_EGG
    assert not Fate.SLUG.is_loss
    assert not Fate.HATCHED.is_loss


@pytest.mark.parametrize(
    ("egg", "fate", "stage", "field"),
    [
        (EggRecord(1, slug=True), Fate.HATCHED, None, "fate"),
        (EggRecord(1, slug=False, pipped_s=1.0), Fate.SLUG, None, "fate"),
        (EggRecord(1, slug=False, pipped_s=1.0), Fate.DEAD_IN_EGG, DeathStage.LATE, "fate"),
        (EggRecord(1, slug=False, emerged_s=1.0), Fate.PIPPED_DIED, None, "fate"),
        (EggRecord(1, slug=False), Fate.REMOVED, DeathStage.EARLY, "stage"),
    ],
)
def test_fates_the_record_rules_out_are_refused(egg, fate, stage, field) -> None:
    with pytest.raises(NotPlausible) as refused:
        require_fate_fits(egg, fate, stage)
    assert refused.value.field == field


@given(st.floats(0.0, 1.05))
def test_a_stage_spans_the_share_it_is_of(share: float) -> None:
    start, end = span_of(stage_of(share))
    assert start <= share < end


def test_what_is_still_to_come_is_never_past_and_narrows() -> None:
    whole = still_to_come(EMERGENCE, 0.0, 0.0)
    assert math.isclose(whole.p50, 1.3 * DAY_S)
    shed = still_to_come(FIRST_SHED, 0.0, 0.0)
    assert math.isclose(shed.p10, 5 * DAY_S)
    assert math.isclose(shed.p90, 10 * DAY_S)
    late = still_to_come(EMERGENCE, 0.0, 3 * DAY_S)
    assert 3 * DAY_S <= late.p10 < late.p90
    far = still_to_come(EMERGENCE, 0.0, 60 * DAY_S)
    assert far.p10 == far.p90 == 60 * DAY_S


@given(st.floats(0.0, 20.0))
def test_the_window_of_a_hatchling_never_lies_behind(days: float) -> None:
    window = still_to_come(EMERGENCE, 0.0, days * DAY_S)
    assert days * DAY_S <= window.p10 <= window.p25 <= window.p50 <= window.p75 <= window.p90


def test_the_last_week_asks_for_what_the_method_wants() -> None:
    moved = [line.task for line in last_week(LastDays.MOVE, on_grid=True)]
    assert moved == list(LastWeekTask)
    left = [line.task for line in last_week(LastDays.LEAVE, on_grid=False)]
    assert left == [LastWeekTask.TUBS, LastWeekTask.TOOLS]
