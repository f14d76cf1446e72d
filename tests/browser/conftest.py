"""The real interface in headless Chromium, over the real command in its own process."""

import io
import sys
from collections.abc import Iterator
from pathlib import Path
from urllib.parse import urlsplit

import httpx2 as httpx
import pytest
from playwright.sync_api import Browser, Page, Playwright, Request, expect, sync_playwright

from browser.contexts import Contexts, new_context
from browser.home import HOME, Address, at, sign_in
from forked import opened
from houses import put_empty_house
from running import CHROMIUM_FLAGS, DESK, PHONE, chromium_here
from samples import NOW
from sandboa.cli import main
from sandboa.cli.house_folder import DATABASE

#: Pages of tests do not live long enough for their scripts to be worth optimizing, and one process
#: for a house keeps what was compiled of them.
SHORT_LIVED = ("--js-flags=--no-opt --no-maglev", "--process-per-site")

PASSPHRASE = "beeswax ladder harbour mint"

# Only a limit: whatever is waited for mostly comes within a fraction of a second.
expect.set_options(timeout=60_000)


#: Places used with a phone in the hand: what is tested on a phone runs over plain http, on a name
#: that is not this machine's, as phones find a house, signed in. Browsers keep some things back
#: there. What is tested at a desk runs on this machine; what is marked `both_ways` runs on both.
#: Only here does a house move into the browser, to be at hand without a network: it takes a second
#: a test.
IN_THE_HAND = (
    "test_rounds",
    "test_boxes",
    "test_entered_late",
    "test_lay_day",
    "test_whole_lay_day",
    "test_hatch",
    "test_hatchlings",
    "test_in_a_real_house",
)


def _module(of: pytest.Metafunc | pytest.Item) -> str:
    name: str = of.module.__name__  # type: ignore[union-attr]
    return name.rpartition(".")[2]


def pytest_generate_tests(metafunc: pytest.Metafunc) -> None:
    asked = set(metafunc.fixturenames)
    if not {"own_demo", "empty"} & asked or _module(metafunc) not in IN_THE_HAND:
        return
    ways = {"here": False, "home": True}
    if not metafunc.definition.get_closest_marker("both_ways"):
        del ways["here" if "phone" in asked else "home"]
    metafunc.parametrize("at_home", ways.values(), ids=ways, indirect=True)


@pytest.fixture
def at_home(request: pytest.FixtureRequest) -> bool:
    """Whether the house is opened at http://sandboa.home rather than at 127.0.0.1."""
    return bool(getattr(request, "param", False))


@pytest.fixture(scope="session")
def demo(demo_house: Path) -> Iterator[str]:
    """Address of the demo with its clock stopped; for tests that change nothing."""
    with opened("demo", "--today", NOW.isoformat(), furnished=demo_house) as (_, address, _):
        yield address


@pytest.fixture
def own_demo(at_home: bool, demo_house: Path) -> Iterator[Address]:
    """A demo of the test's own, to change things in."""
    named = ("--address", f"http://{HOME}") if at_home else ()
    asked = ("demo", "--today", NOW.isoformat(), *named)
    with opened(*asked, furnished=demo_house) as (_, base, signs_in):
        yield at(base, signs_in)


@pytest.fixture
def empty(tmp_path: Path, at_home: bool, monkeypatch: pytest.MonkeyPatch) -> Iterator[Address]:
    """Address of a house with nothing in it but, opened to others, its keeper."""
    put_empty_house(tmp_path / DATABASE)
    if not at_home:
        with opened("serve", "--data", str(tmp_path)) as (_, base, _):
            yield at(base, None)
        return
    monkeypatch.setattr(sys, "stdin", io.StringIO(f"{PASSPHRASE}\n"))
    assert main(["people", "Keeper", "--stdin", "--data", str(tmp_path)]) == 0
    named = ("--address", f"http://{HOME}")
    with opened("serve", "--data", str(tmp_path), *named) as (_, base, _):
        yield at(base, ("Keeper", PASSPHRASE))


@pytest.fixture(scope="session")
def playwright() -> Iterator[Playwright]:
    with sync_playwright() as driving:
        yield driving


@pytest.fixture(scope="session")
def chromium(playwright: Playwright) -> Iterator[Browser]:
    browser = playwright.chromium.launch(
        executable_path=chromium_here(),
        args=[*CHROMIUM_FLAGS, *SHORT_LIVED, f"--host-resolver-rules=MAP {HOME} 127.0.0.1"],
    )
    yield browser
    browser.close()


@pytest.fixture(scope="session")
def contexts(chromium: Browser) -> Contexts:
    return Contexts(chromium)


@pytest.fixture(scope="session")
def ids(demo: str) -> dict[str, int]:
    """Ids of the demo that addresses need."""

    def told(path: str) -> list[dict]:
        answer = httpx.get(f"{demo}/api/{path}").json()
        return answer if isinstance(answer, list) else answer["methods"]

    return {
        "dam": next(a["id"] for a in told("animals") if a["name"] == "Tansy"),
        "hatchling": told("hatchlings")[0]["id"],
        "method": told("methods")[0]["id"],
        "lay": told("lay-day-drafts")[0]["id"],
    }


@pytest.fixture
def desk(request: pytest.FixtureRequest, contexts: Contexts, at_home: bool) -> Iterator[Page]:
    """A page at a desk; at home it is a phone as well, for nobody carries a desk there."""
    yield from _page(request, contexts, **(ON_A_PHONE if at_home else {"viewport": DESK}))


@pytest.fixture
def phone(request: pytest.FixtureRequest, contexts: Contexts) -> Iterator[Page]:
    yield from _page(request, contexts, **ON_A_PHONE)


ON_A_PHONE = {"viewport": PHONE, "has_touch": True, "is_mobile": True}


class Watched:
    """What a page complains of, and asks of others; and the houses it was at."""

    def __init__(self, page: Page) -> None:
        self.complaints: list[str] = []
        self.origins: set[str] = set()
        page.on("pageerror", lambda error: self.complaints.append(str(error)))
        page.on("request", self._note)

    def _note(self, asked: Request) -> None:
        parts = urlsplit(asked.url)
        if parts.hostname in ("127.0.0.1", HOME):
            self.origins.add(f"{parts.scheme}://{parts.netloc}")
        elif not asked.url.startswith(("data:", "blob:")):
            self.complaints.append(asked.url)


def _page(request: pytest.FixtureRequest, contexts: Contexts, **options: object) -> Iterator[Page]:
    """A page that knows nothing yet; whatever it complains of fails the test."""
    in_the_hand = _module(request.node) in IN_THE_HAND
    context = contexts.of({**options, "service_workers": "allow" if in_the_hand else "block"})
    for name in {"own_demo", "empty"} & set(request.fixturenames):
        sign_in(context, request.getfixturevalue(name))
    page = context.new_page()
    watched = Watched(page)
    yield page
    contexts.forget(context, watched.origins)
    assert watched.complaints == []


@pytest.fixture(scope="module")
def reading_desk(chromium: Browser) -> Iterator[Page]:
    """A page at a desk that tests of one file share, for they only look."""
    yield from _shared_page(chromium, viewport=DESK)


@pytest.fixture(scope="module")
def reading_phone(chromium: Browser) -> Iterator[Page]:
    yield from _shared_page(chromium, **ON_A_PHONE)


def _shared_page(chromium: Browser, **options: object) -> Iterator[Page]:
    with new_context(chromium, {**options, "service_workers": "block"}) as context:
        page = context.new_page()
        watched = Watched(page)
        yield page
    assert watched.complaints == []
