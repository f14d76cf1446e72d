"""A whole lay day by keyboard alone and by thumb alone, with the taps counted."""

import re

import pytest
from playwright.sync_api import Locator, Page, expect

from browser.home import Address
from browser.laying import next_step
from browser.thumb import Thumb
from running import PHONE

SEVEN_ONE = ["good", "good", "under", "good", "slug", "good", "good"]


@pytest.mark.both_ways
def test_a_whole_lay_day_with_the_keyboard_only(desk: Page, empty: Address) -> None:
    """No mouse at all: Tab and arrows to move, Enter and Space to answer, keys 1 to 6 for eggs."""
    keys = desk.keyboard
    desk.goto(empty)
    expect(desk.get_by_role("heading", name="Where do you begin?")).to_be_visible()
    keys.press("l")
    next_step(desk, "Lay day")
    tab_to(desk, desk.get_by_label("Dam"))
    keys.type("Hyssop")
    keys.press("Enter")
    next_step(desk, "Get everything ready")
    press_on(desk, desk.get_by_role("button", name="All ready"))
    next_step(desk, "Move the dam, look at her")
    press_on(desk, desk.get_by_role("radio", name="No, hollow"), "Space")
    tab_to(desk, desk.get_by_label("Her weight now"))
    keys.type("1240")
    keys.press("Enter")
    next_step(desk, "Mark every top")
    press_on(desk, desk.get_by_role("button", name="All marked"))
    next_step(desk, "Count")
    tab_to(desk, desk.get_by_role("radiogroup", name="Eggs in all").get_by_role("radio").first)
    for _ in range(6):
        keys.press("ArrowRight")
    press_on(
        desk,
        desk.get_by_role("radiogroup", name="Slugs among them").get_by_role("radio").first,
        "ArrowRight",
    )
    press_on(desk, desk.get_by_role("button", name="7-1, next"))

    next_step(desk, "Eggs where they lie")
    egg = desk.get_by_role("button", name="Egg 1, firm: arrow keys move it")
    tab_to(desk, egg)
    before = place_of(egg)
    for _ in range(4):
        keys.press("Shift+ArrowDown")
    expect(egg).to_be_focused()
    assert place_of(egg)[1] > before[1] + 30
    keys.press("Enter")
    sticks = desk.get_by_role("group", name="Egg 1 sticks to")
    press_on(desk, sticks.get_by_role("button", name="Egg 2"), "Space")
    expect(sticks.get_by_role("button", name="Egg 2")).to_have_attribute("aria-pressed", "true")
    press_on(desk, desk.get_by_role("button", name="So they lie"))

    next_step(desk, "Each egg by torchlight")
    for number, seen in enumerate(SEVEN_ONE, 1):
        expect(desk.get_by_text(f"Egg {number} of 7")).to_be_visible()
        if seen == "under":
            keys.press("6")
            expect(desk.get_by_role("radio", name="underneath")).to_be_checked()
            press_on(desk, desk.get_by_role("button", name=f"Egg {number} done"))
        else:
            keys.press("1" if seen == "good" else "2")
    next_step(desk, "Disc not on top")
    expect(desk.get_by_text("Possible until")).to_be_visible()
    press_on(desk, desk.get_by_role("radio", name="Turned once, new top marked"), "Space")
    press_on(desk, desk.get_by_role("button", name="Next"))
    next_step(desk, "Clump and mishaps")
    press_on(desk, desk.get_by_role("button", name="Egg 4 dropped"), "Space")
    press_on(desk, desk.get_by_role("button", name="Noted, next"))
    next_step(desk, "The box")
    tab_to(desk, desk.get_by_label("Dry, g"))
    keys.type("200")
    expect(desk.get_by_text("of water to 200 g")).to_be_visible()
    keys.press("Enter")
    next_step(desk, "Onto the shelf")
    tab_to(desk, desk.get_by_label("Cabinet", exact=True))
    keys.type("Small")
    keys.press("Tab")
    keys.type("middle")
    keys.press("Enter")
    next_step(desk, "Card")
    press_on(desk, desk.get_by_role("button", name="Card is on, next"))
    next_step(desk, "The dam afterwards")
    done = desk.get_by_role("main").get_by_role("button", name="Done")
    expect(done).to_have_count(3)
    press_on(desk, done.first)
    expect(done).to_have_count(2)
    expect(desk.get_by_text("Done: ")).to_be_visible()
    press_on(desk, desk.get_by_role("button", name="To clutch"))

    expect(desk.get_by_role("heading", level=1)).to_have_text(re.compile(r"\d\d-01"))
    expect(desk.get_by_text("Hyssop, 7-1")).to_be_visible()
    log = desk.get_by_role("region", name="Log")
    expect(log).to_contain_text("of Hyssop laid, 7-1")
    # The clutch is graded by keys as well.
    drawn = desk.get_by_role("button", name="Egg 1, day 0, not looked at yet")
    press_on(desk, drawn, "1")
    expect(desk.get_by_role("button", name="Egg 1, day 0, one slight dimple")).to_be_focused()
    keys.press("ArrowRight")
    keys.press("2")
    expect(desk.get_by_role("button", name="Egg 2, day 0, clear dents")).to_be_visible()


def tab_to(page: Page, target: Locator) -> None:
    """Press Tab until the target has the focus, as a keyboard user must be able to."""
    target.wait_for(state="attached")
    for _ in range(80):
        if target.evaluate("e => e === document.activeElement"):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"not reached by Tab: {target}")


def press_on(page: Page, target: Locator, key: str = "Enter") -> None:
    """Tab to the target and press a key there."""
    tab_to(page, target)
    page.keyboard.press(key)


def place_of(egg: Locator) -> tuple[float, float]:
    box = egg.bounding_box()
    assert box
    return box["x"], box["y"]


#: Taps for seven eggs, one a slug, one underneath, into a cabinet the house knows: one for each
#: egg and step, and what differs. Nothing is typed.
MOST_TAPS = 27


@pytest.mark.both_ways
def test_a_whole_lay_day_by_thumb_on_a_phone(phone: Page, empty: Address) -> None:
    """390 px wide, touch only, nothing typed: begun from the dam's own page."""
    made = phone.request.post(f"{empty.api}/api/animals", data={"role": "dam", "name": "Costmary"})
    dam = made.json()["id"]
    known = {
        "dam": "Tansy", "laid_at": "2026-05-01T08:00:00Z", "eggs": [{"x": 0.5, "y": 0.5}],
        "medium": "vermiculite", "closing": "sealed film", "cabinet": "North", "shelf": "lower",
        "set_point_c": 31.5,
    }  # fmt: skip
    assert phone.request.post(f"{empty.api}/api/clutches", data=known).ok
    thumb = Thumb(phone)
    button, radio = (
        lambda name: phone.get_by_role("button", name=name),
        lambda name: phone.get_by_role("radio", name=name),
    )
    phone.goto(f"{empty}/animals/{dam}")
    thumb.tap(phone.get_by_role("link", name="She is laying"))
    thumb.tap(button("Begin lay day"))
    thumb.tap(button("All ready"))
    thumb.tap(radio("No, hollow"))
    thumb.tap(button("Next"))
    thumb.tap(button("All marked"))
    laid = phone.get_by_role("radiogroup", name="Eggs in all")
    thumb.tap(laid.get_by_role("radio", name="7", exact=True))
    slugs = phone.get_by_role("radiogroup", name="Slugs among them")
    thumb.tap(slugs.get_by_role("radio", name="1", exact=True))
    thumb.tap(button("7-1, next"))
    next_step(phone, "Eggs where they lie")
    egg = button("Egg 2, firm")
    before = place_of(egg)
    with phone.expect_response(lambda answer: answer.request.method == "PUT"):
        thumb.drag(egg, (24, 60))
    phone.reload()
    expect(egg).to_be_visible()
    assert place_of(egg)[1] > before[1] + 30
    thumb.tap(button("So they lie"))
    for number, seen in enumerate(SEVEN_ONE, 1):
        expect(phone.get_by_text(f"Egg {number} of 7")).to_be_visible()
        if seen == "under":
            thumb.tap(radio("underneath"))
            thumb.tap(button(f"Egg {number} done"))
        else:
            thumb.tap(button("Good: disc on top" if seen == "good" else "Slug: yellow"))
    thumb.tap(radio("Turned once, new top marked"))
    thumb.tap(button("Next"))
    thumb.tap(button("Nothing happened, next"))
    thumb.tap(button("The box is ready"))
    thumb.tap(phone.get_by_role("radiogroup", name="North").get_by_role("radio", name="lower"))
    thumb.tap(button("Record the clutch"))
    # What is told in passing does not cover the way on.
    toast = phone.get_by_role("status").filter(has_text="Costmary laid, 7-1")
    phone.wait_for_function(
        "([toast, on]) => toast.getBoundingClientRect().bottom <= on.getBoundingClientRect().top",
        arg=[toast.element_handle(), button("Card is on, next").element_handle()],
    )
    thumb.tap(button("Card is on, next"))
    thumb.tap(button("To clutch"))
    phone.wait_for_url(re.compile("/clutches/"))
    expect(phone.get_by_text("Costmary, 7-1, laid")).to_be_visible()
    assert thumb.taps <= MOST_TAPS

    code = phone.url.rsplit("/", 1)[-1]
    eggs = phone.request.get(f"{empty.api}/api/clutches/{code}").json()["eggs"]
    assert [egg["slug"] for egg in eggs] == [seen == "slug" for seen in SEVEN_ONE]
    assert "turned" in str(eggs[2]["events"])


def test_the_way_on_is_under_the_thumb_at_every_step(phone: Page, demo: str) -> None:
    """The amber button lies in the lower third and reaches no edge of the screen."""
    lay = phone.request.get(f"{demo}/api/lay-day-drafts").json()[0]
    for step in [s for s in lay["steps"] if s not in ("card", "aftercare", "shelf")]:
        phone.goto(f"{demo}/lay-day/{lay['id']}/{step}")
        forward = phone.locator("main form button[type=submit]")
        expect(forward).to_be_visible()
        box = forward.bounding_box()
        assert box
        assert box["y"] > PHONE["height"] * 0.6, step
        assert box["y"] + box["height"] <= PHONE["height"] - 50, step
