"""What the house answers to: its names, bare addresses, and in words to what it is not called."""

import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from houses import put_empty_house
from samples import NOW_S
from sandboa.cli.house_folder import DATABASE
from sandboa.web.app import create_app
from sandboa.web.clock import StoppedClock
from sandboa.web.front_door.app import STYLE
from sandboa.web.house import Reach

OPEN = Reach("https://shed.example:8350", frozenset({"vivarium", "vivarium.local"}))
FRONTEND = Path(__file__).parents[2] / "frontend" / "src" / "shared"
BROWSER = {"accept": "text/html,application/xhtml+xml"}


@pytest.fixture
def opened(tmp_path: Path) -> Iterator[TestClient]:
    # A test that asks two houses has each in a folder of its own.
    (tmp_path / "open").mkdir()
    app = create_app(put_empty_house(tmp_path / "open" / DATABASE), StoppedClock(NOW_S), reach=OPEN)
    with TestClient(app) as client:
        yield client


@pytest.mark.parametrize(
    "host",
    ["localhost", "127.0.0.1:8350", "[::1]:8350", "192.168.1.20", "[fd00::2]:8350",
     "shed.example:8350", "SHED.example", "vivarium", "vivarium.local:1"],
)  # fmt: skip
def test_it_answers_to_its_names_and_to_bare_addresses(opened: TestClient, host: str) -> None:
    assert opened.get("/healthz", headers={"host": host}).status_code == 200


@pytest.mark.parametrize("host", ["bank.example", "vivarium.example", "", "[", "shed.example.bank"])
def test_it_answers_to_nothing_else(opened: TestClient, host: str) -> None:
    answer = opened.get("/healthz", headers={"host": host})
    assert answer.status_code == 400
    assert answer.headers["content-type"] == "application/problem+json"


def test_a_browser_is_told_what_to_do_and_no_name_of_the_house(opened: TestClient) -> None:
    answer = opened.get("/", headers={"host": "raspberrypi.lan:8350", **BROWSER})
    assert answer.status_code == 400
    assert "sandboa serve --address http://raspberrypi.lan:8350" in answer.text
    assert "shed.example" not in answer.text
    assert "vivarium" not in answer.text


@pytest.mark.parametrize("host", ["<script>alert(1)</script>", "a b; rm -rf", "x" * 900])
def test_what_is_no_name_stands_in_no_page(opened: TestClient, host: str) -> None:
    answer = opened.get("/", headers={"host": host, **BROWSER})
    assert answer.status_code == 400
    assert "<script" not in answer.text
    assert "THAT-NAME" in answer.text
    assert len(answer.text) - len(STYLE.read_text()) < 2_500


def test_settings_are_told_how_phones_find_it(opened: TestClient, http: TestClient) -> None:
    told = opened.get("/api/home-network", headers={"host": "localhost"}).json()
    assert told["address"] == "https://shed.example:8350"
    assert told["names"] == ["shed.example", "vivarium", "vivarium.local"]
    assert told["door"] is None
    code = opened.get("/api/home-network/qr.svg")
    assert code.headers["content-type"] == "image/svg+xml"
    # A house by itself has no code to scan.
    assert http.get("/api/home-network").json()["address"] is None
    assert http.get("/api/home-network/qr.svg").status_code == 404


def test_pages_before_the_application_have_its_inks() -> None:
    """The theme is TypeScript, these are plain pages: each ink stands in both, and is the same."""
    theme = {
        name: pair
        for name, *pair in re.findall(
            r"(\w+): pair\('(#\w+)', '(#\w+)'\)", (FRONTEND / "theme" / "system.ts").read_text()
        )
    }
    paper = (FRONTEND / "theme" / "paper.ts").read_text()
    theme["paper"] = re.findall(r"#\w+", paper)
    day, _, night = STYLE.read_text().partition("@media")
    for name in ("paper", "sheet", "ink", "soft", "line", "yolk", "on-yolk", "sound"):
        inks = [re.search(rf"--{name}: (#\w+)", part)[1].upper() for part in (day, night)]
        camel = re.sub(r"-(\w)", lambda found: found[1].upper(), name)
        assert inks == theme[camel], name
