"""Heard: a sensor in words of its own is seen, named and stored, by a few taps."""

from typing import Any

from playwright.sync_api import Page, expect

from browser.thumb import Thumb


def test_a_sensor_is_named_and_its_new_probe_hung_on_a_phone(phone: Page, own_demo: str) -> None:
    token = phone.request.post(f"{own_demo}/api/devices", data={"name": "Hub"}).json()["token"]

    def send(message: dict[str, Any]) -> int:
        headers = {"Authorization": f"Bearer {token}"}
        return phone.request.post(f"{own_demo}/api/readings", data=message, headers=headers).status

    assert send({"tF": 88.5, "rh": 62, "battery": 9}) == 422
    thumb = Thumb(phone)
    phone.goto(f"{own_demo}/heard")
    hub = phone.get_by_role("listitem").filter(has_text="Hub").first
    expect(hub).to_contain_text("Its battery is at 9 %")
    thumb.tap(hub.get_by_role("button", name="Name it"))
    form = phone.get_by_role("form", name="What Hub says")
    # What it seems to be is chosen already; which probe it is, nobody can know.
    expect(form.get_by_label("tF, now 88.5")).to_have_value("f")
    expect(form.get_by_label("rh, now 62")).to_have_value("percent")
    expect(form.get_by_label("battery, now 9")).to_have_value("")
    thumb.tap(form.get_by_role("button", name="Store from now on"))
    expect(form.get_by_text("choose one.")).to_be_visible()
    form.get_by_label("Which probe it is").select_option("new")
    form.get_by_label("Its name").fill("North lower")
    thumb.tap(form.get_by_role("button", name="Store from now on"))
    expect(form.get_by_text("there is a probe North lower already")).to_be_visible()
    form.get_by_label("Its name").fill("Hub sensor")
    thumb.tap(form.get_by_role("button", name="Store from now on"))
    stored = phone.get_by_role("region", name="Stored")
    expect(stored).to_contain_text("88.5\u00a0°F is Hub sensor")
    assert send({"tF": 88.5, "rh": 62, "battery": 9}) == 201
    phone.goto(own_demo)
    expect(phone.get_by_text("Its battery is at 9 %: change it.")).to_be_visible()
    assert thumb.taps <= 5


def test_a_house_where_nothing_speaks_says_how_something_will(desk: Page, empty: str) -> None:
    desk.goto(f"{empty}/heard")
    expect(desk.get_by_text("Nothing has spoken since the house was started.")).to_be_visible()
