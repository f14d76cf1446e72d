"""Hatch watch as a keeper uses it: taps by the hour, hatchlings, fates, closing and reopening."""

import re

import pytest
from playwright.sync_api import Locator, Page, expect

from browser.home import Address
from browser.thumb import Thumb

HATCHING = "26-01"


def row(page: Page | Locator, number: int) -> Locator:
    return page.get_by_role("listitem", name=f"Egg {number}", exact=True)


BUTTON_AT = "([x, y]) => document.elementFromPoint(x, y)?.closest('button')?.ariaLabel ?? null"


def middle(button: Locator) -> list[float]:
    box = button.bounding_box()
    assert box is not None
    return [box["x"] + box["width"] / 2, box["y"] + box["height"] / 2]


def fate(page: Page, number: int) -> Locator:
    return page.get_by_role("listitem", name=f"Fate of egg {number}", exact=True)


@pytest.mark.both_ways
def test_a_pip_takes_one_tap_from_the_watch_and_is_undone(phone: Page, own_demo: Address) -> None:
    thumb = Thumb(phone)
    phone.goto(own_demo)
    thumb.tap(phone.get_by_role("navigation", name="Places").get_by_role("link", name="Hatch"))
    # Who needs somebody comes first: the egg still closed, with what may be considered and why.
    watched = phone.get_by_role("region", name=f"{HATCHING} of Lovage")
    first = watched.get_by_role("listitem").first
    expect(first).to_contain_text("Egg 5 closed")
    expect(first).to_contain_text("Consider a small window on top")
    expect(first).to_contain_text("full term by heat")
    thumb.tap(watched.get_by_role("button", name="Egg 5 pipped"))
    expect(row(watched, 5)).to_contain_text("pipped 0 h ago")
    assert thumb.taps == 2
    expect(phone.get_by_text("none is closed any more")).to_be_visible()
    phone.get_by_role("button", name="Undo").first.tap()
    expect(row(watched, 5)).to_contain_text("closed")


@pytest.mark.both_ways
def test_a_pip_that_cannot_be_is_kept_and_asks_with_both_mends(
    phone: Page, own_demo: Address
) -> None:
    phone.goto(f"{own_demo}/hatch/26-03")
    phone.get_by_role("button", name="Egg 2 pipped").tap()
    expect(row(phone, 2)).to_contain_text("pipped 0 h ago")
    asked = phone.get_by_text("By heat the first pip came too early")
    expect(asked).to_contain_text("days earlier")
    expect(phone.get_by_role("link", name="See the probe")).to_have_attribute(
        "href", re.compile("/cabinets/")
    )
    phone.get_by_role("link", name="Correct the lay date").tap()
    expect(phone.get_by_role("heading", level=1)).to_contain_text("26-03")
    phone.goto(f"{own_demo}/clutches/26-03")
    phone.get_by_role("button", name="Both are right").tap()
    expect(asked).to_have_count(0)
    phone.get_by_role("status").get_by_role("button", name="Undo").tap()
    expect(asked).to_be_visible()


def test_no_other_tap_comes_to_lie_where_one_was(phone: Page, own_demo: Address) -> None:
    """Who taps twice records once: rows keep their order, their columns and their room."""
    phone.goto(f"{own_demo}/hatch")
    watched = phone.get_by_role("region", name=f"{HATCHING} of Lovage")
    for words in ("Egg 5 pipped", "Egg 4 is out"):
        button = watched.get_by_role("button", name=words)
        # Clear of the bar of places.
        button.evaluate("button => button.scrollIntoView({ block: 'center' })")
        spot = middle(button)
        assert phone.evaluate(BUTTON_AT, spot) == words
        phone.touchscreen.tap(*spot)
        expect(button).to_have_count(0)
        assert phone.evaluate(BUTTON_AT, spot) is None


def test_what_was_seen_hours_ago_is_recorded_so(desk: Page, own_demo: Address) -> None:
    desk.goto(f"{own_demo}/hatch/{HATCHING}")
    desk.get_by_role("radio", name="6 h ago").check()
    desk.get_by_role("button", name="Egg 3 is out").click()
    expect(row(desk, 3)).to_contain_text("out since 14 Jun 14:30")
    # What is tapped next was seen then as well, until somebody says otherwise.
    expect(desk.get_by_role("radio", name="6 h ago")).to_be_checked()


def test_an_emergence_before_its_pip_is_refused_in_words(desk: Page, own_demo: Address) -> None:
    desk.goto(f"{own_demo}/hatch/{HATCHING}")
    desk.get_by_role("radio", name="other").check()
    desk.get_by_label("Seen at").fill("2026-06-10T08:00")
    desk.get_by_role("button", name="Egg 4 is out").click()
    expect(desk.get_by_text("Egg 4 pipped after that")).to_be_visible()
    expect(row(desk, 4)).to_contain_text("pipped")


def test_a_cut_says_why_under_its_cautions(desk: Page, own_demo: Address) -> None:
    desk.goto(f"{own_demo}/hatch/{HATCHING}")
    desk.get_by_role("button", name="Egg 5 was cut").click()
    expect(desk.get_by_text("Never cut the cord").first).to_be_visible()
    expect(desk.get_by_text("blunt-nosed scissors, only at the top").first).to_be_visible()
    desk.get_by_role("radio", name="rescue, siblings are out").check()
    desk.get_by_label("It bled").check()
    desk.get_by_role("button", name="Record the cut").click()
    expect(desk.get_by_text("Egg 5 cut: rescue, siblings are out, it bled")).to_be_visible()


def test_a_hatchling_is_recorded_and_followed_to_its_first_meals(
    desk: Page, own_demo: Address
) -> None:
    desk.goto(f"{own_demo}/hatch/{HATCHING}")
    desk.get_by_role("button", name="Record hatchling 1").click()
    form = desk.get_by_role("form", name="Hatchling 1")
    form.get_by_label("Weight, g").fill("6100")
    form.get_by_role("button", name="Record it").click()
    expect(form.get_by_text("6100 g is outside 10 to 150 g")).to_be_visible()
    form.get_by_label("Weight, g").fill("61,5")
    form.get_by_role("radio", name="absorbed").check()
    form.get_by_role("checkbox", name="kink").check()
    form.get_by_role("button", name="Record it").click()
    expect(desk.get_by_text("61.5 g, not sexed, yolk absorbed, kink")).to_be_visible()
    expect(desk.get_by_text(re.compile(r"First shed likely 19.24 Jun")).first).to_be_visible()
    desk.get_by_role("button", name="Hatchling 1 has shed").click()
    expect(desk.get_by_text("Shed 14 Jun. Offer its first meal")).to_be_visible()
    desk.get_by_role("button", name="Meal offered to Hatchling 1").click()
    desk.get_by_label("Prey").fill("rat pup")
    desk.get_by_role("button", name="Taken").click()
    expect(desk.get_by_text("1 meal taken, the last 14 Jun")).to_be_visible()


def test_twins_are_asked_about_and_kept(desk: Page, own_demo: Address) -> None:
    desk.goto(f"{own_demo}/hatch/{HATCHING}")
    desk.get_by_role("button", name="Twins: a second one from egg 2").click()
    form = desk.get_by_role("form", name="Hatchling 2")
    form.get_by_label("Weight, g").fill("31")
    form.get_by_role("button", name="Record it").click()
    expect(form.get_by_text("Twins are rare but real")).to_be_visible()
    form.get_by_role("button", name="Yes, twins").click()
    expect(desk.get_by_text("Hatchling 2b", exact=True)).to_be_visible()


@pytest.mark.both_ways
def test_a_clutch_is_closed_with_every_fate_and_opened_again(desk: Page, own_demo: Address) -> None:
    desk.goto(f"{own_demo}/hatch/{HATCHING}")
    close = desk.get_by_role("button", name="Close the clutch")
    expect(desk.get_by_text("say what became of eggs 3, 4, 5")).to_be_visible()
    expect(close).to_have_count(0)
    for number, words in ((3, "pipped and died"), (4, "unknown"), (5, "dead in egg, full term")):
        desk.get_by_role("button", name=f"Say what became of egg {number}").click()
        fate(desk, number).get_by_role("button", name=words).click()
        expect(fate(desk, number)).to_contain_text(words)
    close.click()
    expect(desk.get_by_text("Closed 14 Jun 2026")).to_be_visible()
    expect(desk.get_by_role("button", name="Egg 5 pipped")).to_have_count(0)
    desk.get_by_role("button", name="Open it again").click()
    desk.get_by_role("button", name="Change what became of egg 4").click()
    fate(desk, 4).get_by_role("button", name="removed").click()
    expect(fate(desk, 4)).to_contain_text("removed")


def test_all_not_said_yet_hatched_in_one_tap(phone: Page, own_demo: Address) -> None:
    phone.goto(f"{own_demo}/hatch/{HATCHING}")
    phone.get_by_role("button", name="Say what became of egg 3").tap()
    fate(phone, 3).get_by_role("button", name="pipped and died").tap()
    phone.get_by_role("button", name="All 2 not said yet hatched").tap()
    expect(fate(phone, 4)).to_contain_text("hatched alive")
    expect(fate(phone, 5)).to_contain_text("hatched alive")
    expect(fate(phone, 3)).to_contain_text("pipped and died")
    expect(phone.get_by_role("button", name="Close the clutch")).to_be_visible()
    phone.get_by_role("status").get_by_role("button", name="Undo").first.tap()
    expect(phone.get_by_role("button", name="All 2 not said yet hatched")).to_be_visible()


def test_all_that_are_out_take_two_taps_and_one_undo(phone: Page, own_demo: Address) -> None:
    phone.goto(f"{own_demo}/hatch/26-02")
    all_at_once = phone.get_by_role("group", name="All at once")
    phone.get_by_role("button", name="All at once").tap()
    chips = all_at_once.get_by_role("checkbox")
    waiting = chips.count()
    assert waiting >= 2
    chips.first.uncheck()
    expect(all_at_once.get_by_role("button", name=f"{waiting - 1} out")).to_be_visible()
    chips.first.check()
    all_at_once.get_by_role("button", name="All out").tap()
    expect(phone.get_by_text(re.compile("^Eggs .* are out$"))).to_be_visible()
    expect(phone.get_by_role("button", name="All at once")).to_have_count(0)
    phone.get_by_role("status").get_by_role("button", name="Undo").first.tap()
    expect(phone.get_by_role("button", name="All at once")).to_be_visible()
