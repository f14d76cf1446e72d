"""A house out over HTTP and into an empty one, and what is refused on the way."""

import csv
import io
import zipfile
from pathlib import Path

from fastapi.testclient import TestClient

from samples import NOW_S
from sandboa.records.database import database
from sandboa.web.app import create_app
from sandboa.web.clock import StoppedClock
from sandboa.web.security import request_limits
from web.asking import lay, problem
from web.test_people import add, sign_in

PACKAGE = "/api/house/package"


def taken_out(http: TestClient) -> bytes:
    answer = http.get(PACKAGE)
    assert answer.status_code == 200
    assert 'filename="sandboa-house-' in answer.headers["content-disposition"]
    return answer.content


def test_a_house_comes_back_in_another_place(http: TestClient, tmp_path: Path) -> None:
    lay(http, code="26-01")
    package = taken_out(http)
    before = http.get("/api/clutches/26-01").json()
    database.close()
    with TestClient(create_app(tmp_path / "other.sqlite3", StoppedClock(NOW_S))) as other:
        assert other.get("/api/today").json()["boxes"] == []
        answer = other.post(PACKAGE, content=package)
        assert answer.status_code == 201, answer.text
        assert answer.json()["tables"]["clutch"] == 1
        # Nothing held from the empty house is shown.
        assert other.get("/api/clutches/26-01").json() == before
        # Once more: two houses are not merged.
        told = problem(other.post(PACKAGE, content=package), 422)
        assert "cannot be merged" in told["detail"]
        assert len(other.get("/api/acts").json()) == len(before["log"])


def test_what_is_no_package_is_refused_and_leaves_an_empty_house(http: TestClient) -> None:
    lay(http)
    package = bytearray(taken_out(http))
    package[len(package) // 3] ^= 0xFF
    undo = http.get("/api/acts").json()[0]["act"]
    for body in (b"", b"not a zip", bytes(package[:200])):
        told = problem(http.post(PACKAGE, content=body), 422)
        assert "no package, or a damaged one" in told["detail"]
        assert "Nothing was stored" in told["detail"]
    assert http.get("/api/acts").json()[0]["act"] == undo


def test_a_package_too_large_is_refused_before_it_is_read(http: TestClient, monkeypatch) -> None:
    monkeypatch.setattr(request_limits, "LIMITS", ((PACKAGE, 1_000),))
    told = problem(http.post(PACKAGE, content=b"x" * 1_001), 413)
    assert "Nothing was stored" in told["detail"]

    def pieces():
        yield from (b"x" * 600 for _ in range(4))

    problem(http.post(PACKAGE, content=pieces()), 413)


def test_what_lets_people_in_never_leaves_the_house(http: TestClient) -> None:
    add(http, "Rowan", "keeper")
    sign_in(http, "Rowan")
    lay(http)
    http.post("/api/calendar/link")
    with zipfile.ZipFile(io.BytesIO(taken_out(http))) as package:
        names = package.namelist()
        assert "data/person.csv" in names
        assert not {f"data/{n}.csv" for n in ("passphrase", "session", "private_link")} & {*names}
        text = b"".join(package.read(name) for name in names)
        # Who recorded what goes with it.
        rows = list(csv.DictReader(io.StringIO(package.read("data/act.csv").decode())))
    assert b"argon2" not in text
    assert rows[-1]["person_id"] != ""
