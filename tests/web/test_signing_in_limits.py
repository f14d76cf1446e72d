"""Guessing is slow, whoever guesses; a keeper's own device is never shut out; sessions end."""

from concurrent.futures import ThreadPoolExecutor
from threading import BoundedSemaphore

import pytest
from fastapi.testclient import TestClient

from samples import DAY_S, NOW_S
from sandboa.services.people import signing_in
from sandboa.services.people.signing_in import LONGEST_SESSION_DAYS, SESSION_DAYS
from sandboa.web.clock import StoppedClock
from sandboa.web.security.sign_in_attempts import Attempts, TooManyTries, Try
from web.asking import problem
from web.test_people import ELSEWHERE, PHRASES, add, sign_in

WRONG = "not the passphrase"


@pytest.fixture
def manned(http: TestClient) -> TestClient:
    """A house with a keeper, signed in, and a visitor."""
    add(http, "Rowan", "keeper")
    sign_in(http, "Rowan")
    add(http, "Aspen", "visitor")
    return http


def elsewhere(http: TestClient, address: str = ELSEWHERE[0]) -> TestClient:
    return TestClient(http.app, client=(address, 50_000))


def guess(http: TestClient, name: str = "Rowan", times: int = 1) -> list[int]:
    said = {"name": name, "passphrase": WRONG}
    return [http.post("/api/session", json=said).status_code for _ in range(times)]


def test_spaces_and_capitals_make_no_other_name(manned: TestClient) -> None:
    answers = [
        guess(elsewhere(manned, f"192.0.2.{number}"), name)[0]
        for number, name in enumerate([" rowan", "ROWAN ", "Ro wan", "rowan", "  Rowan  "] * 10)
    ]
    # "Ro wan" is somebody else; the others are forty tries at one person.
    assert answers.count(429) > 0
    assert guess(elsewhere(manned, "198.51.100.1"), "\trowan\n")[0] == 429


def test_coming_in_oneself_frees_no_guesses_at_somebody_else(manned: TestClient) -> None:
    visitor = elsewhere(manned)
    for _ in range(5):
        assert guess(visitor, times=2)[0] in (401, 429)
        visitor.cookies.clear()
        visitor.post("/api/session", json={"name": "Aspen", "passphrase": PHRASES["Aspen"]})
    assert guess(visitor) == [429]


def test_thirty_guesses_elsewhere_keep_no_keeper_from_their_own_phone(manned: TestClient) -> None:
    phone = elsewhere(manned, "198.51.100.7")
    sign_in(phone, "Rowan")
    assert phone.delete("/api/session").status_code == 204
    for number in range(6):
        guess(elsewhere(manned, f"192.0.2.{number}"), times=6)
    # From a device nobody knows that person is shut out for a while; from theirs they come in.
    said = {"name": "Rowan", "passphrase": PHRASES["Rowan"]}
    assert elsewhere(manned, "203.0.113.5").post("/api/session", json=said).status_code == 429
    assert phone.post("/api/session", json=said).status_code == 204


def test_a_known_device_is_known_for_one_person_and_its_own_tries_are_counted(
    manned: TestClient,
) -> None:
    phone = elsewhere(manned)
    sign_in(phone, "Aspen")
    assert guess(phone, "Aspen", 11)[-1] == 429
    # As somebody else it is any device.
    assert guess(phone, "Rowan", 11)[-1] == 429
    phone.cookies.set("sandboa_device", "forged")
    assert guess(phone, "Aspen") == [429]


def test_a_refused_try_counts_nothing_and_waiting_grows() -> None:
    attempts, asked = Attempts(), Try("192.0.2.1", "7")
    for _ in range(10):
        attempts.require(asked)
        attempts.count(asked)
    waits = []
    for _ in range(50):
        with pytest.raises(TooManyTries) as refused:
            attempts.require(asked)
        waits.append(refused.value.wait_s)
    assert max(waits) <= 300
    for _ in range(20):
        attempts.count(asked)
    with pytest.raises(TooManyTries, match="60 minutes") as refused:
        attempts.require(asked)
    assert refused.value.wait_s > 3_000


def test_a_household_of_ipv6_is_one_address() -> None:
    attempts = Attempts()
    for number in range(10):
        attempts.count(Try(f"2001:db8:1:2::{number}", str(number)))
    with pytest.raises(TooManyTries):
        attempts.require(Try("2001:db8:1:2:ffff::1", "new"))
    attempts.require(Try("2001:db8:1:3::1", "new"))


def test_what_a_stranger_says_of_where_it_comes_from_is_not_believed(manned: TestClient) -> None:
    forwarded = elsewhere(manned)
    answers = [
        forwarded.post(
            "/api/session",
            json={"name": f"nobody {number}", "passphrase": WRONG},
            headers={"X-Forwarded-For": f"192.0.2.{number}"},
        ).status_code
        for number in range(11)
    ]
    assert answers[-1] == 429


def test_many_at_once_are_hashed_two_at_a_time_and_the_rest_told_to_wait(
    manned: TestClient, monkeypatch
) -> None:
    monkeypatch.setattr(signing_in, "_queue", BoundedSemaphore(3))
    with ThreadPoolExecutor(12) as pool:
        answers = list(
            pool.map(lambda n: guess(elsewhere(manned, f"198.51.100.{n}"), f"x{n}")[0], range(12))
        )
    assert set(answers) <= {401, 429}
    assert answers.count(401) >= 3


def test_a_session_ends_after_half_a_year_however_much_it_is_used(
    manned: TestClient, clock: StoppedClock
) -> None:
    for day in range(0, LONGEST_SESSION_DAYS + 1, SESSION_DAYS - 1):
        clock.at_s = NOW_S + day * DAY_S
        assert manned.get("/api/today").status_code == 200
    clock.at_s = NOW_S + (LONGEST_SESSION_DAYS + 0.1) * DAY_S
    assert manned.get("/api/today").status_code == 401


def test_ones_own_sessions_are_listed_and_ended_one_by_one(manned: TestClient) -> None:
    phone = elsewhere(manned)
    phone.headers["user-agent"] = "a phone"
    sign_in(phone, "Rowan")
    listed = manned.get("/api/sessions").json()
    assert [s["here"] for s in listed].count(True) == 1
    (lost,) = [s for s in listed if s["device"] == "a phone"]
    visitor = elsewhere(manned, "198.51.100.3")
    sign_in(visitor, "Aspen")
    assert len(visitor.get("/api/sessions").json()) == 1
    assert problem(visitor.delete(f"/api/sessions/{lost['key']}"), 404)
    assert manned.delete(f"/api/sessions/{lost['key']}").status_code == 204
    assert phone.get("/api/today").status_code == 401
    assert manned.get("/api/today").status_code == 200


def test_signing_out_everywhere_ends_the_calendar_link_too(manned: TestClient) -> None:
    link = manned.post("/api/calendar/link").json()["link"]
    path = link.split("localhost", 1)[-1]
    assert elsewhere(manned).get(path).status_code == 200
    assert manned.delete("/api/sessions").status_code == 204
    assert elsewhere(manned).get(path).status_code == 401


def test_a_keeper_reads_who_came_in_and_what_keys_were_made(manned: TestClient) -> None:
    guess(elsewhere(manned))
    device = manned.post("/api/devices", json={"name": "Gateway"}).json()
    manned.post(f"/api/devices/{device['device']}/token")
    manned.get("/api/house/package")
    manned.post("/api/calendar/link")
    log = manned.get("/api/house/security").json()
    told = [(e["kind"], e["who"], e["text"]) for e in log]
    assert ("refused", "Rowan", "wrong passphrase") in told
    assert ("signed in", "Rowan", "signed in") in told
    assert ("token", "Rowan", "a token for Gateway") in told
    assert ("token", "Rowan", "another token for Gateway") in told
    assert ("exported", "Rowan", "the whole house was exported") in told
    assert ("link", "Rowan", "made a calendar link") in told
    assert next(e for e in log if e["kind"] == "refused")["address"] == ELSEWHERE[0]
    assert WRONG not in str(log)
    visitor = elsewhere(manned, "198.51.100.3")
    sign_in(visitor, "Aspen")
    assert visitor.get("/api/house/security").status_code == 403
