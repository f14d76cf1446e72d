"""Every template there is, read from the source: what a translation would have to say.

`Message` is always called with a literal, so nothing has to be run to find them.
"""

import ast
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Final

import sandboa

_PACKAGE: Final = Path(sandboa.__file__).parent
#: What makes messages out of others, and says none of its own.
_MAKERS: Final = frozenset({"core/messages.py"})


@dataclass(frozen=True, slots=True)
class Template:
    """A template, where it is said ("core/causes/by_heat.py:55"), and what fills each place.

    `values` has the name of a quantity ("Temperature"), or "text" for all else.
    """

    text: str
    places: tuple[str, ...]
    values: tuple[tuple[str, str], ...]


def templates() -> list[Template]:
    """Every template, by where it is said first.

    Raises ValueError for a message whose template is no literal.
    """
    found: dict[str, Template] = {}
    for path in sorted(_PACKAGE.rglob("*.py")):
        module = path.relative_to(_PACKAGE).as_posix()
        if module in _MAKERS:
            continue
        for said in _said_in(path, module):
            held = found.get(said.text)
            found[said.text] = (
                said
                if held is None
                else Template(said.text, held.places + said.places, held.values)
            )
    return list(found.values())


def _said_in(path: Path, module: str) -> Iterator[Template]:
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if not (isinstance(node, ast.Call) and getattr(node.func, "id", "") == "Message"):
            continue
        place = f"{module}:{node.lineno}"
        first = node.args[0] if node.args else None
        if not isinstance(first, ast.Constant) or not isinstance(first.value, str):
            raise ValueError(f"{place}: a message begins with its template, as a literal")
        values = tuple((k.arg, _kind(k.value)) for k in node.keywords if k.arg is not None)
        yield Template(first.value, (place,), values)


def _kind(value: ast.expr) -> str:
    name = getattr(value.func, "id", "") if isinstance(value, ast.Call) else ""
    return name if name[:1].isupper() else "text"
