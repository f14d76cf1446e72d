"""Whatever words a simulated sensor speaks, the same is understood of it."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.devices.simulation.broker_speech import (
    BrokerSpeech,
    SensorNow,
    presented,
    published,
)
from sandboa.devices.simulation.speech import SimulatedReading, Speech, Utterance, utterances
from sandboa.formats.delivery import Delivery
from sandboa.formats.sensor_payloads import announced, json_of_words, understood, values_in

NOW_S = 1_800_000_000.0
readings = st.lists(
    st.builds(
        SimulatedReading,
        st.sampled_from(("North 1", "North 2")),
        st.integers(1_780_000_000, 1_790_000_000).map(float),
        st.floats(15.0, 45.0),
        st.none() | st.floats(0.05, 1.0),
    ),
    min_size=1,
    max_size=6,
    unique_by=lambda reading: (reading.probe, reading.at_s),
)


def heard(speech: Speech, said: Utterance) -> list[tuple[str | None, int, float, float | None]]:
    if speech is Speech.SANDBOA:
        return Delivery.model_validate_json(said.body, strict=True).rows()
    if said.method == "GET":
        return understood(json_of_words(said.words), NOW_S)
    return understood(said.body, NOW_S, said.content_type)


@pytest.mark.parametrize("speech", Speech)
@given(told=readings)
def test_what_was_said_is_understood(speech: Speech, told: list[SimulatedReading]) -> None:
    rows = [row for said in utterances(speech, told) for row in heard(speech, said)]
    assert [(row[0], row[1]) for row in rows] == [(r.probe, int(r.at_s)) for r in told]
    for (_, _, warmth_c, humidity), reading in zip(rows, told, strict=True):
        assert warmth_c == pytest.approx(reading.temperature_c, abs=0.01)
        if reading.humidity is None:
            assert humidity is None
        else:
            assert humidity == pytest.approx(reading.humidity, abs=0.001)


SENSORS = [SensorNow("North 1", 31.42, 0.71), SensorNow("North 2", 30.6, None, battery=12.0)]


@pytest.mark.parametrize("speech", BrokerSpeech)
def test_what_is_published_is_heard_with_its_quantity_and_unit(speech: BrokerSpeech) -> None:
    said = {told.topic: told.payload for told in published(speech, SENSORS)}
    config = {
        (told.topic, told.path): told.unit
        for one in presented(speech, [s.name for s in SENSORS])
        if (told := announced(one.topic, one.payload)) is not None and one.retained
    }
    found = []
    for topic, payload in said.items():
        for value in values_in(payload, topic=topic).values:
            unit = config.get((topic, value.path), value.unit)
            if unit in ("c", "f") and value.number is not None:
                warmth = value.number if unit == "c" else (value.number - 32) / 1.8
                found.append(round(warmth, 1))
    assert sorted(t for t in found if t < 40) == [30.6, 31.4]
    if speech is BrokerSpeech.DISCOVERY:
        assert len(config) == 4
    else:
        assert config == {}
