"""Practice through HTTP: nothing of a truth before it is told, and no bad input taken."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from web.asking import problem

SAID: dict[str, Any] = {"chance_percent": 80, "usual": True, "act": "leave", "candle_day": None}


def begin(http: TestClient, **asked: Any) -> dict[str, Any]:
    response = http.post("/api/practice/looks", json={"deck": "mixed", "seed": "4711", **asked})
    assert response.status_code == 201, response.text
    return response.json()


def judged(http: TestClient, look: dict[str, Any], egg: int, **said: Any) -> Any:
    path = f"/api/practice/looks/{look['id']}/eggs/{egg}/judgement"
    return http.post(path, json={**SAID, **said})


def test_a_session_is_judged_egg_by_egg_and_its_progress_is_told(http: TestClient) -> None:
    look = begin(http)
    for egg in range(1, 11):
        told = judged(http, look, egg, chance_percent=90).json()
        assert told["truth"]
        assert told["mistaken"] is not told["alive"]
        assert told["came"]
        assert told["opinion"]["advice"]
    whole = http.get(f"/api/practice/looks/{look['id']}").json()
    assert [one["egg"] for one in whole["told"]] == list(range(1, 11))
    progress = http.get("/api/practice/progress").json()
    alive = sum(one["alive"] for one in whole["told"])
    assert (progress["tally"]["eggs"], progress["tally"]["alive"]) == (10, alive)
    assert progress["tally"]["missed"] == 10 - alive
    (bin_,) = progress["bins"]
    assert (bin_["eggs"], bin_["came"], bin_["said"]) == (10, alive, pytest.approx(0.9))
    assert http.get("/api/practice/progress", params={"deck": "fresh"}).json()["tally"]["eggs"] == 0
    assert http.get("/api/practice").json()["sessions"] == []


def test_nothing_of_a_truth_is_sent_before_it_is_told(http: TestClient) -> None:
    look = begin(http, eggs=30)
    hidden = {"alive", "usual", "cause", "kind", "truth", "seed", "endings", "vessels", "movement"}
    for case in look["cases"]:
        assert not hidden & set(case)
        assert not hidden & set(case["box"])
    assert look["told"] == []
    # What is shown of one egg is equal whatever it would have come to.
    names = {tuple(sorted(case)) for case in look["cases"]}
    assert len(names) == 1


def test_the_picture_is_the_torchs_and_the_same_each_time(http: TestClient) -> None:
    look = begin(http)
    path = f"/api/practice/looks/{look['id']}/eggs/1/torch.webp"
    first, again = http.get(path), http.get(path)
    assert first.headers["content-type"] == "image/webp"
    assert first.content == again.content
    assert first.content[:4] == b"RIFF"
    problem(http.get(path.replace("eggs/1", "eggs/11")), 404)


def test_a_seed_is_the_same_session_for_everybody(http: TestClient) -> None:
    first, second = begin(http), begin(http)
    assert first["id"] != second["id"]
    assert first["cases"] == second["cases"]
    assert begin(http, seed="4712")["cases"] != first["cases"]


@pytest.mark.parametrize(
    ("said", "words"),
    [
        ({"chance_percent": 101}, "101 %"),
        ({"chance_percent": -1}, "-1 %"),
        ({"act": "discard"}, "nothing that can be done"),
        ({"act": "candle"}, "on which day"),
        ({"act": "candle", "candle_day": 0}, "day 0 was"),
        ({"usual": "maybe"}, ""),
    ],
)
def test_a_judgement_that_makes_no_sense_is_refused_in_words(
    http: TestClient, said: dict[str, Any], words: str
) -> None:
    look = begin(http, deck="last")
    refused = problem(judged(http, look, 1, **said), 422)
    assert words in refused["detail"].lower()
    assert http.get(f"/api/practice/looks/{look['id']}").json()["told"] == []


def test_an_egg_that_was_told_is_not_judged_again(http: TestClient) -> None:
    look = begin(http)
    told = judged(http, look, 3).json()
    # A second page of the same session, or an answer that was lost on its way.
    assert judged(http, look, 3).json() == told
    assert "judged already" in problem(judged(http, look, 3, chance_percent=5), 409)["detail"]
    assert http.get("/api/practice/progress").json()["tally"]["eggs"] == 1


@pytest.mark.parametrize(
    "asked",
    [
        *({"seed": seed} for seed in ("1" + 30 * "0", "-1", "x", "1.5", "²", "1000000", "9" * 41)),
        {"deck": "ostrich"},
        {"eggs": 0},
        {"eggs": 31},
    ],
)
def test_no_session_begins_with_what_cannot_be(http: TestClient, asked: dict[str, Any]) -> None:
    refused = http.post("/api/practice/looks", json={"deck": "mixed", **asked})
    problem(refused, 422)
    assert http.get("/api/practice").json()["sessions"] == []


def test_practice_is_exported_and_deleted(http: TestClient) -> None:
    look = begin(http)
    judged(http, look, 1)
    export = http.get("/api/practice/export").json()
    assert (len(export["sessions"]), len(export["answers"])) == (1, 1)
    # No egg's truth leaves by this way before it is told either.
    eggs = export["sessions"][0]["body"]["eggs"]
    assert [egg is not None for egg in eggs] == [True] + 9 * [False]
    assert http.delete(f"/api/practice/looks/{look['id']}").status_code == 204
    problem(http.delete(f"/api/practice/looks/{look['id']}"), 404)
    begin(http)
    assert http.delete("/api/practice").status_code == 204
    assert http.get("/api/practice").json()["sessions"] == []
    assert http.get("/api/practice").json()["judged"] == 0


def test_practice_leaves_no_trace_in_the_house(http: TestClient) -> None:
    before = http.get("/api/acts").json()
    look = begin(http)
    judged(http, look, 1)
    assert http.get("/api/acts").json() == before
    assert http.get("/api/today").json()["boxes"] == []


def season(http: TestClient, **asked: Any) -> dict[str, Any]:
    response = http.post("/api/practice/seasons", json={"seed": "4711", **asked})
    assert response.status_code == 201, response.text
    return response.json()


def deed(http: TestClient, now: dict[str, Any], what: str, **more: Any) -> Any:
    body = {"revision": now["revision"], "day": now["day"], "what": what, **more}
    return http.post(f"/api/practice/seasons/{now['id']}/deeds", json=body)


def test_a_season_is_kept_day_by_day_and_told(http: TestClient) -> None:
    now = season(http)
    assert (now["day"], len(now["boxes"]), now["over"]) == (0, 4, False)
    assert now["boxes"][0]["eggs"] == []
    now = deed(http, now, "open", box=0).json()
    assert now["boxes"][0]["open"]
    assert now["boxes"][0]["eggs"]
    now = deed(http, now, "candle", box=0, egg=1).json()
    torch = http.get(f"/api/practice/seasons/{now['id']}/boxes/0/eggs/1/torch.webp")
    assert torch.headers["content-type"] == "image/webp"
    problem(http.get(f"/api/practice/seasons/{now['id']}/boxes/0/eggs/2/torch.webp"), 404)
    path = f"/api/practice/seasons/{now['id']}"
    problem(http.get(f"{path}/telling"), 409)
    while not now["over"]:
        now = http.post(f"{path}/days", json={"revision": now["revision"], "days": 7}).json()
    told = http.get(f"{path}/telling").json()
    assert told["own"]["hatched"] == now["hatched"]
    assert len(told["lessons"]) <= 3
    assert len(told["others"]) == 6
    (listed,) = http.get("/api/practice").json()["seasons"]
    assert (listed["seed"], listed["over"]) == (4711, True)


def test_nothing_hidden_of_a_season_is_sent_before_it_is_told(http: TestClient) -> None:
    now = season(http, difficulty="hard")
    now = deed(http, now, "open", box=0).json()
    text = str(now).lower()
    for hidden in ("trouble", "torn", "hardy", "own_death", "alive", "infection", "oxygen"):
        assert hidden not in text


@pytest.mark.parametrize(
    ("what", "more", "words"),
    [
        ("pour", {"box": 0, "water_g": 20}, "the box is shut"),
        ("open", {"box": 40}, "no such box"),
        ("open", {"box": 0, "day": 5}, "day 5 was"),
        ("open", {"box": 0, "revision": 9}, "another page"),
    ],
)
def test_what_cannot_be_done_in_a_season_is_refused_in_words(
    http: TestClient, what: str, more: dict[str, Any], words: str
) -> None:
    now = season(http)
    assert words in problem(deed(http, now, what, **more), 409)["detail"].lower()
    assert http.get(f"/api/practice/seasons/{now['id']}").json() == now
