"""What closed eggs teach of signs and losses: known values, and what must not move."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from sandboa.core.standing import SIGNS, Observation, SignKind, Situation, judge_standing
from sandboa.core.standing.death_time import DIES, Look, alive_log_odds, dead_at_each_time
from sandboa.core.standing.learning import ClosedEgg, learn_standing
from sandboa.core.standing.rules import DEFAULT_RULES, STAGE_KEY

DAY = 86_400.0
SPOT, FOUL = SIGNS[SignKind.MOULD, "spot"], SIGNS[SignKind.SMELL, "foul"]


def closed(lived: bool, *looks: tuple[float, SignKind, str], ended: float = 1.0) -> ClosedEgg:
    """An egg looked at by shares of a term of 60 days."""
    seen = tuple(Observation(s * 60 * DAY, kind, value, s) for s, kind, value in looks)
    return ClosedEgg(seen, Situation(0.0, ended * 60 * DAY, ended), lived)


SPOTTED = (0.5, SignKind.MOULD, "spot")


def test_without_closed_eggs_the_table_stands() -> None:
    told = learn_standing([])
    assert (told.rules, told.eggs, dict(told.by_sign)) == (DEFAULT_RULES, 0, {})


def test_a_house_whose_spotted_eggs_hatch_learns_that_a_spot_says_little() -> None:
    hatched = learn_standing([closed(True, SPOTTED)] * 25)
    died = learn_standing([closed(False, SPOTTED, ended=0.7)] * 25)
    few = learn_standing([closed(False, SPOTTED, ended=0.7)])
    usual = SPOT.weight
    assert died.rules.weight(SPOT) < few.rules.weight(SPOT) < usual <= hatched.rules.weight(SPOT)
    assert abs(few.rules.weight(SPOT) - usual) < 0.25, "one egg is no proof"
    assert died.by_sign == {SPOT.key: 25}
    assert died.rules.weight(FOUL) == FOUL.weight, "nobody showed it"


def test_the_share_that_dies_is_pooled_with_what_was_assumed() -> None:
    told = learn_standing([closed(False, ended=0.6)] * 6 + [closed(True)] * 54)
    assert told.rules.dies == pytest.approx((60 * DIES + 6) / 120)


def test_what_the_keeper_set_stays() -> None:
    eggs = [closed(False, SPOTTED, ended=0.7)] * 25
    told = learn_standing(eggs, DEFAULT_RULES, frozenset({SPOT.key, STAGE_KEY}))
    assert told.rules.weight(SPOT) == SPOT.weight
    assert told.rules.dies == DEFAULT_RULES.dies
    assert SPOT.key not in told.by_sign


def test_what_was_learned_judges_the_eggs_it_came_from_better() -> None:
    eggs = [closed(False, SPOTTED, ended=0.7)] * 12 + [closed(True)] * 40
    told = learn_standing(eggs).rules

    def off(rules) -> float:
        chances = [judge_standing(e.observations, e.situation, rules).alive for e in eggs]
        return float(np.mean([(c - e.lived) ** 2 for c, e in zip(chances, eggs, strict=True)]))

    assert off(told) < off(DEFAULT_RULES)


looks = st.lists(
    st.builds(
        Look, st.sampled_from([SignKind.VESSELS, SignKind.SMELL]), st.floats(0, 1), st.floats(-4, 4)
    ),
    max_size=5,
)


@given(st.floats(-3, 4), looks, st.floats(0.02, 1.1))
def test_the_learner_and_the_judge_tell_the_same_chance(start, seen, share) -> None:
    log_odds, dead, shown = dead_at_each_time(start, seen, share)
    assert log_odds == pytest.approx(float(alive_log_odds(start, seen, share)[-1]), abs=1e-9)
    assert float(dead.sum()) == pytest.approx(1.0)
    assert shown.shape == (len(seen), len(dead))
    assert np.all((shown >= 0.0) & (shown <= 1.0))


@settings(max_examples=30, deadline=None)
@given(
    st.lists(
        st.tuples(st.booleans(), st.floats(0.2, 0.9), st.sampled_from(["spot", "patch", "furry"])),
        min_size=1, max_size=12,
    )
)  # fmt: skip
def test_weights_stay_near_the_table_whatever_a_few_eggs_do(rows) -> None:
    told = learn_standing([closed(lived, (s, SignKind.MOULD, v)) for lived, s, v in rows])
    for value in ("spot", "patch", "furry"):
        sign = SIGNS[SignKind.MOULD, value]
        assert abs(told.rules.weight(sign) - sign.weight) < 2.5
    assert 0.0 < told.rules.dies < 1.0
