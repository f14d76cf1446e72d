"""A clutch laid over HTTP, and a refusal taken apart: for the tests of the API."""

from datetime import timedelta
from functools import cache
from typing import Any

from fastapi.testclient import TestClient

from samples import NOW
from sandboa.web.app import create_app

LAID: dict[str, Any] = {
    "dam": "Sorrel",
    "sire": "Flint",
    "laid_at": (NOW - timedelta(days=20)).isoformat(),
    "eggs": [{"x": 0.2 + 0.15 * i, "y": 0.5, "slug": i == 4} for i in range(5)],
    "medium": "perlite",
    "dry_mass_g": 200,
    "water_g": 200,
    "closing": "film with a cracked corner",
    "cabinet": "North",
    "shelf": "lower",
    "set_point_c": 31.5,
}


@cache
def description() -> dict[str, Any]:
    """The OpenAPI description; making it takes over a second."""
    return create_app(None).openapi()


def lay(http: TestClient, **changes: Any) -> dict[str, Any]:
    response = http.post("/api/clutches", json={**LAID, **changes})
    assert response.status_code == 201, response.text
    return response.json()


def problem(response: Any, status: int) -> dict[str, Any]:
    assert response.status_code == status, response.text
    assert response.headers["content-type"] == "application/problem+json"
    told = response.json()
    assert told["status"] == status
    assert told["detail"]
    return told
