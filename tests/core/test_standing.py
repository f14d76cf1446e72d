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
    Evidence,
    Observation,
    SignKind,
    Situation,
    Standing,
    StandingRules,
    asks_for_torch,
    judge_standing,
    what_settles,
)
from sandboa.core.standing.death_time import (
    DIES,
    LOSSES,
    SHOWS_AFTER,
    Look,
    ahead,
    alive_log_odds,
)
from sandboa.core.standing.rules import STAGE_KEY

DAY = 86_400.0
NOW = 30 * DAY


def seen(day: float, kind: str, value: str, development: float = 0.5) -> Observation:
    return Observation(day * DAY, SignKind(kind), value, development)


#: Nothing is lost on the way: then an egg lives, or never did.
NO_LOSSES = StandingRules(dies=1e-12)


def judged(
    *observations: Observation,
    now: float = NOW,
    share: float = 0.5,
    rules: StandingRules = NO_LOSSES,
    **situation: float,
) -> EggStanding:
    told = Situation(0.0, now, share, **situation)  # type: ignore[arg-type]
    return judge_standing(observations, told, rules)


def alone(told: EggStanding) -> list[Evidence]:
    """The evidence without the losses of the stage."""
    return [line for line in told.evidence if line.key != STAGE_KEY]


@pytest.mark.parametrize(
    ("vessels", "log_odds"),
    [("strong", 3.5), ("weak", 1.1), ("none", -0.6), ("unsure", 1.8), (None, 2.4)],
)
def test_the_look_on_lay_day_is_the_prior(vessels: str | None, log_odds: float) -> None:
    looks = [seen(0.1, "vessels", vessels, 0.0)] if vessels else []
    told = judged(*looks)
    assert told.log_odds == pytest.approx(log_odds)
    assert alone(told) == []


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
def test_each_sign_of_the_table_pushes_by_its_weight_against_an_egg_that_never_lived(
    kind: str, value: str, development: float, weight: float
) -> None:
    told = judged(seen(28, kind, value, development), share=0.95)
    assert told.log_odds == pytest.approx(2.4 + 0.8 * weight, abs=1e-3)


@pytest.mark.parametrize(
    ("kind", "value", "development", "day", "words"),
    [
        ("vessels", "strong", 0.85, 28, "before 80 %"),
        ("vessels", "none", 0.1, 6, "before day 7"),
        ("body", "dark", 0.5, 28, "from 60 %"),
        ("colour", "yellowing", 0.7, 28, "before 60 %"),
        ("feel", "mushy", 0.8, 28, "from 90 %"),
    ],
)
def test_outside_its_limits_a_sign_is_listed_without_a_push(
    kind: str, value: str, development: float, day: float, words: str
) -> None:
    told = judged(seen(day, kind, value, development))
    assert told.log_odds == pytest.approx(2.4)
    (line,) = alone(told)
    assert line.push == 0.0
    assert words in line.void


def test_own_dents_and_late_siblings_count_by_grade_and_by_day() -> None:
    assert judged(excess=2).log_odds == pytest.approx(2.4 - 0.8 * 0.5 * 2, abs=1e-3)
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
    rules = StandingRules(priors={"not candled": log_odds}, dies=1e-12)
    assert judged(rules=rules).standing is standing


def test_of_signs_that_are_alike_the_latest_counts_and_an_unsure_look_takes_nothing_back() -> None:
    once = judged(seen(20, "mould", "patch"))
    twice = judged(seen(10, "mould", "patch"), seen(20, "mould", "patch"))
    assert twice.log_odds == pytest.approx(once.log_odds)
    strong = seen(10, "vessels", "strong", 0.2)
    unsure = judged(strong, seen(20, "vessels", "unsure", 0.4))
    assert unsure.log_odds == judged(strong).log_odds


def by_hand(start: float, looks: list[tuple[str, float, float]], share: float) -> float:
    """Log-odds of being alive, summed over times of death in plain loops and finer steps."""
    steps = 4000
    lasts = 1.15
    density = [0.0] * steps
    at = [(n + 0.5) * lasts / steps for n in range(steps)]
    for part, middle, sd in LOSSES:
        hump = [math.exp(-0.5 * ((t - middle) / sd) ** 2) for t in at]
        density = [d + part * h / sum(hump) for d, h in zip(density, hump, strict=True)]
    lived = 1.0 / (1.0 + math.exp(-start))
    dead, over = 0.0, 0.0

    def likelihood(died: float) -> float:
        total = 0.0
        for kind, when, push in looks:
            if when > died:
                total -= push * (1.0 - math.exp(-(when - died) / SHOWS_AFTER[SignKind(kind)]))
        return math.exp(total)

    for t, d in zip(at, density, strict=True):
        if t <= share:
            over += DIES * d
            dead += lived * DIES * d * likelihood(t)
    dead += (1.0 - lived) * likelihood(-1.0)
    return math.log(lived * (1.0 - over) / dead)


@pytest.mark.parametrize(
    "looks",
    [
        [],
        [("vessels", 0.3, 2.0)],
        [("vessels", 0.3, 2.0), ("mould", 0.6, -1.84), ("smell", 0.6, -2.8)],
        [("movement", 0.55, 4.0), ("feel", 0.6, -1.5)],
    ],
)
def test_the_time_of_death_is_summed_over_as_by_hand(looks: list[tuple[str, float, float]]) -> None:
    given_looks = [Look(SignKind(kind), when, push) for kind, when, push in looks]
    found = alive_log_odds(2.4, given_looks, 0.62)
    assert found[-1] == pytest.approx(by_hand(2.4, looks, 0.62), abs=0.03)


def test_strong_vessels_weeks_ago_do_not_outweigh_fur_smell_and_collapse_today() -> None:
    told = judged(
        seen(0.1, "vessels", "strong", 0.0),
        seen(14, "vessels", "strong", 0.25),
        seen(20, "vessels", "strong", 0.35),
        seen(40, "mould", "furry", 0.68),
        seen(40, "smell", "foul", 0.68),
        seen(40, "colour", "odd", 0.68),
        now=40 * DAY,
        share=0.68,
        rules=StandingRules(),
        excess=3,
    )
    assert told.standing is Standing.PROBABLY_LOST
    assert told.evidence[0].key == "sign.smell.foul"
    assert told.evidence[-1].key == "sign.vessels.strong"
    assert told.prior.words == "strong vessels on lay day"


@pytest.mark.parametrize(
    ("day", "share", "standing"), [(26, 0.45, Standing.WATCH), (33, 0.57, None)]
)
def test_a_mouldy_egg_treated_twice_that_keeps_its_vessels_is_watched_never_given_up(
    day: int, share: float, standing: Standing | None
) -> None:
    told = judged(
        seen(0.1, "vessels", "strong", 0.0),
        seen(14, "mould", "patch", 0.25),
        seen(20, "mould", "furry", 0.35),
        seen(20, "vessels", "strong", 0.35),
        seen(day, "mould", "furry", share),
        seen(day, "vessels", "strong", share),
        now=day * DAY,
        share=share,
        rules=StandingRules(),
    )
    assert told.standing is Standing.WATCH
    assert told.alive > 0.85
    # Alive, and more likely to be lost than others: that is what is watched.
    assert told.will_pip < 0.75


def test_an_egg_turned_and_separated_on_lay_day_with_strong_vessels_later_is_sound() -> None:
    told = judged(
        seen(0.1, "vessels", "strong", 0.0),
        seen(30, "vessels", "strong", 0.5),
        now=35 * DAY,
        share=0.58,
        rules=StandingRules(),
    )
    assert told.standing is Standing.SOUND


def test_a_look_speaks_for_the_time_until_it_and_its_word_fades_with_what_is_lost_since() -> None:
    look = seen(20, "movement", "seen", 0.35)
    chances = [judged(look, share=p, rules=StandingRules()).alive for p in (0.35, 0.5, 0.7, 1.0)]
    assert chances == sorted(chances, reverse=True)
    assert chances[0] > 0.99


@given(st.floats(0.0, 1.0), st.floats(1.0, 8.0))
def test_three_chances_stand_in_their_order_and_risk_never_helps(share: float, risk: float) -> None:
    plain, risky = ahead(0.9, share), ahead(0.9, share, risk)
    for told in (plain, risky):
        assert told.will_hatch < told.will_pip <= told.alive
    assert risky.will_pip <= plain.will_pip + 1e-12


def test_nothing_seen_an_egg_may_be_lost_by_its_stage_and_a_clean_shell_says_it_is_not() -> None:
    chances = [judged(share=p, rules=StandingRules()).alive for p in (0.0, 0.3, 0.6, 0.95)]
    assert chances == sorted(chances, reverse=True)
    clean = judged(seen(29, "shell", "clean", 0.9), share=0.95, rules=StandingRules())
    assert clean.alive > chances[-1] + 0.05
    assert clean.standing is Standing.SOUND


def test_what_lies_ahead_plays_no_part() -> None:
    assert judged(seen(40, "smell", "foul")).log_odds == pytest.approx(2.4)


def test_the_keepers_own_weight_replaces_the_tables() -> None:
    rules = StandingRules(weights={"sign.mould.spot": -2.0}, dependence=0.5, dies=1e-12)
    told = judged(seen(20, "mould", "spot"), rules=rules)
    assert told.log_odds == pytest.approx(2.4 - 1.0, abs=1e-3)


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
def test_the_list_adds_up_and_holds_each_sign_once(observations: list[Observation]) -> None:
    told = judged(*observations, rules=StandingRules())
    assert told.log_odds == pytest.approx(told.prior.push + sum(e.push for e in told.evidence))
    assert told.alive == pytest.approx(1 / (1 + math.exp(-told.log_odds)))
    keys = [line.key for line in told.evidence]
    assert len(keys) == len(set(keys))


@given(signs, st.sampled_from([s for s in SIGNS.values() if s.weight < 0 and s.kind == "smell"]))
def test_a_bad_smell_never_helps(observations: list[Observation], smell: object) -> None:
    others = [o for o in observations if o.kind is not SignKind.SMELL]
    with_it = judged(*others, seen(29, "smell", smell.value))  # type: ignore[attr-defined]
    assert with_it.log_odds < judged(*others).log_odds


def test_a_sound_egg_needs_nothing_settled() -> None:
    assert what_settles(judged(), [], Situation(0.0, NOW, 0.5), 0.5) is None


def test_the_torch_settles_it_not_before_day_7_nor_again_within_4_days() -> None:
    weak = [seen(0.1, "vessels", "weak", 0.0)]
    young = judged(*weak, now=3 * DAY, share=0.05)
    told = what_settles(young, weak, Situation(0.0, 3 * DAY, 0.05), 0.05)
    assert told is not None
    assert told.from_s == 7 * DAY
    looks = [*weak, seen(28, "vessels", "weak", 0.5)]
    older = judged(*looks)
    told = what_settles(older, looks, Situation(0.0, NOW, 0.5), 0.5)
    assert told is not None
    assert told.from_s == 32 * DAY
    assert "Candle it" in told.text


def test_late_in_term_movement_and_feel_settle_it() -> None:
    foul = [seen(20, "smell", "foul")]
    told = what_settles(judged(*foul), foul, Situation(0.0, NOW, 0.5), 0.92)
    assert told is not None
    assert "movement" in told.text
    assert "Feel it" in told.text


def test_what_settles_it_keeps_to_the_days_and_stages_the_keeper_set() -> None:
    looks = [seen(0.1, "vessels", "weak", 0.0), seen(28, "vessels", "weak", 0.5)]
    own = StandingRules(candle_every_days=6.0)
    told = what_settles(judged(*looks), looks, Situation(0.0, NOW, 0.5), 0.5, rules=own)
    assert told is not None
    assert told.from_s == 34 * DAY
    earlier = StandingRules(stage_limits={"stage.vessels.until_share": 0.45})
    told = what_settles(judged(*looks), looks, Situation(0.0, NOW, 0.5), 0.5, rules=earlier)
    assert told is not None
    assert "vessels alone are hidden by now" in told.text


def test_signs_against_a_sound_egg_ask_for_the_torch_before_they_outweigh_it() -> None:
    looks = [seen(0.1, "vessels", "strong", 0.0), seen(20, "vessels", "strong", 0.4)]
    off = [*looks, seen(29, "smell", "off")]
    judged_off = judged(*off)
    assert judged_off.standing is Standing.SOUND
    assert what_settles(judged_off, off, Situation(0.0, NOW, 0.5), 0.5) is not None
    spot = [*looks, seen(29, "mould", "spot")]
    assert what_settles(judged(*spot), spot, Situation(0.0, NOW, 0.5), 0.5) is None
    # Dents that deepen by two grades in a week do not wait for the next look.
    told = what_settles(judged(*looks), looks, Situation(0.0, NOW, 0.5), 0.5, sinking=True)
    assert told is not None
    assert told.from_s == NOW


def test_which_signs_alone_are_reason_to_candle_at_once() -> None:
    asking = {f"{kind}.{value}" for kind, value in SIGNS if asks_for_torch(kind, value)}
    assert {"smell.off", "smell.foul", "mould.patch", "wet.weeping", "dents.excess"} <= asking
    assert not asking & {"mould.spot", "mould.none", "vessels.weak", "vessels.none", "colour.white"}


def test_of_two_looks_at_one_moment_the_worse_counts_and_a_draw_is_told_apart() -> None:
    same = [seen(20, "mould", "spot"), seen(20, "mould", "patch")]
    assert judged(*same).log_odds == pytest.approx(2.4 - 0.8 * 0.8, abs=1e-3)
    drawn = [seen(20, "vessels", "none", 0.7), seen(20, "vessels", "none", 0.9)]
    assert judged(*drawn) == judged(*reversed(drawn))


def test_dents_say_how_the_egg_was_when_they_were_seen() -> None:
    """An egg creased long ago is not round again for having waited."""
    rules = StandingRules()
    then = judged(share=0.33, now=20 * DAY, excess=2, rules=rules)
    later = judged(
        share=0.65, now=39 * DAY, excess=2, dented_s=20 * DAY, dented_share=0.33, rules=rules
    )
    (line,) = [e for e in later.evidence if e.key == "sign.dents.excess"]
    assert line.at_s == 20 * DAY
    # Less than the whole of it: since then it may have died, or be lost another way.
    assert -0.8 * 0.5 * 2 < line.push < -0.6
    assert later.alive < then.alive
