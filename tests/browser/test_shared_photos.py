"""Photos shared from a phone's gallery to the installed application land where it was open."""

import re

import pytest
from playwright.sync_api import Browser, Page, expect

from browser.home import Address
from running import PHONE

#: What the phone's system does when somebody shares pictures to the application.
SHARE = """async () => {
    const canvas = new OffscreenCanvas(40, 30)
    canvas.getContext('2d').fillRect(0, 0, 20, 30)
    const picture = await canvas.convertToBlob({ type: 'image/jpeg' })
    const shared = new DataTransfer()
    shared.items.add(new File([picture], 'egg.jpg', { type: 'image/jpeg' }))
    shared.items.add(new File(['words'], 'note.txt', { type: 'text/plain' }))
    const form = document.createElement('form')
    Object.assign(form, { method: 'POST', action: '/share', enctype: 'multipart/form-data' })
    const input = Object.assign(document.createElement('input'), {
        type: 'file', name: 'photos', multiple: true,
    })
    input.files = shared.files
    form.append(input)
    document.body.append(form)
    form.submit()
}"""


@pytest.fixture
def installed(chromium: Browser, own_demo: Address):
    """A phone on which the application keeps itself."""
    context = chromium.new_context(
        viewport=PHONE, has_touch=True, is_mobile=True, service_workers="allow"
    )
    page = context.new_page()
    page.goto(f"{own_demo}/")
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    page.reload()
    page.wait_for_function("navigator.serviceWorker.controller !== null")
    yield page
    context.close()


def test_a_shared_photo_lands_at_the_egg_that_was_open(installed: Page, own_demo: Address) -> None:
    installed.goto(f"{own_demo}/clutches/26-05/eggs/3")
    expect(installed.get_by_role("heading", level=1)).to_contain_text("3")
    installed.evaluate(SHARE)
    expect(installed).to_have_url(f"{own_demo}/shared")
    # The note is no picture.
    expect(installed.get_by_role("img", name=re.compile("Photo"))).to_have_count(1)
    expect(installed.get_by_label("Which egg")).to_have_value("3")
    installed.get_by_role("button", name="Keep this photo").tap()
    expect(installed).to_have_url(f"{own_demo}/clutches/26-05/eggs/3")
    expect(installed.locator("a[href*='/api/photos/']").first).to_be_visible()
    installed.goto(f"{own_demo}/shared")
    expect(installed.get_by_text("No photo waits here")).to_be_visible()


def test_shared_to_a_box_it_is_of_its_clutch_or_of_another(
    installed: Page, own_demo: Address
) -> None:
    installed.goto(f"{own_demo}/round/26-04")
    expect(installed.get_by_role("heading", level=1)).to_be_visible()
    installed.evaluate(SHARE)
    of = installed.get_by_label("What they are of")
    expect(of.locator("option:checked")).to_contain_text("26-04")
    of.select_option(label="26-05, Chervil")
    installed.get_by_role("button", name="Leave it out").tap()
    expect(installed.get_by_text("No photo waits here")).to_be_visible()
