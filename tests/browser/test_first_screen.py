"""An empty house asks where to begin, and answers within a few taps."""

import re

from playwright.sync_api import Page, expect

from browser.places import open_place


def test_eggs_that_are_here_get_their_dates_before_any_form(phone: Page, empty: str) -> None:
    open_place(phone, empty)
    expect(phone.get_by_role("heading", level=1)).to_have_text("Where do you begin?")
    here = phone.get_by_role("region", name="Eggs are here now")
    # No tap at all: laid now, kept as most are.
    expect(here.get_by_role("status")).to_contain_text(re.compile(r"First pip \d+ \w+"))
    first = here.get_by_role("status").inner_text()
    here.get_by_label(re.compile("Kept at")).fill("29")
    expect(here.get_by_role("status")).not_to_contain_text(first.splitlines()[0])
    here.get_by_role("link", name="Record the clutch").tap()
    expect(phone.get_by_role("heading", level=1)).to_have_text("Lay day")


def test_what_cannot_be_is_said_where_it_is_typed(desk: Page, empty: str) -> None:
    open_place(desk, empty)
    here = desk.get_by_role("region", name="Eggs are here now")
    here.get_by_label(re.compile("Kept at")).fill("warm")
    expect(here.get_by_role("status")).to_contain_text("A date and a temperature say when")
    here.get_by_label(re.compile("Kept at")).fill("95")
    expect(here.get_by_role("status")).to_contain_text("Set point is above 60 °C")
    here.get_by_label(re.compile("Kept at")).fill("31")
    expect(here.get_by_role("status")).to_contain_text("First pip")


def test_the_other_two_ways_lead_on(desk: Page, empty: str) -> None:
    for way, to in (
        ("Enter an animal", "/animals/new"),
        ("Bring old records", "/old-records"),
        ("Practice on eggs", "/practice"),
        ("To the Bench", "/bench"),
    ):
        open_place(desk, empty)
        desk.get_by_role("main").get_by_role("link", name=way).click()
        expect(desk).to_have_url(re.compile(f"{to}$"))


def test_who_is_just_looking_judges_an_egg_within_five_taps(phone: Page, empty: str) -> None:
    open_place(phone, empty)
    phone.get_by_role("link", name="Practice on eggs").tap()
    phone.get_by_role("button", name="10 eggs of Fresh eggs and slugs").tap()
    # The torch, and the first egg is seen: three taps.
    phone.get_by_role("button", name="Hold the torch").tap()
    expect(phone.locator("[data-lit] img")).to_have_js_property("naturalHeight", 900)
