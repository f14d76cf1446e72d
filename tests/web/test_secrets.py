"""Secrets of the house: sealed, told to nobody, gone when removed, asked for again elsewhere."""

import io
import json
import zipfile
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from sandboa.formats.data_package import read_package
from sandboa.records.alarms import Messenger
from sandboa.records.database import close_database, house_file, open_database
from sandboa.records.secret_box import KEY_FILE
from sandboa.services.alarms.delivery import NotSent, target_of
from web.test_people import add, sign_in

HOOK = {
    "kind": "webhook", "name": "Bell", "zone": "Europe/Berlin",
    "target": {"url": "https://example.org/hooks/T0KEN-in-path", "secret": "hush-hush"},
}  # fmt: skip


def house_file_bytes() -> bytes:
    """Everything SQLite has on disk, its log and what it deleted included."""
    return b"".join(f.read_bytes() for f in house_file().parent.glob("house.sqlite3*"))


def test_secrets_are_on_disk_sealed_and_in_no_export(http: TestClient) -> None:
    http.post("/api/messengers", json=HOOK).raise_for_status()
    (bell,) = Messenger.current()
    assert target_of(bell)["secret"] == "hush-hush"
    content = house_file_bytes()
    assert b"hush-hush" not in content
    assert b"T0KEN" not in content
    assert (house_file().with_name(KEY_FILE).stat().st_mode & 0o777) == 0o600
    package = http.get("/api/house/package").content
    with zipfile.ZipFile(io.BytesIO(package)) as opened:
        told = b"".join(opened.read(name) for name in opened.namelist())
        assert not [name for name in opened.namelist() if "secret" in name or "key" in name]
    assert b"T0KEN" not in told
    assert b"hush" not in told


def test_what_is_removed_is_gone_and_undo_brings_no_secret_back(http: TestClient) -> None:
    http.post("/api/messengers", json=HOOK).raise_for_status()
    (bell,) = http.get("/api/messengers").json()
    gone = http.delete(f"/api/messengers/{bell['id']}").json()
    assert http.post(f"/api/acts/{gone['id']}/undo").is_success
    (back,) = http.get("/api/messengers").json()
    assert back["lacking"] == ["secret", "url"]
    tried = http.post(f"/api/messengers/{bell['id']}/trial").json()
    assert tried["sent"] is False
    assert "give it again in Settings" in tried["outcome"]
    http.put(f"/api/messengers/{bell['id']}", json=HOOK).raise_for_status()
    assert http.get("/api/messengers").json()[0]["lacking"] == []


def test_the_secret_given_last_holds_whatever_is_undone(http: TestClient) -> None:
    http.post("/api/messengers", json=HOOK).raise_for_status()
    (bell,) = http.get("/api/messengers").json()
    changed = {**HOOK, "target": {**HOOK["target"], "secret": "newer"}}
    act = http.put(f"/api/messengers/{bell['id']}", json=changed).json()
    http.post(f"/api/acts/{act['id']}/undo").raise_for_status()
    assert target_of(Messenger.current()[0])["secret"] == "newer"


def test_only_keepers_see_where_messages_go(http: TestClient) -> None:
    http.post("/api/messengers", json=HOOK).raise_for_status()
    (bell,) = http.get("/api/messengers").json()
    assert bell["target"]["url"] == HOOK["target"]["url"]
    assert bell["target"]["secret"] == "set"
    http.post(f"/api/messengers/{bell['id']}/trial").raise_for_status()
    add(http, "Rowan", "keeper")
    sign_in(http, "Rowan")
    add(http, "Linden", "helper")
    add(http, "Aspen", "visitor")
    for name in ("Linden", "Aspen"):
        other = TestClient(http.app)
        sign_in(other, name)
        (seen,) = other.get("/api/messengers").json()
        assert (seen["name"], seen["target"], seen["failure"]) == ("Bell", {}, None)
        assert "example.org" not in json.dumps(other.get("/api/messengers/messages").json())


def test_a_house_taken_in_elsewhere_asks_for_its_secrets_again(
    http: TestClient, tmp_path: Path
) -> None:
    http.post("/api/messengers", json=HOOK).raise_for_status()
    package = io.BytesIO(http.get("/api/house/package").content)
    close_database()
    open_database(tmp_path / "elsewhere" / "house.sqlite3")
    read_package(package)
    (bell,) = Messenger.current()
    with pytest.raises(NotSent, match="give it again in Settings"):
        target_of(bell)
