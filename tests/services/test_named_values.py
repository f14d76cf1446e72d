"""What values of a message are: said once, stored as readings of the probes they are of."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from samples import NOW_S
from sandboa.core.errors import NotPlausible
from sandboa.records.database import database
from sandboa.services.acts.recording import undo
from sandboa.services.probes.commands import ProbePlace, hang_probe
from sandboa.services.probes.devices import add_device
from sandboa.services.probes.heard_values import (
    Source,
    ValueCommand,
    ValueUnit,
    name_values,
    named_topics,
    values_of,
)
from sandboa.services.readings.named_values import (
    HUMIDITY_HELD_S,
    LoneHumidities,
    take_in_named,
)
from sandboa.services.snapshot.cache import SnapshotCache

TOPIC = Source(topic="hub/shelf")


@pytest.fixture
def probe(six: SnapshotCache) -> int:
    place = ProbePlace(box="26-01")
    return hang_probe("Lower", place, NOW_S - 86_400, NOW_S)[0].entity_id


def both(probe: int, unit: ValueUnit = ValueUnit.FAHRENHEIT) -> list[ValueCommand]:
    return [
        ValueCommand("t", unit, probe),
        ValueCommand("h", ValueUnit.PERCENT, probe),
    ]


def test_a_message_is_stored_as_it_was_named(six: SnapshotCache, probe: int) -> None:
    act = name_values(TOPIC, both(probe), NOW_S)
    assert act.summary == "Messages of hub/shelf are of Lower"
    assert named_topics() == {"hub/shelf"}
    values = {"t": 88.52, "h": 62.0, "other": 7.0}
    taken = take_in_named(values_of(TOPIC), values, NOW_S, NOW_S, LoneHumidities())
    assert (taken.new, taken.held) == (1, 0)
    (row,) = _stored(probe)
    assert row[1] == pytest.approx(31.4)
    assert row[2] == pytest.approx(0.62)


def test_named_anew_the_first_is_no_more_and_undone_it_is_again(
    six: SnapshotCache, probe: int
) -> None:
    name_values(TOPIC, both(probe), NOW_S)
    again = name_values(TOPIC, [ValueCommand("a.b", ValueUnit.CELSIUS, probe)], NOW_S)
    assert [row.path for row in values_of(TOPIC)] == ["a.b"]
    undo(again.id, NOW_S)
    assert {row.path for row in values_of(TOPIC)} == {"t", "h"}
    assert name_values(TOPIC, [], NOW_S).summary == "Messages of hub/shelf are stored no more"
    assert named_topics() == set()


def test_a_humidity_by_itself_goes_with_the_next_temperature(
    six: SnapshotCache, probe: int
) -> None:
    warm, damp = Source(topic="hub/t"), Source(topic="hub/h")
    name_values(warm, [ValueCommand("", ValueUnit.CELSIUS, probe)], NOW_S)
    name_values(damp, [ValueCommand("", ValueUnit.PERCENT, probe)], NOW_S)
    humidities = LoneHumidities()
    take_in_named(values_of(damp), {"": 62.0}, NOW_S, NOW_S, humidities)
    take_in_named(values_of(warm), {"": 31.4}, NOW_S + 60, NOW_S + 60, humidities)
    late_s = NOW_S + HUMIDITY_HELD_S + 61
    take_in_named(values_of(warm), {"": 31.5}, late_s, late_s, humidities)
    assert [row[2] for row in _stored(probe)] == [pytest.approx(0.62), None]


@pytest.mark.parametrize(
    ("values", "why"),
    [({"t": 400.0}, "outside what a sensor near eggs"), ({"t": 88.0, "h": 140.0}, "140 %")],
)
def test_what_cannot_be_is_refused_and_nothing_stored(
    six: SnapshotCache, probe: int, values: dict[str, float], why: str
) -> None:
    name_values(TOPIC, both(probe), NOW_S)
    with pytest.raises(NotPlausible, match=why):
        take_in_named(values_of(TOPIC), values, NOW_S, NOW_S, LoneHumidities())
    assert _stored(probe) == []


def test_what_is_not_in_it_or_no_number_is_left_out(six: SnapshotCache, probe: int) -> None:
    name_values(TOPIC, both(probe), NOW_S)
    for values in ({}, {"t": None}, {"h": 60.0}):
        taken = take_in_named(values_of(TOPIC), values, NOW_S, NOW_S, LoneHumidities())
        assert taken.new == 0


@pytest.mark.parametrize(
    ("source", "why"),
    [
        (Source(topic="hub/#"), "not a pattern"),
        (Source(topic="hub/+/t"), "not a pattern"),
        (Source(topic="x" * 401), "1 to 400"),
        (Source(topic="sandboa/Hub/readings"), "Sandboa's own"),
        (Source(), "1 to 400"),
    ],
)
def test_a_source_it_cannot_be_is_refused(
    six: SnapshotCache, probe: int, source: Source, why: str
) -> None:
    with pytest.raises(NotPlausible, match=why):
        name_values(source, both(probe), NOW_S)


def test_values_that_cannot_be_are_refused(six: SnapshotCache, probe: int) -> None:
    twice = [ValueCommand(path, ValueUnit.CELSIUS, probe) for path in ("a", "b")]
    with pytest.raises(NotPlausible, match="two values cannot both be the temperature of Lower"):
        name_values(TOPIC, twice, NOW_S)
    with pytest.raises(NotPlausible, match="no such probe"):
        name_values(TOPIC, [ValueCommand("a", ValueUnit.CELSIUS, 999_999)], NOW_S)
    with pytest.raises(NotPlausible, match="40 values"):
        name_values(TOPIC, [ValueCommand(str(n), ValueUnit.KELVIN, probe) for n in range(41)], 0.0)
    assert values_of(TOPIC) == []


def test_a_device_is_a_source_too(six: SnapshotCache, probe: int) -> None:
    device = add_device("Hub", NOW_S).device.entity_id
    act = name_values(Source(device=device), both(probe), NOW_S)
    assert act.summary == "Messages of Hub are of Lower"
    assert named_topics() == set()


@given(st.floats(-20, 60))
def test_units_say_the_same_temperature(at_c: float) -> None:
    assert ValueUnit.FAHRENHEIT.read(at_c * 1.8 + 32) == pytest.approx(at_c, abs=1e-9)
    assert ValueUnit.KELVIN.read(at_c + 273.15) == pytest.approx(at_c, abs=1e-9)
    assert ValueUnit.CELSIUS.read(at_c) == at_c


def _stored(probe: int) -> list[tuple[float, float, float | None]]:
    rows = database.execute_sql(
        "SELECT at_s, temperature_c, humidity FROM reading WHERE probe_id = ? ORDER BY at_s",
        (probe,),
    )
    return [tuple(row) for row in rows]
