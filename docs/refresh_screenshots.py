"""`./do screenshots`: a current picture of each main view, the demo's clock stopped.

Pictures of a phone are taken as a phone finds the house: over plain http, by its name there.
"""

import shutil
import sys
import tempfile
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import NamedTuple

from playwright.sync_api import Browser, Page, expect, sync_playwright

from browser.home import HOME, Address, at, sign_in
from forked import opened
from running import CHROMIUM_FLAGS, DESK, PHONE, chromium_here

_TODAY = "2026-06-14T18:30+00:00"
_DEMO = Path(tempfile.gettempdir()) / "sandboa-pictures"
_SECOND_DISK = Path(tempfile.gettempdir()) / "second-disk"
_LIST = """Dam;Sire;Laid;Eggs;Hatched;First out
Sorrel;Flint;12.06.2019;7-1;6;09.08.2019
Tansey;Flint;20.06.2019;5/0;5;19.08.2019
Sorrel;Flint;03.06.2018;6-0;5;10.06.2018
"""
_FOLDER = Path(__file__).parent / "screenshots"


def _nothing(_: Page) -> None:
    pass


def _disc_underneath(page: Page) -> None:
    page.get_by_role("navigation", name="Eggs").get_by_role("button", name="Egg 3").click()
    expect(page.get_by_text("Egg 3 of 7")).to_be_visible()


def _scored(page: Page) -> None:
    """The watch works through the finished clutches within its first minutes."""
    expect(page.get_by_text("window held")).not_to_have_count(0, timeout=240_000)
    # Losses are worked out in the background: no picture of half of them.
    expect(page.get_by_text("Being worked out")).to_have_count(0, timeout=120_000)
    expect(page.get_by_text("Being counted")).to_have_count(0, timeout=120_000)


def _trace_drawn(page: Page) -> None:
    expect(page.get_by_role("group", name="Climate of North")).to_be_visible()


def _backed_up(page: Page) -> None:
    """To a folder of the same name each time, as one of a second disk would have."""
    _SECOND_DISK.mkdir(exist_ok=True)
    backups = page.get_by_role("region", name="Backups")
    backups.get_by_role("button", name="Use another folder").click()
    backups.get_by_label("Folder on the computer of the house").fill(str(_SECOND_DISK))
    backups.get_by_role("button", name="Use it").click()
    expect(backups.get_by_label("Folder on the computer")).to_be_hidden()
    backups.get_by_role("button", name="Back up now").click()
    expect(backups).to_contain_text("Last good backup")


def _egg_by_torch(page: Page) -> None:
    page.get_by_label("The same eggs as somebody else: seed").fill("20")
    page.get_by_role("button", name="10 eggs of Is this dimple early?").click()
    page.get_by_role("button", name="Hold the torch").press("Enter")
    expect(page.locator("[data-lit] img")).to_have_js_property("naturalHeight", 900)


def _list_looked_over(page: Page) -> None:
    page.get_by_label("List", exact=True).set_input_files(
        files=[{"name": "cards.csv", "mimeType": "text/csv", "buffer": _LIST.encode()}]
    )
    expect(page.get_by_role("region", name="Lines that cannot be")).to_be_visible()
    page.get_by_role("heading", name="From a list").evaluate("e => e.scrollIntoView()")


def _file_understood(page: Page) -> None:
    lines = ["Date;Time;Temp (F);RH %"]
    lines += [f"{13 + h // 24}.04.2026;{h % 24:02d}:00;{87 + h % 3},5;9{h % 5}" for h in range(96)]
    lines[20] = lines[20].replace(";87,5", ";--").replace(";88,5", ";--").replace(";89,5", ";--")
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "pocket-logger.csv"
        file.write_text("\n".join(lines))
        page.get_by_label("Logger's file", exact=True).set_input_files(file)
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
    ("clutch", "/clutches/26-04", "bench", DESK, _nothing),
    ("hatch", "/hatch/26-01", "bench", DESK, _nothing),
    ("losses", "/losses/25-03", "bench", DESK, _nothing),
    ("seasons", "/seasons", "bench", DESK, _scored),
    ("card", "/clutches/26-04/card", "bench", DESK, _nothing),
    ("settings-night", "/settings/backups", "night", DESK, _backed_up),
    ("readings", "/readings", "bench", DESK, _file_understood),
    ("bench-night", "/bench", "night", DESK, _nothing),
    ("old-records", "/old-records", "bench", DESK, _list_looked_over),
    ("practice-phone-night", "/practice", "night", PHONE, _egg_by_torch),
)


def main(names: Sequence[str] = ()) -> None:
    """Take the named pictures, or all of them."""
    known = [view[0] for view in _VIEWS]
    if unknown := [name for name in names if name not in known]:
        raise SystemExit(f"no picture {', '.join(unknown)}; there is: {', '.join(known)}")
    wanted = names or known
    for folder in (_DEMO, _SECOND_DISK):
        shutil.rmtree(folder, ignore_errors=True)
    demo = ("demo", "--today", _TODAY, "--address", f"http://{HOME}", "--data", str(_DEMO))
    with sync_playwright() as playwright:
        flags = [*CHROMIUM_FLAGS, f"--host-resolver-rules=MAP {HOME} 127.0.0.1"]
        browser = playwright.chromium.launch(executable_path=chromium_here(), args=flags)
        with opened(*demo) as (_, base, keeper):
            house = at(base, keeper)
            ids = _ids(browser, house)
            for name, place, *view in (view for view in _VIEWS if view[0] in wanted):
                _take(browser, house, name, _Shot(place.format(**ids), *view))
        browser.close()
    for folder in (_DEMO, _SECOND_DISK):
        shutil.rmtree(folder, ignore_errors=True)


def _ids(browser: Browser, house: Address) -> dict[str, int]:
    page = _page(browser, house, DESK)
    return {"lay": page.request.get(f"{house.api}/api/lay-day-drafts").json()[0]["id"]}


def _page(browser: Browser, house: Address, size: dict[str, int]) -> Page:
    context = browser.new_context(viewport=size, timezone_id="UTC", locale="en-GB")  # type: ignore[arg-type]
    sign_in(context, house)
    return context.new_page()


class _Shot(NamedTuple):
    """A picture: of which place, in which theme and size, and what is done there before."""

    place: str
    theme: str
    size: dict[str, int]
    prepare: Callable[[Page], None]


def _take(browser: Browser, house: Address, name: str, shot: _Shot) -> None:
    place, theme, size, prepare = shot
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
    main(sys.argv[1:])
