"""Messages: what is said, before it is known who reads it."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.messages import (
    Difference,
    Mass,
    Message,
    Moment,
    Share,
    Temperature,
    TemperatureRange,
    capitalised,
)

_NUMBERS = st.floats(-1e6, 1e6)
_QUANTITIES = st.one_of(
    st.builds(Temperature, _NUMBERS, st.sampled_from([None, 0, 1, 2])),
    st.builds(Difference, _NUMBERS),
    st.builds(TemperatureRange, _NUMBERS, _NUMBERS),
    st.builds(Mass, _NUMBERS),
    st.builds(Share, st.floats(0, 1)),
    st.builds(Moment, _NUMBERS),
)
_PLAIN = st.one_of(st.text(), st.integers(-(2**53), 2**53), _NUMBERS, _QUANTITIES)
_MESSAGES = st.recursive(
    st.builds(lambda value: Message("so {it}", it=value), _PLAIN),
    lambda inner: st.one_of(
        st.builds(lambda value: Message("{it}, then", it=value), inner),
        st.builds(lambda one, two: Message("{one}; {two}", one=one, two=two), inner, inner),
    ),
    max_leaves=5,
)


@given(_MESSAGES)
def test_what_is_kept_of_a_message_is_the_message(said: Message) -> None:
    assert Message.from_json(json.loads(json.dumps(said.as_json()))) == said


@pytest.mark.parametrize(
    ("value", "plain"),
    [
        (Temperature(31.456), "31.5 °C"),
        (Temperature(27.0, 0), "27 °C"),
        (Temperature(-0.001, None), "0 °C"),
        (Difference(2.0), "2 °C"),
        (TemperatureRange(31.1, 32.0), "31.1 to 32.0 °C"),
        (Mass(45.4), "45 g"),
        (Share(0.425), "42 %"),
    ],
)
def test_a_quantity_is_plain_in_si_units(value: object, plain: str) -> None:
    assert str(Message("{it}", it=value)) == plain


def test_a_message_keeps_its_quantities_where_it_goes_into_another() -> None:
    down = Message("down to {lowest}", lowest=Temperature(25.4))
    whole = Message("Ran cold, {how}", how=down)
    assert str(whole) == "Ran cold, down to 25.4 °C"
    with pytest.raises(TypeError, match="goes into another as a value"):
        f"{down}"


def test_a_capital_stands_at_the_beginning_whatever_is_there() -> None:
    assert capitalised("too cold") == "Too cold"
    assert str(capitalised(Message("{who} fell", who="probe A1"))) == "Probe A1 fell"
    warm = Message("{warmth} beside", warmth=Temperature(31.0))
    assert capitalised(warm) == warm
    inner = Message("{all}", all=Message("down to {c}", c=Temperature(20.0)))
    assert str(capitalised(inner)) == "Down to 20.0 °C"


@pytest.mark.parametrize("kept", [{}, {"template": "x"}, {"template": "x", "values": 3}])
def test_what_is_no_message_is_refused(kept: dict[str, object]) -> None:
    with pytest.raises(ValueError, match="no message"):
        Message.from_json(kept)
