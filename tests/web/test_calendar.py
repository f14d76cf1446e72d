"""The house's calendar as a file and by its private link."""

from datetime import date, datetime, timedelta
from zoneinfo import ZoneInfo

import pytest
from fastapi.testclient import TestClient
from icalendar import Calendar

from samples import DAY_S, NOW
from sandboa.web.clock import StoppedClock
from web.asking import lay, problem
from web.test_people import ELSEWHERE, add, sign_in

ZONE = "Pacific/Auckland"


def events(body: bytes) -> dict[str, dict]:
    """Events by the beginning of their key: the kind of entry."""
    calendar = Calendar.from_ical(body)
    found = {}
    for event in calendar.walk("VEVENT"):
        kind = str(event["uid"]).split(".")[0]
        found[kind] = {
            "from": event.decoded("dtstart"),
            "until": event.decoded("dtend") - timedelta(days=1),
            "words": str(event["summary"]),
            "why": str(event["description"]),
        }
    return found


def read(http: TestClient, path: str = f"/api/calendar.ics?zone={ZONE}") -> dict[str, dict]:
    answer = http.get(path)
    assert answer.status_code == 200, answer.text
    assert answer.headers["content-type"].startswith("text/calendar")
    return events(answer.content)


def day(moment: str) -> date:
    return datetime.fromisoformat(moment).astimezone(ZoneInfo(ZONE)).date()


def test_windows_are_those_of_the_forecast_in_the_keepers_days(http: TestClient) -> None:
    code = lay(http)["code"]
    told = http.get(f"/api/clutches/{code}").json()["forecast"]
    held = read(http)
    pip = held["first-pip"]
    assert (pip["from"], pip["until"]) == (
        day(told["first_pip"]["p10"]), day(told["first_pip"]["p90"]),
    )  # fmt: skip
    likely = day(told["first_pip"]["p50"])
    assert f"most likely {likely.day} {likely:%B}" in pip["why"]
    assert f"/hatch/{code}" in pip["why"]
    assert held["all-out"]["until"] == day(told["all_out"]["p90"])


def test_a_visit_that_is_not_due_yet_stands_on_its_day(
    http: TestClient, clock: StoppedClock
) -> None:
    """Every visit of the calendar is one that the list of that day has, and of no day before."""
    code = lay(http, laid_at=(NOW - timedelta(days=1)).isoformat())["code"]

    def due() -> bool:
        return any(b["name"] == code and b["due"] for b in http.get("/api/round").json()["boxes"])

    found = read(http, "/api/calendar.ics?zone=UTC")["visit"]
    ahead = (found["from"] - NOW.date()).days
    assert 0 < ahead <= 14
    assert found["words"].startswith(f"Open box {code}: ")
    for _ in range(ahead):
        assert not due()
        clock.at_s += DAY_S
    assert due()


def test_a_closed_house_has_an_empty_calendar(http: TestClient) -> None:
    assert read(http) == {}


def test_what_was_stays_and_only_what_is_to_come_reminds(
    http: TestClient, clock: StoppedClock
) -> None:
    code = lay(http, laid_at=(NOW - timedelta(days=58)).isoformat())["code"]
    http.post(f"/api/clutches/{code}/eggs/1/pip", json={}).raise_for_status()

    def alarms() -> dict[str, int]:
        events = Calendar.from_ical(http.get("/api/calendar.ics?zone=UTC").content).walk("VEVENT")
        return {str(e["uid"]).split(".")[0]: len(e.walk("VALARM")) for e in events}

    held = read(http, "/api/calendar.ics?zone=UTC")
    assert held["laid"]["words"].startswith(f"{code}: laid, ")
    assert held["laid"]["from"] == (NOW - timedelta(days=58)).date()
    assert held["pipped"]["words"] == f"{code}: the first pipped"
    told = alarms()
    assert told["laid"] == told["pipped"] == 0
    assert told["all-out"] == 1
    # In the morning of its first day, whole days having only a midnight.
    (event,) = (
        e for e in Calendar.from_ical(http.get("/api/calendar.ics").content).walk("VEVENT")
        if str(e["uid"]).startswith("all-out")
    )  # fmt: skip
    assert event.walk("VALARM")[0].decoded("trigger") == timedelta(hours=7)
    # It is still there when it is long over, and gone when nobody asks after it any more.
    clock.at_s += 100 * DAY_S
    assert "laid" in read(http)
    clock.at_s += 300 * DAY_S
    assert "laid" not in read(http)


def test_a_dam_about_to_lay_is_in_it_with_what_to_prepare(http: TestClient) -> None:
    http.post("/api/animals", json={"role": "dam", "name": "Costmary"})
    dam = http.get("/api/animals").json()[0]["id"]
    answer = http.post("/api/breeding/signs", json={"dam": dam, "sign": "pre-lay shed"})
    assert answer.status_code == 201, answer.text
    held = read(http)
    assert held["lay"]["words"] == "Costmary likely lays"
    assert held["prepare"]["from"] < held["lay"]["from"]


def test_the_private_link_needs_nobody_signed_in_and_can_be_ended(http: TestClient) -> None:
    lay(http)
    assert http.get("/api/calendar/link").json() == {"made_at": None}
    made = http.post(f"/api/calendar/link?zone={ZONE}").json()
    link = made["link"]
    assert made["this_machine_only"] is True
    assert link.startswith("http://localhost/calendar/")
    assert read(http, link) == read(http)
    second = http.post("/api/calendar/link").json()["link"]
    assert "no more" in problem(http.get(link), 401)["detail"]
    assert http.delete("/api/calendar/link").status_code == 204
    problem(http.get(second), 401)
    problem(http.get("/calendar/guessed.ics"), 401)


def test_everybody_has_a_link_of_their_own_and_it_goes_with_them(http: TestClient) -> None:
    lay(http)
    machines = http.post("/api/calendar/link").json()["link"]
    add(http, "Rowan", "keeper")
    # Once there are people, the link made before them belongs to nobody.
    problem(http.get(machines), 401)
    sign_in(http, "Rowan")
    aspen = add(http, "Aspen", "visitor")
    phone = TestClient(http.app, client=ELSEWHERE)
    sign_in(phone, "Aspen")
    own = phone.post("/api/calendar/link").json()["link"]
    anybody = TestClient(http.app, client=ELSEWHERE)
    assert read(anybody, own)
    problem(anybody.get("/api/calendar.ics"), 401)
    assert http.get("/api/calendar/link").json() == {"made_at": None}
    assert http.delete(f"/api/people/{aspen}").status_code == 200
    problem(anybody.get(own), 401)


@pytest.mark.parametrize("path", ["/api/calendar.ics", "/api/calendar/link"])
def test_a_zone_that_is_none_is_refused(http: TestClient, path: str) -> None:
    method = "GET" if path.endswith(".ics") else "POST"
    answer = http.request(method, f"{path}?zone=Nowhere/Else")
    assert "is not a time zone" in problem(answer, 422)["detail"]
    assert http.get("/api/calendar/link").json() == {"made_at": None}
