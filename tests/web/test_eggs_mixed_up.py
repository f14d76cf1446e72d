"""Two eggs taken for one another: numbers swapped, or what was seen of them, and undone."""

from datetime import timedelta
from typing import Any

import pytest
from fastapi.testclient import TestClient

from samples import NOW
from web.asking import lay, problem

CLUTCH = "/api/clutches/26-01"


def ago(days: float) -> str:
    return (NOW - timedelta(days=days)).isoformat()


@pytest.fixture
def seen(http: TestClient) -> TestClient:
    """Egg 1 dented ten days ago, egg 2 candled, and again dented two days ago."""
    lay(http, laid_at=ago(40))
    grade(http, 1, 2, 10)
    http.post(f"{CLUTCH}/eggs/2/candlings", json={"vessels": "weak", "at": ago(10)})
    grade(http, 2, 1, 2)
    return http


def grade(http: TestClient, egg: int, grade: int, days: float) -> None:
    asked = {"grade": grade, "at": ago(days)}
    http.post(f"{CLUTCH}/eggs/{egg}/grades", json=asked).raise_for_status()


def eggs(http: TestClient) -> dict[int, dict[str, Any]]:
    return {egg["number"]: egg for egg in http.get(CLUTCH).json()["eggs"]}


def swap(http: TestClient, **asked: Any) -> Any:
    return http.post(f"{CLUTCH}/eggs/swapped", json={"one": 1, "other": 2, **asked})


def test_numbers_are_swapped_and_everything_else_stays_with_the_egg(seen: TestClient) -> None:
    before = eggs(seen)
    swapped = swap(seen)
    assert swapped.status_code == 201, swapped.text
    after = eggs(seen)
    assert [after[n]["x"] for n in (1, 2)] == [before[n]["x"] for n in (2, 1)]
    assert [after[n]["grade"] for n in (1, 2)] == [1, 2]
    seen.post(f"/api/acts/{swapped.json()['id']}/undo").raise_for_status()
    assert eggs(seen) == before


def test_what_was_seen_is_swapped_and_the_eggs_lie_where_they_lay(seen: TestClient) -> None:
    before = eggs(seen)
    swapped = swap(seen, since=ago(12))
    assert swapped.status_code == 201, swapped.text
    after = eggs(seen)
    assert [after[n]["x"] for n in (1, 2)] == [before[n]["x"] for n in (1, 2)]
    assert [after[n]["grade"] for n in (1, 2)] == [1, 2]
    seen.post(f"/api/acts/{swapped.json()['id']}/undo").raise_for_status()
    assert eggs(seen) == before


def test_of_one_visit_only(seen: TestClient) -> None:
    swap(seen, since=ago(11), until=ago(9)).raise_for_status()
    # The dents of two days ago stay with egg 2; those of ten days ago are egg 2's as well now.
    assert eggs(seen)[2]["grade"] == 1
    assert eggs(seen)[1]["grade"] is None


def test_a_pip_and_what_came_out_go_together(seen: TestClient) -> None:
    seen.post(f"{CLUTCH}/eggs/1/emergence", json={"at": ago(1)}).raise_for_status()
    seen.put(f"{CLUTCH}/eggs/1/hatchling", json={"mass_g": 60}).raise_for_status()
    swap(seen, since=ago(2)).raise_for_status()
    told = {e["egg"]["number"]: e for e in seen.get(f"{CLUTCH}/hatch").json()["eggs"]}
    assert [len(told[n]["hatchlings"]) for n in (1, 2)] == [0, 1]
    assert told[2]["egg"]["emerged_at"] is not None


@pytest.mark.parametrize(
    ("asked", "status", "words"),
    [
        ({"other": 1}, 422, "another one"),
        ({"other": 9}, 404, "egg 9"),
        ({"since": ago(1)}, 422, "nothing was seen"),
        ({"since": ago(-1)}, 422, "future"),
        ({"since": ago(3), "until": ago(5)}, 422, "ends before"),
    ],
)
def test_what_cannot_be_changes_nothing(
    seen: TestClient, asked: dict[str, Any], status: int, words: str
) -> None:
    before = eggs(seen)
    assert words.casefold() in problem(swap(seen, **asked), status)["detail"].casefold()
    assert eggs(seen) == before


def test_of_a_closed_clutch_only_the_numbers(seen: TestClient) -> None:
    fates = [{"number": n, "fate": "unknown"} for n in range(1, 5)]
    seen.post(f"{CLUTCH}/fates", json={"fates": fates}).raise_for_status()
    seen.post(f"{CLUTCH}/finished", json={}).raise_for_status()
    assert "reopen" in problem(swap(seen, since=ago(12)), 409)["detail"]
    swap(seen).raise_for_status()
