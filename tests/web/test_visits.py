"""Rounds over HTTP: the phone's payload, visits delivered once, and bad ones answered in words."""

from concurrent.futures import ThreadPoolExecutor
from datetime import timedelta
from typing import Any

from fastapi.testclient import TestClient

from samples import NOW
from web.asking import lay, problem


def visit(key: str, **more: Any) -> dict[str, Any]:
    opened = NOW - timedelta(seconds=40)
    return {
        "key": f"visit-key-{key}",
        "box": "26-01",
        "opened_at": opened.isoformat(),
        "closed_at": NOW.isoformat(),
        **more,
    }


def deliver(http: TestClient, *visits: dict[str, Any]) -> list[dict[str, Any]]:
    response = http.post("/api/visits", json={"visits": list(visits)})
    assert response.status_code == 200, response.text
    outcomes: list[dict[str, Any]] = response.json()["outcomes"]
    return outcomes


def boxes(http: TestClient) -> list[dict[str, Any]]:
    found: list[dict[str, Any]] = http.get("/api/round").json()["boxes"]
    return found


#: Fresh medium twenty minutes ago: the box weighed 1,200 g with 200 g of water in it.
SET_UP = {
    "fresh": {"medium": "perlite", "water_g": 200, "mass_g": 1200},
    "opened_at": (NOW - timedelta(minutes=20)).isoformat(),
    "closed_at": (NOW - timedelta(minutes=20)).isoformat(),
}


def test_a_phone_carries_everything_it_needs(http: TestClient) -> None:
    lay(http)
    assert {due["kind"] for due in boxes(http)[0]["due"]} >= {"rhythm"}
    assert boxes(http)[0]["visited"] is False
    deliver(http, visit("set up", **SET_UP))
    (box,) = boxes(http)
    assert (box["name"], box["cabinet"], box["shelf"]) == ("26-01", "North", "lower")
    assert box["heaviest_g"] == 1208
    assert box["top_ups"][0]["add_g"] == 0
    assert box["eggs"][0]["standing"] == "sound"
    assert box["box_water"]["left"]["share"] > 0.95
    assert box["visited"] is True


def test_visits_are_stored_in_their_order_and_one_refused_stops_none(http: TestClient) -> None:
    lay(http)
    outcomes = deliver(
        http,
        visit("first", eggs=[{"number": 1, "grade": 1}]),
        visit("wrong", eggs=[{"number": 5, "grade": 1}]),
        visit("gone", box="26-77"),
        visit("last", eggs=[{"number": 1, "grade": 2}], water_g=45),
    )
    assert [o["state"] for o in outcomes] == ["stored", "refused", "refused", "stored"]
    assert "slug" in outcomes[1]["reason"]
    assert outcomes[1]["field"] == "eggs"
    assert "no box 26-77" in outcomes[2]["reason"]
    again = deliver(http, visit("first"), visit("last"))
    assert [o["state"] for o in again] == ["known", "known"]
    clutch = http.get("/api/clutches/26-01").json()
    assert clutch["eggs"][0]["grade"] == 2
    assert [e["kind"] for e in clutch["log"]].count("visit") == 2


def test_five_hundred_queued_visits_at_once_are_each_stored_once(http: TestClient) -> None:
    lay(http)
    queued = [visit(f"{n:04d}", signs=[{"kind": "lid", "value": "edges"}]) for n in range(500)]
    # One phone brings them all, another the same ones in pieces at the same time.
    with ThreadPoolExecutor(4) as pool:
        pieces = [queued, queued[:200], queued[200:400], queued[300:]]
        answers = list(pool.map(lambda piece: deliver(http, *piece), pieces))
    states = [o["state"] for outcomes in answers for o in outcomes]
    assert states.count("stored") == 500
    assert states.count("known") == len(states) - 500
    log = http.get("/api/clutches/26-01").json()["log"]
    assert sum(entry["kind"] == "visit" for entry in log) > 0
    one_more = http.post("/api/visits", json={"visits": [*queued, visit("more")]})
    assert "visits" in problem(one_more, 422)["errors"][0]["field"]


def test_bad_visits_are_told_at_their_field(http: TestClient) -> None:
    lay(http)
    deliver(http, visit("set up", **SET_UP))
    for changes, field in (
        ({"mass_g": 1300}, "mass_g"),
        ({"water_g": -5}, "water_g"),
        ({"opened_at": (NOW - timedelta(days=90)).isoformat()}, "at"),
        ({"signs": [{"kind": "lid", "value": "foggy"}]}, "signs"),
    ):
        (outcome,) = deliver(http, visit("bad", **changes))
        assert (outcome["state"], outcome["field"]) == ("refused", field)
        assert outcome["reason"]
    for changes in ({"grade": 3}, {"acts": ["thrown away"]}, {"mass_g": "heavy"}):
        problem(http.post("/api/visits", json={"visits": [visit("bad", **changes)]}), 422)
    kinds = [entry["kind"] for entry in http.get("/api/clutches/26-01").json()["log"]]
    assert kinds == ["visit", "lay"]


def test_an_egg_page_gives_evidence_that_adds_up(http: TestClient) -> None:
    lay(http)
    seen = {"number": 2, "grade": 2, "signs": [{"kind": "mould", "value": "patch"}]}
    deliver(http, visit("a", eggs=[seen]))
    page = http.get("/api/clutches/26-01/eggs/2").json()
    standing = page["standing"]
    total = standing["prior"]["push"] + sum(e["push"] for e in standing["evidence"])
    assert abs(total - standing["log_odds"]) < 1e-9
    settings = {s["name"] for s in http.get("/api/settings").json()}
    assert {e["key"] for e in standing["evidence"]} <= settings
    assert standing["prior"]["key"] in settings
    assert page["history"][0]["text"]
    problem(http.get("/api/clutches/26-01/eggs/30"), 404)
    problem(http.get("/api/clutches/26-09/eggs/1"), 404)


def test_putting_off_and_what_if(http: TestClient) -> None:
    lay(http)
    asked = {"box": "26-01", "kind": "rhythm", "days": 2}
    assert http.post("/api/postponements", json=asked).status_code == 201
    (box,) = boxes(http)
    assert [p["kind"] for p in box["postponed"]] == ["rhythm"]
    problem(http.post("/api/postponements", json={**asked, "days": 90}), 422)
    problem(http.post("/api/postponements", json={**asked, "kind": "mood"}), 422)
    sealed = http.get("/api/boxes/26-01/water", params={"closing": "sealed film"}).json()
    plain = http.get("/api/boxes/26-01/water").json()
    assert sealed["loss_g_day"] < plain["loss_g_day"]
    problem(http.get("/api/boxes/26-01/water", params={"humidity": 3}), 422)


def test_a_key_that_no_line_of_a_file_can_hold_is_refused(http: TestClient) -> None:
    lay(http)
    for mark in ("\r", "\n", "\x00", "\u2028"):
        answer = http.post("/api/visits", json={"visits": [visit(f"1{mark}2")]})
        assert answer.status_code == 422


def test_a_round_of_the_past_is_as_the_boxes_were(http: TestClient) -> None:
    """Written on the lid a week ago, entered today: shown beside what was known then."""
    lay(http)

    def closed(days_ago: float, key: str, **more: Any) -> dict[str, Any]:
        moment = (NOW - timedelta(days=days_ago)).isoformat()
        return visit(key, opened_at=moment, closed_at=moment, **more)

    deliver(
        http,
        closed(9, "nine", eggs=[{"number": 1, "grade": 1}]),
        closed(2, "two", eggs=[{"number": 1, "grade": 3}]),
    )
    pip = {"at": (NOW - timedelta(days=1)).isoformat()}
    assert http.post("/api/clutches/26-01/eggs/2/pip", json=pip).status_code == 201
    (then,) = http.get("/api/round", params={"at": (NOW - timedelta(days=7)).isoformat()}).json()[
        "boxes"
    ]
    assert [egg["grade"] for egg in then["eggs"][:2]] == [1, 0]
    assert [egg["pipped_at"] for egg in then["eggs"][:2]] == [None, None]
    assert then["last_visit_at"].startswith("2026-06-05")
    assert then["clutches"][0]["day"] == 13
    assert boxes(http)[0]["eggs"][0]["grade"] == 3
    ahead = (NOW + timedelta(days=1)).isoformat()
    assert "future" in problem(http.get("/api/round", params={"at": ahead}), 422)["detail"]


def test_a_closed_clutch_is_in_the_round_of_a_day_it_was_open(http: TestClient) -> None:
    lay(http, eggs=[{"x": 0.3, "y": 0.5}, {"x": 0.6, "y": 0.5}])
    for number in (1, 2):
        fate = {"fates": [{"number": number, "fate": "removed"}]}
        assert http.post("/api/clutches/26-01/fates", json=fate).status_code == 201
    assert http.post("/api/clutches/26-01/finished", json={}).status_code == 201
    assert boxes(http) == []
    then = http.get("/api/round", params={"at": (NOW - timedelta(days=7)).isoformat()}).json()
    assert [box["name"] for box in then["boxes"]] == ["26-01"]


def test_a_visit_is_corrected_whole_over_what_was_seen_of_it(http: TestClient) -> None:
    lay(http)
    (outcome,) = deliver(
        http,
        visit(
            "wrong", eggs=[{"number": 1, "grade": 3, "signs": [{"kind": "wet", "value": "dry"}]}]
        ),
    )
    (line,) = (entry for entry in http.get("/api/acts").json() if entry["kind"] == "visit")
    assert line["act"] == outcome["act"]["id"]
    place = f"/api/visits/{line['visit']}"
    held = http.get(place).json()
    assert held["visit"]["eggs"][0]["signs"] == [{"kind": "wet", "value": "dry"}]
    asked = {**held["visit"], "eggs": [{"number": 2, "grade": 1}]}
    stale = http.put(place, json=asked, headers={"If-Match": '"another"'})
    assert stale.status_code == 412
    seen = {"If-Match": f'"{held["revision"]}"'}
    assert http.put(place, json=asked, headers=seen).status_code == 200
    assert [egg["grade"] for egg in boxes(http)[0]["eggs"][:2]] == [0, 1]
    log = http.get("/api/acts").json()
    assert [entry["visit"] for entry in log[:2]] == [line["visit"], None]
    refused = problem(http.put(place, json={**asked, "eggs": [{"number": 9, "grade": 1}]}), 404)
    assert "no egg 9" in refused["detail"]
    problem(http.get("/api/visits/99999"), 404)
    # Delivered again by the phone that recorded it, it is known.
    (again,) = deliver(http, visit("wrong", eggs=[{"number": 1, "grade": 3}]))
    assert again["state"] == "known"


def test_a_time_typed_by_hand_is_not_that_of_a_clock_gone_wrong(http: TestClient) -> None:
    """A phone three hours ahead: what it timed is shifted, what its keeper typed is not."""
    lay(http)
    ahead = timedelta(hours=3)
    typed = {
        "by_hand": True,
        "opened_at": (NOW - timedelta(days=2)).isoformat(),
        "closed_at": (NOW - timedelta(days=2)).isoformat(),
    }
    timed = {
        "opened_at": (NOW - timedelta(days=1) + ahead).isoformat(),
        "closed_at": (NOW - timedelta(days=1) + ahead).isoformat(),
    }
    sent = {
        "sent_at": (NOW + ahead).isoformat(),
        "visits": [visit("typed", **typed), visit("timed", **timed)],
    }
    assert http.post("/api/visits", json=sent).status_code == 200
    log = [e for e in http.get("/api/acts").json() if e["kind"] == "visit"]
    assert [entry["at"] for entry in log] == ["2026-06-13T18:30:00Z", "2026-06-12T18:30:00Z"]
