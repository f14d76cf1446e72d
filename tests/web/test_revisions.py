"""Two people at one form: the second is told, shown what is recorded, and loses nothing."""

from collections.abc import Callable
from typing import Any

import pytest
from fastapi.testclient import TestClient

from web.asking import LAID, description, lay, problem
from web.test_losses import ROUND as LOST
from web.test_losses import lost

__all__ = ["lost"]

#: PUT operations that are no form, by what guards them against a lost change instead.
NO_FORM = {
    "/api/lay-day-drafts/{lay_day}": "its own revision, in the body",
    "/api/session/passphrase": "the passphrase before",
    "/api/session/preferences": "one choice, and the last one holds",
    "/api/people/{person}/passphrase": "nothing of it is shown",
}
HOOK = {"kind": "webhook", "name": "bell", "zone": "UTC", "target": {"url": "https://10.0.0.9/x"}}


@pytest.fixture
def furnished(http: TestClient) -> TestClient:
    lay(http)
    http.post("/api/people", json={"name": "Linden", "role": "keeper"}).raise_for_status()
    http.post("/api/messengers", json=HOOK).raise_for_status()
    http.post("/api/genes", json={"name": "Puzzle", "inheritance": "recessive"}).raise_for_status()
    (standard,) = http.get("/api/methods").json()["methods"]
    method = {"method": {**standard["method"], "name": "Ours"}, "chosen": True}
    http.post("/api/methods", json=method).raise_for_status()
    del http.headers["If-Match"]
    return http


def first(told: list[Any]) -> Any:
    return told[0]


def gene(told: list[Any]) -> Any:
    return next(row for row in told if row["name"] == "Puzzle")


#: A form by name: its page, what of the page is the form's, its address, and two versions of it.
FORMS: dict[str, tuple[str, Callable[[Any], Any], str, Callable[[Any], tuple[Any, Any]]]] = {
    "animal": (
        "/api/animals/{dam}",
        lambda page: page,
        "/api/animals/{dam}",
        lambda _: (
            {"role": "dam", "name": "Sorrel", "code": "S1"},
            {"role": "dam", "name": "Sorrel", "hatch_year": 2019},
        ),
    ),
    "clutch": (
        "/api/clutches/26-01",
        lambda page: page,
        "/api/clutches/26-01",
        lambda _: ({**LAID, "water_g": 180}, {**LAID, "shelf": "upper"}),
    ),
    "cabinet": (
        "/api/cabinets/North",
        lambda page: page,
        "/api/cabinets/North",
        lambda _: (
            {"name": "North", "shelves": ["lower", "upper"]},
            {"name": "North", "shelves": ["lower", "upper"], "volume_l": 90},
        ),
    ),
    "house method": (
        "/api/methods",
        lambda page: page["methods"][0],
        "/api/methods/{id}",
        lambda held: tuple(
            {"method": {**held["method"], "temperature_c": c}, "chosen": True} for c in (30.5, 31)
        ),
    ),
    "method of a clutch": (
        "/api/clutches/26-01",
        lambda page: {**page, "revision": page["method_revision"]},
        "/api/clutches/26-01/method",
        lambda held: tuple({**held["method"], "temperature_c": c} for c in (30.5, 31)),
    ),
    "number": (
        "/api/settings",
        first,
        "/api/settings/{name}",
        lambda held: ({"value": held["low"]}, {"value": held["high"]}),
    ),
    "trait of the list": (
        "/api/genes",
        gene,
        "/api/genes/{id}",
        lambda _: (
            {"name": "Puzzle", "inheritance": "dominant"},
            {"name": "Puzzle", "inheritance": "incomplete dominant"},
        ),
    ),
    "messenger": (
        "/api/messengers",
        first,
        "/api/messengers/{id}",
        lambda _: ({**HOOK, "quiet_from_min": 60, "quiet_until_min": 90}, {**HOOK, "name": "gong"}),
    ),
    "person": (
        "/api/people",
        first,
        "/api/people/{id}",
        lambda _: ({"name": "Rowan", "role": "keeper"}, {"name": "Alder", "role": "keeper"}),
    ),
}


def opened(http: TestClient, form: str) -> tuple[str, str, tuple[Any, Any]]:
    """A form as two people open it: its address, its revision, and what each makes of it."""
    page, of_form, address, versions = FORMS[form]
    (dam,) = [a["id"] for a in http.get("/api/animals").json() if a["name"] == "Sorrel"]
    held = of_form(http.get(page.format(dam=dam)).json())
    return address.format(**{**held, "dam": dam}), held["revision"], versions(held)


def recorded(http: TestClient) -> list[int]:
    return [entry["act"] for entry in http.get("/api/acts").json()]


@pytest.mark.parametrize("form", FORMS)
def test_the_second_is_shown_what_the_first_recorded(furnished: TestClient, form: str) -> None:
    address, seen, (one, other) = opened(furnished, form)
    ours = furnished.put(address, json=one, headers={"If-Match": f'"{seen}"'})
    assert ours.is_success, ours.text
    log = recorded(furnished)
    refused = furnished.put(address, json=other, headers={"If-Match": f'"{seen}"'})
    current = problem(refused, 412)["current"]
    assert recorded(furnished) == log
    told = {name: current["form"].get(name) for name in one}
    for name, value in one.items():
        if name in current["form"] and not isinstance(value, list | dict) and name != "laid_at":
            assert told[name] == value, name
    again = furnished.put(address, json=other, headers={"If-Match": f'"{current["revision"]}"'})
    assert again.is_success, again.text


@pytest.mark.parametrize("form", FORMS)
def test_whoever_does_not_say_what_they_saw_changes_nothing(
    furnished: TestClient, form: str
) -> None:
    address, _, (one, _) = opened(furnished, form)
    log = recorded(furnished)
    assert "If-Match" in problem(furnished.put(address, json=one), 428)["detail"]
    assert recorded(furnished) == log


def test_what_was_changed_and_taken_back_is_what_was_seen(furnished: TestClient) -> None:
    address, seen, (one, other) = opened(furnished, "animal")
    act = furnished.put(address, json=one, headers={"If-Match": seen}).json()["id"]
    furnished.post(f"/api/acts/{act}/undo").raise_for_status()
    assert furnished.put(address, json=other, headers={"If-Match": seen}).is_success


def test_weights_and_meals_are_no_part_of_the_form(furnished: TestClient) -> None:
    address, seen, (one, _) = opened(furnished, "animal")
    furnished.post(f"{address}/weights", json={"mass_g": 1800}).raise_for_status()
    assert furnished.put(address, json=one, headers={"If-Match": seen}).is_success


def test_an_egg_is_opened_twice_at_once(lost: TestClient) -> None:
    """Nobody had looked yet, for either of them."""
    path = f"{LOST}/eggs/2/opening"
    one = {"opened": True, "findings": {"form": ["kink"]}}
    assert lost.put(path, json=one, headers={"If-Match": "new"}).is_success
    other = {"opened": False}
    current = problem(lost.put(path, json=other, headers={"If-Match": "new"}), 412)["current"]
    assert current["form"] == {"opened": True, "findings": {"form": ["kink"]}, "note": ""}
    (egg,) = lost.get(f"{LOST}/losses").json()["lost"]
    assert egg["opening"]["revision"] == current["revision"]


def test_everything_that_is_changed_as_a_form_asks_what_was_seen() -> None:
    paths = description()["paths"]
    without = {
        path
        for path, operations in paths.items()
        if "put" in operations
        and "If-Match" not in {p["name"] for p in operations["put"].get("parameters", [])}
    }
    assert without == set(NO_FORM)
