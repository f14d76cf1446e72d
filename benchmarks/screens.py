"""What the screens of a large house ask of a slow computer: main-thread work and renders.

Measured in Chromium, which makes its main thread four times slower than this machine's.
"""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import Final
from urllib.parse import quote

import httpx2
from playwright.sync_api import Browser, CDPSession, Page, expect, sync_playwright
from tests.running import CHROMIUM_FLAGS, DESK, chromium_here, running

from benchmarks.house_of_size import furnish
from benchmarks.report import met

_FOLDER: Final = Path(".scale")
#: Clutches under way, and how many times slower than this machine.
_ACTIVE, _SLOWDOWN = 100, 4
#: Most work (ms) until a place is of use, and after a tap; most components a tap renders.
_USABLE_MS, _TAP_MS, _RENDERS = 1000.0, 200.0, 60
_ROUNDS: Final = 5
#: Counts the components that each change of the page renders, as the tools of React's makers do:
#: only below what is another object than before, and only what says that it worked.
_COUNTING: Final = """
(() => {
  const COMPONENTS = new Set([0, 1, 11, 14, 15])
  const count = { rendered: 0 }
  window.counted = count
  const walk = (now, before) => {
    if (COMPONENTS.has(now.tag) && now.flags & 1) count.rendered += 1
    if (before && now.child === before.child) return
    for (let child = now.child; child; child = child.sibling) {
      if (child === child.alternate) continue
      walk(child, child.alternate)
    }
  }
  window.__REACT_DEVTOOLS_GLOBAL_HOOK__ = {
    supportsFiber: true,
    renderers: new Map(),
    inject: () => 1,
    onCommitFiberRoot: (_, root) => walk(root.current, root.current.alternate),
    onPostCommitFiberRoot: () => {},
    onCommitFiberUnmount: () => {},
  }
})()
"""


@dataclass(frozen=True)
class _Place:
    """A place opened, what is drawn once it is of use, what is done then, and a tap in it."""

    name: str
    path: str
    drawn: str
    before: Callable[[Page], None]
    tap: Callable[[Page], None]
    #: Whether the components of its tap have an aim.
    bounded: bool = False


@dataclass(frozen=True)
class _Cost:
    """Main-thread work (ms) to be of use and of a tap, and the components that this rendered."""

    usable_ms: float
    tap_ms: float
    renders: int


def report() -> str:
    """Each place's work beside its aim, and as a multiple of what an empty place of ours costs."""
    house = furnish(_FOLDER, _ACTIVE)
    lines = [
        f"Main-thread work at {_ACTIVE} clutches, {_SLOWDOWN} times slower than this machine",
        f"{'':10}{'usable, ms':>22}{'in empty':>10}{'a tap, ms':>22}{'renders':>20}",
    ]
    with running("serve", "--data", str(house)) as base, sync_playwright() as driving:
        browser = driving.chromium.launch(executable_path=chromium_here(), args=CHROMIUM_FLAGS)
        box = httpx2.get(f"{base}/api/round", timeout=600.0).json()["boxes"][0]["name"]
        empty = _cost(browser, base, _EMPTY).usable_ms
        for place in _places(box):
            cost = _cost(browser, base, place)
            lines.append(
                f"{place.name:10}{_beside(cost.usable_ms, _USABLE_MS)}"
                f"{cost.usable_ms / empty:10.1f}{_beside(cost.tap_ms, _TAP_MS)}"
                f"{_beside(cost.renders, _RENDERS) if place.bounded else f'{cost.renders:9d}'}"
            )
        browser.close()
    return "\n".join(lines)


def _beside(value: float, aim: float) -> str:
    return f"{value:9.0f} ({met(value <= aim)} {aim:g})"


def _tapped(role: str, name: str, drawn: str) -> Callable[[Page], None]:
    """A tap on what is called so, until what it brings is drawn."""

    def tap(page: Page) -> None:
        page.get_by_role(role, name=name).first.click()  # type: ignore[arg-type]
        page.locator(drawn).first.wait_for()

    return tap


def _nothing(_: Page) -> None:
    """Nothing is to be done before the tap."""


_EMPTY: Final = _Place("empty", "/nowhere", "main h1", _nothing, _nothing)


def _places(box: str) -> tuple[_Place, ...]:
    def choose_egg(page: Page) -> None:
        page.get_by_role("button", name="Egg 1").first.click()
        expect(page.get_by_role("region", name="Egg 1")).to_be_visible()

    return (
        _Place(
            "Today",
            "/",
            "#open-today",
            _nothing,
            _tapped("button", "Show all", "section ul > li:nth-child(20)"),
        ),
        _Place(
            "Round",
            "/round",
            "ol[aria-label='To open']",
            _nothing,
            _tapped("button", "Candle", "[aria-pressed=true]"),
        ),
        _Place(
            "box",
            f"/round/{quote(box)}",
            "section[aria-label='Box']",
            choose_egg,
            lambda page: page.get_by_role("radio", name="clear dents").check(),
            bounded=True,
        ),
        _Place(
            "Settings",
            "/settings",
            "main a[href*='/settings/']",
            _nothing,
            _tapped("link", "Numbers", "role=heading[name='Numbers']"),
        ),
    )


def _cost(browser: Browser, base: str, place: _Place) -> _Cost:
    found = [_once(browser, base, place) for _ in range(_ROUNDS)]
    return _Cost(
        min(cost.usable_ms for cost in found),
        min(cost.tap_ms for cost in found),
        min(cost.renders for cost in found),
    )


def _once(browser: Browser, base: str, place: _Place) -> _Cost:
    with _slow_page(browser) as (page, session):
        # Its files are in the browser, as on every day but the first.
        page.goto(base + place.path)
        page.wait_for_load_state("networkidle")
        page.goto("about:blank")
        usable_ms = _work_ms(session, lambda: _opened(page, base, place))
        page.wait_for_load_state("networkidle")
        place.before(page)
        page.evaluate("counted.rendered = 0")
        tap_ms = _work_ms(session, lambda: _settled(page, place))
        return _Cost(usable_ms, tap_ms, page.evaluate("counted.rendered"))


def _opened(page: Page, base: str, place: _Place) -> None:
    page.goto(base + place.path, wait_until="commit")
    # Looked for once a frame, in the page: asking from outside would be work of its own.
    page.locator(place.drawn).first.wait_for()


def _settled(page: Page, place: _Place) -> None:
    place.tap(page)
    # Two frames on, what the tap changed is drawn.
    page.evaluate("new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))")


@contextmanager
def _slow_page(browser: Browser) -> Iterator[tuple[Page, CDPSession]]:
    context = browser.new_context(viewport=DESK, service_workers="block")  # type: ignore[arg-type]
    context.add_init_script(_COUNTING)
    page = context.new_page()
    session = context.new_cdp_session(page)
    session.send("Performance.enable")
    session.send("Emulation.setCPUThrottlingRate", {"rate": _SLOWDOWN})
    yield page, session
    context.close()


def _work_ms(session: CDPSession, doing: Callable[[], None]) -> float:
    """What the page's main thread works while something is done, ms."""
    before = _tasks_s(session)
    doing()
    return (_tasks_s(session) - before) * 1000.0


def _tasks_s(session: CDPSession) -> float:
    metrics = session.send("Performance.getMetrics")["metrics"]
    return next(metric["value"] for metric in metrics if metric["name"] == "TaskDuration")
