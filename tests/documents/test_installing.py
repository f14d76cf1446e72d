"""Installing: the table of wheels, the image's file and the compose example say what is so."""

import re
import shlex
from pathlib import Path

import pytest
from docs.refresh_wheels import PAGE, PYTHONS, SYSTEMS, missing, pinned, table

from sandboa.cli import _parser
from sandboa.cli.environment import variable

ROOT = Path(__file__).parent.parent.parent


def test_the_table_is_of_what_is_required_now() -> None:
    packages = pinned((ROOT / "requirements.txt").read_text())
    text = PAGE.read_text()
    assert f"Of {len(packages)} packages" in text
    named = dict(re.findall(r"^\| ([\w.-]+) ([\d.]+) \|", text, re.MULTILINE))
    assert named.items() <= dict(packages).items()


@pytest.mark.parametrize(
    ("files", "lacking"),
    [
        (["x-1.0-py3-none-any.whl"], set()),
        (["x-1.0.tar.gz"], set(SYSTEMS)),
        (["x-0.9-py3-none-any.whl", "no wheel.whl"], set(SYSTEMS)),
        (["x-1.0-cp311-abi3-manylinux_2_28_x86_64.whl"], set(SYSTEMS) - {"Linux x64, glibc"}),
        (
            ["x-1.0-cp310-abi3-musllinux_1_2_aarch64.whl", "x-1.0-cp39-abi3-win_amd64.whl"],
            set(SYSTEMS) - {"Linux arm64, musl", "Windows x64"},
        ),
        (["x-1.0-cp311-abi3-macosx_10_9_universal2.whl"], {s for s in SYSTEMS if "mac" not in s}),
    ],
)
def test_a_system_without_a_wheel_is_found(files: list[str], lacking: set[str]) -> None:
    assert {system for system, _ in missing(files, "1.0")} == lacking


def test_a_wheel_of_one_python_is_no_wheel_of_another() -> None:
    gap = list(missing(["x-1.0-cp313-cp313-win_amd64.whl"], "1.0"))
    assert [p for system, p in gap if system == "Windows x64"] == [
        p for p in PYTHONS if p != (3, 13)
    ]
    assert "not for 3.11, 3.12, 3.14 |" in table(
        [("x", "1.0")], [["x-1.0-cp313-cp313-win_amd64.whl"]]
    )


def test_the_image_takes_what_is_there_and_says_what_the_command_takes() -> None:
    text = (ROOT / "Containerfile").read_text()
    for line in re.findall(r"^COPY (?!--from)(.*)$", text, re.MULTILINE):
        for source in shlex.split(line)[:-1]:
            assert (ROOT / source).exists(), source
    known = {variable(flag) for flag in _flags("serve")}
    said = set(re.findall(r"SANDBOA_[A-Z]+", text + (ROOT / "compose.yaml").read_text()))
    assert said <= known
    for port in re.findall(r"^EXPOSE (.*)$", text, re.MULTILINE)[0].split():
        assert int(port) in {
            vars(_parser(["serve"]).parse_args(["serve"]))[p] for p in ("port", "door")
        }


def _flags(command: str) -> list[str]:
    told = vars(_parser([command]).parse_args([command]))
    return [f"--{name.replace('_', '-')}" for name in told]
