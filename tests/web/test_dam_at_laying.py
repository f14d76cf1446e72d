"""What lay day said of the dam, corrected: the lump felt, and what she weighed."""

from datetime import datetime, timedelta
from typing import Any

import pytest
from fastapi.testclient import TestClient

from samples import NOW
from web.asking import LAID, lay, problem

CLUTCH = "/api/clutches/26-01"
PLACE = f"{CLUTCH}/dam-at-laying"


@pytest.fixture
def laid(http: TestClient) -> TestClient:
    lay(http, laid_at=(NOW - timedelta(days=12)).isoformat())
    return http


def say(http: TestClient, **said: Any) -> Any:
    return http.put(PLACE, json=said, headers={"if-match": http.get(PLACE).json()["revision"]})


def weights(http: TestClient) -> list[dict[str, Any]]:
    dam = http.get(CLUTCH).json()["dam_id"]
    return http.get(f"/api/animals/{dam}").json()["weights"]


def flags(http: TestClient) -> str:
    return http.get("/api/animals/after-laying").text


def test_a_lump_said_later_is_looked_after_and_taken_back(laid: TestClient) -> None:
    assert laid.get(PLACE).json() | {"revision": ""} == {
        "lump": None, "mass_g": None, "revision": "",
    }  # fmt: skip
    said = say(laid, lump="left")
    assert said.json()["summary"] == "Sorrel as 26-01 was laid corrected"
    assert "a lump was left in her belly" in flags(laid)
    say(laid, lump="none").raise_for_status()
    assert "a lump was left" not in flags(laid)
    say(laid).raise_for_status()
    assert laid.get(PLACE).json()["lump"] is None


def test_her_weight_of_lay_day_is_corrected_and_undone(laid: TestClient) -> None:
    say(laid, mass_g=1350).raise_for_status()
    (first,) = weights(laid)
    assert first["mass_g"] == 1350
    corrected = say(laid, mass_g=1250)
    assert [w["mass_g"] for w in weights(laid)] == [1250]
    laid.post(f"/api/acts/{corrected.json()['id']}/undo").raise_for_status()
    assert weights(laid) == [first]
    say(laid).raise_for_status()
    assert weights(laid) == []


def test_a_weight_no_dam_has_is_refused(laid: TestClient) -> None:
    assert "g" in problem(say(laid, mass_g=3), 422)["detail"]
    assert laid.get(PLACE).json()["mass_g"] is None


def test_her_weight_stays_one_after_laying_when_the_lay_time_is_corrected(laid: TestClient) -> None:
    say(laid, mass_g=1250, lump="unsure").raise_for_status()
    later = NOW - timedelta(days=9)
    held = laid.get(CLUTCH).json()["revision"]
    body = {**LAID, "laid_at": later.isoformat()}
    laid.put(CLUTCH, json=body, headers={"if-match": held}).raise_for_status()
    (weight,) = weights(laid)
    assert timedelta(0) < datetime.fromisoformat(weight["at"]) - later <= timedelta(seconds=1)
    assert laid.get(PLACE).json()["lump"] == "unsure"


def test_the_second_of_two_is_told(laid: TestClient) -> None:
    opened = laid.get(PLACE).json()["revision"]
    say(laid, mass_g=1250).raise_for_status()
    late = laid.put(PLACE, json={"mass_g": 1300}, headers={"if-match": opened})
    problem(late, 412)
    assert [w["mass_g"] for w in weights(laid)] == [1250]


def test_her_weight_stays_one_after_laying_when_nobody_saw_the_eggs_laid(laid: TestClient) -> None:
    say(laid, mass_g=1250).raise_for_status()
    first, last = NOW - timedelta(days=10), NOW - timedelta(days=8)
    said = {
        "kind": "found",
        "laid_from": first.isoformat(),
        "laid_until": last.isoformat(),
    }
    seen = {"if-match": laid.get(CLUTCH).json()["origin_revision"]}
    laid.put(f"{CLUTCH}/origin", json=said, headers=seen).raise_for_status()
    laid_at = datetime.fromisoformat(laid.get(CLUTCH).json()["laid_at"])
    (weight,) = weights(laid)
    assert laid_at < datetime.fromisoformat(weight["at"]) <= laid_at + timedelta(seconds=1)
