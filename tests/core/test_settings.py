"""Numbers a keeper can set: each holds its rule's default, and reaches the rule it names."""

from dataclasses import replace

import pytest

from sandboa.core.air import DEFAULT_AIR
from sandboa.core.causes.rules import DEFAULT_RULES as DEFAULT_CAUSES
from sandboa.core.climate.faults.rules import DEFAULT_FAULTS
from sandboa.core.climate.rules import DEFAULT_CLIMATE
from sandboa.core.development import DEFAULT_CLOCK
from sandboa.core.development.rules import ForecastRules
from sandboa.core.development.sources import DEFAULT_RECORD
from sandboa.core.dimples.rules import DEFAULT_DENTS
from sandboa.core.errors import NotPlausible
from sandboa.core.rates.rules import DEFAULT_RATES
from sandboa.core.rules_in_force import RulesInForce, rules_in_force
from sandboa.core.settings import SETTINGS, Quantity, checked_setting
from sandboa.core.standing.judgement import Observation, Situation, judge_standing
from sandboa.core.standing.rules import StandingRules
from sandboa.core.standing.signs import SIGNS, SignKind
from sandboa.core.water.drying import DEFAULT_EXCHANGE, EXCHANGE_L_DAY
from sandboa.core.water.mixing import MEDIA
from sandboa.core.water.rules import DEFAULT_WATER

DEFAULTS = {name: setting.default for name, setting in SETTINGS.items()}


def in_force(**own: float) -> RulesInForce:
    return rules_in_force({**DEFAULTS, **{n.replace("__", "."): v for n, v in own.items()}})


def test_what_nobody_set_is_what_the_rules_say() -> None:
    told = in_force()
    assert (told.clock, told.forecast) == (DEFAULT_CLOCK, ForecastRules())
    assert (told.climate, told.faults, told.air) == (DEFAULT_CLIMATE, DEFAULT_FAULTS, DEFAULT_AIR)
    assert (told.water, told.media) == (DEFAULT_WATER, MEDIA)
    assert (told.dents, told.losses) == (DEFAULT_DENTS, DEFAULT_CAUSES)
    assert (told.record, told.rates) == (DEFAULT_RECORD, DEFAULT_RATES)
    assert told.exchange.l_day("loose lid") == EXCHANGE_L_DAY["loose lid"]
    assert told.exchange.sd_factor == DEFAULT_EXCHANGE.sd_factor
    usual = StandingRules()
    assert all(told.standing.weight(s) == usual.weight(s) for s in SIGNS.values())
    assert all(told.standing.at_stage(s) == s for s in SIGNS.values())
    assert replace(told.standing, weights={}, priors={}, stage_limits={}) == usual


@pytest.mark.parametrize("name", SETTINGS)
def test_each_has_a_range_that_holds_its_default_and_a_reason(name: str) -> None:
    setting = SETTINGS[name]
    low, high = setting.limits
    assert low <= setting.default <= high
    assert low < high
    assert setting.reason
    # It is found by search, away from its neighbours: no label goes on with another's sentence.
    assert str(setting.label).strip("“")[0].isupper()
    assert str(setting.value_words(setting.default))
    assert checked_setting(name, high) == high
    with pytest.raises(NotPlausible):
        checked_setting(name, high + 1.0 + abs(high))


#: Asked for by their names where they are used.
BY_NAME = {
    "lightest_dam_g", "visit_interval_days", "most_dams_per_sire", "not_eating_days",
    "second_clutch_days", "meal_every_days",
}  # fmt: skip


@pytest.mark.parametrize("name", sorted(SETTINGS.keys() - BY_NAME))
def test_each_reaches_a_rule(name: str) -> None:
    """A number that changes nothing is a number nobody should be asked for."""
    low, high = SETTINGS[name].limits
    other = low if SETTINGS[name].default != low else high
    assert rules_in_force({**DEFAULTS, name: other}) != rules_in_force(DEFAULTS)


@pytest.mark.parametrize(
    ("lower", "higher"),
    [
        ("dry_share", "top_up_share"),
        ("water.unknown_humidity_low", "water.unknown_humidity_high"),
        ("forecast.shed_from_days", "forecast.shed_to_days"),
        ("forecast.egg_sd_low_days", "forecast.egg_sd_high_days"),
        ("forecast.chance_low_sd", "forecast.chance_high_sd"),
        ("forecast.told_from", "forecast.no_date_from"),
        ("fault.egg_heat_low_c", "fault.egg_heat_high_c"),
        ("losses.hot_degree_hours", "losses.very_hot_degree_hours"),
        ("losses.cold_hours", "losses.very_cold_hours"),
        ("losses.swing_days", "losses.many_swing_days"),
        ("losses.batch_from_days", "losses.batch_to_days"),
    ],
)
def test_two_ends_of_a_span_cannot_be_set_the_wrong_way_round(lower: str, higher: str) -> None:
    assert SETTINGS[lower].limits[1] < SETTINGS[higher].limits[0]


def test_a_number_reaches_the_place_it_names() -> None:
    told = in_force(climate__hot_hours=3.0, oxygen__85=4.0, start__malformed=-1.0,
                    probe__checked_sd_c=0.2)  # fmt: skip
    assert told.climate.hot_emergencies[0] == (35.0, 3 * 3600.0)
    assert dict(told.air.use_ml_hour)[0.85] == 4.0
    assert told.losses.starts["malformed"] == -1.0
    assert told.probe_sd_c == (0.3, 0.2)


def test_values_are_told_by_what_they_are() -> None:
    words = {name: str(SETTINGS[name].value_words(SETTINGS[name].default)) for name in SETTINGS}
    assert words["climate.harm_above_c"] == "33.5 °C"
    assert words["climate.swing_c"] == "2 °C"
    assert words["lightest_dam_g"] == "1500 g"
    assert words["air_below"] == "17 %"
    assert words["clock.sum_c_days"] == "735 Celsius degree-days above that"


def test_weights_lie_one_level_deeper_and_nothing_else() -> None:
    deep = {setting.group for setting in SETTINGS.values() if setting.deep}
    assert deep == {
        "Weights of signs", "Weights of water signs", "Causes of dents", "Causes of loss",
    }  # fmt: skip
    assert {s.group for s in SETTINGS.values() if not s.deep}.isdisjoint(deep)
    assert all(s.quantity is not Quantity.PLAIN for s in SETTINGS.values() if s.name.endswith("_c"))


def test_a_sign_counts_at_the_stages_the_keeper_set() -> None:
    own = in_force(stage__vessels__until_share=0.9, stage__feel__from_share=0.7).standing
    strong, firm = SIGNS[SignKind.VESSELS, "strong"], SIGNS[SignKind.FEEL, "firm"]
    assert own.at_stage(strong).until_share == 0.9
    assert own.at_stage(firm).from_share == 0.7
    assert own.at_stage(SIGNS[SignKind.VESSELS, "broken"]) == SIGNS[SignKind.VESSELS, "broken"]
    late = Observation(50 * 86_400.0, SignKind.VESSELS, "strong", 0.85)
    situation = Situation(0.0, 51 * 86_400.0, 0.86)
    assert judge_standing([late], situation, own).alive > judge_standing([late], situation).alive
