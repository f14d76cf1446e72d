"""People, signing in, the calendar and the whole house, driven as a keeper does."""

import re
import zipfile
from pathlib import Path

from icalendar import Calendar
from playwright.sync_api import Browser, Page, Route, expect

from forked import forked
from running import DESK

IPHONE = (
    "Mozilla/5.0 (iPhone; CPU iPhone OS 17_5 like Mac OS X) AppleWebKit/605.1.15 "
    "(KHTML, like Gecko) Version/17.5 Mobile/15E148 Safari/604.1"
)
PHRASE = "beeswax ladder harbour mint"
HELPERS = "copper window seven geese"


def sign_in(page: Page, name: str, phrase: str) -> None:
    page.get_by_label("Your name").fill(name)
    page.get_by_label("Passphrase").fill(phrase)
    page.get_by_role("button", name="Sign in").click()


def add_person(page: Page, name: str, role: str, phrase: str) -> None:
    people = page.get_by_role("region", name="People")
    people.get_by_label("Name of a person").fill(name)
    people.get_by_label("Role").select_option(role)
    people.get_by_role("button", name="Add").click()
    line = people.get_by_role("listitem").filter(has_text=f"{name}, {role}")
    line.get_by_role("button", name="Give a passphrase").click()
    people.get_by_label(f"Passphrase of {name}").fill(phrase)
    people.get_by_role("button", name=re.compile("^Keep it")).click()
    expect(people.get_by_label(f"Passphrase of {name}")).to_have_count(0)


def delivered(page: Page) -> None:
    """The house has answered for the visit: a page that asks before would not see it."""
    said = page.get_by_text(re.compile("^Visit to .*all as before$"))
    expect(said.first).to_be_visible(timeout=40_000)
    expect(page.get_by_role("link", name=re.compile("to deliver"))).to_have_count(0)


def test_a_keeper_locks_the_house_and_lets_a_helper_in(
    desk: Page, phone: Page, own_demo: str
) -> None:
    desk.goto(f"{own_demo}/settings/people")
    people = desk.get_by_role("region", name="People")
    expect(people).to_contain_text("This machine alone opens the house")
    # A weak one is refused at its field, and nobody is locked out by it.
    people.get_by_label("Name of a person").fill("Rowan")
    people.get_by_role("button", name="Add").click()
    people.get_by_role("button", name="Give a passphrase").click()
    people.get_by_label("Passphrase of Rowan").fill("too short")
    people.get_by_role("button", name="Keep it and sign in").click()
    expect(people.get_by_text("a passphrase has at least 12 characters")).to_be_visible()
    people.get_by_label("Passphrase of Rowan").fill(PHRASE)
    people.get_by_role("button", name="Keep it and sign in").click()
    # Whoever locks the door is inside.
    expect(desk.get_by_role("link", name="Rowan", exact=True)).to_be_visible()
    expect(people).to_contain_text("signed in on one device")
    add_person(desk, "Linden", "helper", HELPERS)

    # Elsewhere nothing is shown before somebody signs in.
    phone.goto(f"{own_demo}/round")
    expect(phone.get_by_role("heading", name="Sign in")).to_be_visible()
    expect(phone.get_by_text("26-04")).to_have_count(0)
    sign_in(phone, "linden", "not the right one")
    expect(phone.get_by_text("Name and passphrase do not fit")).to_be_visible()
    sign_in(phone, "linden", HELPERS)
    # On the page that was asked for.
    expect(phone.get_by_role("link", name="26-04", exact=True)).to_be_visible()
    phone.goto(f"{own_demo}/round/26-05")
    phone.get_by_role("button", name="All as before, shut").click()
    delivered(phone)
    phone.goto(f"{own_demo}/settings")
    expect(phone.get_by_text("Only a keeper may change how the house is run")).to_be_visible()
    expect(phone.get_by_role("link", name="Numbers")).to_be_visible()
    expect(phone.get_by_role("link", name=re.compile("^People"))).to_have_count(0)

    # The log says who.
    desk.goto(f"{own_demo}/clutches/26-05")
    expect(desk.get_by_text("by Linden").first).to_be_visible()
    # A lost phone: the keeper signs it out, and it is asked at its next step.
    desk.goto(f"{own_demo}/settings/people")
    line = people.get_by_role("listitem").filter(has_text="Linden, helper")
    line.get_by_role("button", name="Sign out").click()
    expect(line).to_contain_text("not signed in anywhere")
    phone.get_by_role("link", name="Today", exact=True).click()
    expect(phone.get_by_role("heading", name="Sign in")).to_be_visible()


def test_a_keeper_changes_the_passphrase_and_signs_out(
    desk: Page, chromium: Browser, own_demo: str
) -> None:
    desk.goto(f"{own_demo}/settings/people")
    add_person(desk, "Rowan", "keeper", PHRASE)
    desk.get_by_role("link", name="Rowan", exact=True).click()
    expect(desk.get_by_role("heading", level=1)).to_have_text("Rowan")
    desk.get_by_label("The one you have now").fill("something else")
    desk.get_by_label("The new one").fill("three quiet yellow boats")
    desk.get_by_role("button", name="Change it").click()
    expect(desk.get_by_text("That is not the passphrase you have now")).to_be_visible()
    desk.get_by_label("The one you have now").fill(PHRASE)
    desk.get_by_role("button", name="Change it").click()
    expect(desk.get_by_label("The one you have now")).to_have_value("")
    # A phone of one's own is listed and can be signed out from here.
    lost = chromium.new_context(user_agent=IPHONE)
    phone = lost.new_page()
    phone.goto(f"{own_demo}/you")
    sign_in(phone, "Rowan", "three quiet yellow boats")
    expect(phone.get_by_role("heading", level=1)).to_have_text("Rowan")
    desk.reload()
    sessions = desk.get_by_role("list", name="Where you are signed in")
    expect(sessions.get_by_role("listitem")).to_have_count(2)
    expect(sessions.get_by_role("listitem").filter(has_text="this device")).to_contain_text(
        "Chrome"
    )
    listed = sessions.get_by_role("listitem").filter(has_text="Safari on iOS")
    listed.get_by_role("button", name="Sign it out").click()
    expect(sessions.get_by_role("listitem")).to_have_count(1)
    phone.reload()
    expect(phone.get_by_role("heading", name="Sign in")).to_be_visible()
    lost.close()
    desk.get_by_role("button", name="Sign out here").click()
    expect(desk.get_by_role("heading", name="Sign in")).to_be_visible()
    sign_in(desk, "Rowan", "three quiet yellow boats")
    expect(desk.get_by_role("heading", level=1)).to_have_text("Rowan")
    # Keepers see who came in, and who tried to.
    desk.goto(f"{own_demo}/settings/people")
    who = desk.get_by_role("region", name="Sign-ins")
    expect(who).to_contain_text("Rowan: the passphrase before was wrong")
    expect(who).to_contain_text("ended a session of their own")


def test_a_name_typed_before_the_list_has_come_stays(phone: Page, own_demo: str) -> None:
    held: list[Route] = []
    phone.route("**/api/people", lambda route: route.continue_() if held else held.append(route))
    phone.goto(f"{own_demo}/settings/people")
    people = phone.get_by_role("region", name="People")
    people.get_by_label("Name of a person").fill("Rowan")
    people.get_by_label("Role").select_option("visitor")
    # Whether it is the first, who comes in as keeper, nobody can say yet.
    expect(people.get_by_role("button", name="Add")).to_be_disabled()
    with phone.expect_response("**/api/people"):
        held[0].continue_()
    people.get_by_role("button", name="Add").click()
    expect(people.get_by_role("listitem").filter(has_text="Rowan, visitor")).to_be_visible()


def test_a_visit_waits_on_a_phone_whose_session_has_ended(phone: Page, own_demo: str) -> None:
    """Nothing tapped is lost because somebody has to sign in again."""
    phone.goto(f"{own_demo}/settings/people")
    add_person(phone, "Rowan", "keeper", PHRASE)
    phone.goto(f"{own_demo}/round/26-05")
    shut = phone.get_by_role("button", name="All as before, shut")
    expect(shut).to_be_visible()
    phone.context.clear_cookies()
    shut.click()
    expect(phone.get_by_text("goes to the house once you are signed in")).to_be_visible()
    sign_in(phone, "Rowan", PHRASE)
    delivered(phone)
    log = phone.request.get(f"{own_demo}/api/clutches/26-05").json()["log"]
    assert log[0]["kind"] == "visit"
    assert log[0]["by"] == "Rowan"


def test_a_phone_between_two_bars_waits_for_no_name(phone: Page, own_demo: str) -> None:
    """The house cannot be asked who is here: whoever was here last goes on with the box."""
    phone.goto(f"{own_demo}/settings/people")
    add_person(phone, "Rowan", "keeper", PHRASE)
    phone.goto(f"{own_demo}/round/26-05")
    shut = phone.get_by_role("button", name="All as before, shut")
    expect(shut).to_be_visible()
    # Never answered, and never refused: as at the edge of a network.
    phone.route("**/api/session", lambda _: None)
    phone.reload()
    expect(shut).to_be_enabled()
    expect(phone.get_by_role("link", name="Rowan", exact=True)).to_be_visible()
    phone.unroute_all(behavior="ignoreErrors")


def test_the_calendar_as_a_file_and_as_a_link(desk: Page, own_demo: str) -> None:
    desk.goto(f"{own_demo}/settings/phones")
    section = desk.get_by_role("region", name="Calendar")
    with desk.expect_download() as came:
        section.get_by_role("link", name="Calendar file").click()
    text = Path(came.value.path()).read_bytes()
    words = [str(event["summary"]) for event in Calendar.from_ical(text).walk("VEVENT")]
    assert any(word.startswith("Open box 26-04: dents") for word in words)
    assert any("first pip likely" in word for word in words)
    section.get_by_role("button", name="Private link to subscribe to").click()
    expect(section.get_by_text("Only this machine reaches that address")).to_be_visible()
    link = section.locator("code").inner_text()
    assert "zone=Europe/Berlin" in link
    assert desk.request.get(link).body().startswith(b"BEGIN:VCALENDAR")
    section.get_by_role("button", name="End the link").click()
    expect(section.get_by_role("button", name="Private link to subscribe to")).to_be_visible()
    assert desk.request.get(link).status == 401


def test_the_house_goes_out_and_into_an_empty_one(
    desk: Page, chromium: Browser, demo: str, tmp_path: Path
) -> None:
    desk.goto(f"{demo}/settings/backups")
    with desk.expect_download() as came:
        desk.get_by_role("link", name="Export the house").click()
    package = tmp_path / "house.zip"
    came.value.save_as(package)
    with zipfile.ZipFile(package) as held:
        assert "datapackage.json" in held.namelist()

    with forked("serve", "--data", str(tmp_path / "new")) as empty:
        page = chromium.new_page(viewport=DESK)
        page.goto(f"{empty}/settings/backups")
        section = page.get_by_role("region", name="Export and import")
        section.get_by_role("button", name="Import a package").click()
        choose = section.get_by_label("House package", exact=True)
        damaged = package.read_bytes()[:5_000]
        choose.set_input_files({"name": "h.zip", "mimeType": "application/zip", "buffer": damaged})
        section.get_by_role("button", name="Take it in").click()
        refused = section.get_by_role("alert")
        expect(refused).to_contain_text("damaged")
        expect(refused).to_contain_text("Nothing was stored")
        choose.set_input_files(package)
        section.get_by_role("button", name="Take it in").click()
        expect(section.get_by_role("status")).to_contain_text("are in this house now")
        page.get_by_role("link", name="Seasons").click()
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        logs = [
            page.request.get(f"{house}/api/clutches/26-04").json()["log"] for house in (empty, demo)
        ]
        assert logs[0] == logs[1]
        page.context.close()
    # Here are records already: two houses are not merged.
    desk.get_by_role("button", name="Import a package").click()
    desk.get_by_label("House package", exact=True).set_input_files(package)
    desk.get_by_role("button", name="Take it in").click()
    expect(desk.get_by_role("alert")).to_contain_text("cannot be merged")


def test_the_bar_holds_whoever_is_signed_in(desk: Page, own_demo: str) -> None:
    name = "Maximiliana Longname"
    people = f"{own_demo}/api/people"
    assert desk.request.post(people, data={"name": name, "role": "keeper"}).status == 201
    (person,) = desk.request.get(people).json()
    phrase = f"{people}/{person['id']}/passphrase"
    assert desk.request.put(phrase, data={"passphrase": PHRASE}).ok
    desk.goto(own_demo)
    sign_in(desk, name, PHRASE)
    expect(desk.get_by_role("link", name=name)).to_be_visible()
    for width in (320, 340, 360, 390, 768, 1280, 1366, 1600):
        desk.set_viewport_size({"width": width, "height": 700})
        ends = desk.evaluate(
            "Math.max(...[...document.querySelectorAll('header *')]"
            ".filter(e => e.offsetParent).map(e => e.getBoundingClientRect().right))"
        )
        assert ends <= width, width
