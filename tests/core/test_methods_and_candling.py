"""House methods, candling and turning, and what can be true of an animal."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from samples import DAY_S, NOW_S
from sandboa.core.animals import leaps, require_hatch_year, require_no_circle, require_weight
from sandboa.core.box import Closing
from sandboa.core.candling import Disc, Vessels, candle_again, turn_advice
from sandboa.core.development.clock import DEFAULT_CLOCK
from sandboa.core.errors import NotPlausible
from sandboa.core.lay_day import Step, may_be_second_clutch, steps
from sandboa.core.methods import (
    REASONS,
    STANDARD,
    CuttingSchool,
    DamSchool,
    checked,
    differences,
    earliest_set_day,
    reasons_of,
    temperature_school,
)
from sandboa.core.water.mixing import MEDIA


def test_a_clutch_differs_from_its_house_line_by_line() -> None:
    own = replace(STANDARD, closing=Closing.CRACKED_CORNER, temperature_c=30.0)
    assert [(d.line, str(d.house), str(d.own)) for d in differences(STANDARD, own)] == [
        ("closing", "lid with 1-2 pin holes", "film with a cracked corner"),
        ("temperature", "31.5 °C", "30.0 °C"),
    ]
    assert differences(STANDARD, replace(STANDARD, name="Other")) == ()


def test_every_choice_of_every_line_has_its_reason() -> None:
    lines = {f for f in STANDARD.__dataclass_fields__ if f not in ("name", "set_day")}
    assert set(reasons_of(STANDARD)) == lines
    for line, reasons in REASONS.items():
        if line != "medium":
            assert set(reasons) == set(type(getattr(STANDARD, line)))
    assert set(REASONS["medium"]) == {m.name for m in MEDIA if not m.for_hatching}


def test_the_reasons_shown_are_those_of_what_is_chosen() -> None:
    own = reasons_of(replace(STANDARD, medium="saturated perlite", temperature_c=30.0))
    assert "several times" in str(own["ratio"])
    assert own["medium"] != reasons_of(STANDARD)["medium"]
    assert "Slower" in str(own["temperature_c"])


def test_a_medium_that_is_not_mixed_by_weight_keeps_no_ratio() -> None:
    assert checked(replace(STANDARD, medium="water under a grid", ratio=1.0)).ratio is None
    assert checked(replace(STANDARD, medium="saturated perlite", ratio=5.0)).ratio == 5.0
    with pytest.raises(NotPlausible, match="ratio"):
        checked(replace(STANDARD, ratio=9.0))


def test_a_set_day_is_never_before_55_at_standard_and_later_when_cooler() -> None:
    assert earliest_set_day(31.67) == 55
    assert earliest_set_day(30.0) == 64
    assert earliest_set_day(15.0) == 110
    cut = replace(STANDARD, cutting=CuttingSchool.SET_DAY, temperature_c=31.67)
    assert checked(replace(cut, set_day=55)).set_day == 55
    with pytest.raises(NotPlausible, match="not before day 55"):
        checked(replace(cut, set_day=54))
    with pytest.raises(NotPlausible, match="which day"):
        checked(cut)
    assert checked(replace(STANDARD, set_day=60)).set_day is None


@given(st.floats(19.5, 36.0), st.floats(19.5, 36.0))
def test_the_earliest_set_day_never_grows_with_warmth(a, b) -> None:
    cool, warm = sorted((a, b))
    assert earliest_set_day(cool) >= earliest_set_day(warm)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"name": ""}, "name"),
        ({"medium": "sawdust"}, "medium"),
        ({"temperature_c": 88.7}, "temperature_c"),
        ({"ratio": float("nan")}, "ratio"),
    ],
)
def test_a_method_that_cannot_be_is_refused_at_its_line(change, field) -> None:
    with pytest.raises(NotPlausible) as refusal:
        checked(replace(STANDARD, **change))
    assert refusal.value.field == field


def test_temperature_schools_in_words() -> None:
    assert [temperature_school(t)[0] for t in (-1.0, 28.5, 30.0, 31.5, 32.8)] == [
        "low",
        "low",
        "cool and slow",
        "standard",
        "standard",
    ]
    school, words = temperature_school(32.9)
    assert school == "discouraged"
    assert str(words).endswith("weak hatchlings above 32.8 °C.")


def test_steps_of_a_lay_day_and_what_a_brooding_dam_leaves_out() -> None:
    assert steps(maternal=False, to_turn=True) == tuple(Step)
    assert Step.TURNING not in steps(maternal=False, to_turn=False)
    kept = steps(maternal=replace(STANDARD, dam=DamSchool.MATERNAL).maternal, to_turn=True)
    assert Step.EGGS not in kept
    assert Step.MARKS not in kept
    assert kept[-1] is Step.AFTERCARE


def test_an_egg_underneath_is_turned_within_a_day_and_never_after() -> None:
    assert turn_advice(Disc.TOP, NOW_S, NOW_S) is None
    young = turn_advice(Disc.UNDER, NOW_S, NOW_S + 23.9 * 3600)
    assert young
    assert young.turn
    assert "once" in young.text
    old = turn_advice(Disc.SIDE, NOW_S, NOW_S + 24.1 * 3600)
    assert old
    assert not old.turn
    assert "do not turn" in old.text
    assert old.until_s == NOW_S + DAY_S


def test_unsure_eggs_are_candled_again_on_day_five_to_seven() -> None:
    wanted = (NOW_S + 5 * DAY_S, NOW_S + 7 * DAY_S)
    for seen in (Vessels.WEAK, Vessels.NONE, Vessels.UNSURE, None):
        assert candle_again(seen, NOW_S, NOW_S, NOW_S) == wanted
    assert candle_again(Vessels.STRONG, NOW_S, NOW_S, NOW_S) is None
    assert candle_again(Vessels.WEAK, NOW_S, NOW_S + 5 * DAY_S, NOW_S + 6 * DAY_S) is None
    assert candle_again(Vessels.WEAK, NOW_S, NOW_S, NOW_S + 14.1 * DAY_S) is None


@pytest.mark.parametrize(
    ("mass_g", "age", "said"),
    [
        (12.0, None, "no weight of an adult"),
        (20_000.0, None, "no weight of an adult"),
        (1.85, None, "1850 g, perhaps"),
        (12.0, 1, "outside 20 to 6000"),
        (float("nan"), 5, "no weight of an adult"),
    ],
)
def test_weights_that_cannot_be_are_answered_in_words(mass_g, age, said) -> None:
    with pytest.raises(NotPlausible, match=said):
        require_weight(mass_g, age)


def test_weights_that_can_be_are_taken_and_leaps_are_asked_about() -> None:
    assert require_weight(1850.0, None) == 1850.0
    assert require_weight(65.0, 0) == 65.0
    assert leaps(1800.0, 900.0)
    assert not leaps(1800.0, 1100.0)
    with pytest.raises(NotPlausible):
        require_hatch_year(2031, 2026)


def test_nobody_descends_from_itself() -> None:
    names = {1: "Sorrel", 2: "Tansy", 3: "Yarrow"}
    parents = {2: (1, None), 3: (2, None)}
    require_no_circle(1, None, 9, parents, names)
    with pytest.raises(NotPlausible, match="Sorrel would be descended from Sorrel") as refusal:
        require_no_circle(1, 3, None, parents, names)
    assert refusal.value.field == "dam"
    with pytest.raises(NotPlausible, match="cannot be its own sire"):
        require_no_circle(1, None, 1, parents, names)


@given(st.dictionaries(st.integers(1, 8), st.tuples(st.integers(1, 8), st.none()), max_size=8))
def test_the_search_for_a_circle_always_ends(parents) -> None:
    try:
        require_no_circle(99, 1, 2, parents, {})
    except NotPlausible:
        pytest.fail("99 is nobody's parent")


def test_two_clutches_within_60_days_are_asked_about() -> None:
    assert may_be_second_clutch(NOW_S - 59 * DAY_S, NOW_S)
    assert not may_be_second_clutch(NOW_S - 61 * DAY_S, NOW_S)


def test_the_earliest_set_day_is_by_the_houses_own_clock() -> None:
    cold_blooded = replace(DEFAULT_CLOCK, zero_c=21.0)
    assert earliest_set_day(31.67, cold_blooded) == 55
    assert earliest_set_day(30.0, cold_blooded) > earliest_set_day(30.0)
