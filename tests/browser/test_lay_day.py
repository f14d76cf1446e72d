"""Lay day interrupted, carried on elsewhere, photographed, refused: nothing is lost."""

import io
import re
import sqlite3
from pathlib import Path

import pytest
from PIL import Image
from playwright.sync_api import Page, expect

from browser.home import Address
from browser.laying import answer_all_up_to_the_box, begin, next_step
from browser.pictures import photo


@pytest.mark.both_ways
def test_begun_on_the_phone_and_finished_at_the_desk(
    phone: Page, desk: Page, empty: Address
) -> None:
    begin(phone, empty)
    phone.get_by_role("button", name="All ready").tap()
    phone.get_by_role("radio", name="No, hollow").tap()
    phone.get_by_role("button", name="Next").tap()
    next_step(phone, "Mark every top")

    desk.goto(empty)
    desk.get_by_role("link", name="Continue").click()
    next_step(desk, "Mark every top")
    desk.get_by_role("button", name="All marked").click()
    desk.get_by_role("radio", name="3", exact=True).first.click()
    expect(desk.get_by_role("button", name="3-0, next")).to_be_visible()

    # The phone still shows what it knew; its tap is put onto what the desk did meanwhile.
    phone.get_by_role("button", name="All marked").tap()
    expect(phone.get_by_role("button", name="3-0, next")).to_be_visible()


@pytest.mark.both_ways
def test_the_back_button_loses_nothing_and_records_nothing(desk: Page, empty: Address) -> None:
    begin(desk, empty)
    desk.get_by_role("button", name="All ready").click()
    desk.get_by_role("radio", name="Not sure").click()
    desk.go_back()
    next_step(desk, "Get everything ready")
    desk.go_back()
    next_step(desk, "Lay day")
    desk.reload()
    desk.get_by_role("link", name="Continue").click()
    next_step(desk, "Move the dam, look at her")
    expect(desk.get_by_role("radio", name="Not sure")).to_be_checked()
    assert desk.request.get(f"{empty.api}/api/today").json()["boxes"] == []


def test_a_lump_left_stops_here_with_advice_and_goes_on_when_it_is_gone(
    desk, empty: Address
) -> None:
    begin(desk, empty)
    desk.get_by_role("button", name="All ready").click()
    desk.get_by_role("radio", name="A lump is left").click()
    expect(desk.get_by_role("status").filter(has_text="She may not be finished")).to_be_visible()
    expect(desk.get_by_role("note", name="Caution").filter(has_text="vet")).to_be_visible()
    expect(desk.get_by_role("button", name="Next")).to_have_count(0)
    desk.get_by_label("Her weight now").press("Enter")
    next_step(desk, "Move the dam, look at her")
    desk.goto(empty)
    expect(desk.get_by_text("A lump was left: look at her again.")).to_be_visible()
    desk.get_by_role("link", name="Continue").click()
    # Her eggs are not left lying: with her in a vet's care they are boxed.
    with_a_vet = desk.get_by_role("button", name="Box these eggs")
    with_a_vet.click()
    next_step(desk, "Mark every top")
    desk.go_back()
    next_step(desk, "Move the dam, look at her")
    desk.get_by_role("radio", name="No, hollow").click()
    expect(with_a_vet).to_have_count(0)
    desk.get_by_role("button", name="Next").click()
    next_step(desk, "Mark every top")


def test_what_cannot_be_recorded_yet_leads_back_to_its_step(desk: Page, empty: Address) -> None:
    begin(desk, empty)
    lay_day = desk.url.rsplit("/", 1)[0]
    desk.goto(f"{lay_day}/shelf")
    desk.get_by_label("Cabinet", exact=True).fill("North")
    desk.get_by_label("Shelf", exact=True).fill("lower")
    desk.get_by_label("Set point of the cabinet").fill("451")
    record = desk.get_by_role("button", name="Record the clutch")
    record.click()
    expect(desk.get_by_role("alert")).to_be_visible()
    desk.get_by_label("Set point of the cabinet").fill("31,5")
    record.click()
    expect(desk.get_by_role("alert")).to_contain_text("egg")
    desk.get_by_role("button", name="To: ").click()
    next_step(desk, "Count")
    assert desk.request.get(f"{empty.api}/api/today").json()["boxes"] == []


@pytest.mark.both_ways
def test_photos_at_an_egg_and_a_step_and_what_is_none(
    phone: Page, empty: Address, tmp_path: Path
) -> None:
    begin(phone, empty)
    answer_all_up_to_the_box(phone)
    lay_day = phone.url.rsplit("/", 1)[0]
    phone.goto(f"{lay_day}/eggs")
    phone.get_by_role("button", name="Egg 2", exact=False).last.tap()
    expect(phone.get_by_text("Egg 2 of 3")).to_be_visible()
    of_egg = phone.locator("input[type=file]")
    of_egg.set_input_files([photo(tmp_path, "one.jpg"), photo(tmp_path, "two.jpg")])
    shown = phone.get_by_role("figure").get_by_role("img")
    expect(shown).to_have_count(2)
    none = tmp_path / "photo.jpg"
    none.write_bytes(b"MZ this is no photo")
    of_egg.set_input_files(none)
    expect(phone.get_by_role("alert")).to_contain_text("photo.jpg: ")
    huge = tmp_path / "huge.jpg"
    with huge.open("wb") as file:
        file.truncate(60_000_000)
    of_egg.set_input_files(huge)
    expect(phone.get_by_role("alert")).to_have_text("huge.jpg: larger than 25 MB.")
    expect(shown).to_have_count(2)

    address = phone.get_by_role("figure").get_by_role("link").first.get_attribute("href")
    kept = phone.request.get(f"{empty.api}{address}").body()
    with Image.open(io.BytesIO(kept)) as image:
        assert image.size == (600, 400)
        assert not image.getexif()
    phone.get_by_role("button", name="Take away").first.tap()
    expect(shown).to_have_count(1)


def test_a_photo_at_every_step_goes_with_the_clutch_or_the_dam(
    phone: Page, empty: Address, tmp_path: Path
) -> None:
    begin(phone, empty)
    answer_all_up_to_the_box(phone)
    lay_day = phone.url.rsplit("/", 1)[0]
    file = photo(tmp_path, "one.jpg")
    shown = phone.get_by_role("figure").get_by_role("img")
    before = ("prepare", "dam", "marks", "count", "places", "handling", "box", "shelf")
    for step in before:
        phone.goto(f"{lay_day}/{step}")
        phone.get_by_label("Photo", exact=True).set_input_files(file)
        expect(shown).to_have_count(1)
    phone.get_by_label("Cabinet", exact=True).fill("North")
    phone.get_by_label("Shelf", exact=True).fill("lower")
    phone.get_by_role("button", name="Record the clutch").tap()
    next_step(phone, "Card")
    expect(shown).to_have_count(0)
    phone.get_by_label("Photo", exact=True).set_input_files(file)
    expect(shown).to_have_count(1)
    phone.get_by_role("button", name="Card is on, next").tap()
    next_step(phone, "The dam afterwards")
    phone.get_by_label("Photo", exact=True).set_input_files(file)
    expect(shown).to_have_count(1)
    phone.get_by_role("button", name="To clutch").tap()
    phone.wait_for_url(re.compile("/clutches/"))
    code = phone.url.rsplit("/", 1)[-1]
    kept = phone.request.get(f"{empty.api}/api/clutches/{code}/photos").json()
    assert sorted(p["step"] for p in kept) == sorted([*before, "card"])


def test_a_second_clutch_of_a_dam_is_asked_about(desk: Page, empty: Address) -> None:
    begin(desk, empty)
    answer_all_up_to_the_box(desk)
    desk.get_by_role("button", name="The box is ready").click()
    desk.get_by_label("Cabinet", exact=True).fill("North")
    desk.get_by_label("Shelf", exact=True).fill("lower")
    desk.get_by_role("button", name="Record the clutch").click()
    next_step(desk, "Card")
    desk.goto(f"{empty}/lay-day")
    desk.get_by_label("Dam").fill("costmary")
    desk.get_by_role("button", name="Begin lay day").click()
    expect(desk.get_by_role("alert")).to_contain_text("second clutch")
    desk.get_by_role("button", name="Yes, a second clutch").click()
    next_step(desk, "Get everything ready")


@pytest.mark.parametrize(
    ("dam", "sire", "said"),
    [
        ("", "", "Dam: fill this in."),
        ("Chert", "", "Chert is recorded as a sire"),
        ("Costmary", "costmary", "Costmary is the dam: name another sire"),
        ("🐍", "", "a name is letters, digits and punctuation"),
    ],
)
def test_who_cannot_lay_is_told_at_the_field(desk, empty: Address, dam, sire, said: str) -> None:
    desk.request.post(f"{empty.api}/api/animals", data={"role": "sire", "name": "Chert"})
    desk.goto(f"{empty}/lay-day")
    desk.get_by_label("Dam").fill(dam)
    desk.get_by_label("Sire, if known").fill(sire)
    desk.get_by_role("button", name="Begin lay day").click()
    expect(desk.get_by_role("main")).to_contain_text(said)
    next_step(desk, "Lay day")
    assert desk.request.get(f"{empty.api}/api/lay-day-drafts").json() == []


def test_she_keeps_her_eggs_and_the_steps_are_fewer(phone: Page, empty: Address) -> None:
    phone.goto(f"{empty}/settings")
    begin(phone, empty)
    made = {
        **phone.request.get(f"{empty.api}/api/methods").json()["methods"][0]["method"],
        "name": "Her own coils",
        "dam": "maternal incubation",
    }
    assert phone.request.post(f"{empty.api}/api/methods", data={"method": made}).ok
    phone.reload()
    phone.get_by_role("radio", name="Her own coils").tap()
    phone.get_by_role("button", name="She keeps them").tap()
    next_step(phone, "Look at her")
    expect(phone.get_by_text("look without moving her")).to_be_visible()
    phone.get_by_role("radio", name="No, hollow").tap()
    phone.get_by_role("button", name="Next").tap()
    next_step(phone, "Count")
    phone.get_by_role("radio", name="5", exact=True).first.tap()
    phone.get_by_role("button", name="5-0, next").tap()
    next_step(phone, "Her tub")
    phone.get_by_label("Temperature in her coils").fill("31")
    phone.get_by_role("button", name="Record the clutch").tap()
    next_step(phone, "Card")
    phone.get_by_role("button", name="Card is on, next").tap()
    phone.get_by_role("button", name="To clutch").tap()
    expect(phone.get_by_text("Costmary, 5-0")).to_be_visible()
    expect(phone.get_by_role("main")).to_contain_text("keeps them in Costmary's tub")


def test_a_lay_day_found_again_three_days_later(desk: Page, empty: Address, tmp_path: Path) -> None:
    laid = desk.request.post(
        f"{empty.api}/api/lay-day-drafts", data={"dam": "Lovage", "laid_at": "2026-01-05T08:00:00Z"}
    )
    assert laid.ok
    house = sqlite3.connect(next(tmp_path.glob("*.sqlite3")))
    with house:
        house.execute("update lay_draft set saved_s = saved_s - 3 * 86400")
    house.close()
    desk.goto(empty)
    found = desk.get_by_role("region", name="Laid, not boxed yet")
    expect(found).to_contain_text("days")
    found.get_by_role("link", name="Continue").click()
    expect(desk.get_by_text("Found again")).to_be_visible()
    desk.goto(f"{empty}/lay-day")
    desk.get_by_role("button", name="Discard").click()
    expect(desk.get_by_text("Under way")).to_have_count(0)
    # Nothing of it is lost: it stands in a list of its own, and goes on where it stopped.
    aside = desk.get_by_role("region", name="Discarded").get_by_role("listitem")
    expect(aside).to_contain_text("stopped at")
    aside.get_by_role("button", name="Take it up again").click()
    expect(aside).to_have_count(0)
    expect(desk.get_by_role("region", name="Under way").get_by_role("link")).to_be_visible()
