"""Lay day as it is worked: by keyboard alone, by thumb alone, on two devices, interrupted."""

import io
import re
import sqlite3
from dataclasses import dataclass
from pathlib import Path

import pytest
from PIL import Image
from playwright.sync_api import Locator, Page, expect

from running import PHONE

SEVEN_ONE = ["good", "good", "under", "good", "slug", "good", "good"]


def next_step(page: Page, title: str) -> None:
    expect(page.get_by_role("heading", level=1)).to_have_text(title)


def begin(page: Page, base: str, dam: str = "Costmary") -> None:
    """A lay day begun, standing at its first step."""
    page.goto(f"{base}/lay-day")
    page.get_by_label("Dam").fill(dam)
    page.get_by_role("button", name="Begin lay day").click()
    next_step(page, "Get everything ready")


def answer_all_up_to_the_box(page: Page, count: int = 3) -> None:
    """The shortest way from the first step to the box: all eggs good, nothing happened."""
    page.get_by_role("button", name="All ready").click()
    page.get_by_role("radio", name="No, hollow").click()
    page.get_by_role("button", name="Next").click()
    page.get_by_role("button", name="All marked").click()
    page.get_by_role("radio", name=str(count), exact=True).first.click()
    page.get_by_role("button", name=f"{count}-0, next").click()
    page.get_by_role("button", name="So they lie").click()
    for number in range(1, count + 1):
        expect(page.get_by_text(f"Egg {number} of {count}")).to_be_visible()
        page.get_by_role("button", name="Good: disc on top").click()
    page.get_by_role("button", name="Nothing happened, next").click()
    next_step(page, "The box")


def test_a_whole_lay_day_with_the_keyboard_only(desk: Page, empty: str) -> None:
    """No mouse at all: Tab and arrows to move, Enter and Space to answer, keys 1 to 6 for eggs."""
    keys = desk.keyboard
    desk.goto(empty)
    expect(desk.get_by_role("heading", name="No clutch yet")).to_be_visible()
    keys.press("l")
    next_step(desk, "Lay day")
    tab_to(desk, desk.get_by_label("Dam"))
    keys.type("Hyssop")
    keys.press("Enter")
    next_step(desk, "Get everything ready")
    tab_to(desk, desk.get_by_role("button", name="All ready"))
    keys.press("Enter")
    next_step(desk, "Move the dam, look at her")
    tab_to(desk, desk.get_by_role("radio", name="No, hollow"))
    keys.press("Space")
    tab_to(desk, desk.get_by_label("Her weight now"))
    keys.type("1240")
    keys.press("Enter")
    next_step(desk, "Mark every top")
    tab_to(desk, desk.get_by_role("button", name="All marked"))
    keys.press("Enter")
    next_step(desk, "Count")
    tab_to(desk, desk.get_by_role("group", name="Eggs in all").get_by_role("radio").first)
    for _ in range(6):
        keys.press("ArrowRight")
    tab_to(desk, desk.get_by_role("group", name="Slugs among them").get_by_role("radio").first)
    keys.press("ArrowRight")
    tab_to(desk, desk.get_by_role("button", name="7-1, next"))
    keys.press("Enter")

    next_step(desk, "Eggs where they lie")
    egg = desk.get_by_role("button", name="Egg 1, firm: arrow keys move it")
    tab_to(desk, egg)
    before = place_of(egg)
    for _ in range(4):
        keys.press("Shift+ArrowDown")
    expect(egg).to_be_focused()
    assert place_of(egg)[1] > before[1] + 30
    keys.press("Enter")
    sticks = desk.get_by_role("group", name="Egg 1 sticks to")
    tab_to(desk, sticks.get_by_role("button", name="Egg 2"))
    keys.press("Space")
    expect(sticks.get_by_role("button", name="Egg 2")).to_have_attribute("aria-pressed", "true")
    tab_to(desk, desk.get_by_role("button", name="So they lie"))
    keys.press("Enter")

    next_step(desk, "Each egg by torchlight")
    for number, seen in enumerate(SEVEN_ONE, 1):
        expect(desk.get_by_text(f"Egg {number} of 7")).to_be_visible()
        if seen == "under":
            keys.press("6")
            expect(desk.get_by_role("radio", name="underneath")).to_be_checked()
            tab_to(desk, desk.get_by_role("button", name=f"Egg {number} done"))
            keys.press("Enter")
        else:
            keys.press("1" if seen == "good" else "2")
    next_step(desk, "Disc not on top")
    expect(desk.get_by_text("Possible until")).to_be_visible()
    tab_to(desk, desk.get_by_role("radio", name="Turned once, new top marked"))
    keys.press("Space")
    tab_to(desk, desk.get_by_role("button", name="Next"))
    keys.press("Enter")
    next_step(desk, "Clump and mishaps")
    tab_to(desk, desk.get_by_role("button", name="Egg 4 dropped"))
    keys.press("Space")
    tab_to(desk, desk.get_by_role("button", name="Noted, next"))
    keys.press("Enter")
    next_step(desk, "The box")
    tab_to(desk, desk.get_by_label("Dry, g"))
    keys.type("200")
    expect(desk.get_by_text("of water to 200 g")).to_be_visible()
    keys.press("Enter")
    next_step(desk, "Onto the shelf")
    tab_to(desk, desk.get_by_label("Cabinet", exact=True))
    keys.type("Small")
    keys.press("Tab")
    keys.type("middle")
    keys.press("Enter")
    next_step(desk, "Card")
    tab_to(desk, desk.get_by_role("button", name="Card is on, next"))
    keys.press("Enter")
    next_step(desk, "The dam afterwards")
    done = desk.get_by_role("main").get_by_role("button", name="Done")
    expect(done).to_have_count(3)
    tab_to(desk, done.first)
    keys.press("Enter")
    expect(done).to_have_count(2)
    expect(desk.get_by_text("Done: ")).to_be_visible()
    tab_to(desk, desk.get_by_role("button", name="To clutch"))
    keys.press("Enter")

    expect(desk.get_by_role("heading", level=1)).to_have_text(re.compile(r"\d\d-01"))
    expect(desk.get_by_text("Hyssop, 7-1")).to_be_visible()
    log = desk.get_by_role("region", name="Log")
    expect(log).to_contain_text("of Hyssop laid, 7-1")
    # The clutch is graded by keys as well.
    drawn = desk.get_by_role("button", name="Egg 1, day 0, not looked at yet")
    tab_to(desk, drawn)
    keys.press("1")
    expect(desk.get_by_role("button", name="Egg 1, day 0, one slight dimple")).to_be_focused()
    keys.press("ArrowRight")
    keys.press("2")
    expect(desk.get_by_role("button", name="Egg 2, day 0, clear dents")).to_be_visible()


def tab_to(page: Page, target: Locator) -> None:
    """Press Tab until the target has the focus, as a keyboard user must be able to."""
    target.wait_for(state="attached")
    for _ in range(80):
        if target.evaluate("e => e === document.activeElement"):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"not reached by Tab: {target}")


def place_of(egg: Locator) -> tuple[float, float]:
    box = egg.bounding_box()
    assert box
    return box["x"], box["y"]


@dataclass
class Thumb:
    """Touches the page, and counts: taps, drags and fields typed into."""

    page: Page
    taps: int = 0

    def tap(self, target: Locator) -> None:
        target.tap()
        self.taps += 1

    def drag(self, target: Locator, by: tuple[float, float]) -> None:
        """A finger put down, moved in small steps and lifted: real touch events."""
        target.scroll_into_view_if_needed()
        box = target.bounding_box()
        assert box
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        touch = self.page.context.new_cdp_session(self.page)
        for kind, share in (("Start", 0.0), *(("Move", n / 6) for n in range(1, 7)), ("End", 1.0)):
            point = {"x": x + by[0] * share, "y": y + by[1] * share}
            points = [] if kind == "End" else [point]
            touch.send("Input.dispatchTouchEvent", {"type": f"touch{kind}", "touchPoints": points})
        self.taps += 1


#: Taps for seven eggs, one a slug, one underneath, into a cabinet the house knows: one for each
#: egg and step, and what differs. Nothing is typed.
MOST_TAPS = 27


def test_a_whole_lay_day_by_thumb_on_a_phone(phone: Page, empty: str) -> None:
    """390 px wide, touch only, nothing typed: begun from the dam's own page."""
    made = phone.request.post(f"{empty}/api/animals", data={"role": "dam", "name": "Costmary"})
    dam = made.json()["id"]
    known = {
        "dam": "Tansy", "laid_at": "2026-05-01T08:00:00Z", "eggs": [{"x": 0.5, "y": 0.5}],
        "medium": "vermiculite", "closing": "sealed film", "cabinet": "North", "shelf": "lower",
        "set_point_c": 31.5,
    }  # fmt: skip
    assert phone.request.post(f"{empty}/api/clutches", data=known).ok
    thumb = Thumb(phone)
    button, radio = (
        lambda name: phone.get_by_role("button", name=name),
        lambda name: phone.get_by_role("radio", name=name),
    )
    phone.goto(f"{empty}/animals/{dam}")
    thumb.tap(phone.get_by_role("link", name="She is laying"))
    thumb.tap(button("Begin lay day"))
    thumb.tap(button("All ready"))
    thumb.tap(radio("No, hollow"))
    thumb.tap(button("Next"))
    thumb.tap(button("All marked"))
    laid = phone.get_by_role("group", name="Eggs in all")
    thumb.tap(laid.get_by_role("radio", name="7", exact=True))
    slugs = phone.get_by_role("group", name="Slugs among them")
    thumb.tap(slugs.get_by_role("radio", name="1", exact=True))
    thumb.tap(button("7-1, next"))
    next_step(phone, "Eggs where they lie")
    egg = button("Egg 2, firm")
    before = place_of(egg)
    with phone.expect_response(lambda answer: answer.request.method == "PUT"):
        thumb.drag(egg, (24, 60))
    phone.reload()
    expect(egg).to_be_visible()
    assert place_of(egg)[1] > before[1] + 30
    thumb.tap(button("So they lie"))
    for number, seen in enumerate(SEVEN_ONE, 1):
        expect(phone.get_by_text(f"Egg {number} of 7")).to_be_visible()
        if seen == "under":
            thumb.tap(radio("underneath"))
            thumb.tap(button(f"Egg {number} done"))
        else:
            thumb.tap(button("Good: disc on top" if seen == "good" else "Slug: yellow"))
    thumb.tap(radio("Turned once, new top marked"))
    thumb.tap(button("Next"))
    thumb.tap(button("Nothing happened, next"))
    thumb.tap(button("The box is ready"))
    thumb.tap(phone.get_by_role("group", name="North").get_by_role("radio", name="lower"))
    thumb.tap(button("Record the clutch"))
    # What is told in passing does not cover the way on.
    toast = phone.get_by_role("status").filter(has_text="Costmary laid, 7-1")
    phone.wait_for_function(
        "([toast, on]) => toast.getBoundingClientRect().bottom <= on.getBoundingClientRect().top",
        arg=[toast.element_handle(), button("Card is on, next").element_handle()],
    )
    thumb.tap(button("Card is on, next"))
    thumb.tap(button("To clutch"))
    phone.wait_for_url(re.compile("/clutches/"))
    expect(phone.get_by_text("Costmary, 7-1, laid")).to_be_visible()
    assert thumb.taps <= MOST_TAPS

    code = phone.url.rsplit("/", 1)[-1]
    eggs = phone.request.get(f"{empty}/api/clutches/{code}").json()["eggs"]
    assert [egg["slug"] for egg in eggs] == [seen == "slug" for seen in SEVEN_ONE]
    assert "turned" in str(eggs[2]["events"])


def test_the_way_on_is_under_the_thumb_at_every_step(phone: Page, demo: str) -> None:
    """The amber button lies in the lower third and reaches no edge of the screen."""
    lay = phone.request.get(f"{demo}/api/lay-days").json()[0]
    for step in [s for s in lay["steps"] if s not in ("card", "aftercare", "shelf")]:
        phone.goto(f"{demo}/lay-day/{lay['id']}/{step}")
        forward = phone.locator("main form button[type=submit]")
        expect(forward).to_be_visible()
        box = forward.bounding_box()
        assert box
        assert box["y"] > PHONE["height"] * 0.6, step
        assert box["y"] + box["height"] <= PHONE["height"] - 50, step


def test_begun_on_the_phone_and_finished_at_the_desk(phone: Page, desk: Page, empty: str) -> None:
    begin(phone, empty)
    phone.get_by_role("button", name="All ready").tap()
    phone.get_by_role("radio", name="No, hollow").tap()
    phone.get_by_role("button", name="Next").tap()
    next_step(phone, "Mark every top")

    desk.goto(empty)
    desk.get_by_role("link", name="Go on").click()
    next_step(desk, "Mark every top")
    desk.get_by_role("button", name="All marked").click()
    desk.get_by_role("radio", name="3", exact=True).first.click()
    expect(desk.get_by_role("button", name="3-0, next")).to_be_visible()

    # The phone still shows what it knew; its tap is not taken for the desk's, and says so.
    phone.get_by_role("button", name="All marked").tap()
    expect(phone.get_by_role("status").filter(has_text="another device")).to_be_visible()
    phone.goto(f"{phone.url.rsplit('/', 1)[0]}/count")
    expect(phone.get_by_role("button", name="3-0, next")).to_be_visible()


def test_the_back_button_loses_nothing_and_records_nothing(desk: Page, empty: str) -> None:
    begin(desk, empty)
    desk.get_by_role("button", name="All ready").click()
    desk.get_by_role("radio", name="Not sure").click()
    desk.go_back()
    next_step(desk, "Get everything ready")
    desk.go_back()
    next_step(desk, "Lay day")
    desk.reload()
    desk.get_by_role("link", name="Go on").click()
    next_step(desk, "Move the dam, look at her")
    expect(desk.get_by_role("radio", name="Not sure")).to_be_checked()
    assert desk.request.get(f"{empty}/api/today").json()["clutches"] == []


def test_a_lump_left_stops_here_with_advice_and_goes_on_when_it_is_gone(desk, empty: str) -> None:
    begin(desk, empty)
    desk.get_by_role("button", name="All ready").click()
    desk.get_by_role("radio", name="A lump is left").click()
    expect(desk.get_by_role("status").filter(has_text="She may not be finished")).to_be_visible()
    expect(desk.get_by_role("complementary", name="Caution").filter(has_text="vet")).to_be_visible()
    expect(desk.get_by_role("button", name="Next")).to_have_count(0)
    desk.get_by_label("Her weight now").press("Enter")
    next_step(desk, "Move the dam, look at her")
    desk.goto(empty)
    expect(desk.get_by_text("A lump was left: look at her again.")).to_be_visible()
    desk.get_by_role("link", name="Go on").click()
    # Her eggs are not left lying: with her in a vet's care they are boxed.
    with_a_vet = desk.get_by_role("button", name="box these eggs")
    expect(with_a_vet).to_be_visible()
    desk.get_by_role("radio", name="No, hollow").click()
    expect(with_a_vet).to_have_count(0)
    desk.get_by_role("button", name="Next").click()
    next_step(desk, "Mark every top")


def test_what_cannot_be_recorded_yet_leads_back_to_its_step(desk: Page, empty: str) -> None:
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
    assert desk.request.get(f"{empty}/api/today").json()["clutches"] == []


def photo(folder: Path, name: str) -> Path:
    """A photo of nothing much, with a place in its EXIF."""
    image = Image.new("RGB", (600, 400), (120, 90, 60))
    exif = Image.Exif()
    exif[0x010F] = "A camera"
    exif.get_ifd(0x8825)[1] = "N"
    held = io.BytesIO()
    image.save(held, "JPEG", exif=exif)
    file = folder / name
    file.write_bytes(held.getvalue())
    return file


def test_photos_at_an_egg_and_a_step_and_what_is_none(
    phone: Page, empty: str, tmp_path: Path
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
    kept = phone.request.get(f"{empty}{address}").body()
    with Image.open(io.BytesIO(kept)) as image:
        assert image.size == (600, 400)
        assert not image.getexif()
    phone.get_by_role("button", name="Take away").first.tap()
    expect(shown).to_have_count(1)


def test_a_photo_at_every_step_goes_with_the_clutch_or_the_dam(
    phone: Page, empty: str, tmp_path: Path
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
    kept = phone.request.get(f"{empty}/api/clutches/{code}/photos").json()
    assert sorted(p["step"] for p in kept) == sorted([*before, "card"])


def test_a_second_clutch_of_a_dam_is_asked_about(desk: Page, empty: str) -> None:
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
def test_who_cannot_lay_is_told_at_the_field(desk, empty: str, dam, sire, said: str) -> None:
    desk.request.post(f"{empty}/api/animals", data={"role": "sire", "name": "Chert"})
    desk.goto(f"{empty}/lay-day")
    desk.get_by_label("Dam").fill(dam)
    desk.get_by_label("Sire, if known").fill(sire)
    desk.get_by_role("button", name="Begin lay day").click()
    expect(desk.get_by_role("main")).to_contain_text(said)
    next_step(desk, "Lay day")
    assert desk.request.get(f"{empty}/api/lay-days").json() == []


def test_she_keeps_her_eggs_and_the_steps_are_fewer(phone: Page, empty: str) -> None:
    phone.goto(f"{empty}/settings")
    begin(phone, empty)
    made = {
        **phone.request.get(f"{empty}/api/methods").json()["methods"][0]["method"],
        "name": "Her own coils",
        "dam": "maternal incubation",
    }
    assert phone.request.post(f"{empty}/api/methods", data={"method": made}).ok
    phone.reload()
    phone.get_by_role("radio", name="Her own coils").tap()
    phone.get_by_role("button", name="She keeps them").tap()
    next_step(phone, "Move the dam, look at her")
    expect(phone.get_by_text("look without moving her")).to_be_visible()
    phone.get_by_role("radio", name="No, hollow").tap()
    phone.get_by_role("button", name="Next").tap()
    next_step(phone, "Count")
    phone.get_by_role("radio", name="5", exact=True).first.tap()
    phone.get_by_role("button", name="5-0, next").tap()
    next_step(phone, "Onto the shelf")
    phone.get_by_label("Temperature in her coils").fill("31")
    phone.get_by_role("button", name="Record the clutch").tap()
    next_step(phone, "Card")
    phone.get_by_role("button", name="Card is on, next").tap()
    phone.get_by_role("button", name="To clutch").tap()
    expect(phone.get_by_text("Costmary, 5-0")).to_be_visible()
    expect(phone.get_by_role("main")).to_contain_text("keeps them in Costmary's tub")


def test_a_lay_day_found_again_three_days_later(desk: Page, empty: str, tmp_path: Path) -> None:
    laid = desk.request.post(
        f"{empty}/api/lay-days", data={"dam": "Lovage", "laid_at": "2026-01-05T08:00:00Z"}
    )
    assert laid.ok
    house = sqlite3.connect(next(tmp_path.glob("*.sqlite3")))
    with house:
        house.execute("update lay_draft set saved_s = saved_s - 3 * 86400")
    house.close()
    desk.goto(empty)
    found = desk.get_by_role("region", name="Laid, not boxed yet")
    expect(found).to_contain_text("days")
    found.get_by_role("link", name="Go on").click()
    expect(desk.get_by_text("Found again")).to_be_visible()
    desk.goto(f"{empty}/lay-day")
    desk.get_by_role("button", name="Set aside").click()
    expect(desk.get_by_text("Under way")).to_have_count(0)
