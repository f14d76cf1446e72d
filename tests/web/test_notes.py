"""Notes over HTTP: on one thing, found by words, put right over what was seen, in the package."""

import io
import zipfile
from datetime import timedelta
from typing import Any

from fastapi.testclient import TestClient

from samples import NOW
from web.asking import lay, problem


def write(http: TestClient, about: int, text: str, **more: Any) -> int:
    answer = http.post("/api/notes", json={"about": about, "text": text, **more})
    assert answer.status_code == 201, answer.text
    note: int = answer.json()["id"]
    return note


def test_notes_of_one_thing_and_those_found(http: TestClient) -> None:
    lay(http)
    clutch = http.get("/api/clutches/26-01").json()
    early = (NOW - timedelta(days=3)).isoformat()
    note = write(http, clutch["id"], "Wet from the start", at=early)
    write(http, clutch["boxes"][0]["id"], "Lid fits badly")
    (own,) = http.get(f"/api/notes?about={clutch['id']}").json()
    assert (own["id"], own["at"]) == (note, early.replace("+00:00", "Z"))
    assert own["about"]["clutch"] == "26-01"
    found = http.get("/api/notes", params={"words": "lid 26-01"}).json()
    assert [n["about"]["name"] for n in found] == ["box 26-01"]
    assert len(http.get("/api/notes").json()) == 2


def test_a_note_is_put_right_over_what_was_seen(http: TestClient) -> None:
    lay(http)
    clutch = http.get("/api/clutches/26-01").json()["id"]
    place = f"/api/notes/{write(http, clutch, 'frist')}"
    (held,) = http.get(f"/api/notes?about={clutch}").json()
    assert http.put(place, json={"text": "x"}, headers={"If-Match": '"old"'}).status_code == 412
    seen = {"If-Match": f'"{held["revision"]}"'}
    assert http.put(place, json={"text": "first"}, headers=seen).status_code == 200
    assert http.get(f"/api/notes?about={clutch}").json()[0]["text"] == "first"
    undone = http.delete(place).json()["id"]
    assert http.get(f"/api/notes?about={clutch}").json() == []
    http.post(f"/api/acts/{undone}/undo")
    assert len(http.get(f"/api/notes?about={clutch}").json()) == 1


def test_bad_notes_are_answered_in_words(http: TestClient) -> None:
    lay(http)
    clutch = http.get("/api/clutches/26-01").json()["id"]
    for text in ("", "  \n ", "x" * 100_000):
        told = problem(http.post("/api/notes", json={"about": clutch, "text": text}), 422)
        assert told["errors"][0]["field"] == "text"
    problem(http.post("/api/notes", json={"about": 999_999, "text": "words"}), 404)
    problem(http.get("/api/notes?about=999999"), 404)
    problem(http.delete("/api/notes/999999"), 404)
    moment = NOW.isoformat()
    huge = {"key": "a-huge-note", "box": "26-01", "opened_at": moment, "closed_at": moment,
            "note": "x" * 100_000}  # fmt: skip
    (outcome,) = http.post("/api/visits", json={"visits": [huge]}).json()["outcomes"]
    assert (outcome["state"], outcome["field"]) == ("refused", "note")
    assert "too many" in outcome["reason"]
    assert http.get("/api/notes").json() == []


def test_notes_go_out_with_the_house(http: TestClient) -> None:
    lay(http)
    write(http, http.get("/api/clutches/26-01").json()["id"], "=SUM(A1) is no formula here")
    package = zipfile.ZipFile(io.BytesIO(http.get("/api/house/package").content))
    told = package.read("data/note.csv").decode()
    assert "'=SUM(A1) is no formula here" in told
