"""Script of the front end's first load, compressed, against the 300 kB it may have."""

import gzip
import re
from collections.abc import Iterator

from benchmarks.report import Ratio
from sandboa.web.app import STATIC

_MOST_BYTES = 300_000


def measure() -> Iterator[Ratio]:
    """The entry script, what it preloads, and what Today loads in turn."""
    assets = STATIC / "assets"
    entry = re.findall(r"assets/([\w.-]+\.js)", (STATIC / "index.html").read_text())
    wanted, todo = set[str](), [*entry, *(p.name for p in assets.glob("TodayPlace-*.js"))]
    while todo:
        name = todo.pop()
        if name not in wanted:
            wanted.add(name)
            # Static imports only: what a place loads lazily is not part of the first load.
            todo += re.findall(r'(?:from|import)"\./([\w.-]+\.js)"', (assets / name).read_text())
    size = sum(len(gzip.compress((assets / name).read_bytes(), 6)) for name in wanted)
    yield Ratio(
        "script on first load, compressed",
        "300 kB",
        size / _MOST_BYTES,
        1.0,
        f"{size / 1000:.0f} kB",
    )
