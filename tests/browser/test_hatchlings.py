"""From hatchling to breeder in the hand: fed together, held back, and out of the house."""

import re

import pytest
from playwright.sync_api import Page, expect

from browser.home import Address
from browser.thumb import Thumb

CLUTCH = "26-01"


def recorded(page: Page, base: Address, number: int, **more: object) -> str:
    """The path of a hatchling of the demo that is out, recorded if nobody has."""
    page.request.put(
        f"{base.api}/api/clutches/{CLUTCH}/eggs/{number}/hatchling",
        data={"mass_g": 60, **more},
        headers={"If-Match": "new"},
    )
    told = page.request.get(f"{base.api}/api/hatchlings").json()
    return next(f"/hatchlings/{one['id']}" for one in told if one["short_name"] == str(number))


@pytest.mark.both_ways
def test_all_of_a_clutch_are_fed_with_three_taps(phone: Page, own_demo: Address) -> None:
    """One that refused is tapped once more."""
    recorded(phone, own_demo, 1)
    thumb = Thumb(phone)
    phone.goto(f"{own_demo}/hatch")
    thumb.tap(phone.get_by_role("link", name="Hatchlings", exact=True))
    expect(phone.get_by_text("2 in the house, none needs anything now.")).to_be_visible()
    here = phone.get_by_role("navigation", name="Places").get_by_role("link", name="Hatch")
    expect(here).to_have_attribute("aria-current", "page")
    of_clutch = phone.get_by_role("region", name=re.compile(f"^{CLUTCH} "))
    before = thumb.taps
    thumb.tap(of_clutch.get_by_role("button", name="Feed them"))
    form = phone.get_by_role("form", name=f"Meals of {CLUTCH}")
    form.get_by_role("group", name="Refused by").get_by_role("checkbox", name="2").check()
    thumb.tap(form.get_by_role("button", name="Record 2 meals"))
    expect(of_clutch.get_by_text("1 meal taken, offered 14 Jun")).to_be_visible()
    expect(of_clutch.get_by_text("0 meals taken, offered 14 Jun")).to_be_visible()
    assert thumb.taps - before == 2
    phone.get_by_role("status").get_by_role("button", name="Undo").first.tap()
    expect(of_clutch.get_by_text("no meal yet")).to_have_count(2)


def test_today_tells_who_is_due(desk: Page, own_demo: Address) -> None:
    desk.goto(own_demo)
    due = desk.get_by_role("region", name="Hatchlings")
    expect(due.get_by_text("Betony: offer a meal, due since 12 Jun")).to_be_visible()


def test_one_is_held_back_and_is_an_animal_with_its_egg(desk: Page, own_demo: Address) -> None:
    desk.goto(f"{own_demo}{recorded(desk, own_demo, 1)}")
    desk.get_by_role("button", name="Hold back").click()
    form = desk.get_by_role("form", name="Hold it back")
    form.get_by_label("Its name").fill("Sorrel")
    form.get_by_role("button", name="Hold it back").click()
    expect(form.get_by_text("is it kept as a dam or as a sire?")).to_be_visible()
    form.get_by_role("radio", name="Dam").check()
    form.get_by_role("button", name="Hold it back").click()
    expect(form.get_by_text("There is a dam Sorrel already: choose another name")).to_be_visible()
    form.get_by_label("Its name").fill("Burnet")
    form.get_by_role("button", name="Hold it back").click()
    expect(desk.get_by_role("heading", name="Burnet", level=1)).to_be_visible()
    expect(desk.get_by_text("Hatched here: egg 26-01/1, held back 14 Jun 2026.")).to_be_visible()
    expect(desk.get_by_text("60 g, 14 Jun 2026")).to_be_visible()
    log = desk.get_by_role("region", name="Log")
    expect(log.get_by_text("Hatchling 1 held back as Burnet, dam")).to_be_visible()
    # The hatchling's own page leads there.
    desk.get_by_role("link", name="hatchling", exact=True).click()
    expect(desk.get_by_text("Held back as Burnet.")).to_be_visible()
    desk.get_by_role("link", name="To Burnet").click()
    expect(desk.get_by_role("heading", name="Burnet", level=1)).to_be_visible()


def test_one_leaves_the_house_and_is_found_among_those_gone(phone: Page, own_demo: Address) -> None:
    phone.goto(f"{own_demo}{recorded(phone, own_demo, 1)}")
    phone.get_by_role("button", name="Its tub").tap()
    phone.get_by_label("Tub", exact=True).fill("H 3")
    phone.get_by_role("button", name="Record it").tap()
    expect(phone.get_by_text("Tub H 3.")).to_be_visible()
    phone.get_by_role("button", name="It left").tap()
    form = phone.get_by_role("form", name="It left the house")
    expect(form.get_by_role("button", name="Record it")).to_be_disabled()
    form.get_by_role("radio", name="Sold").check()
    form.get_by_label("In your own words").fill("x" * 401)
    form.get_by_role("button", name="Record it").tap()
    expect(form.get_by_text("400 characters are enough for a note")).to_be_visible()
    form.get_by_label("In your own words").fill("with its card")
    form.get_by_role("button", name="Record it").tap()
    expect(phone.get_by_text("Sold 14 Jun 2026. With its card.")).to_be_visible()
    expect(phone.get_by_role("button", name="Meal offered")).to_have_count(0)
    phone.goto(f"{own_demo}/hatchlings")
    expect(phone.get_by_text("1 in the house")).to_be_visible()
    phone.get_by_role("button", name="Show those held back or gone").tap()
    gone = phone.get_by_role("region", name="Held back or gone")
    expect(gone.get_by_text("Sold 14 Jun 2026.")).to_be_visible()
    expect(gone.get_by_text("Held back as Betony.")).to_be_visible()


def test_a_clutch_leaves_together(phone: Page, own_demo: Address) -> None:
    recorded(phone, own_demo, 1)
    phone.goto(f"{own_demo}/hatchlings")
    phone.get_by_role("button", name="They left").tap()
    form = phone.get_by_role("form", name="It left the house")
    form.get_by_role("radio", name="Given away").check()
    form.get_by_role("button", name="Record it").tap()
    expect(phone.get_by_text("2 left the house: given away").first).to_be_visible()
    expect(phone.get_by_text("None in the house.")).to_be_visible()


def test_an_animal_that_died_is_among_those_that_left(desk: Page, own_demo: Address) -> None:
    animals = desk.request.get(f"{own_demo.api}/api/animals").json()
    lovage = next(a["id"] for a in animals if a["name"] == "Lovage")
    desk.goto(f"{own_demo}/animals/{lovage}")
    desk.get_by_role("button", name="It left").click()
    form = desk.get_by_role("form", name="It left the house")
    form.get_by_role("radio", name="Died").check()
    expect(form.get_by_text("a reptile vet can tell")).to_be_visible()
    form.get_by_role("button", name="Record it").click()
    expect(desk.get_by_text("Died 14 Jun 2026")).to_be_visible()
    desk.goto(f"{own_demo}/animals")
    left = desk.get_by_role("region", name="Left the house")
    expect(left.get_by_text("Lovage")).to_be_visible()


def test_what_hatchlings_prove_stands_with_the_animal_and_its_pairs(
    desk: Page, own_demo: Address
) -> None:
    animals = desk.request.get(f"{own_demo.api}/api/animals").json()
    costmary = next(a["id"] for a in animals if a["name"] == "Costmary")
    desk.goto(f"{own_demo}/animals/{costmary}")
    proofs = desk.get_by_role("region", name="What its hatchlings prove")
    expect(proofs).to_contain_text(re.compile(r"Puzzle: (Proved|\d+ %|Under 1 %)"))
    expect(proofs).to_contain_text("With Chert:")
