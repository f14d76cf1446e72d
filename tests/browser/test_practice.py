"""Practice as a learner does it: ten eggs on a phone, one by torch, and without the house."""

import re

from playwright.sync_api import BrowserContext, Locator, Page, expect

from browser.places import open_place


def begin(page: Page, base: str, deck: str, seed: int) -> None:
    open_place(page, f"{base}/practice")
    page.get_by_label("The same eggs as somebody else: seed").fill(str(seed))
    page.get_by_role("button", name=f"10 eggs of {deck}").click()
    expect(page.get_by_text("egg 1 of 10")).to_be_visible()


def judge(page: Page, chance: int, act: str = "Leave it") -> Locator:
    """Say all three; the taps it took are the slider's, two cards' and the button's."""
    page.get_by_role("slider", name="Is it alive?").fill(str(chance))
    page.get_by_role("radio", name="As it should be").click()
    page.get_by_role("radio", name=act).click()
    page.get_by_role("button", name="Tell me the truth").click()
    return page.get_by_role("region", name="What the signs were worth")


def test_ten_eggs_are_judged_and_what_they_were_is_told(phone: Page, own_demo: str) -> None:
    begin(phone, own_demo, "Mixed", 4711)
    for egg in range(1, 11):
        expect(phone.get_by_text(f"egg {egg} of 10")).to_be_visible()
        expect(judge(phone, 80)).to_be_visible()
        said = phone.get_by_text(re.compile(r"^You said 80\s%, Sandboa would have said"))
        expect(said).to_be_visible()
        phone.get_by_role("button", name="How I did" if egg == 10 else "Next egg").click()
    told = phone.get_by_text(re.compile(r"^You told \d+ of 10 alive from dead rightly"))
    expect(told).to_be_visible()
    phone.get_by_role("link", name="How I am doing").click()
    expect(phone.get_by_role("heading", name="How you are doing")).to_be_visible()
    curve = phone.get_by_text(re.compile(r"When you said about 80\s%, \d+ of 10 lived"))
    expect(curve).to_be_visible()
    # Nothing of it is in the house.
    open_place(phone, own_demo)
    expect(phone.get_by_text("4711")).to_have_count(0)


def test_the_torch_shows_its_picture_while_it_is_held(desk: Page, own_demo: str) -> None:
    begin(desk, own_demo, "Fresh eggs and slugs", 12)
    lit = desk.locator("[data-lit] img")
    torch = desk.get_by_role("button", name=re.compile("torch", re.I))
    expect(desk.get_by_text("Dark. Hold the torch.")).to_be_visible()
    torch.press("Enter")
    # A short press leaves it on, for hands that cannot hold.
    expect(lit).to_have_js_property("naturalHeight", 900)
    torch.press("Enter")
    expect(desk.get_by_text("Dark. Hold the torch.")).to_be_visible()
    torch.hover()
    desk.mouse.down()
    expect(lit).to_be_visible()
    expect(torch).to_have_attribute("aria-pressed", "true")
    # Another moment of it is seen only after longer than a tap: from then on it is held.
    expect(lit).not_to_have_css("top", "0px")
    desk.mouse.up()
    expect(lit).to_have_count(0)


def test_a_season_is_kept_in_the_hand_and_told(phone: Page, own_demo: str) -> None:
    open_place(phone, f"{own_demo}/practice")
    phone.get_by_label("The season of seed").fill("4711")
    phone.get_by_role("button", name="Begin the season").tap()
    box = phone.get_by_role("region", name="Box 1")
    phone.get_by_role("button", name="7 days").tap()
    expect(phone.get_by_role("heading", name="Day 7")).to_be_visible()
    box.get_by_role("button", name="Open Box 1").tap()
    box.get_by_role("button", name="Weigh").tap()
    expect(box).to_contain_text("g short")
    # What is missing stands in the field.
    box.get_by_role("button", name="Add water").tap()
    box.get_by_role("button", name="Weigh").tap()
    expect(box).to_contain_text("weighs as at set-up")
    box.get_by_role("button", name="Egg 2 of Box 1").tap()
    box.get_by_role("button", name="Candle").tap()
    box.get_by_role("button", name="Hold the torch").press("Enter")
    expect(box.locator("[data-lit] img")).to_have_js_property("naturalHeight", 900)
    told = phone.get_by_role("heading", name="What to learn")
    week, weeks = phone.get_by_role("button", name="7 days"), 1
    while weeks < 11 and not told.is_visible():
        weeks += 1
        if week.is_visible():
            week.tap()
        expect(phone.get_by_role("heading", level=1)).to_have_text(
            re.compile(rf"Day {7 * weeks}$|The season is over")
        )
    expect(told).to_be_visible()
    expect(phone.get_by_text("Box 1: water added once")).to_be_visible()
    expect(phone.get_by_text("It is a simulation")).to_be_visible()


def test_a_seed_that_is_none_is_refused_in_words(desk: Page, own_demo: str) -> None:
    open_place(desk, f"{own_demo}/practice")
    desk.get_by_label("The same eggs as somebody else: seed").fill("1" + "0" * 30)
    desk.get_by_role("button", name="10 eggs of Mixed").click()
    expect(desk.get_by_role("alert")).to_contain_text("999999")
    expect(desk).to_have_url(re.compile(r"/practice$"))


def test_a_loaded_session_is_judged_on_without_the_house(desk: Page, own_demo: str) -> None:
    context: BrowserContext = desk.context
    begin(desk, own_demo, "The last ten days", 3)
    desk.wait_for_load_state("networkidle")
    context.set_offline(True)
    judge(desk, 90)
    expect(desk.get_by_text("Kept on this device.")).to_be_visible()
    desk.get_by_role("button", name="Next egg").click()
    expect(desk.get_by_text("egg 2 of 10")).to_be_visible()
    judge(desk, 60)
    expect(desk.get_by_text("Kept on this device.")).to_be_visible()
    context.set_offline(False)
    # Its truth comes when the house answers again.
    signs = desk.get_by_role("region", name="What the signs were worth")
    expect(signs).to_be_visible(timeout=20_000)
    expect(desk.get_by_text(re.compile(r"^You said 60\s%"))).to_be_visible()


def test_practice_that_cannot_be_read_is_deleted_by_whose_it_is(desk: Page, own_demo: str) -> None:
    begin(desk, own_demo, "Mixed", 3)
    refused = {"status": 409, "title": "Contradicts", "detail": "Your practice cannot be read."}
    desk.route(
        "**/api/practice",
        lambda route: (
            route.fulfill(status=409, content_type="application/problem+json", json=refused)
            if route.request.method == "GET"
            else route.continue_()
        ),
    )
    open_place(desk, f"{own_demo}/practice")
    expect(desk.get_by_role("alert")).to_contain_text("cannot be read")
    desk.get_by_role("button", name="Delete my practice").click()
    with desk.expect_response(lambda told: told.request.method == "DELETE") as deleted:
        desk.get_by_role("button", name="Delete all of my practice").click()
    assert deleted.value.status == 204
    desk.unroute("**/api/practice")
    open_place(desk, f"{own_demo}/practice")
    expect(desk.get_by_role("heading", name="Begun")).to_have_count(0)
