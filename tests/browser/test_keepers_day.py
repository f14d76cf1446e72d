"""The first slice as a keeper goes through it, from an empty house to an undone act."""

import re
from datetime import datetime, timedelta
from pathlib import Path
from zoneinfo import ZoneInfo

from playwright.sync_api import Page, expect

from samples import ZONE


def wall_clock() -> datetime:
    """Now on the clock of the browser's zone."""
    return datetime.now(ZoneInfo(ZONE)).replace(tzinfo=None)


def record_clutch(page: Page, base: str, count: str = "7-2", days_ago: int = 20) -> str:
    """A clutch laid days ago, recorded over HTTP; its page is then open."""
    laid = datetime.now(ZoneInfo(ZONE)) - timedelta(days=days_ago)
    places = page.request.get(f"{base}/api/lay-day/suggestion?count={count}").json()["eggs"]
    clutch = {
        "dam": "Costmary",
        "sire": "Chert",
        "laid_at": laid.isoformat(),
        "eggs": places,
        "medium": "vermiculite",
        "dry_mass_g": 200,
        "water_g": 200,
        "closing": "lid with 1-2 pin holes",
        "cabinet": "North",
        "shelf": "lower",
        "set_point_c": 31.5,
    }
    answer = page.request.post(f"{base}/api/clutches", data=clutch)
    assert answer.ok, answer.text()
    code = answer.json()["code"]
    page.goto(f"{base}/clutches/{code}")
    return code


def test_from_an_empty_house_to_a_judged_egg_and_back(desk: Page, empty: str) -> None:
    record_clutch(desk, empty)
    expect(desk.get_by_role("heading", level=1)).to_have_text(f"{wall_clock():%y}-01")
    expect(desk.get_by_role("img", name="Development ribbon: day 20, 34 percent")).to_be_visible()
    expect(desk.get_by_role("rowheader", name="All out")).to_be_visible()
    expect(desk.get_by_text("rests on the set point")).to_be_visible()

    # One tap records a grade; the drawing, the words and Today follow.
    for number in (1, 2, 3):
        dents = desk.get_by_role("button", name=f"Egg {number}: clear dents")
        dents.evaluate("button => button.scrollIntoView({ block: 'center' })")
        aimed_at = dents.bounding_box()
        dents.click()
        # The advice that follows appears above the eggs, and does not move them.
        expect(dents).to_have_attribute("aria-pressed", "true")
    expect(desk.get_by_text("3 of 5 eggs dented early, though about").first).to_be_visible()
    assert aimed_at is not None
    stayed = dents.bounding_box()
    assert stayed is not None
    assert abs(stayed["y"] - aimed_at["y"]) < 2
    expect(
        desk.get_by_role("button", name="Egg 3, day 20, clear dents, early for its stage")
    ).to_be_visible()
    expect(desk.get_by_role("status").filter(has_text="Egg 3, day 20, 34 %")).to_contain_text(
        "the box is dry"
    )
    desk.get_by_role("link", name="Today", exact=True).first.click()
    expect(desk.get_by_role("heading", level=1)).to_have_text("Today")

    # Undo from the log, by key, and do again.
    desk.get_by_role("img", name=re.compile("3 of them early")).click()
    log = desk.get_by_role("region", name="Log").get_by_role("listitem")
    expect(log).to_have_count(4)
    desk.keyboard.press("u")
    expect(log).to_have_count(5)
    expect(log.first).to_contain_text("Undone: Egg 3: clear dents")
    log.first.get_by_role("button", name="Do again").click()
    expect(desk.get_by_text("3 of 5 eggs dented early, though about").first).to_be_visible()

    # The clutch itself undone: its page says so, and the house can do it again.
    log.last.get_by_role("button", name="Undo").click()
    expect(desk.get_by_role("alert")).to_contain_text("There is no clutch")
    desk.get_by_role("link", name="Today", exact=True).first.click()
    last = desk.get_by_role("region", name="Recorded last").get_by_role("listitem")
    last.first.get_by_role("button", name="Do again").click()
    expect(desk.get_by_text("3 of 5 eggs dented early, though about").first).to_be_visible()


def test_a_toast_offers_undo_of_what_was_just_recorded(desk: Page, empty: str) -> None:
    record_clutch(desk, empty, "4-0")
    water = desk.get_by_role("textbox", name="Water added")
    water.fill("45")
    desk.get_by_role("button", name="Record", exact=True).click()
    toast = desk.get_by_role("status").filter(has_text="45 g of water added")
    toast.get_by_role("button", name="Undo").click()
    log = desk.get_by_role("region", name="Log")
    expect(log).to_contain_text(re.compile(r"Undone: Box [\d-]+: 45\sg of water added"))
    water.fill("0")
    desk.get_by_role("button", name="Record", exact=True).click()
    expect(desk.get_by_text("water 0 g is outside 1 to 2000 g")).to_be_visible()


def test_correcting_keeps_the_earlier_value_in_the_log(desk: Page, empty: str) -> None:
    record_clutch(desk, empty, "5-0")
    desk.get_by_role("link", name="Edit", exact=True).click()
    expect(desk.get_by_label("Dam")).to_have_value("Costmary")
    desk.get_by_label("Count").fill("5-1")
    desk.get_by_label("Dam").fill("Borage")
    desk.get_by_role("button", name="Record the correction").click()
    expect(desk.get_by_text("Borage × Chert, 5-1")).to_be_visible()
    expect(desk.get_by_role("region", name="Log")).to_contain_text("corrected")
    desk.get_by_role("region", name="Log").get_by_role("button", name="Undo").first.click()
    expect(desk.get_by_text("Costmary × Chert, 5-0")).to_be_visible()


def logger_file(folder: Path, name: str = "log.csv") -> Path:
    """A semicolon file of an evening clock, day first only by proof of its later days."""
    start = wall_clock().replace(microsecond=0) - timedelta(days=18)
    lines = ["Date;Time;Temp (F);RH %"]
    for hour in range(17 * 24):
        moment = start + timedelta(hours=hour)
        lines.append(f"{moment:%d.%m.%Y};{moment:%H:%M};86,0;95")
    lines[5] = lines[5].replace("86,0", "451")
    lines[6] = lines[6].replace("86,0", "--")
    file = folder / name
    file.write_text("\n".join(lines))
    return file


def test_a_loggers_file_is_understood_asked_about_and_stored_once(
    desk: Page, empty: str, tmp_path: Path
) -> None:
    record_clutch(desk, empty)
    desk.get_by_role("link", name="Add readings").click()
    file = logger_file(tmp_path)
    desk.get_by_label("Logger's file", exact=True).set_input_files(file)
    desk.get_by_label("The times carry no zone").select_option(ZONE)
    region = desk.get_by_role("region", name="A logger's file")
    expect(region).to_contain_text("2 rows cannot be read and will be left out")
    expect(region).to_contain_text("line 6: 451 °F is outside what a logger near eggs can read")
    expect(region).to_contain_text("line 7: the temperature is missing")
    expect(region).to_contain_text("temperature from Temp (F), in °F; humidity from RH %, in %")
    expect(region).to_contain_text("text parted by semicolons, day first")
    expect(region.get_by_label("Use of Time")).to_have_value("clock")
    desk.get_by_label("Its name").fill("Pocket logger")
    store = desk.get_by_role("button", name="Store 406 readings")
    store.click()
    expect(region).to_contain_text("406 readings stored for Pocket logger.")

    # The same file again changes nothing.
    desk.get_by_label("Logger's file", exact=True).set_input_files(
        file.rename(tmp_path / "again.csv")
    )
    desk.get_by_label("The times carry no zone").select_option(ZONE)
    desk.get_by_label("Which probe wrote it").select_option(
        label=f"Pocket logger (box {wall_clock():%y}-01)"
    )
    desk.get_by_role("button", name="Store 406 readings").click()
    expect(region).to_contain_text("Nothing new for Pocket logger in this file; nothing changed.")
    expect(region).to_contain_text("406 were known already")

    desk.goto(f"{empty}/clutches/{wall_clock():%y}-01")
    expect(desk.get_by_text("Measured 8", exact=False)).to_be_visible()
    expect(desk.get_by_text("gaps filled from the set point")).to_be_visible()

    # What belongs to no clutch is undone from the log of the house, and done again there.
    desk.goto(empty)
    log = desk.get_by_role("region", name="Recorded last").get_by_role("listitem")
    stored = log.filter(has_text="406 readings of Pocket logger from log.csv")
    stored.get_by_role("button", name="Undo").click()
    expect(log.first).to_contain_text("Undone: 406 readings")
    log.first.get_by_role("button", name="Do again").click()
    expect(log.first).to_contain_text("Done again: 406 readings")


def test_files_that_are_no_logs_are_refused_in_place(desk: Page, demo: str, tmp_path: Path) -> None:
    desk.goto(f"{demo}/readings")
    huge = tmp_path / "huge.csv"
    with huge.open("wb") as file:
        file.truncate(200_000_000)
    choose = desk.get_by_label("Logger's file", exact=True)
    choose.set_input_files(huge)
    expect(desk.get_by_text("huge.csv has 200 MB")).to_be_visible()
    picture = tmp_path / "picture.csv"
    picture.write_bytes(b"\x89PNG\r\n\x1a\n" + bytes(2000))
    choose.set_input_files(picture)
    expect(desk.get_by_text("this is neither a text file nor a spreadsheet")).to_be_visible()


def test_a_reading_by_hand_and_its_limits(desk: Page, empty: str) -> None:
    record_clutch(desk, empty)
    desk.get_by_role("link", name="Add readings").click()
    temperature = desk.get_by_label("Temperature, °C")
    temperature.fill("451")
    desk.get_by_role("button", name="Record the reading").click()
    expect(desk.get_by_text("is above 60")).to_be_visible()
    temperature.fill("31,2")
    desk.get_by_label("Humidity, %").fill("140")
    desk.get_by_role("button", name="Record the reading").click()
    expect(desk.get_by_text("Between 0 and 100 %.")).to_be_visible()
    desk.get_by_label("Humidity, %").fill("95")
    desk.get_by_role("button", name="Record the reading").click()
    expect(desk.get_by_text("31.2 °C read by hand").first).to_be_visible()
