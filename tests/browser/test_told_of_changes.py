"""An open page is told of what others record by the stream it follows; it does not ask for it."""

import re

import httpx2
from playwright.sync_api import Page, Request, expect

from browser.home import Address
from browser.places import open_place

#: ms within which what another device recorded stands on an open page; far from a minute.
SOON_MS = 15_000


def test_what_another_records_stands_on_an_open_page_within_seconds(
    desk: Page, own_demo: Address
) -> None:
    open_place(desk, f"{own_demo}/clutches/26-04")
    expect(desk.get_by_text(re.compile("two dimples"))).to_have_count(0)
    recorded = httpx2.post(
        f"{own_demo}/api/clutches/26-04/eggs/3/grades", json={"grade": 2}
    ).raise_for_status()
    line = desk.get_by_text(recorded.json()["summary"])
    expect(line.first).to_be_visible(timeout=SOON_MS)
    httpx2.post(f"{own_demo}/api/acts/{recorded.json()['id']}/undo").raise_for_status()
    expect(desk.get_by_text("(undone)").first).to_be_visible(timeout=SOON_MS)


def test_what_a_page_recorded_itself_is_read_again_once(desk: Page, own_demo: Address) -> None:
    open_place(desk, own_demo)
    asked: list[str] = []

    def note(request: Request) -> None:
        if request.url.endswith("/api/today"):
            asked.append(request.url)

    desk.on("request", note)
    desk.get_by_role("button", name="Later").first.click()
    expect(desk.get_by_text(re.compile("^Later, on")).first).to_be_visible()
    # Twice where the stream was quicker than the answer.
    assert 1 <= len(asked) <= 2
