"""What tests of places in the hand do with a page alike."""

import re

from playwright.sync_api import Locator, Page


def egg_button(page: Page, number: int) -> Locator:
    return page.get_by_role("button", name=re.compile(f"^(Egg|Slug) {number}, day"))


def settled(page: Page) -> None:
    """The service worker has taken over: from here on the page can do without a network."""
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    page.wait_for_function("navigator.serviceWorker.controller !== null")
