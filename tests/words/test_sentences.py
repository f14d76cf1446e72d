"""A message becomes a sentence for its reader."""

from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.messages import (
    Day,
    Difference,
    Mass,
    Message,
    Moment,
    Share,
    Temperature,
    TemperatureRange,
)
from sandboa.core.units import TemperatureUnit
from sandboa.words import SI_READER, Reader, sentence, to_reader
from sandboa.words.dates import day, days, full_day, long_day

FAHRENHEIT = Reader(TemperatureUnit.FAHRENHEIT)
JUNE_S = 1_780_500_000.0


@pytest.mark.parametrize(
    ("value", "celsius", "fahrenheit"),
    [
        (Temperature(31.0), "31.0 °C", "87.8 °F"),
        (Temperature(27.0, 0), "27 °C", "80.6 °F"),
        (Temperature(31.52, 2), "31.52 °C", "88.74 °F"),
        (Temperature(60.0, None), "60 °C", "140 °F"),
        (TemperatureRange(31.1, 32.0), "31.1 to 32.0 °C", "88.0 to 89.6 °F"),
        # Degrees between two temperatures have no zero to shift.
        (Difference(2.0), "2 °C", "3.6 °F"),
        (Mass(45.4), "45 g", "45 g"),
        (Share(0.425), "42 %", "42 %"),
    ],
)
def test_each_quantity_in_each_unit(value: object, celsius: str, fahrenheit: str) -> None:
    said = Message("{it}", it=value)
    assert sentence(said, SI_READER).replace("\N{NO-BREAK SPACE}", " ") == celsius
    assert sentence(said, FAHRENHEIT).replace("\N{NO-BREAK SPACE}", " ") == fahrenheit


def test_a_moment_is_told_where_its_reader_is() -> None:
    assert sentence(Message("On {day}.", day=Day(JUNE_S)), SI_READER) == "On 3 Jun 2026."
    said = Message("Since {since}.", since=Moment(JUNE_S))
    assert to_reader(said, "C", "UTC") == "Since 3 Jun, 15:20."
    assert to_reader(said, "C", "Pacific/Auckland") == "Since 4 Jun, 03:20."


def test_what_stands_inside_another_is_told_to_the_same_reader() -> None:
    cold = Message("down to {lowest}", lowest=Temperature(20.0))
    whole = Message("Undone: {what} ({n:.1f})", what=cold, n=2)
    told = sentence(whole, FAHRENHEIT)
    assert told.replace("\N{NO-BREAK SPACE}", " ") == "Undone: down to 68.0 °F (2.0)"


@given(st.floats(-50.0, 150.0), st.sampled_from([None, 1, 2]))
def test_without_a_choice_it_is_what_a_log_says(celsius: float, digits: int | None) -> None:
    said = Message("{it}", it=Temperature(celsius, digits))
    assert sentence(said, SI_READER).replace("\N{NO-BREAK SPACE}", " ") == str(said)


@given(st.floats(-50.0, 150.0), st.floats(-50.0, 150.0))
def test_what_is_warmer_in_one_unit_is_warmer_in_the_other(one: float, other: float) -> None:
    def told(celsius: float, reader: Reader) -> float:
        said = sentence(Message("{it}", it=Temperature(celsius, 2)), reader)
        return float(said.partition("\N{NO-BREAK SPACE}")[0])

    if told(one, SI_READER) < told(other, SI_READER):
        assert told(one, FAHRENHEIT) < told(other, FAHRENHEIT) + 0.011


def test_days_as_they_are_written_on_cards() -> None:
    berlin = ZoneInfo("Europe/Berlin")
    assert day(JUNE_S, berlin) == "3 Jun"
    assert long_day(JUNE_S, berlin) == "3 June"
    assert full_day(JUNE_S, berlin) == "3 Jun 2026"
    assert days(JUNE_S, JUNE_S + 60.0, berlin) == "3 Jun"
    assert days(JUNE_S, JUNE_S + 4 * 86_400, berlin) == "3\N{EN DASH}7 Jun"
    assert days(JUNE_S, JUNE_S + 30 * 86_400, berlin) == "3 Jun\N{EN DASH}3 Jul"


def test_a_reader_of_an_unknown_unit_or_zone_is_none() -> None:
    with pytest.raises(ValueError, match="Kelvin"):
        Reader.of("Kelvin")
