"""`sandboa simulate`: a made-up cabinet that sends its readings to a running Sandboa."""

import argparse
import re
import time
from collections.abc import Iterator
from contextlib import closing
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import Protocol

import httpx2
import numpy as np

from sandboa.core.errors import NotPlausible
from sandboa.devices.mqtt import Broker
from sandboa.devices.mqtt.publisher import Publisher
from sandboa.devices.simulation import (
    CabinetModel,
    Mishap,
    MishapKind,
    SimulatedClutch,
    log_probe,
)
from sandboa.devices.simulation import run as run_cabinet
from sandboa.devices.simulation.broker_speech import (
    BrokerSpeech,
    SensorNow,
    presented,
    published,
)
from sandboa.devices.simulation.eggs import developed, heat_w
from sandboa.devices.simulation.mishaps import OF_THE_CABINET
from sandboa.devices.simulation.probes import Sensor
from sandboa.devices.simulation.speech import (
    SimulatedReading,
    Speech,
    Utterance,
    utterances,
)

_DAY_S = 86_400.0
_UNITS = {"m": 60.0, "h": 3_600.0, "d": _DAY_S}
_FAULT = re.compile(r"([a-z ]+?)\s*@\s*(\d+(?:\.\d+)?)([mhd])\s*\+\s*(\d+(?:\.\d+)?)([mhd])"
                    r"(?:\s*:\s*([^:]+?))?(?:\s*:\s*(-?\d+(?:\.\d+)?))?")  # fmt: skip
#: Readings in one delivery while catching up.
_BATCH = 5_000
#: Deliveries refused for coming too fast are sent again, this many times.
_PATIENCE = 60


@dataclass(frozen=True)
class _House:
    """A running Sandboa, spoken to as any device would."""

    client: httpx2.Client
    token: str
    speech: Speech = Speech.SANDBOA

    def deliver(self, readings: list[SimulatedReading]) -> None:
        """Send until it is acknowledged; NotPlausible when it is refused for good."""
        for said in utterances(self.speech, readings):
            self._send(said)

    def _send(self, said: Utterance) -> None:
        for _ in range(_PATIENCE):
            try:
                answer = self.client.request(
                    said.method,
                    "/api/readings",
                    content=said.body,
                    params=said.words,
                    headers={
                        "Authorization": f"Bearer {self.token}",
                        "Content-Type": said.content_type,
                    },
                )
            except httpx2.TransportError:
                time.sleep(1.0)
                continue
            if answer.status_code in (429, 503):
                time.sleep(float(answer.headers.get("Retry-After", "1")))
                continue
            if answer.is_error:
                raise NotPlausible("readings", answer.json().get("detail", answer.text[:200]))
            return
        raise NotPlausible("url", "Sandboa does not take the readings; is it running?")


def add_arguments(command: argparse.ArgumentParser) -> None:
    """Add what the command is asked with."""
    command.add_argument("--url", default="http://127.0.0.1:8350", help="where Sandboa runs")
    command.add_argument("--token", help="a device's token; made with a new device when left out")
    command.add_argument("--cabinet", default="Simulated", help="set up when it is not there")
    command.add_argument("--shelves", type=int, default=3)
    command.add_argument("--set-point", type=float, default=31.5, help="°C")
    command.add_argument("--back", default="0d", help="begin that long ago, like 30d, and catch up")
    command.add_argument("--every", type=float, default=60.0, help="s between readings")
    command.add_argument(
        "--speed", type=float, default=0.0,
        help="while catching up, simulated seconds a second; 0 as fast as they are taken",
    )  # fmt: skip
    command.add_argument("--for", dest="lasting", default=None, help="stop that long from now")
    command.add_argument(
        "--fault", action="append", default=[], metavar="KIND@WHEN+LASTING[:PROBE[:SIZE]]",
        help="on a schedule from the beginning, like 'fan stops@10d+2d', "
        f"'fallen@3d+5h:NAME:-2'; kinds: {', '.join(MishapKind)}",
    )  # fmt: skip
    command.add_argument("--eggs", type=int, default=6, help="laid at the beginning, lowest shelf")
    command.add_argument("--visits", type=float, default=4.0, help="days between visits; 0: none")
    command.add_argument("--seed", type=int, default=1)
    command.add_argument(
        "--speak", choices=tuple(dict.fromkeys((*Speech, *BrokerSpeech))), metavar="WORDS",
        help=f"send as sensors of other makes do: {', '.join(Speech)}; "
        f"with --mqtt: {', '.join(BrokerSpeech)}",
    )  # fmt: skip
    command.add_argument(
        "--mqtt", metavar="URL",
        help="publish what is read from now on at this broker, on topics of its own, as sensors do "
        "that know nothing of Sandboa; a keeper names them where they are heard",
    )  # fmt: skip


def run(asked: argparse.Namespace) -> int:
    """Catch up from the beginning, then go on in real time until interrupted."""
    if not 1 <= asked.shelves <= 6:
        raise NotPlausible("shelves", "a simulated cabinet has 1 to 6 shelves")
    now_s = time.time()
    began_s = now_s - _span("--back", asked.back)
    ends_s = now_s + _span("--for", asked.lasting) if asked.lasting else None
    names = [f"{asked.cabinet} {n}" for n in range(1, asked.shelves + 1)]
    mishaps = [_fault(text, began_s, names) for text in asked.fault]
    share = (0.62, 0.27, 0.11, 0.07, 0.05, 0.03)[: asked.shelves]
    model = CabinetModel(
        shelves=asked.shelves,
        set_point_c=asked.set_point,
        heater_w=32.0 * asked.shelves,
        heater_share=share,
        mishaps=mishaps,
        opens=_visits(began_s, asked.visits),
    )
    cabinet = _MadeUp(model, names, began_s, asked)
    if asked.mqtt:
        _publish(cabinet, now_s, ends_s)
        return 0
    if asked.speak and asked.speak not in tuple(Speech):
        raise NotPlausible("speak", f"{asked.speak} is spoken at a broker: say --mqtt URL too")
    with httpx2.Client(base_url=asked.url, timeout=30.0) as client:
        token = asked.token or _introduce(client, asked, names, began_s)
        house = _House(client, token, Speech(asked.speak or Speech.SANDBOA))
        print(f"Sending {len(names)} probes of {asked.cabinet} to {asked.url}", flush=True)
        sent = _catch_up(house, cabinet, now_s)
        print(f"{sent} readings sent up to now", flush=True)
        _go_on(house, cabinet, now_s, ends_s)
    return 0


@dataclass(frozen=True)
class _MadeUp:
    """A made-up cabinet that began at `began_s`, with a probe on each shelf."""

    model: CabinetModel
    names: list[str]
    began_s: float
    asked: argparse.Namespace


def _catch_up(house: _House, cabinet: _MadeUp, now_s: float) -> int:
    asked, began_s = cabinet.asked, cabinet.began_s
    sent, started = 0, time.monotonic()
    batch: list[SimulatedReading] = []
    for reading, at_s in _readings(cabinet, now_s):
        batch.append(reading)
        if len(batch) >= _BATCH:
            house.deliver(batch)
            sent, batch = sent + len(batch), []
            if asked.speed > 0:
                time.sleep(max(0.0, (at_s - began_s) / asked.speed - (time.monotonic() - started)))
    if batch:
        house.deliver(batch)
    return sent + len(batch)


def _publish(cabinet: _MadeUp, now_s: float, ends_s: float | None) -> None:
    """What the cabinet's probes read from now on, at a broker."""
    asked = cabinet.asked
    try:
        speech = BrokerSpeech(asked.speak or BrokerSpeech.FLAT)
    except ValueError as error:
        known = ", ".join(BrokerSpeech)
        raise NotPlausible("speak", f"at a broker is spoken: {known}") from error
    with closing(Publisher(Broker(asked.mqtt))) as publisher:
        print(f"Publishing {len(cabinet.names)} sensors at {asked.mqtt}", flush=True)
        publisher.publish(presented(speech, cabinet.names))
        _go_on(_Heard(publisher, speech), cabinet, now_s - asked.every, ends_s)


@dataclass(frozen=True)
class _Heard:
    """Whoever listens at a broker."""

    publisher: Publisher
    speech: BrokerSpeech

    def deliver(self, readings: list[SimulatedReading]) -> None:
        """Publish the last reading of each probe: such sensors tell no time."""
        last = {r.probe: SensorNow(r.probe, r.temperature_c, r.humidity) for r in readings}
        self.publisher.publish(published(self.speech, list(last.values())))


class _Taker(Protocol):
    """What takes readings: a house, or whoever listens at a broker."""

    def deliver(self, readings: list[SimulatedReading]) -> None: ...


def _go_on(house: _Taker, cabinet: _MadeUp, told_s: float, ends_s: float | None) -> None:
    """A reading of every probe each `every` seconds, of the cabinet that was caught up with."""
    every_s = cabinet.asked.every
    now_s = told_s
    while ends_s is None or now_s < ends_s:
        now_s = time.time()
        # The same cabinet, run on: what was is the same for the same seed.
        fresh = [reading for reading, at_s in _readings(cabinet, now_s) if at_s > told_s]
        if fresh:
            house.deliver(fresh)
        told_s = now_s
        time.sleep(min(every_s, max(ends_s - time.time(), 0.0) if ends_s else every_s))


def _readings(cabinet: _MadeUp, until_s: float) -> Iterator[tuple[SimulatedReading, float]]:
    """Readings of all probes in order of time, with their time."""
    model, began_s, asked = cabinet.model, cabinet.began_s, cabinet.asked
    sensor = Sensor(every_s=asked.every)
    start_s = began_s - began_s % 60.0
    was = run_cabinet(
        _warmed(model, start_s, until_s, asked.eggs), start_s, until_s, 60.0, asked.seed
    )
    rows = []
    for number, name in enumerate(cabinet.names):
        logged = log_probe(
            name, was, number, sensor=sensor, mishaps=model.mishaps, seed=asked.seed + number
        )
        rows += [(at_s, name, c, h) for at_s, c, h in logged.rows()]
    for at_s, name, temperature_c, humidity in sorted(rows):
        yield SimulatedReading(name, at_s, temperature_c, humidity), at_s


def _visits(began_s: float, days: float) -> list[tuple[float, float]]:
    """Two minutes with the door open, in the evening."""
    if days <= 0:
        return []
    return [(began_s + (n + 0.8) * days * _DAY_S, 120.0) for n in range(int(200 / days))]


def _warmed(model: CabinetModel, start_s: float, until_s: float, eggs: int) -> CabinetModel:
    """The cabinet with the heat of the eggs on its lowest shelf."""
    times = np.arange(start_s, until_s, 60.0)
    clutch = SimulatedClutch(start_s, max(eggs, 0), model.shelves - 1)
    reached = developed(clutch, times, np.full(len(times), model.set_point_c))
    heat = np.zeros((len(times), model.shelves))
    heat[:, clutch.shelf] = heat_w(reached, clutch.eggs)
    return replace(model, egg_heat_w=heat)


def _introduce(
    client: httpx2.Client, asked: argparse.Namespace, names: list[str], began_s: float
) -> str:
    """Set up the cabinet, a device and its probes, as a keeper would; returns the token."""
    since = datetime.fromtimestamp(began_s - 60.0, UTC).isoformat()
    shelves = [f"shelf {n}" for n in range(1, asked.shelves + 1)]
    try:
        known = client.get("/api/cabinets").raise_for_status().json()
    except httpx2.HTTPError as error:
        raise NotPlausible("url", f"no Sandboa answers at {asked.url}: {error}") from error
    held = next((c for c in known if c["name"].casefold() == asked.cabinet.casefold()), None)
    if held is None:
        _said(client.post("/api/cabinets", json={
            "name": asked.cabinet, "shelves": shelves, "set_point_c": asked.set_point,
            "since": since,
        }))  # fmt: skip
    else:
        shelves = [*held["shelves"], *shelves][: asked.shelves]
    stamp = datetime.now(UTC).strftime("%d%b%H%M%S")
    device = _said(client.post("/api/devices", json={"name": f"Simulated {stamp}"}))
    for name, shelf in zip(names, shelves, strict=True):
        place = {"cabinet": asked.cabinet, "shelf": shelf}
        _said(client.post("/api/probes", json={
            "name": name, "place": place, "since": since, "device": device["device"],
        }))  # fmt: skip
    return str(device["token"])


def _said(answer: httpx2.Response) -> dict[str, object]:
    told: dict[str, object] = answer.json()
    if answer.is_error:
        raise NotPlausible("cabinet", str(told.get("detail", answer.text[:200])))
    return told


def _fault(text: str, began_s: float, names: list[str]) -> Mishap:
    match = _FAULT.fullmatch(text.strip())
    if match is None:
        raise NotPlausible("fault", f'"{text[:60]}" is not like "fan stops@10d+2d"')
    kind, when, when_unit, lasting, lasting_unit, probe, size = match.groups()
    if kind not in list(MishapKind):
        raise NotPlausible("fault", f'"{kind}" is none of: {", ".join(MishapKind)}')
    known = MishapKind(kind)
    if known not in OF_THE_CABINET and (probe or names[0]) not in names:
        raise NotPlausible("fault", f'there is no probe "{probe}"; there is: {", ".join(names)}')
    start_s = began_s + float(when) * _UNITS[when_unit]
    return Mishap(
        known,
        start_s,
        start_s + float(lasting) * _UNITS[lasting_unit],
        "" if known in OF_THE_CABINET else (probe or names[0]),
        float(size or 2.0),
    )


def _span(option: str, text: str) -> float:
    match = re.fullmatch(r"(\d+(?:\.\d+)?)([mhd])", text.strip())
    if match is None:
        raise NotPlausible(option, f'"{text[:40]}" is not a time like 30d, 12h or 90m')
    return float(match[1]) * _UNITS[match[2]]
