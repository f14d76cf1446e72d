"""Script of the front end's first load, compressed, against the 180 kB it may have."""

from collections.abc import Iterator

from tests.first_load import first_load_scripts

from benchmarks.report import Ratio

_MOST_BYTES = 180_000


def measure() -> Iterator[Ratio]:
    """As it is served over plain http, and to browsers that take the smaller form."""
    for encoding, suffix in (("gzip", ".gz"), ("brotli", ".br")):
        size = sum(
            path.with_name(path.name + suffix).stat().st_size for path in first_load_scripts()
        )
        yield Ratio(
            f"script on first load, {encoding}",
            "180 kB",
            size / _MOST_BYTES,
            1.0,
            f"{size / 1000:.0f} kB",
        )
