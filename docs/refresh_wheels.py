"""Writes docs/wheels.md: for which systems and Pythons each dependency has a wheel ready.

Run it after requirements.txt has changed: python -m docs.refresh_wheels. It asks the package index
that pip asks, and needs a network; nothing else of Sandboa does.
"""

import json
import re
import ssl
import sys
import urllib.request
from collections.abc import Iterable, Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Final

from packaging.requirements import Requirement
from packaging.tags import Tag, compatible_tags, cpython_tags, mac_platforms
from packaging.utils import InvalidWheelFilename, canonicalize_name, parse_wheel_filename
from pip._internal.models.index import PyPI

ROOT: Final = Path(__file__).parent.parent
PAGE: Final = ROOT / "docs" / "wheels.md"
PYTHONS: Final = ((3, 11), (3, 12), (3, 13), (3, 14))
_JSON: Final = "application/vnd.pypi.simple.v1+json"


def _manylinux(machine: str) -> list[str]:
    """From a glibc of 2022 down to one of 2012."""
    return [
        *(f"manylinux_2_{minor}_{machine}" for minor in range(36, 16, -1)),
        f"manylinux2014_{machine}",
        *(f"manylinux_2_{minor}_{machine}" for minor in range(16, 4, -1)),
    ]


def _musllinux(machine: str) -> list[str]:
    return [f"musllinux_1_{minor}_{machine}" for minor in range(2, -1, -1)]


#: Systems by the words of the table, and what their wheels are marked with.
SYSTEMS: Final[dict[str, list[str]]] = {
    "Linux x64, glibc": _manylinux("x86_64"),
    "Linux x64, musl": _musllinux("x86_64"),
    "Linux arm64, glibc": _manylinux("aarch64"),
    "Linux arm64, musl": _musllinux("aarch64"),
    "macOS arm64": list(mac_platforms((14, 0), "arm64")),
    "macOS x64": list(mac_platforms((14, 0), "x86_64")),
    "Windows x64": ["win_amd64"],
}


def tags_for(python: tuple[int, int], platforms: list[str]) -> frozenset[Tag]:
    """Every mark of a wheel that this Python takes on these platforms."""
    return frozenset(
        (
            *cpython_tags(python, platforms=platforms),
            *compatible_tags(python, f"cp{python[0]}{python[1]}", platforms),
        )
    )


def missing(files: Iterable[str], version: str) -> Iterator[tuple[str, tuple[int, int]]]:
    """The systems and Pythons for which none of the files is a wheel of that version."""
    tags: set[Tag] = set()
    for file in files:
        try:
            _, of, _, own = parse_wheel_filename(file)
        except InvalidWheelFilename:
            continue
        if str(of) == version:
            tags |= own
    for system, platforms in SYSTEMS.items():
        for python in PYTHONS:
            if not tags & tags_for(python, platforms):
                yield system, python


def pinned(text: str) -> list[tuple[str, str]]:
    """Name and version of each line of a requirements file."""
    lines = (line.partition("#")[0].strip() for line in text.splitlines())
    wanted = [Requirement(line) for line in lines if line and not line.startswith("-")]
    return [(one.name, re.sub(r"^==", "", str(one.specifier))) for one in wanted]


def files_of(name: str) -> list[str]:
    """File names of a package at the index."""
    asked = urllib.request.Request(
        f"{PyPI.simple_url}/{canonicalize_name(name)}/", headers={"Accept": _JSON}
    )
    with urllib.request.urlopen(asked, context=ssl.create_default_context(), timeout=60) as told:
        return [file["filename"] for file in json.load(told)["files"]]


def table(packages: list[tuple[str, str]], found: list[list[str]]) -> str:
    """The page: packages that lack a wheel somewhere, and how many lack none."""
    gaps = {
        f"{name} {version}": list(missing(files, version))
        for (name, version), files in zip(packages, found, strict=True)
    }
    lacking = {package: gap for package, gap in gaps.items() if gap}
    whole = len(gaps) - len(lacking)
    pythons = ", ".join(f"{major}.{minor}" for major, minor in PYTHONS)
    lines = [
        "# Wheels",
        "",
        "Written by `python -m docs.refresh_wheels`, which asks the package index that pip asks.",
        "",
        f"Of {len(gaps)} packages that Sandboa runs on, {whole} have a wheel for every system "
        f"below and Python {pythons}: nothing has to be compiled.",
        "",
        f"| package | {' | '.join(SYSTEMS)} |",
        f"| --- | {' | '.join('---' for _ in SYSTEMS)} |",
        f"| {whole} packages | {' | '.join('all' for _ in SYSTEMS)} |",
    ]
    for package, gap in sorted(lacking.items()):
        cells = []
        for system in SYSTEMS:
            without = [f"{a}.{b}" for of, (a, b) in gap if of == system]
            cells.append(f"not for {', '.join(without)}" if without else "all")
        lines.append(f"| {package} | {' | '.join(cells)} |")
    return "\n".join([*lines, ""])


def main() -> int:
    packages = pinned((ROOT / "requirements.txt").read_text(encoding="utf-8"))
    with ThreadPoolExecutor(8) as asking:
        found = list(asking.map(files_of, (name for name, _ in packages)))
    PAGE.write_text(table(packages, found), encoding="utf-8")
    print(PAGE.read_text(encoding="utf-8"))
    return 0


if __name__ == "__main__":
    sys.exit(main())
