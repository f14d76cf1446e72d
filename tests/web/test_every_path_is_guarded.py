"""Every operation of the API, by every role: what is new is shut until somebody opens it."""

import re
from functools import cache

import pytest
from fastapi import APIRouter
from fastapi.testclient import TestClient

from sandboa.core.people import Deed
from sandboa.web.places import ROUTERS
from sandboa.web.security.permissions import LOOK, RECORD, Permissions, Undeclared
from web.asking import description, lay
from web.test_people import ELSEWHERE, add, sign_in

#: Operations that only look, or compute and store nothing, though they are no GET.
LOOKS = {
    ("POST", "/api/bench/forecast"),
    ("POST", "/api/bench/mix"),
    ("POST", "/api/bench/depth"),
    ("POST", "/api/bench/top-up"),
    ("POST", "/api/readings/files/preview"),
    ("POST", "/api/old-records/files/read"),
    ("POST", "/api/old-records/check"),
    # Everybody's own session and calendar link.
    ("POST", "/api/session"),
    ("DELETE", "/api/session"),
    ("PUT", "/api/session/passphrase"),
    ("PUT", "/api/session/preferences"),
    # Everybody's own practice, which is no part of the house.
    ("DELETE", "/api/practice"),
    ("POST", "/api/practice/looks"),
    ("POST", "/api/practice/seasons"),
    ("POST", "/api/practice/seasons/{id}/deeds"),
    ("POST", "/api/practice/seasons/{id}/days"),
    ("DELETE", "/api/practice/looks/{id}"),
    ("POST", "/api/practice/looks/{id}/eggs/{egg}/judgement"),
    ("DELETE", "/api/sessions"),
    ("DELETE", "/api/sessions/{key}"),
    ("POST", "/api/calendar/link"),
    ("DELETE", "/api/calendar/link"),
}
#: Operations that a keeper alone may ask for.
RUNS = {
    ("GET", "/api/people"),
    ("POST", "/api/people"),
    ("PUT", "/api/people/{person}"),
    ("DELETE", "/api/people/{person}"),
    ("PUT", "/api/people/{person}/passphrase"),
    ("DELETE", "/api/people/{person}/sessions"),
    ("GET", "/api/house"),
    ("GET", "/api/house/package"),
    ("POST", "/api/house/package"),
    ("GET", "/api/house/backups"),
    ("POST", "/api/house/backups"),
    ("PUT", "/api/house/backups/folder"),
    ("GET", "/api/house/copies"),
    ("GET", "/api/house/restore"),
    ("POST", "/api/house/restore"),
    ("GET", "/api/house/security"),
    ("GET", "/api/house/log"),
    ("POST", "/api/house/acceptance"),
    ("PUT", "/api/settings/{name}"),
    ("POST", "/api/methods"),
    ("PUT", "/api/methods/{method}"),
    ("DELETE", "/api/methods/{method}"),
    ("POST", "/api/devices"),
    ("POST", "/api/devices/{device}/token"),
    ("DELETE", "/api/devices/{device}"),
    ("POST", "/api/messengers"),
    ("POST", "/api/messengers/push-key"),
    ("PUT", "/api/messengers/{messenger}"),
    ("DELETE", "/api/messengers/{messenger}"),
    ("POST", "/api/messengers/{messenger}/trial"),
}
#: Answered without anybody signed in: signing in, and a device with its own token.
FREE = {
    ("GET", "/api/session"),
    ("POST", "/api/session"),
    ("DELETE", "/api/session"),
    ("POST", "/api/readings"),
    # For sensors that can ask for an address and no more; with a device's token all the same.
    ("GET", "/api/readings"),
    # What looks after services is told that the house stands, and nothing in it.
    ("GET", "/healthz"),
}


def described() -> dict[str, dict[str, dict[str, object]]]:
    return description()["paths"]


@cache
def operations() -> list[tuple[str, str]]:
    paths = described()
    return [(method.upper(), path) for path, methods in paths.items() for method in methods]


def filled(path: str) -> str:
    """The path with something in each of its places."""
    return re.sub(r"\{[^}]+\}", "1", path)


def expected(method: str, path: str) -> Deed:
    if (method, path) in RUNS:
        return Deed.RUN
    if method == "GET" or (method, path) in LOOKS:
        return Deed.LOOK
    return Deed.RECORD


def test_the_lists_name_operations_that_exist() -> None:
    assert set(operations()) >= LOOKS | RUNS | FREE
    assert len(operations()) > 100


@pytest.mark.parametrize(("method", "path"), operations())
def test_what_an_operation_does_is_declared(method: str, path: str) -> None:
    deed = None if (method, path) in FREE else expected(method, path)
    scope = {"type": "http", "method": method, "path": filled(path), "headers": []}
    assert Permissions(ROUTERS).deed(scope) is deed
    # The description says the same; on the machine of a house without people nothing is asked.
    security = described()[path][method.lower()].get("security", [])
    if deed is None:
        assert security in ([], [{"device": []}])
    else:
        assert security == [{"session": [deed.value]}, {}]


def test_a_route_that_declares_nothing_keeps_the_application_from_starting() -> None:
    for declared in ([], [LOOK, RECORD]):
        router = APIRouter()
        router.get("/api/new", dependencies=declared)(lambda: None)
        with pytest.raises(Undeclared, match="/api/new"):
            Permissions([router])


@pytest.fixture
def doors(http: TestClient) -> dict[str, TestClient]:
    """A browser for each role, and one with nobody signed in."""
    add(http, "Rowan", "keeper")
    sign_in(http, "Rowan")
    lay(http, code="26-01")
    add(http, "Linden", "helper")
    add(http, "Aspen", "visitor")
    browsers = {role: TestClient(http.app, client=ELSEWHERE) for role in ("helper", "visitor")}
    sign_in(browsers["helper"], "Linden")
    sign_in(browsers["visitor"], "Aspen")
    return {"nobody": TestClient(http.app, client=ELSEWHERE), **browsers}


def test_nobody_gets_past_the_door_of_any_operation(doors: dict[str, TestClient]) -> None:
    for method, path in operations():
        if (method, path) in FREE:
            continue
        answer = doors["nobody"].request(method, filled(path), json={})
        assert answer.status_code == 401, (method, path)
        assert answer.json()["detail"] == "Sign in first; nothing was stored."


def test_each_role_is_refused_what_is_not_its_own(doors: dict[str, TestClient]) -> None:
    refused = {"helper": {Deed.RUN}, "visitor": {Deed.RUN, Deed.RECORD}}
    for role, deeds in refused.items():
        before = doors[role].get("/api/acts").json()
        for method, path in operations():
            if expected(method, path) in deeds and (method, path) not in FREE:
                answer = doors[role].request(method, filled(path), json={})
                assert answer.status_code == 403, (role, method, path)
        assert doors[role].get("/api/acts").json() == before


def test_a_visitor_sees_every_page_of_the_house(doors: dict[str, TestClient]) -> None:
    for method, path in operations():
        if method != "GET" or (method, path) in FREE or "live" in path:
            continue
        if expected(method, path) is Deed.RUN:
            continue
        answer = doors["visitor"].get(filled(path))
        # Not there, or asked for wrongly; but never for want of a right.
        assert answer.status_code not in (401, 403, 500), (path, answer.text)


@pytest.mark.parametrize(
    "path", ["//api/people", "/api//people", "/API/people", "/api/people/", "/api/../api/people"]
)
def test_no_other_spelling_leads_around_the_door(doors: dict[str, TestClient], path: str) -> None:
    answer = doors["nobody"].get(path, follow_redirects=False)
    assert "Rowan" not in answer.text
    assert answer.status_code != 200 or answer.headers["content-type"].startswith("text/html")
