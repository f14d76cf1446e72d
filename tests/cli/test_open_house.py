"""`sandboa people` and a house opened to other machines, as real processes."""

import argparse
import io
import ssl
import sys
from pathlib import Path

import httpx2 as httpx
import pytest
import trustme

from forked import started
from sandboa.cli import main
from sandboa.cli.place import place_of
from sandboa.records.database import database

PHRASE = "beeswax ladder harbour mint"


def give_passphrase(folder: Path, name: str, monkeypatch, role: str | None = "keeper") -> int:
    monkeypatch.setattr(sys, "stdin", io.StringIO(f"{PHRASE}\n"))
    told = ["--role", role] if role else []
    code = main(["people", name, *told, "--stdin", "--data", str(folder)])
    database.close()
    return code


def test_a_keeper_is_added_with_a_passphrase_and_listed(tmp_path, capsys, monkeypatch) -> None:
    assert give_passphrase(tmp_path, "Rowan", monkeypatch) == 0
    assert "signs in with it" in capsys.readouterr().out
    # Once more: the way back in when it is forgotten.
    assert give_passphrase(tmp_path, "rowan", monkeypatch) == 0
    capsys.readouterr()
    assert main(["people", "--data", str(tmp_path)]) == 0
    assert capsys.readouterr().out == "Rowan: keeper, can sign in\n"
    database.close()


def test_a_role_that_is_told_is_the_role_from_then_on(tmp_path, capsys, monkeypatch) -> None:
    give_passphrase(tmp_path, "Rowan", monkeypatch)
    give_passphrase(tmp_path, "Linden", monkeypatch, "helper")
    # A new passphrase alone leaves the role as it is.
    give_passphrase(tmp_path, "Linden", monkeypatch, None)
    assert main(["people", "--data", str(tmp_path)]) == 0
    assert "Linden: helper" in capsys.readouterr().out
    database.close()
    assert give_passphrase(tmp_path, "Linden", monkeypatch, "visitor") == 0
    # The last keeper stays one, by the command line too.
    assert give_passphrase(tmp_path, "Rowan", monkeypatch, "helper") == 2
    assert "somebody must stay keeper" in capsys.readouterr().err
    assert main(["people", "--data", str(tmp_path)]) == 0
    assert capsys.readouterr().out.splitlines() == [
        "Linden: visitor, can sign in",
        "Rowan: keeper, can sign in",
    ]
    database.close()


def test_refusals_are_one_line(tmp_path, capsys, monkeypatch) -> None:
    assert give_passphrase(tmp_path, "Linden", monkeypatch, "helper") == 2
    assert "a house is a keeper's" in capsys.readouterr().err
    monkeypatch.setattr(sys, "stdin", io.StringIO("short\n"))
    assert main(["people", "Rowan", "--stdin", "--data", str(tmp_path)]) == 2
    assert "at least 12 characters" in capsys.readouterr().err
    assert main(["people", "--data", str(tmp_path / "none")]) == 2
    assert "no house" in capsys.readouterr().err


@pytest.mark.parametrize(
    ("asked", "why"),
    [
        (["--host", "0.0.0.0"], "once a keeper has a passphrase"),
        (["--certificate", "no.pem"], "belong together"),
        (["--certificate", "no.pem", "--key", "no.pem"], "no certificate and its key"),
        (["--address", "sandboa.home"], "is not like https://"),
        (["--address", 'https://sandboa.home/"><script>'], "is not like https://"),
        (["--address", "https://sandboa.home//other.example"], "is not like https://"),
    ],
)
def test_a_place_it_cannot_be_at_is_refused(tmp_path, capsys, asked, why) -> None:
    assert main(["serve", "--data", str(tmp_path), "--port", "0", *asked]) == 2
    said = capsys.readouterr().err
    assert why in said
    assert said.count("\n") == 1


def test_opened_to_others_by_https_it_lets_in_who_signs_in(tmp_path, monkeypatch) -> None:
    give_passphrase(tmp_path / "house", "Rowan", monkeypatch)
    authority = trustme.CA()
    own = authority.issue_cert("127.0.0.1")
    certificate, key, trusted = (str(tmp_path / n) for n in ("c.pem", "k.pem", "ca.pem"))
    own.cert_chain_pems[0].write_to_path(certificate)
    own.private_key_pem.write_to_path(key)
    authority.cert_pem.write_to_path(trusted)
    asked = (
        "serve", "--data", str(tmp_path / "house"), "--host", "0.0.0.0",
        "--certificate", certificate, "--key", key,
    )  # fmt: skip
    with started(*asked) as (_, base):
        assert base.startswith("https://127.0.0.1:")
        with httpx.Client(base_url=base, verify=_trusting(trusted)) as phone:
            assert phone.get("/api/today").status_code == 401
            said = {"name": "Rowan", "passphrase": PHRASE}
            answer = phone.post("/api/session", json=said)
            assert answer.status_code == 204
            assert "secure" in answer.headers["set-cookie"].lower()
            assert phone.get("/api/today").status_code == 200


def _trusting(authority: str) -> ssl.SSLContext:
    return ssl.create_default_context(cafile=authority)


def test_an_address_may_have_a_path() -> None:
    asked = argparse.Namespace(
        address="https://home.example/sandboa/, https://shed.local:8350", proxy=None,
        certificate=None, key=None, host="127.0.0.1", port=0,
    )  # fmt: skip
    reach = place_of(asked).reach(8350)
    assert reach.address == "https://home.example/sandboa"
    assert dict(reach.paths) == {"home.example": "/sandboa"}
    assert {"home.example", "shed.local"} <= reach.answers_to()
