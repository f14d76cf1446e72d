"""What sensors that know nothing of Sandboa would publish on topics of their own."""

import json
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum


class BrokerSpeech(StrEnum):
    """In which words a simulated sensor publishes."""

    PLAIN = "plain"
    FLAT = "flat"
    NESTED = "nested"
    DISCOVERY = "discovery"


@dataclass(frozen=True, slots=True)
class Published:
    """One message of a broker; one that is `retained` is told to whoever comes later."""

    topic: str
    payload: bytes
    retained: bool = False


@dataclass(frozen=True, slots=True)
class SensorNow:
    """What a sensor reads at this moment: °C, relative humidity 0-1; and its battery, %."""

    name: str
    temperature_c: float
    humidity: float | None
    battery: float = 100.0


def presented(speech: BrokerSpeech, names: Sequence[str]) -> Iterator[Published]:
    """What sensors say of themselves once, before their first reading."""
    if speech is not BrokerSpeech.DISCOVERY:
        return
    for name in names:
        own = _topic(name)
        for kind, unit, key in (("temperature", "°C", "t"), ("humidity", "%", "h")):
            config = {
                "~": own,
                "stat_t": "~/state",
                "dev_cla": kind,
                "unit_of_meas": unit,
                "val_tpl": f"{{{{ value_json.{key} | round(1) }}}}",
                "dev": {"name": name, "ids": [own]},
            }
            yield Published(f"announce/{own}/{kind}/config", json.dumps(config).encode(), True)


def published(speech: BrokerSpeech, sensors: Sequence[SensorNow]) -> Iterator[Published]:
    """The messages that tell what the sensors read now."""
    match speech:
        case BrokerSpeech.PLAIN:
            for s in sensors:
                yield Published(f"{_topic(s.name)}/temperature", f"{s.temperature_c:.2f}".encode())
                if s.humidity is not None:
                    percent = f"{100.0 * s.humidity:.1f}"
                    yield Published(f"{_topic(s.name)}/humidity", percent.encode())
        case BrokerSpeech.FLAT:
            for s in sensors:
                said = {"temperature": s.temperature_c, "battery": s.battery, **_percent(s)}
                yield Published(_topic(s.name), json.dumps(said).encode())
        case BrokerSpeech.NESTED:
            # A gateway that tells all its sensors at once, in °F.
            told = {
                s.name: {"tempF": round(s.temperature_c * 1.8 + 32.0, 2), **_percent(s)}
                for s in sensors
            }
            yield Published("gateway/sensors", json.dumps({"sensors": told}).encode())
        case BrokerSpeech.DISCOVERY:
            for s in sensors:
                state = {"t": round(s.temperature_c, 2), "h": _percent(s).get("humidity")}
                yield Published(f"{_topic(s.name)}/state", json.dumps(state).encode())


def _topic(name: str) -> str:
    return f"sensors/{name.lower().replace(' ', '-')}"


def _percent(sensor: SensorNow) -> dict[str, float]:
    return {} if sensor.humidity is None else {"humidity": round(100.0 * sensor.humidity, 1)}
