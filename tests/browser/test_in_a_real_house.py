"""What breaks in a real house: widths between phone and desk, keys, old data, wrong addresses."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from browser.home import Address
from browser.laying import answer_all_up_to_the_box, begin, draft_once, next_step
from browser.test_rounds import box_now, egg_button, settled
from forked import started
from running import PHONE
from samples import NOW


def test_what_is_told_in_passing_hides_no_last_control(phone: Page, own_demo: Address) -> None:
    phone.goto(f"{own_demo}/hatch/26-01")
    for number, words in ((3, "pipped and died"), (4, "unknown"), (5, "dead in egg, full term")):
        phone.get_by_role("button", name=f"Say what became of egg {number}").tap()
        fate = phone.get_by_role("listitem", name=f"Fate of egg {number}", exact=True)
        fate.get_by_role("button", name=words).tap()
        expect(fate).to_contain_text(words)
    expect(phone.get_by_role("status").filter(has_text="Egg 5")).to_be_visible()
    phone.evaluate("scrollTo(0, document.body.scrollHeight)")
    close = phone.get_by_role("button", name="Close the clutch")
    covered = close.evaluate(
        """e => {
            const r = e.getBoundingClientRect()
            const there = document.elementFromPoint(r.x + r.width / 2, r.y + r.height / 2)
            return !e.contains(there)
        }"""
    )
    assert not covered
    phone.get_by_role("button", name="Put this away").last.tap()


def test_a_key_has_one_meaning_at_a_time_and_the_list_tells_it(desk: Page, demo: str) -> None:
    desk.goto(f"{demo}/round/26-05")
    egg_button(desk, 1).click()
    desk.keyboard.press("o")
    desk.keyboard.press("o")
    expect(desk.get_by_role("radio", name="off", exact=True).first).to_be_checked()
    expect(desk).to_have_url(re.compile("/round/26-05$"))
    # After a click on a sign the keys go on.
    desk.get_by_role("radio", name="spot", exact=True).first.click()
    desk.keyboard.press("2")
    expect(desk.get_by_role("radio", name="clear dents", exact=True)).to_be_checked()
    desk.keyboard.press("?")
    dialog = desk.get_by_role("dialog", name="Help and keys")
    expect(dialog.get_by_role("heading", name="Egg 1")).to_be_visible()
    terms = dialog.locator("dt").all_inner_texts()
    keys = [key for term in terms for key in term.split()]
    assert keys.count("o") == 1
    assert "Losses" not in dialog.inner_text()
    # The page beneath hears nothing while the list is open.
    desk.keyboard.press("t")
    expect(desk).to_have_url(re.compile("/round/26-05$"))
    desk.keyboard.press("Escape")
    expect(dialog).to_be_hidden()
    # Without an egg chosen the letter is the place's again.
    desk.get_by_role("button", name="Box", exact=True).click()
    desk.keyboard.press("?")
    expect(dialog).to_contain_text("Losses")
    desk.keyboard.press("Escape")
    expect(dialog).to_be_hidden()
    desk.keyboard.press("o")
    expect(desk.get_by_role("heading", level=1)).to_have_text("Losses")


def test_letters_typed_into_a_field_stay_letters(desk: Page, demo: str) -> None:
    desk.goto(f"{demo}/lay-day")
    desk.get_by_label("Dam").click()
    desk.keyboard.type("tansy")
    expect(desk.get_by_label("Dam")).to_have_value("tansy")
    expect(desk.get_by_role("heading", level=1)).to_have_text("Lay day")


def test_old_data_says_how_old_it_is_and_that_the_house_is_gone(
    phone: Page, tmp_path: Path
) -> None:
    asked = ("demo", "--today", NOW.isoformat(), "--data", str(tmp_path))
    with started(*asked) as (process, base):
        phone.clock.install()
        phone.goto(base)
        settled(phone)
        phone.reload()
        expect(phone.get_by_role("heading", level=1)).to_have_text("Today")
        gone = phone.get_by_text("The house is out of reach.")
        expect(gone).to_have_count(0)
        process.kill()
        # The page asks again within a minute, and tries a few times.
        for _ in range(4):
            phone.clock.fast_forward("00:30")
        expect(gone).to_be_visible()
        said = phone.get_by_role("status").filter(has=gone).or_(gone)
        expect(said.first).to_contain_text(
            re.compile(r"What is shown was read on \d+ \w+ \d\d:\d\d")
        )
        # Opened anew, from what this device keeps: it is no younger for that.
        phone.reload()
        expect(phone.get_by_role("heading", level=1)).to_have_text("Today")
        expect(gone).to_be_visible(timeout=60_000)
        expect(said.first).to_contain_text("What is shown was read on")


@pytest.mark.parametrize(
    ("address", "reason", "way"),
    [
        ("/animals/99999", "no such", "Animals"),
        ("/animals/nobody", "no such animal", "Animals"),
        ("/clutches/26-99", "There is no clutch 26-99", "Today"),
        ("/clutches/26-04/eggs/99", "has no egg 99", "Today"),
        ("/round/26-99", "There is no box 26-99", "Round"),
        ("/hatch/26-99", "no clutch 26-99", "Hatch"),
        ("/losses/26-99", "no clutch 26-99", "Losses"),
        ("/cabinets/Attic", "no cabinet Attic", "Cabinets"),
        ("/lay-day/99999", "no such lay day", "Lay day"),
        ("/settings/methods/99999", "There is no such method", "Settings"),
    ],
)
def test_an_unknown_address_within_a_place_has_a_reason_and_a_way_on(
    reading_desk: Page, demo: str, address: str, reason: str, way: str
) -> None:
    reading_desk.goto(demo + address)
    expect(reading_desk.get_by_role("heading", level=1)).to_have_text(
        "There is nothing to show here"
    )
    told = reading_desk.get_by_role("main").get_by_role("alert")
    expect(told).to_contain_text(re.compile(reason, re.IGNORECASE))
    assert len(told.inner_text()) > 12
    reading_desk.get_by_role("main").get_by_role("link", name=f"To {way}").click()
    expect(reading_desk.get_by_role("heading", level=1)).to_be_visible()
    expect(reading_desk.get_by_text("There is nothing to show here")).to_have_count(0)


def test_bench_is_a_place_and_no_switch(desk: Page, demo: str) -> None:
    desk.goto(demo)
    expect(desk.get_by_role("heading", level=1)).to_have_text("Today")
    desk.keyboard.press("n")
    header = desk.get_by_role("banner")
    expect(header.get_by_text("Bench", exact=True)).to_have_count(1)
    expect(header.get_by_role("button", name="To the light theme")).to_have_text("Light")


@pytest.mark.both_ways
def test_another_device_that_counts_fewer_eggs_breaks_nothing(desk: Page, empty: Address) -> None:
    begin(desk, empty)
    answer_all_up_to_the_box(desk, 6)
    lay_day = desk.url.rsplit("/", 1)[0]
    number = lay_day.rsplit("/", 1)[1]
    desk.goto(f"{lay_day}/eggs")
    desk.get_by_role("navigation", name="Eggs").get_by_role("button", name="Egg 6").click()
    expect(desk.get_by_text("Egg 6 of 6")).to_be_visible()
    told = desk.request.get(f"{empty.api}/api/lay-day-drafts/{number}").json()
    fewer = {**told["state"], "eggs": told["state"]["eggs"][:4]}
    body = {"revision": told["revision"], "step": "count", "state": fewer}
    assert desk.request.put(f"{empty.api}/api/lay-day-drafts/{number}", data=body).ok
    desk.keyboard.press("3")
    expect(desk.get_by_text("Egg 4 of 4")).to_be_visible()
    expect(desk.get_by_role("heading", level=1)).to_have_text("Each egg by torchlight")


@pytest.mark.both_ways
def test_two_devices_at_one_lay_day_lose_nothing_of_either(phone: Page, empty: Address) -> None:
    begin(phone, empty)
    phone.get_by_role("button", name="All ready").tap()
    next_step(phone, "Move the dam, look at her")
    number = phone.url.split("/")[-2]
    told = draft_once(phone, "day => day.step === 'dam'")

    def other_device(**changed: object) -> None:
        now = phone.request.get(f"{empty.api}/api/lay-day-drafts/{number}").json()
        body = {"revision": now["revision"], "step": "dam", "state": {**now["state"], **changed}}
        assert phone.request.put(f"{empty.api}/api/lay-day-drafts/{number}", data=body).ok

    assert told["state"]["lump"] is None
    other_device(lump="unsure", dam_mass_g=1310)
    phone.get_by_label("Her weight now").fill("1,240")
    phone.get_by_role("radio", name="No, hollow").tap()
    phone.get_by_role("button", name="Next").tap()
    clash = phone.get_by_role("alert").filter(has_text="Another device")
    expect(clash).to_contain_text("the lump: none here, unsure there")
    # What it entered besides is told, whether or not the weight typed here was on its way already.
    expect(clash).to_contain_text(re.compile("her weight: (1240 here, )?1310"))
    # The next step is there: nothing moves any more under the thumb.
    next_step(phone, "Mark every top")
    clash.get_by_role("button", name="Take the other's").tap()
    expect(clash).to_have_count(0)
    draft_once(phone, "day => day.state.lump === 'unsure'")
    phone.reload()
    next_step(phone, "Mark every top")


def test_a_lay_day_goes_on_with_eggs_nobody_candled(phone: Page, empty: Address) -> None:
    begin(phone, empty)
    for name in ("All ready",):
        phone.get_by_role("button", name=name).tap()
    phone.get_by_role("radio", name="No, hollow").tap()
    phone.get_by_role("button", name="Next").tap()
    phone.get_by_role("button", name="All marked").tap()
    phone.get_by_role("radio", name="4", exact=True).first.tap()
    phone.get_by_role("button", name="4-0, next").tap()
    phone.get_by_role("button", name="So they lie").tap()
    expect(phone.get_by_text("Counts as seen and done when they were laid")).to_be_visible()
    phone.get_by_role("button", name="Good: disc on top").tap()
    phone.get_by_role("button", name="Not candled", exact=True).tap()
    expect(phone.get_by_text("Egg 3 of 4")).to_be_visible()
    # A disc alone says nothing of vessels.
    phone.get_by_role("radio", name="underneath").tap()
    expect(phone.get_by_role("radio", name="strong vessels")).not_to_be_checked()
    phone.get_by_role("button", name="Egg 3 done").tap()
    phone.get_by_role("button", name="Not candled", exact=True).tap()
    next_step(phone, "Disc not on top")
    all_looked = "day => day.state.eggs.length === 4 && day.state.eggs.every(e => e.looked)"
    eggs = draft_once(phone, all_looked)["state"]["eggs"]
    assert [e["vessels"] for e in eggs] == ["strong", None, None, None]
    assert [e["disc"] for e in eggs] == ["top", None, "under", None]


def test_grams_that_cannot_be_are_refused_where_they_are_typed(phone: Page, empty: Address) -> None:
    begin(phone, empty)
    phone.get_by_role("button", name="All ready").tap()
    phone.get_by_role("radio", name="No, hollow").tap()
    mass = phone.get_by_label("Her weight now")
    mass.fill("12")
    phone.get_by_role("button", name="Next").tap()
    expect(phone.get_by_text("12 g is outside 300 to 6,000 g.")).to_be_visible()
    mass.fill("1.240")
    phone.get_by_role("button", name="Next").tap()
    next_step(phone, "Mark every top")
    draft_once(phone, "day => day.state.dam_mass_g === 1240")


def test_a_lump_left_stands_first_on_today(desk: Page, empty: Address) -> None:
    begin(desk, empty)
    desk.get_by_role("button", name="All ready").click()
    desk.get_by_role("radio", name="A lump is left").click()
    desk.goto(empty)
    first = desk.get_by_role("region", name="What needs you")
    # Nothing is laid yet but hers: the page of a house without clutches names her as well.
    expect(first.or_(desk.get_by_text("A lump was left")).first).to_be_visible()
    expect(desk.get_by_text("Nothing needs you now")).to_have_count(0)


def test_the_time_chosen_at_hatch_stays_until_it_is_changed(desk: Page, own_demo: Address) -> None:
    desk.goto(f"{own_demo}/hatch/26-01")
    desk.get_by_role("radio", name="6 h ago").check()
    expect(
        desk.get_by_text(re.compile("Whatever you tap is recorded for 14 Jun 14:30"))
    ).to_be_visible()
    desk.get_by_role("button", name="Egg 3 is out").click()
    expect(desk.get_by_text("out since 14 Jun 14:30")).to_be_visible()
    expect(desk.get_by_role("radio", name="6 h ago")).to_be_checked()
    desk.get_by_role("radio", name="now", exact=True).check()
    expect(desk.get_by_text("Whatever you tap is recorded for")).to_have_count(0)


def test_a_photo_and_a_sign_at_the_box_on_the_smallest_phone(chromium: Browser, demo: str) -> None:
    """320 px wide: nothing is wider than the screen, and the eggs can be chosen."""
    context = chromium.new_context(viewport={**PHONE, "width": 320}, has_touch=True)
    page = context.new_page()
    page.goto(f"{demo}/round/26-03")
    egg_button(page, 2).tap()
    expect(box_now(page)).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth - innerWidth") <= 0
    context.close()
