"""Is the egg alive: the table of rule C, and what must hold for any evidence."""

import math
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.errors import NotPlausible
from sandboa.core.standing import (
    SIGNS,
    EggStanding,
    Observation,
    SignKind,
    Situation,
    Standing,
    StandingRules,
    asks_for_torch,
    judge_standing,
    what_settles,
)

DAY = 86_400.0
NOW = 30 * DAY


def seen(day: float, kind: str, value: str, development: float = 0.5) -> Observation:
    return Observation(day * DAY, SignKind(kind), value, development)


def judged(*observations: Observation, now: float = NOW, **situation: float) -> EggStanding:
    return judge_standing(observations, Situation(0.0, now, **situation))  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("vessels", "log_odds"),
    [("strong", 3.5), ("weak", 1.1), ("none", -0.6), ("unsure", 1.8), (None, 2.4)],
)
def test_the_look_on_lay_day_is_the_prior(vessels: str | None, log_odds: float) -> None:
    looks = [seen(0.1, "vessels", vessels, 0.0)] if vessels else []
    told = judged(*looks)
    assert told.log_odds == pytest.approx(log_odds)
    assert told.evidence == ()


@pytest.mark.parametrize(
    ("kind", "value", "development", "weight"),
    [
        ("vessels", "strong", 0.4, 2.5),
        ("vessels", "weak", 0.4, -0.5),
        ("vessels", "none", 0.4, -3.5),
        ("vessels", "broken", 0.9, -3.5),
        ("movement", "seen", 0.5, 5.0),
        ("body", "dark", 0.7, 1.6),
        ("mould", "spot", 0.3, -0.3),
        ("mould", "patch", 0.3, -0.8),
        ("mould", "furry", 0.3, -2.3),
        ("smell", "off", 0.3, -0.7),
        ("smell", "foul", 0.3, -3.5),
        ("wet", "weeping", 0.3, -0.9),
        ("wet", "leaking", 0.3, -2.3),
        ("colour", "white", 0.3, 0.2),
        ("colour", "yellowing", 0.5, -1.6),
        ("colour", "odd", 0.9, -1.2),
        ("feel", "firm", 0.95, 0.3),
        ("feel", "mushy", 0.95, -1.9),
        ("touch", "reacts", 0.95, 4.0),
        ("touch", "still", 0.95, -2.5),
    ],
)
def test_each_sign_of_the_table_pushes_by_its_weight(
    kind: str, value: str, development: float, weight: float
) -> None:
    told = judged(seen(28, kind, value, development))
    assert told.log_odds == pytest.approx(2.4 + 0.8 * weight)


@pytest.mark.parametrize(
    ("kind", "value", "development", "day", "words"),
    [
        ("vessels", "strong", 0.85, 28, "before 80 %"),
        ("vessels", "none", 0.1, 6, "before day 7"),
        ("body", "dark", 0.5, 28, "from 60 %"),
        ("colour", "yellowing", 0.7, 28, "before 60 %"),
        ("feel", "mushy", 0.8, 28, "from 90 %"),
        ("movement", "seen", 0.5, 15, "14 days"),
    ],
)
def test_outside_its_limits_a_sign_is_listed_without_a_push(
    kind: str, value: str, development: float, day: float, words: str
) -> None:
    told = judged(seen(day, kind, value, development))
    assert told.log_odds == pytest.approx(2.4)
    (line,) = told.evidence
    assert line.push == 0.0
    assert words in line.void


def test_own_dents_and_late_siblings_count_by_grade_and_by_day() -> None:
    assert judged(excess=2).log_odds == pytest.approx(2.4 - 0.8 * 0.5 * 2)
    # 36 h are given; 48 h later it is two times 24 h.
    late = judged(first_pip_s=NOW - (36 + 48) * 3600)
    assert late.log_odds == pytest.approx(2.4 - 0.8 * 0.5 * 2)
    assert judged(first_pip_s=NOW - 30 * 3600).log_odds == pytest.approx(2.4)


@pytest.mark.parametrize(
    ("log_odds", "standing"),
    [
        (math.log(0.86 / 0.14), Standing.SOUND),
        (math.log(0.84 / 0.16), Standing.WATCH),
        (math.log(0.51 / 0.49), Standing.WATCH),
        (math.log(0.49 / 0.51), Standing.FAILING),
        (math.log(0.16 / 0.84), Standing.FAILING),
        (math.log(0.14 / 0.86), Standing.PROBABLY_LOST),
    ],
)
def test_the_thresholds_of_standing(log_odds: float, standing: Standing) -> None:
    rules = StandingRules(priors={"not candled": log_odds})
    assert judge_standing([], Situation(0.0, NOW), rules).standing is standing


def test_the_latest_of_a_kind_replaces_the_earlier() -> None:
    worse = judged(seen(10, "mould", "patch"), seen(20, "mould", "none"))
    assert worse.log_odds == pytest.approx(2.4)
    later = judged(seen(10, "vessels", "strong", 0.2), seen(20, "vessels", "none", 0.4))
    assert later.log_odds == pytest.approx(2.4 - 0.8 * 3.5)
    # An unsure look takes nothing back.
    unsure = judged(seen(10, "vessels", "strong", 0.2), seen(20, "vessels", "unsure", 0.4))
    assert unsure.log_odds == pytest.approx(2.4 + 0.8 * 2.5)


def test_a_foul_furry_egg_without_vessels_is_probably_lost_and_says_why() -> None:
    told = judged(
        seen(0.1, "vessels", "strong", 0.0),
        seen(20, "mould", "furry"),
        seen(20, "smell", "foul"),
        seen(20, "vessels", "none", 0.4),
    )
    assert told.standing is Standing.PROBABLY_LOST
    assert [line.key for line in told.evidence[:2]] == ["sign.smell.foul", "sign.vessels.none"]
    assert told.prior.words == "strong vessels on lay day"


def test_what_lies_ahead_plays_no_part() -> None:
    assert judged(seen(40, "smell", "foul")).log_odds == pytest.approx(2.4)


def test_the_keepers_own_weight_replaces_the_tables() -> None:
    rules = StandingRules(weights={"sign.mould.spot": -2.0}, dependence=0.5)
    told = judge_standing([seen(20, "mould", "spot")], Situation(0.0, NOW), rules)
    assert told.log_odds == pytest.approx(2.4 - 1.0)


def test_a_sign_nobody_knows_is_refused() -> None:
    with pytest.raises(NotPlausible, match="no sign of mould"):
        judged(seen(20, "mould", "purple"))


signs = st.lists(
    st.builds(
        lambda key, day, p: Observation(float(day) * DAY, key[0], key[1], p),
        st.sampled_from([k for k in SIGNS if k[0] not in (SignKind.DENTS, SignKind.SIBLINGS)]),
        st.integers(0, 35),
        st.floats(0.0, 1.1),
    ),
    max_size=14,
)


@given(signs, st.randoms())
def test_same_input_same_answer_in_any_order(
    observations: list[Observation], shuffle: random.Random
) -> None:
    mixed = list(observations)
    shuffle.shuffle(mixed)
    assert judged(*observations) == judged(*mixed)


@given(signs)
def test_the_list_adds_up_and_holds_each_kind_once(observations: list[Observation]) -> None:
    told = judged(*observations)
    assert told.log_odds == pytest.approx(told.prior.push + sum(e.push for e in told.evidence))
    assert told.alive == pytest.approx(1 / (1 + math.exp(-told.log_odds)))
    kinds = [line.key.split(".")[1] for line in told.evidence]
    assert len(kinds) == len(set(kinds))


@given(signs, st.sampled_from([s for s in SIGNS.values() if s.weight < 0 and s.kind == "smell"]))
def test_a_bad_smell_never_helps(observations: list[Observation], smell: object) -> None:
    others = [o for o in observations if o.kind is not SignKind.SMELL]
    with_it = judged(*others, seen(29, "smell", smell.value))  # type: ignore[attr-defined]
    assert with_it.log_odds < judged(*others).log_odds


def test_a_sound_egg_needs_nothing_settled() -> None:
    assert what_settles(judged(), [], Situation(0.0, NOW), 0.5) is None


def test_the_torch_settles_it_not_before_day_7_nor_again_within_4_days() -> None:
    weak = [seen(0.1, "vessels", "weak", 0.0)]
    young = judge_standing(weak, Situation(0.0, 3 * DAY))
    told = what_settles(young, weak, Situation(0.0, 3 * DAY), 0.05)
    assert told is not None
    assert told.from_s == 7 * DAY
    looks = [*weak, seen(28, "vessels", "weak", 0.5)]
    older = judge_standing(looks, Situation(0.0, NOW))
    told = what_settles(older, looks, Situation(0.0, NOW), 0.5)
    assert told is not None
    assert told.from_s == 32 * DAY
    assert "Candle it" in told.text


def test_late_in_term_movement_and_feel_settle_it() -> None:
    foul = [seen(20, "smell", "foul")]
    told = what_settles(judge_standing(foul, Situation(0.0, NOW)), foul, Situation(0.0, NOW), 0.92)
    assert told is not None
    assert "movement" in told.text
    assert "Feel it" in told.text


def test_signs_against_a_sound_egg_ask_for_the_torch_before_they_outweigh_it() -> None:
    looks = [seen(0.1, "vessels", "strong", 0.0), seen(20, "vessels", "strong", 0.4)]
    off = [*looks, seen(29, "smell", "off")]
    judged_off = judge_standing(off, Situation(0.0, NOW))
    assert judged_off.standing is Standing.SOUND
    assert what_settles(judged_off, off, Situation(0.0, NOW), 0.5) is not None
    spot = [*looks, seen(29, "mould", "spot")]
    assert (
        what_settles(judge_standing(spot, Situation(0.0, NOW)), spot, Situation(0.0, NOW), 0.5)
        is None
    )
    # Dents that deepen by two grades in a week do not wait for the next look.
    told = what_settles(judged(*looks), looks, Situation(0.0, NOW), 0.5, sinking=True)
    assert told is not None
    assert told.from_s == NOW


def test_which_signs_alone_are_reason_to_candle_at_once() -> None:
    asking = {f"{kind}.{value}" for kind, value in SIGNS if asks_for_torch(kind, value)}
    assert {"smell.off", "smell.foul", "mould.patch", "wet.weeping", "dents.excess"} <= asking
    assert not asking & {"mould.spot", "mould.none", "vessels.weak", "vessels.none", "colour.white"}


def test_of_two_looks_at_one_moment_the_worse_counts_and_a_draw_is_told_apart() -> None:
    same = [seen(20, "mould", "spot"), seen(20, "mould", "patch")]
    assert judged(*same).log_odds == pytest.approx(2.4 - 0.8 * 0.8)
    drawn = [seen(20, "vessels", "none", 0.7), seen(20, "vessels", "none", 0.9)]
    assert judged(*drawn) == judged(*reversed(drawn))
