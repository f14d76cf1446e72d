"""Whatever words a simulated sensor speaks, the same is understood of it."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.devices.simulation.speech import SimulatedReading, Speech, Utterance, utterances
from sandboa.formats.delivery import Delivery
from sandboa.formats.sensor_payloads import of_words, understood

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
        return of_words(said.words, NOW_S)
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
