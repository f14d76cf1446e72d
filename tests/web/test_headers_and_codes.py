"""Headers, methods and codes: of refusals as of answers, and of pages of other sites."""

from pathlib import Path
from typing import cast

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from sandboa.web.app import create_app
from sandboa.web.clock import StoppedClock
from web.asking import problem

SAFE = ("content-security-policy", "x-content-type-options", "x-frame-options", "referrer-policy")


@pytest.mark.parametrize(
    ("method", "path", "headers", "status"),
    [
        ("GET", "/api/today", {}, 200),
        ("GET", "/api/nothing", {}, 404),
        ("GET", "/api/today", {"host": "evil.example"}, 400),
        ("POST", "/api/animals", {"origin": "http://evil.example"}, 403),
        ("POST", "/api/session", {"content-length": "99999999"}, 413),
        ("PUT", "/api/today", {}, 405),
        ("POST", "/api/animals", {}, 422),
    ],
)
def test_every_answer_has_the_headers_that_keep_it_home(
    http: TestClient, method: str, path: str, headers: dict[str, str], status: int
) -> None:
    answer = http.request(method, path, headers=headers)
    assert answer.status_code == status
    assert all(name in answer.headers for name in SAFE)
    # What a browser may keep it asks about each time, and keeps for its own reader alone.
    kept = "private, no-cache" if status == 200 else "no-store"
    assert answer.headers["cache-control"] == kept
    assert "strict-transport-security" not in answer.headers


def test_by_https_a_browser_is_told_to_stay_with_it(tmp_path: Path, clock: StoppedClock) -> None:
    safe = TestClient(create_app(tmp_path / "h.sqlite3", clock), base_url="https://localhost")
    assert "max-age=" in safe.get("/api/alive").headers["strict-transport-security"]


def test_what_cannot_be_asked_says_what_can(http: TestClient) -> None:
    answer = http.delete("/api/today")
    assert problem(answer, 405)
    assert "GET" in answer.headers["allow"]


@pytest.mark.parametrize("site", ["cross-site", "same-site"])
def test_a_page_of_another_site_builds_no_package_and_reads_nothing(
    http: TestClient, site: str
) -> None:
    for path in ("/api/house/package", "/api/today", "/api/session"):
        answer = http.get(path, headers={"sec-fetch-site": site})
        assert "another site" in problem(answer, 403)["detail"]
    assert http.get("/api/house/security").json() == []
    # A link that leads to a page of the house is followed all the same.
    assert http.get("/", headers={"sec-fetch-site": site}).status_code in (200, 404)
    assert http.get("/api/today", headers={"sec-fetch-site": "same-origin"}).status_code == 200


def test_a_body_too_large_is_told_by_its_own_code_also_without_a_length(http: TestClient) -> None:
    def pieces():
        for _ in range(300):
            yield b" " * 1024

    answer = http.post(
        "/api/animals", content=pieces(), headers={"content-type": "application/json"}
    )
    assert "256 kB fit" in problem(answer, 413)["detail"]
    answer = http.post("/api/session", content=b"x" * 4097)
    assert "4 kB fit" in problem(answer, 413)["detail"]


@pytest.mark.parametrize(
    "path",
    [
        "/api/cabinets/North/trace?start=0000-12-31T00:00:00Z",
        "/api/cabinets/North/trace?from=0001-01-01T00:00:00%2B14:00&until=0001-01-02T00:00:00Z",
        "/api/seasons?year=1",
        "/api/losses?year=99999",
        "/api/bench/forecast",
        "/api/alarms?days=1e308",
    ],
)
def test_no_moment_is_too_early_or_late_for_an_answer(http: TestClient, path: str) -> None:
    assert http.get(path).status_code in (404, 405, 422)


def test_the_name_tests_use_is_no_name_of_a_house(http: TestClient) -> None:
    assert http.get("/api/today", headers={"host": "testserver"}).status_code == 400


def test_the_same_name_sixteen_times_at_once_is_one_animal_and_fifteen_refusals(
    http: TestClient,
) -> None:
    from concurrent.futures import ThreadPoolExecutor

    body = {"role": "dam", "name": "Sorrel"}
    with ThreadPoolExecutor(16) as pool:
        codes = list(
            pool.map(lambda _: http.post("/api/animals", json=body).status_code, range(16))
        )
    assert sorted(codes) == [201] + [409] * 15


def test_the_same_photo_at_once_is_kept_once(http: TestClient) -> None:
    import io
    from concurrent.futures import ThreadPoolExecutor

    from PIL import Image

    out = io.BytesIO()
    Image.new("RGB", (30, 20), 90).save(out, "JPEG")
    http.post("/api/animals", json={"role": "dam", "name": "Sorrel"})
    (dam,) = http.get("/api/animals").json()
    asked = (
        f"/api/photos?owner={dam['id']}&taken_at=2026-06-14T12:00:00Z&sent_at=2026-06-14T18:30:00Z"
    )
    bound = cast(FastAPI, http.app).state.house.photos
    bound.most = bound.most_of_one = 8
    with ThreadPoolExecutor(8) as pool:
        codes = list(
            pool.map(lambda _: http.post(asked, content=out.getvalue()).status_code, range(8))
        )
    assert set(codes) == {201}
    photos = http.get(f"/api/animals/{dam['id']}").json()["photos"]
    assert len(photos) == 1


def test_a_photo_beyond_the_bound_is_refused_before_it_is_read(
    http: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(cast(FastAPI, http.app).state.house.photos, "most", 0)
    answer = http.post("/api/photos?owner=1", content=b"no photo at all")
    assert "Too many photos come at once" in problem(answer, 429)["detail"]
    assert answer.headers["retry-after"] == "1"
