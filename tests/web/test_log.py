"""The log of everything over HTTP: by what it is about, page by page, and what rests on a line."""

from datetime import timedelta

from fastapi.testclient import TestClient

from samples import NOW
from web.asking import lay, problem


def water(http: TestClient, grams: float, days_ago: float) -> int:
    at = (NOW - timedelta(days=days_ago)).isoformat()
    told = http.post("/api/boxes/26-01/waterings", json={"water_g": grams, "at": at})
    act: int = told.json()["id"]
    return act


def test_a_log_says_when_it_happened_and_goes_on(http: TestClient) -> None:
    lay(http)
    (box,) = http.get("/api/clutches/26-01").json()["boxes"]
    for days_ago in (9.0, 5.0, 7.0):
        water(http, 20.0, days_ago)
    first = http.get(f"/api/acts?about={box['id']}&limit=2").json()
    rest = http.get(f"/api/acts?about={box['id']}&before={first[-1]['act']}").json()
    assert [line["kind"] for line in (*first, *rest)] == ["water", "water", "water", "lay"]
    at = [line["at"] for line in (*first, *rest)]
    assert at[:3] == [f"2026-06-{day:02}T18:30:00Z" for day in (7, 9, 5)]
    assert {line["recorded_at"] for line in first} == {NOW.isoformat().replace("+00:00", "Z")}


def test_what_rests_on_a_line_is_told(http: TestClient) -> None:
    lay(http)
    poured = water(http, 20.0, 5.0)
    assert http.get(f"/api/acts/{poured}/dependents").json() == {"sentences": []}
    moment = (NOW - timedelta(days=2)).isoformat()
    seen = {"key": "weighed-it", "box": "26-01", "opened_at": moment, "closed_at": moment}
    fresh = {**seen, "key": "set-it-up", "fresh": {"medium": "perlite", "mass_g": 1200.0}}
    early = (NOW - timedelta(days=8)).isoformat()
    http.post("/api/visits", json={"visits": [{**fresh, "opened_at": early, "closed_at": early}]})
    http.post("/api/visits", json={"visits": [{**seen, "mass_g": 1190.0}]})
    told = http.get(f"/api/acts/{poured}/dependents").json()["sentences"]
    assert told == ["1 later weighing rests on it (box 26-01)"]


def test_what_has_no_log_is_answered_in_words(http: TestClient) -> None:
    lay(http)
    assert "nothing such" in problem(http.get("/api/acts?about=99999"), 404)["detail"]
    assert "no act" in problem(http.get("/api/acts/99999/dependents"), 404)["detail"]
    problem(http.get("/api/acts?limit=0"), 422)


def test_what_a_line_recorded_is_corrected_field_by_field(http: TestClient) -> None:
    lay(http)
    poured = water(http, 20.0, 5.0)
    (line,) = (entry for entry in http.get("/api/acts").json() if entry["act"] == poured)
    assert line["correctable"] is True
    record = http.get(f"/api/acts/{poured}/record").json()
    told = {field["name"]: field for field in record["fields"]}
    assert (told["water_g"]["kind"], told["water_g"]["number"]) == ("grams", 20.0)
    assert (told["at"]["kind"], told["at"]["moment"]) == ("moment", "2026-06-09T18:30:00Z")
    place = f"/api/acts/{poured}/record"
    asked = {"fields": [{"name": "water_g", "number": 25.0}]}
    assert http.put(place, json=asked, headers={"If-Match": '"old"'}).status_code == 412
    seen = {"If-Match": f'"{record["revision"]}"'}
    act = http.put(place, json=asked, headers=seen).json()
    assert "25" in act["summary"]
    log = http.get("/api/acts").json()
    assert [entry["correctable"] for entry in log[:2]] == [True, False]
    assert log[0]["at"] == "2026-06-09T18:30:00Z"
    again = http.put(place, json=asked)
    assert "corrected since" in problem(again, 409)["detail"]


def test_a_correction_that_cannot_be_is_refused_at_its_field(http: TestClient) -> None:
    lay(http)
    place = f"/api/acts/{water(http, 20.0, 5.0)}/record"
    early = (NOW - timedelta(days=90)).isoformat()
    for field, asked in (
        ("at", {"name": "at", "moment": early}),
        ("water_g", {"name": "water_g", "text": "much"}),
        ("water_g", {"name": "water_g"}),
        ("colour", {"name": "colour", "text": "blue"}),
    ):
        refused = problem(http.put(place, json={"fields": [asked]}), 422)
        assert refused["errors"][0]["field"] == field
    laying = next(e["act"] for e in http.get("/api/acts").json() if e["kind"] == "lay")
    assert "own page" in problem(http.get(f"/api/acts/{laying}/record"), 409)["detail"]
