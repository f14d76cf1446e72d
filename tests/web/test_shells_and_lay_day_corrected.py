"""Several marks of a shell, changed when seen; and what lay day said of an egg, corrected."""

from datetime import timedelta
from typing import Any

import pytest
from fastapi.testclient import TestClient

from samples import NOW
from sandboa.services.lay_day.state import EggState
from web.asking import LAID, lay, problem

CLUTCH = "/api/clutches/26-01"


def ago(days: float) -> str:
    return (NOW - timedelta(days=days)).isoformat()


@pytest.fixture
def laid(http: TestClient) -> TestClient:
    eggs = [{**egg, "shells": ["rough", "window"]} if n == 0 else egg
            for n, egg in enumerate(LAID["eggs"])]  # fmt: skip
    lay(http, laid_at=ago(40), eggs=eggs)
    return http


def egg(http: TestClient, number: int = 1) -> dict[str, Any]:
    eggs = http.get(CLUTCH).json()["eggs"]
    return next(told for told in eggs if told["number"] == number)


def visit(http: TestClient, **of_egg: Any) -> dict[str, Any]:
    body = {
        "key": "phone-one.0001",
        "box": "26-01",
        "opened_at": ago(2.001),
        "closed_at": ago(2),
        "by_hand": True,
        "eggs": [{"number": 1, **of_egg}],
    }
    answer = http.post("/api/visits", json={"visits": [body]})
    assert answer.status_code == 200, answer.text
    return answer.json()["outcomes"][0]


def as_laid(http: TestClient, number: int = 1, **changes: Any) -> Any:
    path = f"{CLUTCH}/eggs/{number}/as-laid"
    held = http.get(path).json()
    body = {name: held[name] for name in held if name != "revision"}
    return http.put(path, json={**body, **changes}, headers={"if-match": held["revision"]})


def test_a_shell_has_several_marks(laid: TestClient) -> None:
    assert egg(laid)["shells"] == ["rough", "window"]
    assert egg(laid, 2)["shells"] == []


def test_a_shell_is_seen_to_be_another_at_a_visit_and_that_is_corrected(laid: TestClient) -> None:
    told = visit(laid, shells=["thin", "rough"])
    assert egg(laid)["shells"] == ["rough", "thin"]
    history = laid.get(f"{CLUTCH}/eggs/1").json()["history"]
    assert ("shell", "rough, thin") in [(m["kind"], m["text"]) for m in history]
    log = laid.get(f"{CLUTCH}").json()["log"]
    assert "rough, thin shell" in log[0]["summary"]
    number = log[0]["visit"]
    recorded = laid.get(f"/api/visits/{number}").json()
    assert recorded["visit"]["eggs"][0]["shells"] == ["rough", "thin"]
    laid.post(f"/api/acts/{told['act']['id']}/undo").raise_for_status()
    assert egg(laid)["shells"] == ["rough", "window"]


def test_a_shell_may_be_smooth_after_all(laid: TestClient) -> None:
    visit(laid, shells=[])
    assert egg(laid)["shells"] == []


def test_a_mark_that_is_none_is_refused(laid: TestClient) -> None:
    body = {
        "key": "phone-one.0001", "box": "26-01", "opened_at": ago(2), "closed_at": ago(2),
        "eggs": [{"number": 1, "shells": ["golden"]}],
    }  # fmt: skip
    problem(laid.post("/api/visits", json={"visits": [body]}), 422)
    assert egg(laid)["shells"] == ["rough", "window"]


def test_a_lay_day_begun_by_an_earlier_version_has_its_marks() -> None:
    assert EggState.model_validate({"x": 0.5, "y": 0.5, "shell": "rough"}).shells == ["rough"]
    assert EggState.model_validate({"x": 0.5, "y": 0.5, "shell": "smooth"}).shells == []


def test_what_lay_day_said_of_an_egg_is_corrected_and_undone(laid: TestClient) -> None:
    before = egg(laid)
    corrected = as_laid(
        laid, shells=["thin"], clump=2, mass_g=81.5, vessels="weak", disc="side",
        events=["torn", "turned"],
    )  # fmt: skip
    assert corrected.status_code == 200, corrected.text
    told = egg(laid)
    assert (told["shells"], told["clump"], told["mass_g"]) == (["thin"], 2, 81.5)
    assert told["torchlight"]["vessels"] == "weak"
    assert set(told["events"]) == {"torn", "turned"}
    # Once more: what is the same stays, what is left out goes.
    as_laid(laid, events=["turned"], vessels=None, disc=None).raise_for_status()
    assert egg(laid)["events"] == ["turned"]
    assert egg(laid)["torchlight"]["vessels"] is None
    log = laid.get(CLUTCH).json()["log"]
    assert log[0]["summary"] == "Egg 1 as laid corrected"
    laid.post(f"/api/acts/{log[0]['act']}/undo").raise_for_status()
    laid.post(f"/api/acts/{corrected.json()['id']}/undo").raise_for_status()
    assert egg(laid) == before


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"mass_g": 8150}, "Mass 8150 g"),
        ({"clump": 99}, "1 to 20"),
        ({"events": ["torn", "torn"]}, "once"),
        ({"slug": True, "vessels": "strong"}, "no vessels"),
    ],
)
def test_what_cannot_be_changes_nothing(
    laid: TestClient, changes: dict[str, Any], words: str
) -> None:
    before = egg(laid)
    assert words in problem(as_laid(laid, **changes), 422)["detail"]
    assert egg(laid) == before


def test_two_at_one_egg_are_told_of_each_other(laid: TestClient) -> None:
    as_laid(laid, mass_g=80).raise_for_status()
    stale = {"slug": False, "mass_g": 90}
    refused = laid.put(f"{CLUTCH}/eggs/1/as-laid", json=stale, headers={"if-match": "x"})
    assert refused.status_code == 412
