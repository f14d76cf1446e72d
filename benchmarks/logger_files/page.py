"""The page about logger files, and the place in it that is measured."""

import re
from pathlib import Path
from typing import Final

PAGE: Final = Path(__file__).parents[2] / "docs" / "logger-files.md"
_PLACE: Final = re.compile(r"<!-- measured -->.*?<!-- end -->", re.DOTALL)


def written(page: str, report: str) -> str:
    """The page with a new report; ValueError where it has no place for one."""
    block = f"<!-- measured -->\n\n```text\n{report}\n```\n\n<!-- end -->"
    new, places = _PLACE.subn(lambda _: block, page)
    if not places:
        raise ValueError(f"{PAGE.name} has no place for what was measured")
    return new
