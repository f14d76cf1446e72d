"""Mixing, topping up, and the small forms keepers write: counts, codes, names, units, places."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.box import require_distinct_places, usual_places
from sandboa.core.clutch_count import parse_clutch_count
from sandboa.core.errors import NotPlausible
from sandboa.core.names import clean_code, clean_name, next_code
from sandboa.core.units import parse_mass, parse_temperature, read_number
from sandboa.core.water.mixing import MEDIA, WaterBy, dry_mass_from_volume, mix, water_of_depth
from sandboa.core.water.top_up import top_up


def test_mixing_by_weight_and_roughly_by_volume() -> None:
    assert mix("vermiculite", 200.0, 1.0).water_g == 200.0
    assert mix("perlite", 150.0, 0.8).water_g == pytest.approx(120.0)
    rough = dry_mass_from_volume("perlite", 2.0)
    assert (rough.low_g, rough.mass_g, rough.high_g) == (140.0, 200.0, 260.0)


def test_each_medium_has_its_own_usual_ratio_by_weight() -> None:
    usual = {m.name: m.ratio for m in MEDIA if m.water is WaterBy.WEIGHT}
    assert usual == {
        "vermiculite": 1.0,
        "perlite": 1.0,
        "saturated perlite": 5.0,
        "half and half": 1.0,
    }
    assert mix("saturated perlite", 200.0).water_g == 1_000.0
    for medium in MEDIA:
        if medium.ratio_range:
            assert medium.ratio_range[0] < (medium.ratio or 0.0) < medium.ratio_range[1]


def test_water_under_a_grid_is_measured_by_its_depth() -> None:
    assert water_of_depth(20.0, 30.0, 20.0) == pytest.approx(1_200.0)
    assert water_of_depth(10.0, 30.0, 20.0) * 2 == pytest.approx(water_of_depth(20.0, 30.0, 20.0))


@pytest.mark.parametrize("box", [(0.5, 30, 20), (101, 30, 20), (20, 4, 20), (20, 30, 130)])
def test_no_box_is_so_deep_or_so_wide(box: tuple[float, float, float]) -> None:
    with pytest.raises(NotPlausible):
        water_of_depth(*box)


@pytest.mark.parametrize(
    ("medium", "mass", "ratio"),
    [
        ("sawdust", 100, 1),
        ("perlite", 0, 1),
        ("perlite", float("nan"), 1),
        ("perlite", 100, 0),
        ("sponges", 100, None),
    ],
)
def test_mixes_that_cannot_be_are_refused(medium, mass, ratio) -> None:
    with pytest.raises(NotPlausible):
        mix(medium, mass, ratio)


def test_top_up_is_the_deficit_in_pourable_steps() -> None:
    """Lost 46 of 100 g: add 45."""
    told = top_up(1180, 1134, 100)
    assert (told.deficit_g, told.add_g, told.split) == (46, 45, False)


def test_a_large_top_up_is_split_and_never_more_than_the_medium_held() -> None:
    assert top_up(1180, 1100, 100).split
    emptied = top_up(1180, 1040, 100)
    assert (emptied.add_g, emptied.left_out_g) == (100, 40)
    with pytest.raises(NotPlausible, match="heavier than at set-up"):
        top_up(1000, 1040, 100)


@given(st.floats(100, 3000), st.floats(0, 900), st.floats(1, 900))
def test_top_up_stays_within_what_is_missing(current: float, lost: float, water: float) -> None:
    told = top_up(current + lost, current, water)
    assert 0 <= told.add_g <= water
    assert told.add_g <= told.deficit_g + 2.5


def test_counts_on_cards() -> None:
    count = parse_clutch_count(" 7-2 ")
    assert (count.laid, count.slugs, count.fertile, str(count)) == (7, 2, 5, "7-2")
    assert str(parse_clutch_count("6")) == "6-0"


@pytest.mark.parametrize("text", ["0", "40", "2-7", "seven", "", "7-2-1", "-3"])
def test_counts_that_cannot_be(text: str) -> None:
    with pytest.raises(NotPlausible):
        parse_clutch_count(text)


def test_names_and_codes() -> None:
    assert clean_name("dam", "  Sorrel   the 2nd ") == "Sorrel the 2nd"
    assert clean_name("dam", "Fenouil d'été (Nº 4)") == "Fenouil d'été (Nº 4)"
    assert next_code(2026, ["26-01", "26-09", "25-30", "26-x"]) == "26-10"
    assert clean_code(" 26-04 ") == "26-04"


@pytest.mark.parametrize("name", ["", "   ", "🐍", "Sorrel 🐍", "a" * 10_000, "\x00bell", "--"])
def test_names_no_label_can_carry(name: str) -> None:
    with pytest.raises(NotPlausible):
        clean_name("dam", name)


@pytest.mark.parametrize(
    ("text", "celsius"), [("31.5C", 31.5), ("88.7 °F", 31.5), ("31,5 c", 31.5), ("-4F", -20.0)]
)
def test_temperatures_with_units(text: str, celsius: float) -> None:
    assert parse_temperature(text) == pytest.approx(celsius)


@pytest.mark.parametrize("text", ["31.5", "C", "nanC", "infF", "31.5K", ""])
def test_temperatures_without_a_unit_are_refused(text: str) -> None:
    with pytest.raises(NotPlausible):
        parse_temperature(text)


def test_masses() -> None:
    assert parse_mass("7 oz") == pytest.approx(198.447, abs=0.001)
    assert parse_mass("1.2kg") == 1200


@given(st.integers(1, 20))
def test_usual_places_are_inside_and_apart(eggs: int) -> None:
    places = usual_places(eggs)
    assert len(places) == eggs
    assert all(0.05 < x < 0.95 and 0.05 < y < 0.95 for x, y in places)
    require_distinct_places(places)


def test_two_eggs_cannot_lie_at_one_place() -> None:
    with pytest.raises(NotPlausible, match="eggs 1 and 3"):
        require_distinct_places([(0.5, 0.5), (0.2, 0.2), (0.5, 0.505)])


@pytest.mark.parametrize(
    ("typed", "grams"),
    [
        ("1134", 1134.0), ("1 134", 1134.0), ("1.134", 1134.0), ("1,134", 1134.0),
        ("1'134,5", 1134.5), ("1.134,5", 1134.5), ("1,134.5", 1134.5), ("1.134.500", 1_134_500.0),
        ("1\u202f134", 1134.0), ("31,5", 31.5), ("0.500", 0.5), ("-46", -46.0), ("+3", 3.0),
    ],
)  # fmt: skip
def test_grams_are_read_as_people_write_them(typed: str, grams: float) -> None:
    assert read_number("mass", typed, thousands=True) == grams


@pytest.mark.parametrize(
    "typed",
    [
        "", "1 13", "12 34", "1,13,4", "1..5", "x", "1e3", "nan", "--1", "1.134.5,5", "12.34,5",
        "1.134,500.5", "0.134,5",
    ],
)  # fmt: skip
def test_what_is_no_number_is_refused(typed: str) -> None:
    for thousands in (True, False):
        with pytest.raises(NotPlausible, match="is not a number"):
            read_number("mass", typed, thousands=thousands)


def test_what_can_be_two_numbers_is_asked_about() -> None:
    """1.134 kg is a little more than one or a great deal more: neither is chosen for the keeper."""
    with pytest.raises(NotPlausible, match=r'"1\.130" can be read two ways: write 1130 or 1\.13'):
        read_number("mass", "1.130", thousands=False)
    with pytest.raises(NotPlausible, match="two ways"):
        parse_mass("1,134 kg")
    assert parse_mass("1,134 g") == 1134.0


@given(st.integers(1, 999_999_999), st.sampled_from(["", ",", " ", "'", "."]))
def test_any_grouping_gives_the_same_grams(grams: int, between: str) -> None:
    written = f"{grams:,}".replace(",", between)
    assert read_number("mass", written, thousands=True) == grams
