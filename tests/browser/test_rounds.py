"""Rounds as a keeper walks them: few taps, no network, two phones, and why an egg stands so."""

import json
import re
import urllib.request
from datetime import timedelta
from pathlib import Path
from typing import Any

import pytest
from PIL import Image
from playwright.sync_api import Browser, Locator, Page, Route, expect

from browser.home import Address, sign_in
from browser.in_the_hand import egg_button, settled
from browser.thumb import Thumb
from forked import started
from running import PHONE
from samples import NOW, ZONE

#: One box of eight eggs, seven of them good, in the demo.
EIGHT = "26-03"


def box_now(page: Page) -> Locator:
    """The drawing of the box as it is now, whose eggs are buttons."""
    return page.get_by_role("figure").filter(has=page.get_by_role("button"))


@pytest.mark.both_ways
def test_eight_eggs_with_two_exceptions_take_at_most_twelve_taps(
    phone: Page, own_demo: Address
) -> None:
    thumb = Thumb(phone)
    phone.goto(own_demo)
    thumb.tap(phone.get_by_role("navigation", name="Places").get_by_role("link", name="Round"))
    thumb.tap(phone.get_by_role("link", name=EIGHT, exact=True))
    thumb.tap(egg_button(phone, 3))
    thumb.tap(phone.get_by_role("radio", name="one dimple", exact=True))
    thumb.tap(egg_button(phone, 6))
    thumb.tap(phone.get_by_role("radio", name="spot", exact=True))
    expect(box_now(phone)).to_contain_text("2 exceptions")
    thumb.tap(phone.get_by_role("button", name="Rest as before, shut"))
    expect(phone.get_by_text(re.compile("egg 3: one slight dimple; egg 6:"))).to_be_visible()
    assert thumb.taps <= 12, thumb.taps
    told = phone.request.get(f"{own_demo.api}/api/clutches/{EIGHT}").json()
    assert [egg["grade"] for egg in told["eggs"]] == [0, 0, 1, 0, 0, 0, 0, None]
    assert told["eggs"][5]["signs"]["mould"] == "spot"
    assert "2 exceptions" not in told["log"][0]["summary"]
    assert re.search(
        r"Visit to 26-03, \d+ s open; .* the rest as before", told["log"][0]["summary"]
    )


@pytest.mark.both_ways
def test_a_dry_box_is_watered_by_the_scale_and_can_be_undone(
    phone: Page, own_demo: Address
) -> None:
    phone.goto(f"{own_demo}/round/26-04")
    expect(phone.get_by_text(re.compile(r"4 of 6 eggs dented early, 46\sg short"))).to_be_visible()
    expect(phone.get_by_role("link", name="Why, egg 1")).to_be_visible()
    expect(phone.get_by_role("img", name=re.compile("Last visit, .*1134 g"))).to_be_visible()
    mass = phone.get_by_label("Box weighs, g")
    mass.fill("1300")
    expect(phone.get_by_text(re.compile("more than the box had at set-up"))).to_be_visible()
    expect(phone.get_by_role("button", name="All as before, shut")).to_be_disabled()
    mass.fill("1128")
    phone.get_by_role("button", name=re.compile(r"Add 50 ml at 31\.\d\s°C, along the side")).click()
    expect(phone.get_by_label("Water added, g")).to_have_value("50")
    phone.get_by_role("radio", name="barely damp", exact=True).click()
    phone.get_by_role("checkbox", name="Lid wiped").check()
    phone.get_by_role("button", name="All as before, shut").click()
    expect(phone.get_by_text(re.compile(r"weighed 1128\sg; 50\sg of water added"))).to_be_visible()
    told = phone.request.get(f"{own_demo.api}/api/clutches/26-04").json()["boxes"][0]
    assert told["box_water"]["left"]["share"] > 0.95
    assert told["due"] == []
    phone.get_by_role("button", name="Undo").first.click()
    expect(phone.get_by_text(re.compile("^Undone: Visit"))).to_be_visible()
    told = phone.request.get(f"{own_demo.api}/api/clutches/26-04").json()["boxes"][0]
    assert [due["kind"] for due in told["due"]] == ["dents"]


def test_a_round_at_the_desk_by_keys_alone(desk: Page, own_demo: Address) -> None:
    desk.goto(own_demo)
    expect(desk.get_by_role("heading", level=1)).to_have_text("Today")
    desk.keyboard.press("r")
    expect(desk.get_by_role("heading", level=1)).to_have_text("Round")
    desk.get_by_role("link", name="26-05", exact=True).focus()
    desk.keyboard.press("Enter")
    egg_button(desk, 1).focus()
    desk.keyboard.press("Enter")
    desk.keyboard.press("1")
    desk.keyboard.press("m")  # none
    desk.keyboard.press("m")  # a spot
    desk.keyboard.press("ArrowRight")
    desk.keyboard.press("v")  # strong vessels
    expect(desk.get_by_role("heading", name="Egg 2")).to_be_visible()
    expect(box_now(desk)).to_contain_text("2 exceptions")
    # Once round and off again: as before.
    for _ in range(5):
        desk.keyboard.press("v")
    expect(box_now(desk)).to_contain_text("1 exception")
    desk.keyboard.press("v")
    desk.keyboard.press("k")
    expect(
        desk.get_by_text(re.compile("egg 1: one slight dimple, a spot of mould"))
    ).to_be_visible()
    eggs = desk.request.get(f"{own_demo.api}/api/clutches/26-05").json()["eggs"]
    assert (eggs[0]["grade"], eggs[0]["signs"]["mould"]) == (1, "spot")
    assert eggs[1]["torchlight"]["vessels"] == "strong"


def test_a_round_without_a_network_is_delivered_once_and_in_order(
    phone: Page, tmp_path: Path
) -> None:
    data = ("demo", "--today", NOW.isoformat(), "--data", str(tmp_path))
    with started(*data) as (_, base):
        phone.goto(f"{base}/round")
        settled(phone)
        phone.reload()
        expect(phone.get_by_role("link", name="26-04", exact=True)).to_be_visible()

        phone.context.set_offline(True)
        phone.reload()
        for code, egg in ((EIGHT, 2), ("26-04", 4)):
            phone.goto(f"{base}/round/{code}")
            egg_button(phone, egg).click()
            phone.get_by_role("radio", name="clear dents", exact=True).click()
            phone.get_by_role("button", name="Rest as before, shut").click()
            # The page moves on once the visit is kept; leaving sooner would outrun the store.
            expect(phone).not_to_have_url(f"{base}/round/{code}")
        phone.goto(f"{base}/round")
        waiting = phone.get_by_role("region", name="On this device")
        expect(waiting).to_contain_text(re.compile(rf"2 visits wait.*{EIGHT}.*26-04"))
        expect(phone.get_by_role("link", name="2 to deliver")).to_be_visible()
        # Closed and opened again without a network: still there.
        phone.reload()
        expect(waiting).to_contain_text("2 visits wait")
        # The house has heard nothing yet.
        assert not [s for s in _summaries(base, EIGHT) if "egg 2: clear dents" in s]

        # Back in reach, and the first answer is lost on the way: the house has the visits, the
        # phone does not know. It asks again, and they are the same visits.
        lost: list[str] = []

        def lose(route: Route) -> None:
            if lost:
                route.continue_()
                return
            lost.append(route.fetch().text())
            route.abort()

        phone.route("**/api/visits", lose)
        phone.context.set_offline(False)
        expect(phone.get_by_role("link", name="2 to deliver")).to_have_count(0, timeout=40_000)
        expect(waiting).to_have_count(0)
        assert lost[0].count('"stored"') == 2
        for code, words in ((EIGHT, "egg 2: clear dents"), ("26-04", "egg 4: clear dents")):
            told = [line for line in _summaries(base, code) if words in line]
            assert len(told) == 1, told
        acts = {code: _log(base, code)[0]["act"] for code in (EIGHT, "26-04")}
        assert acts[EIGHT] < acts["26-04"]


@pytest.mark.both_ways
def test_what_was_tapped_survives_a_phone_that_locks(phone: Page, own_demo: Address) -> None:
    phone.goto(f"{own_demo}/round/{EIGHT}")
    egg_button(phone, 5).click()
    phone.get_by_role("radio", name="creased", exact=True).click()
    expect(box_now(phone)).to_contain_text("1 exception")
    phone.reload()
    expect(box_now(phone)).to_contain_text("1 exception")
    phone.goto(f"{own_demo}/round")
    expect(phone.get_by_text("left open on this device")).to_be_visible()
    phone.goto(f"{own_demo}/round/{EIGHT}")
    phone.get_by_role("button", name="Leave without recording anything").click()
    expect(phone.get_by_text("left open on this device")).to_have_count(0)


@pytest.mark.both_ways
def test_two_phones_that_close_one_box_are_told_and_both_are_kept(
    chromium: Browser, phone: Page, own_demo: Address
) -> None:
    context = chromium.new_context(timezone_id=ZONE, locale="en-GB", viewport=PHONE)
    sign_in(context, own_demo)
    other = context.new_page()
    for page in (phone, other):
        page.goto(f"{own_demo}/round/{EIGHT}")
        egg_button(page, 1).click()
    other.get_by_role("radio", name="one dimple", exact=True).click()
    other.get_by_role("button", name="Rest as before, shut").click()
    expect(other.get_by_text(re.compile("egg 1: one slight dimple"))).to_be_visible()
    phone.get_by_role("radio", name="creased", exact=True).click()
    phone.get_by_role("button", name="Rest as before, shut").click()
    expect(phone.get_by_text(re.compile("egg 1: a creased or sunken side"))).to_be_visible()
    phone.goto(f"{own_demo}/round")
    told = phone.get_by_role("region", name="On this device")
    expect(told).to_contain_text("Another device closed box")
    expect(told).to_contain_text("meanwhile one slight dimple was recorded")
    told.get_by_role("button", name="Seen").click()
    expect(told).to_have_count(0)
    log = phone.request.get(f"{own_demo.api}/api/clutches/{EIGHT}").json()["log"]
    assert len([line for line in log if line["summary"].startswith("Visit")]) == 5
    other.context.close()


def test_a_visit_the_house_refuses_is_kept_and_can_be_mended(
    phone: Page, own_demo: Address
) -> None:
    phone.goto(f"{own_demo}/round/26-04")
    egg_button(phone, 5).click()
    phone.get_by_role("radio", name="collapsed", exact=True).click()
    removed = {
        "key": "other-phone.removes",
        "box": "26-04",
        "opened_at": (NOW - timedelta(minutes=9)).isoformat(),
        "closed_at": (NOW - timedelta(minutes=8)).isoformat(),
        "eggs": [{"number": 5, "acts": ["removed"]}],
    }
    answer = phone.request.post(f"{own_demo.api}/api/visits", data={"visits": [removed]})
    assert answer.json()["outcomes"][0]["state"] == "stored"
    phone.get_by_role("button", name="Rest as before, shut").click()
    # It is kept on the device before the page moves on.
    expect(phone).not_to_have_url(re.compile("/round/26-04$"))
    phone.goto(f"{own_demo}/round")
    told = phone.get_by_role("region", name="On this device")
    expect(told).to_contain_text("Egg 5 was removed: nothing to record of it.")
    told.get_by_role("button", name="Open it again").click()
    expect(phone).to_have_url(re.compile("/round/26-04$"))
    expect(box_now(phone)).to_contain_text("1 exception")
    phone.get_by_role("button", name="Leave without recording anything").click()
    expect(told).to_have_count(0)


def test_an_egg_says_why_it_stands_so_and_its_numbers_can_be_set(
    desk: Page, own_demo: Address
) -> None:
    desk.goto(f"{own_demo}/clutches/26-05/eggs/3")
    expect(
        desk.get_by_role("heading", name=re.compile("^Failing: more likely lost"))
    ).to_be_visible()
    expect(desk.get_by_text(re.compile(r"Chance to pip \d+.%, to hatch \d+.%"))).to_be_visible()
    desk.get_by_role("link", name="26-05").first.click()
    expect(desk.get_by_text("Expect 4 of 5 to hatch (2 to 5).")).to_be_visible()
    desk.go_back()
    evidence = desk.get_by_role("list", name="Evidence").get_by_role("listitem")
    expect(evidence.filter(has_text="Smells off")).to_contain_text("today; a little against it")
    expect(evidence.filter(has_text="Strong vessels on lay day")).to_contain_text("for it")
    expect(evidence.filter(has_text="No vessels by torch")).to_contain_text("strongly against it")
    expect(desk.get_by_text(re.compile("Candle it: strong vessels or movement"))).to_be_visible()
    expect(desk.get_by_text("failing egg").first).to_be_visible()
    expect(desk.get_by_role("list", name="Photos side by side").get_by_role("img")).to_have_count(4)
    desk.get_by_role("button", name="Why? With the rule and its numbers").click()
    smell = evidence.filter(has_text="Smells off")
    smell.get_by_role(
        "link", name=re.compile("weight .1.0 × 0.8, here .*3 of your eggs showed it")
    ).click()
    field = desk.get_by_label("Smells off, log-odds")
    expect(field).to_be_in_viewport()
    field.fill("0")
    desk.locator("form", has=field).get_by_role("button", name="Set").click()
    expect(desk.get_by_text("Smells off: 0 log-odds")).to_be_visible()
    desk.goto(f"{own_demo}/clutches/26-05/eggs/3")
    expect(evidence.filter(has_text="Smells off")).to_contain_text("says nothing")


def test_a_reason_is_put_off_and_remembered(desk: Page, own_demo: Address) -> None:
    desk.goto(own_demo)
    listed = desk.get_by_role("region", name="4 boxes to open")
    line = listed.get_by_role("listitem").filter(has_text="26-06").first
    expect(line).to_contain_text("Candle egg 2 again")
    line.get_by_role("button", name=re.compile("Later, in a day: Candle egg 2")).click()
    fewer = desk.get_by_role("region", name="3 boxes to open")
    expect(fewer).to_contain_text("Later, on 15 Jun: Candle egg 2 again")
    told = desk.get_by_role("status").filter(has_text="put off candling")
    told.get_by_role("button", name="Undo").click()
    expect(listed).to_be_visible()


def test_what_if_the_box_were_closed_otherwise(desk: Page, demo: str) -> None:
    desk.goto(f"{demo}/clutches/26-04")
    box = desk.get_by_role("region", name="Box")
    expect(box).to_contain_text("54 % of its water left")
    expect(box).to_contain_text("By 4 weighings")
    box.get_by_label("What if closed with").select_option("sealed film")
    expect(box.get_by_role("status")).to_contain_text(re.compile(r"Then about 0\.[12] g a day"))
    box.get_by_label("in a cabinet at").select_option("90")
    expect(box.get_by_role("status")).to_contain_text("not before this clutch is out")


@pytest.mark.both_ways
def test_a_photo_taken_at_the_box_reaches_the_egg(
    phone: Page, own_demo: Address, tmp_path: Path
) -> None:
    photo = tmp_path / "egg.jpg"
    Image.new("RGB", (640, 480), (196, 96, 52)).save(photo, "JPEG")
    phone.goto(f"{own_demo}/round/{EIGHT}")
    egg_button(phone, 4).click()
    phone.get_by_role("radio", name="strong", exact=True).click()
    phone.get_by_label("Photo of egg 4").set_input_files(photo)
    phone.get_by_role("button", name="Rest as before, shut").click()
    expect(phone.get_by_text(re.compile("^Visit to .*egg 4: strong vessels"))).to_be_visible()
    expect(phone.get_by_role("link", name=re.compile("to deliver"))).to_have_count(0)
    phone.goto(f"{own_demo}/clutches/{EIGHT}/eggs/4")
    expect(phone.get_by_role("img", name=re.compile("Egg 4, .*by torch"))).to_be_visible()


def _log(base: str, code: str) -> list[dict[str, Any]]:
    """The log as the house has it, asked from outside the browser, whose network may be cut."""
    with urllib.request.urlopen(f"{base}/api/clutches/{code}") as answer:
        log: list[dict[str, Any]] = json.load(answer)["log"]
    return log


def _summaries(base: str, code: str) -> list[str]:
    return [entry["summary"] for entry in _log(base, code)]


def test_all_eggs_alike_but_one(phone: Page, own_demo: Address) -> None:
    phone.goto(f"{own_demo}/round/26-05")
    phone.get_by_role("button", name="All eggs alike").tap()
    phone.get_by_role("radio", name="one dimple", exact=True).tap()
    expect(box_now(phone)).to_contain_text("exceptions")
    egg_button(phone, 2).tap()
    phone.get_by_role("radio", name="clear dents", exact=True).tap()
    phone.get_by_role("button", name="Rest as before, shut").tap()
    expect(phone.get_by_text(re.compile("egg 2: clear dents"))).to_be_visible()
    told = phone.request.get(f"{own_demo.api}/api/clutches/26-05").json()
    grades = [egg["grade"] for egg in told["boxes"][0]["eggs"] if not egg["slug"]]
    assert grades[1] == 2
    assert set(grades[:1] + grades[2:]) == {1}
