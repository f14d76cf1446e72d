"""Lay day corrected egg by egg, and two eggs that were mixed up, as a keeper does it."""

import re

import pytest
from playwright.sync_api import Page, expect

from browser.home import Address


def test_what_lay_day_said_of_an_egg_is_corrected_on_its_page(
    phone: Page, own_demo: Address
) -> None:
    phone.goto(f"{own_demo}/clutches/26-05/eggs/1")
    phone.get_by_role("button", name="Edit lay day").tap()
    form = phone.get_by_role("form", name="Egg 1 as laid")
    form.get_by_role("checkbox", name="rough").check()
    form.get_by_role("checkbox", name="thin").check()
    form.get_by_role("checkbox", name="Shell torn").check()
    form.get_by_label("It weighed, g").fill("8150")
    form.get_by_role("button", name="Record the correction").tap()
    expect(form.get_by_text("Mass 8150 g is outside 10 to 250 g")).to_be_visible()
    form.get_by_label("It weighed, g").fill("81,5")
    form.get_by_role("button", name="Record the correction").tap()
    expect(phone.get_by_text("rough and thin shell, 81.5 g")).to_be_visible()
    expect(phone.get_by_text("Egg 1 as laid corrected").first).to_be_visible()


def test_two_eggs_get_each_others_numbers(desk: Page, own_demo: Address) -> None:
    path = f"{own_demo.api}/api/clutches/26-05"
    before = {e["number"]: e["x"] for e in desk.request.get(path).json()["eggs"]}
    desk.goto(f"{own_demo}/clutches/26-05/correct")
    mixed = desk.get_by_role("region", name="Two eggs mixed up")
    swap = mixed.get_by_role("button", name="Swap")
    expect(swap).to_be_disabled()
    for number in ("1", "3"):
        mixed.get_by_role("checkbox", name=number, exact=True).check()
    mixed.get_by_role("button", name="Swap 1 and 3").click()
    expect(desk.get_by_text("Eggs 1 and 3 have each other's number")).to_be_visible()
    after = {e["number"]: e["x"] for e in desk.request.get(path).json()["eggs"]}
    assert (after[1], after[3]) == (before[3], before[1])


def test_what_was_seen_since_a_day_changes_places(desk: Page, own_demo: Address) -> None:
    desk.goto(f"{own_demo}/clutches/26-05/correct")
    mixed = desk.get_by_role("region", name="Two eggs mixed up")
    for number in ("1", "3"):
        mixed.get_by_role("checkbox", name=number, exact=True).check()
    mixed.get_by_role("radio", name="What was seen of them").check()
    mixed.get_by_role("button", name="Swap 1 and 3").click()
    expect(mixed.get_by_text("Seen since: fill this in.")).to_be_visible()
    mixed.get_by_label("Seen since").click()
    mixed.get_by_label("Seen since").fill("2026-06-01T08:00")
    mixed.get_by_role("button", name="Swap 1 and 3").click()
    expect(desk.get_by_text("What was seen of eggs 1 and 3 since 1 Jun")).to_be_visible()


def test_a_shell_that_changed_is_tapped_at_the_round(phone: Page, own_demo: Address) -> None:
    phone.goto(f"{own_demo}/round/26-05")
    phone.get_by_role("button", name=re.compile("^Egg 1, day")).tap()
    panel = phone.get_by_role("region", name="Egg 1")
    panel.get_by_role("checkbox", name="window").check()
    phone.get_by_role("button", name="Rest as before, shut").tap()
    phone.goto(f"{own_demo}/clutches/26-05/eggs/1")
    expect(phone.get_by_text("window shell").first).to_be_visible()


def test_one_of_two_sires_is_said_and_settled(desk: Page, own_demo: Address) -> None:
    desk.goto(f"{own_demo}/clutches/26-05/correct")
    sires = desk.get_by_role("region", name="One of several sires")
    expect(sires.get_by_role("checkbox", name="Flint")).to_be_checked()
    sires.get_by_role("checkbox", name="Marl").check()
    sires.get_by_role("button", name="Record one of 2").click()
    expect(desk.get_by_text("Clutch 26-05: sire one of Flint, Marl").first).to_be_visible()
    expect(desk).to_have_url(f"{own_demo}/clutches/26-05")
    expect(desk.get_by_text("× one of Flint (50 %), Marl (50 %)")).to_be_visible()
    desk.goto(f"{own_demo}/clutches/26-05/correct")
    sires.get_by_role("checkbox", name="Flint").uncheck()
    sires.get_by_role("button", name="Record the sire").click()
    expect(desk.get_by_text("Clutch 26-05: sire Marl").first).to_be_visible()


@pytest.mark.both_ways
def test_the_dam_of_lay_day_is_put_right_and_looked_after(desk: Page, own_demo: Address) -> None:
    desk.goto(f"{own_demo}/clutches/26-05/correct")
    dam = desk.get_by_role("form", name="Chervil on lay day")
    dam.get_by_role("radio", name="A lump was left").check()
    dam.get_by_label("Her weight after laying").fill("12")
    dam.get_by_role("button", name="Record what is right of her").click()
    expect(dam.get_by_text("12 g is outside")).to_be_visible()
    dam.get_by_label("Her weight after laying").fill("1310")
    dam.get_by_role("button", name="Record what is right of her").click()
    expect(desk).to_have_url(f"{own_demo}/clutches/26-05")
    animal = desk.request.get(f"{own_demo}/api/clutches/26-05").json()["dam_id"]
    desk.goto(f"{own_demo}/animals/{animal}")
    after = desk.get_by_role("region", name="After laying")
    expect(after.get_by_text("a lump was left in her belly")).to_be_visible()
    expect(after.get_by_role("button", name="Her aftercare is over")).to_have_count(0)
    after.get_by_role("button", name="A vet saw her").click()
    expect(after.get_by_text("a lump was left in her belly")).to_have_count(0)
    after.get_by_role("button", name="Her aftercare is over").click()
    expect(after).to_have_count(0)
    desk.get_by_role("status").get_by_role("button", name="Undo").first.click()
    expect(after).to_be_visible()
