"""Old records over HTTP: a file read, checked, stored in one act; past clutches corrected."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from web.asking import problem

LIST = (
    b"Dam;Sire;Laid;Eggs-Slugs;Hatched;First pip\n"
    b"Sorrel;Flint;12.06.2019;7-2;5;08.08.2019\n"
    b"Tansy;Flint;14.06.2019;7/2;9;\n"
    b"Yarrow;;summer;6-0;6;\n"
)


def read(http: TestClient, data: bytes = LIST, **query: Any) -> dict[str, Any]:
    answer = http.post("/api/old-records/files/read", params=query, content=data)
    assert answer.status_code == 200, answer.text
    return answer.json()


def asked(told: dict[str, Any], **more: Any) -> dict[str, Any]:
    return {"kind": told["kind"], "lines": [line["cells"] for line in told["lines"]], **more}


def check(http: TestClient, body: dict[str, Any]) -> dict[str, Any]:
    answer = http.post("/api/old-records/check", json=body)
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_a_list_is_read_checked_mended_and_stored(http: TestClient) -> None:
    told = read(http)
    assert (told["kind"], told["complete"]) == ("clutches", True)
    assert [column["holds"] for column in told["columns"]] == [
        "dam", "sire", "laid", "count", "hatched", "first_pip",
    ]  # fmt: skip
    assert told["columns"][2]["examples"] == ["12.06.2019", "14.06.2019", "summer"]
    body = asked(told)
    checked = check(http, body)
    assert (checked["order"], checked["order_asked"], checked["asked"]) == ("dmy", False, False)
    assert [line["state"] for line in checked["lines"]] == ["new", "refused", "refused"]
    assert checked["lines"][0]["cells"]["first_pip"] == "2019-08-08"
    assert [own["holds"] for line in checked["lines"] for own in line["problems"]] == [
        "hatched", "laid",
    ]  # fmt: skip
    assert {name["name"]: name["new_role"] for name in checked["names"]} == {
        "Sorrel": "dam", "Tansy": "dam", "Flint": "sire",
    }  # fmt: skip
    refused = problem(http.post("/api/old-records", json=body), 422)
    assert refused["errors"][0]["field"] == "lines.2.laid"
    body["lines"][1]["hatched"] = "4"
    body["lines"][2]["laid"] = "2019-07-01"
    act = http.post("/api/old-records", json=body)
    assert act.status_code == 201
    assert act.json()["summary"] == "Old records: 3 clutches, 4 new animals"
    listed = http.get("/api/past-clutches").json()
    assert [(own["dam"], own["laid"], own["count"]) for own in listed] == [
        ("Yarrow", "2019-07-01", "6-0"),
        ("Tansy", "2019-06-14", "7-2"),
        ("Sorrel", "2019-06-12", "7-2"),
    ]
    assert listed[2]["days_to_pip"] == 57
    assert http.get("/api/seasons").json()["past"] == 3
    http.post(f"/api/acts/{act.json()['id']}/undo")
    assert http.get("/api/past-clutches").json() == []
    assert http.get("/api/animals").json() == []


def test_days_that_read_two_ways_are_asked_about_before_anything(http: TestClient) -> None:
    body = asked(read(http, b"Dam,Laid,Eggs\nSorrel,6/7/2019,7-2\n"))
    checked = check(http, body)
    assert (checked["order_asked"], checked["lines"]) == (True, [])
    assert "day or the month" in problem(http.post("/api/old-records", json=body), 422)["detail"]
    american = check(http, {**body, "order": "mdy"})
    assert american["lines"][0]["cells"]["laid"] == "2019-06-07"


def test_columns_can_be_said_and_what_is_no_list_is_told(http: TestClient) -> None:
    data = "Mutti,Tag,Stück\nSorrel,2019-06-12,7-2\n".encode()
    assert read(http, data)["complete"] is False
    told = read(http, data, kind="clutches", column=["dam", "laid", "count"])
    assert told["lines"] == [
        {"sheet": "", "line": 2, "cells": {"dam": "Sorrel", "laid": "2019-06-12", "count": "7-2"}}
    ]
    refused = http.post("/api/old-records/files/read", content=b"1,2\n3,4\n")
    assert "No headings" in problem(refused, 422)["detail"]


def test_a_name_that_is_nearly_another_is_answered(http: TestClient) -> None:
    http.post("/api/animals", json={"role": "dam", "name": "Sorrel"})
    body = asked(read(http, b"Dam,Laid,Eggs\nSorel,2019-06-12,7-2\n"))
    checked = check(http, body)
    assert checked["asked"] is True
    (near,) = checked["names"][0]["near"]
    assert near["name"] == "Sorrel"
    problem(http.post("/api/old-records", json=body), 409)
    body["names"] = [{"name": "Sorel", "role": "dam", "animal": near["id"]}]
    assert check(http, body)["asked"] is False
    assert http.post("/api/old-records", json=body).status_code == 201
    assert [own["name"] for own in http.get("/api/animals").json()] == ["Sorrel"]


@pytest.fixture
def past(http: TestClient) -> dict[str, Any]:
    """One past clutch."""
    cells = {"dam": "Sorrel", "laid": "2019-06-12", "count": "7-2", "hatched": "5"}
    http.post("/api/old-records", json={"kind": "clutches", "lines": [cells]})
    (told,) = http.get("/api/past-clutches").json()
    return told


def form(past: dict[str, Any], **changes: Any) -> dict[str, Any]:
    own = {key: past[key] for key in past if key not in ("id", "revision", "days_to_pip")}
    return {**own, **changes}


def test_a_past_clutch_is_corrected_where_nobody_did_meanwhile(
    http: TestClient, past: dict[str, Any]
) -> None:
    path = f"/api/past-clutches/{past['id']}"
    seen = {"If-Match": f'"{past["revision"]}"'}
    refused = problem(http.put(path, json=form(past, hatched=6), headers=seen), 422)
    assert refused["errors"][0]["field"] == "hatched"
    unclear = problem(http.put(path, json=form(past, laid="6/7/2019"), headers=seen), 422)
    assert "month" in unclear["detail"]
    named = form(past, count="8-2", laid="12 Jun 2019")
    assert http.put(path, json=named, headers=seen).status_code == 200
    changed = problem(http.put(path, json=form(past, count="6-1"), headers=seen), 412)
    assert changed["current"]["form"]["count"] == "8-2"
    taken = http.delete(path)
    assert taken.json()["summary"] == "Past clutch 8-2 of Sorrel taken away"
    assert problem(http.delete(path), 404)["detail"] == "There is no such past clutch"


def test_it_stands_on_the_pages_of_its_parents(http: TestClient, past: dict[str, Any]) -> None:
    (sorrel,) = http.get("/api/animals").json()
    assert sorrel["clutches"] == [{"year": 2019, "counts": ["7-2"]}]
    page = http.get(f"/api/animals/{sorrel['id']}").json()
    assert page["clutches"] == [
        {
            "code": None,
            "past": True,
            "laid_at": "2019-06-12T12:00:00Z",
            "count": "7-2",
            "mate": None,
        }
    ]
