"""A device's delivery: which probe each reading is of, and times that are times."""

import json

import pytest
from pydantic import ValidationError

from sandboa.core.errors import NotPlausible
from sandboa.formats.delivery import Delivery

AT = "2026-03-12T09:00:00+01:00"
AT_S = 1_773_302_400


def parsed(**body: object) -> Delivery:
    return Delivery.model_validate_json(json.dumps(body))


def test_a_reading_is_of_the_probe_it_names_else_of_the_deliverys() -> None:
    told = parsed(
        probe="Low",
        readings=[
            {"at": AT, "temperature_c": 31},
            {"at": AT, "temperature_c": 30.5, "humidity": 0.6, "probe": "Up"},
        ],
    )
    assert told.rows() == [("Low", AT_S, 31.0, None), ("Up", AT_S, 30.5, 0.6)]
    assert told.sent_s is None


def test_without_a_name_it_is_of_the_devices_only_one() -> None:
    told = parsed(readings=[{"at": AT, "temperature_c": 31}], sent_at=AT)
    assert told.rows() == [(None, AT_S, 31.0, None)]
    assert told.sent_s == AT_S


@pytest.mark.parametrize(
    ("at", "words"),
    [("2026-03-12T09:00:00", "needs its offset"), ("2026-02-30T09:00:00Z", "not a date and time")],
)
def test_a_time_that_is_none_is_named(at: str, words: str) -> None:
    told = parsed(readings=[{"at": AT, "temperature_c": 31}, {"at": at, "temperature_c": 31}])
    with pytest.raises(NotPlausible, match=words) as refused:
        told.rows()
    assert refused.value.field == "readings.1.at"


@pytest.mark.parametrize(
    "reading",
    [
        {"at": AT},
        {"at": AT, "temperature_c": 61},
        {"at": AT, "temperature_c": 31, "humidity": 1.01},
        {"at": AT, "temperature_c": "warm"},
        {"at": AT, "temperature_c": 31, "colour": "red"},
        {"at": "x" * 41, "temperature_c": 31},
    ],
)
def test_readings_that_cannot_be_are_refused(reading: dict[str, object]) -> None:
    with pytest.raises(ValidationError):
        parsed(readings=[reading])


@pytest.mark.parametrize("at", ["9999-12-31T23:59:59-23:59", "0001-01-01T00:00:00+23:59"])
def test_times_no_clock_shows_are_refused_where_they_stand(at: str) -> None:
    good = {"at": AT, "temperature_c": 31}
    with pytest.raises(NotPlausible, match="1980 to 2200") as refused:
        parsed(readings=[good, {"at": at, "temperature_c": 31}]).rows()
    assert refused.value.field == "readings.1.at"
    with pytest.raises(NotPlausible, match="1980 to 2200"):
        _ = parsed(readings=[good], sent_at=at).sent_s
    # A clock that was never set shows 1970; one that lost its battery, often 2000.
    with pytest.raises(NotPlausible, match="has the device's clock been set"):
        parsed(readings=[{"at": "1970-01-01T00:00:07Z", "temperature_c": 31}]).rows()
    assert parsed(readings=[{"at": "2000-01-01T00:00:07+14:00", "temperature_c": 31}]).rows()
