"""What sensors and hubs that know nothing of Sandboa would send of the same readings."""

import json
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime
from enum import StrEnum
from itertools import groupby
from urllib.parse import urlencode


class Speech(StrEnum):
    """In which words a simulated device sends; the first is Sandboa's own."""

    SANDBOA = "sandboa"
    FLAT = "flat"
    NESTED = "nested"
    FORM = "form"
    QUERY = "query"


@dataclass(frozen=True, slots=True)
class SimulatedReading:
    """One reading: °C, and relative humidity 0-1 or None."""

    probe: str
    at_s: float
    temperature_c: float
    humidity: float | None


@dataclass(frozen=True, slots=True)
class Utterance:
    """One request: its method, its body, and the words of its address."""

    method: str = "POST"
    body: bytes = b""
    content_type: str = "application/json"
    words: dict[str, str] = field(default_factory=dict)


def utterances(speech: Speech, readings: Sequence[SimulatedReading]) -> Iterator[Utterance]:
    """The requests in which these readings are said, in their order."""
    match speech:
        case Speech.FLAT:
            # A hub that names its sensors, in % and seconds since 1970.
            told = [
                {"name": r.probe, "ts": int(r.at_s), "temp": r.temperature_c, **_percent(r, "hum")}
                for r in readings
            ]
            yield Utterance(body=json.dumps(told).encode())
        case Speech.NESTED:
            # A gateway that tells all its sensors of a moment at once, in °F.
            told = [
                {
                    "time": int(at_s) * 1000,
                    "TempUnit": "F",
                    **{
                        r.probe: {
                            "Temperature": round(r.temperature_c * 1.8 + 32.0, 2),
                            **_percent(r, "Humidity"),
                        }
                        for r in of_moment
                    },
                }
                for at_s, of_moment in groupby(readings, key=lambda r: r.at_s)
            ]
            yield Utterance(body=json.dumps(told).encode())
        case Speech.FORM | Speech.QUERY:
            for r in readings:
                words = {
                    "sensor": r.probe,
                    "time": str(int(r.at_s)),
                    "temperature": f"{r.temperature_c:.2f}",
                    **{name: str(value) for name, value in _percent(r, "humidity").items()},
                }
                if speech is Speech.QUERY:
                    yield Utterance("GET", words=words)
                else:
                    form = urlencode(words).encode()
                    yield Utterance(body=form, content_type="application/x-www-form-urlencoded")
        case Speech.SANDBOA:
            own = [
                {
                    "probe": r.probe,
                    "at": datetime.fromtimestamp(r.at_s, UTC).isoformat(),
                    "temperature_c": r.temperature_c,
                    "humidity": r.humidity,
                }
                for r in readings
            ]
            yield Utterance(body=json.dumps({"readings": own}).encode())


def _percent(reading: SimulatedReading, name: str) -> dict[str, float]:
    return {} if reading.humidity is None else {name: round(100.0 * reading.humidity, 1)}
