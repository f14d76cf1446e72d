"""Eggs nobody saw laid: begun on lay day, and said later at the clutch."""

import re

from playwright.sync_api import Page, expect

from browser.home import Address


def test_found_eggs_begin_a_lay_day_between_two_times(phone: Page, own_demo: Address) -> None:
    phone.goto(f"{own_demo}/lay-day")
    phone.get_by_label("Dam", exact=True).fill("Costmary")
    phone.get_by_role("button", name="Nobody saw when").tap()
    phone.get_by_label("Laid after").click()
    phone.get_by_label("Laid after").fill("2026-06-13T22:00")
    phone.get_by_label("Laid before").click()
    phone.get_by_label("Laid before").fill("2026-06-12T08:00")
    phone.get_by_role("button", name="Begin lay day").tap()
    expect(phone.get_by_text("It ends before it begins: check both times")).to_be_visible()
    phone.get_by_label("Laid before").fill("2026-06-14T08:00")
    # Put away and taken out again, nothing is lost and nothing asked that does not show.
    phone.get_by_role("button", name="Somebody saw them laid").tap()
    expect(phone.get_by_label("Laid, if not just now")).to_be_visible()
    phone.get_by_role("button", name="Nobody saw when").tap()
    expect(phone.get_by_label("Laid after")).to_have_value("2026-06-13T22:00")
    phone.get_by_role("button", name="Begin lay day").tap()
    expect(phone).to_have_url(re.compile(r"/lay-day/\d+"))
    drafts = phone.request.get(f"{own_demo.api}/api/lay-day-drafts").json()
    begun = next(draft["state"] for draft in drafts if draft["state"]["dam"] == "Costmary")
    assert begun["origin"]["kind"] == "found"
    assert begun["laid_at"] == "2026-06-14T01:00:00Z"


def test_the_age_by_torch_is_said_at_the_clutch_and_taken_back(
    desk: Page, own_demo: Address
) -> None:
    desk.goto(f"{own_demo}/clutches/26-05")
    desk.get_by_role("button", name="Nobody saw them laid").click()
    form = desk.get_by_role("form", name="Where they come from")
    form.get_by_role("radio", name="From elsewhere").check()
    form.get_by_role("radio", name="By torch").check()
    form.get_by_role("radio", name="Half round", exact=True).check()
    for label in ("Candled", "Came here"):
        form.get_by_label(label).click()
        form.get_by_label(label).fill("2026-06-01T12:00")
    form.get_by_label("Before that at about").fill("88F")
    form.get_by_role("button", name="Record it").click()
    expect(
        desk.get_by_text("vessels half round, so about 20 % developed then, give or take 5 %")
    ).to_be_visible()
    expect(desk.get_by_text("before that at about 31.1 °C.")).to_be_visible()
    desk.get_by_role("status").get_by_role("button", name="Undo").click()
    expect(desk.get_by_role("button", name="Nobody saw them laid")).to_be_visible()
