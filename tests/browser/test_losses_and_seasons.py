"""Losses and Seasons as a keeper reads them, and an egg opened and written down."""

import re

from playwright.sync_api import Page, expect


def test_a_lost_egg_is_read_from_the_list_to_its_grounds(desk: Page, demo: str) -> None:
    desk.goto(f"{demo}/losses")
    dried = desk.get_by_role("region", name=re.compile("25-03 of Yarrow"))
    expect(dried).to_contain_text("2 of 7 hatched, 5 lost")
    dried.get_by_role("link", name=re.compile("Egg 3 dead in egg")).click()
    expect(desk.get_by_role("heading", level=1)).to_have_text("Why eggs of 25-03 were lost")
    causes = desk.get_by_role("list", name="Causes for egg 3")
    expect(causes.get_by_role("listitem").first).to_contain_text("too dry")
    expect(causes).to_contain_text("water down to about")
    expect(causes).to_contain_text("To change: Weigh the boxes")
    region = desk.get_by_role("region", name="Egg 3: dead in egg")
    expect(region).to_contain_text("What happened after it explains nothing")
    region.get_by_role("button", name=re.compile("other causes")).click()
    expect(causes).to_contain_text("equipment failure")
    # Every ground leads to its number in the settings.
    causes.get_by_role("link", name=re.compile("For: yolk thick or hard")).click()
    expect(desk).to_have_url(re.compile("settings/numbers#loss"))


def test_a_failed_egg_is_opened_and_written_down(desk: Page, own_demo: str) -> None:
    desk.request.post(
        f"{own_demo}/api/clutches/26-05/fates",
        data={"fates": [{"number": 3, "fate": "dead in egg"}]},
    )
    desk.goto(f"{own_demo}/losses/26-05")
    expect(desk.get_by_text("old eggs burst and stink")).to_be_visible()
    expect(desk.get_by_text("It was not opened: look inside")).to_be_visible()
    desk.get_by_role("button", name="Egg 3 opened").click()
    desk.get_by_role("checkbox", name="mould all through").check()
    desk.get_by_role("checkbox", name="half grown").check()
    for defect in ("kink", "cleft"):
        desk.get_by_role("checkbox", name=defect, exact=True).check()
    expect(desk.get_by_role("checkbox", name="kink", exact=True)).to_be_checked()
    desk.get_by_role("checkbox", name="normal form").check()
    expect(desk.get_by_role("checkbox", name="kink", exact=True)).not_to_be_checked()
    desk.get_by_role("button", name="Record what was found").click()
    expect(
        desk.get_by_text(re.compile("Found: half grown, normal form, mould all through"))
    ).to_be_visible()
    expect(desk.get_by_role("img", name=re.compile("Opened: half grown"))).to_be_visible()


def test_not_opened_is_an_answer(desk: Page, own_demo: str) -> None:
    desk.request.post(
        f"{own_demo}/api/clutches/26-05/fates", data={"fates": [{"number": 3, "fate": "unknown"}]}
    )
    desk.goto(f"{own_demo}/losses/26-05")
    desk.get_by_role("button", name="Egg 3 opened").click()
    desk.get_by_role("button", name="Not opened").click()
    expect(desk.get_by_text("Not opened, and that is an answer.")).to_be_visible()
    expect(desk.get_by_text("It was not opened: look inside")).to_have_count(0)


def test_the_season_says_what_it_taught_with_its_numbers(desk: Page, demo: str) -> None:
    desk.goto(f"{demo}/seasons")
    taught = desk.get_by_role("region", name="What the seasons taught")
    expect(taught.get_by_role("listitem").first).to_contain_text("30 of 41 fertile eggs hatched")
    expect(taught).to_contain_text("Too dry took the most, most of it in 25-03")
    rates = desk.get_by_role("region", name="Hatch rates")
    expect(rates).to_contain_text("saturated perlite 2 of 7")
    expect(rates.locator("canvas").first).to_be_visible()
    rates.get_by_role("button", name="closing").click()
    rates.get_by_label("First group").select_option("film with a cracked corner")
    rates.get_by_label("Second group").select_option("sealed film")
    expect(rates.get_by_role("status")).to_have_text("2 of 7 against 3 of 7: too few to call.")
    taught.get_by_role("link", name=re.compile("lost eggs")).first.click()
    expect(desk.get_by_role("heading", level=1)).to_have_text("Why eggs of 25-03 were lost")


def test_empty_places_say_what_will_stand_there(desk: Page, empty: str) -> None:
    for place, words in (
        ("hatch", "No clutch is in its last week"),
        ("losses", "Nothing to look into yet"),
        ("seasons", "No clutch is closed yet"),
    ):
        desk.goto(f"{empty}/{place}")
        expect(desk.get_by_text(words)).to_be_visible()
