"""Animals, season, methods, lay days and photos through HTTP, and what they refuse."""

import io
from datetime import timedelta
from typing import Any

import pytest
from fastapi.testclient import TestClient
from PIL import Image

from samples import NOW
from sandboa.formats.pictures import LARGEST_PHOTO_BYTES
from web.asking import LAID, lay, problem


def add(http: TestClient, role: str, name: str, **more: Any) -> int:
    response = http.post("/api/animals", json={"role": role, "name": name, **more})
    assert response.status_code == 201, response.text
    return response.json()["id"]


def jpeg() -> bytes:
    held = io.BytesIO()
    Image.new("RGB", (64, 48), (200, 180, 150)).save(held, "JPEG")
    return held.getvalue()


def begin(http: TestClient, **more: Any) -> dict[str, Any]:
    laid_at = (NOW - timedelta(hours=3)).isoformat()
    response = http.post(
        "/api/lay-day-drafts", json={"dam": "Costmary", "laid_at": laid_at, **more}
    )
    assert response.status_code == 201, response.text
    return response.json()


def test_an_animal_from_added_to_a_page_that_tells_all(http: TestClient) -> None:
    traits = [{"name": "Puzzle", "form": "possible"}]
    dam = add(http, "dam", "Sorrel", hatch_year=2019, traits=traits, traits_text="shy")
    http.post(f"/api/animals/{dam}/weights", json={"mass_g": 1800})
    http.post(f"/api/animals/{dam}/meals", json={"taken": False, "prey": "small rat"})
    lay(http, laid_at=(NOW - timedelta(days=5)).isoformat())
    told = http.get(f"/api/animals/{dam}").json()
    assert told["animal"]["clutches"] == [{"year": 2026, "counts": ["5-1"]}]
    assert (told["traits_text"], told["weights"][0]["mass_g"]) == ("shy", 1800)
    assert told["animal"]["refusals_since"] == 1
    assert told["after_laying"]["clutch"] == "26-01"
    (listed,) = [a for a in http.get("/api/animals").json() if a["role"] == "dam"]
    assert listed["traits"] == [{"name": "Puzzle", "form": "possible"}]


@pytest.mark.parametrize(
    ("body", "field", "words"),
    [
        ({"role": "egg"}, "role", "dam"),
        ({"name": ""}, "name", "give a name"),
        ({"name": "🐍"}, "name", "letters"),
        ({"hatch_year": 2031}, "hatch_year", "2031"),
        ({"hatch_year": 1e400}, "hatch_year", ""),
        ({"code": "X" * 30}, "code", ""),
        ({"traits": [{"name": "Puzzle", "form": "double"}]}, "traits.0.form", "visual"),
        ({"dam": 9_999}, "dam", "no"),
        ({"colour": "green"}, "colour", "not a field here"),
    ],
)
def test_an_animal_that_cannot_be_is_refused_at_its_field(http, body, field, words) -> None:
    asked = {"role": "dam", "name": "Tansy", **body}
    if asked.get("hatch_year") == float("inf"):
        answer = http.post(
            "/api/animals",
            content='{"role": "dam", "name": "Tansy", "hatch_year": Infinity}',
            headers={"Content-Type": "application/json"},
        )
    else:
        answer = http.post("/api/animals", json=asked)
    told = problem(answer, answer.status_code)
    assert answer.status_code in (404, 422)
    if answer.status_code == 422:
        assert told["errors"][0]["field"] == field
        assert words in told["detail"]
    assert http.get("/api/animals").json() == []


@pytest.mark.parametrize("mass", ["12", "20000", "NaN", "-5", '"heavy"', "null"])
def test_a_weight_no_adult_has_is_refused(http: TestClient, mass: str) -> None:
    dam = add(http, "dam", "Sorrel")
    answer = http.post(
        f"/api/animals/{dam}/weights",
        content=f'{{"mass_g": {mass}}}',
        headers={"Content-Type": "application/json"},
    )
    assert problem(answer, 422)["errors"][0]["field"] == "mass_g"
    assert http.get(f"/api/animals/{dam}").json()["weights"] == []


def test_a_leap_is_a_question_that_can_be_confirmed(http: TestClient) -> None:
    dam = add(http, "dam", "Sorrel")
    http.post(f"/api/animals/{dam}/weights", json={"mass_g": 1850})
    asked = problem(http.post(f"/api/animals/{dam}/weights", json={"mass_g": 850}), 409)
    assert asked["confirm"] == "confirmed"
    sure = {"mass_g": 850, asked["confirm"]: True}
    assert http.post(f"/api/animals/{dam}/weights", json=sure).status_code == 201


def test_a_season_planned_paired_signed_and_prepared(http: TestClient) -> None:
    dam, sire = add(http, "dam", "Sorrel"), add(http, "sire", "Flint")
    pair = {"dam": dam, "sire": sire}
    assert http.post("/api/breeding/pairs", json=pair).status_code == 201
    assert http.get("/api/breeding").json()["plan"][0]["due"]
    assert http.post("/api/breeding/pairings", json=pair).status_code == 201
    (planned,) = http.get("/api/breeding").json()["plan"]
    assert planned["together"]
    pairing = planned["pairing"]
    assert http.post(f"/api/breeding/pairings/{pairing}/locks", json={}).status_code == 201
    assert http.post(f"/api/breeding/pairings/{pairing}/end", json={}).status_code == 201
    assert http.post("/api/breeding/signs", json={"dam": dam, "sign": "ovulation"}).is_success
    (told,) = http.get("/api/breeding").json()["dams"]
    assert told["pairings"][0]["locks"]
    assert told["forecast"]["window"]["p10"] < told["forecast"]["window"]["p90"]
    task = told["preparations"][0]["task"]
    assert http.post("/api/breeding/preparations", json={"dam": dam, "task": task}).is_success
    assert http.get("/api/breeding").json()["dams"][0]["preparations"][0]["done_at"]
    problem(http.post("/api/breeding/pairs", json={"dam": sire, "sire": dam}), 409)
    problem(http.post("/api/breeding/signs", json={"dam": dam, "sign": "mood"}), 422)
    problem(http.post("/api/breeding/pairings/999/end", json={}), 404)


def test_methods_and_numbers_of_the_house(http: TestClient) -> None:
    (standard,) = http.get("/api/methods").json()["methods"]
    method = {**standard["method"], "name": "Cooler", "temperature_c": 30.5}
    made = http.post("/api/methods", json={"method": method, "chosen": True}).json()
    told = http.get("/api/methods").json()["methods"]
    assert (told[0]["method"]["name"], told[0]["chosen"]) == ("Cooler", True)
    lay(http)
    changed = {**method, "closing": "sealed film"}
    body = {"method": changed, "chosen": True}
    assert http.put(f"/api/methods/{made['id']}", json=body).is_success
    clutch = http.get("/api/clutches/26-01").json()
    assert clutch["method"]["closing"] == LAID["closing"]
    assert {d["line"] for d in clutch["differences"]} >= {"closing", "temperature"}
    problem(http.post("/api/methods", json={"method": method}), 409)
    hot = {"method": {**method, "name": "Hot", "temperature_c": 40}}
    assert "40" in problem(http.post("/api/methods", json=hot), 422)["detail"]
    assert http.delete(f"/api/methods/{made['id']}").is_success
    (first, *_) = http.get("/api/settings").json()
    name = first["name"]
    assert http.put(f"/api/settings/{name}", json={"value": first["value"] + 1}).is_success
    assert http.get("/api/settings").json()[0]["value"] == first["value"] + 1
    problem(http.put("/api/settings/nothing", json={"value": 1}), 422)
    problem(http.put(f"/api/settings/{name}", json={"value": 1e9}), 422)


def test_readiness_says_which_condition_fails(http: TestClient) -> None:
    lay(http)
    (cabinet,) = http.get("/api/readiness").json()
    assert (cabinet["cabinet"], cabinet["ready"]) == ("North", False)
    assert cabinet["text"]


def test_a_lay_day_is_saved_carried_on_and_recorded(http: TestClient) -> None:
    lay_day = begin(http)
    path = f"/api/lay-day-drafts/{lay_day['id']}"
    state = {
        **lay_day["state"],
        "eggs": [{"x": 0.3 * i, "y": 0.5, "slug": i == 2} for i in range(3)],
        "lump": "none", "cabinet": "North", "shelf": "lower", "set_point_c": 31.5,
    }  # fmt: skip
    saved = http.put(path, json={"revision": 1, "step": "box", "state": state}).json()
    assert (saved["revision"], saved["step"], saved["count"]) == (2, "box", "3-1")
    # Another device that still holds the first revision is told, and nothing of it is kept.
    stale = {"revision": 1, "step": "dam", "state": {**state, "eggs": []}}
    assert "another device" in problem(http.put(path, json=stale), 409)["detail"]
    assert http.get(path).json()["count"] == "3-1"
    http.post("/api/photos", params={"owner": lay_day["id"], "egg": 2}, content=jpeg())
    assert http.post(f"{path}/clutch").json()["code"] == "26-01"
    assert [p["egg"] for p in http.get("/api/clutches/26-01/photos").json()] == [2]
    assert http.get("/api/lay-day-drafts").json() == []
    problem(http.post(f"{path}/clutch"), 409)
    again = http.post("/api/lay-day-drafts", json={"dam": "costmary"})
    assert problem(again, 409)["confirm"] == "second_clutch"
    assert begin(http, second_clutch=True)["state"]["second_clutch"]


def test_what_is_missing_names_its_step_and_nothing_is_half_stored(http: TestClient) -> None:
    path = f"/api/lay-day-drafts/{begin(http)['id']}"
    told = problem(http.post(f"{path}/clutch"), 422)
    assert told["errors"][0]["field"] in ("count", "shelf")
    assert http.get("/api/today").json()["boxes"] == []
    problem(http.get("/api/lay-day-drafts/999"), 404)
    body = {"revision": 1, "step": "dance", "state": http.get(path).json()["state"]}
    problem(http.put(path, json=body), 422)
    assert http.post(f"{path}/aside", json={"aside": True}).is_success
    assert http.get("/api/lay-day-drafts").json() == []


def test_candling_and_the_method_of_one_clutch(http: TestClient) -> None:
    lay(http)
    seen = {"vessels": "weak", "disc": "side"}
    assert http.post("/api/clutches/26-01/eggs/1/candlings", json=seen).status_code == 201
    clutch = http.get("/api/clutches/26-01").json()
    assert clutch["eggs"][0]["torchlight"]["vessels"] == "weak"
    own = {**clutch["method"], "mould": "isolate"}
    assert http.put("/api/clutches/26-01/method", json=own).is_success
    assert http.get("/api/clutches/26-01").json()["method"]["mould"] == "isolate"
    problem(http.post("/api/clutches/26-01/eggs/1/candlings", json={"vessels": "blue"}), 422)


def test_the_qr_opens_the_clutch_and_only_one_that_is(http: TestClient) -> None:
    lay(http)
    drawn = http.get("/api/clutches/26-01/qr.svg")
    assert drawn.headers["content-type"].startswith("image/svg+xml")
    assert "<svg" in drawn.text
    problem(http.get("/api/clutches/26-99/qr.svg"), 404)


@pytest.mark.parametrize(
    ("content", "status"),
    [
        (b"", 422),
        (b"MZ not a photo", 422),
        (b"<svg onload='x()'/>", 422),
        (b"\xff\xd8\xff\xe0 cut off", 422),
        (bytes(LARGEST_PHOTO_BYTES + 1), 413),
    ],
)
def test_what_is_no_photo_is_refused_and_not_kept(http, tmp_path, content, status) -> None:
    lay_day = begin(http)
    problem(http.post("/api/photos", params={"owner": lay_day["id"]}, content=content), status)
    assert http.get(f"/api/lay-day-drafts/{lay_day['id']}").json()["photos"] == []
    assert list(tmp_path.rglob("*.jpg")) == []


def test_a_photo_has_no_path_of_its_sender(http: TestClient, tmp_path) -> None:
    lay_day = begin(http)
    of = {"owner": lay_day["id"], "step": "../../etc"}
    problem(http.post("/api/photos", params=of, content=jpeg()), 422)
    kept = http.post("/api/photos", params={"owner": lay_day["id"]}, content=jpeg()).json()["photo"]
    files = [f.name for f in tmp_path.rglob("*.jpg")]
    assert sorted(files) == sorted([f"{kept['file']}.jpg", f"{kept['file']}-small.jpg"])
    for file in ("..%2f..%2fhouse.sqlite3", "house", "0" * 63, "g" * 64):
        answer = http.get(f"/api/photos/{file}.jpg")
        assert answer.headers["content-type"] != "image/jpeg"
        assert b"SQLite" not in answer.content
    assert http.get(f"/api/photos/{kept['file']}.jpg").headers["content-type"] == "image/jpeg"
    problem(http.post("/api/photos", params={"owner": 999}, content=jpeg()), 404)
    assert http.delete(f"/api/photos/{kept['id']}").is_success
    problem(http.delete(f"/api/photos/{kept['id']}"), 404)


def test_labels_of_many_clutches_are_one_answer(http: TestClient) -> None:
    lay(http)
    lay(http, dam="Tansy")
    labels = http.get("/api/labels", params={"clutches": "26-02, 26-01"}).json()
    assert [label["code"] for label in labels] == ["26-02", "26-01"]
    whole = http.get("/api/clutches/26-01").json()
    assert labels[1]["parents"] == whole["card"]["parents"]
    assert labels[1]["pips"] == whole["forecast"]["typical_pip"]
    problem(http.get("/api/labels", params={"clutches": "26-01,26-99"}), 404)
    problem(http.get("/api/labels", params={"clutches": " , "}), 422)
