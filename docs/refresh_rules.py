"""Writes the tables of docs/rules.md from the core: each number with its unit, meaning and file.

Run by `./do rules`; tests/documents/test_rules.py compares what lies there with what it writes.
"""

import ast
import dataclasses
import enum
import importlib
import re
from collections.abc import Iterator, Mapping
from pathlib import Path
from typing import Any, Final

from sandboa.core.causes.scores import STARTS
from sandboa.core.standing.signs import SIGNS, Sign
from sandboa.core.water.mixing import MEDIA

ROOT: Final = Path(__file__).parent.parent
RULES: Final = ROOT / "docs" / "rules.md"
#: No egg gets that far: a sign that ends there has no end.
_ANY_SHARE: Final = 2.0
_CORE: Final = ROOT / "src" / "sandboa" / "core"

_NUMBERS: Final = re.compile(r"<!-- numbers: (?P<what>[^>]*) -->\n(?:\n\|[^\n]*(?:\n\|[^\n]*)*\n)?")
_NAMED: Final = re.compile(
    r"<!-- (?P<what>signs|media|causes) -->\n(?:\n\|[^\n]*(?:\n\|[^\n]*)*\n)?"
)


def refreshed(text: str) -> str:
    """The rules with every table as the core has it."""
    text = _NUMBERS.sub(lambda m: _block(f"numbers: {m['what']}", _numbers(m["what"])), text)
    return _NAMED.sub(lambda m: _block(m["what"], _NAMED_TABLES[m["what"]]()), text)


def prose(text: str) -> str:
    """The rules without the tables that are written here."""
    return _NAMED.sub("", _NUMBERS.sub("", text))


def _block(marker: str, table: list[str]) -> str:
    return f"<!-- {marker} -->\n\n" + "\n".join(table) + "\n"


def _numbers(what: str) -> list[str]:
    rows = [row for source in what.split() for row in _rows(source)]
    return ["| number | value | what | where |", "| --- | --- | --- | --- |", *rows]


def _rows(source: str) -> Iterator[str]:
    """A row for each public number of a file, or of those named after its colon."""
    file, _, names = source.partition(":")
    wanted = names.split(",") if names else None
    module = importlib.import_module("sandboa.core." + file.removesuffix(".py").replace("/", "."))
    for name, comment in _constants(_CORE / file):
        value = getattr(module, name)
        if (wanted is None or name in wanted) and _is_number(value):
            yield f"| `{name}` | {_told(value)} | {comment} | core/{file} |"


def _constants(file: Path) -> Iterator[tuple[str, str]]:
    """Public constants of a file with what their comment says of them."""
    text = file.read_text()
    lines = text.split("\n")
    comment = ""
    for node in ast.parse(text).body:
        if not isinstance(node, ast.AnnAssign) or not isinstance(node.target, ast.Name):
            continue
        own, at = [], node.lineno - 2
        while at >= 0 and lines[at].startswith("#:"):
            own.insert(0, lines[at].removeprefix("#:").strip())
            at -= 1
        # One comment may stand above several numbers that belong together.
        comment = " ".join(own) if own else comment
        if node.target.id.isupper() and not node.target.id.startswith("_"):
            yield node.target.id, comment.replace("|", "or")


def _is_number(value: Any) -> bool:
    if isinstance(value, bool | str):
        return False
    if isinstance(value, int | float) or value is None:
        return True
    if isinstance(value, tuple):
        return bool(value) and all(_is_number(part) for part in value)
    if isinstance(value, Mapping):
        return bool(value) and all(_is_number(part) for part in value.values())
    if type(value).__name__.endswith("Rules") or type(value).__name__.endswith("Limits"):
        return False  # a bundle of numbers that stand in the table each by themselves
    if dataclasses.is_dataclass(value):
        return all(_is_number(getattr(value, f.name)) for f in dataclasses.fields(value))
    return False


def _told(value: Any) -> str:
    if value is None:
        return "none"
    if isinstance(value, int | float):
        return f"{value:,.6g}" if abs(value) < 1e6 else f"{value:,.0f}"
    if isinstance(value, tuple):
        parts = (f"({_told(part)})" if isinstance(part, tuple) else _told(part) for part in value)
        return ", ".join(parts)
    if isinstance(value, Mapping):
        return "; ".join(f"{_key(key)}: {_told(part)}" for key, part in value.items())
    return "; ".join(f"{f.name} {_told(getattr(value, f.name))}" for f in dataclasses.fields(value))


def _key(key: Any) -> str:
    if isinstance(key, tuple):
        return " ".join(_key(part) for part in key)
    return str(key.value) if isinstance(key, enum.Enum) else str(key)


def _signs() -> list[str]:
    rows = [
        f"| {sign.kind}: {sign.value} | {sign.weight:+g} | {_limits(sign)} |"
        for sign in SIGNS.values()
    ]
    return ["| sign | weight | holds |", "| --- | --- | --- |", *rows]


def _limits(sign: Sign) -> str:
    """The stage at which a sign holds, and for how long, in words."""
    told = []
    if sign.from_share > 0.0:
        told.append(f"from p = {sign.from_share:g}")
    if sign.until_share < _ANY_SHARE:
        told.append(f"until p = {sign.until_share:g}")
    if sign.from_day > 0.0:
        told.append(f"from day {sign.from_day:g}")
    return ", ".join(told) or "always"


def _media() -> list[str]:
    rows = []
    for medium in MEDIA:
        held = {f.name: getattr(medium, f.name) for f in dataclasses.fields(medium)}
        told = [f"{name} {_told(value)}" for name, value in held.items() if _is_number(value)]
        rows.append(f"| {medium.name} | {'; '.join(told)} |")
    return ["| medium | numbers |", "| --- | --- |", *rows]


def _causes() -> list[str]:
    rows = [f"| {cause.value} | {score:g} |" for cause, score in STARTS.items()]
    return ["| cause | log score before anything is known |", "| --- | --- |", *rows]


_NAMED_TABLES: Final = {"signs": _signs, "media": _media, "causes": _causes}


if __name__ == "__main__":
    RULES.write_text(refreshed(RULES.read_text()))
