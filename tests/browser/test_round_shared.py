"""Two people make one round: each takes a cabinet and sees what the other has done."""

from datetime import UTC, datetime, timedelta

import pytest
from playwright.sync_api import Page, expect

from browser.contexts import new_context
from running import PHONE
from web.asking import LAID
from web.test_people import PHRASES


def _keeps(page: Page, base: str, path: str, body: dict, method: str = "post") -> dict:
    answer = getattr(page.request, method)(f"{base}/api/{path}", data=body)
    assert answer.ok, answer.text()
    return answer.json() if answer.body() else {}


def _person(page: Page, base: str, name: str) -> None:
    _keeps(page, base, "people", {"name": name, "role": "keeper"})
    person = next(p for p in page.request.get(f"{base}/api/people").json() if p["name"] == name)
    _keeps(page, base, f"people/{person['id']}/passphrase", {"passphrase": PHRASES[name]}, "put")


def _sign_in(page: Page, base: str, name: str) -> None:
    _keeps(page, base, "session", {"name": name, "passphrase": PHRASES[name]})


@pytest.fixture
def rowan(desk: Page, empty: str) -> Page:
    """Rowan, signed in, in a house with eggs in two cabinets and a second keeper, Linden."""
    laid_at = (datetime.now(UTC) - timedelta(days=20)).isoformat()
    for number, cabinet in enumerate(("North", "South", "North", "South")):
        clutch = LAID | {"dam": f"Dam {number}", "laid_at": laid_at, "cabinet": cabinet}
        _keeps(desk, empty, "clutches", clutch)
    _person(desk, empty, "Rowan")
    _sign_in(desk, empty, "Rowan")
    _person(desk, empty, "Linden")
    return desk


def test_each_takes_a_cabinet_and_sees_what_the_other_did(rowan: Page, empty: str) -> None:
    browser = rowan.context.browser
    assert browser is not None
    linden = new_context(browser, {"viewport": PHONE}).new_page()
    _sign_in(linden, empty, "Linden")
    for page in (rowan, linden):
        page.goto(f"{empty}/round")
        expect(page.get_by_text("4 of 4 boxes to open")).to_be_visible()
    rowan.get_by_role("button", name="Take North").click()
    linden.get_by_role("button", name="Take South").click()
    whose = linden.get_by_role("region", name="Who opens what")
    expect(whose).to_contain_text("NorthRowan")
    expect(whose).to_contain_text("Southyou")
    mine = linden.get_by_role("list", name="To open").get_by_role("link", name="Open box")
    expect(mine).to_have_count(2)
    others = linden.get_by_role("region", name="Others open these")
    expect(others.get_by_role("link", name="Open box")).to_have_count(2)

    # The next box after one of hers is hers, though others stand between.
    linden.get_by_role("link", name="the first").click()
    shut = linden.get_by_role("button", name="All as before, shut")
    expect(shut).to_contain_text("South")
    shut.click()
    expect(shut).not_to_contain_text("next")
    shut.click()
    # Two boxes of South are shut: Rowan's page says so by itself, and the way is in North.
    expect(rowan.get_by_text("2 of 4 boxes to open")).to_be_visible()
    expect(rowan.get_by_role("region", name="Others open these")).to_have_count(0)
    linden.context.close()
