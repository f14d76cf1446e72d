"""What sensors send in words of their own: understood, or refused in words."""

import json
import math
from contextlib import suppress
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.errors import NotPlausible
from sandboa.formats.sensor_payloads import json_of_words, understood

NOW_S = 1_780_000_000.6
NOW = int(NOW_S)
FORM = "application/x-www-form-urlencoded"
ONE: list[Any] = [(None, NOW, 31.4, 0.62)]


def read(message: Any, content_type: str = "") -> list[Any]:
    payload = message if isinstance(message, bytes) else json.dumps(message).encode()
    return understood(payload, NOW_S, content_type)


@pytest.mark.parametrize(
    "message",
    [
        {"temperature": 31.4, "humidity": 62},
        {"temperature": 31.4, "humidity": 62.0, "battery": 97, "linkquality": 84, "voltage": 3000},
        {"temp": "31.4", "hum": "62"}, {"t": 31.4, "h": 62}, {"tC": 31.4, "rh": 62},
        {"Temperature": 31.4, "Humidity": 0.62}, {"temperature_c": 31.4, "humidity": 0.62},
        {"temp_f": 88.52, "humidity": 62}, {"tempF": 88.52, "rh": 62},
        {"tC": 31.4, "tF": 88.5, "rh": 62}, {"tF": 88.5, "tC": 31.4, "rh": 62},
        {"temperature": 88.52, "humidity": 62, "unit": "F"},
        {"temperature": 88.52, "humidity": 62, "temperature_unit": "°F"},
        {"temperature": 304.55, "humidity": 62}, {"temperature": "31.4 °C", "humidity": "62 %"},
        {"temperature": {"value": 31.4, "unit": "°C"}, "humidity": {"value": 62, "unit": "%"}},
        {"data": {"temperature": 31.4, "humidity": 62}},
        {"sensors": [{"type": "temperature", "value": 31.4}, {"type": "humidity", "value": 62}]},
        {"sensordatavalues": [{"value_type": "temperature", "value": "31.4"},
                              {"value_type": "humidity", "value": "62"}]},
        {"temperature": 31.4, "humidity": 62, "dew_point": 23.1, "pressure": 1013},
        {"time": "2026-05-28T20:26:40", "temperature": 31.4, "humidity": 62},
        {"time": 4711, "temperature": 31.4, "humidity": 62},
    ],
    ids=lambda message: json.dumps(message)[:60],
)  # fmt: skip
def test_one_sensor_in_many_words(message: Any) -> None:
    (told,) = read(message)
    assert told[:2] == (None, NOW)
    assert told[2] == pytest.approx(31.4, abs=0.02)
    assert told[3] == pytest.approx(0.62)


@pytest.mark.parametrize(
    "payload", [b"31.4", b" 31.4\n", b"31.4 C", "31.4 °C".encode(), b"88.52 F"]
)
def test_a_number_is_a_temperature(payload: bytes) -> None:
    assert read(payload) == [(None, NOW, pytest.approx(31.4), None)]


def test_a_form_and_the_words_of_an_address() -> None:
    assert read(b"temperature=31.4&humidity=62", FORM) == ONE
    assert read(b"temp=31.4&hum=62") == ONE
    in_the_address = json_of_words({"temp": "31.4", "rh": "62", "token": "sb_1"})
    assert understood(in_the_address, NOW_S) == ONE


@pytest.mark.parametrize(
    "moment",
    [1_779_990_000, 1_779_990_000_000, "2026-05-28T17:40:00Z", "2026-05-28T19:40:00+02:00"],
)
def test_a_time_that_says_its_offset_is_when_it_was(moment: object) -> None:
    for name in ("time", "timestamp", "ts", "at", "dt", "last_seen_time"):
        (told,) = read({name: moment, "temperature": 31.4})
        assert told[1] == 1_779_990_000


def test_several_sensors_are_told_apart_by_name() -> None:
    hub = {
        "Time": "2026-05-28T20:26:40", "TempUnit": "F",
        "AM2301": {"Temperature": 88.52, "Humidity": 62.0, "DewPoint": 70.1},
        "DS18B20": {"Id": "0316", "Temperature": 86.0},
    }  # fmt: skip
    assert read(hub) == [
        ("AM2301", NOW, pytest.approx(31.4), 0.62), ("DS18B20", NOW, pytest.approx(30.0), None),
    ]  # fmt: skip
    rows = [{"name": "upper", "temperature": 31.4}, {"name": "lower", "temperature": 30.0}]
    for message in (rows, {"data": rows}, {"sensors": rows}):
        assert [(name, c) for name, _, c, _ in read(message)] == [("upper", 31.4), ("lower", 30.0)]
    batch = [{"ts": 1_779_990_000 + 60 * n, "temperature": 30.0 + n} for n in range(3)]
    assert [row[1:3] for row in read(batch)] == [
        (1_779_990_000, 30.0), (1_779_990_060, 31.0), (1_779_990_120, 32.0),
    ]  # fmt: skip


def test_what_was_kept_since_nobody_knows_when_needs_a_time_of_its_own() -> None:
    both = [{"temperature": 31.4}, {"temperature": 30.0, "ts": 1_779_990_000}]
    assert understood(json.dumps(both).encode(), None) == [(None, 1_779_990_000, 30.0, None)]
    assert understood(b"31.4", None) == []
    with pytest.raises(NotPlausible, match="no temperature"):
        understood(b"{}", None)


def test_an_overheated_cabinet_does_not_pass_for_a_cool_one_in_fahrenheit() -> None:
    assert read({"temperature": 55.0})[0][2] == 55.0
    assert read({"temperature": 55.0, "unit": "F"})[0][2] == pytest.approx(12.78, abs=0.01)


@pytest.mark.parametrize(
    ("payload", "words"),
    [
        (b"", "neither a number"), (b"on", "no temperature"), (b"{", "neither a number"),
        (b"\xff\xfe\x00", "neither a number"), (b"true", "no temperature"),
        (b"[]", "no temperature"),
        (b'{"humidity": 62}', "no temperature"), (b'{"temperature": null}', "no temperature"),
        (b'{"temperature": NaN}', "no temperature"), (b'{"temperature": true}', "no temperature"),
        (b'{"temperature": -127}', "outside"),
        (b'{"temperature": 31, "humidity": 140}', "outside 0"),
        (b"[" * 5000 + b"]" * 5000, "deep"), (b'{"a":' * 12 + b"{}" + b"}" * 12, "deep"),
        (b'{"temperature": 31, "time": 9999999999}', "clock been set"),
        (b'{"temperature": 1' + b"0" * 400 + b"}", "no temperature"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_in_words(payload: bytes, words: str) -> None:
    with pytest.raises(NotPlausible, match=words):
        understood(payload, NOW_S)


@given(st.binary(max_size=200))
def test_no_bytes_make_it_fall_over(payload: bytes) -> None:
    with suppress(NotPlausible):
        understood(payload, NOW_S)


_JSON = st.recursive(
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=8),
    lambda held: (
        st.lists(held, max_size=4)
        | st.dictionaries(
            st.sampled_from(("temperature", "humidity", "unit", "time", "value", "name", "x")), held
        )
    ),
    max_leaves=20,
)


@given(_JSON)
def test_whatever_json_it_is_what_is_taken_can_be(message: Any) -> None:
    with suppress(NotPlausible):
        for _, at_s, at_c, humidity in read(message):
            assert -20.0 <= at_c <= 60.0
            assert humidity is None or 0.0 <= humidity <= 1.0
            assert math.isfinite(at_s)
