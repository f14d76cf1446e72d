"""Alarms and the ways they leave the house, through HTTP; the watch looks when it is asked to."""

import asyncio
from concurrent.futures import ThreadPoolExecutor
from datetime import timedelta
from typing import Any

import pytest
from fastapi.testclient import TestClient

from samples import NOW, NOW_S
from sandboa.web.background.alarm_monitor import look_round
from sandboa.web.background.live_state import LiveState
from sandboa.web.clock import StoppedClock
from web.asking import description, lay, problem

MAIL = {
    "kind": "email", "name": "Letter", "zone": "Europe/Berlin",
    "target": {
        "server": "127.0.0.1", "port": 9, "security": "none", "password": "hush",
        "sender": "house@example.org", "to": "keeper@example.org",
    },
}  # fmt: skip


@pytest.fixture
def hot(http: TestClient) -> TestClient:
    """A clutch in North whose probe says 34.5 °C for two hours, after a day at 31.5."""
    lay(http)
    device = http.post("/api/devices", json={"name": "Gateway"}).json()
    http.post("/api/probes", json={
        "name": "Lower", "place": {"cabinet": "North", "shelf": "lower"},
        "since": (NOW - timedelta(days=3)).isoformat(), "device": device["device"],
    }).raise_for_status()  # fmt: skip
    readings = [
        {
            "at": (NOW - timedelta(minutes=m)).isoformat(),
            "temperature_c": (34.5 if m < 120 else 31.5) + 0.01 * (m // 5 % 5),
        }
        for m in range(0, 1600, 5)
    ]
    http.post(
        "/api/readings", json={"readings": readings},
        headers={"Authorization": f"Bearer {device['token']}"},
    ).raise_for_status()  # fmt: skip
    return http


def watch(http: TestClient) -> bool:
    return look_round(http.app.state.house)  # type: ignore[attr-defined]


def harm(http: TestClient) -> dict[str, Any]:
    (found,) = (a for a in http.get("/api/alarms").json() if a["kind"] == "harm")
    return found


def test_an_alarm_is_told_with_its_place_and_acknowledged_once(hot: TestClient) -> None:
    watch(hot)
    alarm = harm(hot)
    assert (alarm["severity"], alarm["cabinet"], alarm["probe"]) == ("alarm", "North", "Lower")
    assert (alarm["ended_at"], alarm["acknowledged_at"]) == (None, None)
    seen = hot.post(f"/api/alarms/{alarm['id']}/acknowledgement").json()
    assert seen["summary"].startswith("Seen: Lower")
    assert harm(hot)["acknowledged_at"] is not None
    problem(hot.post(f"/api/alarms/{alarm['id']}/acknowledgement"), 409)
    hot.post(f"/api/acts/{seen['id']}/undo")
    assert harm(hot)["acknowledged_at"] is None


def test_alarms_of_one_cabinet_and_of_some_days(hot: TestClient, clock: StoppedClock) -> None:
    watch(hot)
    assert hot.get("/api/alarms", params={"cabinet": "north"}).json()
    assert hot.get("/api/alarms", params={"cabinet": "Small"}).json() == []
    # Silent for a day: what was wrong by temperature is over, for nobody knows.
    clock.at_s = NOW_S + 86_400
    watch(hot)
    assert harm(hot)["ended_at"] is not None
    clock.at_s = NOW_S + 40 * 86_400
    kinds = {a["kind"] for a in hot.get("/api/alarms").json()}
    assert "unplugged" in kinds
    assert "harm" not in kinds


def test_a_letter_that_cannot_leave_is_noted(hot: TestClient) -> None:
    added = hot.post("/api/messengers", json=MAIL).json()
    assert added["summary"] == "Alarms go out by email: Letter"
    watch(hot)
    (message, *_) = hot.get("/api/messengers/messages").json()
    assert (message["messenger"], message["sent"]) == ("Letter", False)
    assert "127.0.0.1" in message["outcome"]


def test_secrets_are_never_told(http: TestClient) -> None:
    http.post("/api/messengers", json=MAIL).raise_for_status()
    (held,) = http.get("/api/messengers").json()
    assert held["target"]["password"] == "set"
    assert "hush" not in http.get("/api/messengers").text
    changed = {**MAIL, "name": "Post", "target": {**MAIL["target"], "password": ""}}
    assert http.put(f"/api/messengers/{held['id']}", json=changed).is_success
    (held,) = http.get("/api/messengers").json()
    assert (held["name"], held["target"]["password"]) == ("Post", "set")


def test_two_messengers_never_share_a_name(http: TestClient) -> None:
    shelf = {"kind": "record only", "zone": "UTC"}
    http.post("/api/messengers", json={**shelf, "name": "Here"}).raise_for_status()
    problem(http.post("/api/messengers", json={**shelf, "name": "HERE"}), 409)
    http.post("/api/messengers", json={**shelf, "name": "There"}).raise_for_status()
    here, there = (m["id"] for m in http.get("/api/messengers").json())
    problem(http.put(f"/api/messengers/{there}", json={**shelf, "name": "here"}), 409)
    assert http.put(f"/api/messengers/{here}", json={**shelf, "name": "here"}).is_success


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"zone": "Nowhere/Else"}, "zone"),
        ({"quiet_from_min": 5000}, "quiet_from_min"),
        ({"quiet_from_min": 60}, "quiet_until_min"),
        ({"kind": "drum"}, "kind"),
        ({"target": {"server": ""}}, "server"),
        ({"target": {"colour": "red"}}, "target.colour"),
        ({"name": " "}, "messenger"),
    ],
)
def test_messengers_that_cannot_be_are_refused_at_their_field(http, changes, field) -> None:
    told = problem(http.post("/api/messengers", json={**MAIL, **changes}), 422)
    assert told["errors"][0]["field"] == field
    assert http.get("/api/messengers").json() == []


def test_the_shelf_shows_a_trial_and_is_removed(http: TestClient) -> None:
    http.post("/api/messengers", json={"kind": "record only", "name": "Here", "zone": "UTC"})
    (held,) = http.get("/api/messengers").json()
    told = http.post(f"/api/messengers/{held['id']}/trial").json()
    assert (told["sent"], told["outcome"]) == (True, "kept here, sent nowhere")
    gone = http.delete(f"/api/messengers/{held['id']}").json()
    assert http.get("/api/messengers").json() == []
    http.post(f"/api/acts/{gone['id']}/undo")
    assert [m["name"] for m in http.get("/api/messengers").json()] == ["Here"]


async def _after(live: LiveState, revision: int) -> int | None:
    return await live.after(revision)


def test_whoever_follows_the_stream_is_told_and_let_go() -> None:
    async def scene() -> tuple[int | None, int | None]:
        live = LiveState()
        live.loop = asyncio.get_running_loop()
        waiting = asyncio.create_task(_after(live, 0))
        await asyncio.sleep(0)
        live.recorded()
        first = await waiting
        waiting = asyncio.create_task(_after(live, 1))
        await asyncio.sleep(0)
        live.close_elsewhere()
        return first, await waiting

    # In a thread of its own: where browser tests ran before, this one holds a loop of Playwright's.
    with ThreadPoolExecutor(1) as own_thread:
        assert own_thread.submit(asyncio.run, scene()).result() == (1, None)


def test_the_description_tells_of_the_stream() -> None:
    paths = description()["paths"]
    assert "text/event-stream" in str(paths["/api/live"])
