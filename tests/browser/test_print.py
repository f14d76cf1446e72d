"""Card and labels as the printer gets them."""

import re

import pytest
from playwright.sync_api import Page, expect

#: A6 and A4 in points (1/72 inch), as a PDF says its page size.
A6_PT, A4_PT = (297.6, 419.5), (595.3, 841.9)


def pages(page: Page) -> list[tuple[float, float]]:
    """Width and height of each page of the print view, pt."""
    pdf = page.pdf(prefer_css_page_size=True)
    boxes = re.findall(rb"/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]", pdf)
    return [(float(width), float(height)) for width, height in boxes]


@pytest.mark.parametrize("theme", ["bench", "night"])
def test_the_card_is_one_a6_page_that_says_what_the_box_needs(desk, demo, theme: str) -> None:
    desk.add_init_script(f"localStorage.setItem('sandboa.theme', '{theme}')")
    desk.goto(f"{demo}/clutches/26-04")
    forecast = desk.request.get(f"{demo}/api/clutches/26-04").json()
    desk.goto(f"{demo}/clutches/26-04/card")
    card = desk.get_by_role("article", name="Card of 26-04")
    for said in ("26-04", forecast["dam"], forecast["sire"], forecast["count"], "laid"):
        expect(card).to_contain_text(said)
    code = card.get_by_role("img", name="Opens 26-04")
    expect(code).to_be_visible()
    assert code.evaluate("e => e.complete && e.naturalWidth > 0")
    (size,) = pages(desk)
    assert size == pytest.approx(A6_PT, abs=1.5)
    # Ink on white in either theme, with nothing of the application around it.
    desk.emulate_media(media="print")
    white = "rgb(255, 255, 255)"
    assert card.evaluate("e => getComputedStyle(e.ownerDocument.body).backgroundColor") == white
    expect(desk.get_by_role("navigation")).to_be_hidden()


def test_labels_fill_a_sheet_from_where_the_last_one_ended(desk: Page, demo: str) -> None:
    desk.goto(f"{demo}/labels?clutches=26-04")
    label = desk.get_by_role("article", name="Label of 26-04")
    expect(label).to_be_visible()
    desk.get_by_label("Labels used up on this sheet").fill("4")
    expect(desk.locator(".label-sheet .empty")).to_have_count(4)
    desk.emulate_media(media="print")
    box = label.bounding_box()
    assert box
    # The fifth place: second row, second of three; 70 by 37 mm at 96 px an inch.
    assert (box["x"], box["y"]) == pytest.approx((70 / 25.4 * 96, 37 / 25.4 * 96), abs=1)
    (size,) = pages(desk)
    assert size == pytest.approx(A4_PT, abs=1.5)
