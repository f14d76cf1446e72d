"""Values of a message with their paths, what each seems to be, and what sensors announce."""

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.errors import NotPlausible
from sandboa.formats.sensor_payloads import Announced, Seems, announced, values_in

HUB = {
    "device": "shelf",
    "AM2301": {"Temperature": 88.5, "Humidity": 62.1},
    "TempUnit": "F",
    "battery": 97,
    "linkquality": 84,
    "battery_low": False,
    "update": {"state": "idle"},
    "probes": [{"tC": 31.4}, {"tC": 30.9}],
}


def told(message: Any) -> dict[str, tuple[str | None, str | None]]:
    payload = message if isinstance(message, bytes) else json.dumps(message).encode()
    return {v.path: (v.seems, v.unit) for v in values_in(payload).values}


def test_each_value_has_a_path_and_says_what_it_seems() -> None:
    seems = told(HUB)
    assert seems["AM2301.Temperature"] == (Seems.TEMPERATURE, "f")
    assert seems["AM2301.Humidity"] == (Seems.HUMIDITY, "percent")
    assert seems["battery"] == (Seems.BATTERY, None)
    assert seems["battery_low"] == (Seems.BATTERY_LOW, None)
    assert seems["linkquality"] == (Seems.LINK, None)
    assert seems["probes.0.tC"] == (Seems.TEMPERATURE, "c")
    assert seems["update.state"] == seems["device"] == (None, None)


@pytest.mark.parametrize(
    ("payload", "seems"),
    [
        (b"31.4", (None, "c")),
        (b"88.5", (None, "f")),
        (b"31.4 C", (Seems.TEMPERATURE, "c")),
        (b'{"rssi": -71}', None),
        (b'{"hum": 0.62}', None),
    ],
)
def test_a_message_may_be_one_number(payload: bytes, seems: tuple | None) -> None:
    found = told(payload)
    if seems is not None:
        assert found == {"": seems}
    else:
        assert found in ({"rssi": (Seems.SIGNAL, None)}, {"hum": (Seems.HUMIDITY, "fraction")})


@pytest.mark.parametrize("payload", [b"online", b"\xff\xd8\xff", b"", b"<html>"])
def test_what_is_no_message_of_a_sensor_is_said(payload: bytes) -> None:
    try:
        values = values_in(payload).values
    except NotPlausible:
        return
    assert all(value.number is None for value in values)


@given(
    st.recursive(
        st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=20),
        lambda inner: (
            st.lists(inner, max_size=5) | st.dictionaries(st.text(max_size=12), inner, max_size=5)
        ),
        max_leaves=120,
    )
)
def test_whatever_is_said_its_values_are_few_and_short(message: Any) -> None:
    try:
        values = values_in(json.dumps(message).encode()).values
    except NotPlausible:
        return
    assert len(values) <= 60
    assert all(len(value.path) <= 200 and len(value.text) <= 40 for value in values)


CONFIG = {
    "name": "Temperature",
    "device_class": "temperature",
    "unit_of_measurement": "°C",
    "state_topic": "hub/shelf",
    "value_template": "{{ value_json.climate.temperature }}",
    "device": {"name": "Shelf sensor", "identifiers": ["0x01"]},
}


def announcing(**changed: Any) -> Announced | None:
    payload = json.dumps({k: v for k, v in {**CONFIG, **changed}.items() if v is not None})
    return announced("discover/sensor/0x01/temperature/config", payload.encode())


def test_a_sensor_announces_where_its_value_stands() -> None:
    assert announcing() == Announced("hub/shelf", "climate.temperature", "c", "Shelf sensor")
    short = {
        "~": "hub/shelf", "stat_t": "~/state", "dev_cla": "humidity", "unit_of_meas": "%",
        "val_tpl": "{{ value_json['hum'] | float | round(1) }}", "dev": {"name": "Shelf"},
    }  # fmt: skip
    told = announced("a/config", json.dumps(short).encode())
    assert told == Announced("hub/shelf/state", "hum", "percent", "Shelf")


@pytest.mark.parametrize(
    ("template", "path"),
    [
        (None, ""),
        ("{{ value }}", ""),
        ("{{ value | float }}", ""),
        ('{{ value_json["a"][0].b }}', "a.0.b"),
        ("{{value_json.t|round(2)}}", "t"),
    ],
)
def test_templates_that_only_name_a_value_are_understood(template: str | None, path: str) -> None:
    said = announcing(value_template=template)
    assert said is not None
    assert said.path == path


@pytest.mark.parametrize(
    "changed",
    [
        {"value_template": "{{ value_json.t * 2 }}"},
        {"value_template": "{% if value_json.t %}{{ value_json.t }}{% endif %}"},
        {"value_template": "{{ value_json." + "a." * 400 + "b }}"},
        {"device_class": "power"},
        {"unit_of_measurement": "mK"},
        {"state_topic": None},
        {"state_topic": 7},
        {"state_topic": "x" * 500},
    ],
)
def test_what_does_more_or_is_something_else_announces_nothing(changed: dict[str, Any]) -> None:
    assert announcing(**changed) is None


@pytest.mark.parametrize("payload", [b"", b"[]", b"{", b"[" * 5000, b"\xff"])
def test_what_is_no_configuration_announces_nothing(payload: bytes) -> None:
    assert announced("a/config", payload) is None
    assert announced("a/state", json.dumps(CONFIG).encode()) is None


@pytest.mark.parametrize(
    ("topic", "payload", "seems"),
    [
        ("shelf/humidity", b"62", (Seems.HUMIDITY, "percent")),
        ("shelf/temperature", b"88.5", (Seems.TEMPERATURE, "f")),
        ("shelf/battery", b"97", (Seems.BATTERY, None)),
        ("shelf/thing", b"31.4", (None, "c")),
        ("shelf/state", b"on", (None, None)),
    ],
)
def test_one_number_may_be_named_by_the_end_of_its_topic(
    topic: str, payload: bytes, seems: tuple[str | None, str | None]
) -> None:
    (value,) = values_in(payload, topic=topic).values
    assert (value.seems, value.unit) == seems
