"""The climate trace over HTTP: peaks are kept, raw on zoom, offsets from their date."""

from datetime import timedelta
from typing import Any

import pytest
from fastapi.testclient import TestClient

from samples import NOW
from web.asking import lay, problem


@pytest.fixture
def logged(http: TestClient) -> TestClient:
    """Twenty days of 5-minute readings at 31.5 °C in North, with one peak and a silent day."""
    lay(http)
    device = http.post("/api/devices", json={"name": "Gateway"}).json()
    http.post("/api/probes", json={
        "name": "Lower", "place": {"cabinet": "North", "shelf": "lower"},
        "since": days_ago(30), "device": device["device"],
    }).raise_for_status()  # fmt: skip
    readings = [
        {"at": days_ago(m / 1440), "temperature_c": 36.2 if m == 10_000 else 31.5}
        for m in range(0, 20 * 1440, 5)
        if not 5 < m / 1440 < 6
    ]
    for start in range(0, len(readings), 2_000):
        http.post(
            "/api/readings", json={"readings": readings[start : start + 2_000]},
            headers={"Authorization": f"Bearer {device['token']}"},
        ).raise_for_status()  # fmt: skip
    return http


def days_ago(days: float) -> str:
    return (NOW - timedelta(days=days)).isoformat()


def trace(http: TestClient, **asked: Any) -> dict[str, Any]:
    answer = http.get("/api/cabinets/North/trace", params=asked)
    assert answer.status_code == 200, answer.text
    return answer.json()


def known(values: list[float | None]) -> list[float]:
    return [v for v in values if v is not None]


@pytest.mark.parametrize("points", [10, 60, 400, 1200])
def test_a_peak_of_five_minutes_is_seen_at_any_width(logged: TestClient, points: int) -> None:
    told = trace(logged, start=days_ago(20), end=days_ago(0), points=points)
    (probe,) = told["probes"]
    assert len(probe["high"]) == told["count"] <= points + 1
    assert max(known(probe["high"])) == 36.2
    assert min(known(probe["low"])) == 31.5
    assert not told["raw"]


def test_a_silent_day_is_a_hole(logged: TestClient) -> None:
    told = trace(logged, start=days_ago(8), end=days_ago(4), points=96)
    (probe,) = told["probes"]
    holes = [n for n, value in enumerate(probe["high"]) if value is None]
    assert 20 <= len(holes) * told["bucket_s"] / 3600 <= 24
    assert holes == list(range(holes[0], holes[-1] + 1))


def test_near_enough_it_is_every_reading(logged: TestClient) -> None:
    told = trace(logged, start=days_ago(0.5), end=days_ago(0), points=1200)
    assert (told["raw"], told["bucket_s"]) == (True, 60)
    (probe,) = told["probes"]
    assert len(known(probe["low"])) == 12 * 12
    assert probe["low"] == probe["high"]


def test_set_points_step_where_they_were_changed(logged: TestClient) -> None:
    logged.post(
        "/api/cabinets/North/set-points", json={"temperature_c": 30.0, "at": days_ago(10)}
    ).raise_for_status()
    told = trace(logged, start=days_ago(20), end=days_ago(0), points=480)
    steps = known(told["set_point_c"])
    assert sorted(set(steps)) == [30.0, 31.5]
    assert steps.index(30.0) == pytest.approx(told["count"] / 2, abs=1)


def test_a_checks_offset_is_drawn_from_its_date(logged: TestClient) -> None:
    probe = logged.get("/api/probes").json()[0]["id"]
    logged.post(f"/api/probes/{probe}/checks", json={
        "kind": "reference", "shown": 31.5, "reference_c": 31.1, "at": days_ago(3),
    }).raise_for_status()  # fmt: skip
    told = trace(logged, start=days_ago(4.5), end=days_ago(0), points=200)
    high = known(told["probes"][0]["high"])
    assert (high[0], high[-1]) == (31.5, 31.1)


@pytest.mark.parametrize(
    "asked",
    [
        {"start": days_ago(1), "end": days_ago(2)},
        {"start": days_ago(50 * 366)},
        {"points": 5},
        {"points": 100_000},
        {"start": "soon"},
    ],
)
def test_spans_that_cannot_be(logged: TestClient, asked: dict[str, Any]) -> None:
    problem(logged.get("/api/cabinets/North/trace", params=asked), 422)
