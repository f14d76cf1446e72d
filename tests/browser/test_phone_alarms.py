"""Alarms on a phone: added from its own browser, shown by its worker."""

import json
from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, Page, expect

from browser.home import Address
from push_service import Phone, push_service
from running import PHONE

#: A browser without a push service of its maker: it subscribes at the stand-in.
SUBSCRIBES = """target => {
    PushManager.prototype.subscribe = async function (options) {
        window.subscribedWith = options
        return { toJSON: () => ({
            endpoint: target.url, keys: { p256dh: target.phone_key, auth: target.secret },
        }) }
    }
}"""


@pytest.fixture
def phone() -> Iterator[Phone]:
    with push_service() as phone:
        yield phone


@pytest.fixture
def page(chromium: Browser, own_demo: Address, phone: Phone) -> Iterator[Page]:
    context = chromium.new_context(
        viewport=PHONE, has_touch=True, is_mobile=True, service_workers="allow"
    )
    context.grant_permissions(["notifications"], origin=str(own_demo))
    context.add_init_script(f"({SUBSCRIBES})({json.dumps(phone.target)})")
    yield context.new_page()
    context.close()


def test_a_phone_is_added_and_gets_a_trial(page: Page, own_demo: Address, phone: Phone) -> None:
    page.goto(f"{own_demo}/settings/alarms")
    page.get_by_role("button", name="Add a channel").tap()
    form = page.get_by_role("form", name="New channel")
    form.get_by_label("By").select_option("this phone or computer")
    expect(form).to_contain_text("Nobody but this phone can read them")
    form.get_by_label("Name").fill("Rowan's phone")
    form.get_by_role("button", name="Record").tap()
    line = page.get_by_role("listitem").filter(has_text="Rowan's phone")
    expect(line.first).to_be_visible()
    options = page.evaluate("window.subscribedWith")
    assert options["userVisibleOnly"] is True
    assert len(options["applicationServerKey"]) > 80
    line.get_by_role("button", name="Send a trial").first.tap()
    expect(page.get_by_text("taken with 201").first).to_be_visible()
    assert "Sandboa" in phone.messages[0]["about"]


def test_what_is_sent_is_shown_and_leads_back(page: Page, own_demo: Address) -> None:
    """Headless browsers show nothing: what the worker asks to be shown is looked at instead."""
    with page.context.expect_event("serviceworker") as told:
        page.goto(f"{own_demo}/")
    worker = told.value
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    shown = worker.evaluate(
        """async data => {
            const shown = []
            self.registration.showNotification = async (...told) => { shown.push(told) }
            for (const said of [data, undefined]) {
                const push = new PushEvent('push', said && { data: JSON.stringify(said) })
                const waits = []
                push.waitUntil = until => waits.push(until)
                self.dispatchEvent(push)
                await Promise.all(waits)
            }
            return shown
        }""",
        {"about": "Sandboa emergency: North", "text": "34.5 °C"},
    )
    (title, options), (unsaid, _) = shown
    assert (title, options["body"]) == ("Sandboa emergency: North", "34.5 °C")
    # Told again it takes the place of what it told before, and is heard again.
    assert (options["tag"], options["renotify"]) == (title, True)
    assert options["icon"] == f"{own_demo}/icon-192.png"
    assert unsaid == "Sandboa"
