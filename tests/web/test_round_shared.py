"""A round that two people share: who opens which cabinet, told to both phones."""

import pytest
from fastapi.testclient import TestClient

from sandboa.web.rounds.shares import SHARED_FOR_S, RoundShares
from web.asking import lay, problem
from web.test_people import ELSEWHERE, add, sign_in

NORTH, SOUTH, ROWAN, LINDEN = 1, 2, 11, 12


@pytest.fixture
def two(http: TestClient) -> tuple[TestClient, TestClient]:
    """The phones of Rowan and Linden, both signed in; eggs stand in North."""
    lay(http)
    add(http, "Rowan", "keeper")
    sign_in(http, "Rowan")
    add(http, "Linden", "helper")
    linden = TestClient(http.app, client=ELSEWHERE)
    sign_in(linden, "Linden")
    return http, linden


def shares(phone: TestClient) -> list[dict]:
    return phone.get("/api/round/shares").json()["shares"]


def test_a_cabinet_taken_is_mine_here_and_somebodys_there(
    two: tuple[TestClient, TestClient],
) -> None:
    rowan, linden = two
    taken = rowan.post("/api/round/shares", json={"cabinet": "North", "mine": True})
    assert taken.status_code == 200
    assert taken.json()["possible"] is True
    assert shares(rowan) == [{"cabinet": "North", "name": "Rowan", "mine": True}]
    assert shares(linden) == [{"cabinet": "North", "name": "Rowan", "mine": False}]
    linden.post("/api/round/shares", json={"cabinet": "North", "mine": True})
    assert shares(rowan) == [{"cabinet": "North", "name": "Linden", "mine": False}]
    rowan.post("/api/round/shares", json={"cabinet": "North", "mine": False})
    assert shares(rowan) == shares(linden) == []


def test_what_cannot_be_shared_is_refused_in_words(two: tuple[TestClient, TestClient]) -> None:
    told = problem(two[0].post("/api/round/shares", json={"cabinet": "Attic", "mine": True}), 404)
    assert "no cabinet Attic" in told["detail"]


def test_a_visitor_sees_who_opens_what_and_is_not_asked_to(
    two: tuple[TestClient, TestClient],
) -> None:
    rowan, _ = two
    add(rowan, "Aspen", "visitor")
    rowan.post("/api/round/shares", json={"cabinet": "North", "mine": True})
    aspen = TestClient(rowan.app, client=ELSEWHERE)
    sign_in(aspen, "Aspen")
    told = aspen.get("/api/round/shares").json()
    assert told["possible"] is False
    assert [share["name"] for share in told["shares"]] == ["Rowan"]
    problem(aspen.post("/api/round/shares", json={"cabinet": "North", "mine": True}), 403)


def test_alone_in_the_house_nothing_is_shared(http: TestClient) -> None:
    lay(http)
    assert http.get("/api/round/shares").json() == {"possible": False, "shares": []}
    told = problem(http.post("/api/round/shares", json={"cabinet": "North", "mine": True}), 409)
    assert "add them in Settings" in told["detail"]


def test_a_share_ends_by_itself_and_with_who_held_it() -> None:
    held = RoundShares()
    held.take(NORTH, ROWAN, 1_000.0)
    held.take(SOUTH, LINDEN, 5_000.0)
    assert [s.cabinet for s in held.held(5_000.0, {ROWAN, LINDEN})] == [NORTH, SOUTH]
    assert [s.cabinet for s in held.held(1_000.0 + SHARED_FOR_S, {ROWAN, LINDEN})] == [SOUTH]
    assert held.held(5_000.0, {LINDEN})[0].person == LINDEN
    assert held.held(5_000.0, ()) == []


def test_only_what_changes_is_a_change() -> None:
    held = RoundShares()
    held.leave(NORTH)
    assert held.change == 0
    held.take(NORTH, ROWAN, 0.0)
    held.leave(NORTH)
    assert held.change == 2
