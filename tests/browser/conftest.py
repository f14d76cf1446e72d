"""The real interface in headless Chromium, over the real command in its own process."""

import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright

from running import CHROMIUM_FLAGS, DESK, PHONE, forked, running
from samples import NOW, ZONE

# Only a limit: whatever is waited for mostly comes within a fraction of a second.
expect.set_options(timeout=15_000)


@pytest.fixture(scope="session")
def demo() -> Iterator[str]:
    """Address of the demo with its clock stopped; for tests that change nothing."""
    with running("demo", "--today", NOW.isoformat()) as address:
        yield address


@pytest.fixture
def own_demo() -> Iterator[str]:
    """A demo of the test's own, to change things in."""
    with forked("demo", "--today", NOW.isoformat()) as address:
        yield address


@pytest.fixture
def empty(tmp_path: Path) -> Iterator[str]:
    """Address of a house with nothing in it."""
    with forked("serve", "--data", str(tmp_path)) as address:
        yield address


@pytest.fixture(scope="session")
def chromium() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path=shutil.which("chromium"), args=CHROMIUM_FLAGS
        )
        yield browser
        browser.close()


@pytest.fixture
def desk(chromium: Browser) -> Iterator[Page]:
    yield from _page(chromium, viewport=DESK)


@pytest.fixture
def phone(chromium: Browser) -> Iterator[Page]:
    yield from _page(chromium, viewport=PHONE, has_touch=True, is_mobile=True)


def _page(chromium: Browser, **options: object) -> Iterator[Page]:
    """A page in its own context; whatever the page complains of fails the test."""
    context = chromium.new_context(timezone_id=ZONE, locale="en-GB", **options)  # type: ignore[arg-type]
    context.set_default_timeout(20_000)
    page = context.new_page()
    complaints: list[str] = []
    page.on("pageerror", lambda error: complaints.append(str(error)))
    page.on(
        "request",
        lambda r: (
            None
            if "127.0.0.1" in r.url or r.url.startswith(("data:", "blob:"))
            else complaints.append(r.url)
        ),
    )
    yield page
    context.close()
    assert complaints == []
