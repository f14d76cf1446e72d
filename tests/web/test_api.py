"""The API through HTTP: a keeper's day, refusals as problem details, and what guards it."""

from datetime import timedelta

import pytest
from fastapi.testclient import TestClient

from samples import NOW, NOW_S
from sandboa.formats.logger_files import LARGEST_FILE_BYTES
from sandboa.web.clock import StoppedClock
from sandboa.web.security import request_limits
from web.asking import LAID, lay, problem


def hang(http: TestClient, name: str = "Lower") -> int:
    since = (NOW - timedelta(days=30)).isoformat()
    body = {"name": name, "place": {"box": "26-01"}, "since": since, "checked": True}
    return http.post("/api/probes", json=body).json()["id"]


def csv_file(days: int = 20, temperature_c: float = 30.0) -> bytes:
    lines = ["time,temperature (C),RH %"]
    for hour in range(days * 24):
        moment = NOW - timedelta(hours=hour)
        lines.append(f"{moment.isoformat()},{temperature_c},95")
    return "\n".join(lines).encode()


def test_a_keepers_day(http: TestClient) -> None:
    assert http.get("/api/today").json()["boxes"] == []
    assert lay(http)["code"] == "26-01"
    for number in (1, 2):
        assert http.post(f"/api/clutches/26-01/eggs/{number}/grades", json={"grade": 2}).is_success
    (line,) = http.get("/api/today").json()["boxes"]
    assert (line["name"], line["urgency"]) == ("26-01", "today")
    assert [(c["day"], c["count"]) for c in line["clutches"]] == [(20, "5-1")]
    assert "2 of 4 eggs dented early" in line["attention"][0]["text"]
    assert [egg["early"] for egg in line["eggs"]] == [True, True, False, False, False]
    watered = http.post("/api/boxes/26-01/waterings", json={"water_g": 45}).json()
    clutch = http.get("/api/clutches/26-01").json()
    assert clutch["log"][0]["summary"] == "Box 26-01: 45 g of water added"
    assert clutch["eggs"][0]["excess"] == 2
    assert clutch["forecast"]["typical_pip"]["p10"] < clutch["forecast"]["typical_pip"]["p90"]
    assert http.post(f"/api/acts/{watered['id']}/undo").json()["summary"].startswith("Undone")
    assert http.get("/api/clutches/26-01").json()["log"][1]["undone"]


def test_today_is_told_anew_after_an_act_and_after_a_minute(
    http: TestClient, clock: StoppedClock
) -> None:
    lay(http)
    first = http.get("/api/today").json()
    clock.at_s += 61
    later = http.get("/api/today").json()
    shares = [told["boxes"][0]["clutches"][0]["fraction"] for told in (first, later)]
    assert shares[1] > shares[0]
    http.post("/api/clutches/26-01/eggs/1/grades", json={"grade": 1})
    assert http.get("/api/today").json()["boxes"][0]["eggs"][0]["grade"] == 1


def test_a_file_is_previewed_then_stored_then_known(http: TestClient) -> None:
    lay(http)
    probe = hang(http)
    preview = http.post("/api/readings/files/preview", content=csv_file()).json()
    (sensor,) = preview["sensors"]
    assert (sensor["rows"], sensor["unit"], preview["questions"]) == (480, "c", [])
    assert http.get("/api/clutches/26-01").json()["forecast"]["measured_share"] == 0
    for expected in (480, 0):
        stored = http.post(
            "/api/readings/files",
            params={"probe": probe, "file_name": "C:\\logs\\box.csv"},
            content=csv_file(),
        ).json()
        (taken,) = stored["stored"]
        assert (taken["probe"], taken["intake"]["new"]) == ("Lower", expected)
        assert (stored["act"] is None) is (expected == 0)
    clutch = http.get("/api/clutches/26-01").json()
    assert clutch["rests_on"] == "Measured the whole time."
    assert clutch["boxes"][0]["temperature_c"] == pytest.approx(30.0)
    assert all(piece["source"] == "box probe" for piece in clutch["ribbon"])


def two_sensors() -> bytes:
    lines = ["time,T1 °C,H1 %,T2 °C,H2 %"]
    lines += [f"{(NOW - timedelta(hours=hour)).isoformat()},30.0,95,31.0,90" for hour in range(48)]
    return "\n".join(lines).encode()


def test_a_file_of_two_sensors_goes_to_two_probes_or_to_one_of_them(http: TestClient) -> None:
    lay(http)
    lower, upper = hang(http), hang(http, "Upper")
    told = http.post("/api/readings/files/preview", content=two_sensors()).json()
    assert [(s["name"], s["temperature_column"], s["rows"]) for s in told["sensors"]] == [
        ("1", 1, 48), ("2", 3, 48),
    ]  # fmt: skip
    assert [c["used_for"] for c in told["columns"]] == [
        "time", "temperature", "humidity", "temperature", "humidity",
    ]  # fmt: skip
    assert told["columns"][1]["cells"][:2] == ["30.0", "30.0"]
    refused = http.post("/api/readings/files", params={"probe": lower}, content=two_sensors())
    assert "of 2 sensors and 1 probes are named" in problem(refused, 422)["detail"]
    one = http.post(
        "/api/readings/files", params={"probe": [0, upper]}, content=two_sensors()
    ).json()
    assert [(s["name"], s["probe"], s["intake"]["new"]) for s in one["stored"]] == [
        ("2", "Upper", 48)
    ]
    both = http.post(
        "/api/readings/files", params={"probe": [lower, upper]}, content=two_sensors()
    ).json()
    assert [s["intake"]["new"] for s in both["stored"]] == [48, 0]


def test_columns_are_used_as_the_keeper_says(http: TestClient) -> None:
    unnamed = b"2026-03-01T09:00Z,31.5,95\n2026-03-01T10:00Z,31.6,96\n"
    told = http.post("/api/readings/files/preview", content=unnamed).json()
    assert [q["about"] for q in told["questions"]] == ["columns"]
    uses = ["time", "humidity", "temperature"]
    said = http.post(
        "/api/readings/files/preview", params={"column": uses, "unit": "f"}, content=unnamed
    ).json()
    assert said["questions"] == []
    (sensor,) = said["sensors"]
    assert sensor["sample"][0]["temperature_c"] == pytest.approx(35.0)
    none = http.post(
        "/api/readings/files/preview", params={"column": ["unused"] * 3}, content=unnamed
    ).json()
    assert [q["text"] for q in none["questions"]] == [
        "Which columns are the time and the temperature?"
    ]
    odd = http.post("/api/readings/files/preview", params={"column": "moon"}, content=unnamed)
    problem(odd, 422)


def test_open_questions_stop_a_file_from_being_stored(http: TestClient) -> None:
    lay(http)
    probe = hang(http)
    ambiguous = b"time,temp\n03/04/2026 09:00,31\n"
    asked = http.post("/api/readings/files/preview", content=ambiguous).json()
    assert {q["about"] for q in asked["questions"]} == {"order", "zone"}
    refused = http.post("/api/readings/files", params={"probe": probe}, content=ambiguous)
    assert "3rd of April" in problem(refused, 422)["detail"]
    told = http.post(
        "/api/readings/files/preview",
        params={"order": "dmy", "zone": "Atlantis/City"},
        content=ambiguous,
    )
    assert problem(told, 422)["errors"][0]["field"] == "zone"


@pytest.mark.parametrize(
    ("changes", "field", "words"),
    [
        ({"laid_at": "2027-01-01T09:00:00+00:00"}, "laid_at", "future"),
        ({"laid_at": "2026-06-01T09:00:00"}, "laid_at", "offset"),
        ({"laid_at": "yesterday"}, "laid_at", "date and time"),
        ({"eggs": []}, "eggs", "outside 1 to 20"),
        ({"eggs": [{"x": 0.02 * i, "y": 0.4} for i in range(40)]}, "eggs", "40 eggs"),
        ({"eggs": [{"x": 0.5, "y": 0.5}] * 2}, "eggs", "same place"),
        ({"dam": "🐍"}, "dam", "letters"),
        ({"dam": "S" * 10_000}, "dam", "too many"),
        ({"dam": ""}, "dam", "empty"),
        ({"set_point_c": 451}, "set_point_c", "above 60"),
        ({"set_point_c": 40}, "set point", "outside 20 to 36"),
        ({"closing": "hope"}, "closing", "not one of"),
        ({"water": 5}, "water", "not a field here"),
        ({"medium": "sawdust"}, "medium", "not a medium"),
        ({"code": "26/04"}, "code", "letters, digits and hyphens"),
    ],
)
def test_a_clutch_that_cannot_be_is_refused_at_its_field(http, changes, field, words) -> None:
    told = problem(http.post("/api/clutches", json={**LAID, **changes}), 422)
    assert told["errors"][0]["field"] == field
    assert words in told["detail"]
    assert http.get("/api/today").json()["boxes"] == []


def test_what_is_not_there_and_what_is_taken(http: TestClient) -> None:
    problem(http.get("/api/clutches/26-99"), 404)
    problem(http.post("/api/acts/77/undo"), 404)
    problem(http.get("/api/nowhere"), 404)
    lay(http, code="26-07")
    problem(http.post("/api/clutches", json={**LAID, "code": "26-07"}), 409)
    problem(http.post("/api/clutches/26-07/eggs/5/grades", json={"grade": 1}), 422)
    problem(http.post("/api/clutches/26-07/eggs/1/grades", json={"grade": 7}), 422)
    problem(http.post("/api/boxes/26-07/waterings", json={"water_g": 0}), 422)


@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("POST", "/api/acts/99999999999999999999999/undo", None),
        ("POST", "/api/clutches/26-01/eggs/99999999999999999999/grades", '{"grade": 1}'),
        ("POST", "/api/clutches", "[]"),
        ("POST", "/api/clutches", '{"dam":'),
        ("POST", "/api/bench/forecast?laid_at=9999-12-31T23:59:59Z&set_point_c=31", None),
        ("POST", "/api/bench/forecast?laid_at=0001-01-01T00:00:00Z&set_point_c=31", None),
        ("POST", "/api/bench/forecast?laid_at=2026-05-25T18:30:00Z&set_point_c=nan", None),
        (
            "POST",
            "/api/probes",
            '{"name": "P", "place": {"cabinet": "North"}, "since": "0001-01-01T00:00:00Z"}',
        ),
        ("PUT", "/api/clutches/26-01", "null"),
    ],
)
def test_absurd_requests_are_refused_in_words(http, method, path, body) -> None:
    lay(http)
    answer = http.request(method, path, content=body, headers={"Content-Type": "application/json"})
    told = problem(answer, 422)
    assert told["errors"]
    assert not told["detail"].startswith(" ")


def test_bodies_too_large_binary_files_and_other_sites_are_refused(http, monkeypatch) -> None:
    monkeypatch.setattr(request_limits, "LIMITS", (("/api/readings/files", 1000),))
    told = problem(http.post("/api/readings/files/preview", content=bytes(2000)), 413)
    assert "Nothing was stored" in told["detail"]

    def endless():
        yield from (b"x" * 400 for _ in range(5))

    problem(http.post("/api/readings/files/preview", content=endless()), 413)
    problem(http.post("/api/readings/files/preview", content=b"\0\1" * 300), 422)
    elsewhere = http.post(
        "/api/clutches", json=LAID, headers={"Origin": "http://elsewhere.example"}
    )
    problem(elsewhere, 403)
    assert http.get("/api/alive", headers={"Host": "elsewhere.example"}).status_code == 400
    assert "default-src 'self'" in http.get("/api/alive").headers["content-security-policy"]


def test_bench_answers_without_any_data(http: TestClient) -> None:
    asked = {
        "laid_at": (NOW - timedelta(days=20)).isoformat(),
        "set_point_c": 31.5,
        "other_set_point_c": 30.0,
        "eggs": 6,
    }
    told = http.post("/api/bench/forecast", params=asked).json()
    assert told["shift_days"] == pytest.approx(735 / 11 - 735 / 12.5, abs=0.01)
    with_file = http.post("/api/bench/forecast", params=asked, content=csv_file()).json()
    assert with_file["readings"] == 480
    assert with_file["forecast"]["measured_share"] == pytest.approx(1.0)
    open_file = b"time,temp\n03/04/2026 9:00,31"
    questions = http.post("/api/bench/forecast", params=asked, content=open_file).json()
    assert questions["forecast"] is None
    assert len(questions["questions"]) == 2
    assert http.post("/api/bench/mix", json={"medium": "perlite", "dry_mass_g": 150}).json()[
        "water_g"
    ] == pytest.approx(150)
    masses = {"reference_g": 1180, "current_g": 1134, "set_up_water_g": 100}
    assert http.post("/api/bench/top-up", json=masses).json()["add_g"] == 45
    heavier = http.post("/api/bench/top-up", json={**masses, "current_g": 1200})
    assert "heavier" in problem(heavier, 422)["detail"]


def test_rules_are_those_of_the_core(http: TestClient) -> None:
    told = http.get("/api/rules").json()
    assert told["dimple_stages"][0] == {"development": 0.5, "grade": 1}
    assert told["largest_file_bytes"] == LARGEST_FILE_BYTES


def test_counts_and_choices_for_the_form(http: TestClient) -> None:
    told = http.get("/api/lay-day/suggestion", params={"count": "7-2"}).json()
    assert [egg["slug"] for egg in told["eggs"]] == [False] * 5 + [True] * 2
    problem(http.get("/api/lay-day/suggestion", params={"count": "40"}), 422)
    lay(http)
    choices = http.get("/api/lay-day/choices").json()
    assert choices["cabinets"] == [{"name": "North", "shelves": ["lower"], "set_point_c": 31.5}]
    assert (choices["dams"], choices["next_code"]) == (["Sorrel"], "26-02")


def test_reading_by_hand_and_correcting_over_http(http: TestClient) -> None:
    lay(http)
    body = {"place": {"box": "26-01"}, "temperature_c": 30.5, "humidity": 0.9}
    assert http.post("/api/readings/by-hand", json=body).is_success
    problem(http.post("/api/readings/by-hand", json={**body, "humidity": 1.4}), 422)
    corrected = http.put("/api/clutches/26-01", json={**LAID, "dam": "Tansy"}).json()
    assert corrected["code"] == "26-01"
    assert http.get("/api/clutches/26-01").json()["dam"] == "Tansy"
    (probe,) = http.get("/api/probes").json()
    assert (probe["place"], probe["by_hand"]) == ("box 26-01", True)
    assert pytest.approx(NOW.timestamp()) == NOW_S
