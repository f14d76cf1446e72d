"""The plan of the house: what each folder says of itself, how full it is, and where docs lead."""

import ast
import re
import tomllib
from pathlib import Path

import pytest
from docs.refresh_rules import ROOT

SOURCE = ROOT / "src" / "sandboa"
FOLDERS = sorted(f.parent for f in SOURCE.rglob("__init__.py") if "static" not in f.parts)
#: Files a folder of services or a place of the web has at most.
MOST_FILES = 12
NAMED = re.compile(r"[\w/-]+/[\w-]+\.(?:py|tsx?)\b")


@pytest.mark.parametrize("folder", FOLDERS, ids=lambda f: str(f.relative_to(SOURCE)))
def test_a_folder_says_what_lives_in_it(folder: Path) -> None:
    said = ast.get_docstring(ast.parse((folder / "__init__.py").read_text()))
    assert said is not None
    assert len(said.split()) > 1


@pytest.mark.parametrize("layer", ["services", "web"])
def test_no_room_is_crowded(layer: str) -> None:
    crowded = {
        str(folder.relative_to(SOURCE)): len(files)
        for folder in (SOURCE / layer).rglob("*")
        if folder.is_dir() and "static" not in folder.parts
        if len(files := list(folder.glob("*.py"))) > MOST_FILES
    }
    assert crowded == {}


@pytest.mark.parametrize("document", ["architecture.md", "safety.md", "rules.md"])
def test_files_that_a_document_names_are_there(document: str) -> None:
    named = set(NAMED.findall((ROOT / "docs" / document).read_text()))
    tops = (ROOT, SOURCE, SOURCE / "core", ROOT / "frontend", ROOT / "frontend" / "src")
    assert [name for name in sorted(named) if not any((top / name).exists() for top in tops)] == []


def test_the_ladder_of_services_is_told_as_it_is_held() -> None:
    contracts = tomllib.loads((ROOT / "pyproject.toml").read_text())["tool"]["importlinter"][
        "contracts"
    ]
    held = next(c for c in contracts if c.get("containers") == ["sandboa.services"])["layers"]
    page = (ROOT / "docs" / "architecture.md").read_text()
    ladder = page.split("a folder may ask those below it:")[1].split("##")[0]
    assert ladder.split("\n\n")[1].splitlines() == [
        "    " + layer.replace(" | ", ", ") for layer in held
    ]
