"""Heard: what devices say over HTTP, named by a keeper and stored from then on."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from web.asking import lay, problem


@pytest.fixture
def hub(http: TestClient) -> dict[str, Any]:
    """A device without a probe, and a probe for its sensor."""
    lay(http)
    made = http.post("/api/devices", json={"name": "Hub"}).json()
    place = {"name": "Lower", "place": {"box": "26-01"}, "since": "2026-05-30T00:00:00Z"}
    probe = http.post("/api/probes", json=place).json()["id"]
    return {"device": made["device"], "token": made["token"], "probe": probe}


def send(http: TestClient, hub: dict[str, Any], message: Any) -> Any:
    return http.post(
        "/api/readings", json=message, headers={"Authorization": f"Bearer {hub['token']}"}
    )


def heard(http: TestClient) -> dict[str, Any]:
    (told,) = http.get("/api/heard").json()
    return told


def named(hub: dict[str, Any], **values: str) -> dict[str, Any]:
    told = [{"path": p, "unit": unit, "probe": hub["probe"]} for p, unit in values.items()]
    return {"device": hub["device"], "values": told}


def test_what_is_not_understood_is_heard_named_and_taken(
    http: TestClient, hub: dict[str, Any]
) -> None:
    message = {"x": 88.52, "y": 0.62, "battery": 9}
    assert "no temperature in it" in problem(send(http, hub, message), 422)["detail"]
    told = heard(http)
    assert (told["name"], told["count"]) == ("Hub", 1)
    assert "no temperature in it" in told["refused"]
    assert [value["path"] for value in told["values"]] == ["x", "y", "battery"]
    act = http.put("/api/heard", json=named(hub, x="f", y="fraction")).json()
    assert act["summary"] == "Messages of Hub are of Lower"
    assert send(http, hub, message).json()["new"] == 1
    told = heard(http)
    assert told["refused"] is None
    assert told["values"][0]["named"]["probe_name"] == "Lower"
    (probe,) = http.get("/api/probes").json()
    assert probe["last_c"] == pytest.approx(31.4)
    assert probe["last_humidity"] == pytest.approx(0.62)
    # Taken back, it is refused as before.
    http.post(f"/api/acts/{act['id']}/undo")
    assert send(http, hub, message).status_code == 422


def test_a_value_that_was_named_is_told_when_the_device_is_silent(
    http: TestClient, hub: dict[str, Any]
) -> None:
    http.put("/api/heard", json=named(hub, x="c"))
    told = heard(http)
    assert (told["at"], told["values"][0]["text"]) == (None, "")


@pytest.mark.parametrize(
    ("change", "why"),
    [
        ({"topic": "a/b"}, "either a topic or a device"),
        ({"device": None}, "either a topic or a device"),
        ({"device": None, "topic": "a/#"}, "not a pattern"),
        ({"device": 999_999}, "no such device"),
        ({"values": [{"path": "x", "unit": "r", "probe": 1}]}, "Unit"),
    ],
)
def test_bad_names_are_refused_in_words(
    http: TestClient, hub: dict[str, Any], change: dict[str, Any], why: str
) -> None:
    answer = http.put("/api/heard", json={**named(hub, x="c"), **change})
    assert answer.status_code in (404, 422)
    assert why.casefold() in answer.text.casefold()


def test_a_flood_of_devices_words_is_bounded(http: TestClient, hub: dict[str, Any]) -> None:
    for number in range(450):
        http.app.state.house.heard.topic(f"lamp/{number}", b"1" * 9_000, 0.0, False)
    told = http.get("/api/heard").json()
    assert len(told) == 400
    # Too long for a sensor: it spoke, and nobody looked into it.
    assert told[0]["values"] == []


def test_who_named_it_meanwhile_is_not_overwritten(http: TestClient, hub: dict[str, Any]) -> None:
    send(http, hub, {"x": 31.4})
    seen = {"If-Match": heard(http)["revision"]}
    http.put("/api/heard", json=named(hub, x="f"), headers=seen).raise_for_status()
    assert problem(http.put("/api/heard", json=named(hub, x="c"), headers=seen), 412)["current"]
    assert heard(http)["values"][0]["named"]["unit"] == "f"
    again = {"If-Match": heard(http)["revision"]}
    assert http.put("/api/heard", json=named(hub, x="c"), headers=again).status_code == 200
