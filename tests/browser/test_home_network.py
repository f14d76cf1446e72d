"""From a house that was just started to a round without a network: a phone of the keeper's own.

The phone is Chromium with a trust store of its own, in which it believes the
house's authority and nothing is ignored. Its steps are counted; `docs/running.md` says them.
"""

import os
import re
import shutil
import subprocess
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import httpx2 as httpx
import pytest
from playwright.sync_api import Page, Playwright, expect

from browser.in_the_hand import egg_button, settled
from forked import opened
from running import CHROMIUM_FLAGS, PHONE, chromium_here, free_port
from samples import NOW_S
from sandboa.cli.house_folder import DATABASE
from sandboa.demo.scenario.keeper import let_in_a_keeper
from sandboa.records.database import close_database, open_database

ANDROID = "Mozilla/5.0 (Linux; Android 14) AppleWebKit/537.36 Chrome/140.0.0.0 Mobile Safari/537.36"


@pytest.fixture
def trust_store(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    """The phone's own, empty; where Chromium looks for it."""
    store = tmp_path / "phone" / ".pki" / "nssdb"
    store.mkdir(parents=True)
    monkeypatch.setenv("HOME", str(tmp_path / "phone"))
    subprocess.run(["certutil", "-N", "-d", f"sql:{store}", "--empty-password"], check=True)
    return store


def trust(store: Path, certificate: Path) -> None:
    """What the keeper does in the phone's settings."""
    told = ["certutil", "-A", "-d", f"sql:{store}", "-n", "house", "-t", "C,,"]
    subprocess.run([*told, "-i", str(certificate)], check=True)


@contextmanager
def phone_of(playwright: Playwright, names: list[str]) -> Iterator[Page]:
    """A phone that is told by the network where the house's names lead."""
    rules = ", ".join(f"MAP {name} 127.0.0.1" for name in names)
    browser = playwright.chromium.launch(
        executable_path=chromium_here(),
        args=[*CHROMIUM_FLAGS, f"--host-resolver-rules={rules}"],
        env={**os.environ},
    )
    try:
        page = browser.new_page(
            viewport=PHONE, has_touch=True, is_mobile=True, user_agent=ANDROID, locale="en-GB"
        )
        yield page
    finally:
        browser.close()


@contextmanager
def house_at_home(folder: Path) -> Iterator[tuple[str, list[str]]]:
    """The first page's address, and the house's https addresses."""
    port = free_port()
    asked = ("serve", "--home", "--data", str(folder), "--door", str(port))
    with opened(*asked, stopped_at_s=NOW_S):
        door = f"http://127.0.0.1:{port}"
        yield door, httpx.get(f"{door}/house.json").json()["addresses"]


@pytest.fixture
def furnished(tmp_path: Path, demo_house: Path) -> tuple[Path, str, str]:
    """The folder of a house with clutches, its keeper and their passphrase."""
    folder = Path(shutil.copytree(demo_house, tmp_path / "house"))
    open_database(folder / DATABASE)
    name, passphrase = let_in_a_keeper(NOW_S)
    close_database()
    return folder, name, passphrase


def test_a_phone_comes_to_trust_the_house_and_does_a_round_without_a_network(
    furnished: tuple[Path, str, str], tmp_path: Path, trust_store: Path, playwright: Playwright
) -> None:
    folder, keeper, passphrase = furnished
    with house_at_home(folder) as (door, addresses):
        names = [httpx.URL(one).host for one in addresses]
        # 1: the code is scanned. The phone does not know the house, and is told what to do.
        with phone_of(playwright, names) as phone:
            phone.goto(f"{door}/")
            expect(phone.get_by_role("status")).to_have_text(
                "This phone does not know the house yet."
            )
            expect(phone.get_by_role("link", name="Open Sandboa")).to_be_hidden()
            # The steps of this phone's system stand open, the others do not.
            expect(phone.get_by_text("Install anyway")).to_be_visible()
            expect(phone.get_by_text("Certificate Trust Settings")).to_be_hidden()
            # 2: the certificate is taken.
            with phone.expect_download() as taken:
                phone.get_by_role("link", name="Take the certificate").click()
            certificate = tmp_path / taken.value.suggested_filename
            taken.value.save_as(certificate)
        # 3: it is trusted, in the phone's settings.
        trust(trust_store, certificate)
        with phone_of(playwright, names) as phone:
            phone.goto(f"{door}/")
            expect(phone.get_by_role("status")).to_have_text("This phone trusts the house.")
            # 4: on to the house, by its name.
            phone.get_by_role("link", name="Open Sandboa").click()
            expect(phone).to_have_url(re.compile(r"https://sandboa(-\d)?\.local:\d+/"))
            house = phone.url.rstrip("/")
            # 5: signed in.
            phone.get_by_label("Name").fill(keeper)
            phone.get_by_label("Passphrase").fill(passphrase)
            phone.get_by_role("button", name="Sign in").click()
            # Leaving sooner would outrun the answer that signs in.
            expect(phone.get_by_role("heading", level=1)).to_have_text("Today")
            # 6: the round, once with a network.
            phone.goto(f"{house}/round")
            settled(phone)
            assert phone.evaluate("navigator.serviceWorker.ready.then(() => isSecureContext)")
            phone.reload()
            expect(phone.get_by_role("link", name="26-04", exact=True)).to_be_visible()

            # 7: and a box without one, the page closed and opened in between.
            phone.context.set_offline(True)
            phone.reload()
            phone.goto(f"{house}/round/26-04")
            egg_button(phone, 4).click()
            phone.get_by_role("radio", name="clear dents", exact=True).click()
            phone.get_by_role("button", name="Rest as before, shut").click()
            expect(phone).not_to_have_url(f"{house}/round/26-04")
            expect(phone.get_by_role("link", name="1 to deliver")).to_be_visible()

            phone.context.set_offline(False)
            phone.goto(f"{house}/clutches/26-04")
            expect(phone.get_by_text("egg 4: clear dents").first).to_be_visible()


def test_the_installed_application_says_what_systems_ask_for(demo: str) -> None:
    told = httpx.get(f"{demo}/manifest.webmanifest").json()
    assert told["id"] == "/"
    assert [one["name"] for one in told["shortcuts"]] == ["Round", "Lay day", "Today"]
    purposes = {icon["purpose"]: icon["src"] for icon in told["icons"]}
    assert set(purposes) == {"any", "maskable"}
    for icon in [*told["icons"], {"src": "/apple-touch-icon.png"}]:
        assert httpx.get(f"{demo}{icon['src']}").headers["content-type"].startswith("image/")


def test_the_frame_around_the_page_follows_the_theme(demo: str, desk: Page) -> None:
    desk.emulate_media(color_scheme="dark")
    desk.goto(f"{demo}/you")
    expect(desk.get_by_role("heading", level=1)).to_be_visible()
    frame = desk.locator("meta[name=theme-color]")
    expect(frame).to_have_attribute("content", "#0B0706")
