"""A phone added from its own browser: what it is given, told, and what is shown of it."""

from collections.abc import Iterator
from typing import Any

import pytest
from fastapi.testclient import TestClient

from push_service import Phone, push_service, sender_of
from web.asking import problem
from web.test_people import add, sign_in


@pytest.fixture
def phone() -> Iterator[Phone]:
    with push_service() as phone:
        yield phone


def said(phone: Phone, **target: str) -> dict[str, Any]:
    return {
        "kind": "push", "name": "Rowan's phone", "zone": "Europe/Berlin",
        "target": {**phone.target, **target},
    }  # fmt: skip


def test_a_phone_is_added_tried_and_told(http: TestClient, phone: Phone) -> None:
    key = http.post("/api/messengers/push-key").json()["key"]
    assert http.post("/api/messengers", json=said(phone)).status_code == 201
    (held,) = http.get("/api/messengers").json()
    trial = http.post(f"/api/messengers/{held['id']}/trial")
    assert trial.status_code == 201, trial.text
    assert "Sandboa" in phone.messages[0]["about"]
    assert sender_of(phone.headers[0])[0] == key
    # What would let others send to it is shown to nobody.
    everything = http.get("/api/messengers").text
    assert phone.target["phone_key"] not in everything
    assert phone.target["secret"] not in everything


def test_a_phone_that_ended_it_is_told_of(http: TestClient, phone: Phone) -> None:
    http.post("/api/messengers", json=said(phone))
    (held,) = http.get("/api/messengers").json()
    phone.status = 410
    http.post(f"/api/messengers/{held['id']}/trial")
    (told,) = http.get("/api/messengers").json()
    assert "add it again" in told["failure"]


def test_what_no_browser_made_is_refused_at_its_field(http: TestClient, phone: Phone) -> None:
    refused = problem(http.post("/api/messengers", json=said(phone, secret="x")), 422)
    assert "add the phone again" in refused["detail"]


def test_the_key_is_for_keepers(http: TestClient) -> None:
    add(http, "Rowan", "keeper")
    sign_in(http, "Rowan")
    add(http, "Linden", "helper")
    http.delete("/api/session")
    sign_in(http, "Linden")
    assert http.post("/api/messengers/push-key").status_code == 403
