"""Flags said by the environment and by the one file, and a unit for systemd."""

import os
import subprocess
from pathlib import Path

import httpx2 as httpx
import pytest

from forked import opened
from houses import put_empty_house
from sandboa.cli import _parser, main
from sandboa.cli.environment import variable
from sandboa.cli.house_folder import DATABASE
from sandboa.cli.service import unit
from sandboa.core.errors import NotPlausible


@pytest.fixture(autouse=True)
def nothing_said(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    for name in [one for one in os.environ if one.startswith("SANDBOA_")]:
        monkeypatch.delenv(name)
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path / "config"))


def asked_of(*arguments: str) -> dict[str, object]:
    return vars(_parser(arguments).parse_args(list(arguments)))


#: A value of each flag of `serve`, as it is said in a file, and as the command has it then.
SAID = {
    "data": ('"/srv/house"', Path("/srv/house")),
    "unit": ('"F"', "F"),
    "mqtt": ('"mqtt://broker.lan"', "mqtt://broker.lan"),
    "broker": ("1884", 1884),
    "mqtt_password": ('"lamp"', "lamp"),
    "mqtt_password_file": ('"secret"', Path("secret")),
    "mqtt_authority": ('"ca.pem"', Path("ca.pem")),
    "backups": ('"/mnt/stick"', Path("/mnt/stick")),
    "log": ('"/var/log/sandboa.log"', Path("/var/log/sandboa.log")),
    "host": ('"0.0.0.0"', "0.0.0.0"),
    "port": ("9000", 9000),
    "address": ('["https://a.lan", "https://b.lan"]', "https://a.lan,https://b.lan"),
    "proxy": ('"10.0.0.2"', "10.0.0.2"),
    "certificate": ('"c.pem"', Path("c.pem")),
    "key": ('"k.pem"', Path("k.pem")),
    "home": ("true", True),
    "door": ("9001", 9001),
}


def test_every_flag_of_serve_has_a_value_here() -> None:
    flags = set(asked_of("serve")) - {"command", "run"}
    assert flags == set(SAID)


@pytest.mark.parametrize("flag", SAID)
def test_a_flag_is_said_by_a_variable_and_by_a_line_of_the_file(
    flag: str, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    line, meant = SAID[flag]
    before = asked_of("serve")[flag]
    assert before != meant
    file = tmp_path / "config" / "sandboa" / "sandboa.toml"
    file.parent.mkdir(parents=True)
    file.write_text(f"{flag.replace('_', '-')} = {line}\n")
    monkeypatch.setenv("SANDBOA_CONFIG", str(file))
    assert asked_of("serve")[flag] == meant
    # The environment counts before the file.
    word = {"true": "no"}.get(line, {int: "77"}.get(type(meant), "C" if flag == "unit" else "x"))
    monkeypatch.setenv(variable(flag), word)
    other = asked_of("serve")[flag]
    assert other != meant
    assert str(other) in (word, "False")


def test_what_is_typed_counts_first(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("SANDBOA_PORT", "9000")
    monkeypatch.setenv("SANDBOA_HOME", "yes")
    told = asked_of("serve", "--port", "9001", "--no-home")
    assert (told["port"], told["home"]) == (9001, False)


def test_a_demo_makes_its_own_house_whatever_is_said(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("SANDBOA_DATA", "/srv/house")
    assert asked_of("demo")["data"] is None
    assert asked_of("check")["data"] == Path("/srv/house")


@pytest.mark.parametrize(
    ("name", "value", "why"),
    [
        ("SANDBOA_PORT", "many", 'SANDBOA_PORT is "many", which cannot be taken'),
        ("SANDBOA_HOME", "perhaps", "say yes or no"),
        ("SANDBOA_UNIT", "K", "say one of C, F"),
        ("SANDBOA_CONFIG", "/nowhere/sandboa.toml", "which is no file"),
    ],
)
def test_what_cannot_be_taken_is_refused_in_a_line(
    name: str,
    value: str,
    why: str,
    monkeypatch: pytest.MonkeyPatch,
    capsys: pytest.CaptureFixture[str],
) -> None:
    monkeypatch.setenv(name, value)
    with pytest.raises(SystemExit) as ended:
        main(["serve"])
    assert ended.value.code == 2
    said = capsys.readouterr().err
    assert why in said
    assert said.count("\n") == 1


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("prot = 9000\n", '"prot"; it may say: address,'),
        ("port = \n", "cannot be read"),
        ("\xff", "cannot be read"),
    ],
)
def test_a_slip_in_the_file_does_not_pass_unseen(
    text: str,
    why: str,
    monkeypatch: pytest.MonkeyPatch,
    tmp_path: Path,
    capsys: pytest.CaptureFixture[str],
) -> None:
    file = tmp_path / "s.toml"
    file.write_bytes(text.encode("latin-1"))
    monkeypatch.setenv("SANDBOA_CONFIG", str(file))
    with pytest.raises(SystemExit):
        main(["serve"])
    assert why in capsys.readouterr().err


@pytest.mark.parametrize("user", [None, "root"])
def test_systemd_takes_the_unit_without_a_word(
    tmp_path: Path,
    user: str | None,
    monkeypatch: pytest.MonkeyPatch,
    capsys: pytest.CaptureFixture[str],
) -> None:
    folder = tmp_path / 'a house, 100 % "mine" $HOME'
    system = ["--system", user] if user else []
    monkeypatch.setattr("sys.argv", ["/bin/true"])
    assert main(["service", "--data", str(folder), *system, "--", "--home", "--port", "8400"]) == 0
    written = tmp_path / "sandboa.service"
    written.write_text(capsys.readouterr().out)
    assert '"serve" "--home" "--port" "8400"' in written.read_text()
    (tmp_path / "run").mkdir()
    own = [] if user else ["--user"]
    looked = subprocess.run(
        ["systemd-analyze", *own, "verify", str(written)],
        capture_output=True,
        text=True,
        env={**os.environ, "XDG_RUNTIME_DIR": str(tmp_path / "run")},
        check=False,
    )
    # It warns of a key it does not know and still ends well.
    assert (looked.returncode, looked.stderr) == (0, "")


def test_a_line_break_makes_no_second_command() -> None:
    with pytest.raises(NotPlausible, match="line break"):
        unit("/bin/sandboa", Path("/srv"), ["--home\nExecStart=/bin/evil"], None)


def test_the_house_keeps_a_log_with_times_beside_itself(tmp_path: Path) -> None:
    put_empty_house(tmp_path / DATABASE)
    with opened("serve", "--data", str(tmp_path)) as (process, base, _):
        told = httpx.get(f"{base}/api/house/log").json()
        assert told["file"] == str(tmp_path / "sandboa.log")
        assert any("began at" in line and line[:2] == "20" for line in told["lines"])
        process.terminate()
        process.join(20)
    assert "the house is closed" in (tmp_path / "sandboa.log").read_text()


def test_a_log_that_cannot_be_kept_is_no_reason_not_to_run(tmp_path: Path) -> None:
    put_empty_house(tmp_path / DATABASE)
    nowhere = tmp_path / "none" / "sandboa.log"
    with opened("serve", "--data", str(tmp_path), "--log", str(nowhere)) as (_, base, _):
        assert httpx.get(f"{base}/api/house/log").json() == {"file": str(nowhere), "lines": []}
