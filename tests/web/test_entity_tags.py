"""Answers on the wire: compressed, and not sent again to who has them."""

import gzip

import pytest
from fastapi.testclient import TestClient

from web.asking import lay


def test_who_has_the_answer_is_told_only_that(http: TestClient) -> None:
    lay(http)
    first = http.get("/api/today")
    again = http.get("/api/today", headers={"If-None-Match": first.headers["etag"]})
    assert (again.status_code, again.content) == (304, b"")
    assert again.headers["etag"] == first.headers["etag"]
    several = f'"x", {first.headers["etag"]}'
    assert http.get("/api/today", headers={"If-None-Match": several}).status_code == 304


def test_what_changed_is_sent_whole(http: TestClient) -> None:
    lay(http)
    first = http.get("/api/today")
    assert http.post("/api/clutches/26-01/eggs/1/grades", json={"grade": 2}).is_success
    after = http.get("/api/today", headers={"If-None-Match": first.headers["etag"]})
    assert after.status_code == 200
    assert after.headers["etag"] != first.headers["etag"]
    assert after.json() != first.json()


def test_each_reader_has_answers_of_their_own(http: TestClient) -> None:
    lay(http)
    celsius = http.get("/api/today", headers={"Sandboa-Unit": "C"}).headers["etag"]
    asked = {"Sandboa-Unit": "F", "If-None-Match": celsius}
    http.post("/api/clutches/26-01/eggs/1/grades", json={"grade": 2})
    assert http.get("/api/today", headers=asked).status_code == 200


def test_answers_are_compressed_for_who_takes_it(http: TestClient) -> None:
    lay(http)
    with http.stream("GET", "/api/rules", headers={"Accept-Encoding": "gzip"}) as answer:
        raw = b"".join(answer.iter_raw())
    assert answer.headers["content-encoding"] == "gzip"
    plain = http.get("/api/rules", headers={"Accept-Encoding": "identity"})
    assert "content-encoding" not in plain.headers
    assert gzip.decompress(raw) == plain.content
    assert len(raw) < len(plain.content) / 2
    assert answer.headers["etag"] == plain.headers["etag"]


def test_refusals_and_acts_have_no_tag(http: TestClient) -> None:
    assert "etag" not in http.get("/api/clutches/26-99").headers
    assert (
        "etag"
        not in http.post("/api/bench/mix", json={"medium": "perlite", "dry_mass_g": 1}).headers
    )


@pytest.mark.parametrize("path", ["/api/today", "/api/round", "/api/hatch-watch", "/api/cabinets"])
def test_a_browser_keeps_what_it_asks_for_again_and_asks_whether_it_holds(
    http: TestClient, path: str
) -> None:
    first = http.get(path)
    assert first.headers["cache-control"] == "private, no-cache"
    again = http.get(path, headers={"If-None-Match": first.headers["etag"]})
    assert again.status_code == 304
    assert again.headers["cache-control"] == "private, no-cache"


@pytest.mark.parametrize("path", ["/api/session", "/api/people", "/api/house", "/api/messengers"])
def test_what_is_told_of_people_is_kept_nowhere(http: TestClient, path: str) -> None:
    assert http.get(path).headers["cache-control"] == "no-store"
