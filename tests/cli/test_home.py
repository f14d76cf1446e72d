"""`sandboa serve --home` as a real process: https by its own authority, and the first page."""

import io
import ssl
import sys
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import httpx2 as httpx
import pytest

from forked import opened
from houses import put_empty_house
from sandboa.cli import home, main, serve
from sandboa.cli.house_folder import DATABASE
from sandboa.records.database import close_database

PHRASE = "beeswax ladder harbour mint"


@pytest.fixture
def folder(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    """A house whose keeper has a passphrase."""
    put_empty_house(tmp_path / DATABASE)
    monkeypatch.setattr(sys, "stdin", io.StringIO(f"{PHRASE}\n"))
    assert main(["people", "Keeper", "--stdin", "--data", str(tmp_path)]) == 0
    return tmp_path


def test_a_phone_takes_the_certificate_and_comes_in_by_https(folder: Path) -> None:
    asked = ("serve", "--data", str(folder), "--home", "--door", "0")
    with opened(*asked) as (_, base, _):
        assert base.startswith("https://")
        with httpx.Client(base_url=base, verify=False) as stranger:
            assert stranger.get("/api/home-network").status_code == 401
            stranger.post("/api/session", json={"name": "Keeper", "passphrase": PHRASE})
            told = stranger.get("/api/home-network").json()
        door = told["door"].replace(told["door"].split("/")[2].split(":")[0], "127.0.0.1")
        page = httpx.get(door)
        assert "Bring this phone into the house" in page.text
        assert "https:" in page.headers["content-security-policy"]
        house = httpx.get(f"{door}house.json").json()
        assert house["begins_with"] == told["certificate"]["begins_with"]
        assert any(one.startswith("https://sandboa") for one in house["addresses"])
        taken = httpx.get(f"{door}sandboa-house.crt")
        assert taken.headers["content-type"] == "application/x-x509-ca-cert"
        trusting = ssl.create_default_context(cadata=taken.content)
        with httpx.Client(base_url=base, verify=trusting) as phone:
            answer = phone.get("/trusted")
            assert answer.text == "trusted"
            assert answer.headers["cross-origin-resource-policy"] == "cross-origin"
            # Else a browser would go by https to the first page too, which has none.
            assert "strict-transport-security" not in answer.headers
            for name in told["names"]:
                assert phone.get("/trusted", headers={"host": name}).status_code == 200
            assert phone.get("/trusted", headers={"host": "bank.example"}).status_code == 400
        # It hands out nothing of the house.
        assert httpx.get(f"{door}api/today").status_code == 404
        assert httpx.post(f"{door}house.json").status_code == 405
    assert (folder / home.FOLDER / "house.pem").stat().st_mode & 0o077 == 0


def test_without_a_passphrase_nothing_is_opened_or_left_behind(tmp_path, capsys) -> None:
    assert main(["serve", "--home", "--port", "0", "--data", str(tmp_path / "house")]) == 2
    assert "once a keeper has a passphrase" in capsys.readouterr().err
    assert not (tmp_path / "house").exists()


def test_at_a_terminal_the_keeper_is_asked_for_until_it_will_do(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    answers = iter(["Rowan"])
    phrases = iter(["short", "short", PHRASE, "another", PHRASE, PHRASE])
    monkeypatch.setattr("builtins.input", lambda _: next(answers))
    monkeypatch.setattr("getpass.getpass", lambda _: next(phrases))
    monkeypatch.setattr(sys.stdin, "isatty", lambda: True)
    home.let_in_first_keeper(tmp_path / DATABASE)
    said = capsys.readouterr().out
    assert "at least 12 characters" in said
    assert "were not the same" in said
    # The second time it asks nobody.
    home.let_in_first_keeper(tmp_path / DATABASE)
    assert capsys.readouterr().out == ""
    close_database()
    assert main(["people", "--data", str(tmp_path)]) == 0
    assert "Rowan: keeper, can sign in" in capsys.readouterr().out


def test_a_terminal_that_closes_before_a_name_is_said_leaves_nothing(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    def closed(_: str) -> str:
        raise EOFError

    monkeypatch.setattr("builtins.input", closed)
    monkeypatch.setattr(sys.stdin, "isatty", lambda: True)
    asked = ["serve", "--home", "--port", "0", "--door", "0", "--data", str(tmp_path / "house")]
    assert main(asked) == 2
    assert "once a keeper has a passphrase" in capsys.readouterr().err
    assert not (tmp_path / "house").exists()


def test_a_house_that_another_serves_is_left_alone(folder: Path, capsys, monkeypatch) -> None:
    monkeypatch.setattr(serve, "let_in_first_keeper", _never)
    with opened("serve", "--data", str(folder)):
        asked = ["serve", "--home", "--port", "0", "--door", "0", "--data", str(folder)]
        assert main(asked) == 2
    assert "another Sandboa serves the house" in capsys.readouterr().err


def _never(_: Path) -> None:
    raise AssertionError("its database would be opened, and perhaps changed, under the other")


@pytest.mark.parametrize(
    ("asked", "why"),
    [
        (["--certificate", "c.pem", "--key", "k.pem"], "makes a certificate of its own"),
        (["--address", "sandboa.home"], "is not like https://"),
        (["--door", "99999"], "cannot listen on 0.0.0.0:99999"),
    ],
)
def test_a_home_it_cannot_have_is_refused_in_words(folder: Path, capsys, asked, why) -> None:
    assert main(["serve", "--home", "--port", "0", "--data", str(folder), *asked]) == 2
    said = capsys.readouterr().err
    assert why in said
    assert said.count("\n") == 1


def test_a_damaged_authority_is_refused_in_words(folder: Path, capsys) -> None:
    (folder / home.FOLDER).mkdir()
    (folder / home.FOLDER / "authority.pem").write_text("torn")
    asked = ["serve", "--home", "--port", "0", "--door", "0", "--data", str(folder)]
    # A worker that drives a browser has an event loop in its main thread, as no command has.
    with ThreadPoolExecutor(1) as apart:
        assert apart.submit(main, asked).result() == 2
    assert "every phone has to trust once more" in capsys.readouterr().err


def test_several_names_are_answered_to_and_the_first_is_on_cards(folder: Path) -> None:
    named = "http://shed.example:8350, http://sandboa.example"
    with opened("serve", "--data", str(folder), "--address", named) as (_, base, _):
        for host, status in [
            ("shed.example:8350", 200),
            ("sandboa.example", 200),
            ("other.example", 400),
            ("192.168.1.9", 200),
        ]:
            assert httpx.get(f"{base}/healthz", headers={"host": host}).status_code == status
