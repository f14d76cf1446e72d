"""A house of many clutches: counted, narrowed, ordered, windowed, and several acted on at once."""

import re
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path

import httpx2 as httpx
import pytest
from playwright.sync_api import Locator, Page, expect

from forked import opened
from houses import put_empty_house
from sandboa.cli.house_folder import DATABASE
from web.asking import LAID

CLUTCHES = 30
CABINETS = ("North", "South", "West")


@pytest.fixture(scope="module")
def large(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    """Thirty clutches in three cabinets, laid over a week three weeks ago and not opened since."""
    folder: Path = tmp_path_factory.mktemp("large")
    put_empty_house(folder / DATABASE)
    with opened("serve", "--data", str(folder)) as (_, base, _):
        now = datetime.now(UTC)
        for number in range(CLUTCHES):
            clutch = LAID | {
                "dam": f"Dam {number + 1}",
                "sire": None,
                "laid_at": (now - timedelta(days=20 + number % 7)).isoformat(),
                "cabinet": CABINETS[number % 3],
            }
            httpx.post(f"{base}/api/clutches", json=clutch, timeout=60.0).raise_for_status()
        yield base


def lines(page: Page) -> Locator:
    return page.locator("ol[aria-label='To open'] > li")


def test_a_long_round_is_counted_and_narrowed_and_going_back_widens_it(
    desk: Page, large: str
) -> None:
    desk.goto(f"{large}/round")
    expect(desk.get_by_text(f"{CLUTCHES} of {CLUTCHES} boxes to open")).to_be_visible()
    cabinets = desk.get_by_role("group", name="Cabinet")
    expect(cabinets.get_by_role("button")).to_have_text(["North 10", "South 10", "West 10"])
    cabinets.get_by_role("button", name="South").click()
    expect(lines(desk)).to_have_count(10)
    expect(desk.get_by_role("status").filter(has_text="10 of 30 boxes shown")).to_be_visible()
    # What a tap would leave of the others is counted anew; its own group tells what it had.
    needs = desk.get_by_role("group", name="Needs")
    expect(needs.get_by_role("button", name="Usual visit 10")).to_be_visible()
    expect(cabinets.get_by_role("button", name="North 10")).to_be_visible()
    desk.get_by_role("searchbox", name="Only boxes with these words").fill("dam 5")
    expect(lines(desk)).to_have_count(1)
    desk.reload()
    expect(lines(desk)).to_have_count(1)
    desk.get_by_role("button", name="Show all").click()
    expect(desk.get_by_text("boxes shown")).to_have_count(0)


def test_of_a_long_list_what_is_in_sight_is_drawn_and_what_has_the_focus(
    desk: Page, large: str
) -> None:
    desk.goto(f"{large}/round")
    expect(lines(desk).first).to_be_visible()
    expect(lines(desk).first).to_have_attribute("aria-setsize", str(CLUTCHES))
    drawn = lines(desk).count()
    assert 0 < drawn < CLUTCHES
    first = lines(desk).first.get_by_role("link").first
    first.focus()
    name = first.get_attribute("aria-label")
    desk.keyboard.press("End")
    desk.evaluate("window.scrollTo(0, document.documentElement.scrollHeight)")
    expect(desk.locator(f"li[aria-posinset='{CLUTCHES}']")).to_be_visible()
    assert lines(desk).count() < CLUTCHES
    expect(desk.get_by_role("link", name=name or "")).to_be_focused()


def test_boxes_are_ordered_by_how_long_they_are_shut(desk: Page, large: str) -> None:
    desk.goto(f"{large}/round")
    desk.get_by_label("Order of the boxes").select_option("Longest shut first")
    expect(lines(desk).first).to_contain_text("26 days ago")
    expect(desk).to_have_url(re.compile("by=longest"))


def test_several_boxes_are_put_off_with_one_act_and_one_undo(desk: Page, large: str) -> None:
    desk.goto(f"{large}/round?cabinet=West")
    desk.get_by_role("button", name="Choose several").click()
    desk.get_by_role("button", name=re.compile("^Usual visit")).click()
    later = desk.get_by_role("button", name="Later, in a day")
    expect(later.last).to_be_disabled()
    desk.get_by_role("checkbox", name="0 chosen").check()
    expect(desk.get_by_role("checkbox", name="10 chosen")).to_be_checked()
    desk.get_by_role("checkbox", name=re.compile("^Choose ")).first.uncheck()
    later.last.click()
    told = desk.get_by_role("status").filter(has_text="Put off the usual visit at 9 boxes")
    expect(told).to_be_visible()
    expect(desk.get_by_role("checkbox")).to_have_count(0)
    told.get_by_role("button", name="Undo").click()
    expect(desk.get_by_role("status").filter(has_text="Undone: Put off")).to_be_visible()
    expect(desk.get_by_role("button", name=re.compile("^Usual visit 10"))).to_be_visible()


def test_several_clutches_follow_a_method(desk: Page, large: str) -> None:
    desk.goto(f"{large}/round?cabinet=North")
    desk.get_by_role("button", name="Choose several").click()
    for line in range(2):
        desk.get_by_role("checkbox", name=re.compile("^Choose ")).nth(line).check()
    desk.get_by_role("button", name="Copy a method").click()
    desk.get_by_role("menuitem").first.click()
    expect(desk.get_by_role("status").filter(has_text="copied to 2 clutches")).to_be_visible()


def test_today_counts_what_it_does_not_show_and_leads_to_it(desk: Page, large: str) -> None:
    desk.goto(large)
    boxes = desk.get_by_role("region", name=f"{CLUTCHES} boxes to open")
    expect(boxes.get_by_role("listitem").first).to_be_visible()
    desk.get_by_role("link", name=f"All {CLUTCHES} boxes").click()
    expect(desk.get_by_role("heading", level=1)).to_have_text("Round")


def test_animals_are_counted_by_where_they_stand_and_several_retire(desk: Page, large: str) -> None:
    desk.goto(f"{large}/animals")
    dams = desk.get_by_role("region", name=f"Dams {CLUTCHES}")
    season = desk.get_by_role("region", name="Season")
    expect(season.get_by_role("listitem")).to_have_count(8)
    expect(dams).to_be_visible()
    desk.get_by_role("button", name=re.compile(r"Look at her \d+")).click()
    # What was looked for is not hidden below the season.
    expect(season).to_have_count(0)
    expect(desk.get_by_text("has taken nothing since laying").first).to_be_visible()
    desk.get_by_role("searchbox", name="Only animals with these words").fill("dam 2")
    few = desk.get_by_role("region", name="Dams")
    expect(few.get_by_role("link", name=re.compile("^Dam 2 "))).to_be_visible()
    desk.get_by_role("button", name="Choose several").click()
    desk.get_by_role("checkbox", name="Choose Dam 2", exact=True).check()
    desk.get_by_role("button", name="Retire 1").click()
    told = desk.get_by_role("status").filter(has_text="Dam 2 retired")
    told.get_by_role("button", name="Undo").click()
    expect(desk.get_by_role("status").filter(has_text="Undone: Dam 2 retired")).to_be_visible()
