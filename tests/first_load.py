"""The script that Today needs before it can be used, as the front end was built."""

import re
from pathlib import Path

from sandboa.web.front_end.pages import STATIC


def first_load_scripts() -> set[Path]:
    """The entry script, Today in it, and what it preloads, with all that they import in turn.

    What comes once the page is drawn is imported by a call, and is not among them.
    """
    assets = STATIC / "assets"
    entry = re.findall(r"assets/([\w.-]+\.js)", (STATIC / "index.html").read_text())
    wanted, todo = set[str](), entry
    while todo:
        name = todo.pop()
        if name not in wanted:
            wanted.add(name)
            todo += re.findall(r'(?:from|import)"\./([\w.-]+\.js)"', (assets / name).read_text())
    return {assets / name for name in wanted}
