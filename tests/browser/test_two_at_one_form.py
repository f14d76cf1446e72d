"""Two keepers change one thing: the second sees both versions and chooses; nothing is lost."""

import re

from playwright.sync_api import Page, expect

from browser.test_settings import lay


def test_the_second_keeper_chooses_between_both_versions(desk: Page, empty: str) -> None:
    lay(desk, empty)
    dam = next(
        a["id"] for a in desk.request.get(f"{empty}/api/animals").json() if a["role"] == "dam"
    )
    desk.goto(f"{empty}/animals/{dam}/correct")
    other = desk.context.new_page()
    other.goto(f"{empty}/animals/{dam}/correct")
    expect(other.get_by_label("Hatched in")).to_be_visible()

    desk.get_by_label("Code, if it has one").fill("S-7")
    desk.get_by_label("In your own words").fill("calm, feeds in the dark")
    desk.get_by_role("button", name="Record the correction").click()
    expect(desk).to_have_url(re.compile(r"/animals/\d+$"))

    other.get_by_label("Hatched in").fill("2019")
    other.get_by_label("In your own words").fill("bites")
    other.get_by_role("button", name="Record the correction").click()
    clash = other.get_by_role("dialog", name="Somebody changed this meanwhile")
    # What only the first keeper changed is theirs already; where both did, one chooses.
    expect(clash.get_by_role("radio", name="S-7")).to_be_checked()
    expect(clash.get_by_role("radio", name="bites")).to_be_checked()
    clash.get_by_role("radio", name="calm, feeds in the dark").check()
    clash.get_by_role("button", name="Record what is chosen").click()
    expect(other).to_have_url(re.compile(r"/animals/\d+$"))

    told = desk.request.get(f"{empty}/api/animals/{dam}").json()
    assert told["animal"]["code"] == "S-7"
    assert told["animal"]["hatch_year"] == 2019
    assert told["traits_text"] == "calm, feeds in the dark"


def test_what_was_recorded_meanwhile_can_be_left_and_what_was_typed_kept(
    desk: Page, empty: str
) -> None:
    lay(desk, empty)
    desk.goto(f"{empty}/cabinets/North/correct")
    expect(desk.get_by_label("Volume, l")).to_be_visible()
    body = {"name": "North", "shelves": ["lower"], "volume_l": 90}
    put = {"data": body, "headers": {"If-Match": "*"}}
    assert desk.request.put(f"{empty}/api/cabinets/North", **put).ok
    desk.get_by_label("Volume, l").fill("120")
    desk.get_by_role("button", name="Record").click()
    clash = desk.get_by_role("dialog")
    clash.get_by_role("button", name="Back to the form").click()
    expect(desk.get_by_label("Volume, l")).to_have_value("120")
    # The form stands on what was shown: recorded once more, one's own holds.
    desk.get_by_role("button", name="Record").click()
    expect(desk).to_have_url(re.compile(r"/cabinets/North$"))
    assert desk.request.get(f"{empty}/api/cabinets/North").json()["volume_l"] == 120


def test_a_messenger_is_changed_and_its_secret_given_again(desk: Page, empty: str) -> None:
    hook = {
        "kind": "webhook", "name": "bell", "zone": "UTC",
        "target": {"url": "https://10.0.0.9/x", "secret": "first"},
    }  # fmt: skip
    assert desk.request.post(f"{empty}/api/messengers", data=hook).ok
    desk.goto(f"{empty}/settings/alarms")
    messengers = desk.get_by_role("region", name="Alarm notifications")
    messengers.get_by_role("button", name="Change").click()
    form = messengers.get_by_role("form", name="Channel bell")
    expect(form.get_by_label("Address")).to_have_value("https://10.0.0.9/x")
    form.get_by_label("Address").fill("https://10.0.0.9/y")
    form.get_by_label("Quiet from").fill("21:30")
    form.get_by_role("button", name="Record").click()
    expect(form).to_contain_text("Quiet hours have a beginning and an end")
    form.get_by_label("until").fill("06:00")
    form.get_by_role("button", name="Record").click()
    expect(form).to_be_hidden()
    (held,) = desk.request.get(f"{empty}/api/messengers").json()
    assert held["target"]["url"] == "https://10.0.0.9/y"
    assert held["target"]["secret"] == "set"
    assert held["quiet_from_min"] == 21 * 60 + 30
    assert held["zone"] == "UTC"
