"""`./do mutate`: small slips put into the core one at a time; do the tests notice?

Cosmic Ray makes the slips (a number moved, a comparison turned, `and` for `or`). A
sample of them, the same for the same seed, goes into a copy of the tree, and the tests
that reach the changed module run there until one fails. What survives is a line that no
test holds.
"""

import argparse
import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any, Final

from cosmic_ray.commands.init import _all_work_items
from cosmic_ray.mutating import use_mutation
from cosmic_ray.plugins import get_operator

_ROOT: Final = Path(__file__).parent.parent
_CORE: Final = Path("src/sandboa/core")
#: Kinds of slips that are made: others turn types and decorators, which mypy sees.
_KINDS: Final = (
    "core/NumberReplacer", "core/ReplaceAndWithOr",
    *(
        f"core/ReplaceComparisonOperator_{pair}"
        for pair in (
            "Lt_LtE", "LtE_Lt", "Gt_GtE", "GtE_Gt", "Lt_GtE", "GtE_Lt", "Gt_LtE", "LtE_Gt",
            "Eq_NotEq", "NotEq_Eq", "Is_IsNot", "IsNot_Is",
        )
    ),
    "core/ReplaceOrWithAnd", "core/AddNot", "core/ReplaceTrueWithFalse",
    "core/ReplaceFalseWithTrue", "core/ReplaceBinaryOperator_Add_Sub",
    "core/ReplaceBinaryOperator_Sub_Add", "core/ReplaceBinaryOperator_Mul_Div",
    "core/ReplaceBinaryOperator_Div_Mul", "core/ReplaceUnaryOperator_Delete_Not",
    "core/ReplaceUnaryOperator_USub_UAdd",
)  # fmt: skip
#: s after which tests that hang count as having noticed.
_PATIENCE_S: Final = 600.0


@dataclass(frozen=True)
class Slip:
    """A mutation: where, of which kind, and which of those in its file."""

    module: Path
    kind: str
    arguments: dict[str, Any]
    occurrence: int
    line: int


def main(arguments: list[str]) -> int:
    """Print the score, and every slip that no test noticed; returns 1 when there is one."""
    parser = argparse.ArgumentParser(prog="./do mutate", description=__doc__)
    parser.add_argument("--slips", type=int, default=60, help="how many are tried")
    parser.add_argument("--seed", type=int, default=1, help="another seed, another sample")
    parser.add_argument("--only", default="", help="modules whose path holds this")
    asked = parser.parse_args(arguments)
    with tempfile.TemporaryDirectory(prefix="sandboa-mutate-") as folder:
        tree = _copied(Path(folder))
        every = [slip for slip in _slips(tree) if asked.only in str(slip.module)]
        chosen = random.Random(asked.seed).sample(every, min(asked.slips, len(every)))
        survived = [slip for slip in chosen if not _noticed(tree, slip)]
    killed = len(chosen) - len(survived)
    print(
        f"\n{killed} of {len(chosen)} slips noticed ({100 * killed / max(len(chosen), 1):.0f} %),"
    )
    print(f"of {len(every)} that could be made; seed {asked.seed}.")
    return 1 if survived else 0


def _copied(folder: Path) -> Path:
    """The tree in a folder of its own, so that a run that is stopped leaves nothing behind."""
    for name in ("src", "tests", "docs", "benchmarks"):
        leave = shutil.ignore_patterns("__pycache__", "static", "node_modules")
        shutil.copytree(_ROOT / name, folder / name, ignore=leave)
    for name in ("pyproject.toml", "README.md", "CONTRIBUTING.md"):
        shutil.copy(_ROOT / name, folder)
    return folder


def _slips(tree: Path) -> Iterator[Slip]:
    modules = sorted((tree / _CORE).rglob("*.py"))
    for item in _all_work_items(modules, {}):
        made = item.mutations[0]
        line = _lines(Path(made.module_path))[made.start_pos[0] - 1]
        # What a decorator says of slots and frozen fields is held by mypy.
        if made.operator_name in _KINDS and not line.lstrip().startswith("@"):
            yield Slip(
                Path(made.module_path), made.operator_name, made.operator_args, made.occurrence,
                made.start_pos[0],
            )  # fmt: skip


@cache
def _lines(module: Path) -> list[str]:
    return module.read_text(encoding="utf-8").splitlines()


def _noticed(tree: Path, slip: Slip) -> bool:
    """Whether a test fails with the slip in place; prints it where none does."""
    tests = _tests_of(tree, slip.module)
    operator = get_operator(slip.kind)(**slip.arguments)
    with use_mutation(slip.module, operator, slip.occurrence) as (before, after):
        if after is None or before == after:
            return True
        changed = next(
            line for line, was in zip(after.split("\n"), before.split("\n"), strict=False)
            if line != was
        )  # fmt: skip
        noticed = not _passes(tree, tests)
    where = f"{slip.module.relative_to(tree / 'src/sandboa')}:{slip.line}"
    print(f"{'noticed ' if noticed else 'SURVIVED'} {where}  {changed.strip()[:90]}", flush=True)
    return noticed


def _passes(tree: Path, tests: list[str]) -> bool:
    python = _ROOT / ".venv/bin/python"
    command = [str(python), "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", "-n", "2", *tests]
    environment = {
        **os.environ,
        "PYTHONPATH": f"{tree / 'src'}:{tree}",
        "PYTHONDONTWRITEBYTECODE": "1",
    }
    try:
        ran = subprocess.run(
            command, cwd=tree, env=environment, timeout=_PATIENCE_S, check=False,
            stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        )  # fmt: skip
    except subprocess.TimeoutExpired:
        return False
    return ran.returncode == 0


def _tests_of(tree: Path, module: Path) -> list[str]:
    """The tests of the core that import the module, or something that imports it directly."""
    name = ".".join(module.relative_to(tree / "src").with_suffix("").parts)
    name = name.removesuffix(".__init__")
    near = {name, name.rpartition(".")[0]}
    for other in (tree / _CORE).rglob("*.py"):
        if name in _imported(other):
            near.add(".".join(other.relative_to(tree / "src").with_suffix("").parts))
    found = [
        str(test.relative_to(tree))
        for test in sorted((tree / "tests/core").glob("test_*.py"))
        if near & _imported(test)
    ]
    return [*(found or ["tests/core"]), "tests/documents/test_rules.py"]


def _imported(path: Path) -> set[str]:
    """Modules a file imports, and the packages it imports names from."""
    found = set()
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.ImportFrom) and node.module:
            found |= {node.module, *(f"{node.module}.{alias.name}" for alias in node.names)}
        if isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
    return found


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
