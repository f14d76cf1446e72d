"""A7: what finished clutches teach, against sums worked out by hand and by brute force."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.stats import t as student

from core.test_pipping_and_learning import DAY, curve_at
from sandboa.core.development import (
    Circumstances,
    FinishedClutch,
    HatchPrior,
    Learned,
    forecast,
    learn,
)
from sandboa.core.development.record_errors import record_errors
from sandboa.core.development.rules import ForecastRules

USUAL_C = 31.5
WITHOUT_SHARES = ForecastRules(cabinet_sd=1e-6, dam_sd=1e-6, slope_sd=1e-6, curvature_sd=1e-6)


def clutch(
    log: float,
    cabinet: str = "North",
    dam: str = "Sorrel",
    mean_c: float = USUAL_C,
    probe: str | None = None,
    sd: float = 0.01,
) -> FinishedClutch:
    where = Circumstances(cabinet, dam, mean_c, probe, 0.025 if probe else 0.0)
    return FinishedClutch(where, log, sd, 6)


def told(
    finished, cabinet: str = "North", dam: str = "Rue", mean_c: float = USUAL_C, **more
) -> Learned:
    return learn(finished, **more).expect(Circumstances(cabinet, dam, mean_c))


def alike(count: int, log: float = 0.05, **more) -> list[FinishedClutch]:
    """Clutches of as many dams."""
    return [clutch(log, dam=f"dam {n}", **more) for n in range(count)]


def test_an_empty_house_knows_nothing_and_says_so() -> None:
    """0.053 = sqrt(0.025² + 0.015² + 0.015² + 0.042²), whatever the temperature (A3)."""
    for mean_c in (28.0, 31.5):
        empty = told([], mean_c=mean_c)
        assert empty.prior == HatchPrior(0.0, pytest.approx(0.05328, abs=1e-5), 1.0)
        assert (empty.clutches, empty.dam.clutches) == (0, 0)
    assert empty.house.may_be_chance


def brute_force(surprises: list[float], own_sd: float) -> tuple[float, float]:
    """Mean and sd of the house alone, on a grid over it and over chance, without any formula."""
    house = np.linspace(-0.2, 0.2, 1601)
    chance = np.geomspace(0.02, 0.10, 61)
    middle = math.log(0.042) - 0.5**2 / 2
    log = -0.5 * (house[None, :] / 0.025) ** 2
    log = log - 0.5 * ((np.log(chance)[:, None] - middle) / 0.5) ** 2
    for surprise in surprises:
        scale = np.sqrt(chance**2 + own_sd**2)[:, None]
        # Student's t whose middle 80 % are those of a normal of that scale.
        scale = scale * 1.2815515655 / student.ppf(0.9, 4)
        log = log + student.logpdf((surprise - house[None, :]) / scale, 4) - np.log(scale)
    weights = np.exp(log - log.max())
    weights /= weights.sum()
    mean = float((weights * house).sum())
    return mean, math.sqrt(float((weights * (house - mean) ** 2).sum()))


@pytest.mark.parametrize(
    "surprises",
    [[0.05], [0.03, 0.06], [0.05] * 6, [0.02, 0.04, 0.09, 0.01, 0.05, 0.06, 0.03, 0.055]],
)
def test_a_house_alone_is_learned_as_brute_force_finds_it(surprises: list[float]) -> None:
    known = learn([clutch(s) for s in surprises], WITHOUT_SHARES)
    own_sd = math.hypot(0.01, known.egg_sd_days / 58.0 / math.sqrt(6))
    mean, sd = brute_force(surprises, own_sd)
    found = known.expect(Circumstances("North", "Sorrel", USUAL_C)).house
    assert found.mean == pytest.approx(mean, abs=0.0035)
    assert found.sd == pytest.approx(sd, rel=0.25)


def test_the_window_carries_what_is_not_known_yet_and_narrows_as_it_is() -> None:
    sds = [told(alike(n)).prior.sd for n in (0, 3, 12, 40)]
    assert sds == sorted(sds, reverse=True)
    # Chance stays: it is what no record takes away.
    assert sds[-1] > 0.02


def test_six_alike_teach_most_of_it_and_one_little() -> None:
    one, six = told(alike(1)).prior.mean, told(alike(6)).prior.mean
    assert 0.01 < one < 0.025
    assert 0.03 < six < 0.05
    assert told(alike(6), "Small").prior.mean < six


def test_one_wrong_lay_date_does_not_move_the_house() -> None:
    """One ten days off among seven moves it by less than half a day."""
    right = told(alike(6, 0.0)).prior.mean
    wrong = told([*alike(6, 0.0), clutch(0.18, dam="wrong")]).prior.mean
    assert abs(wrong - right) < 0.006


def test_a_dam_shifts_only_where_it_was_earned() -> None:
    others = [clutch(0.0, dam=f"dam {n % 4}") for n in range(12)]
    early = [clutch(-0.06, dam="Yarrow") for _ in range(5)]
    known = learn([*others, *early])
    hers = known.expect(Circumstances("North", "Yarrow", USUAL_C)).dam
    assert hers.mean < -0.02
    assert not hers.may_be_chance
    assert hers.clutches == 5
    new = known.expect(Circumstances("North", "Rue", USUAL_C)).dam
    assert (new.mean, new.clutches) == (0.0, 0)
    assert new.may_be_chance
    once = learn([*others, clutch(-0.06, dam="Yarrow")])
    assert once.expect(Circumstances("North", "Yarrow", USUAL_C)).dam.may_be_chance


def test_the_norm_bends_where_warm_and_cool_clutches_say_so() -> None:
    """Eggs that need 4 % more for each degree below 31.5 °C."""
    finished = [
        clutch(-0.04 * (mean_c - USUAL_C), cabinet, f"dam {n}", mean_c)
        for n, (cabinet, mean_c) in enumerate([("North", 31.5), ("South", 29.5)] * 8)
    ]
    known = learn(finished)
    cool = known.expect(Circumstances("third", "Rue", 29.5)).prior
    warm = known.expect(Circumstances("third", "Rue", 31.5)).prior
    assert cool.mean - warm.mean > 0.03
    far = known.expect(Circumstances("third", "Rue", 26.5)).prior
    assert far.sd > cool.sd


def test_clutches_of_one_temperature_say_nothing_of_the_norm_there() -> None:
    known = learn(alike(10))
    usual = known.expect(Circumstances("North", "Rue", USUAL_C))
    elsewhere = known.expect(Circumstances("North", "Rue", USUAL_C - 2.0))
    assert elsewhere.prior.mean == pytest.approx(usual.prior.mean)
    assert elsewhere.prior.sd > usual.prior.sd


def test_what_a_probe_is_off_by_is_learned_once_and_stays_with_the_probe() -> None:
    finished = [clutch(0.06, dam=f"dam {n}", probe="old") for n in range(10)]
    known = learn(finished)
    same = known.expect(Circumstances("North", "Rue", USUAL_C, "old", 0.025)).prior
    other = known.expect(Circumstances("North", "Rue", USUAL_C, "new", 0.025)).prior
    assert same.mean > other.mean + 0.01
    assert (same.probe, other.probe) == ("old", None)
    # All of it is in the sd of the one; the other's own error comes on top of its.
    assert same.sd < math.hypot(other.sd, 0.025)


def test_of_few_clutches_nobody_knows_the_spread_either_so_tails_are_wider() -> None:
    random = np.random.default_rng(7)
    few, many = (
        told([clutch(s, dam=f"dam {n}") for n, s in enumerate(random.normal(0, 0.05, count))]).prior
        for count in (4, 60)
    )
    assert 8 < few.freedom < many.freedom
    assert math.isinf(told([]).prior.freedom)
    z = np.linspace(-7.0, 7.0, 2801)
    density = np.exp(few.log_density(z))
    density /= density.sum()
    # One sd is one sd all the same.
    assert float(density @ z**2) == pytest.approx(1.0, abs=0.01)
    assert few.log_density(np.array([3.0]))[0] > -4.5


def test_chance_is_learned_between_its_limits() -> None:
    random = np.random.default_rng(4)
    widths = [0.03, 0.07]
    found = []
    for width in widths:
        finished = [clutch(s, dam=f"dam {n}") for n, s in enumerate(random.normal(0, width, 40))]
        found.append(told(finished).prior.sd)
    assert found[0] < 0.045 < 0.055 < found[1]


def test_how_far_eggs_differ_is_pooled_with_a_prior_of_four_clutches() -> None:
    """Four clutches of six eggs 2 days apart weigh as much as the prior: sqrt((1² + 2²) / 2)."""
    where = Circumstances("North", "Sorrel", USUAL_C)
    finished = [FinishedClutch(where, 0.0, 0.01, 6, egg_variance=4.0)] * 4
    assert learn(finished).egg_sd_days == pytest.approx(math.sqrt(2.5))
    unknown = [FinishedClutch(where, 0.0, 0.01, 6)] * 4
    assert learn(unknown).egg_sd_days == 1.0
    for variance, limit in ((0.0, 0.4), (100.0, 3.0)):
        many = [FinishedClutch(where, 0.0, 0.01, 6, egg_variance=variance)] * 400
        assert learn(many).egg_sd_days == limit


@settings(deadline=None, max_examples=40)
@given(st.lists(st.floats(-0.2, 0.2), min_size=1, max_size=8), st.randoms())
def test_learning_is_bounded_and_blind_to_order(logs, random) -> None:
    finished = [clutch(log, dam=f"dam {n % 3}") for n, log in enumerate(logs)]
    prior = told(finished, dam="dam 0").prior
    assert min(*logs, 0.0) - 1e-9 <= prior.mean <= max(*logs, 0.0) + 1e-9
    shuffled = finished[:]
    random.shuffle(shuffled)
    again = told(shuffled, dam="dam 0").prior
    assert (again.mean, again.sd) == pytest.approx((prior.mean, prior.sd))


@settings(deadline=None, max_examples=40)
@given(
    st.lists(st.floats(-0.1, 0.1), min_size=2, max_size=6), st.integers(0, 5), st.floats(0, 0.05)
)
def test_a_later_clutch_never_makes_the_house_earlier(logs, which, more) -> None:
    """Within what a normal would be: beyond it a surprise is taken for a mistake."""
    finished = [clutch(log * 0.3) for log in logs]
    place = which % len(finished)
    moved = finished[:]
    moved[place] = clutch(logs[place] * 0.3 + more * 0.3)
    assert told(moved).prior.mean >= told(finished).prior.mean - 1e-6


def test_what_was_learned_moves_the_forecast() -> None:
    curve = curve_at(20.0)
    prior = told(alike(10, math.log(1.04))).prior
    later, usual = forecast(curve, 6, prior=prior), forecast(curve, 6)
    assert later.typical_pip.p50 - usual.typical_pip.p50 == pytest.approx(1.9 * DAY, abs=0.5 * DAY)
    assert later.fraction < usual.fraction


def test_a_probe_whose_error_was_learned_does_not_widen_the_window_twice() -> None:
    curve = curve_at(20.0)
    errors = record_errors(curve)
    assert errors.main_probe is not None
    alone = forecast(curve, 6, prior=HatchPrior(sd=0.04)).log_sd
    learned = forecast(curve, 6, prior=HatchPrior(sd=0.04, probe=errors.main_probe)).log_sd
    assert alone**2 - learned**2 == pytest.approx(errors.by_probe[errors.main_probe] ** 2)
