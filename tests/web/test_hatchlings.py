"""From hatchling to breeder over HTTP: fed, held back, gone, and what its hatchlings prove."""

from datetime import timedelta
from typing import Any

import pytest
from fastapi.testclient import TestClient

from samples import NOW
from web.asking import LAID, lay, problem

CLUTCH = "/api/clutches/26-01"


def ago(days: float) -> str:
    return (NOW - timedelta(days=days)).isoformat()


@pytest.fixture
def hatched(http: TestClient) -> TestClient:
    """Four hatchlings three weeks old of a clutch that is closed; of the second one is known that
    it is female and carries Puzzle."""
    lay(http, laid_at=ago(82))
    for number in range(1, 5):
        http.post(f"{CLUTCH}/eggs/{number}/emergence", json={"at": ago(21)}).raise_for_status()
    told = {"mass_g": 60, "sex": "female", "traits": [{"name": "Puzzle", "form": "one copy"}]}
    for number in range(1, 5):
        body = told if number == 2 else {"plain": True}
        http.put(f"{CLUTCH}/eggs/{number}/hatchling", json=body).raise_for_status()
    http.post(f"{CLUTCH}/finished", json={}).raise_for_status()
    return http


def lines(http: TestClient, **asked: Any) -> dict[str, dict[str, Any]]:
    told = http.get("/api/hatchlings", params=asked).json()
    return {line["short_name"]: line for line in told}


def path(http: TestClient, name: str) -> str:
    found = {**lines(http), **lines(http, gone=True)}
    return f"/api/hatchlings/{found[name]['id']}"


def send(http: TestClient, which: str, what: str, /, **body: Any) -> Any:
    return http.post(f"{path(http, which)}/{what}", json=body)


def page(http: TestClient, name: str) -> dict[str, Any]:
    return http.get(path(http, name)).json()["hatchling"]


def held_back(http: TestClient, name: str = "2", **more: Any) -> int:
    told = http.post(f"{path(http, name)}/held-back", json={"name": "Nettle", **more})
    assert told.status_code == 201, told.text
    return told.json()["animal"]


def test_a_closed_clutch_goes_on_getting_its_hatchlings_told(hatched: TestClient) -> None:
    revision = page(hatched, "1")["revision"]
    saved = hatched.put(
        f"{CLUTCH}/eggs/1/hatchling",
        json={"sex": "male", "mass_g": 58},
        headers={"if-match": revision},
    )
    assert saved.status_code == 200, saved.text
    assert page(hatched, "1")["sex"] == "male"
    hatched.post(f"/api/acts/{saved.json()['id']}/undo").raise_for_status()
    assert page(hatched, "1")["sex"] == "not sexed"


def test_today_reminds_of_sheds_and_meals_clutch_by_clutch(hatched: TestClient) -> None:
    (due,) = hatched.get("/api/hatchlings/due").json()
    assert (due["clutch"], due["task"]) == ("26-01", "shed")
    assert due["hatchlings"] == ["1", "2", "3", "4"]
    send(hatched, "1", "shed", at=ago(12)).raise_for_status()
    send(hatched, "2", "shed", at=ago(12)).raise_for_status()
    meal = {"taken": True, "at": ago(8)}
    hatched.post(f"{path(hatched, '2')}/meals", json=meal).raise_for_status()
    told = hatched.get("/api/hatchlings/due").json()
    assert {(d["task"], *d["hatchlings"]) for d in told} == {
        ("first meal", "1"), ("meal", "2"), ("shed", "3", "4"),
    }  # fmt: skip
    send(hatched, "2", "meals", taken=False).raise_for_status()
    assert "meal" not in {d["task"] for d in hatched.get("/api/hatchlings/due").json()}


def test_the_interval_of_meals_is_the_keepers(hatched: TestClient) -> None:
    send(hatched, "2", "meals", taken=True, at=ago(8))
    hatched.put("/api/settings/meal_every_days", json={"value": 10}).raise_for_status()
    assert "meal" not in {d["task"] for d in hatched.get("/api/hatchlings/due").json()}


def test_several_are_fed_in_one_act(hatched: TestClient) -> None:
    ids = {name: line["id"] for name, line in lines(hatched).items()}
    meals = [{"hatchling": ids[name], "taken": name != "3"} for name in ("1", "2", "3")]
    fed = hatched.post("/api/hatchlings/meals", json={"meals": meals, "prey": "rat pup"})
    assert fed.status_code == 201, fed.text
    assert fed.json()["summary"] == "Meals: 2 taken, 1 refused"
    assert [page(hatched, name)["meals"][0]["taken"] for name in ("1", "2", "3")] == [
        True, True, False,
    ]  # fmt: skip
    assert page(hatched, "4")["meals"] == []
    hatched.post(f"/api/acts/{fed.json()['id']}/undo").raise_for_status()
    assert page(hatched, "1")["meals"] == []


def test_one_that_cannot_be_fed_keeps_all_from_being_recorded(hatched: TestClient) -> None:
    ids = [line["id"] for line in lines(hatched).values()]
    send(hatched, "4", "departure", how="sold", at=ago(2))
    several = [{"hatchling": one, "taken": True} for one in ids]
    told = problem(hatched.post("/api/hatchlings/meals", json={"meals": several}), 422)
    assert "left the house" in told["detail"]
    assert page(hatched, "1")["meals"] == []
    twice = [{"hatchling": ids[0], "taken": True}] * 2
    problem(hatched.post("/api/hatchlings/meals", json={"meals": twice}), 422)
    problem(hatched.post("/api/hatchlings/meals", json={"meals": []}), 422)


def test_sheds_go_on_after_the_first(hatched: TestClient) -> None:
    send(hatched, "1", "shed", at=ago(13)).raise_for_status()
    told = problem(send(hatched, "1", "shed", at=ago(6)), 422)
    assert "within 10 days" in told["detail"]
    send(hatched, "1", "shed").raise_for_status()
    assert len(page(hatched, "1")["sheds"]) == 2


def test_it_has_a_tub_of_its_own(hatched: TestClient) -> None:
    send(hatched, "1", "tub", name=" H 12 ", at=ago(9))
    send(hatched, "1", "tub", name="H 15").raise_for_status()
    assert lines(hatched)["1"]["tub"] == "H 15"
    problem(send(hatched, "1", "tub", name="  "), 422)
    told = problem(send(hatched, "1", "tub", name="x", at=ago(30)), 422)
    assert "still in its egg" in told["detail"]


def test_held_back_it_is_an_animal_with_its_parents_and_its_life_so_far(
    hatched: TestClient,
) -> None:
    send(hatched, "2", "weights", mass_g=75, at=ago(5))
    send(hatched, "2", "meals", taken=True, at=ago(5))
    send(hatched, "2", "tub", name="H 12", at=ago(5))
    animal = held_back(hatched)
    told = hatched.get(f"/api/animals/{animal}").json()
    assert (told["animal"]["name"], told["animal"]["role"]) == ("Nettle", "dam")
    assert told["animal"]["hatch_year"] == NOW.year
    assert told["parents"] == "Sorrel × Flint"
    assert [w["mass_g"] for w in told["weights"]] == [60, 75]
    assert len(told["meals"]) == 1
    assert told["tub"]["name"] == "H 12"
    assert told["animal"]["traits"] == [{"name": "Puzzle", "form": "one copy"}]
    assert (told["hatched_here"]["clutch"], told["hatched_here"]["egg"]) == ("26-01", 2)
    assert "2" not in lines(hatched)
    assert lines(hatched, gone=True)["2"]["animal_name"] == "Nettle"
    # Weighed from now on as the animal, whichever page it is done on.
    send(hatched, "2", "weights", mass_g=90).raise_for_status()
    hatched.post(f"/api/animals/{animal}/meals", json={"taken": True}).raise_for_status()
    told = hatched.get(f"/api/animals/{animal}").json()
    assert [w["mass_g"] for w in told["weights"]] == [60, 75, 90]
    summaries = [line["summary"] for line in hatched.get(f"/api/acts?about={animal}").json()]
    assert summaries[0] == "Nettle took a meal"
    assert "Hatchling 2: 60 g" in summaries[-2:]
    # Its meals still fall due.
    assert [d["hatchlings"] for d in hatched.get("/api/hatchlings/due").json()] == [["1", "3", "4"]]


def test_what_it_is_kept_as_is_asked_where_it_is_not_sexed(hatched: TestClient) -> None:
    told = problem(send(hatched, "1", "held-back", name="Bracken"), 422)
    assert "dam or as a sire" in told["detail"]
    animal = held_back(hatched, "1", role="sire")
    # Sexed later: nothing hangs on it yet.
    form = hatched.get(f"/api/animals/{animal}").json()
    body = {"role": "dam", "name": "Nettle", "dam": form["dam"], "sire": form["sire"]}
    changed = hatched.put(
        f"/api/animals/{animal}", json=body, headers={"if-match": form["revision"]}
    )
    assert changed.status_code == 200, changed.text
    assert hatched.get(f"/api/animals/{animal}").json()["hatched_here"]["egg"] == 1
    problem(send(hatched, "1", "held-back", name="Other"), 409)
    problem(send(hatched, "3", "held-back", name="Sorrel", role="dam"), 409)


def test_holding_back_is_undone_as_long_as_nothing_came_of_it(hatched: TestClient) -> None:
    told = send(hatched, "2", "held-back", name="Nettle").json()
    act, animal = told["act"]["id"], told["animal"]
    weighed = hatched.post(f"/api/animals/{animal}/weights", json={"mass_g": 80}).json()
    refused = problem(hatched.post(f"/api/acts/{act}/undo"), 409)
    assert refused["detail"] == (
        "More is recorded of Nettle since it was held back: undo that first"
    )
    hatched.post(f"/api/acts/{weighed['id']}/undo").raise_for_status()
    hatched.post(f"/api/acts/{act}/undo").raise_for_status()
    assert "2" in lines(hatched)
    problem(hatched.get(f"/api/animals/{animal}"), 404)


def test_it_leaves_the_house_and_is_not_reminded_of_any_more(hatched: TestClient) -> None:
    left = hatched.post(
        f"{path(hatched, '1')}/departure",
        json={"how": "sold", "note": " to  a friend ", "at": ago(3)},
    )
    assert left.status_code == 201, left.text
    assert "1" not in lines(hatched)
    told = lines(hatched, gone=True)["1"]["departure"]
    assert (told["how"], told["note"]) == ("sold", "to a friend")
    assert hatched.get("/api/hatchlings/due").json()[0]["hatchlings"] == ["2", "3", "4"]
    late = problem(send(hatched, "1", "weights", mass_g=70), 422)
    assert "left the house before that (sold, " in late["detail"]
    send(hatched, "1", "weights", mass_g=70, at=ago(4)).raise_for_status()
    problem(send(hatched, "1", "departure", how="died"), 409)
    # Corrected in its log, as any single thing.
    act = left.json()["id"]
    fields = hatched.get(f"/api/acts/{act}/record").json()
    assert [field["name"] for field in fields["fields"]] == ["how", "note", "at"]
    hatched.post(f"/api/acts/{act}/undo").raise_for_status()
    assert "1" in lines(hatched)


def test_a_clutch_leaves_together_in_one_act(hatched: TestClient) -> None:
    ids = [line["id"] for line in lines(hatched).values()]
    body = {"hatchlings": ids, "how": "sold", "at": ago(1)}
    left = hatched.post("/api/hatchlings/departures", json=body)
    assert left.status_code == 201, left.text
    assert left.json()["summary"] == "4 left the house: sold"
    assert lines(hatched) == {}
    problem(hatched.post("/api/hatchlings/departures", json=body), 409)
    hatched.post(f"/api/acts/{left.json()['id']}/undo").raise_for_status()
    assert len(lines(hatched)) == 4
    twice = {**body, "hatchlings": [ids[0], ids[0]]}
    problem(hatched.post("/api/hatchlings/departures", json=twice), 422)
    # One that was weighed since keeps all of them here.
    send(hatched, "1", "weights", mass_g=70).raise_for_status()
    problem(hatched.post("/api/hatchlings/departures", json=body), 409)
    assert len(lines(hatched)) == 4


def test_it_cannot_leave_before_what_is_recorded_of_it(hatched: TestClient) -> None:
    send(hatched, "1", "weights", mass_g=70, at=ago(2))
    told = problem(send(hatched, "1", "departure", how="sold", at=ago(5)), 409)
    assert "weighed on" in told["detail"]
    assert "in the house then" in told["detail"]


@pytest.mark.parametrize(
    ("body", "status"),
    [
        ({"how": "eaten"}, 422),
        ({"how": "sold", "at": (NOW + timedelta(days=2)).isoformat()}, 422),
        ({"how": "sold", "at": ago(40)}, 422),
        ({"how": "sold", "note": "x" * 401}, 422),
        ({}, 422),
    ],
)
def test_departures_that_cannot_be(hatched: TestClient, body: dict[str, Any], status: int) -> None:
    problem(hatched.post(f"{path(hatched, '1')}/departure", json=body), status)
    assert len(lines(hatched)) == 4


def test_a_dam_that_left_is_not_paired_nor_followed(hatched: TestClient) -> None:
    by_name = {a["name"]: a["id"] for a in hatched.get("/api/animals").json()}
    dam, sire = by_name["Sorrel"], by_name["Flint"]
    assert hatched.get("/api/animals/after-laying").json()
    hatched.post(
        f"/api/animals/{dam}/departure", json={"how": "died", "at": ago(1)}
    ).raise_for_status()
    assert hatched.get("/api/animals/after-laying").json() == []
    assert hatched.get("/api/animals").json()[-1]["departure"] is None
    told = problem(hatched.post("/api/breeding/pairs", json={"dam": dam, "sire": sire}), 422)
    assert "Sorrel left the house" in told["detail"]
    late = problem(hatched.post("/api/clutches", json={**LAID, "laid_at": NOW.isoformat()}), 422)
    assert "Sorrel left the house" in late["detail"]


def test_a_possible_trait_is_proved_by_what_hatches(hatched: TestClient) -> None:
    hatched.post("/api/genes", json={"name": "Puzzle", "inheritance": "recessive"})
    by_name = {a["name"]: a["id"] for a in hatched.get("/api/animals").json()}
    for name, form in (("Sorrel", "possible"), ("Flint", "visual")):
        told = hatched.get(f"/api/animals/{by_name[name]}").json()
        body = {
            "role": told["animal"]["role"],
            "name": name,
            "traits": [{"name": "Puzzle", "form": form}],
        }
        hatched.put(
            f"/api/animals/{by_name[name]}", json=body, headers={"if-match": told["revision"]}
        ).raise_for_status()
    (proof,) = hatched.get(f"/api/animals/{by_name['Sorrel']}").json()["proofs"]
    # Four that could have shown it, with a sire that shows it: 1/16 against 1.
    assert proof["chance"] == pytest.approx(1 / 17)
    assert proof["words"] == (
        "6 % by 4 hatchlings that could have shown it, from 50 % before. "
        "They are 16 times likelier if it has none."
    )
    assert proof["by_mate"] == [
        "With Flint: 0 of 4 hatchlings show Puzzle; of a carrier 2.0 were to be expected."
    ]
    asked = {"dam": by_name["Sorrel"], "sire": by_name["Flint"]}
    odds = hatched.get("/api/pairs/odds", params=asked).json()
    chances = {form["words"]: form["chance"] for form in odds["forms"]}
    assert chances["Puzzle"] == pytest.approx(0.5 / 17)
    assert odds["proofs"] == [f"Sorrel, Puzzle: {proof['words']}"]
    # What hatched is held against what was to be expected before.
    assert odds["hatched"][0]["expected"] == pytest.approx(0.25)
    shows = {"traits": [{"name": "Puzzle", "form": "visual"}]}
    revision = page(hatched, "3")["revision"]
    hatched.put(
        f"{CLUTCH}/eggs/3/hatchling", json=shows, headers={"if-match": revision}
    ).raise_for_status()
    (proof,) = hatched.get(f"/api/animals/{by_name['Sorrel']}").json()["proofs"]
    assert proof["proved"]
    assert proof["words"].startswith("Proved: a hatchling shows Puzzle")
