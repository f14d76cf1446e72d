"""`./do screenshots`: a current picture of each main view, the demo's clock stopped.

Pictures of a phone are taken as a phone finds the house: over plain http, by its name there.
"""

import shutil
import tempfile
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Browser, Page, expect, sync_playwright
from tests.browser.home import HOME, Address, at, sign_in
from tests.running import CHROMIUM_FLAGS, DESK, PHONE, opened

_TODAY = "2026-06-14T18:30+00:00"
_FOLDER = Path(__file__).parent / "screenshots"


def _nothing(_: Page) -> None:
    pass


def _disc_underneath(page: Page) -> None:
    page.get_by_role("navigation", name="Eggs").get_by_role("button", name="Egg 3").click()
    expect(page.get_by_text("Egg 3 of 7")).to_be_visible()


def _cautions_known(page: Page) -> None:
    """As on a phone that has been here before: the cautions were read."""
    while page.get_by_role("button", name="I know").count():
        page.get_by_role("button", name="I know").first.click()


def _scored(page: Page) -> None:
    """The watch works through the finished clutches within its first minutes."""
    expect(page.get_by_text("window held")).not_to_have_count(0, timeout=240_000)


def _trace_drawn(page: Page) -> None:
    expect(page.get_by_role("group", name="Climate of North")).to_be_visible()


def _fan_failure(page: Page) -> None:
    """The trace of the fortnight in which the fan stood still."""
    _trace_drawn(page)
    climate = page.get_by_role("region", name="Climate")
    climate.get_by_role("button", name="14 days").click()
    climate.scroll_into_view_if_needed()
    page.evaluate("document.querySelector('[aria-labelledby=climate]').scrollIntoView()")


def _file_understood(page: Page) -> None:
    lines = ["Date;Time;Temp (F);RH %"]
    lines += [f"{13 + h // 24}.04.2026;{h % 24:02d}:00;{87 + h % 3},5;9{h % 5}" for h in range(96)]
    lines[20] = lines[20].replace(";87,5", ";--").replace(";88,5", ";--").replace(";89,5", ";--")
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "pocket-logger.csv"
        file.write_text("\n".join(lines))
        page.get_by_label("Logger's CSV file", exact=True).set_input_files(file)
        page.get_by_label("The times carry no zone").select_option("UTC")
        expect(page.get_by_text("1 row cannot be read")).to_be_visible()


#: `{lay}` in an address: the demo's open lay day.
_VIEWS: tuple[tuple[str, str, str, dict[str, int], Callable[[Page], None]], ...] = (
    ("today", "/", "bench", DESK, _nothing),
    ("today-phone-night", "/", "night", PHONE, _nothing),
    ("round", "/round", "bench", DESK, _nothing),
    ("round-box-phone-night", "/round/26-04", "night", PHONE, _nothing),
    ("egg", "/clutches/26-05/eggs/3", "bench", DESK, _nothing),
    ("animals", "/animals", "bench", DESK, _nothing),
    ("lay-day-places", "/lay-day/{lay}/places", "bench", DESK, _nothing),
    ("lay-day-eggs-phone-night", "/lay-day/{lay}/eggs", "night", PHONE, _disc_underneath),
    ("cabinet", "/cabinets/North", "bench", DESK, _trace_drawn),
    ("cabinet-night", "/cabinets/North", "night", DESK, _fan_failure),
    ("clutch", "/clutches/26-04", "bench", DESK, _nothing),
    ("hatch-phone-night", "/hatch", "night", PHONE, _cautions_known),
    ("hatch", "/hatch/26-01", "bench", DESK, _nothing),
    ("losses", "/losses/25-03", "bench", DESK, _nothing),
    ("seasons", "/seasons", "bench", DESK, _scored),
    ("card", "/clutches/26-04/card", "bench", DESK, _nothing),
    ("settings-night", "/settings", "night", DESK, _nothing),
    ("readings", "/readings", "bench", DESK, _file_understood),
    ("bench-night", "/bench", "night", DESK, _nothing),
)


def main() -> None:
    demo = ("demo", "--today", _TODAY, "--address", f"http://{HOME}")
    with opened(*demo) as (_, base, keeper), sync_playwright() as playwright:
        flags = [*CHROMIUM_FLAGS, f"--host-resolver-rules=MAP {HOME} 127.0.0.1"]
        browser = playwright.chromium.launch(executable_path=shutil.which("chromium"), args=flags)
        house = at(base, keeper)
        ids = _ids(browser, house)
        for name, place, *view in _VIEWS:
            _take(browser, house, name, place.format(**ids), *view)
        browser.close()


def _ids(browser: Browser, house: Address) -> dict[str, int]:
    page = _page(browser, house, DESK)
    return {"lay": page.request.get(f"{house.api}/api/lay-days").json()[0]["id"]}


def _page(browser: Browser, house: Address, size: dict[str, int]) -> Page:
    context = browser.new_context(viewport=size, timezone_id="UTC", locale="en-GB")  # type: ignore[arg-type]
    sign_in(context, house)
    return context.new_page()


def _take(
    browser: Browser,
    house: Address,
    name: str,
    place: str,
    theme: str,
    size: dict[str, int],
    prepare: Callable[[Page], None],
) -> None:
    page = _page(browser, house, size)
    page.add_init_script(f"localStorage.setItem('sandboa.theme', '{theme}')")
    page.goto((house if size is PHONE else house.api) + place)
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    prepare(page)
    page.wait_for_load_state("networkidle")
    page.evaluate("document.fonts.ready")
    page.screenshot(path=_FOLDER / f"{name}.png")
    page.context.close()


if __name__ == "__main__":
    main()
