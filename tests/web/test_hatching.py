"""Pips and the end of a clutch over HTTP, what they teach, and undoing them."""

from datetime import timedelta

import pytest
from fastapi.testclient import TestClient

from samples import NOW
from sandboa.web.background.alarm_monitor import look_round
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


def test_a_pip_that_cannot_be_asks_in_both_places_until_it_is_said_to_be_right(
    http: TestClient,
) -> None:
    lay(http, laid_at=(NOW - timedelta(days=44)).isoformat())
    http.post(f"{ROUND}/eggs/1/pip", json={}).raise_for_status()
    question = http.get(ROUND).json()["impossible_pip"]
    assert question == http.get(f"{ROUND}/hatch").json()["impossible_pip"]
    assert question["days"] == pytest.approx(14.8, abs=0.2)
    assert "a probe that reads 4.2\u00a0°C too low: which of them is wrong?" in question["question"]
    american = http.get(ROUND, headers={"Sandboa-Unit": "F"}).json()["impossible_pip"]
    assert "7.6\u00a0°F" in american["question"]
    http.post(f"{ROUND}/pip-is-right").raise_for_status()
    assert http.get(ROUND).json()["impossible_pip"] is None
    assert problem(http.post("/api/clutches/26-77/pip-is-right"), 404)


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
    told = problem(due.post(f"{ROUND}/finished", json={}), 409)
    assert told["detail"] == "Say first what became of eggs 1, 2, 3, 4"
    for number in range(1, 5):
        due.post(f"{ROUND}/eggs/{number}/emergence", json={}).raise_for_status()
    done = due.post(f"{ROUND}/finished", json={})
    assert done.status_code == 201, done.text
    assert due.get("/api/today").json()["boxes"] == []
    problem(due.post(f"{ROUND}/finished", json={}), 409)
    look_round(due.app.state.house)
    scores = due.get("/api/forecast-scores").json()
    assert [s["day"] for s in scores] == [0, 30, 50]
    assert all(s["clutches"] == 1 and s["error_days"] < 4.0 for s in scores)
    # Undone, it is under way again and teaches nothing.
    due.post(f"/api/acts/{done.json()['id']}/undo").raise_for_status()
    assert [b["name"] for b in due.get("/api/today").json()["boxes"]] == ["26-01"]
    assert due.get("/api/forecast-scores").json() == []


def test_a_clutch_is_watched_from_pip_to_first_meals(due: TestClient) -> None:
    assert due.get("/api/hatch-watch").json()["clutches"][0]["code"] == "26-01"
    due.post(f"{ROUND}/eggs/1/pip", json=hours_ago(60)).raise_for_status()
    due.post(f"{ROUND}/eggs/2/pip", json=hours_ago(50)).raise_for_status()
    due.post(f"{ROUND}/eggs/1/emergence", json=hours_ago(20)).raise_for_status()
    due.post(f"{ROUND}/eggs/2/emergence", json=hours_ago(10)).raise_for_status()
    due.post(f"{ROUND}/eggs/4/cut", json={"reason": "rescue", "bled": True}).raise_for_status()
    (clutch,) = due.get("/api/hatch-watch").json()["clutches"]
    told = {e["egg"]["number"]: e for e in clutch["eggs"]}
    assert clutch["closed"] == [3, 4]
    assert clutch["to_say"] == [3, 4]
    assert told[1]["fate"] == "hatched alive"
    assert told[5]["fate"] == "slug"
    assert told[3]["advice"]["kind"] == "consider a window"
    assert "eggs 1, 2 are out" in told[3]["advice"]["reason"].lower()
    assert told[4]["egg"]["cut_at"] is not None
    saved = due.put(
        f"{ROUND}/eggs/1/hatchling",
        json={
            "mass_g": 61.5, "sex": "female", "yolk": "absorbed", "defects": ["kink"],
            "traits": [{"name": "Puzzle", "form": "one copy"}],
        },
    )  # fmt: skip
    assert saved.status_code == 200, saved.text
    (hatchling,) = hatchlings(due, 1)
    assert hatchling["weights"][0]["mass_g"] == 61.5
    assert hatchling["traits"] == [{"name": "Puzzle", "form": "one copy"}]
    assert hatchling["shed_window"]["p10"] > hatchling["weights"][0]["at"]
    path = f"/api/hatchlings/{hatchling['id']}"
    due.post(f"{path}/shed", json={}).raise_for_status()
    assert hatchlings(due, 1)[0]["meal_window"] is not None
    due.post(f"{path}/meals", json={"taken": True, "prey": "rat pup"}).raise_for_status()
    due.post(f"{path}/weights", json={"mass_g": 60}).raise_for_status()
    (hatchling,) = hatchlings(due, 1)
    assert hatchling["meal_window"] is None
    assert [m["prey"] for m in hatchling["meals"]] == ["rat pup"]
    assert not hatchling["settled"]


def hatchlings(http: TestClient, number: int) -> list[dict]:
    eggs = http.get(f"{ROUND}/hatch").json()["eggs"]
    return next(e["hatchlings"] for e in eggs if e["egg"]["number"] == number)


def test_twins_are_allowed_with_a_word(due: TestClient) -> None:
    due.post(f"{ROUND}/eggs/1/emergence", json={}).raise_for_status()
    path = f"{ROUND}/eggs/1/hatchling"
    assert "first hatchling" in problem(due.put(path, json={"part": 2}), 422)["detail"]
    due.put(path, json={"mass_g": 30}).raise_for_status()
    asked = problem(due.put(path, json={"part": 2, "mass_g": 28}), 409)
    assert asked["confirm"] == "twins"
    due.put(path, json={"part": 2, "mass_g": 28, "twins": True}).raise_for_status()
    assert [h["name"] for h in hatchlings(due, 1)] == ["Hatchling 1", "Hatchling 1b"]
    problem(due.put(path, json={"part": 3, "twins": True}), 422)


def test_fates_are_told_before_closing_and_changed_after_reopening(due: TestClient) -> None:
    fates = f"{ROUND}/fates"
    dead = {"number": 1, "fate": "dead in egg", "stage": "late"}
    told = problem(due.post(fates, json={"fates": [{**dead, "fate": "removed"}]}), 422)
    assert "stage goes with dead in egg" in str(told)
    rest = [{"number": n, "fate": "unknown"} for n in (2, 3, 4)]
    due.post(fates, json={"fates": [dead, *rest]}).raise_for_status()
    due.post(f"{ROUND}/finished", json={}).raise_for_status()
    assert "reopen" in problem(due.post(fates, json={"fates": rest}), 409)["detail"]
    due.delete(f"{ROUND}/finished").raise_for_status()
    problem(due.delete(f"{ROUND}/finished"), 409)
    changed = [{"number": 1, "fate": "pipped and died"}]
    due.post(fates, json={"fates": changed}).raise_for_status()
    eggs = due.get(f"{ROUND}/hatch").json()["eggs"]
    assert eggs[0]["fate"] == "pipped and died"
    assert eggs[0]["declared"]


def test_the_last_week_is_prepared_line_by_line(due: TestClient) -> None:
    lines = due.get(f"{ROUND}/hatch").json()["preparations"]
    assert [line["task"] for line in lines] == ["tubs", "tools"]
    due.post(f"{ROUND}/last-week", json={"task": "tubs", "done": True}).raise_for_status()
    assert due.get(f"{ROUND}/hatch").json()["preparations"][0]["done_at"] is not None
    problem(due.post(f"{ROUND}/last-week", json={"task": "tools", "done": False}), 422)


def test_an_unknown_clutch(http: TestClient) -> None:
    problem(http.post("/api/clutches/26-99/eggs/1/pip", json={}), 404)
    problem(http.post("/api/clutches/26-99/finished", json={}), 404)
