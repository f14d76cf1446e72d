"""Cabinets and the watch over HTTP, and a clock that is set back."""

import time

import pytest
from fastapi.testclient import TestClient

from samples import NOW, NOW_S
from sandboa.web import clock as clocks
from sandboa.web.clock import StoppedClock, SystemClock
from web.asking import lay, problem

NORTH = {"name": "Polar", "shelves": ["upper", "lower"], "set_point_c": 31.5}


def test_a_cabinet_is_set_up_told_and_corrected(http: TestClient) -> None:
    made = http.post("/api/cabinets", json={**NORTH, "kind": "home-built", "volume_l": 300})
    assert made.status_code == 201, made.text
    (listed,) = http.get("/api/cabinets").json()
    assert (listed["name"], listed["shelves"]) == ("Polar", ["upper", "lower"])
    told = http.get("/api/cabinets/polar").json()
    assert (told["kind"], told["set_point_c"], told["faults"]) == ("home-built", 31.5, [])
    assert told["shelves"][0]["here"]["source"] == "set point"
    body = {"name": "Polar", "shelves": ["upper", "middle", "lower"]}
    assert http.put("/api/cabinets/Polar", json=body).is_success
    changed = http.post("/api/cabinets/Polar/set-points", json={"temperature_c": 30.0})
    assert changed.json()["summary"] == "Polar set to 30.0\N{NO-BREAK SPACE}°C"
    assert [s["name"] for s in http.get("/api/cabinets/Polar").json()["shelves"]] == body["shelves"]


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"shelves": []}, "shelves"),
        ({"volume_l": -3}, "volume_l"),
        ({"set_point_c": 45}, "set point"),
        ({"kind": "borrowed"}, "kind"),
        ({"name": ""}, "cabinet"),
        ({"colour": "white"}, "colour"),
    ],
)
def test_cabinets_that_cannot_be_are_refused_at_their_field(http, changes, field) -> None:
    told = problem(http.post("/api/cabinets", json={**NORTH, **changes}), 422)
    assert told["errors"][0]["field"] == field
    assert http.get("/api/cabinets").json() == []


def test_what_is_too_much_is_said_with_its_unit(http: TestClient) -> None:
    http.post("/api/cabinets", json=NORTH).raise_for_status()
    told = problem(http.post("/api/cabinets/Polar/set-points", json={"temperature_c": 80}), 422)
    assert told["detail"] == "Temperature is above 60\N{NO-BREAK SPACE}°C"
    reason = "is above 60\N{NO-BREAK SPACE}°C"
    assert told["errors"] == [{"field": "temperature_c", "reason": reason}]


def test_what_is_not_there(http: TestClient) -> None:
    problem(http.get("/api/cabinets/Nowhere"), 404)
    problem(http.get("/api/cabinets/Nowhere/trace"), 404)
    problem(http.post("/api/alarms/7/acknowledgement"), 404)
    problem(http.post("/api/messengers/7/trial"), 404)
    problem(http.delete("/api/devices/7"), 404)


def test_a_box_moves_and_its_clutch_knows(http: TestClient) -> None:
    lay(http)
    http.post("/api/cabinets", json=NORTH)
    moved = http.post("/api/boxes/26-01/moves", json={"cabinet": "Polar", "shelf": "upper"})
    assert moved.json()["summary"] == "Box 26-01 moved to Polar, upper"
    box = http.get("/api/clutches/26-01").json()["boxes"][0]
    assert (box["cabinet"], box["shelf"]) == ("Polar", "upper")
    here = http.get("/api/cabinets/Polar").json()["shelves"][0]["boxes"]
    assert [b["name"] for b in here] == ["26-01"]
    assert http.get("/api/cabinets/North").json()["shelves"][0]["boxes"] == []


def test_probes_with_one_name_and_checks_that_cannot_be(http: TestClient) -> None:
    lay(http)
    body = {"name": "P", "place": {"cabinet": "North"}, "since": NOW.isoformat()}
    probe = http.post("/api/probes", json=body).json()["id"]
    told = problem(http.post("/api/probes", json={**body, "name": "p"}), 409)
    assert "two probes need two names" in told["detail"]
    path = f"/api/probes/{probe}/checks"
    assert "reference" in problem(
        http.post(path, json={"kind": "reference", "shown": 31.0}), 422
    )["detail"]  # fmt: skip
    problem(http.post(path, json={"kind": "salt", "shown": 75.3}), 422)
    http.post(path, json={"kind": "salt", "shown": 0.79})
    (held,) = http.get("/api/probes").json()
    assert held["humidity_offset"] == pytest.approx(-0.037)
    moved = http.post(f"/api/probes/{probe}/moves", json={"place": {"box": "26-01"}})
    assert moved.json()["summary"] == "Probe P hung in box 26-01"
    http.post(f"/api/probes/{probe}/moves", json={"place": None})
    (held,) = http.get("/api/probes").json()
    assert (held["place"], [s["place"] for s in held["stays"]][-1]) == ("nowhere", None)


def test_the_clock_of_the_machine_set_back_is_told(http: TestClient, clock: StoppedClock) -> None:
    assert http.get("/api/today").json()["clock_behind_s"] == 0
    assert clock.behind_s() == 0


def test_time_does_not_go_back(monkeypatch: pytest.MonkeyPatch) -> None:
    wall, steady = [NOW_S], [100.0]
    monkeypatch.setattr(clocks.time, "time", lambda: wall[0])
    monkeypatch.setattr(clocks.time, "monotonic", lambda: steady[0])
    clock = SystemClock()
    wall[0], steady[0] = NOW_S + 60, 160.0
    assert clock.now_s() == NOW_S + 60
    # Set back two hours; a minute later it has gone on by a minute.
    wall[0], steady[0] = NOW_S - 7200, 220.0
    assert clock.now_s() == NOW_S + 120
    assert clock.behind_s() == pytest.approx(7320)
    # Set right and ahead: it is followed.
    wall[0], steady[0] = NOW_S + 4000, 230.0
    assert clock.now_s() == NOW_S + 4000
    assert clock.behind_s() == 0
    assert time.time() == wall[0]
