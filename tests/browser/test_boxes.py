"""Boxes hold eggs: a clutch over two boxes, an egg put by itself, eggs onto damp paper."""

import re

import pytest
from playwright.sync_api import Page, expect

from browser.home import Address
from browser.laying import answer_all_up_to_the_box, begin, next_step
from browser.thumb import Thumb


@pytest.mark.both_ways
def test_nine_eggs_on_two_media_take_at_most_eight_taps_more(phone: Page, empty: Address) -> None:
    begin(phone, empty, dam="Hyssop")
    answer_all_up_to_the_box(phone, count=9)
    more = Thumb(phone)
    more.tap(phone.get_by_role("button", name="Split over two boxes"))
    first = phone.get_by_role("region", name=re.compile(r"^Eggs in box \d\d-01$"))
    second = phone.get_by_role("region", name=re.compile(r"^Eggs in box \d\d-01 B$"))
    expect(first.get_by_role("button")).to_have_count(5)
    expect(second.get_by_role("button")).to_have_count(4)
    more.tap(first.get_by_role("button", name=re.compile("^Egg 2: put it into .* B$")))
    expect(second.get_by_role("button", name=re.compile("^Egg 2:"))).to_be_visible()
    other = phone.get_by_role("group", name=re.compile("^Box .* B$"))
    # A list that opens and an entry in it: two taps, done as one here.
    other.get_by_label("Medium").select_option("perlite")
    more.taps += 2
    assert more.taps <= 8, more.taps
    phone.get_by_role("button", name="The box is ready").click()
    next_step(phone, "Onto the shelf")
    phone.get_by_label("Cabinet", exact=True).fill("Small")
    phone.get_by_label("Shelf").fill("middle")
    phone.get_by_role("button", name="Record the clutch").click()
    next_step(phone, "Card")
    code = phone.request.get(f"{empty.api}/api/today").json()["boxes"][0]["name"]
    boxes = phone.request.get(f"{empty.api}/api/clutches/{code}").json()["boxes"]
    held = {box["name"]: ([egg["name"] for egg in box["eggs"]], box["medium"]) for box in boxes}
    assert held == {
        code: (["1", "3", "4", "5"], "vermiculite"),
        f"{code} B": (["2", "6", "7", "8", "9"], "perlite"),
    }
    # The round goes to both.
    phone.goto(f"{empty}/round")
    for name in held:
        expect(phone.get_by_role("link", name=name, exact=True)).to_be_visible()
    # Corrected, its eggs are drawn in both, and stay there.
    phone.goto(f"{empty}/clutches/{code}/correct")
    expect(phone.get_by_text(f"Box {code} B")).to_be_visible()
    phone.get_by_label("Dam").fill("Tansy")
    phone.get_by_role("button", name="Record the correction").click()
    expect(phone.get_by_text(re.compile("^Tansy"))).to_be_visible()
    boxes = phone.request.get(f"{empty.api}/api/clutches/{code}").json()["boxes"]
    assert {box["name"]: len(box["eggs"]) for box in boxes} == {code: 4, f"{code} B": 5}


def test_a_split_is_kept_when_the_phone_is_put_down(phone: Page, empty: Address) -> None:
    begin(phone, empty)
    answer_all_up_to_the_box(phone, count=3)
    phone.get_by_role("button", name="Split over two boxes").click()
    second = phone.get_by_role("region", name=re.compile("^Eggs in box .* B$"))
    expect(second.get_by_role("button")).to_have_count(1)
    phone.get_by_role("button", name="The box is ready").click()
    next_step(phone, "Onto the shelf")
    phone.reload()
    next_step(phone, "Onto the shelf")
    phone.get_by_role("link", name="Back").click()
    next_step(phone, "The box")
    expect(second.get_by_role("button", name=re.compile("^Egg 3:"))).to_be_visible()
    phone.get_by_role("button", name="Not this box").click()
    expect(second).to_have_count(0)


@pytest.mark.both_ways
def test_an_egg_is_put_by_itself_in_three_taps(phone: Page, own_demo: Address) -> None:
    phone.goto(f"{own_demo}/round/26-03")
    thumb = Thumb(phone)
    thumb.tap(phone.get_by_role("button", name=re.compile("^Egg 3, day")))
    thumb.tap(phone.get_by_role("button", name="One by itself"))
    expect(phone.get_by_text(re.compile("Goes into a new box 26-03 B"))).to_be_visible()
    thumb.tap(phone.get_by_role("button", name="Rest as before, shut"))
    assert thumb.taps == 3
    expect(phone.get_by_text(re.compile("egg 3 moved to a new box 26-03 B"))).to_be_visible()
    boxes = phone.request.get(f"{own_demo.api}/api/clutches/26-03").json()["boxes"]
    assert [box["name"] for box in boxes] == ["26-03", "26-03 B"]
    alone = boxes[1]
    assert [egg["name"] for egg in alone["eggs"]] == ["3"]
    assert (alone["medium"], alone["closing"]) == (boxes[0]["medium"], boxes[0]["closing"])
    phone.get_by_role("button", name="Undo").first.click()
    expect(phone.get_by_text(re.compile("^Undone: Visit"))).to_be_visible()
    boxes = phone.request.get(f"{own_demo.api}/api/clutches/26-03").json()["boxes"]
    assert [box["name"] for box in boxes] == ["26-03"]


def test_all_eggs_of_a_box_go_to_another_clutch(phone: Page, own_demo: Address) -> None:
    phone.goto(f"{own_demo}/round/26-04")
    phone.get_by_label("Together with").select_option("26-02")
    expect(phone.get_by_text(re.compile("6 eggs go into another box"))).to_be_visible()
    phone.get_by_role("button", name="Rest as before, shut").click()
    expect(phone.get_by_text(re.compile("moved to 26-02"))).to_be_visible()
    boxes = phone.request.get(f"{own_demo.api}/api/clutches/26-04").json()["boxes"]
    assert [box["name"] for box in boxes] == ["26-02"]
    assert boxes[0]["shared_with"] == ["26-02"]
    # Eggs of two clutches are told apart by their clutch.
    phone.goto(f"{own_demo}/round/26-02")
    expect(phone.get_by_role("button", name=re.compile("^Egg 26-04.1, day"))).to_be_visible()
    expect(phone.get_by_role("button", name=re.compile("^Egg 26-02.1, day"))).to_be_visible()


def test_eggs_that_pipped_go_onto_damp_paper_and_the_rest_stays(
    phone: Page, own_demo: Address
) -> None:
    told = phone.request.get(f"{own_demo.api}/api/round").json()["boxes"]
    box = next(b for b in told if any(egg["pipped_at"] for egg in b["eggs"]))
    pipped = [e["name"] for e in box["eggs"] if e["pipped_at"] and not e["emerged_at"]]
    code = box["clutches"][0]["code"]
    phone.goto(f"{own_demo}/round/{box['name']}")
    for name in pipped:
        phone.get_by_role("button", name=re.compile(f"^Egg {name}, day")).click()
        phone.get_by_role("button", name="A hatching box").click()
        expect(phone.get_by_text(re.compile(f"new hatching box {code} B, on damp"))).to_be_visible()
        phone.keyboard.press("Escape")
    phone.get_by_role("button", name="Rest as before, shut").click()
    expect(phone.get_by_text(re.compile(f"moved to a new box {code} B"))).to_be_visible()
    boxes = phone.request.get(f"{own_demo.api}/api/clutches/{code}").json()["boxes"]
    hatching = next(b for b in boxes if b["kind"] == "hatching")
    assert (hatching["name"], hatching["medium"]) == (f"{code} B", "damp paper")
    assert [egg["name"] for egg in hatching["eggs"]] == pipped
    # Its hatchlings are expected from there.
    phone.goto(f"{own_demo}/hatch")
    expect(phone.get_by_text(code).first).to_be_visible()
