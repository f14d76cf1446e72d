"""One field finds anything, from anywhere, by key and by thumb."""

import re

from playwright.sync_api import Page, Route, expect

from browser.places import open_place


def test_an_egg_by_its_code_and_number_and_enter(desk: Page, demo: str) -> None:
    open_place(desk, f"{demo}/seasons")
    desk.keyboard.press("/")
    desk.get_by_role("searchbox", name="Find anything").fill("26-04/3")
    found = desk.get_by_role("list", name="Found").get_by_role("link")
    expect(found.first).to_contain_text("26-04/3")
    desk.keyboard.press("Enter")
    expect(desk).to_have_url(re.compile(r"/clutches/26-04/eggs/3$"))
    expect(desk.get_by_role("dialog")).to_have_count(0)


def test_the_list_is_walked_with_arrows_and_left_with_escape(desk: Page, demo: str) -> None:
    open_place(desk, demo)
    desk.keyboard.press("/")
    field = desk.get_by_role("searchbox", name="Find anything")
    # In the field a letter is a letter, whatever it means elsewhere.
    field.press_sequentially("sorrel")
    found = desk.get_by_role("list", name="Found").get_by_role("link")
    expect(found.first).to_contain_text("Sorrel")
    desk.keyboard.press("ArrowDown")
    expect(found.nth(0)).to_be_focused()
    desk.keyboard.press("ArrowDown")
    expect(found.nth(1)).to_be_focused()
    desk.keyboard.press("ArrowUp")
    desk.keyboard.press("ArrowUp")
    expect(field).to_be_focused()
    desk.keyboard.press("Escape")
    expect(desk.get_by_role("dialog")).to_have_count(0)
    expect(desk.get_by_role("heading", level=1)).to_have_text("Today")


def test_what_is_to_be_done_by_thumb(phone: Page, demo: str) -> None:
    open_place(phone, demo)
    phone.get_by_role("button", name="Find anything").tap()
    phone.get_by_role("searchbox", name="Find anything").fill("top up 26-04")
    phone.get_by_role("link", name=re.compile("Top up 26-04")).tap()
    expect(phone).to_have_url(re.compile(r"/round/26-04$"))


def test_places_are_found_without_the_house_and_nothing_is_said_so(desk: Page, demo: str) -> None:
    open_place(desk, demo)
    desk.keyboard.press("/")
    field = desk.get_by_role("searchbox", name="Find anything")
    dialog = desk.get_by_role("dialog")
    field.fill("zzz")
    expect(dialog).to_contain_text("Nothing is called so.")
    desk.route("**/api/found*", lambda route: route.abort())
    field.fill("lay")
    expect(dialog.get_by_role("link", name="Lay day")).to_be_visible()
    expect(dialog).to_contain_text("The house does not answer: only places are found.")
    dialog.get_by_role("link", name="Lay day").click()
    expect(desk.get_by_role("heading", level=1)).to_have_text("Lay day")


def test_enter_means_what_is_typed_not_what_still_stands_there(desk: Page, demo: str) -> None:
    open_place(desk, demo)
    desk.keyboard.press("/")
    field = desk.get_by_role("searchbox", name="Find anything")
    field.fill("26-04")
    expect(desk.get_by_role("list", name="Found").get_by_role("link").first).to_be_visible()
    held: list[Route] = []
    desk.route("**/api/found*26-05*", lambda route: held.append(route))
    field.fill("26-05")
    desk.keyboard.press("Enter")
    # The answer to what stood there before is no answer.
    expect(desk.get_by_role("dialog")).to_be_visible()
    expect(desk).to_have_url(re.compile("/$"))
    for route in held:
        route.continue_()
    expect(desk).to_have_url(re.compile(r"/clutches/26-05$"))
