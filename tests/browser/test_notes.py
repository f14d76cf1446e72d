"""Notes: written on a clutch and at the box, with a photo, found by their words, put right."""

import re
from pathlib import Path

from playwright.sync_api import Page, expect

from browser.home import Address
from browser.pictures import photo


def test_a_note_is_written_found_corrected_and_taken_away(
    desk: Page, own_demo: Address, tmp_path: Path
) -> None:
    desk.goto(f"{own_demo}/clutches/26-04")
    notes = desk.get_by_role("region", name="Notes", exact=True)
    notes.get_by_role("button", name="Write a note").click()
    form = notes.get_by_role("form", name="Note")
    form.get_by_role("button", name="Write it down").click()
    expect(form.get_by_text("Note: fill this in.")).to_be_visible()
    form.get_by_role("textbox").fill("x" * 100_000)
    form.get_by_role("button", name="Write it down").click()
    expect(form.get_by_text(re.compile("100,000 characters are too many"))).to_be_visible()
    form.get_by_role("textbox").fill("Perlite too wet from the start.\nAsk for the finer grade.")
    form.get_by_role("button", name="Write it down").click()
    note = notes.get_by_role("listitem")
    expect(note).to_contain_text("Ask for the finer grade.")
    note.locator("input[type=file]").set_input_files(photo(tmp_path, "wet.jpg"))
    expect(note.get_by_role("img", name=re.compile("^Photo, "))).to_be_visible()
    # The page printed is the clutch's record: the words are on it, what is tapped is not.
    desk.emulate_media(media="print")
    expect(note.get_by_text("Ask for the finer grade.")).to_be_visible()
    expect(note.get_by_role("button", name="Edit")).to_be_hidden()
    desk.emulate_media(media="screen")
    desk.goto(f"{own_demo}/notes")
    found = desk.get_by_role("list", name="Notes").get_by_role("listitem")
    desk.get_by_label("Words in it").fill("grade 26-05")
    expect(desk.get_by_text("No note has all of these words.")).to_be_visible()
    desk.get_by_label("Words in it").fill("finer 26-04")
    expect(found).to_have_count(1)
    expect(found.get_by_role("link", name="26-04")).to_be_visible()
    found.get_by_role("button", name="Edit").click()
    found.get_by_role("textbox", name="Note").fill("Perlite too wet; the finer grade is better.")
    found.get_by_role("button", name="Record the correction").click()
    expect(found).to_contain_text("is better")
    found.get_by_role("button", name="Take away", exact=True).click()
    expect(found).to_have_count(0)
    desk.get_by_role("status").get_by_role("button", name="Undo").first.click()
    expect(found).to_have_count(1)


def test_a_note_of_a_visit_goes_with_it(desk: Page, own_demo: Address) -> None:
    desk.goto(f"{own_demo}/round/26-04")
    desk.get_by_label("Note on this visit").fill("Smells of earth, nothing more.")
    desk.get_by_role("button", name="All as before, shut").click()
    expect(desk.get_by_text("to deliver")).to_have_count(0)
    desk.goto(f"{own_demo}/notes?words=earth")
    link = desk.get_by_role("link", name="visit to 26-04")
    expect(desk.get_by_text("Smells of earth, nothing more.", exact=True)).to_be_visible()
    link.click()
    expect(desk.get_by_label("Note on this visit")).to_have_value("Smells of earth, nothing more.")
