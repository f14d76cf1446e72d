"""A house under a path of another's address: places, pictures, and a round without a network."""

import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, expect

from forked import opened
from running import PHONE
from samples import NOW


@pytest.fixture
def under(demo_house: Path) -> Iterator[tuple[str, tuple[str, str] | None]]:
    """Where a browser reaches a demo under a path, and who signs in there."""
    named = ("--address", "http://127.0.0.1/sandboa")
    asked = ("demo", "--today", NOW.isoformat(), *named)
    with opened(*asked, furnished=demo_house) as (_, base, signs_in):
        yield f"{base}/sandboa", signs_in


def test_every_step_stays_under_the_path(
    chromium: Browser, under: tuple[str, tuple[str, str]]
) -> None:
    base, (name, passphrase) = under
    context = chromium.new_context(
        viewport=PHONE, has_touch=True, is_mobile=True, service_workers="allow"
    )
    page = context.new_page()
    failed: list[str] = []
    asked: set[str] = set()
    page.on("response", lambda told: failed.append(told.url) if told.status >= 400 else None)
    page.on("request", lambda request: asked.add(re.sub(r"^https?://[^/]+", "", request.url)))
    try:
        page.goto(f"{base}/round")
        page.get_by_label("Name").fill(name)
        page.get_by_label("Passphrase").fill(passphrase)
        failed.clear()
        with page.expect_response("**/api/session"):
            page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("heading", level=1)).to_have_text("Round")
        page.goto(f"{base}/clutches/26-04/card")
        qr = page.get_by_alt_text("Opens 26-04").first
        expect(qr).to_be_visible()
        assert qr.evaluate("image => image.decode().then(() => image.naturalWidth)") > 0
        page.get_by_role("link", name="Today").first.click()
        expect(page).to_have_url(f"{base}/")
        # The worker is the path's own, and brings the page back where no network is.
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        scope = page.evaluate("navigator.serviceWorker.ready.then(own => own.scope)")
        assert scope == f"{base}/"
        page.goto(f"{base}/round")
        expect(page.get_by_role("heading", level=1)).to_have_text("Round")
        page.wait_for_function("navigator.serviceWorker.controller !== null")
        page.reload()
        expect(page.get_by_role("link", name=re.compile("26-04")).first).to_be_visible()
        context.set_offline(True)
        page.reload()
        expect(page.get_by_role("link", name=re.compile("26-04")).first).to_be_visible()
        context.set_offline(False)
        assert failed == []
        outside = {path for path in asked if not path.startswith("/sandboa")}
        assert {path for path in outside if not path.startswith(("data:", "blob:"))} == set()
    finally:
        context.close()
