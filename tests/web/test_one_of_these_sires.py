"""A clutch of one of several sires: said, told apart by what hatches, settled, undone."""

from datetime import timedelta
from typing import Any

import pytest
from fastapi.testclient import TestClient

from samples import NOW
from web.asking import LAID, lay, problem

CLUTCH = "/api/clutches/26-01"


@pytest.fixture
def two(http: TestClient) -> dict[str, int]:
    """Flint shows Ember, Marl does not; a clutch of Sorrel that was with both."""
    http.post("/api/genes", json={"name": "Ember", "inheritance": "incomplete dominant"})
    found = {}
    for name, traits in (("Flint", [{"name": "Ember", "form": "visual"}]), ("Marl", [])):
        body = {"role": "sire", "name": name, "traits": traits}
        found[name] = http.post("/api/animals", json=body).json()["id"]
    lay(http, laid_at=(NOW - timedelta(days=61)).isoformat(), sire=None)
    return found


def told(http: TestClient) -> dict[str, Any]:
    return http.get(CLUTCH).json()


def say(http: TestClient, *sires: int) -> Any:
    seen = {"if-match": told(http)["sires_revision"]}
    return http.put(f"{CLUTCH}/sires", json={"sires": list(sires)}, headers=seen)


def test_one_of_two_is_a_fact_and_no_third_sire(http: TestClient, two: dict[str, int]) -> None:
    said = say(http, *two.values())
    assert said.status_code == 200, said.text
    assert said.json()["summary"] == "Clutch 26-01: sire one of Flint, Marl"
    page = told(http)
    assert page["sire"] is None
    assert [(s["name"], s["chance"]) for s in page["possible_sires"]] == [
        ("Flint", 0.5), ("Marl", 0.5),
    ]  # fmt: skip
    assert len(http.get("/api/animals").json()) == 3
    http.post(f"/api/acts/{said.json()['id']}/undo").raise_for_status()
    assert told(http)["possible_sires"] == []


def test_what_hatches_tells_them_apart_and_the_keeper_settles_it(
    http: TestClient, two: dict[str, int]
) -> None:
    say(http, *two.values()).raise_for_status()
    for number in (1, 2, 3):
        http.post(f"{CLUTCH}/eggs/{number}/emergence", json={}).raise_for_status()
        body = {"plain": True}
        http.put(f"{CLUTCH}/eggs/{number}/hatchling", json=body).raise_for_status()
    chances = {s["name"]: s["chance"] for s in told(http)["possible_sires"]}
    assert chances["Marl"] == pytest.approx(8 / 9)
    say(http, two["Marl"]).raise_for_status()
    assert (told(http)["sire"], told(http)["possible_sires"]) == ("Marl", [])


def test_correcting_the_sire_settles_it_too(http: TestClient, two: dict[str, int]) -> None:
    say(http, *two.values()).raise_for_status()
    seen = {"if-match": told(http)["revision"]}
    laid = {**LAID, "laid_at": told(http)["laid_at"], "sire": "Flint"}
    http.put(CLUTCH, json=laid, headers=seen).raise_for_status()
    assert (told(http)["sire"], told(http)["possible_sires"]) == ("Flint", [])


def test_a_sire_that_may_be_one_is_not_taken_away(http: TestClient, two: dict[str, int]) -> None:
    say(http, *two.values()).raise_for_status()
    page = http.get(f"/api/animals/{two['Marl']}").json()
    changed = {"role": "dam", "name": "Marl"}
    refused = http.put(
        f"/api/animals/{two['Marl']}", json=changed, headers={"if-match": page["revision"]}
    )
    assert "cannot change" in problem(refused, 409)["detail"]


def test_who_cannot_be_one(http: TestClient, two: dict[str, int]) -> None:
    dam = told(http)["dam_id"]
    assert "is a dam" in problem(say(http, two["Flint"], dam), 409)["detail"]
    problem(say(http, two["Flint"], two["Flint"]), 422)
    problem(say(http, 10**6), 404)
    assert told(http)["possible_sires"] == []
