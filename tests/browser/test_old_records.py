"""Cards typed in by keys alone, and a list taken in by one act."""

from playwright.sync_api import Page, expect

#: A dam of the house, a sire who is offered or told by a letter, and the digits of a card.
CARDS = [
    ("S Tab F Tab 126 72 5 58", "Sorrel", "12 Jun 2019", "7-2"),
    ("T Tab Tab 96 60 6 61", "Tansy", "9 Jun 2019", "6-0"),
    ("Y Tab Tab 305 81 7 20", "Yarrow", "30 May 2019", "8-1"),
]
LIST = (
    b"Female;Male;Laid;Eggs;First out\n"
    b"Tansey;Flint;12.06.2018;7-2;08.08.2018\n"
    b"Sorrel;Flint;13.06.2018;6-0;20.06.2018\n"
    b"Heron;Flint;14.06.2018;5/1;\n"
    b"Heron;Flint;15.06.2018;5/1;\n"
)


def pressed(page: Page, keys: str) -> int:
    """Press those keys, one after the other; returns how many."""
    count = 0
    for word in keys.split():
        for key in [word] if word == "Tab" else word:
            page.keyboard.press(key)
            count += 1
    return count


def test_a_card_takes_twelve_keys_and_no_hand_leaves_them(desk: Page, own_demo: str) -> None:
    desk.goto(f"{own_demo}/old-records")
    desk.get_by_label("Season", exact=True).fill("2019")
    desk.get_by_label("Days are typed").select_option("day first")
    desk.get_by_label("Dam", exact=True).focus()
    for keys, dam, laid, count in CARDS:
        assert pressed(desk, keys) <= 12
        expect(desk.get_by_label("Dam", exact=True)).to_be_focused()
        line = (
            desk.get_by_role("region", name="By hand").get_by_role("listitem").filter(has_text=dam)
        )
        expect(line).to_contain_text(laid)
        expect(line).to_contain_text(count)
        expect(line).to_contain_text("stored")
    year = desk.get_by_role("region", name="2019")
    expect(year.get_by_role("listitem")).to_have_count(3)
    expect(year).to_contain_text("5 hatched, first pip day 58")
    # What is wrong with one is said at it, and the next is typed meanwhile.
    pressed(desk, "Sor Tab Tab 136 72 5 58")
    expect(desk.get_by_text("Sorrel laid on 12 Jun 2019 already")).to_be_visible()
    pressed(desk, "T")
    desk.get_by_role("button", name="Mend it").click()
    expect(desk.get_by_label("Laid", exact=True)).to_have_value("2019-06-13")
    # Mended, it is stored; what was half typed goes on.
    desk.get_by_label("Laid", exact=True).fill("2018-06-13")
    desk.get_by_label("First pip", exact=True).select_text()
    desk.keyboard.type("58")
    expect(desk.get_by_label("Dam", exact=True)).to_have_value("Tansy")
    expect(desk.get_by_role("region", name="2018").get_by_role("listitem")).to_have_count(1)
    # It counts from now on.
    desk.goto(f"{own_demo}/seasons")
    expect(desk.get_by_text("4 of these")).to_be_visible()


def test_a_line_that_is_asked_about_twice_keeps_both_answers(desk: Page, own_demo: str) -> None:
    desk.goto(f"{own_demo}/old-records")
    desk.get_by_label("Season", exact=True).fill("2017")
    for name, typed in (("Dam", "Sorel"), ("Sire", "Flintt"), ("Laid", "2017-06-12")):
        desk.get_by_label(name, exact=True).fill(typed)
    desk.get_by_label("Eggs-slugs", exact=True).press_sequentially("72")
    desk.keyboard.press("Enter")
    desk.get_by_role("group", name="Sorel").get_by_role("button", name="It is Sorrel").click()
    asked = desk.get_by_role("group", name="Flintt")
    expect(desk.get_by_role("group", name="Sorel")).to_be_hidden()
    asked.get_by_role("button", name="It is Flint").click()
    expect(desk.get_by_role("region", name="2017").get_by_role("listitem")).to_contain_text("Flint")


def test_a_list_is_looked_over_mended_stored_and_taken_back(desk: Page, own_demo: str) -> None:
    desk.goto(f"{own_demo}/old-records")
    desk.get_by_label("List", exact=True).set_input_files(
        files=[{"name": "cards.csv", "mimeType": "text/csv", "buffer": LIST}]
    )
    expect(desk.get_by_label("Use of First out")).to_have_value("first_pip")
    store = desk.get_by_role("button", name="Store")
    expect(store).to_be_disabled()
    asked = desk.get_by_role("group", name="Tansey")
    asked.get_by_role("button", name="It is Tansy").click()
    expect(asked).to_be_hidden()
    refused = desk.get_by_role("region", name="Lines that cannot be")
    expect(refused).to_contain_text("line 3")
    expect(refused).to_contain_text("7 days after laying")
    refused.get_by_label("day of the first pip").fill("10.08.2018")
    desk.keyboard.press("Enter")
    expect(refused).to_be_hidden()
    doubles = desk.get_by_role("region", name="Recorded already")
    expect(doubles).to_contain_text("a line above")
    store.click()
    expect(desk.get_by_text("Old records: 3 clutches, 1 new animal").first).to_be_visible()
    year = desk.get_by_role("region", name="2018")
    expect(year.get_by_role("listitem")).to_have_count(3)
    # One is corrected.
    year.get_by_role("link", name="Sorrel").click()
    expect(desk.get_by_role("heading", name="Edit a past clutch")).to_be_visible()
    desk.get_by_label("Hatched", exact=True).fill("7")
    desk.get_by_role("button", name="Record the correction").click()
    expect(desk.get_by_text("7 hatched, but 6 of 6 eggs were fertile")).to_be_visible()
    desk.get_by_label("Hatched", exact=True).fill("5")
    desk.get_by_role("button", name="Record the correction").click()
    expect(year).to_contain_text("5 hatched, first pip day 58")
