"""What a sensor near eggs can read: its range, from either side, and words for what is outside."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.errors import NotPlausible
from sandboa.core.units import READING_RANGE_C, require_reading


@given(st.floats(*READING_RANGE_C), st.none() | st.floats(0, 1))
def test_what_can_be_passes(at_c: float, humidity: float | None) -> None:
    require_reading(at_c, humidity)


@pytest.mark.parametrize(
    ("at_c", "humidity", "why"),
    [
        (60.1, None, "outside what a sensor near eggs can read"),
        (-20.1, 0.5, "outside what a sensor near eggs can read"),
        (float("nan"), None, "outside what a sensor near eggs can read"),
        (31.4, 1.4, "140 % is outside 0 to 100 %"),
        (31.4, -0.1, "-10 % is outside"),
    ],
)
def test_what_cannot_be_is_said(at_c: float, humidity: float | None, why: str) -> None:
    with pytest.raises(NotPlausible, match=why):
        require_reading(at_c, humidity)
