"""The plan of visits: the interval kept, nobody at two places, warnings in words."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from samples import DAY_S, NOW_S
from sandboa.core.errors import NotPlausible
from sandboa.core.pairing import Pair, many_dams, plan_visits, too_light
from sandboa.core.pairing.plan import VISIT_DAYS

SORREL, TANSY, FLINT, MARL = 1, 2, 11, 12


def test_a_pair_is_due_25_days_after_its_last_visit_began() -> None:
    began = NOW_S - 10 * DAY_S
    (visit,) = plan_visits([Pair(SORREL, FLINT, ((began, began + 2 * DAY_S),))], NOW_S)
    assert visit.from_s == began + 25 * DAY_S
    assert not visit.together


def test_a_sire_with_two_dams_due_goes_to_the_one_waiting_longest() -> None:
    pairs = [
        Pair(SORREL, FLINT, ((NOW_S - 30 * DAY_S, NOW_S - 28 * DAY_S),)),
        Pair(TANSY, FLINT, ((NOW_S - 40 * DAY_S, NOW_S - 38 * DAY_S),)),
    ]
    first, second = plan_visits(pairs, NOW_S)
    assert (first.dam, first.from_s) == (TANSY, NOW_S)
    assert (second.dam, second.from_s) == (SORREL, NOW_S + VISIT_DAYS * DAY_S)


def test_those_together_now_are_told_and_hold_the_others_up() -> None:
    pairs = [Pair(SORREL, FLINT, ((NOW_S - DAY_S, None),)), Pair(TANSY, FLINT)]
    together, waiting = plan_visits(pairs, NOW_S)
    assert together.together
    assert waiting.from_s == NOW_S - DAY_S + VISIT_DAYS * DAY_S


def test_an_interval_that_is_none_is_refused() -> None:
    with pytest.raises(NotPlausible, match="interval 2 days"):
        plan_visits([], NOW_S, 2.0)


pairs = st.lists(
    st.builds(
        Pair,
        st.integers(1, 6),
        st.integers(11, 13),
        st.lists(
            st.floats(0, 60).map(lambda d: (NOW_S - d * DAY_S, NOW_S - d * DAY_S + 1.0)), max_size=3
        ).map(tuple),
    ),
    unique_by=lambda p: (p.dam, p.sire),
    max_size=10,
)


@given(pairs, st.floats(5, 90), st.randoms())
def test_nobody_is_at_two_places_nothing_is_early_and_order_plays_no_part(rows, interval, random):
    plan = plan_visits(rows, NOW_S, interval)
    assert len(plan) == len(rows)
    for i, one in enumerate(plan):
        assert one.from_s >= max(NOW_S, one.due_s)
        for other in plan[i + 1 :]:
            if {one.dam, one.sire} & {other.dam, other.sire}:
                assert abs(one.from_s - other.from_s) >= VISIT_DAYS * DAY_S - 1e-3
    shuffled = list(rows)
    random.shuffle(shuffled)
    assert plan_visits(shuffled, NOW_S, interval) == plan


def test_warnings_come_at_the_limit_and_not_before() -> None:
    assert many_dams("Flint", 4) is None
    assert "5 dams" in (many_dams("Flint", 5) or "")
    assert too_light("Sorrel", 1500.0) is None
    assert "below your minimum of 1500 g" in (too_light("Sorrel", 1499.0) or "")
    assert "no weight recorded" in (too_light("Sorrel", None) or "")
