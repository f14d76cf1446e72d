"""People, signing in, and what each role may do, over HTTP."""

import sqlite3
import subprocess
import sys
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from pathlib import Path

import pytest
from argon2 import extract_parameters
from fastapi import Request
from fastapi.testclient import TestClient

from samples import DAY_S
from sandboa.cli.house_folder import DATABASE
from sandboa.records.database import database
from sandboa.records.people import Passphrase, Session
from sandboa.services.people.signing_in import SESSION_DAYS
from sandboa.web.app import create_app
from sandboa.web.clock import StoppedClock
from sandboa.web.house import Reach
from sandboa.web.security.authorization import is_elsewhere, still_admitted
from sandboa.web.security.permissions import COOKIE
from web.asking import lay, problem

PHRASES = {
    "Rowan": "beeswax ladder harbour mint",
    "Linden": "copper window seven geese",
    "Aspen": "slow train paper lantern",
}
ELSEWHERE = ("192.0.2.9", 50_000)


def add(http: TestClient, name: str, role: str) -> int:
    act = http.post("/api/people", json={"name": name, "role": role})
    assert act.status_code == 201, act.text
    person = next(p["id"] for p in http.get("/api/people").json() if p["name"] == name)
    answer = http.put(f"/api/people/{person}/passphrase", json={"passphrase": PHRASES[name]})
    assert answer.status_code == 204, answer.text
    return int(person)


def sign_in(http: TestClient, name: str, phrase: str | None = None) -> None:
    said = {"name": name, "passphrase": phrase or PHRASES[name]}
    answer = http.post("/api/session", json=said)
    assert answer.status_code == 204, answer.text


@pytest.fixture
def manned(http: TestClient) -> TestClient:
    """A house with a keeper, a helper and a visitor; the keeper is signed in."""
    add(http, "Rowan", "keeper")
    sign_in(http, "Rowan")
    add(http, "Linden", "helper")
    add(http, "Aspen", "visitor")
    return http


@pytest.fixture
def others(manned: TestClient) -> TestClient:
    """Another browser at the same house, nobody signed in."""
    return TestClient(manned.app, client=ELSEWHERE)


def test_without_people_the_machine_itself_needs_no_passphrase(http: TestClient) -> None:
    told = http.get("/api/session").json()
    assert (told["sign_in"], told["name"]) == (False, None)
    lay(http)
    assert http.get("/api/acts").json()[0]["by"] is None


def test_without_a_passphrase_nobody_gets_in_from_elsewhere(http: TestClient) -> None:
    elsewhere = TestClient(http.app, client=ELSEWHERE)
    for path in ("/api/today", "/api/session", "/api/people", "/api/openapi.json"):
        assert "a keeper has a passphrase" in problem(elsewhere.get(path), 403)["detail"]
    problem(elsewhere.post("/api/people", json={"name": "Rowan", "role": "keeper"}), 403)
    assert http.get("/api/people").json() == []


@pytest.mark.parametrize("header", ["X-Forwarded-For", "Forwarded", "X-Real-IP", "Via"])
def test_what_a_proxy_hands_on_from_elsewhere_comes_from_elsewhere(
    http: TestClient, header: str
) -> None:
    """A reverse proxy on this machine asks from here; whom it asks for may be anybody."""
    for path in ("/api/today", "/api/session"):
        assert http.get(path).status_code == 200
        told = problem(http.get(path, headers={header: "192.0.2.9"}), 403)
        assert "a keeper has a passphrase" in told["detail"]


def test_http_1_0_is_a_proxys_and_no_browsers() -> None:
    scope = {"type": "http", "headers": [], "client": ("127.0.0.1", 50_000)}
    assert not is_elsewhere(Request({**scope, "http_version": "1.1"}))
    assert is_elsewhere(Request({**scope, "http_version": "1.0"}))


def test_the_first_passphrase_is_a_keepers(http: TestClient) -> None:
    http.post("/api/people", json={"name": "Linden", "role": "helper"})
    person = http.get("/api/people").json()[0]["id"]
    answer = http.put(f"/api/people/{person}/passphrase", json={"passphrase": PHRASES["Linden"]})
    assert "keeper's" in problem(answer, 409)["detail"]
    assert http.get("/api/session").json()["sign_in"] is False


def test_with_people_everybody_signs_in_here_too(manned: TestClient, others: TestClient) -> None:
    for client in (others, TestClient(manned.app)):
        problem(client.get("/api/today"), 401)
        problem(client.post("/api/clutches", json={}), 401)
    assert others.get("/api/session").json()["sign_in"] is True
    assert others.get("/api/alive").status_code == 200


@pytest.mark.parametrize(
    ("name", "phrase"), [("Rowan", "not the right one"), ("Nobody", PHRASES["Rowan"])]
)
def test_an_unknown_name_is_answered_like_a_wrong_passphrase(
    others: TestClient, name: str, phrase: str
) -> None:
    answer = others.post("/api/session", json={"name": name, "passphrase": phrase})
    assert problem(answer, 401)["detail"] == "Name and passphrase do not fit"
    assert "set-cookie" not in answer.headers


def test_every_fact_knows_who_recorded_it(manned: TestClient, others: TestClient) -> None:
    lay(manned, code="26-01")
    sign_in(others, "Linden")
    lay(others, code="26-02", dam="Tansy")
    assert [line["by"] for line in manned.get("/api/acts").json()][:2] == ["Linden", "Rowan"]
    # Undone, it is told who undid it; removed, a person's name stays at what they did.
    undo = manned.get("/api/acts").json()[0]["act"]
    assert manned.post(f"/api/acts/{undo}/undo").status_code == 200
    person = next(p for p in manned.get("/api/people").json() if p["name"] == "Linden")
    assert manned.delete(f"/api/people/{person['id']}").status_code == 200
    lines = manned.get("/api/acts").json()
    assert [line["by"] for line in lines][:3] == ["Rowan", "Rowan", "Linden"]
    problem(others.get("/api/today"), 401)


def test_a_helper_records_and_does_not_run_the_house(
    manned: TestClient, others: TestClient
) -> None:
    sign_in(others, "Linden")
    lay(others)
    for method, path in (
        ("GET", "/api/people"),
        ("POST", "/api/people"),
        ("PUT", "/api/settings/water.weigh_from"),
        ("POST", "/api/devices"),
        ("POST", "/api/messengers"),
        ("DELETE", "/api/messengers/1"),
        ("POST", "/api/methods"),
    ):
        told = problem(others.request(method, path, json={}), 403)
        assert "only a keeper" in told["detail"].lower(), path
    # What only a keeper may do only a keeper takes back.
    about_people = next(
        line["act"] for line in manned.get("/api/acts").json() if line["kind"] == "person"
    )
    problem(others.post(f"/api/acts/{about_people}/undo"), 403)


def test_a_visitor_looks_and_leaves_no_trace(manned: TestClient, others: TestClient) -> None:
    lay(manned, code="26-01")
    before = len(manned.get("/api/acts").json())
    sign_in(others, "Aspen")
    for path in ("/api/today", "/api/clutches/26-01", "/api/settings", "/api/acts"):
        assert others.get(path).status_code == 200, path
    for method, path in (
        ("POST", "/api/clutches"),
        ("POST", "/api/visits"),
        ("DELETE", "/api/clutches/26-01/finished"),
        ("POST", f"/api/acts/{manned.get('/api/acts').json()[0]['act']}/undo"),
        ("GET", "/api/people"),
    ):
        problem(others.request(method, path, json={}), 403)
    assert len(manned.get("/api/acts").json()) == before


def test_signing_out_everywhere_ends_every_browser(manned: TestClient) -> None:
    other = TestClient(manned.app, client=ELSEWHERE)
    sign_in(other, "Rowan")
    assert other.get("/api/today").status_code == 200
    assert manned.delete("/api/sessions").status_code == 204
    problem(other.get("/api/today"), 401)
    problem(manned.get("/api/today"), 401)


def test_an_answer_that_goes_on_ends_for_who_was_signed_out(manned: TestClient) -> None:
    """The stream of alarms asks again before each thing it tells."""
    scope = {
        "type": "http",
        "method": "GET",
        "path": "/api/live",
        "query_string": b"",
        "headers": [(b"cookie", f"{COOKIE}={manned.cookies[COOKIE]}".encode())],
        "client": ELSEWHERE,
        "app": manned.app,
    }
    assert still_admitted(Request(scope))
    assert not still_admitted(Request({**scope, "headers": []}))
    manned.delete("/api/sessions")
    assert not still_admitted(Request(scope))


def test_a_keeper_signs_somebody_else_out(manned: TestClient, others: TestClient) -> None:
    sign_in(others, "Linden")
    person = next(p for p in manned.get("/api/people").json() if p["name"] == "Linden")
    assert person["sessions"] == 1
    assert manned.delete(f"/api/people/{person['id']}/sessions").status_code == 204
    problem(others.get("/api/today"), 401)
    assert manned.get("/api/today").status_code == 200


def test_a_new_passphrase_ends_the_sessions_of_the_old_one(
    manned: TestClient, others: TestClient
) -> None:
    sign_in(others, "Linden")
    asked = {"before": "something else entirely", "passphrase": "three quiet yellow boats"}
    problem(others.put("/api/session/passphrase", json=asked), 401)
    asked["before"] = PHRASES["Linden"]
    assert others.put("/api/session/passphrase", json=asked).status_code == 204
    problem(others.get("/api/today"), 401)
    sign_in(others, "Linden", "three quiet yellow boats")


def test_a_session_unused_for_a_season_is_over(
    manned: TestClient, others: TestClient, clock: StoppedClock
) -> None:
    sign_in(others, "Aspen")
    clock.at_s += (SESSION_DAYS - 1) * DAY_S
    assert others.get("/api/today").status_code == 200
    # It was used: the days begin anew.
    clock.at_s += (SESSION_DAYS - 1) * DAY_S
    assert others.get("/api/today").status_code == 200
    clock.at_s += (SESSION_DAYS + 1) * DAY_S
    problem(others.get("/api/today"), 401)


def test_guesses_are_slowed_and_other_addresses_are_not(
    manned: TestClient, others: TestClient
) -> None:
    wrong = {"name": "Rowan", "passphrase": "not the right one"}
    for _ in range(10):
        problem(others.post("/api/session", json=wrong), 401)
    answer = others.post("/api/session", json={"name": "Rowan", "passphrase": PHRASES["Rowan"]})
    assert "too many tries" in problem(answer, 429)["detail"].lower()
    assert 200 < int(answer.headers["retry-after"]) <= 300
    sign_in(TestClient(manned.app, client=("192.0.2.10", 1)), "Rowan")


def test_somebody_always_stays_keeper(manned: TestClient) -> None:
    rowan = next(p["id"] for p in manned.get("/api/people").json() if p["name"] == "Rowan")
    problem(manned.delete(f"/api/people/{rowan}"), 409)
    problem(manned.put(f"/api/people/{rowan}", json={"name": "Rowan", "role": "helper"}), 409)
    added = next(
        line["act"] for line in manned.get("/api/acts").json() if "Rowan" in line["summary"]
    )
    problem(manned.post(f"/api/acts/{added}/undo"), 409)
    assert manned.get("/api/people").status_code == 200


def test_what_lets_people_in_is_not_kept_in_the_clear(manned: TestClient) -> None:
    kept = [row.hash for row in Passphrase.select()]
    assert len(kept) == 3
    assert all(text.startswith("$argon2id$") for text in kept)
    token = manned.cookies["sandboa_session"]
    assert token not in [row.token_hash for row in Session.select()]


def test_a_passphrase_costs_a_guesser_what_is_recommended(tmp_path: Path) -> None:
    """By the real command, in a process of its own: in this one hashes cost little."""
    command = [sys.executable, "-m", "sandboa", "people", "Rowan", "--stdin"]
    said = f"{PHRASES['Rowan']}\n"
    subprocess.run([*command, "--data", str(tmp_path)], input=said, text=True, check=True)
    with closing(sqlite3.connect(tmp_path / DATABASE)) as house:
        ((kept,),) = house.execute("SELECT hash FROM passphrase").fetchall()
    costs = extract_parameters(kept)
    assert (costs.memory_cost, costs.time_cost) >= (64 * 1024, 3)


def test_the_cookie_is_for_this_site_and_no_script(manned: TestClient, others: TestClient) -> None:
    answer = others.post("/api/session", json={"name": "Aspen", "passphrase": PHRASES["Aspen"]})
    cookie = answer.headers["set-cookie"].lower()
    assert "httponly" in cookie
    assert "samesite=strict" in cookie
    assert "secure" not in cookie
    safe = TestClient(manned.app, base_url="https://localhost")
    answer = safe.post("/api/session", json={"name": "Aspen", "passphrase": PHRASES["Aspen"]})
    assert "secure" in answer.headers["set-cookie"].lower()


def test_devices_go_on_with_their_own_token(manned: TestClient, others: TestClient) -> None:
    made = manned.post("/api/devices", json={"name": "Logger"}).json()
    answer = others.post("/api/readings", json={"readings": []}, headers={"authorization": "no"})
    assert "token" in problem(answer, 401)["detail"]
    answer = others.post(
        "/api/readings", json={"readings": []}, headers={"authorization": f"Bearer {made['token']}"}
    )
    assert answer.status_code != 401


def test_a_house_open_to_others_is_reached_by_its_address(
    tmp_path: Path, clock: StoppedClock
) -> None:
    app = create_app(tmp_path / "open.sqlite3", clock, reach=Reach("http://192.0.2.2:8350"))
    with TestClient(app) as http:
        for host, status in (
            ("192.0.2.2:8350", 200), ("192.0.2.77", 200), ("[::1]:8350", 200),
            ("someone-elses.example", 400), ("localhost.example", 400), ("", 400),
        ):  # fmt: skip
            answer = http.get("/api/session", headers={"host": host})
            assert answer.status_code == status, host
        lay(http, code="26-01")
        here = http.get("/api/clutches/26-01/qr.svg").content
        there = http.get("/api/clutches/26-01/qr.svg", headers={"host": "192.0.2.2:8350"}).content
        # Printed at the machine itself, the code still leads a phone to the house.
        assert here == there
    database.close()


def test_alone_it_answers_to_no_other_name(http: TestClient) -> None:
    for host in ("192.0.2.2", "someone-elses.example"):
        problem(http.get("/api/session", headers={"host": host}), 400)


def test_two_at_once_are_not_taken_for_each_other(manned: TestClient) -> None:
    """Who asks belongs to the request, whichever thread carries it out."""
    dams = {"Rowan": "Sorrel", "Linden": "Tansy"}
    browsers = {name: TestClient(manned.app, client=ELSEWHERE) for name in dams}
    for name, browser in browsers.items():
        sign_in(browser, name)
        said = {"role": "dam", "name": dams[name]}
        assert browser.post("/api/animals", json=said).status_code == 201
    ids = {a["name"]: a["id"] for a in manned.get("/api/animals").json()}

    def feed(name: str) -> None:
        path = f"/api/animals/{ids[dams[name]]}/meals"
        for _ in range(12):
            answer = browsers[name].post(path, json={"prey": "rat", "mass_g": 80, "taken": True})
            assert answer.status_code in (200, 201), answer.text

    with ThreadPoolExecutor(2) as pool:
        list(pool.map(feed, dams))
    meals = [line for line in manned.get("/api/acts").json() if line["kind"] == "meal"]
    assert len(meals) == 24
    assert all(dams[line["by"]] in line["summary"] for line in meals)
