"""Clutches nobody saw laid, over HTTP: found, taken from the dam, from elsewhere, and corrected."""

from datetime import datetime, timedelta
from typing import Any

import pytest
from fastapi.testclient import TestClient

from samples import NOW
from web.asking import LAID, lay, problem

CLUTCH = "/api/clutches/26-01"
DAY = timedelta(days=1)


def ago(days: float) -> str:
    return (NOW - days * DAY).isoformat()


def told(http: TestClient) -> dict[str, Any]:
    answer = http.get(CLUTCH)
    assert answer.status_code == 200, answer.text
    return answer.json()


def say(http: TestClient, **origin: Any) -> Any:
    return http.put(
        f"{CLUTCH}/origin", json=origin, headers={"if-match": told(http)["origin_revision"]}
    )


def spread_days(http: TestClient) -> float:
    window = told(http)["forecast"]["typical_pip"]
    low, high = (datetime.fromisoformat(window[end]) for end in ("p10", "p90"))
    return (high - low) / DAY


@pytest.fixture
def laid(http: TestClient) -> TestClient:
    lay(http, laid_at=ago(20))
    return http


def test_found_between_two_days_is_taken_as_the_middle_with_a_wider_window(
    laid: TestClient,
) -> None:
    before = spread_days(laid)
    said = say(laid, kind="found", laid_from=ago(24), laid_until=ago(18))
    assert said.status_code == 200, said.text
    page = told(laid)
    assert page["day"] == 21
    assert page["origin"]["kind"] == "found"
    assert page["origin"]["words"][0].startswith("Laid between ")
    assert spread_days(laid) > before + 0.5
    # Its box and its eggs begin with it.
    assert page["boxes"][0]["name"] == "26-01"
    laid.post(f"/api/acts/{said.json()['id']}/undo").raise_for_status()
    assert told(laid)["origin"] is None
    assert told(laid)["day"] == 20
    assert spread_days(laid) == pytest.approx(before)


def test_from_elsewhere_it_has_what_was_said_until_it_came(laid: TestClient) -> None:
    say(
        laid, kind="from elsewhere", laid_at=ago(30), arrived_at=ago(20), before_c=29.0
    ).raise_for_status()
    page = told(laid)
    assert page["day"] == 30
    assert page["forecast"]["development"] == pytest.approx((10 * 10 + 20 * 12.5) / 735, rel=0.01)
    assert page["origin"]["words"] == [
        next(w for w in page["origin"]["words"] if w.endswith("before that at about 29.0\u00a0°C."))
    ]
    assert "said of the time before they came" in page["rests_on"]
    # The water of its box counts from when they came.
    assert page["boxes"][0]["box_water"]["left"]["share"] > 0.5


def test_how_far_it_is_may_be_told_by_torch(laid: TestClient) -> None:
    say(
        laid, kind="from elsewhere", stage="vessels half round", stage_seen_at=ago(20),
        arrived_at=ago(20),
    ).raise_for_status()  # fmt: skip
    page = told(laid)
    assert page["forecast"]["development"] == pytest.approx(0.20 + 20 * 12.5 / 735, rel=0.01)
    words = " ".join(page["origin"]["words"])
    assert "about 20 % developed then, give or take 5 % (assumed)" in words
    assert "how warm they were before nobody knows" in words
    assert spread_days(laid) > 4


def test_a_lay_day_begins_with_what_is_known(http: TestClient) -> None:
    begun = http.post(
        "/api/lay-day-drafts",
        json={
            "dam": "Sorrel",
            "origin": {"kind": "found", "laid_from": ago(3), "laid_until": ago(1)},
        },
    )
    assert begun.status_code == 201, begun.text
    assert datetime.fromisoformat(begun.json()["state"]["laid_at"]) == NOW - 2 * DAY
    assert begun.json()["state"]["origin"]["kind"] == "found"


def test_a_lay_day_of_eggs_from_elsewhere_is_recorded_whole(http: TestClient) -> None:
    origin = {
        "kind": "taken from the dam",
        "laid_at": ago(25),
        "arrived_at": ago(5),
        "before_c": 30,
    }
    begun = http.post("/api/lay-day-drafts", json={"dam": "Sorrel", "origin": origin}).json()
    state = {
        **begun["state"],
        "eggs": [{"x": 0.3, "y": 0.5}, {"x": 0.6, "y": 0.5}],
        "cabinet": "North",
        "shelf": "lower",
        "set_point_c": 31.5,
    }
    asked = {"revision": begun["revision"], "step": "shelf", "state": state}
    http.put(f"/api/lay-day-drafts/{begun['id']}", json=asked).raise_for_status()
    made = http.post(f"/api/lay-day-drafts/{begun['id']}/clutch")
    assert made.status_code == 201, made.text
    assert made.json()["act"]["summary"] == "Clutch 26-01 of Sorrel taken from the dam, 2-0"
    page = told(http)
    assert page["day"] == 25
    assert page["forecast"]["development"] == pytest.approx((20 * 11 + 5 * 12.5) / 735, rel=0.01)


@pytest.mark.parametrize(
    ("said", "field", "words"),
    [
        ({"kind": "found"}, "laid_at", "between which two times"),
        ({"kind": "found", "laid_from": ago(3)}, "laid_until", "which two"),
        ({"kind": "found", "laid_from": ago(1), "laid_until": ago(3)}, "laid_until", "before it"),
        ({"kind": "found", "laid_from": ago(80), "laid_until": ago(3)}, "laid_until", "60 days"),
        ({"kind": "found", "laid_at": ago(3), "arrived_at": ago(2)}, "arrived_at", "found here"),
        ({"kind": "from elsewhere", "laid_at": ago(9)}, "arrived_at", "When did they come"),
        (
            {"kind": "from elsewhere", "laid_at": ago(9), "arrived_at": ago(12)},
            "arrived_at",
            "before they were laid",
        ),
        (
            {"kind": "from elsewhere", "laid_at": ago(9), "arrived_at": ago(2), "before_c": 12},
            "before_c",
            "outside 24 to 36",
        ),
        ({"kind": "found", "stage": "disc only"}, "stage_seen_at", "by torch"),
        ({"kind": "found", "laid_at": ago(-2)}, "laid_at", "future"),
        (
            {"kind": "found", "laid_at": ago(3), "stage": "disc only", "stage_seen_at": ago(1)},
            "laid_at",
            "Say when",
        ),
    ],
)
def test_what_cannot_be_is_said_at_its_field_and_changes_nothing(
    laid: TestClient, said: dict[str, Any], field: str, words: str
) -> None:
    refused = problem(say(laid, **said), 422)
    assert words in refused["detail"]
    assert refused["errors"][0]["field"] == field
    assert told(laid)["origin"] is None
    assert told(laid)["day"] == 20


def test_seen_laid_after_all(laid: TestClient) -> None:
    say(laid, kind="found", laid_from=ago(24), laid_until=ago(18)).raise_for_status()
    say(laid, kind=None, laid_at=ago(19)).raise_for_status()
    assert told(laid)["origin"] is None
    assert told(laid)["day"] == 19
    problem(say(laid, kind=None, laid_at=ago(19)), 404)


def test_they_cannot_come_after_their_box_was_seen_to(laid: TestClient) -> None:
    pour = {"water_g": 20, "at": ago(8)}
    laid.post("/api/boxes/26-01/waterings", json=pour).raise_for_status()
    refused = problem(say(laid, kind="from elsewhere", laid_at=ago(20), arrived_at=ago(5)), 422)
    assert "box 26-01 was seen to before that" in refused["detail"].lower()
    say(laid, kind="from elsewhere", laid_at=ago(20), arrived_at=ago(9)).raise_for_status()


def test_they_cannot_be_younger_than_their_pip(laid: TestClient) -> None:
    laid.post(f"{CLUTCH}/eggs/1/pip", json={"at": ago(3)}).raise_for_status()
    refused = problem(say(laid, kind="found", laid_from=ago(2), laid_until=ago(1)), 422)
    assert "was open before that" in refused["detail"]


def test_its_lay_time_is_not_corrected_past_what_is_known(laid: TestClient) -> None:
    say(laid, kind="found", laid_from=ago(24), laid_until=ago(18)).raise_for_status()
    seen = {"if-match": told(laid)["revision"]}
    refused = problem(laid.put(CLUTCH, json={**LAID, "laid_at": ago(15)}, headers=seen), 422)
    assert "correct where they come from" in refused["detail"]


def test_closed_clutches_aged_by_torch_narrow_the_stage(http: TestClient) -> None:
    """The first one pipped as one that was further on: the next is taken to be so too."""
    from sandboa.web.background.alarm_monitor import look_round

    lay(http, laid_at=ago(70))
    stage = {"kind": "from elsewhere", "stage": "vessels half round", "arrived_at": ago(45)}
    say(http, **stage, stage_seen_at=ago(45)).raise_for_status()
    for number in range(1, 5):
        http.post(f"{CLUTCH}/eggs/{number}/pip", json={"at": ago(1)}).raise_for_status()
        http.post(f"{CLUTCH}/eggs/{number}/emergence", json={"at": ago(0.1)}).raise_for_status()
    http.post(f"{CLUTCH}/finished", json={}).raise_for_status()
    look_round(http.app.state.house)
    lay(http, dam="Tansy", laid_at=ago(20))
    revision = http.get("/api/clutches/26-02").json()["origin_revision"]
    http.put(
        "/api/clutches/26-02/origin",
        json={**stage, "stage_seen_at": ago(20), "arrived_at": ago(20)},
        headers={"if-match": revision},
    ).raise_for_status()
    words = " ".join(http.get("/api/clutches/26-02").json()["origin"]["words"])
    assert "(by 1 clutch of yours)" in words
    # 44 days at 31.5 °C are 0.75: it had been a quarter developed, not a fifth.
    assert "about 21 % developed then" in words
