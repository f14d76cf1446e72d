"""Logger files that need a keeper's word: which column is what, whose sensor is whose."""

from pathlib import Path

from benchmarks.logger_files.styles import styles
from openpyxl import Workbook
from playwright.sync_api import Page, expect

from browser.places import open_place
from browser.test_keepers_day import record_clutch

STYLES = {style.name: style for style in styles()}


def take(page: Page, folder: Path, style: str, name: str) -> None:
    file = folder / name
    file.write_bytes(STYLES[style].data)
    page.get_by_label("Logger's file", exact=True).set_input_files(file)
    page.get_by_label("The times carry no zone").select_option("Europe/Berlin")


def test_a_swapped_heading_is_asked_about_and_the_columns_are_chosen(
    phone: Page, demo: str, tmp_path: Path
) -> None:
    phone.goto(f"{demo}/readings")
    take(phone, tmp_path, "values under each other's heading", "swapped.csv")
    region = phone.get_by_role("region", name="A logger's file")
    expect(region).to_contain_text("are they swapped?")
    # One thumb: two choices, and what is understood stands below.
    region.get_by_label("Use of RH").select_option("temperature")
    region.get_by_label("Use of Temp").select_option("humidity")
    expect(region).to_contain_text("temperature from RH, in °C; humidity from Temp, in %")
    expect(region).to_contain_text("31.2 °C and 31.8 °C")
    wide = phone.evaluate("document.documentElement.scrollWidth - innerWidth")
    assert wide <= 0


def test_two_sensors_of_a_file_go_to_two_probes(desk: Page, empty: str, tmp_path: Path) -> None:
    record_clutch(desk, empty)
    desk.goto(f"{empty}/readings")
    take(desk, tmp_path, "two channels of a hub", "hub.csv")
    region = desk.get_by_role("region", name="A logger's file")
    expect(region.get_by_role("region", name="CH2")).to_contain_text("30.4 °C and 30.6 °C")
    desk.get_by_label("Which probe is CH2").select_option("none: leave it out")
    name = desk.get_by_label("Its name")
    expect(name).to_have_value("CH1")
    store = desk.get_by_role("button", name="Store 30 readings")
    expect(store).to_be_enabled()
    # Nothing of it: a file of which nothing is to be stored cannot be.
    desk.get_by_label("Which probe is CH1").select_option("none: leave it out")
    expect(desk.get_by_role("button", name="Store 0 readings")).to_be_disabled()
    desk.get_by_label("Which probe is CH1").select_option("a new probe")
    name.fill("Hub, first")
    desk.get_by_label("Which probe is CH2").select_option("a new probe")
    name.nth(1).fill("Hub, first")
    desk.get_by_role("button", name="Store 60 readings").click()
    expect(region).to_contain_text("There is a probe Hub, first already")
    name.last.fill("Hub, second")
    desk.get_by_role("button", name="Store 60 readings").click()
    expect(region).to_contain_text("30 readings stored for Hub, first.")
    expect(region).to_contain_text("30 readings stored for Hub, second.")


def test_bench_takes_a_spreadsheet_and_asks_which_sheet(
    desk: Page, demo: str, tmp_path: Path
) -> None:
    book = Workbook()
    for sheet, warmth in ((book.active, 29.0), (book.create_sheet("South"), 33.0)):
        sheet.append(["Time", "Temperature (°C)"])
        for hour in range(200):
            sheet.append([f"2026-05-{1 + hour // 24:02} {hour % 24:02}:00:00Z", warmth])
    book.active.title = "North"
    book.save(tmp_path / "house.xlsx")
    open_place(desk, f"{demo}/bench")
    desk.get_by_label("Laid").fill("2026-05-01T00:00")
    desk.get_by_label("Logger's file", exact=True).set_input_files(tmp_path / "house.xlsx")
    desk.get_by_label("Readings stand in several sheets").select_option("South")
    expect(desk.get_by_text("200 readings from the file")).to_be_visible()
