"""Every number of docs/rules.md, written down a second time by whoever decided on it.

A number that moves fails here until its reason is known: change the line below together with
the number, and say why in the commit. What a number does at its edge is tested beside its rule.
"""

import importlib
import re
from pathlib import Path

import pytest

from plain_numbers import plain
from sandboa.core.causes.scores import STARTS
from sandboa.core.standing.signs import SIGNS
from sandboa.core.water.mixing import MEDIA

RULES = (Path(__file__).parents[2] / "docs" / "rules.md").read_text()
#: A share developed that no egg reaches.
ALWAYS = 9.0

NUMBERS: dict[str, object] = {
    # A1 The clock
    "development/clock.DEFAULT_CLOCK": {"zero_c": 19, "sum_c_days": 735, "cap_c": 33},
    # A2 The temperature that counts
    "development/sources.AHEAD_SD_C": 0.2,
    "development/box_temperature.KNOWN_DAYS": 3,
    "development/sources.RECENT_DAYS": 7,
    "development/box_temperature.SETTLING_S": 21_600,
    "development/sources.LOGGER_GAP_S": 7200,
    "development/sources.HAND_GAP_S": 93_600,
    "development/sources.OFFSET_DAYS": 14,
    # A3 How sure it is
    "development/sources.CHECKED_PROBE_SD_C": 0.1,
    "development/sources.UNCHECKED_PROBE_SD_C": 0.3,
    "development/sources.ESTIMATED_SD_C": 0.7,
    # A4 Windows without random numbers
    "development/rules.HOUSE_SD": 0.025,
    "development/rules.CABINET_SD": 0.015,
    "development/rules.DAM_SD": 0.015,
    "development/rules.CHANCE_SD": 0.042,
    "development/rules.CHANCE_RANGE": (0.02, 0.10),
    "development/rules.CHANCE_LOG_SD": 0.5,
    "development/windows.QUANTILES": (0.1, 0.25, 0.5, 0.75, 0.9),
    # A5 Within a clutch, and afterwards
    "development/rules.EGG_SD_DAYS": 1,
    "development/rules.EGG_SD_RANGE_DAYS": (0.4, 3),
    "development/rules.EGG_SD_WORTH_CLUTCHES": 4,
    "development/rules.EMERGENCE": {"median_days": 1.3, "sigma": 0.4},
    "development/rules.FIRST_SHED_WITHIN_DAYS": (5, 10),
    "development/rules.FIRST_MEAL": {"median_days": 2, "sigma": 0.6},
    # A6 What pips say, and their absence
    "development/rules.NONE_ALIVE": 0.04,
    "development/rules.ASKED_FROM_SDS": 3.5,
    "development/rules.TOLD_FROM": 0.2,
    "development/rules.NO_DATE_FROM": 0.8,
    "development/none_alive.FAR_BEYOND": 1.25,
    # A7 What finished clutches teach
    "development/rules.SLOPE_SD": 0.02,
    "development/rules.CURVATURE_SD": 0.006,
    "development/rules.CHANCE_FREEDOM": 4,
    "development/rules.EFFECT_SD_WORTH": 4,
    # A8 How good it was
    "development/score.SCORED_DAYS": (0, 30, 50),
    # A9 Eggs kept by their dam
    "development/rules.MATERNAL_FACTOR": 2,
    # B Dents by stage
    "dimples/rules.ALLOWED_FROM": ((0.5, 1), (0.65, 2), (0.85, 3)),
    "dimples/stages.GRADES": (0, 1, 2, 3, 4),
    "dimples/stages.HIGHEST_ALLOWED": 3,
    "dimples/rules.FULL_TERM_FROM": 0.95,
    "dimples/rules.THIN_SHELL_ALLOWANCE": 1,
    "dimples/rules.BOX_SHARE": 0.5,
    "dimples/rules.FEWEST_TO_VOTE": 3,
    "dimples/rules.ANSWER_DAYS": 5,
    "dimples/rules.FAST_RISE_GRADES": 2,
    "dimples/rules.FAST_RISE_DAYS": 7,
    "dimples/rules.FAST_RISE_BEFORE": 0.8,
    "dimples/rules.WET_BY_SCALE": 0.75,
    # C Is the egg alive
    "standing/learning.WEIGHT_SD": 0.6,
    "standing/learning.DIES_WORTH_EGGS": 60,
    "standing/learning.MOST_EGGS": 600,
    "standing/reliability.RELIABILITY_EDGES": (0, 0.15, 0.5, 0.7, 0.85, 0.95, 1),
    "standing/rules.PRIORS": {
        "strong": 3.5,
        "weak": 1.1,
        "not candled": 2.4,
        "unsure": 1.8,
        "none": -0.6,
    },
    "standing/rules.DEPENDENCE": 0.8,
    "standing/rules.LATE_AFTER_HOURS": 36,
    "standing/rules.LATE_PER_HOURS": 24,
    "standing/rules.STANDING_FROM": {"sound": 0.85, "watch": 0.5, "failing": 0.15},
    "standing/rules.CANDLE_EVERY_DAYS": 4,
    "standing/settle.LOOK_EVERY_DAYS": 2,
    "standing/settle.WORTH_A_LOOK": -0.4,
    "standing/rules.RISKS": {
        ("mould", "patch"): 2,
        ("mould", "furry"): 4,
        ("smell", "off"): 2,
        ("smell", "foul"): 4,
        ("wet", "weeping"): 2,
        ("wet", "leaking"): 4,
        ("vessels", "weak"): 2,
        ("dents", "excess"): 1.5,
    },
    "standing/rules.RISK_DAYS": 10,
    "standing/rules.SOUND_WILL_PIP": 0.72,
    "standing/death_time.DIES": 0.12,
    "standing/death_time.DIES_IN_SLIT": 0.03,
    "standing/death_time.LOSSES": ((0.40, 0.15, 0.12), (0.30, 0.50, 0.15), (0.30, 0.95, 0.06)),
    "standing/death_time.SHOWS_AFTER": {
        "movement": 0.005,
        "touch": 0.005,
        "siblings": 0.005,
        "vessels": 0.04,
        "body": 0.04,
        "feel": 0.06,
        "dents": 0.08,
        "shell": 0.1,
        "colour": 0.08,
        "mould": 0.1,
        "smell": 0.1,
        "wet": 0.1,
    },
    "standing/clutch.SHARED_LUCK": 0.8,
    "standing/clutch.ALL_AT_ONCE": 0.005,
    "standing/score.JUDGED_DAYS": (30, 50),
    # D1 Mixing
    "water/mixing.RATIO_RANGE": (0.1, 8),
    "water/mixing.DEPTH_RANGE_MM": (1, 100),
    "water/mixing.SIDE_RANGE_CM": (5, 120),
    "water/mixing.VOLUME_RANGE_L": (0.05, 60),
    # D2 The ledger of a box
    "water/ledger.SCALE_SD_G": 2,
    "water/ledger.HEAVIER_G": 8,
    "water/rules.UNWEIGHED_EGG_G": (85, 12),
    "water/rules.ROUND_TO_G": 5,
    "water/rules.SPLIT_ABOVE": 0.6,
    "water/top_up.POURED_RANGE_G": (1, 2000),
    "water/top_up.BOX_MASS_RANGE_G": (10, 50_000),
    "water/top_up.REST_AFTER_HOURS": 14,
    "water/top_up.REST_WITHIN_DAYS": 7,
    # D3 Drying without a scale
    "water/drying.BOX_HUMIDITY": 0.99,
    "water/rules.UNKNOWN_HUMIDITY": 0.4,
    "water/rules.UNKNOWN_HUMIDITY_RANGE": (0.25, 0.65),
    "water/drying.EXCHANGE_L_DAY": {
        "sealed film": 10,
        "lid with 1-2 pin holes": 20,
        "lid with 3-8 holes": 70,
        "film with a cracked corner": 110,
        "loose lid": 180,
    },
    "water/drying.MEDIUM_FACTOR": {
        "vermiculite": 0.6,
        "ready-mixed": 0.7,
        "half and half": 0.8,
        "perlite": 1,
        "saturated perlite": 1,
        "sponges": 1,
        "water under a grid": 1.1,
        "damp paper": 1,
    },
    "water/drying.EXCHANGE_SD_FACTOR": 2,
    # D4 What is left, and until when
    "water/rules.TOP_UP_SHARE": 0.5,
    "water/rules.DRY_SHARE": 0.25,
    "water/estimate.DAYS_SD": 0.1,
    "water/estimate.AHEAD_SD": 0.2,
    "water/estimate.FARTHEST_DAYS": 150,
    "water/estimate.RECKONED_SD": (0.1, 0.015, 0.5),
    "water/learning.SHARED_VARIANCE": 0.6,
    # D5 What was seen and felt
    "water/rules.WATER_SIGNS": {
        "medium drips": (1, 0.3),
        "medium clumps": (0.7, 0.25),
        "medium barely damp": (0.35, 0.2),
        "medium dry": (0.1, 0.18),
        "lid raining": (0.9, 0.45),
        "lid half": (0.85, 0.4),
        "lid edges": (0.7, 0.4),
        "lid none": (0.35, 0.4),
        "weight as ever": (0.75, 0.35),
        "weight light": (0.35, 0.3),
    },
    "water/rules.LID_SILENT_FROM": 0.85,
    # E Climate
    "development/exposure.HARM_ABOVE_C": 33.5,
    "development/exposure.FINE_OFF_C": 0.5,
    "development/exposure.NOTICEABLE_C": 1,
    "development/exposure.LARGE_C": 2.5,
    "development/cold_spells.COLD_BELOW_C": 27,
    "development/cold_spells.SHORTEST_SPELL_S": 7200,
    "climate/rules.HOT_EMERGENCIES": ((35, 21_600), (37, 3600)),
    "climate/rules.COLD_EMERGENCY": (20, 86_400),
    "climate/limits.LASTING_S": 1800,
    "climate/rules.OFF_TARGET_C": 1.5,
    "climate/rules.SWING_C": (1, 2),
    "climate/sensor_health.BATTERY_LOW_PERCENT": 15,
    "climate/sensor_health.SIGNAL_WEAK_DBM": -88,
    "climate/sensor_health.LINK_WEAK": 25,
    "climate/slow_limits.DAYS_BACK": 21,
    "climate/rules.LASTING_OFF_C": 0.75,
    "climate/slow_limits.LASTING_OFF_DAYS": 3,
    "climate/rules.SLOW_CHANGE_C": 0.6,
    "climate/slow_limits.SLOW_CHANGE_DAYS": 14,
    "climate/slow_limits.SLOW_CHANGE_KNOWN_DAYS": 10,
    "climate/slow_limits.SLOW_CHANGE_EXPLAINED": 0.6,
    "climate/rules.HUMIDITY_FALL": 0.15,
    "climate/rules.DRY_BOX_BELOW": 0.9,
    "climate/slow_limits.DRY_BOX_HOURS": 3,
    "climate/probe_checks.SALT_HUMIDITY": 0.753,
    "climate/probe_checks.SATURATED_HUMIDITY": 0.97,
    "climate/probe_checks.LARGEST_OFFSET_C": 5,
    "climate/probe_checks.LARGEST_HUMIDITY_OFFSET": 0.25,
    "climate/faults/rules.POWER_C": 0.8,
    "climate/faults/rules.POWER_S": 1200,
    "climate/faults/rules.DOOR_C": 0.4,
    "climate/faults/rules.DOOR_S": 1500,
    "climate/faults/rules.DOOR_HUMIDITY": 0.05,
    "climate/faults/rules.APART_C": 0.8,
    "climate/faults/rules.APART_HOURS": 1.5,
    "climate/faults/rules.SAWTOOTH_C": 1,
    "climate/faults/rules.STUCK_HOURS": 3,
    "climate/faults/rules.STEP_C": 0.8,
    "climate/faults/rules.DRIFT_C": 0.3,
    "climate/faults/rules.DRIFT_DAYS": 8,
    "climate/faults/rules.EGG_HEAT_C": (0.25, 1.5),
    "climate/faults/grid.STEP_S": 300,
    # F Air
    "air.FRESH": 0.209,
    "air.USE_ML_HOUR": ((0.2, 0.3), (0.5, 1), (0.85, 3)),
    "air.USE_FACTOR": 2,
    "air.AIR_BELOW": 0.17,
    "air.WEIGHED_AIR_SD": 0.25,
    "air.FREE_AIR_L": 5,
    # G Why eggs were lost
    "causes/rules.AIR_FROM": 0.7,
    "causes/rules.RARELY_DAYS": 10,
    "causes/rules.SOON_AFTER": 0.25,
    "causes/rules.IN_SEQUENCE": 0.25,
    "causes/rules.LONG_PIPPED_HOURS": 48,
    "causes/rules.HOT_DEGREE_HOURS": (3, 20),
    "causes/rules.COLD_HOURS": (24, 72),
    "causes/rules.DEEP_COLD_C": 21,
    "causes/rules.SWING_DAYS": (3, 8),
    "causes/rules.CALM_SWING_C": 1,
    "causes/rules.EARLY_DAYS": 5,
    "causes/rules.LATE_DAYS": 6,
    "causes/rules.MEASURED_ENOUGH": 0.8,
    "causes/rules.FAULT_REACH": 0.15,
    "causes/rules.LONGEST_OUTAGE_HOURS": 60,
    "causes/rules.HARMLESS_C": 2.5,
    "causes/rules.SEVERE_C": 4,
    "causes/rules.SEVERE_HOURS": 12,
    "causes/rules.NEW_DAYS": 150,
    "causes/rules.BATCH_DAYS": (21, 49),
    "causes/rules.NEVER_HOT_C": 33,
    "causes/rules.BATCH_SHARE": 0.6,
    "causes/rules.WRONG_NOTES": 0.07,
    "causes/rules.TOGETHER_FROM": 0.2,
    "causes/rules.HIGH_SLUG_SHARE": 0.25,
    "causes/rules.ENOUGH_EGGS": 8,
    "causes/rules.STRONG_RECORD": 0.8,
    "causes/rules.SAME_STAGE": 0.15,
    "causes/rules.WHOLE_CLUTCH": 0.6,
    # H Small numbers
    "rates/rules.LEVEL": 0.9,
    "rates/rate.PRIOR_CORRELATION": 0.15,
    "rates/rate.PRIOR_CLUTCHES": 8,
    "rates/groups.PRIOR_STRENGTH": 12,
    "rates/rules.CALLED_FROM": 0.95,
    "rates/side_by_side.GROUP_SD": 0.5,
    "rates/side_by_side.GROUPS_WORTH": 5,
    "rates/side_by_side.CLUTCH_SD": 0.8,
    "rates/side_by_side.CLUTCHES_WORTH": 8,
    "seasons/findings.MOST_SENTENCES": 6,
    # P1 Pairing and laying
    "pairing/plan.VISIT_INTERVAL_DAYS": 25,
    "pairing/plan.VISIT_INTERVAL_RANGE_DAYS": (5, 90),
    "pairing/plan.VISIT_DAYS": 3,
    "pairing/plan.MOST_DAMS_PER_SIRE": 4,
    "pairing/plan.LIGHTEST_DAM_G": 1500,
    "pairing/genes.POSSIBLE_CARRIES": 0.5,
    "laying/origin.TORCH_STAGES": {
        "disc only": (0.0, 0.08),
        "vessels a quarter round": (0.05, 0.16),
        "vessels half round": (0.12, 0.28),
        "vessels all round": (0.22, 0.60),
        "dark body": (0.50, 0.98),
    },
    "laying/origin.STAGE_WORTH": 4,
    "laying/origin.BEFORE_RANGE_C": (24, 36),
    "laying/origin.LONGEST_SPAN_DAYS": 60,
    "development/earlier_life.ABOUT_SD_C": 1,
    "past_clutches/card.PIP_RANGE_DAYS": (44, 105),
    "past_clutches/first_pip.DAY_SD": 0.2886751346,
    "development/earlier_life.UNKNOWN_BEFORE_C": 31,
    "development/earlier_life.UNKNOWN_BEFORE_SD_C": 1.5,
    "pairing/proving.MOST_TOGETHER": 20,
    "pairing/genes.MOST_FORMS": 12,
    "laying/intervals.INTERVALS": {
        "ovulation": {"median_days": 44, "low_days": 38, "high_days": 54},
        "pre-lay shed": {"median_days": 30, "low_days": 26, "high_days": 38},
    },
    "laying/intervals.HOUSE_SHARE": 0.15,
    "laying/intervals.DAM_SHARE": 0.25,
    "laying/lay_forecast.OVERDUE_SD": 2.6,
    # P2 Lay day
    "lay_day.SECOND_CLUTCH_DAYS": 60,
    "lay_day.USUAL_LOSS": (0.25, 0.4),
    "lay_day.EGG_MASS_RANGE_G": (10, 250),
    "lay_day.USUAL_EGG_G": (65, 105),
    "clutch_count.MOST_EGGS": 20,
    "box.MOST_IN_BOX": 30,
    "box.SAME_PLACE": 0.02,
    # P3 By torchlight
    "candling.TURN_WITHIN_HOURS": 24,
    "candling.AGAIN_DAYS": (5, 7),
    "candling.AGAIN_GIVEN_UP_DAYS": 14,
    # P4 House methods
    "methods/reasons.DISCOURAGED_ABOVE_C": 32.8,
    "methods/method.EARLIEST_SET_DAY": 55,
    "methods/method.STANDARD_C": 31.67,
    "methods/reasons.STANDARD_RANGE_C": (31.1, 32),
    # P5 The dam afterwards
    "dam_care/aftercare.NOT_EATING_DAYS": 21,
    "dam_care/aftercare.WEIGH_EVERY_DAYS": 7,
    "dam_care/aftercare.MEAL_EVERY_DAYS": 6,
    "dam_care/recovery.WEIGHING_SD_G": 25,
    "dam_care/recovery.LEAST_DAYS": 6,
    "dam_care/recovery.FASTEST_G_PER_DAY": 40,
    # P6 A cabinet ready for eggs
    "climate/readiness.STEADY_HOURS": 48,
    "climate/rules.DAILY_SWING_C": 1,
    "climate/readiness.WHOLE_SWING_C": 2,
    "climate/rules.MEAN_OFF_C": 0.5,
    "climate/readiness.GAP_HOURS": 2,
    "climate/readiness.LOOK_BACK_HOURS": 336,
    # P7 Rounds
    "rounds/due.VISIT_EVERY_DAYS": {
        "set and forget": None,
        "every 14 days": 14,
        "every 7 days": 7,
        "every 2-3 days": 2.5,
    },
    "rounds/due.WATCH_EVERY_DAYS": 3,
    "rounds/due.ANSWER_LOOK_DAYS": 3,
    "rounds/due.MID_TERM": (0.45, 0.6),
    "rounds/due.CANDLED_BEFORE_DAYS": 3,
    "rounds/due.CLOTH_DAYS": (1, 2),
    "rounds/due.LAST_WEEK_DAYS": 7,
    "rounds/due.POSTPONE_DAYS": (1, 14),
    "rounds/due.TOP_UP_AHEAD_DAYS": 2,
    # P8 At hatch
    "hatching/advice.RESCUE_HOURS": (36, 48),
    "hatching/advice.FULL_TERM": 0.95,
    "hatching/advice.SLIT_HOURS": 24,
    "hatching/advice.OUT_HOURS": 72,
    "hatching/advice.CUT_OUT_HOURS": 120,
    "hatching/advice.DEFLATED_GRADE": 2,
    "hatching/advice.CALENDAR_DAYS": 60,
    "hatching/hatchlings.HATCHLING_RANGE_G": (10, 150),
    "hatching/raising.MEAL_EVERY_DAYS": 7,
    "hatching/raising.MEAL_EVERY_RANGE_DAYS": (3, 21),
    "hatching/raising.RAISED_DAYS": 365,
    "hatching/raising.SHEDS_APART_DAYS": 10,
    "hatching/raising.REMINDED_DAYS": 60,
    "hatching/raising.REFUSALS_TOLD": 4,
    "hatching/raising.FASTEST_GAIN_G_DAY": 6,
    "hatching/hatchlings.MOST_IN_ONE_EGG": 2,
    # P9 What can be true
    "animals.ADULT_RANGE_G": (300, 6000),
    "animals.ANY_RANGE_G": (20, 6000),
    "animals.ADULT_YEARS": 2,
    "animals.ASKED_ABOVE": 0.45,
    "animals.OLDEST_YEARS": 60,
    "units.SECONDS_PER_DAY": 86_400,
    "units.SECONDS_PER_HOUR": 3600,
    "units.SECONDS_PER_MINUTE": 60,
    "units.GRAMS_PER_OUNCE": 28.349523125,
    "units.FAHRENHEIT_PER_CELSIUS": 1.8,
    "units.READING_RANGE_C": (-20, 60),
    "units.SET_POINT_RANGE_C": (20, 36),
    "units.MOMENT_RANGE_S": (315_532_800, 7_258_118_400),
    "units.CLOCK_GRACE_S": 60,
    "units.Z80": 1.28155156554,
    "units.MEDIUM_MASS_RANGE_G": (1, 20_000),
    "names.LONGEST_NAME": 60,
    "people.SHORTEST_PASSPHRASE": 12,
    "people.LONGEST_PASSPHRASE": 200,
    "retention.KEPT_DAYS": 7,
    "retention.KEPT_WEEKS": 5,
    "retention.KEPT_MONTHS": 12,
}

#: Kind and value of a sign -> log-odds, from share, until share, from day, days it holds.
SIGN_TABLE = {
    ("vessels", "strong"): (2.5, 0, 0.8, 0),
    ("vessels", "weak"): (-0.5, 0, 0.8, 0),
    ("vessels", "none"): (-3.5, 0, 0.8, 7),
    ("vessels", "broken"): (-3.5, 0, ALWAYS, 0),
    ("movement", "seen"): (5, 0, ALWAYS, 0),
    ("body", "dark"): (1.6, 0.6, ALWAYS, 0),
    ("mould", "none"): (0, 0, ALWAYS, 0),
    ("mould", "spot"): (-0.3, 0, ALWAYS, 0),
    ("mould", "patch"): (-0.8, 0, ALWAYS, 0),
    ("mould", "furry"): (-2.3, 0, ALWAYS, 0),
    ("smell", "none"): (0, 0, ALWAYS, 0),
    ("smell", "off"): (-0.7, 0, ALWAYS, 0),
    ("smell", "foul"): (-3.5, 0, ALWAYS, 0),
    ("wet", "dry"): (0, 0, ALWAYS, 0),
    ("wet", "weeping"): (-0.9, 0, ALWAYS, 0),
    ("wet", "leaking"): (-2.3, 0, ALWAYS, 0),
    ("colour", "white"): (0.2, 0, ALWAYS, 0),
    ("colour", "yellowing"): (-1.6, 0, 0.6, 0),
    ("colour", "odd"): (-1.2, 0, ALWAYS, 0),
    ("feel", "firm"): (0.3, 0.9, ALWAYS, 0),
    ("feel", "mushy"): (-1.9, 0.9, ALWAYS, 0),
    ("touch", "reacts"): (4, 0, ALWAYS, 0),
    ("touch", "still"): (-2.5, 0, ALWAYS, 0),
    ("shell", "clean"): (1.2, 0, ALWAYS, 0),
    ("dents", "excess"): (-0.5, 0, ALWAYS, 0),
    ("siblings", "late"): (-0.5, 0, ALWAYS, 0),
}
#: Medium -> g/l of it dry (usual, least, most), g of water per g of it.
MEDIA_TABLE = {
    "vermiculite": ((110.0, 80.0, 140.0), 1.0),
    "perlite": ((100.0, 70.0, 130.0), 1.0),
    "saturated perlite": ((100.0, 70.0, 130.0), 5.0),
    "half and half": ((105.0, 75.0, 135.0), 1.0),
    "ready-mixed": (None, None),
    "sponges": (None, None),
    "water under a grid": (None, None),
    "damp paper": (None, None),
}
START_TABLE = {
    "infertile": -3.6,
    "too dry": -3.6,
    "too wet": -3.6,
    "too hot": -3.6,
    "too cold, too long": -3.6,
    "unstable temperature": -3.6,
    "embryo underneath or rolled": -3.6,
    "knock, drop or torn shell": -3.6,
    "infection first": -3.6,
    "stale air": -3.6,
    "opened too early": -3.6,
    "could not get out": -3.6,
    "cord around the body": -4.4,
    "malformed": -3.6,
    "lethal gene combination": -4.4,
    "shell defect": -3.6,
    "dam's condition": -3.6,
    "poisoned air": -4.9,
    "pests": -4.4,
    "equipment failure": -3.6,
    "unknown": 0,
}


@pytest.mark.parametrize("name", NUMBERS)
def test_a_number_is_what_was_decided(name: str) -> None:
    module, constant = name.rsplit(".", 1)
    value = getattr(importlib.import_module(f"sandboa.core.{module.replace('/', '.')}"), constant)
    assert plain(value) == pytest.approx(plain(NUMBERS[name]), rel=1e-9)


def test_no_number_of_the_rules_is_missing_here() -> None:
    listed = re.findall(r"^\| `(\w+)` .*\| core/([\w/]+)\.py \|$", RULES, re.MULTILINE)
    assert {f"{file}.{constant}" for constant, file in listed} == set(NUMBERS)


def test_a_sign_weighs_and_holds_as_was_decided() -> None:
    assert {
        (str(kind), value): (s.weight, s.from_share, s.until_share, s.from_day)
        for (kind, value), s in SIGNS.items()
    } == SIGN_TABLE


def test_a_medium_weighs_and_takes_up_as_was_decided() -> None:
    assert {m.name: (m.density_g_l, m.ratio) for m in MEDIA} == MEDIA_TABLE


def test_causes_start_as_was_decided() -> None:
    assert {cause.value: score for cause, score in STARTS.items()} == START_TABLE
