"""Numbers that docs/rules.md does not list, written down a second time: what a module keeps
to itself, and what each sign is worth for a cause. As with the listed ones, a number that
moves fails here until its line is changed too, with the reason in the commit.
"""

import ast
import importlib
from pathlib import Path

import pytest

from plain_numbers import plain
from sandboa.core.causes.evidence import Neighbours
from sandboa.core.causes.scores import SCORES

CORE = Path(__file__).parents[2] / "src" / "sandboa" / "core"

NUMBERS: dict[str, object] = {
    "box._APART": 0.19,
    "box._EDGE": 0.1,
    "box._GRID_EGGS": 20,
    "box._SHIFTS": 12,
    "causes/by_box._SEVERAL": 2,
    "causes/heat_record._SPELL_ABOVE_C": 1,
    "causes/time_of_death._SHOWS_AFTER": 0.03,
    "causes/time_of_death._VESSELS_FROM": 7 / 60,
    "causes/time_of_death._STAGE_SLACK": 0.08,
    "climate/faults/cabinet_faults._EDGE_C": 0.2,
    "climate/faults/cabinet_faults._MOST_OF_IT": 0.5,
    "climate/faults/cabinet_faults._DOOR_FALL_C": 0.9,
    "climate/faults/cabinet_faults._OUTERMOST": 0.08,
    "climate/faults/cabinet_faults._MIDDLE": 0.9,
    "climate/faults/cabinet_faults._HALF": 0.8,
    "climate/faults/cabinet_faults._SWINGS": 3,
    "climate/faults/cabinet_faults._WINDOW_HOURS": 6,
    "climate/faults/grid._USUAL_BEFORE_DAYS": 7,
    "climate/sensor_health._PERCENT": (0, 100),
    "climate/sensor_health._DBM": (-150, 20),
    "climate/sensor_health._LINK": (0, 255),
    "climate/slow_limits._USUAL_DAYS": 7,
    "climate/slow_limits._USUAL_KNOWN": 4,
    "climate/slow_limits._HOURS_OF_DAY": 12,
    "climate/faults/grid._USUAL_AFTER_DAYS": 2,
    "climate/faults/grid._SETTLING_S": 21600,
    "climate/faults/probe_faults._BEYOND_CHANCE": 3,
    "climate/faults/probe_faults._OTHERS_C": 0.35,
    "climate/faults/probe_faults._STEP_HOURS": 2,
    "climate/faults/probe_faults._SHARP_S": 900,
    "climate/faults/probe_faults._LEVEL_POINTS": 5,
    "climate/faults/probe_faults._SETTLED_S": (4500, 14400),
    "climate/faults/probe_faults._DOOR_S": 2700,
    "climate/faults/probe_faults._AIR_ANSWER_S": 2700,
    "climate/faults/probe_faults._BOX_ANSWER_S": 21600,
    "climate/faults/probe_faults._AT_ONCE": 0.85,
    "climate/faults/slow_changes._BUMP_DAYS": (8, 11, 14),
    "climate/faults/slow_changes._EXPLAINED": 0.8,
    "climate/faults/slow_changes._FEWEST_DAYS": 12,
    "climate/limits._SPAN": 0.25,
    "climate/limits._AVERAGED": 1 / 12,
    "climate/limits._DAY_S": 86_400,
    "dam_care/aftercare._ON_LAY_DAY": (0, 1),
    "dam_care/aftercare._FEEL_AGAIN": (0.5, 1.5),
    "dam_care/aftercare._FIRST_MEAL": (1, 3),
    "dam_care/aftercare._CLEAN": {"clean at once": (0, 1), "let her rest 1-2 weeks first": (7, 14)},
    "dam_care/aftercare._ASKED_FOR_DAYS": 14,
    "dam_care/aftercare._SLACK_DAYS": 3,
    "development/clock._BLOCK": 32768,
    "development/conditioning._UPPER": 0.9,
    "development/conditioning._VALUES": 7,
    "development/conditioning._WEIGHINGS": (3, 2),
    "development/events._GRID": 72,
    "development/events._LONGEST": 0.9995,
    "development/events._NODES": 12,
    "development/events._WIDE": 7,
    "development/impossible_pip._MOST_OFF_C": 5,
    "development/learned_words._LEAST_DAYS": 0.25,
    "development/learning._MANY": 30,
    "development/learning._ROUNDS": 2,
    "development/learning._TYPICAL_DAYS": 58,
    "development/learning._USUAL_DIFFERENCES": 5,
    "development/pipping._BEYOND_DOUBT": 1e-9,
    "development/record_errors._AHEAD": 0,
    "development/record_errors._BEFORE": 1,
    "normal._TABLE_FROM": -12,
    "normal._TABLE_STEP": 0.01,
    "normal._TABLE_TO": 8,
    "dimples/cause._USUAL_LOG_ODDS": 2.4,
    "laying/intervals._BELIEVABLE": {"ovulation": (25, 75), "pre-lay shed": (14, 55)},
    "laying/lay_forecast._QUANTILES": (0.1, 0.25, 0.5, 0.75, 0.9),
    "methods/method._SET_DAY_RANGE": (40, 110),
    "normal._SQRT_2": 2**0.5,
    "people._DIFFERENT_CHARACTERS": 5,
    "people._FEWEST_GUESSES": 1e10,
    "people._COUNTED": 72,
    "practice/scores._EVEN": 0.5,
    "practice/scores._WEEK_S": 604_800.0,
    "rates/compare._POINTS": 400,
    "rates/groups._STRENGTH_RANGE": (2, 200),
    "rates/rate._MOST_ALIKE": 0.8,
    "standing/clutch._NOTHING_SAID": 0.995,
    "standing/learning._ROUNDS": 5,
    "rates/side_by_side._HOUSE": (2.1972245773362196, 1.5),
    "rates/side_by_side._ROUNDS": 12,
    "rates/side_by_side._NEWTON": 30,
    "rates/side_by_side._LONGEST_STEP": 1,
    "seasons/findings._WRONG": 0.05,
    "seasons/findings._BIAS_DAYS": 0.5,
    "seasons/findings._BIAS_CLUTCHES": 3,
    "seasons/findings._COST_EGGS": 1,
    "seasons/findings._MOST_DIFFERENCES": 2,
    "seasons/findings._REST_CLUTCHES": 2,
    "seasons/findings._REST_ABOVE": 1.5,
    "standing/death_time._LAST": 1.15,
    "standing/death_time._STEP": 0.01,
    "standing/score._FEWEST_EGGS": 12,
    "standing/score._SURE_ERRORS": 1.645,
    "standing/signs._OPENED_FROM": 0.9,
    "student._ANGLES": 20_001,
    "water/estimate._GRID": 481,
    "water/estimate._GRID_SD": 4.5,
    "water/estimate._BAND": (0.1, 0.5, 0.9),
    "water/learning._WHOLE_VARIANCE": 0.48045301391,
    "water/top_up._WORTH_POURING": 2,
    "units._KELVIN_AT_0_C": 273.15,
}
#: Tables made from others, or tested whole below.
ELSEWHERE = {
    "causes/scores._TABLE", "development/delays._MIDPOINTS",
    "development/learning._NOTHING", "development/pipping._Z", "standing/clutch._LUCK",
}  # fmt: skip

CAUSE_TABLE = {
    "infertile": {
        "slug at lay": 6, "never vessels": 2.5, "one look": 1, "yolk only": 4, "slug share": 0.8,
        "vessels seen": -9, "embryo found": -9,
    },
    "too dry": {
        "box dented": 2.2, "water dry": 2, "water low": 0.6, "medium dry": 1.4, "hard yolk": 2.2,
        "little fluid": 0.8, "small siblings": 0.6, "plump": -1.8, "wet lid": -1.2,
        "water enough": -2.2, "yolk usual": -0.8,
    },
    "too wet": {
        "medium dripped": 1.6, "lid rained": 1, "mould after rain": 0.8, "bottom soft": 3,
        "in water": 2.2, "mould below": 2.2, "dry": -2.5, "bottom sound": -1,
    },
    "too hot": {
        "hot": 1.5, "very hot": 2, "sibling defects": 1, "hatched early": 1.2,
        "small siblings": 0.4, "defect": 0.4, "others too": 0.8, "others fine": -1.2,
        "never hot": -4,
    },
    "too cold, too long": {
        "cold": 1.6, "very cold": 1.8, "immature": 1, "hatched late": 1.2,
        "others too": 0.8, "others fine": -1.2,
        "steady": -4,
    },
    "unstable temperature": {
        "swings": 2.2, "many swings": 1.2, "others too": 0.8, "others fine": -1.2, "calm": -3,
    },
    "embryo underneath or rolled": {
        "under": 3.8, "side": 1.6, "rolled": 3.8, "found under": 2.2, "found side": 0.8,
        "on top": -2.2,
        "found on top": -2.5,
    },
    "knock, drop or torn shell": {
        "knocked": 2.8, "soon after": 1.2, "weeps": 0.8, "tear found": 2.6, "none": -2.2,
        "no tear": -0.6,
    },
    "infection first": {
        "while good": 3.2, "neighbours": 1.2, "through": 1.6, "vessels first": -2.2,
        "no mould": -2.6, "clean inside": -2,
    },
    "stale air": {
        "low oxygen": 2.2, "may be low": 1, "sealed": 0.8, "siblings full term": 1.2,
        "boxes full term": 1, "formed": 1.2, "vented": -2.6, "early": -5, "sibling out": -0.6,
    },
    "opened too early": {
        "too early": 4, "bled": 2.2, "large yolk": 1.4, "vessel cut": 1.4, "at term": -1,
        "never cut": -12, "dead before": -9,
    },
    "could not get out": {
        "pipped": 4.4, "long": 0.8, "fluid": 2, "hard shell": 2.2, "slit closed": 2.4,
        "not term": -8,
        "not pipped": -1.5,
    },
    "cord around the body": {"around": 4.4, "free": -2.6},
    "malformed": {"defect": 3.6, "siblings": 0.8, "normal": -2.6},
    "lethal gene combination": {"can": 2.8, "alike": 1.6, "cannot": -12, "not alike": -0.8},
    "shell defect": {
        "thin": 2.8, "poor": 2.2, "dented alone": 1.2, "found thin": 1.6, "box dented": -0.8,
        "smooth": -3.2,
    },
    "dam's condition": {
        "first": 0.8, "light": 1.4, "ill": 1.6, "whole clutch": 2.2, "strong": -1.6,
        "siblings fine": -2.4,
    },
    "poisoned air": {
        "new": 1.6, "altered": 3, "whole batch": 3.6, "others fine": -4.5, "elsewhere too": -1.2,
    },
    "pests": {"seen": 4.2, "larvae": 4.2, "none seen": -1.6, "sealed": -0.8, "no larvae": -2},
    "equipment failure": {"fault": 2.6, "severe": 1.4, "siblings too": 1.2, "none": -3.6},
}  # fmt: skip


@pytest.mark.parametrize("name", NUMBERS)
def test_a_private_number_is_what_was_decided(name: str) -> None:
    module, constant = name.rsplit(".", 1)
    value = getattr(importlib.import_module(f"sandboa.core.{module.replace('/', '.')}"), constant)
    assert plain(value) == pytest.approx(plain(NUMBERS[name]), rel=1e-9)


def test_no_private_number_is_missing_here() -> None:
    found = {
        f"{file.relative_to(CORE).with_suffix('')}.{line.target.id}"
        for file in CORE.rglob("*.py")
        for line in ast.parse(file.read_text(encoding="utf-8")).body
        if isinstance(line, ast.AnnAssign)
        and isinstance(line.target, ast.Name)
        and line.target.id.startswith("_")
        and line.value is not None
        and any(map(_is_number, ast.walk(line.value)))
    }
    assert found - ELSEWHERE == set(NUMBERS)


def test_a_sign_is_worth_what_was_decided_for_each_cause() -> None:
    told: dict[str, dict[str, float]] = {}
    for score in SCORES.values():
        told.setdefault(score.cause.value, {})[score.key] = score.score
    assert told == CAUSE_TABLE


def test_nobody_was_lost_around_an_egg_of_which_nothing_is_known() -> None:
    around = Neighbours()
    assert around.same_cabinet == around.elsewhere == around.same_age == (0, 0)
    assert (around.boxes, around.full_term_boxes) == (0, 0)


def _is_number(part: ast.AST) -> bool:
    return (
        isinstance(part, ast.Constant)
        and isinstance(part.value, int | float)
        and not isinstance(part.value, bool)
    )
