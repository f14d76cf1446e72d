"""`./do accuracy [PART ...]`: measures how good it is, and writes docs/accuracy.md.

Each part carries the date, the version and a hash of the rules it speaks of; a test fails where
the rules have changed since. Comments and docstrings are no rules.
"""

import ast
import hashlib
import re
import sys
from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime
from importlib.metadata import version
from pathlib import Path

from benchmarks import causes, egg_standings, faults, rounds
from benchmarks.forecast_worlds import report as forecast_worlds

ROOT = Path(__file__).parents[1]
PAGE = ROOT / "docs" / "accuracy.md"
CORE = ROOT / "src" / "sandboa" / "core"


@dataclass(frozen=True)
class Part:
    """What is measured, from which seeds, and the folders of core/ whose rules it speaks of."""

    report: Callable[[], str]
    seeds: str
    rules: tuple[str, ...]


PARTS = {
    "forecasts": Part(
        forecast_worlds.report, f"seeds {forecast_worlds.FIRST_SEED:,} on", ("development",)
    ),
    "cabinets": Part(faults.report, "seeds of its own", ("climate/faults",)),
    "water": Part(
        lambda: "\n".join(rounds.drying()), f"seeds {rounds.FIRST_SEED:,} on", ("water",)
    ),
    "eggs": Part(
        lambda: "\n".join(egg_standings.report()),
        f"seeds {egg_standings.FIRST_SEED:,} on",
        ("standing", "dimples"),
    ),
    "causes": Part(causes.report, f"seeds {causes.FIRST_SEED:,} on", ("causes",)),
}


def rules_hash(folders: tuple[str, ...]) -> str:
    """Of what the code under those folders of core/ does: words in it do not count."""
    told = hashlib.sha256()
    for folder in folders:
        for file in sorted((CORE / folder).rglob("*.py")):
            told.update(str(file.relative_to(CORE)).encode())
            told.update(ast.dump(_wordless(ast.parse(file.read_text(encoding="utf-8")))).encode())
    return told.hexdigest()[:12]


def _wordless(tree: ast.Module) -> ast.Module:
    """The tree without docstrings."""
    for node in ast.walk(tree):
        if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef) and ast.get_docstring(
            node
        ):
            node.body = node.body[1:] or [ast.Pass()]
    return tree


def written(page: str, name: str, report: str, today: str) -> str:
    """The page with what was measured of one part; ValueError where it has no place for it."""
    part = PARTS[name]
    block = (
        f"<!-- measured: {name} -->\n\n"
        f"Measured on {today} by `./do accuracy {name}`, version {version('sandboa')}, "
        f"rules {rules_hash(part.rules)}, {part.seeds}.\n\n"
        f"```text\n{report.rstrip()}\n```\n\n"
        f"<!-- end: {name} -->"
    )
    found = _place(name).subn(lambda _: block, page)
    if not found[1]:
        raise ValueError(f"{PAGE.name} has no place for {name}")
    return found[0]


def measured_rules(page: str) -> dict[str, str]:
    """By part, the hash of the rules it was measured with."""
    return {
        name: told[1]
        for name in PARTS
        if (block := _place(name).search(page)) and (told := re.search(r"rules (\w+)", block[0]))
    }


def _place(name: str) -> re.Pattern[str]:
    return re.compile(rf"<!-- measured: {name} -->.*?<!-- end: {name} -->", re.DOTALL)


def main(names: list[str]) -> int:
    """Measure the parts that were asked for, else those whose rules have changed."""
    unknown = [name for name in names if name not in PARTS]
    if unknown:
        sys.stderr.write(f"no part {unknown[0]}; there is: {', '.join(PARTS)}\n")
        return 2
    held = measured_rules(PAGE.read_text(encoding="utf-8"))
    stale = [name for name, part in PARTS.items() if held.get(name) != rules_hash(part.rules)]
    for name in names or stale:
        report = PARTS[name].report()
        page = PAGE.read_text(encoding="utf-8")
        today = datetime.now(UTC).strftime("%-d %B %Y")
        PAGE.write_text(written(page, name, report, today), encoding="utf-8")
        print(f"{name}: written", flush=True)
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
