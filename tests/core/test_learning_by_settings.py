"""What learning takes a house for, before it says anything, is the keeper's to set."""

import numpy as np

from sandboa.core.development import Circumstances, FinishedClutch, HouseLearning, learn
from sandboa.core.development.rules import ForecastRules


def taught(rules: ForecastRules, spread: float = 0.03, outlier: float = 0.0) -> HouseLearning:
    random = np.random.default_rng(5)
    finished = [
        FinishedClutch(
            Circumstances(n % 2, n % 3, 31.0), float(random.normal(0.0, spread)), 0.005, 6, 0.04
        )
        for n in range(12)
    ]
    if outlier:
        finished.append(FinishedClutch(Circumstances(0, 0, 31.0), outlier, 0.005, 6, 0.04))
    return learn(finished, rules)


HERE = Circumstances(0, 0, 31.0)


def test_chance_is_learned_within_the_limits_of_the_house() -> None:
    usual = taught(ForecastRules()).expect(HERE).prior.sd
    assert taught(ForecastRules(chance_low_sd=0.039)).expect(HERE).prior.sd > usual
    wild = taught(ForecastRules(), spread=0.2).expect(HERE).prior.sd
    assert taught(ForecastRules(chance_high_sd=0.3), spread=0.2).expect(HERE).prior.sd > wild
    # Sure of it beforehand, three small surprises in a row change little.
    sure = taught(ForecastRules(chance_log_sd=0.1), spread=0.01).expect(HERE).prior.sd
    assert sure > taught(ForecastRules(chance_log_sd=1.2), spread=0.01).expect(HERE).prior.sd


def test_one_wrong_lay_date_moves_a_house_of_few_degrees_of_freedom_less() -> None:
    few = taught(ForecastRules(chance_freedom=2.0), outlier=0.4).expect(HERE).prior.mean
    many = taught(ForecastRules(chance_freedom=60.0), outlier=0.4).expect(HERE).prior.mean
    assert 0.0 < few < many


def test_how_far_eggs_differ_stays_within_the_limits_of_the_house() -> None:
    assert taught(ForecastRules(egg_sd_low_days=0.9)).egg_sd_days == 0.9
    low = taught(ForecastRules()).egg_sd_days
    assert 0.4 < low < 0.9
    assert taught(ForecastRules(egg_sd_high_days=0.45)).egg_sd_days == 0.45


def test_how_far_dams_differ_is_moved_less_where_the_prior_is_worth_more() -> None:
    moved = [taught(ForecastRules(effect_sd_worth=w), 0.1).sds for w in (1.0, 30.0)]
    rules = ForecastRules()
    (dam,) = [kind for kind in moved[0] if kind.value == "dam"]
    assert abs(moved[1][dam] - rules.dam_sd) < abs(moved[0][dam] - rules.dam_sd)
