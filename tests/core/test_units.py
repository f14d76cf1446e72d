"""What is refused is named as a keeper says it, at the field it was entered in."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.errors import NotPlausible
from sandboa.core.units import UNIT_ENDINGS, require_moment, require_range, spoken


@pytest.mark.parametrize(
    ("field", "words"),
    [
        ("temperature_c", "temperature"),
        ("set_up_mass_g", "set up mass"),
        ("set_day", "set day"),
        ("laid_at", "laid at"),
        ("egg 3", "egg 3"),
        ("humidity", "humidity"),
    ],
)
def test_a_field_is_called_as_a_keeper_says_it(field: str, words: str) -> None:
    assert spoken(field) == words


def test_a_refusal_keeps_the_field_and_says_its_name_in_words() -> None:
    with pytest.raises(NotPlausible) as refused:
        require_range("temperature_c", 45.0, (20.0, 36.0), "°C")
    assert (refused.value.field, str(refused.value.reason)) == (
        "temperature_c",
        "temperature 45 °C is outside 20 to 36 °C",
    )
    with pytest.raises(NotPlausible, match=r"^laid at is outside the years") as refused:
        require_moment("laid_at", -1e12)
    assert refused.value.field == "laid_at"


@given(
    st.lists(st.sampled_from(["dam", "mass", "box"]), min_size=1, max_size=3),
    st.sampled_from(["", *UNIT_ENDINGS]),
    st.floats(max_value=0.99) | st.floats(min_value=2.01) | st.just(math.nan),
)
def test_no_name_of_the_code_is_ever_told(words: list[str], ending: str, value: float) -> None:
    with pytest.raises(NotPlausible) as refused:
        require_range("_".join(words) + ending, value, (1.0, 2.0), "g")
    assert "_" not in refused.value.reason
    assert refused.value.reason.startswith(" ".join(words))
