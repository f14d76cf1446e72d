"""Losses and genes over HTTP: what is told, refused, and put right."""

from datetime import timedelta

import pytest
from fastapi.testclient import TestClient

from samples import NOW
from web.asking import lay, problem

ROUND = "/api/clutches/26-01"


@pytest.fixture
def lost(http: TestClient) -> TestClient:
    """A clutch of four eggs and a slug of which egg 2 died."""
    lay(http, laid_at=(NOW - timedelta(days=66)).isoformat())
    for number in (1, 3, 4):
        http.post(f"{ROUND}/eggs/{number}/emergence", json={}).raise_for_status()
    fates = [{"number": 2, "fate": "dead in egg", "stage": "late"}]
    http.post(f"{ROUND}/fates", json={"fates": fates}).raise_for_status()
    return http


def test_a_lost_egg_is_told_with_every_cause_and_its_grounds(lost: TestClient) -> None:
    told = lost.get(f"{ROUND}/losses").json()
    assert (told["fertile"], told["hatched"], told["waiting"]) == (4, 3, 0)
    assert [slug["egg"]["number"] for slug in told["slugs"]] == [5]
    (egg,) = told["lost"]
    assert egg["stage"] == "late"
    assert 0.5 < egg["died_from_share"] < egg["died_by_share"]
    assert sum(c["share"] for c in egg["causes"]) == pytest.approx(1.0)
    assert len(egg["causes"]) == 21
    # Every ground leads to the setting its number comes from.
    names = {s["name"] for s in lost.get("/api/settings").json()}
    assert {g["key"] for c in egg["causes"] for g in c["grounds"]} <= names


def test_what_was_found_moves_the_causes(lost: TestClient) -> None:
    body = {"opened": True, "findings": {"form": ["cleft", "kink"], "stage": ["late"]}}
    lost.put(f"{ROUND}/eggs/2/opening", json=body).raise_for_status()
    (egg,) = lost.get(f"{ROUND}/losses").json()["lost"]
    assert egg["causes"][0]["cause"] == "malformed"
    assert egg["opening"]["findings"]["form"] == ["cleft", "kink"]
    (clutch,) = lost.get("/api/losses").json()["clutches"]
    assert clutch["lost"][0]["cause"] == "malformed"
    assert clutch["lost"][0]["opened"] is True


@pytest.mark.parametrize(
    ("body", "words"),
    [
        ({"opened": True, "findings": {"form": ["huge"]}}, "no finding"),
        ({"opened": True, "findings": {"colour": ["red"]}}, "findings"),
        ({"opened": False, "findings": {"yolk": ["hard"]}}, "not opened"),
        ({"findings": {}}, "opened"),
    ],
)
def test_findings_that_cannot_be_are_refused(lost: TestClient, body: dict, words: str) -> None:
    told = problem(lost.put(f"{ROUND}/eggs/2/opening", json=body), 422)
    assert words in str(told)
    assert lost.get(f"{ROUND}/losses").json()["lost"][0]["opening"] is None


def test_a_house_without_losses_says_so(http: TestClient) -> None:
    nothing = {"year": None, "years": [], "clutches": [], "worked_out": 0, "laid": 0}
    assert http.get("/api/losses").json() == nothing
    problem(http.get("/api/clutches/26-09/losses"), 404)
    assert {kind["kind"] for kind in http.get("/api/findings").json()} >= {"yolk", "form", "cord"}


def test_the_keepers_own_traits_give_a_pairs_odds(http: TestClient) -> None:
    added = http.post(
        "/api/genes",
        json={"name": "Asphalt", "inheritance": "incomplete dominant", "double_form": "dies"},
    )
    assert added.status_code == 201, added.text
    again = {"name": "asphalt", "inheritance": "recessive"}
    assert "already" in problem(http.post("/api/genes", json=again), 409)["detail"]
    ids = [
        http.post(
            "/api/animals",
            json={
                "role": role, "name": name, "traits": [{"name": "Asphalt", "form": "visual"}],
            },
        ).json()["id"]
        for role, name in (("dam", "Tansy"), ("sire", "Flint"))
    ]  # fmt: skip
    odds = http.get("/api/pairs/odds", params={"dam": ids[0], "sire": ids[1]}).json()
    assert odds["dies"] == 0.25
    assert odds["may_die"] == ["Asphalt"]
    assert {form["words"]: form["chance"] for form in odds["forms"]} == {
        "Asphalt": 0.5, "double Asphalt": 0.25, "no trait of your list": 0.25,
    }  # fmt: skip
    assert odds["hatched"][0]["words"] == "0 of 0 hatchlings, 0.0 expected: too few to say more"
    gene = http.get("/api/genes").json()[0]["id"]
    corrected = {"name": "Asphalt", "inheritance": "recessive"}
    http.put(f"/api/genes/{gene}", json=corrected).raise_for_status()
    assert http.get("/api/genes").json()[0]["double_form"] == "fine"
    http.delete(f"/api/genes/{gene}").raise_for_status()
    assert http.get("/api/genes").json() == []
    problem(http.delete(f"/api/genes/{gene}"), 404)
    told = http.get("/api/pairs/odds", params={"dam": ids[0], "sire": ids[1]}).json()
    assert told["unlisted"] == ["Asphalt"]
    problem(http.get("/api/pairs/odds", params={"dam": ids[1], "sire": ids[0]}), 409)


def test_a_season_is_told_with_intervals_and_compared_in_words(lost: TestClient) -> None:
    assert lost.get("/api/seasons").json()["clutches"] == 0
    lost.post(f"{ROUND}/finished", json={}).raise_for_status()
    season = lost.get("/api/seasons", params={"year": NOW.year}).json()
    assert (season["hatched"]["k"], season["hatched"]["n"]) == (3, 4)
    assert season["hatched"]["low"] < 0.75 < season["hatched"]["high"]
    assert season["findings"][0]["text"] == "3 of 4 fertile eggs hatched, in 1 clutch."
    assert [d["dimension"] for d in season["dimensions"]][:2] == ["dam", "sire"]
    assert season["slugs"][0]["counts"] == ["5-1"]
    assert sum(cost["eggs"] for cost in season["costs"]) == pytest.approx(1.0)
    media = next(d for d in season["dimensions"] if d["dimension"] == "medium")["groups"]
    name = media[0]["name"]
    asked = {"by": "medium", "first": name, "second": "sand"}
    assert "sand" in problem(lost.get("/api/seasons/comparison", params=asked), 404)["detail"]
    same = lost.get("/api/seasons/comparison", params={**asked, "second": name}).json()
    assert same["words"].endswith("too few to call.")
    problem(lost.get("/api/seasons/comparison", params={**asked, "by": "moon"}), 422)


def test_a_season_is_told_at_the_level_the_keeper_set(lost: TestClient) -> None:
    lost.post(f"{ROUND}/finished", json={}).raise_for_status()
    usual = lost.get("/api/seasons").json()
    lost.put("/api/settings/rates.level", json={"value": 0.5}).raise_for_status()
    own = lost.get("/api/seasons").json()
    assert (usual["interval_level"], own["interval_level"]) == (0.9, 0.5)
    assert usual["hatched"]["low"] < own["hatched"]["low"]
    assert own["hatched"]["high"] < usual["hatched"]["high"]


def test_pests_knocks_and_an_altered_cabinet_become_grounds(lost: TestClient) -> None:
    at = NOW - timedelta(days=40)
    visit = {
        "key": "visit.with.flies", "box": "26-01",
        "opened_at": (at - timedelta(seconds=40)).isoformat(), "closed_at": at.isoformat(),
        "eggs": [{"number": 2, "acts": ["rolled"]}],
        "signs": [{"kind": "pests", "value": "flies"}],
    }  # fmt: skip
    lost.post("/api/visits", json={"visits": [visit]}).raise_for_status()
    cabinet = lost.get("/api/clutches/26-01").json()["boxes"][0]["cabinet"]
    path = f"/api/cabinets/{cabinet}"
    altered = {"what": "foam drilled", "at": (NOW - timedelta(days=80)).isoformat()}
    lost.post(f"{path}/alterations", json=altered).raise_for_status()
    assert any(e["text"] == "Altered: foam drilled" for e in lost.get(path).json()["events"])
    problem(lost.post(f"{path}/alterations", json={"what": " "}), 422)
    ahead = {"what": "glue", "at": (NOW + timedelta(days=1)).isoformat()}
    assert "future" in str(problem(lost.post(f"{path}/alterations", json=ahead), 422))
    (egg,) = lost.get(f"{ROUND}/losses").json()["lost"]
    grounds = {c["cause"]: [g["words"] for g in c["grounds"]] for c in egg["causes"]}
    assert "flies, ants or larvae in the box" in grounds["pests"]
    assert any("rolled" in words for words in grounds["embryo underneath or rolled"])
    assert any("altered" in words for words in grounds["poisoned air"])
