"""Backups in Settings, the way back to one, and the banner of a damaged house."""

import re
import sqlite3
from contextlib import closing
from pathlib import Path

from playwright.sync_api import Page, expect

from browser.test_settings import lay
from forked import forked
from sandboa.cli.house_folder import DATABASE


def test_a_keeper_backs_up_goes_back_and_forward_again(desk: Page, empty: str) -> None:
    lay(desk, empty)
    desk.goto(f"{empty}/settings#backups")
    backups = desk.get_by_role("region", name="Backups")
    expect(backups).to_contain_text("There is no backup yet")
    backups.get_by_role("button", name="Back up now").click()
    expect(backups).to_contain_text("Last good backup")
    lay(desk, empty, code="A-2", dam="Tansy")
    # Another browser that was open all along shows the house it has now, too.
    other = desk.context.new_page()
    other.goto(f"{empty}/animals")
    expect(other.get_by_role("link", name="Tansy", exact=True)).to_be_visible()
    backups.get_by_role("button", name="Restore from this").click()
    expect(backups).to_contain_text("It is not lost")
    backups.get_by_role("button", name=re.compile("^Restore the house as of")).click()
    expect(backups.get_by_role("status")).to_contain_text("The house was restored")
    expect(other.get_by_role("link", name="Tansy", exact=True)).to_be_hidden()
    before = backups.get_by_role("listitem").filter(has_text="before it was restored")
    before.get_by_role("button", name="Restore from this").click()
    backups.get_by_role("button", name=re.compile("^Restore the house as of")).click()
    expect(other.get_by_role("link", name="Tansy", exact=True)).to_be_visible()


def test_a_folder_that_is_not_there_is_said_at_the_field(desk: Page, empty: str) -> None:
    desk.goto(f"{empty}/settings/backups")
    backups = desk.get_by_role("region", name="Backups")
    backups.get_by_role("button", name="Use another folder").click()
    backups.get_by_label("Folder on the computer of the house").fill("/nowhere/at/all")
    backups.get_by_role("button", name="Use it").click()
    expect(backups).to_contain_text("There is no folder /nowhere/at/all on the computer")


def test_a_damaged_house_says_so_on_every_page_and_leads_to_the_backups(
    desk: Page, tmp_path: Path
) -> None:
    with forked("serve", "--data", str(tmp_path)) as base:
        lay(desk, base)
        assert desk.request.post(f"{base}/api/house/backups").ok
    with closing(sqlite3.connect(tmp_path / DATABASE)) as house, house:
        house.execute("PRAGMA writable_schema = 1")
        house.execute(
            "UPDATE sqlite_master SET rootpage = (SELECT rootpage FROM sqlite_master "
            "WHERE name = 'egg_act') WHERE name = 'turgor_act'"
        )
    with forked("serve", "--data", str(tmp_path)) as base:
        desk.goto(f"{base}/animals")
        banner = desk.get_by_role("alert").filter(has_text="file is damaged")
        expect(banner).to_contain_text("Nothing new is stored")
        expect(desk.get_by_role("link", name="Sorrel", exact=True)).to_be_visible()
        banner.get_by_role("link", name="Restore the house from a backup").click()
        backups = desk.get_by_role("region", name="Backups")
        expect(backups).to_be_in_viewport()
        backups.get_by_role("button", name="Restore from this").click()
        backups.get_by_role("button", name=re.compile("^Restore the house as of")).click()
        expect(backups.get_by_role("status")).to_contain_text("The house was restored")
        expect(banner).to_be_hidden()
