"""What a reverse proxy says of a request counts when the proxy was named, and else not."""

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
from web.asking import LAID, problem

NAMED = "home.example"
PROXY = "192.0.2.7"
#: As a proxy asks that names itself in Host, and says beside it what was asked for.
HANDED_ON = {
    "host": "127.0.0.1:8350",
    "x-forwarded-host": NAMED,
    "x-forwarded-proto": "https",
    "x-forwarded-for": "127.0.0.1",
}
REACH = Reach(
    f"https://{NAMED}/sandboa",
    frozenset({NAMED}),
    paths={NAMED: "/sandboa"},
    proxies=frozenset({PROXY}),
)


@pytest.fixture
def app(tmp_path: Path):
    return create_app(put_empty_house(tmp_path / DATABASE), StoppedClock(NOW_S), reach=REACH)


@pytest.fixture
def proxy(app) -> Iterator[TestClient]:
    with TestClient(app, base_url="http://127.0.0.1", client=(PROXY, 50_000)) as client:
        yield client


@pytest.fixture
def stranger(app) -> Iterator[TestClient]:
    with TestClient(app, base_url="http://127.0.0.1", client=("192.0.2.8", 50_000)) as client:
        yield client


def test_the_name_that_was_asked_for_is_taken_from_a_named_proxy(proxy: TestClient) -> None:
    page = proxy.get("/round", headers=HANDED_ON)
    assert '<meta name="sandboa-path" content="/sandboa" />' in page.text


def test_of_several_proxies_in_a_row_the_first_heard_the_name(proxy: TestClient) -> None:
    chain = {**HANDED_ON, "x-forwarded-host": f"{NAMED}, inner.example"}
    assert 'content="/sandboa"' in proxy.get("/round", headers=chain).text


def test_a_name_the_house_does_not_have_is_refused_from_a_named_proxy_too(
    proxy: TestClient,
) -> None:
    told = proxy.get("/api/alive", headers={**HANDED_ON, "x-forwarded-host": "elsewhere.example"})
    problem(told, 400)


@pytest.mark.parametrize("host", ["", "  ", "\x00", "a" * 5000])
def test_a_name_that_is_none_does_no_harm(proxy: TestClient, host: str) -> None:
    assert proxy.get("/api/alive", headers={**HANDED_ON, "x-forwarded-host": host}).status_code in (
        200,
        400,
    )


def test_anybody_elses_word_is_not_taken(stranger: TestClient) -> None:
    page = stranger.get("/round", headers=HANDED_ON)
    assert 'content="/sandboa"' not in page.text
    elsewhere = {**HANDED_ON, "host": "elsewhere.example"}
    problem(stranger.get("/api/alive", headers=elsewhere), 400)


def test_a_page_under_the_name_may_write_and_a_page_of_another_may_not(proxy: TestClient) -> None:
    """Older browsers say where a page is from in Origin alone."""
    own = {**HANDED_ON, "origin": f"https://{NAMED}"}
    # There is no passphrase yet, so that it is not refused for its page but for that.
    assert (
        "passphrase" in problem(proxy.post("/api/clutches", json=LAID, headers=own), 403)["detail"]
    )
    other = {**HANDED_ON, "origin": "https://elsewhere.example"}
    refused = proxy.post("/api/clutches", json=LAID, headers=other)
    assert "another site" in problem(refused, 403)["detail"]
