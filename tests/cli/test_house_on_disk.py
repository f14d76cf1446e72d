"""The house's file: whole after every stop, served once, never half made."""

import os
import shutil
import signal
from collections.abc import Callable
from pathlib import Path

import httpx2 as httpx
import pytest

from forked import started
from running import running
from sandboa.cli import main
from sandboa.cli.house_folder import DATABASE
from sandboa.records.database import (
    HouseInUse,
    close_database,
    nothing_half_made,
    open_database,
)
from sandboa.records.integrity.check import check
from web.asking import LAID


def serve(folder: Path):
    return started("serve", "--data", str(folder))


def lay(base: str, dam: str) -> None:
    answer = httpx.post(f"{base}/api/clutches", json={**LAID, "dam": dam})
    assert answer.status_code == 201, answer.text


def dams(base: str) -> set[str]:
    return {a["name"] for a in httpx.get(f"{base}/api/animals").json() if a["role"] == "dam"}


@pytest.mark.parametrize("stop", [signal.SIGINT, signal.SIGTERM])
def test_after_a_stop_the_one_file_is_the_whole_house(tmp_path: Path, stop) -> None:
    house = tmp_path / "house"
    with serve(house) as (process, base):
        lay(base, "Sorrel")
        os.kill(process.pid, stop)
        process.join(20)
        assert process.exitcode == 0
    assert not list(house.glob("*-wal"))
    alone = tmp_path / "alone.sqlite3"
    shutil.copy(house / DATABASE, alone)
    assert check(alone).problems == ()
    assert "1 clutches" in check(alone).found


def test_a_backup_copied_over_the_house_is_the_house(tmp_path: Path, capsys) -> None:
    house, copy = tmp_path / "house", tmp_path / "copy.sqlite3"
    with serve(house) as (_, base):
        lay(base, "Sorrel")
        assert main(["backup", str(copy), "--data", str(house)]) == 0
        lay(base, "Tansy")
    shutil.copy(copy, house / DATABASE)
    with serve(house) as (_, base):
        assert dams(base) == {"Sorrel"}
    assert check(house / DATABASE).problems == ()


def test_one_house_has_one_server_and_the_lock_dies_with_it(tmp_path: Path, capsys) -> None:
    with serve(tmp_path) as (process, _):
        assert main(["serve", "--data", str(tmp_path), "--port", "0"]) == 2
        said = capsys.readouterr().err
        assert "another Sandboa serves the house in" in said
        assert said.count("\n") == 1
        process.kill()
        process.join(20)
    with serve(tmp_path) as (_, base):
        assert httpx.get(f"{base}/api/alive").status_code == 200


@pytest.mark.parametrize(
    "asked",
    [
        ["serve", "--host", "0.0.0.0"],
        ["serve", "--address", "https://sandboa.home"],
        ["serve", "--mqtt", "http://no-broker"],
        ["people", "Linden", "--stdin"],
        ["import", "no-such-package.zip"],
    ],
)
def test_what_is_refused_leaves_no_house(tmp_path: Path, capsys, monkeypatch, asked) -> None:
    import io
    import sys

    monkeypatch.setattr(sys, "stdin", io.StringIO("short\n"))
    folder = tmp_path / "new" / "house"
    more = ["--port", "0"] if asked[0] == "serve" else []
    assert main([*asked, "--data", str(folder), *more]) == 2
    assert capsys.readouterr().err.count("\n") == 1
    assert list(tmp_path.iterdir()) == []


def test_an_address_for_others_wants_a_keeper_as_an_open_host_does(tmp_path, capsys) -> None:
    with serve(tmp_path):
        pass
    asked = ["serve", "--data", str(tmp_path), "--port", "0", "--address", "https://sandboa.home"]
    assert main(asked) == 2
    assert "once a keeper has a passphrase" in capsys.readouterr().err
    assert (tmp_path / DATABASE).exists()


def test_a_backup_that_cannot_be_written_is_refused_in_words(tmp_path: Path, capsys) -> None:
    with serve(tmp_path / "house"):
        pass
    target = tmp_path / "missing" / "copy.sqlite3"
    assert main(["backup", str(target), "--data", str(tmp_path / "house")]) == 2
    said = capsys.readouterr().err
    assert "there is no folder" in said
    assert said.count("\n") == 1


def test_the_folder_of_the_house_is_named(tmp_path: Path, capsys, monkeypatch) -> None:
    monkeypatch.setenv("COLUMNS", "500")
    monkeypatch.setenv("SANDBOA_DATA", str(tmp_path))
    with pytest.raises(SystemExit):
        main(["serve", "--help"])
    assert "(or SANDBOA_DATA)" in capsys.readouterr().out
    # As a shell starts it: a fork has the environment of whoever forked first.
    with running("serve") as base:
        assert httpx.get(f"{base}/api/house").json()["folder"] == str(tmp_path)
    assert (tmp_path / DATABASE).exists()


def test_the_demo_opened_to_others_asks_who_they_are(tmp_path: Path) -> None:
    demo = ("demo", "--data", str(tmp_path / "demo"), "--address", "http://sandboa.home")
    with started(*demo) as (_, base):
        assert httpx.get(f"{base}/api/today").status_code == 401
        named = httpx.get(f"{base}/api/session", headers={"host": "sandboa.home"})
        assert named.json()["sign_in"] is True


def fails(path: Path, error: BaseException, made: Callable[[Callable[[], None]], None]) -> None:
    """Something goes wrong after `made` was done at the house."""
    with nothing_half_made(path) as whole:
        made(whole)
        raise error


def test_what_was_there_before_is_never_cleaned_away(tmp_path: Path) -> None:
    """A copy kept beside a house that was moved away; the folder a keeper made."""
    copy = tmp_path / f"{DATABASE}.before-0009"
    copy.write_bytes(b"all there is")
    with pytest.raises(ValueError, match="no"):
        fails(tmp_path / DATABASE, ValueError("no"), lambda _: open_database(tmp_path / DATABASE))
    assert [file.name for file in tmp_path.iterdir()] == [copy.name]
    assert copy.read_bytes() == b"all there is"


def test_a_house_once_made_outlives_whatever_ends_its_server(tmp_path: Path) -> None:
    path = tmp_path / "new" / DATABASE

    def make(whole: Callable[[], None]) -> None:
        open_database(path)
        whole()

    with pytest.raises(MemoryError):
        fails(path, MemoryError(), make)
    close_database()
    assert path.stat().st_size > 0


def test_the_house_of_another_server_is_not_cleaned_away(tmp_path: Path) -> None:
    """Made between our look for a house and our try at its lock."""
    path = tmp_path / "other" / DATABASE

    def make(_: Callable[[], None]) -> None:
        path.parent.mkdir()
        path.write_bytes(b"theirs")

    with pytest.raises(HouseInUse):
        fails(path, HouseInUse("theirs"), make)
    assert path.read_bytes() == b"theirs"
