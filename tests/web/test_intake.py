"""Live intake through HTTP: tokens, deliveries in any order, wrong clocks, refusals."""

import base64
import gzip
import json
from datetime import timedelta
from typing import Any, cast

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from samples import NOW, NOW_S
from sandboa.formats.delivery import LARGEST_DELIVERY_BYTES
from sandboa.records import readings as records_of_readings
from sandboa.records.database import database
from sandboa.web.clock import StoppedClock
from web.asking import lay, problem


class Logger:
    """A device with a token, posting as a real one would."""

    def __init__(self, http: TestClient, *probes: str, name: str = "Gateway") -> None:
        self.http = http
        told = http.post("/api/devices", json={"name": name}).json()
        self.id, self.token = told["device"], told["token"]
        since = (NOW - timedelta(days=30)).isoformat()
        for probe in probes:
            body = {
                "name": probe, "place": {"box": "26-01"}, "since": since, "device": self.id,
            }  # fmt: skip
            assert http.post("/api/probes", json=body).status_code == 201

    def post(self, body: Any, **more: Any) -> Any:
        content = body if isinstance(body, bytes | str) else json.dumps(body)
        headers = {"Authorization": f"Bearer {self.token}", **more.pop("headers", {})}
        return self.http.post("/api/readings", content=content, headers=headers, **more)

    def send(self, *minutes_ago: float, **more: Any) -> dict[str, Any]:
        answer = self.post({"readings": [reading(m) for m in minutes_ago], **more})
        assert answer.status_code == 201, answer.text
        return answer.json()


def reading(minutes_ago: float, **more: Any) -> dict[str, Any]:
    return {"at": (NOW - timedelta(minutes=minutes_ago)).isoformat(), "temperature_c": 31.0, **more}


@pytest.fixture
def logger(http: TestClient) -> Logger:
    lay(http)
    return Logger(http, "Lower")


def stored() -> int:
    return database.execute_sql("SELECT count(*) FROM reading").fetchone()[0]


def test_a_delivery_twice_and_out_of_order_is_stored_once(logger: Logger) -> None:
    told = logger.send(*range(50, 100))
    assert told == {"new": 50, "known": 0, "conflicting": 0, "held": 0}
    again = logger.send(*range(99, -1, -1))
    assert (again["new"], again["known"]) == (50, 50)
    late = logger.post({"readings": [{**reading(70), "temperature_c": 29.0}]}).json()
    assert late["conflicting"] == 1
    assert stored() == 100
    clutch = logger.http.get("/api/clutches/26-01").json()
    assert clutch["forecast"]["measured_share"] > 0
    assert not any(entry["kind"] == "readings" for entry in clutch["log"])


def test_a_device_carries_several_probes_and_names_them(http: TestClient) -> None:
    lay(http)
    logger = Logger(http, "Lower", "Upper")
    told = problem(logger.post({"readings": [reading(1)]}), 422)
    assert "Which probe" in told["detail"]
    told = problem(logger.post({"readings": [reading(1, probe="Attic")]}), 422)
    assert 'no probe "Attic"; it has: Lower, Upper' in told["detail"]
    assert logger.post(
        {"probe": "lower", "readings": [reading(1), reading(1, probe="Upper")]}
    ).json()["new"] == 2  # fmt: skip
    names = {p["name"]: p for p in http.get("/api/probes").json()}
    assert names["Upper"]["last_c"] == 31.0
    assert names["Upper"]["device"] == "Gateway"


def test_gzip_is_accepted_within_the_same_limit(logger: Logger) -> None:
    body = json.dumps({"readings": [reading(m) for m in range(500)]}).encode()
    packed = {"Content-Encoding": "gzip"}
    assert logger.post(gzip.compress(body), headers=packed).json()["new"] == 500
    bomb = gzip.compress(b" " * (LARGEST_DELIVERY_BYTES + 1))
    assert "smaller batches" in problem(logger.post(bomb, headers=packed), 413)["detail"]
    cut = gzip.compress(body)[:-20]
    assert "cut off" in problem(logger.post(cut, headers=packed), 422)["detail"]
    assert "damaged" in problem(logger.post(body, headers=packed), 422)["detail"]
    assert (
        "send gzip" in problem(logger.post(body, headers={"Content-Encoding": "br"}), 422)["detail"]
    )


def test_ten_megabytes_are_refused_in_words(logger: Logger) -> None:
    told = problem(logger.post(b" " * 10_000_000), 413)
    assert told["detail"] == "10 MB is too large: 9 MB fit. Nothing was stored."


def test_only_a_token_that_holds_lets_readings_in(logger: Logger) -> None:
    http, body = logger.http, json.dumps({"readings": [reading(1)]})
    assert "says who it is" in problem(http.post("/api/readings", content=body), 401)["detail"]
    for header, words in (
        ("Bearer sb_wrong", "not known"), ("Basic eDp5", "not known"),
        ("Basic !", "cannot be read"), ("Digest a", "Bearer"), ("Bearer ", "says who"),
    ):  # fmt: skip
        answer = http.post("/api/readings", content=body, headers={"Authorization": header})
        assert words in problem(answer, 401)["detail"]
        assert answer.headers["www-authenticate"] == "Bearer"
    renewed = http.post(f"/api/devices/{logger.id}/token").json()
    assert "revoked" in problem(logger.post(body), 401)["detail"]
    logger.token = renewed["token"]
    assert logger.post(body).status_code == 201
    gone = http.delete(f"/api/devices/{logger.id}").json()
    assert "revoked" in problem(logger.post(body), 401)["detail"]
    assert http.get("/api/devices").json() == []
    assert http.post(f"/api/acts/{gone['id']}/undo").is_success
    # The device is back, its token is not: what was let go of may be in other hands.
    assert "revoked" in problem(logger.post(body), 401)["detail"]
    logger.token = http.post(f"/api/devices/{logger.id}/token").json()["token"]
    assert logger.post(body).json()["known"] == 1


def test_a_token_is_shown_once_and_kept_as_a_hash(logger: Logger) -> None:
    (told,) = logger.http.get("/api/devices").json()
    assert told["name"] == "Gateway"
    assert told["probes"] == ["Lower"]
    held = database.execute_sql("SELECT name, token_hash FROM device").fetchall()
    assert all(logger.token not in str(row) for row in held)
    problem(logger.http.post("/api/devices", json={"name": "gateway"}), 409)


def test_readings_from_the_future_are_held_shown_and_let_in_with_their_clock_put_right(
    logger: Logger,
) -> None:
    told = logger.send(-180, -179, -4, 10)
    assert (told["new"], told["held"]) == (2, 2)
    (held,) = logger.http.get("/api/held-readings").json()
    assert (held["probe_name"], held["reason"], held["count"]) == ("Lower", "ahead", 2)
    assert held["shift_s"] == -180 * 60
    ask = {"probe": held["probe"], "reason": "ahead"}
    refused = logger.http.post("/api/held-readings/let-in", json={**ask, "shift_s": -60})
    assert "still lies ahead" in problem(refused, 422)["detail"]
    act = logger.http.post("/api/held-readings/let-in", json={**ask, "shift_s": held["shift_s"]})
    assert act.json()["summary"] == "2 readings of Lower let in, clock put right"
    assert (stored(), logger.http.get("/api/held-readings").json()) == (4, [])
    logger.http.post(f"/api/acts/{act.json()['id']}/undo")
    assert (stored(), len(logger.http.get("/api/held-readings").json())) == (2, 1)
    logger.http.post("/api/held-readings/set-aside", json=ask)
    assert logger.http.get("/api/held-readings").json() == []
    kept = database.execute_sql("SELECT count(*) FROM held_reading").fetchone()[0]
    assert kept == 2


def test_a_clock_that_is_off_holds_the_whole_delivery(logger: Logger) -> None:
    ahead = (NOW + timedelta(hours=3)).isoformat()
    assert logger.send(1, 2, sent_at=ahead)["held"] == 2
    behind = (NOW - timedelta(days=9000)).isoformat()
    assert logger.send(9000 * 1440, sent_at=behind)["held"] == 1
    assert logger.send(3, sent_at=NOW.isoformat())["new"] == 1
    told = {h["reason"]: h for h in logger.http.get("/api/held-readings").json()}
    assert told["ahead"]["shift_s"] == -3 * 3600
    assert told["behind"]["shift_s"] == 9000 * 86_400
    assert logger.send(60 * 24 * 40)["held"] == 1
    assert {h["reason"] for h in logger.http.get("/api/held-readings").json()} == {
        "ahead", "behind", "before",
    }  # fmt: skip


def test_a_device_that_comes_too_fast_is_told_to_come_again(
    logger: Logger, monkeypatch: pytest.MonkeyPatch
) -> None:
    bound = cast(FastAPI, logger.http.app).state.house.deliveries
    monkeypatch.setattr(bound, "most_of_one", 0)
    answer = logger.post({"readings": [reading(1)]})
    assert "send it again" in problem(answer, 429)["detail"]
    assert answer.headers["retry-after"] == "1"
    monkeypatch.undo()
    monkeypatch.setattr(bound, "most", 0)
    assert "More devices" in problem(logger.post({"readings": [reading(1)]}), 429)["detail"]
    monkeypatch.undo()
    assert logger.send(1)["new"] == 1


def test_readings_from_before_the_probe_hung_say_that_it_did(logger: Logger) -> None:
    assert logger.send(60 * 24 * 40, 60 * 24 * 39)["held"] == 2
    (held,) = logger.http.get("/api/held-readings").json()
    ask = {"probe": held["probe"], "reason": "before", "shift_s": 0}
    act = logger.http.post("/api/held-readings/let-in", json=ask).json()
    assert act["summary"] == "2 readings of Lower let in, it hung there by then"
    assert logger.http.get("/api/held-readings").json() == []
    assert stored() == 2
    assert logger.send(60 * 24 * 38)["new"] == 1
    logger.http.post(f"/api/acts/{act['id']}/undo")
    assert logger.send(60 * 24 * 37)["held"] == 1


@pytest.mark.parametrize("written", ["NaN", "Infinity", "-40", "451", '"warm"', "null"])
def test_readings_that_cannot_be_are_refused_whole(logger: Logger, written: str) -> None:
    good = json.dumps(reading(1))
    bad = f'{{"at": "{NOW.isoformat()}", "temperature_c": {written}}}'
    told = problem(logger.post(f'{{"readings": [{good}, {bad}]}}'), 422)
    assert told["errors"][0]["field"] == "readings.1.temperature_c"
    assert stored() == 0


@pytest.mark.parametrize("at", ["2026-06-14T09:00:00", "2026-06-31T09:00:00Z", "noon", ""])
def test_a_delivery_with_a_time_that_is_none_names_it(logger: Logger, at: str) -> None:
    told = problem(logger.post({"readings": [reading(1), {**reading(1), "at": at}]}), 422)
    assert told["errors"][0]["field"] == "readings.1.at"
    assert stored() == 0


@pytest.mark.parametrize("body", ["[]", '{"readings":', "null", '{"readings": [], "colour": 1}'])
def test_absurd_deliveries_are_refused_in_words(logger: Logger, body: str) -> None:
    assert problem(logger.post(body), 422)["errors"]


def test_a_full_disk_says_so_and_stores_nothing(
    logger: Logger, monkeypatch: pytest.MonkeyPatch
) -> None:
    """SQLite itself refuses another page, as on a full disk, in the middle of a delivery."""
    plain = records_of_readings.store

    def on_a_full_disk(*arguments: Any) -> Any:
        (pages,) = database.execute_sql("PRAGMA page_count").fetchone()
        database.execute_sql(f"PRAGMA max_page_count = {pages + 3}")
        return plain(*arguments)

    monkeypatch.setattr(records_of_readings, "store", on_a_full_disk)
    many = {"readings": [reading(m) for m in range(20_000)]}
    answer = logger.post(many)
    told = problem(answer, 503)["detail"]
    assert "nothing was stored" in told
    assert "full" in told
    assert answer.headers["retry-after"] == "1"
    assert stored() == 0
    monkeypatch.setattr(records_of_readings, "store", with_room(plain))
    assert logger.post(many).json()["new"] == 20_000


def with_room(plain: Any) -> Any:
    """Storing after somebody has made room: each connection has its own limit."""

    def store(*arguments: Any) -> Any:
        database.execute_sql("PRAGMA max_page_count = 1000000")
        return plain(*arguments)

    return store


def test_the_clock_of_the_machine_stepping_back_loses_nothing(
    logger: Logger, clock: StoppedClock
) -> None:
    """Started with a wrong clock, it holds true readings back and lets them in later."""
    logger.send(10)
    clock.at_s = NOW_S - 86_400
    assert logger.send(5)["held"] == 1
    clock.at_s = NOW_S
    (held,) = logger.http.get("/api/held-readings").json()
    ask = {"probe": held["probe"], "reason": held["reason"], "shift_s": 0}
    assert logger.http.post("/api/held-readings/let-in", json=ask).is_success
    assert stored() == 2
    assert logger.http.get("/api/today").status_code == 200


def test_sensors_are_taken_in_their_own_words(logger: Logger) -> None:
    basic = base64.b64encode(f"anything:{logger.token}".encode()).decode()
    ways = [
        logger.post({"temperature": 31.4, "humidity": 62}),
        logger.post({"AM2301": {"Temperature": 31.4, "Humidity": 62}}),
        logger.post(b"31.4"),
        logger.post(gzip.compress(b'{"temp_f": 88.5}'), headers={"Content-Encoding": "gzip"}),
        logger.post(
            "temperature=31.4&humidity=62",
            headers={"Content-Type": "application/x-www-form-urlencoded"},
        ),
        logger.http.post(f"/api/readings?token={logger.token}", content=b"31.4"),
        logger.http.post(
            "/api/readings", content=b"31.4", headers={"Authorization": f"Basic {basic}"}
        ),
        logger.http.get(f"/api/readings?token={logger.token}&temp=31.4&hum=62"),
    ]
    assert [way.status_code for way in ways] == [201] * len(ways)
    # All of this second, and the first of them stays.
    assert [way.json()["new"] for way in ways] == [1, *[0] * (len(ways) - 1)]
    assert stored() == 1


def test_a_device_of_several_probes_is_told_which_there_are(http: TestClient) -> None:
    lay(http)
    logger = Logger(http, "Upper", "Lower")
    assert logger.post([{"name": "lower", "temperature": 30.0}]).status_code == 201
    own_words = {"readings": [{"name": "upper", "temperature": 30.5, "ts": int(NOW_S) - 60}]}
    assert logger.post(own_words).json()["new"] == 1
    assert logger.post({"readings": []}).json()["new"] == 0
    told = problem(logger.post({"AM2301": {"Temperature": 31.4}}), 422)
    assert 'no probe "AM2301"; it has: Lower, Upper' in told["detail"]


def test_what_was_refused_is_told_on_today_until_something_is_taken(logger: Logger) -> None:
    def refused() -> list[dict[str, str]]:
        return logger.http.get("/api/today").json()["refused_senders"]

    assert refused() == []
    problem(logger.post({"humidity": 62}), 422)
    (told,) = refused()
    assert told["device"] == "Gateway"
    assert "no temperature in it" in told["reason"]
    problem(logger.post({"readings": [{"at": "noon", "temperature_c": "warm"}]}), 422)
    assert "readings.0.temperature_c" in refused()[0]["reason"]
    # In the units of whoever reads it.
    problem(logger.post({"temperature": -127}), 422)
    told = logger.http.get("/api/today", headers={"Sandboa-Unit": "F"}).json()
    assert "-196.6\u00a0°F is outside" in told["refused_senders"][0]["reason"]
    assert "-127.0\u00a0°C is outside" in refused()[0]["reason"]
    assert logger.post({"temperature": 31.4}).status_code == 201
    assert refused() == []
