"""Every place in both themes and all sizes: readable, accessible, and nothing in the way."""

import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Page

from browser.places import IN_THE_HAND, PLACES, open_place
from running import DESK

AXE = Path(__file__).parents[2] / "frontend/node_modules/axe-core/axe.min.js"
#: Only a limit: drawing anew mostly takes a fraction of a second.
FITS_WITHIN_MS = 20_000
WIDTHS = (320, 390, 768, 1024, 1280, 1600)
#: The colour of what can be acted on, in the light theme.
AMBER = "rgb(240, 180, 41)"
#: The main button, as it is seen: the amber one nearest to the end of the page.
MAIN_BUTTON = f"""() => [...document.querySelectorAll('main button, main a')]
    .filter(e => getComputedStyle(e).backgroundColor === '{AMBER}' && !e.disabled)
    .forEach(e => e.setAttribute('data-main', ''))"""


@pytest.fixture(scope="module", params=PLACES)
def opened_at_desk(request: pytest.FixtureRequest, reading_desk: Page, demo, ids) -> Page:
    open_place(reading_desk, demo + request.param.format(**ids))
    return reading_desk


@pytest.fixture
def at_desk(opened_at_desk: Page) -> Iterator[Page]:
    """Each place, opened once for all tests that look at it."""
    yield opened_at_desk
    in_theme(opened_at_desk, "bench")
    opened_at_desk.set_viewport_size(DESK)
    with_letters_of(opened_at_desk, 16)


def test_a_place_is_accessible_in_both_themes_and_read_as_it_is_meant(at_desk: Page) -> None:
    # Run as the page's own script would be refused by its policy; evaluate is not.
    at_desk.evaluate(AXE.read_text())
    for theme in ("bench", "night"):
        in_theme(at_desk, theme)
        assert violations(at_desk) == [], theme
    assert out_of_order(at_desk) == []
    # An empty date field writes mm/dd or dd/mm, as the browser pleases.
    assert at_desk.locator("input[type=datetime-local]:invalid, input[type=date]").count() == 0
    moments = "[...document.querySelectorAll('input[type=datetime-local]')]"
    assert at_desk.evaluate(f"{moments}.filter(e => !e.value).length") == 0
    assert run_together(at_desk) == []


def in_theme(page: Page, theme: str) -> None:
    page.evaluate("theme => { document.documentElement.dataset.theme = theme }", theme)


def violations(page: Page) -> list[str]:
    found = page.evaluate("axe.run({resultTypes: ['violations']})")
    return [
        f"{v['id']}: {[n['target'] for n in v['nodes']][:4]} {v['nodes'][0].get('failureSummary')}"
        for v in found["violations"]
        if v["impact"] in ("moderate", "serious", "critical")
    ]


def out_of_order(page: Page) -> list[tuple[str, list[object]]]:
    """Landmarks and headings that do not follow each other as they are listed."""
    rules = "['landmark-unique', 'heading-order', 'landmark-no-duplicate-main']"
    found = page.evaluate(f"axe.run({{runOnly: {rules}}})")
    return [(v["id"], [n["target"] for n in v["nodes"]]) for v in found["violations"]]


def run_together(page: Page) -> list[str]:
    """ "WatchRan cold": words of two parts of a sentence that run together for the ear."""
    told: list[str] = page.evaluate(
        r"""() => [...document.querySelectorAll('main p, main li, main h1, main h2')]
            .map(e => e.innerText)
            .filter(t => /[a-z][.,:]?[A-Z][a-z]+ /.test(t))"""
    )
    return told


@pytest.mark.parametrize("place", PLACES)
def test_a_phone_shows_each_place_whole_with_targets_for_a_damp_thumb(
    reading_phone: Page, demo, ids, place: str
) -> None:
    with_letters_of(reading_phone, 16)
    open_place(reading_phone, demo + place.format(**ids))
    assert sideways(reading_phone) <= 0
    if place in IN_THE_HAND:
        assert small_targets(reading_phone) == []
    with_letters_of(reading_phone, 32)
    assert sideways(reading_phone) <= 0
    assert letter_by_letter(reading_phone) == []


def test_a_place_fits_the_narrowest_phone_and_a_desk_with_large_letters(at_desk: Page) -> None:
    with_letters_of(at_desk, 32)
    assert sideways(at_desk) <= 0
    with_letters_of(at_desk, 16)
    at_desk.set_viewport_size({"width": 320, "height": 640})
    assert sideways(at_desk) <= 0
    assert letter_by_letter(at_desk) == []


def with_letters_of(page: Page, standard: int) -> None:
    """As a reader sets them in the browser, px (16 is usual): text alone, not the page."""
    settings = page.context.new_cdp_session(page)
    settings.send("Page.enable")
    settings.send("Page.setFontSizes", {"fontSizes": {"standard": standard, "fixed": standard}})


def sideways(page: Page) -> int:
    """How far a page scrolls sideways, px, once what is drawn by its width is drawn anew."""
    told: int = page.evaluate(
        """async within => {
            const wide = () => document.documentElement.scrollWidth - innerWidth
            const until = performance.now() + within
            while (wide() > 0 && performance.now() < until)
                await new Promise(requestAnimationFrame)
            return wide()
        }""",
        FITS_WITHIN_MS,
    )
    return told


def letter_by_letter(page: Page) -> list[str]:
    """Words squeezed so hard that they stand a letter or two to a line."""
    told: list[str] = page.evaluate(
        """() => [...document.querySelectorAll('main *')]
            .filter(e => [...e.childNodes].some(n => n.nodeType === 3 && n.data.trim().length > 6))
            .map(e => [e.textContent, e.getBoundingClientRect(), getComputedStyle(e)])
            .filter(([, r, s]) => r.width > 2 && r.width < 2.5 * parseFloat(s.fontSize)
                && r.height > 3 * parseFloat(s.fontSize))
            .map(([text]) => text.slice(0, 40))"""
    )
    return told


def small_targets(page: Page) -> list[str]:
    told: list[str] = page.evaluate(
        """() => [...document.querySelectorAll('main button, main select, main input, nav a')]
            .map(e => [e, e.type === 'checkbox' ? e.closest('label') : e])
            .map(([e, target]) =>
                [e.getAttribute('aria-label') || e.textContent, target.getBoundingClientRect()])
            .filter(([, r]) => r.width > 2 && r.height > 2 && r.height < 40)
            .map(([name, r]) => `${name}: ${r.height}`)"""
    )
    return told


def test_every_place_in_the_hand_is_a_place() -> None:
    assert set(IN_THE_HAND) <= set(PLACES)


def test_nothing_lies_over_the_main_button_at_any_width(at_desk: Page) -> None:
    for width in WIDTHS:
        at_desk.set_viewport_size({"width": width, "height": 800})
        at_desk.evaluate(MAIN_BUTTON)
        for button in at_desk.locator("[data-main]").all():
            # A click as it would be, with everything that keeps it from arriving; nothing is done.
            button.click(trial=True, timeout=5_000)


def test_the_way_out_of_an_open_box_is_free_at_every_width(reading_desk: Page, demo) -> None:
    open_place(reading_desk, f"{demo}/round/26-03")
    shut = reading_desk.get_by_role("button", name=re.compile("as before, shut"))
    for width in (320, 600, 768, 900, 1100, 1279, 1280, 1600):
        reading_desk.set_viewport_size({"width": width, "height": 800})
        shut.click(trial=True, timeout=5_000)
