"""The real server in its own process: killed in the middle, flooded, asked over MQTT."""

import json
import socket
import sqlite3
import subprocess
import sys
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import ExitStack
from datetime import UTC, datetime, timedelta
from pathlib import Path
from threading import Event, Thread
from typing import Any

import httpx2
import paho.mqtt.client as mqtt
import pytest
from paho.mqtt.enums import CallbackAPIVersion

from forked import forked, started
from sandboa.cli import main
from sandboa.records.integrity.check import check

ROUNDS = 10


class Sender:
    """A device of a running house, with one probe."""

    def __init__(self, address: str, name: str = "Gateway", token: str = "") -> None:
        self.address, self.name = address, name
        self.http = httpx2.Client(base_url=address, timeout=20.0)
        if token:
            self.token = token
            return
        now = datetime.now(UTC)
        since = (now - timedelta(days=400)).isoformat()
        self.http.post("/api/cabinets", json={
            "name": "North", "shelves": ["lower"], "set_point_c": 31.5, "since": since,
        }).raise_for_status()  # fmt: skip
        told = self.http.post("/api/devices", json={"name": name}).raise_for_status().json()
        self.token = told["token"]
        hung = self.http.post("/api/probes", json={
            "name": "Lower", "place": {"cabinet": "North"}, "since": since,
            "device": told["device"],
        }).raise_for_status().json()  # fmt: skip
        self.probe = hung["id"]

    def __enter__(self) -> "Sender":
        return self

    def __exit__(self, *_: object) -> None:
        self.http.close()

    def post(self, *seconds_ago: int) -> httpx2.Response:
        return self.http.post(
            "/api/readings",
            json=delivery(*seconds_ago),
            headers={"Authorization": f"Bearer {self.token}"},
        )


def delivery(*seconds_ago: int) -> dict[str, Any]:
    now = datetime.now(UTC).replace(microsecond=0)
    return {
        "readings": [
            {"at": (now - timedelta(seconds=s)).isoformat(), "temperature_c": 31.0}
            for s in seconds_ago
        ]
    }


def stored(folder: Path) -> set[int]:
    """Times of all readings, read past the server."""
    connection = sqlite3.connect(folder / "house.sqlite3")
    try:
        return {row[0] for row in connection.execute("SELECT at_s FROM reading")}
    finally:
        connection.close()


def test_killed_ten_times_every_acknowledged_reading_is_there(tmp_path: Path) -> None:
    """`kill -9` while deliveries come in: what was answered with 201 is on the disk."""
    acknowledged: set[int] = set()
    token = ""
    begin = int(time.time()) - 300 * 86_400
    at = iter(range(begin, begin + 100_000_000, 60))
    for _ in range(ROUNDS):
        with (
            ExitStack() as closing,
            started("serve", "--data", str(tmp_path)) as (process, address),
        ):
            sender = Sender(address, token=token)
            token = sender.token
            closing.callback(sender.http.close)
            enough = Event()

            def flood(sender: Sender = sender, enough: Event = enough) -> None:
                while True:
                    times = [next(at) for _ in range(20)]
                    body = {"readings": [
                        {"at": datetime.fromtimestamp(t, UTC).isoformat(), "temperature_c": 31.0}
                        for t in times
                    ]}  # fmt: skip
                    try:
                        answer = sender.http.post(
                            "/api/readings", json=body,
                            headers={"Authorization": f"Bearer {sender.token}"},
                        )  # fmt: skip
                    except httpx2.TransportError:
                        return
                    if answer.status_code == 201:
                        acknowledged.update(times)
                        enough.set()

            flooding = Thread(target=flood)
            flooding.start()
            assert enough.wait(30)
            process.kill()
            process.join(20)
            flooding.join(30)
            assert acknowledged <= stored(tmp_path)
    assert len(acknowledged) >= 20 * ROUNDS
    assert check(tmp_path / "house.sqlite3").problems == ()


def test_a_thousand_requests_at_once_lose_nothing_that_was_taken(tmp_path: Path) -> None:
    with forked("serve", "--data", str(tmp_path)) as address, Sender(address) as sender:

        def post(n: int) -> tuple[int, int, str | None]:
            answer = sender.http.post(
                "/api/readings",
                json={"readings": [{"at": moment(n), "temperature_c": 31.0}]},
                headers={"Authorization": f"Bearer {sender.token}"},
            )
            return n, answer.status_code, answer.headers.get("retry-after")

        base = int(time.time()) - 86_400

        def moment(n: int) -> str:
            return datetime.fromtimestamp(base + n, UTC).isoformat()

        with ThreadPoolExecutor(40) as many:
            answers = list(many.map(post, range(1000)))
        assert {status for _, status, _ in answers} <= {201, 429}
        assert all(retry == "1" for _, status, retry in answers if status == 429)
        taken = {base + n for n, status, _ in answers if status == 201}
        assert taken
        assert sender.http.get("/api/today").status_code == 200
        assert sender.http.get("/api/cabinets/North").status_code == 200
    assert stored(tmp_path) == taken


@pytest.fixture
def broker_port() -> int:
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return int(free.getsockname()[1])


class MqttDevice:
    """A device that speaks MQTT: its publications, and the problems it is told."""

    def __init__(self, port: int, name: str, token: str) -> None:
        self.name, self.problems, self.connected = name, [], Event()
        self.refused, self.told, self.subscribed = Event(), Event(), Event()
        self.client = mqtt.Client(CallbackAPIVersion.VERSION2, client_id=f"device-{name}")
        self.client.username_pw_set(name, token)
        self.client.on_connect = self._on_connect
        self.client.on_message = self._on_message
        self.client.on_subscribe = lambda *_: self.subscribed.set()
        self.client.connect("127.0.0.1", port)
        self.client.loop_start()

    def _on_connect(self, client: Any, _: Any, __: Any, reason: Any, ___: Any) -> None:
        (self.refused if reason.is_failure else self.connected).set()
        client.subscribe(f"sandboa/{self.name}/problems")

    def _on_message(self, _: Any, __: Any, message: Any) -> None:
        self.problems.append(json.loads(message.payload)["detail"])
        self.told.set()

    def publish(self, body: Any, name: str = "") -> None:
        payload = body if isinstance(body, str) else json.dumps(body)
        self.client.publish(f"sandboa/{name or self.name}/readings", payload, qos=1)

    def close(self) -> None:
        self.client.disconnect()
        self.client.loop_stop()


@pytest.fixture
def mqtt_house(tmp_path: Path, broker_port: int) -> Iterator[tuple[Sender, int, Path]]:
    with (
        forked("serve", "--data", str(tmp_path), "--broker", str(broker_port)) as address,
        Sender(address) as sender,
    ):
        yield sender, broker_port, tmp_path


def eventually(holds: Any, what: str) -> None:
    """Wait for the server's own thread to have done something; no fixed sleep decides."""
    ends = time.monotonic() + 20
    waiting = Event()
    while not holds():
        assert time.monotonic() < ends, what
        waiting.wait(0.02)


def test_readings_come_in_by_mqtt_as_by_http(mqtt_house: tuple[Sender, int, Path]) -> None:
    sender, port, folder = mqtt_house
    device = MqttDevice(port, "Gateway", sender.token)
    try:
        assert device.connected.wait(15)
        assert device.subscribed.wait(15)
        device.publish(delivery(60, 120, 180))
        device.publish(delivery(60, 120, 180))
        eventually(lambda: len(stored(folder)) == 3, "three readings stored")
        device.publish({"readings": [{"at": "noon", "temperature_c": 31}]})
        assert device.told.wait(15)
        assert device.problems == ['readings.0.at "noon" is not a date and time']
        assert sender.post(60).status_code == 201
    finally:
        device.close()


def test_a_wrong_token_is_no_way_in_by_mqtt(mqtt_house: tuple[Sender, int, Path]) -> None:
    sender, port, folder = mqtt_house
    stranger = MqttDevice(port, "Gateway", "sb_guessed")
    try:
        assert stranger.refused.wait(15)
    finally:
        stranger.close()
    # One device cannot write for another.
    told = sender.http.post("/api/devices", json={"name": "Other"}).json()
    other = MqttDevice(port, "Other", told["token"])
    own = MqttDevice(port, "Gateway", sender.token)
    try:
        assert other.connected.wait(15)
        assert own.connected.wait(15)
        other.publish(delivery(60), name="Gateway")
        own.publish(delivery(120))
        eventually(lambda: len(stored(folder)) >= 1, "the device's own reading stored")
        assert len(stored(folder)) == 1
    finally:
        other.close()
        own.close()


def test_simulate_feeds_a_running_house(tmp_path: Path) -> None:
    """Three days of a made-up cabinet, its fan dead at the end: Sandboa raises the alarm."""
    with forked("serve", "--data", str(tmp_path)) as address:
        done = subprocess.run(
            [sys.executable, "-m", "sandboa", "simulate", "--url", address, "--cabinet", "North",
             "--back", "3d", "--for", "0m", "--every", "300", "--fault", "fan stops@2.5d+3d"],
            capture_output=True, text=True, timeout=120, check=False,
        )  # fmt: skip
        assert done.returncode == 0, done.stderr
        assert "readings sent up to now" in done.stdout

        def alarmed() -> bool:
            told = httpx2.get(f"{address}/api/alarms").json()
            return any("does the fan turn" in alarm["text"] for alarm in told)

        eventually(alarmed, "an alarm for the fan")
        probes = httpx2.get(f"{address}/api/probes").json()
        assert {p["name"] for p in probes} == {"North 1", "North 2", "North 3"}


@pytest.mark.parametrize("speech", ["form", "nested"])
def test_simulate_speaks_as_other_sensors_do(tmp_path: Path, speech: str) -> None:
    with forked("serve", "--data", str(tmp_path)) as address:
        done = subprocess.run(
            [sys.executable, "-m", "sandboa", "simulate", "--url", address, "--speak", speech,
             "--shelves", "2", "--back", "2h", "--for", "0m", "--every", "600"],
            capture_output=True, text=True, timeout=120, check=False,
        )  # fmt: skip
        assert done.returncode == 0, done.stderr
        probes = httpx2.get(f"{address}/api/probes").json()
    assert len(probes) == 2
    assert len(stored(tmp_path)) >= 11


@pytest.mark.parametrize(
    ("options", "words"),
    [
        (["--fault", "fan stops"], "is not like"),
        (["--fault", "earthquake@1d+2h"], "is none of"),
        (["--fault", "stuck@1d+2h:Attic"], "there is no probe"),
        (["--back", "soon"], "is not a time"),
        (["--shelves", "12"], "1 to 6 shelves"),
        ([], "no Sandboa answers"),
    ],
)
def test_simulate_says_what_is_wrong(
    options: list[str], words: str, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["simulate", "--url", "http://127.0.0.1:9", *options]) == 2
    assert words in capsys.readouterr().err
