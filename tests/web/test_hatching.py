"""Pips and the end of a clutch over HTTP, what they teach, and undoing them."""

from datetime import timedelta

import pytest
from fastapi.testclient import TestClient

from samples import NOW
from sandboa.web.watching import look_round
from web.asking import lay, problem

ROUND = "/api/clutches/26-01"


@pytest.fixture
def due(http: TestClient) -> TestClient:
    """A clutch of four eggs and a slug in its last days."""
    lay(http, laid_at=(NOW - timedelta(days=58)).isoformat())
    return http


def hours_ago(hours: float) -> dict[str, str]:
    return {"at": (NOW - timedelta(hours=hours)).isoformat()}


def eggs(http: TestClient) -> dict[int, str | None]:
    return {egg["number"]: egg["pipped_at"] for egg in http.get(ROUND).json()["eggs"]}


def test_a_pip_moves_the_forecast_of_the_others_and_is_undone(due: TestClient) -> None:
    before = due.get(ROUND).json()["forecast"]
    assert before["next_pip"] is None
    seen = due.post(f"{ROUND}/eggs/2/pip", json=hours_ago(3))
    assert seen.status_code == 201, seen.text
    assert seen.json()["summary"] == "Egg 2 pipped"
    assert eggs(due)[2] is not None
    told = due.get(ROUND).json()["forecast"]
    assert told["next_pip"]["p10"] >= told["as_of"]
    assert told["last_pip"]["p90"] < before["last_pip"]["p90"]
    due.post(f"/api/acts/{seen.json()['id']}/undo").raise_for_status()
    assert eggs(due)[2] is None
    assert due.get(ROUND).json()["forecast"] == before


def test_a_pip_without_a_time_is_of_now(due: TestClient) -> None:
    due.post(f"{ROUND}/eggs/1/pip", json={}).raise_for_status()
    assert eggs(due)[1].startswith(NOW.strftime("%Y-%m-%dT%H:%M"))


@pytest.mark.parametrize(
    ("egg", "body", "status", "words"),
    [
        (5, {}, 422, "slug"),
        (9, {}, 404, "egg 9"),
        (1, {"at": (NOW + timedelta(days=1)).isoformat()}, 422, "future"),
        (1, {"at": (NOW - timedelta(days=70)).isoformat()}, 422, "before clutch"),
        (1, {"at": "yesterday"}, 422, "at"),
        (1, {"at": "2026-06-14T18:00:00"}, 422, "offset"),
        (1, {"colour": "red"}, 422, "colour"),
    ],
)
def test_pips_that_cannot_be_change_nothing(due: TestClient, egg, body, status, words) -> None:
    told = problem(due.post(f"{ROUND}/eggs/{egg}/pip", json=body), status)
    assert words in str(told)
    assert set(eggs(due).values()) == {None}


def test_a_second_pip_of_an_egg_is_a_conflict_that_says_the_way_out(due: TestClient) -> None:
    due.post(f"{ROUND}/eggs/1/pip", json=hours_ago(5)).raise_for_status()
    told = problem(due.post(f"{ROUND}/eggs/1/pip", json=hours_ago(1)), 409)
    assert "undo that" in told["detail"]


def test_a_clutch_that_is_done_leaves_today_and_is_scored(due: TestClient) -> None:
    look_round(due.app.state.house)
    for number in range(1, 5):
        due.post(f"{ROUND}/eggs/{number}/pip", json=hours_ago(10 + number)).raise_for_status()
    assert due.get("/api/forecast-scores").json() == []
    done = due.post(f"{ROUND}/finished", json={})
    assert done.status_code == 201, done.text
    assert due.get("/api/today").json()["clutches"] == []
    problem(due.post(f"{ROUND}/finished", json={}), 409)
    look_round(due.app.state.house)
    scores = due.get("/api/forecast-scores").json()
    assert [s["day"] for s in scores] == [0, 30, 50]
    assert all(s["clutches"] == 1 and s["error_days"] < 4.0 for s in scores)
    # Undone, it is under way again and teaches nothing.
    due.post(f"/api/acts/{done.json()['id']}/undo").raise_for_status()
    assert [c["code"] for c in due.get("/api/today").json()["clutches"]] == ["26-01"]
    assert due.get("/api/forecast-scores").json() == []


def test_an_unknown_clutch(http: TestClient) -> None:
    problem(http.post("/api/clutches/26-99/eggs/1/pip", json={}), 404)
    problem(http.post("/api/clutches/26-99/finished", json={}), 404)
