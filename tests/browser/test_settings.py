"""House methods and numbers, and one clutch that goes its own way."""

import re
from datetime import UTC, datetime, timedelta

from playwright.sync_api import Page, Route, expect


def lay(page: Page, base: str, **changes: object) -> None:
    """Clutch A-1 of two eggs, six days old, the first unsure by torchlight."""
    clutch = {
        "dam": "Sorrel", "laid_at": (datetime.now(UTC) - timedelta(days=6)).isoformat(),
        "eggs": [{"x": 0.3, "y": 0.5}, {"x": 0.6, "y": 0.5}], "medium": "vermiculite",
        "closing": "lid with 1-2 pin holes", "cabinet": "North", "shelf": "lower",
        "set_point_c": 31.5, "code": "A-1", **changes,
    }  # fmt: skip
    answer = page.request.post(f"{base}/api/clutches", data=clutch)
    assert answer.ok, answer.text()


def test_any_setting_is_found_from_one_field(desk: Page, demo: str) -> None:
    desk.goto(f"{demo}/settings")
    parts = desk.get_by_role("navigation", name="Parts of Settings").get_by_role("link")
    expect(parts).to_have_count(9)
    sought = desk.get_by_label("Find a setting")
    sought.fill("passphrase")
    expect(parts).to_have_count(1)
    sought.fill("nothing is called that")
    expect(desk.get_by_text("Nothing in Settings has that in its name")).to_be_visible()
    sought.fill("breeding weight")
    desk.get_by_role("region", name="Numbers").get_by_role("link").click()
    expect(desk.get_by_label("Minimum breeding weight, g")).to_have_value("1500")
    # Each number is a form, and they are many: a group is made when it is opened.
    assert desk.locator("main form").count() < 30
    desk.goto(f"{demo}/settings#Oxygen")
    expect(desk).to_have_url(re.compile("/settings/numbers#Oxygen"))


def test_a_number_of_the_house_is_set_within_its_range_and_undone(desk: Page, empty: str) -> None:
    desk.goto(f"{empty}/settings/numbers")
    numbers = desk.get_by_role("region", name="Numbers")
    field = numbers.get_by_label("Minimum breeding weight, g")
    line = numbers.locator("form").filter(has_text="Minimum breeding weight")
    expect(field).to_have_value("1500")
    expect(line.get_by_role("button", name="Set")).to_be_disabled()
    field.fill("fifteen hundred")
    line.get_by_role("button", name="Set").click()
    expect(line).to_contain_text("A number.")
    field.fill("90")
    line.get_by_role("button", name="Set").click()
    expect(line).to_contain_text("outside 500 to 5000")
    field.fill("1600")
    line.get_by_role("button", name="Set").click()
    toast = desk.get_by_role("status").filter(has_text="1600")
    toast.get_by_role("button", name="Undo").click()
    expect(numbers.get_by_label("Minimum breeding weight, g")).to_have_value("1500")


def test_a_method_is_added_chosen_copied_and_taken_away(desk: Page, empty: str) -> None:
    desk.goto(f"{empty}/settings/methods")
    desk.get_by_role("link", name="Add a method").click()
    save = desk.get_by_role("button", name="Save the method")
    save.click()
    expect(desk.get_by_text("Name: fill this in.")).to_be_visible()
    desk.get_by_label("Name", exact=True).fill("Set day")
    desk.get_by_label("Cutting").select_option("on a set day")
    desk.get_by_label(re.compile("^Temperature")).fill("45")
    desk.get_by_label("Set day", exact=True).fill("50")
    save.click()
    expect(desk.get_by_text("Temperature 45 °C is outside 20 to 36 °C")).to_be_visible()
    desk.get_by_label(re.compile("^Temperature")).fill("31,5")
    desk.get_by_label("Set day", exact=True).fill("58")
    desk.get_by_label("New clutches start from this method").check()
    save.click()
    methods = desk.get_by_role("region", name="House methods")
    expect(methods.get_by_role("listitem").filter(has_text="Set day")).to_contain_text(
        "for new clutches"
    )
    lay(desk, empty)
    desk.goto(f"{empty}/clutches/A-1")
    expect(desk.get_by_role("region", name="Method")).to_contain_text("As the house method Set day")
    desk.goto(f"{empty}/settings/methods")
    methods.get_by_role("link", name="Set day").click()
    desk.get_by_role("button", name="Take it away").click()
    expect(methods.get_by_text("Set day")).to_have_count(0)
    # The clutch keeps its copy.
    told = desk.request.get(f"{empty}/api/clutches/A-1").json()["method"]
    assert (told["name"], told["set_day"]) == ("Set day", 58)


def test_a_refusal_that_comes_late_moves_no_keeper_who_types_elsewhere(
    desk: Page, empty: str
) -> None:
    desk.goto(f"{empty}/settings/methods/new")
    name = desk.get_by_label("Name", exact=True)
    temperature = desk.get_by_label(re.compile("^Temperature"))
    save = desk.get_by_role("button", name="Save the method")
    name.fill("Warm")
    temperature.fill("45")
    save.click()
    refused = desk.get_by_text("Temperature 45 °C is outside 20 to 36 °C")
    expect(refused).to_be_visible()
    # Nobody typed since: the field to mend is led to.
    expect(temperature).to_be_focused()
    held: list[Route] = []
    desk.route("**/api/methods", lambda route: held.append(route))
    temperature.fill("46")
    with desk.expect_request("**/api/methods"):
        save.click()
    name.press_sequentially("er")
    held[0].continue_()
    expect(desk.get_by_text("Temperature 46 °C is outside 20 to 36 °C")).to_be_visible()
    expect(name).to_be_focused()


def test_one_clutch_differs_and_says_in_what(desk: Page, empty: str) -> None:
    lay(desk, empty)
    desk.goto(f"{empty}/clutches/A-1")
    method = desk.get_by_role("region", name="Method")
    method.get_by_role("button", name="Change for this clutch").click()
    method.get_by_label("Visits").select_option("set and forget")
    method.get_by_role("button", name="Keep for this clutch").click()
    expect(method).to_contain_text("set and forget, not every 7 days")
    log = desk.get_by_role("region", name="Log")
    expect(log).to_contain_text("Method of A-1 changed")
    log.get_by_role("button", name="Undo").first.click()
    expect(method).to_contain_text("As the house method")


def test_methods_speak_the_keepers_degrees(desk: Page, empty: str) -> None:
    desk.goto(f"{empty}/settings/methods")
    methods = desk.get_by_role("region", name="House methods")
    expect(methods).to_contain_text("31.5 °C")
    desk.get_by_role("button", name="switch to °F").click()
    expect(methods).to_contain_text("88.7 °F")
    methods.get_by_role("listitem").get_by_role("link").click()
    expect(desk.get_by_label("Temperature, °F")).to_have_value("88.7")
    desk.get_by_role("button", name="Save the method").click()
    expect(methods).to_be_visible()
    kept = desk.request.get(f"{empty}/api/methods").json()["methods"][0]["method"]
    assert abs(kept["temperature_c"] - 31.5) < 0.01


def test_an_unsure_egg_is_asked_for_on_today_and_candled_on_its_page(phone, empty: str) -> None:
    lay(phone, empty)
    seen = phone.request.post(
        f"{empty}/api/clutches/A-1/eggs/1/candlings", data={"vessels": "unsure"}
    )
    assert seen.ok
    phone.goto(f"{empty}/clutches/A-1")
    phone.get_by_role("button", name="Egg 1, day 6").tap()
    torchlight = phone.get_by_role("radiogroup", name="Egg 1 by torchlight now")
    expect(phone.get_by_text("Last candled")).to_contain_text("not sure")
    torchlight.get_by_role("radio", name="strong").tap()
    expect(phone.get_by_text("Last candled")).to_contain_text("strong vessels")
    expect(phone.get_by_role("region", name="Log")).to_contain_text("strong")
