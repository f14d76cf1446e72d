"""Whoever reads °F is told everything in °F, and their phone may differ."""

import json
import re
import shutil
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from samples import NOW_S
from sandboa.cli.house_folder import DATABASE
from sandboa.records.alarms import SentMessage
from sandboa.records.database import database
from sandboa.records.facts import Act
from sandboa.web.app import create_app
from sandboa.web.background.alarm_monitor import look_round
from sandboa.web.clock import StoppedClock
from web.asking import lay, problem
from web.test_alarms_and_messengers import hot as hot  # a fixture of that file
from web.test_people import add, sign_in

OF_THIS_DEVICE = {"Sandboa-Unit": "F", "Sandboa-Zone": "Pacific/Auckland"}


def choose(http: TestClient, unit: str) -> None:
    answer = http.put("/api/session/preferences", json={"temperature_unit": unit})
    assert answer.status_code == 204, answer.text


def warm(http: TestClient) -> str:
    """The summary of a set point that was recorded now."""
    body = {"temperature_c": 30.0}
    http.post("/api/cabinets/North/set-points", json=body).raise_for_status()
    told = http.get("/api/acts").json()[0]["summary"]
    return str(told).replace("\N{NO-BREAK SPACE}", " ")


def test_what_was_chosen_holds_for_what_was_recorded_before(http: TestClient) -> None:
    lay(http)
    assert warm(http) == "North set to 30.0 °C"
    choose(http, "F")
    assert http.get("/api/session").json()["temperature_unit"] == "F"
    (told,) = (a["summary"] for a in http.get("/api/acts").json() if "set to" in a["summary"])
    assert told == "North set to 86.0\N{NO-BREAK SPACE}°F"


def test_a_device_may_differ_and_a_unit_that_is_none_changes_nothing(http: TestClient) -> None:
    lay(http)
    warm(http)
    told = http.get("/api/acts", headers=OF_THIS_DEVICE).json()[0]["summary"]
    assert "86.0\N{NO-BREAK SPACE}°F" in told
    told = http.get("/api/acts", headers={"Sandboa-Unit": "K"}).json()[0]["summary"]
    assert "30.0\N{NO-BREAK SPACE}°C" in told
    refused = http.put("/api/session/preferences", json={"temperature_unit": "K"})
    assert "is not one of" in problem(refused, 422)["detail"]


def test_each_person_reads_in_their_own(http: TestClient) -> None:
    lay(http)
    add(http, "Rowan", "keeper")
    sign_in(http, "Rowan")
    add(http, "Linden", "helper")
    choose(http, "F")
    assert "86.0 °F" in warm(http)
    link = http.post("/api/calendar/link?zone=UTC").json()
    sign_in(http, "Linden")
    assert http.get("/api/session").json()["temperature_unit"] == "C"
    assert "30.0\N{NO-BREAK SPACE}°C" in http.get("/api/acts").json()[0]["summary"]
    assert http.get("/calendar/" + link["link"].split("/calendar/")[1]).status_code == 200


def test_a_refusal_speaks_it_too(http: TestClient) -> None:
    lay(http)
    refused = http.post(
        "/api/cabinets/North/set-points", json={"temperature_c": 12.0}, headers=OF_THIS_DEVICE
    )
    told = problem(refused, 422)
    said = "53.6\N{NO-BREAK SPACE}°F is outside 68 to 96.8\N{NO-BREAK SPACE}°F"
    assert told["detail"] == f"Set point {said}"
    assert told["errors"] == [{"field": "set point", "reason": f"set point {said}"}]


def test_what_an_email_says_in_fahrenheit_and_in_its_zone(hot: TestClient) -> None:
    for name, unit, zone in (("Here", "C", "UTC"), ("There", "F", "Pacific/Auckland")):
        body = {"kind": "record only", "name": name, "zone": zone, "temperature_unit": unit}
        hot.post("/api/messengers", json=body).raise_for_status()
    look_round(hot.app.state.house)  # type: ignore[attr-defined]
    here, there = (
        {m["text"] for m in hot.get("/api/messengers/messages").json() if m["messenger"] == name}
        for name in ("Here", "There")
    )
    (harm,) = (text for text in there if "harm adds up" in text)
    assert "above 92.3\N{NO-BREAK SPACE}°F, up to 94." in harm
    assert not [text for text in there if "°C" in text]
    assert [text for text in here if "above 33.5\N{NO-BREAK SPACE}°C" in text]
    since = re.compile(r"Since (.+)\.$")
    assert {since.findall(t)[0] for t in there}.isdisjoint({since.findall(t)[0] for t in here})
    # What is kept is what was sent.
    assert {m.text for m in SentMessage.select()} == here | there


def test_what_an_older_version_recorded_is_told_as_it_was(http: TestClient) -> None:
    lay(http)
    warm(http)
    act = Act.select().order_by(Act.id.desc()).get()
    for kept in (None, "no json", json.dumps({"template": "from a later version"})):
        Act.update(message=kept).where(Act.id == act.id).execute()
        told = http.get("/api/acts", headers=OF_THIS_DEVICE).json()[0]["summary"]
        assert told == "North set to 30.0 °C"


@pytest.fixture(scope="module")
def demo(demo_house: Path, tmp_path_factory: pytest.TempPathFactory) -> Path:
    return shutil.copytree(demo_house, tmp_path_factory.mktemp("demo") / "house") / DATABASE


def test_what_is_held_for_one_reader_is_not_told_to_another(demo: Path) -> None:
    with TestClient(create_app(demo, StoppedClock(NOW_S), demo=True)) as http:
        here = http.get("/api/today").text
        there = http.get("/api/today", headers=OF_THIS_DEVICE).text
        again = http.get("/api/today").text
    database.close()
    assert "°C" in here
    assert "°C" not in there
    assert "°F" in there
    assert again == here


def test_in_the_whole_demo_no_celsius_is_left(demo: Path) -> None:
    """Every answer of a furnished house, in °F."""
    with TestClient(create_app(demo, StoppedClock(NOW_S), demo=True)) as http:
        choose(http, "F")
        codes = [box["name"] for box in http.get("/api/today").json()["boxes"]]
        cabinets = [cabinet["name"] for cabinet in http.get("/api/cabinets").json()]
        paths = [
            "/api/today", "/api/round", "/api/acts", "/api/alarms", "/api/settings",
            "/api/methods", "/api/messengers/messages", "/api/hatch-watch", "/api/losses",
            "/api/findings", "/api/breeding", "/api/rules", "/api/readiness",
            *(f"/api/clutches/{code}" for code in codes),
            *(f"/api/cabinets/{name}" for name in cabinets),
        ]  # fmt: skip
        answers = {path: http.get(path) for path in paths}
    database.close()
    assert {path: a.status_code for path, a in answers.items() if a.status_code != 200} == {}
    assert [path for path, a in answers.items() if "°C" in a.text or "C°" in a.text] == []
    assert sum("°F" in a.text for a in answers.values()) >= 5
