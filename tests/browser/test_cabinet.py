"""The Cabinet place as a keeper uses it: boxes that move, the trace, tokens, live alarms."""

import re
from datetime import UTC, datetime, timedelta

import httpx2
from playwright.sync_api import Page, expect


def shelf(page: Page, name: str):
    return page.get_by_role("region", name="Shelves").get_by_role("region", name=name)


def test_a_box_is_dragged_to_another_shelf_and_put_back(desk: Page, own_demo: str) -> None:
    desk.goto(f"{own_demo}/cabinets/North")
    # The first look of the watch puts alarms above the shelves: not under a box in the air.
    expect(desk.get_by_role("region", name="Alarms")).to_be_visible()
    box = shelf(desk, "lower").get_by_role("button", name=re.compile("Box 26-04"))
    box.scroll_into_view_if_needed()
    start, end = box.bounding_box(), shelf(desk, "upper").bounding_box()
    assert start
    assert end
    desk.mouse.move(start["x"] + start["width"] / 2, start["y"] + start["height"] / 2)
    desk.mouse.down()
    scrolled = desk.evaluate("scrollY")
    over = desk.get_by_text(re.compile("26-04 was moved over droppable area upper"))
    # A hand is never quite still. However long it stays, the shelf does not run away from it.
    for step in range(30):
        across = 0.7 - 0.01 * (step % 2)
        desk.mouse.move(end["x"] + end["width"] * across, end["y"] + end["height"] / 2, steps=12)
    assert desk.evaluate("scrollY") == scrolled
    expect(over).to_be_attached()
    desk.mouse.up()
    expect(shelf(desk, "upper").get_by_role("button", name=re.compile("Box 26-04"))).to_be_visible()
    expect(desk.get_by_text("Box 26-04 moved to North, upper", exact=True)).to_be_visible()
    desk.get_by_role("status").get_by_role("button", name="Undo").first.click()
    expect(shelf(desk, "lower").get_by_role("button", name=re.compile("Box 26-04"))).to_be_visible()


def test_a_box_is_moved_with_the_keys_and_to_another_cabinet(desk: Page, own_demo: str) -> None:
    desk.goto(f"{own_demo}/cabinets/North")
    box = shelf(desk, "upper").get_by_role("button", name=re.compile("Box 26-02"))
    box.focus()
    desk.keyboard.press("ArrowDown")
    moved = shelf(desk, "middle").get_by_role("button", name=re.compile("Box 26-02"))
    expect(moved).to_be_visible()
    moved.click()
    desk.get_by_label("Stands on").select_option("Small, shelf")
    expect(moved).to_be_hidden()
    desk.get_by_role("link", name="Small", exact=True).click()
    expect(shelf(desk, "shelf").get_by_role("button", name=re.compile("Box 26-02"))).to_be_visible()


def test_the_fan_failure_is_told_on_the_cabinet_and_on_the_clutch(desk: Page, demo: str) -> None:
    desk.goto(f"{demo}/cabinets/North")
    wrong = desk.get_by_role("region", name="Faults")
    expect(wrong).to_contain_text("Shelves drifted apart: upper, middle, lower")
    expect(wrong).to_contain_text("pips 0.8 days later")
    expect(wrong).to_contain_text("Probe stuck: North middle")
    desk.goto(f"{demo}/clutches/26-04")
    forecast = desk.get_by_role("region", name="Forecast")
    expect(forecast).to_contain_text("Shelves drifted apart")


def test_the_trace_goes_from_a_season_to_every_reading(desk: Page, demo: str) -> None:
    desk.goto(f"{demo}/cabinets/North")
    climate = desk.get_by_role("region", name="Climate")
    chart = climate.get_by_role("group")
    expect(chart).to_have_attribute("aria-label", re.compile("3 probes, from 2"))
    said = climate.get_by_role("status")
    expect(said).to_contain_text("lowest to highest of every")
    climate.get_by_role("button", name="48 hours").click()
    for _ in range(3):
        climate.get_by_role("button", name="Closer").click()
    expect(said).to_contain_text("every reading")
    before = said.text_content()
    chart.focus()
    desk.keyboard.press("ArrowLeft")
    expect(said).not_to_have_text(before or "")
    north_top = climate.get_by_role("button", name="North top")
    north_top.click()
    expect(north_top).to_have_attribute("aria-pressed", "false")


def test_stuck_readings_are_left_out_and_that_is_undone(desk: Page, own_demo: str) -> None:
    desk.goto(f"{own_demo}/cabinets/North")
    desk.get_by_role("button", name="Leave these readings out of the forecasts").click()
    probes = desk.get_by_role("region", name="Probes")
    expect(probes).to_contain_text("Left out: 13 Jun")
    desk.get_by_role("status").get_by_role("button", name="Undo").first.click()
    expect(probes).not_to_contain_text("Left out")


def test_a_probe_is_checked_and_its_offset_shows(desk: Page, own_demo: str) -> None:
    desk.goto(f"{own_demo}/cabinets/Small")
    probes = desk.get_by_role("region", name="Probes")
    expect(probes).to_contain_text("Not checked against a reference")
    probes.get_by_role("button", name="Check it").click()
    probes.get_by_label("The probe shows").fill("31.2")
    probes.get_by_label("The reference shows").fill("88.0F")
    probes.get_by_role("button", name="Record the check").click()
    expect(probes).to_contain_text("−0.09 °C are added")
    probes.get_by_role("button", name="Check it").click()
    probes.get_by_label("The probe shows").fill("20")
    probes.get_by_label("The reference shows").fill("31")
    probes.get_by_role("button", name="Record the check").click()
    expect(probes).to_contain_text("did both lie at one place?")


def test_a_cabinet_is_set_up_with_its_caution(desk: Page, empty: str) -> None:
    desk.goto(f"{empty}/cabinets")
    desk.get_by_role("link", name="Set up a cabinet").click()
    desk.get_by_label("Name").fill("North")
    desk.get_by_label("Kind").select_option("home-built")
    expect(desk.get_by_text("Never drill a refrigerator")).to_be_visible()
    desk.get_by_label("Shelves from top").fill("upper, lower")
    desk.get_by_label("Set to").fill("99")
    desk.get_by_role("button", name="Record").click()
    expect(desk.get_by_text(re.compile("outside 20 to 36|above 60"))).to_be_visible()
    desk.get_by_label("Set to").fill("88.7F")
    desk.get_by_role("button", name="Record").click()
    expect(desk.get_by_role("heading", level=1)).to_have_text("North")
    expect(desk.get_by_text("set to 31.5 °C, home-built")).to_be_visible()


def alarmed(address: str) -> str:
    """A clutch in North and a device; three days of good readings. Returns the token."""
    now = datetime.now(UTC)
    with httpx2.Client(base_url=address) as http:
        http.post("/api/clutches", json={
            "dam": "Sorrel", "laid_at": (now - timedelta(days=5)).isoformat(),
            "eggs": [{"x": 0.3, "y": 0.5}], "medium": "perlite", "closing": "loose lid",
            "cabinet": "North", "shelf": "lower", "set_point_c": 31.5,
        }).raise_for_status()  # fmt: skip
        told = http.post("/api/devices", json={"name": "Gateway"}).json()
        http.post("/api/probes", json={
            "name": "Lower", "place": {"cabinet": "North", "shelf": "lower"},
            "since": (now - timedelta(days=5)).isoformat(), "device": told["device"],
        }).raise_for_status()  # fmt: skip
        steady = [(s, 31.5 + 0.01 * (s // 300 % 5)) for s in range(7200, 3 * 86_400, 300)]
        send(http, told["token"], steady)
    return str(told["token"])


def send(http: httpx2.Client, token: str, rows: list[tuple[float, float]]) -> None:
    now = datetime.now(UTC)
    readings = [
        {"at": (now - timedelta(seconds=s)).isoformat(), "temperature_c": c} for s, c in rows
    ]
    http.post(
        "/api/readings", json={"readings": readings}, headers={"Authorization": f"Bearer {token}"}
    ).raise_for_status()


def test_an_alarm_shows_on_an_open_page_and_in_its_title_without_reload(
    desk: Page, empty: str
) -> None:
    token = alarmed(empty)
    desk.goto(empty)
    expect(desk).to_have_title("Sandboa")
    with httpx2.Client(base_url=empty) as http:
        send(http, token, [(s, 34.6) for s in range(0, 3600, 60)])
    needs = desk.get_by_role("region", name="What needs you")
    expect(needs).to_contain_text("above 33.5 °C", timeout=60_000)
    expect(desk).to_have_title("(1) Sandboa")
    needs.get_by_role("button", name=re.compile("Seen: Lower: above")).click()
    expect(desk).to_have_title("Sandboa")
    expect(needs).to_contain_text("seen")


def test_a_token_is_shown_once_with_the_line_that_uses_it(desk: Page, empty: str) -> None:
    desk.goto(f"{empty}/settings/devices")
    devices = desk.get_by_role("region", name="Devices and tokens")
    devices.get_by_label("Name of a new device").fill("Gateway")
    devices.get_by_role("button", name="Make a token").click()
    token = devices.get_by_role("status").locator("code").text_content() or ""
    assert re.fullmatch(r"sb_[\w-]{40,}", token)
    expect(devices.get_by_label("How to send a reading with it")).to_contain_text(token)
    answer = httpx2.post(
        f"{empty}/api/readings", json={"readings": []}, headers={"Authorization": f"Bearer {token}"}
    )
    assert answer.status_code == 201
    desk.reload()
    expect(devices).to_contain_text("Gateway")
    expect(devices).not_to_contain_text(token)
    devices.get_by_role("button", name="Revoke").click()
    expect(devices).not_to_contain_text("never heard")


def test_a_messenger_is_added_tried_and_shown(desk: Page, empty: str) -> None:
    desk.goto(f"{empty}/settings/alarms")
    out = desk.get_by_role("region", name="Alarm notifications")
    out.get_by_role("button", name="Add a channel").click()
    out.get_by_label("By").select_option("webhook")
    out.get_by_label("Name").fill("Phone")
    out.get_by_label("Address").fill("nowhere")
    out.get_by_role("button", name="Record").click()
    expect(out).to_contain_text("is not a web address")
    out.get_by_label("By").select_option("kept here only")
    out.get_by_role("button", name="Record").click()
    expect(out).to_contain_text("quiet 22:00 to 07:00")
    out.get_by_role("button", name="Send a trial").click()
    expect(out).to_contain_text("kept here, sent nowhere")


def test_held_readings_are_put_right_by_the_keeper(desk: Page, empty: str) -> None:
    token = alarmed(empty)
    with httpx2.Client(base_url=empty) as http:
        send(http, token, [(-3 * 3600 + 60 * n, 31.4) for n in range(10)])
    desk.goto(f"{empty}/cabinets/North")
    held = desk.get_by_role("region", name="Readings held back")
    expect(held).to_contain_text("10 readings")
    expect(held).to_contain_text("Its clock is ahead")
    held.get_by_role("button", name="Move by −3 h and let in").click()
    expect(held).to_be_hidden()


def test_a_pip_is_recorded_and_the_rest_forecast(desk: Page, own_demo: str) -> None:
    desk.goto(f"{own_demo}/clutches/26-02")
    pips = desk.get_by_role("region", name="Pips")
    pips.get_by_role("link", name="Hatch watch of this clutch").click()
    desk.get_by_role("button", name="Egg 1 pipped").click()
    expect(desk.get_by_text("Egg 1 pipped 0 h ago.")).to_be_visible()
    desk.get_by_role("link", name="The clutch").click()
    expect(pips).to_contain_text("Egg 1 pipped 14 Jun")
    forecast = desk.get_by_role("region", name="Forecast")
    expect(forecast).to_contain_text("Next pip")
