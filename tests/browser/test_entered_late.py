"""Paper entered late: a visit of another day, a week of them, and what was entered put right."""

import re
from datetime import timedelta

import pytest
from playwright.sync_api import Locator, Page, expect

from browser.home import Address
from browser.thumb import Thumb
from samples import NOW


def local(days_ago: float) -> str:
    """The keeper's wall clock that many days ago, as a field for date and time takes it."""
    moment = NOW - timedelta(days=days_ago) + timedelta(hours=2)  # Berlin in summer
    return moment.strftime("%Y-%m-%dT%H:%M")


def egg_button(page: Page, number: int) -> Locator:
    box = page.get_by_role("figure").filter(has_text=re.compile("now|then"))
    return box.get_by_role("button", name=re.compile(rf"^Egg {number},"))


def visits(page: Page, house: Address, code: str) -> list[dict]:
    log = page.request.get(f"{house.api}/api/clutches/{code}").json()["log"]
    return [entry for entry in log if entry["kind"] == "visit"]


def put_down(page: Page, thumb: Thumb, box: str) -> None:
    """What a visit costs live as well: the box opened, two taps at an egg, shut."""
    thumb.tap(page.get_by_role("link", name=f"Open box {box}", exact=True))
    thumb.tap(egg_button(page, 1))
    thumb.tap(page.get_by_role("radio", name="one dimple", exact=True))
    thumb.tap(page.get_by_role("button", name="Rest as before, shut"))


@pytest.mark.both_ways
def test_a_week_of_paper_takes_at_most_two_taps_more_a_visit(
    phone: Page, own_demo: Address
) -> None:
    phone.goto(f"{own_demo}/round")
    live = Thumb(phone)
    put_down(phone, live, "26-05")
    expect(phone.get_by_role("heading", name="26-05")).to_have_count(0)
    expect(phone.get_by_text("to deliver")).to_have_count(0)
    known = len(visits(phone, own_demo, "26-05"))
    paper = Thumb(phone)
    days = (6.0, 4.0, 2.0)
    for days_ago in days:
        phone.goto(f"{own_demo}/round")
        expect(phone.get_by_role("heading", name="Round")).to_be_visible()
        field = phone.get_by_label("Seen", exact=True)
        if not field.is_visible():
            paper.tap(phone.get_by_role("button", name="Seen now"))
        field.fill(local(days_ago))
        paper.taps += 1
        expect(phone.get_by_text("Entered for")).to_be_visible()
        put_down(phone, paper, "26-05")
        expect(phone.get_by_role("heading", name="26-05")).to_have_count(0)
    assert paper.taps <= (live.taps + 2) * len(days), (paper.taps, live.taps)
    # They count as seen then; the box is as it was last seen.
    expect(phone.get_by_text("to deliver")).to_have_count(0)
    told = visits(phone, own_demo, "26-05")
    assert len(told) == known + len(days)
    at = [entry["at"][:10] for entry in told[: len(days)]]
    assert at == [(NOW - timedelta(days=d)).date().isoformat() for d in reversed(days)]
    phone.get_by_role("button", name="Back to now").click()
    expect(phone.get_by_text("Entered for")).to_have_count(0)


def test_a_box_of_another_day_is_shown_as_it_was_then(phone: Page, own_demo: Address) -> None:
    phone.goto(f"{own_demo}/round/26-04")
    expect(phone.get_by_text(re.compile("^open"))).to_be_visible()
    phone.get_by_role("button", name="Seen now").click()
    phone.get_by_label("Seen", exact=True).fill(local(10.0))
    expect(phone.get_by_text(re.compile("day 16, "))).to_be_visible()
    expect(phone.get_by_text(re.compile("^open"))).to_have_count(0)
    expect(phone.get_by_text("then, as before")).to_be_visible()
    # Before it was laid, and ahead of the house: said at the field, and nothing is lost.
    phone.get_by_label("Seen", exact=True).fill(local(300.0))
    expect(phone.get_by_text(re.compile("no box 26-04 with eggs in it then"))).to_be_visible()
    phone.get_by_label("Seen", exact=True).fill(local(-1.0))
    expect(phone.get_by_text(re.compile("in the future"))).to_be_visible()
    phone.get_by_role("button", name="Now again").click()
    expect(phone.get_by_text(re.compile("now, as before"))).to_be_visible()


def test_a_visit_in_the_log_is_put_right_and_its_undo_says_what_rests_on_it(
    phone: Page, own_demo: Address
) -> None:
    phone.goto(f"{own_demo}/clutches/26-04")
    log = phone.get_by_role("region", name="Log", exact=True)
    lines = log.get_by_role("listitem").filter(has_text="Visit to 26-04")
    # The visit before the last one: a weighing rests on what was poured in it.
    earlier = lines.nth(1)
    earlier.get_by_role("link", name="Correct").click()
    expect(phone.get_by_text("Correct the visit as it was")).to_be_visible()
    expect(phone.get_by_label("Seen", exact=True)).not_to_have_value("")
    phone.get_by_label("Water added, g").fill("35")
    egg_button(phone, 2).tap()
    phone.get_by_role("radio", name="clear dents", exact=True).tap()
    phone.get_by_role("button", name="Record the correction").tap()
    corrected = lines.first
    expect(corrected).to_contain_text(re.compile(r"Corrected: visit to 26-04.*egg 2: clear dents"))
    expect(corrected).to_contain_text("35\u00a0g of water added")
    expect(corrected).to_contain_text("entered")
    corrected.get_by_role("button", name="Undo").click()
    expect(corrected.get_by_role("alert")).to_contain_text("later weighing")
    corrected.get_by_role("button", name="Leave it").click()
    corrected.get_by_role("button", name="Undo").click()
    corrected.get_by_role("button", name="Undo all the same").click()
    expect(log.get_by_text(re.compile("^Undone: Corrected"))).to_be_visible()
    page = phone.request.get(f"{own_demo.api}/api/clutches/26-04").json()
    poured = [entry for entry in page["log"] if "35\u00a0g" in entry["summary"]]
    assert all(entry["undone"] or entry["kind"] == "undo" for entry in poured)


def test_a_dams_weight_and_meal_of_one_evening(desk: Page, own_demo: Address, ids) -> None:
    desk.goto(f"{own_demo}/animals/{ids['dam']}")
    weights = desk.get_by_role("region", name="Record a weight")
    weights.get_by_role("button", name="Weighed now").click()
    weights.get_by_label("Weighed", exact=True).fill(local(3.0))
    weights.get_by_label("Weight, g").fill("1740")
    weights.get_by_role("button", name="Record weight").click()
    log = desk.get_by_role("region", name="Log", exact=True)
    expect(log.get_by_text("Tansy: 1740\u00a0g")).to_be_visible()
    meals = desk.get_by_role("region", name="Record a meal")
    expect(meals.get_by_label("Offered", exact=True)).to_have_value(local(3.0))
    meals.get_by_label("Prey").fill("small rat")
    meals.get_by_role("button", name="Taken").click()
    expect(log.get_by_role("listitem").first).to_contain_text(
        re.compile("Tansy took small rat.*entered 14 Jun")
    )
    told = desk.request.get(f"{own_demo.api}/api/animals/{ids['dam']}").json()
    day = (NOW - timedelta(days=3)).date().isoformat()
    assert 1740.0 in [w["mass_g"] for w in told["weights"] if w["at"].startswith(day)]
    assert "small rat" in [m["prey"] for m in told["meals"] if m["at"].startswith(day)]


def test_a_line_of_the_log_is_corrected_at_its_fields(
    desk: Page, own_demo: Address, ids: dict[str, int]
) -> None:
    desk.goto(f"{own_demo}/animals/{ids['dam']}")
    log = desk.get_by_role("region", name="Log", exact=True)
    line = log.get_by_role("listitem").first
    expect(line).to_contain_text(re.compile(r"Tansy: \d+\sg"))
    line.get_by_role("button", name="Correct").click()
    form = line.get_by_role("form", name="Correct what was recorded")
    form.get_by_label("Weight, g").fill("5")
    form.get_by_role("button", name="Record the correction").click()
    expect(form.get_by_text(re.compile("no weight of a snake"))).to_be_visible()
    form.get_by_label("Weight, g").fill("1712")
    form.get_by_role("button", name="Record the correction").click()
    expect(log.get_by_text("Corrected: Tansy: 1712\u00a0g")).to_be_visible()
    expect(desk.get_by_role("form", name="Correct what was recorded")).to_have_count(0)
    told = desk.request.get(f"{own_demo.api}/api/animals/{ids['dam']}").json()
    assert told["animal"]["mass_g"] == 1712


@pytest.mark.both_ways
def test_a_note_of_several_lines_and_a_check_are_corrected_in_their_logs(
    desk: Page, own_demo: Address, ids: dict[str, int]
) -> None:
    note = {"about": ids["dam"], "text": "Calm today.\nDrank."}
    assert desk.request.post(f"{own_demo.api}/api/notes", data=note).ok
    desk.goto(f"{own_demo}/animals/{ids['dam']}")
    log = desk.get_by_role("region", name="Log", exact=True)
    line = log.get_by_role("listitem").first
    line.get_by_role("button", name="Correct").click()
    form = line.get_by_role("form", name="Correct what was recorded")
    expect(form.get_by_label("Note")).to_have_value("Calm today.\nDrank.")
    form.get_by_label("Note").fill("Calm today.\nDrank, and shed.")
    form.get_by_role("button", name="Record the correction").click()
    expect(log.get_by_text("Corrected: Note on Tansy: Calm today").first).to_be_visible()
    told = desk.request.get(f"{own_demo.api}/api/notes?about={ids['dam']}").json()
    assert "Calm today.\nDrank, and shed." in str(told).replace("\\n", "\n")
    probe = desk.request.get(f"{own_demo.api}/api/probes").json()[0]["id"]
    check = {"kind": "salt", "shown": 0.72}
    assert desk.request.post(f"{own_demo.api}/api/probes/{probe}/checks", data=check).ok
    desk.goto(f"{own_demo}/")
    recorded = desk.get_by_role("listitem").filter(has_text="over salt of").first
    recorded.get_by_role("button", name="Correct").click()
    form = recorded.get_by_role("form", name="Correct what was recorded")
    form.get_by_label("It showed, %").fill("73.5")
    form.get_by_role("button", name="Record the correction").click()
    expect(desk.get_by_text("Corrected: Probe").first).to_contain_text("73.5")
