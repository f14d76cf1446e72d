"""The places: reached by key and thumb, small to load, and saying what is true."""

import re

import httpx2
from playwright.sync_api import Page, expect

from browser.home import Address
from browser.places import open_place

#: kB of script on first load, compressed (product requirement).
MOST_SCRIPT_KB = 300


def test_the_first_load_is_small(desk: Page, demo: str) -> None:
    open_place(desk, demo)
    loaded = desk.evaluate(
        """() => performance.getEntriesByType('resource')
            .filter(e => e.name.endsWith('.js')).reduce((sum, e) => sum + e.encodedBodySize, 0)"""
    )
    assert 0 < loaded / 1000 <= MOST_SCRIPT_KB


def test_places_by_key_theme_by_key_and_the_keys_themselves(desk: Page, demo: str) -> None:
    desk.goto(demo)
    expect(desk.get_by_role("heading", level=1)).to_have_text("Today")
    html = desk.locator("html")
    desk.keyboard.press("n")
    expect(html).to_have_attribute("data-theme", "night")
    desk.keyboard.press("b")
    expect(desk.get_by_role("heading", level=1)).to_have_text("Bench")
    desk.keyboard.press("?")
    dialog = desk.get_by_role("dialog", name="Help and keys")
    expect(dialog).to_contain_text("night room or light theme")
    # Only what a key does here: there is no egg to grade on the bench.
    expect(dialog).not_to_contain_text("grade of the chosen egg")
    desk.keyboard.press("Escape")
    expect(dialog).to_be_hidden()
    desk.keyboard.press("t")
    expect(desk.get_by_role("heading", level=1)).to_have_text("Today")
    desk.reload()
    expect(html).to_have_attribute("data-theme", "night")


def test_places_that_do_not_fit_under_the_thumb_are_under_more(phone: Page, demo: str) -> None:
    open_place(phone, demo)
    phone.get_by_role("button", name="More").tap()
    phone.get_by_role("menuitem", name="Bench").tap()
    expect(phone.get_by_role("heading", level=1)).to_have_text("Bench")
    expect(phone.get_by_role("menuitem")).to_have_count(0)


def test_the_demo_has_something_true_to_say_on_today(desk: Page, demo: str) -> None:
    open_place(desk, demo)
    open_today = desk.get_by_role("region", name="4 boxes to open")
    drying = open_today.get_by_role("listitem").filter(has_text="26-04 North, lower")
    expect(drying.first).to_contain_text(
        "4 of 6 eggs dented early, 46 g short. Add 45 ml at 31.3 °C along the side."
    )
    expect(open_today).to_contain_text("Last week: candle the eggs once.")
    known = desk.get_by_role("region", name="To know")
    expect(known).to_contain_text("Ran cold, down to 25")
    expect(known).to_contain_text("First pip likely in")
    expect(known).to_contain_text("The lid rains: normal late in the term")
    expect(known).to_contain_text("North middle: repeats one value")
    boxed = desk.get_by_role("region", name="Laid, not boxed yet")
    expect(boxed).to_contain_text("Hyssop, 7-1")


def test_the_clutch_says_what_its_forecast_rests_on(desk: Page, demo: str) -> None:
    open_place(desk, f"{demo}/clutches/26-05")
    expect(
        desk.get_by_text("Measured 74 % of the time; 2 gaps filled from the set point.")
    ).to_be_visible()
    open_place(desk, f"{demo}/clutches/26-04")
    expect(desk.get_by_text("pips 0.8 days later")).to_be_visible()


def test_degrees_follow_the_keeper_and_a_device_may_differ(
    desk: Page, phone: Page, own_demo: Address
) -> None:
    desk.goto(own_demo)
    expect(desk.get_by_text("set to 31.5 °C", exact=True)).to_be_visible()
    desk.get_by_role("button", name="switch to °F").click()
    expect(desk.get_by_text("set to 88.7 °F", exact=True)).to_be_visible()
    # What the house says is told in it too, here and on every other device.
    for page in (desk, phone):
        page.goto(own_demo)
        expect(page.get_by_text(re.compile(r"Ran cold, down to 7\d\.\d\s°F")).first).to_be_visible()
    phone.goto(f"{own_demo}/settings/phones")
    here = phone.get_by_role("radiogroup", name="On this device")
    here.get_by_role("radio", name="°C").check()
    phone.goto(own_demo)
    expect(phone.get_by_text(re.compile(r"Ran cold, down to 2\d\.\d\s°C")).first).to_be_visible()
    desk.reload()
    expect(desk.get_by_text(re.compile(r"Ran cold, down to 7\d\.\d\s°F")).first).to_be_visible()


def test_bench_answers_while_typing(desk: Page, demo: str) -> None:
    open_place(desk, f"{demo}/bench")
    expect(desk.get_by_text("8.0 days later")).to_be_visible()
    desk.get_by_label("Against, °C").fill("32")
    expect(desk.get_by_text("2.3 days earlier")).to_be_visible()
    mixing = desk.get_by_role("region", name="Mixing medium")
    mixing.get_by_label("Dry, g").fill("150")
    mixing.get_by_label("Water per g").fill("0,8")
    expect(mixing).to_contain_text("Add 120 g of water to 150 g")
    mixing.get_by_label("Measured by").select_option("volume")
    mixing.get_by_label("Dry, l").fill("2")
    expect(mixing).to_contain_text("Rough: that volume weighs 160 to 280 g dry")
    topping = desk.get_by_role("region", name="Topping up")
    expect(topping).to_contain_text("Lost 46 g. Add 45 g")
    topping.get_by_label("Box today, g").fill("1300")
    expect(topping.get_by_role("alert")).to_contain_text("heavier than at set-up")


def test_every_specimen_is_drawn_at_four_sizes_and_named(desk: Page, demo: str) -> None:
    open_place(desk, f"{demo}/specimens")
    items = desk.get_by_role("main").get_by_role("listitem")
    expect(items).to_have_count(36)
    names = (
        desk.get_by_role("main")
        .get_by_role("img")
        .evaluate_all("all => all.map(e => e.getAttribute('aria-label'))")
    )
    assert len(set(names)) == 36
    assert "Egg 3, clear dents" in names
    assert any("furry with mould" in name for name in names)
    # Each state looks different from every other, not only in words.
    drawings = items.locator("svg:first-of-type").evaluate_all(
        "all => all.map(e => e.innerHTML.replace(/_r_\\\\w+_|«\\\\w+»/g, ''))"
    )
    assert len(set(drawings)) == len(drawings)


def test_an_unknown_address_and_an_unknown_clutch_are_told(desk: Page, demo: str) -> None:
    open_place(desk, f"{demo}/nowhere")
    expect(desk.get_by_role("heading", level=1)).to_have_text("There is nothing here")
    desk.goto(f"{demo}/clutches/26-99")
    expect(desk.get_by_text("There is no clutch 26-99")).to_be_visible()


def test_the_wall_says_what_to_do_and_keeps_itself_current(desk: Page, own_demo: str) -> None:
    open_place(desk, own_demo)
    desk.get_by_role("link", name="Wall view").click()
    expect(desk.get_by_role("heading", level=1)).to_have_text("4 boxes to open")
    to_do = desk.get_by_role("region", name="To do now").get_by_role("listitem")
    expect(to_do.first).to_contain_text("26-04")
    expect(to_do.first).to_contain_text("dented early")
    expect(desk.get_by_role("region", name="Cabinets")).to_contain_text("North")
    expect(desk.get_by_role("region", name="Next to pip").get_by_role("listitem")).to_have_count(4)
    # Nothing around it, and all of it on the screen.
    expect(desk.get_by_role("navigation")).to_have_count(0)
    assert desk.evaluate("document.documentElement.scrollHeight <= innerHeight")
    put_off = {"box": "26-04", "kind": "dents", "days": 1}
    httpx2.post(f"{own_demo}/api/postponements", json=put_off).raise_for_status()
    expect(desk.get_by_role("heading", level=1)).to_have_text("3 boxes to open", timeout=15_000)
    desk.get_by_role("link", name="Leave").click()
    expect(desk.get_by_role("heading", level=1)).to_have_text("Today")


def test_every_place_explains_itself_with_its_cautions(desk: Page, demo: str) -> None:
    open_place(desk, f"{demo}/cabinets/North")
    desk.get_by_role("button", name="Help and keys").click()
    dialog = desk.get_by_role("dialog", name="Help and keys")
    about = dialog.get_by_role("region", name="Cabinets")
    expect(about).to_contain_text("A probe counts by its checks")
    expect(about).to_contain_text("an electrician for the wiring")
    dialog.get_by_role("button", name="Close").click()
    expect(dialog).to_be_hidden()


def test_help_is_under_the_thumb_too(phone: Page, demo: str) -> None:
    open_place(phone, f"{demo}/round")
    phone.get_by_role("button", name="More").tap()
    phone.get_by_role("menuitem", name="Help").tap()
    dialog = phone.get_by_role("dialog", name="Help and keys")
    expect(dialog).to_contain_text("in the order that keeps doors shut")
    expect(dialog).to_contain_text("Do not turn an egg")


def test_a_place_whose_script_did_not_come_is_tried_again_when_it_is_come_to(
    desk: Page, demo: str
) -> None:
    open_place(desk, demo)
    desk.route("**/assets/SeasonsPlace-*.js", lambda route: route.abort())
    desk.keyboard.press("e")
    expect(desk.get_by_role("heading", level=1)).to_have_text("There is nothing here")
    desk.keyboard.press("b")
    expect(desk.get_by_role("heading", level=1)).to_have_text("Bench")
    desk.unroute("**/assets/SeasonsPlace-*.js")
    desk.keyboard.press("e")
    expect(desk.get_by_role("heading", level=1)).to_have_text("Seasons")


def test_the_wall_says_when_the_house_does_not_answer(desk: Page, demo: str) -> None:
    open_place(desk, f"{demo}/wall")
    desk.route("**/api/**", lambda route: route.abort())
    desk.evaluate("dispatchEvent(new Event('offline'))")
    expect(desk.get_by_role("alert").or_(desk.get_by_role("status")).first).to_be_visible()
    desk.keyboard.press("/")
    expect(desk.get_by_role("dialog", name="Find anything")).to_be_visible()


def test_the_parts_of_a_clutch_are_jumped_to_and_what_needs_doing_stays_in_view(
    desk: Page, demo: str
) -> None:
    open_place(desk, f"{demo}/clutches/26-04")
    parts = desk.get_by_role("navigation", name="Parts of 26-04")
    expect(parts.get_by_role("link")).to_have_text(
        ["Eggs", "Forecast", "Box", "Method", "Notes", "Photos", "Log"]
    )
    needs = desk.get_by_text(re.compile("4 of 6 eggs dented early"))
    expect(needs.first).to_be_in_viewport()
    parts.get_by_role("link", name="Log").click()
    expect(desk.get_by_role("heading", name="Log", exact=True)).to_be_in_viewport()
    expect(needs.first).to_be_in_viewport()
