"""A house under a path of another's address, whether a proxy passes the path on or takes it off."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from houses import put_empty_house
from samples import NOW_S
from sandboa.cli.house_folder import DATABASE
from sandboa.web.app import create_app
from sandboa.web.clock import StoppedClock
from sandboa.web.house import Reach
from web.asking import lay
from web.test_people import add

NAMED = "home.example"
UNDER = {"host": NAMED}
REACH = Reach(
    f"https://{NAMED}/sandboa", frozenset({NAMED, "shed.local"}), paths={NAMED: "/sandboa"}
)


@pytest.fixture
def under(tmp_path: Path) -> Iterator[TestClient]:
    app = create_app(put_empty_house(tmp_path / DATABASE), StoppedClock(NOW_S), reach=REACH)
    with TestClient(app, base_url="http://127.0.0.1") as client:
        yield client


@pytest.mark.parametrize("path", ["/sandboa/api/alive", "/api/alive"])
def test_it_answers_whether_the_path_was_taken_off_or_not(under: TestClient, path: str) -> None:
    assert under.get(path, headers=UNDER).status_code == 200


def test_a_proxy_that_asks_under_its_own_name_is_understood_by_the_path(
    under: TestClient,
) -> None:
    page = under.get("/sandboa/clutches/26-04")
    assert 'content="/sandboa"' in page.text
    assert under.get("/sandboax/api/alive").text == under.get("/nowhere").text


def test_the_page_and_what_is_installed_name_their_path(under: TestClient) -> None:
    for path in ("/sandboa", "/sandboa/", "/sandboa/round", "/round"):
        page = under.get(path, headers=UNDER)
        assert page.headers["cache-control"] == "no-cache"
        assert '<meta name="sandboa-path" content="/sandboa" />' in page.text
        assert 'src="/sandboa/assets/' in page.text
        assert '"/assets/' not in page.text
    manifest = under.get("/sandboa/manifest.webmanifest", headers=UNDER).json()
    assert (manifest["id"], manifest["scope"], manifest["start_url"]) == ("/sandboa/",) * 3
    assert manifest["shortcuts"][0]["url"] == "/sandboa/round"
    assert all(icon["src"].startswith("/sandboa/") for icon in manifest["icons"])
    worker = under.get("/sandboa/sw.js", headers=UNDER)
    assert 'url:"/' not in worker.text


def test_under_a_name_of_its_own_it_is_as_ever(under: TestClient) -> None:
    page = under.get("/round", headers={"host": "shed.local"})
    assert "sandboa-path" not in page.text
    assert 'src="/assets/' in page.text


def test_a_path_opens_no_door(under: TestClient) -> None:
    """What is asked for under a path is guarded as it is without one."""
    add(under, "Rowan", "keeper")
    for path in ("/sandboa/api/people", "/api/people", "/sandboa//api/people"):
        answer = under.get(path, headers=UNDER)
        assert answer.status_code in (401, 404) or "<div id" in answer.text, path
    assert under.get("/sandboa/api/people", headers=UNDER).status_code == 401


def test_codes_and_links_lead_there(under: TestClient) -> None:
    lay(under)
    link = under.post("/api/calendar/link", headers={"host": "127.0.0.1"}).json()["link"]
    assert link.startswith("https://home.example/sandboa/calendar/")
