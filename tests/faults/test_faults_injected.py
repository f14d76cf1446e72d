"""The short form of `./do bench faults-injected`: what was acknowledged is there, whole.

Time and memory are the benchmark's business.
"""

from pathlib import Path

import pytest
from benchmarks.injected import faults, report


@pytest.fixture(scope="module")
def furnished(tmp_path_factory: pytest.TempPathFactory) -> Path:
    faults.make_ready()
    return report.furnish(tmp_path_factory.mktemp("faults") / "furnished")


@pytest.mark.parametrize("fault", report.FAULTS)
def test_nothing_acknowledged_is_lost_or_halved(
    furnished: Path, tmp_path: Path, fault: str
) -> None:
    """And what a failing disk refuses is said in words, as it happens."""
    came = report.outcome(fault, furnished, tmp_path / "house", rounds=1)
    assert came.acknowledged >= 3
    assert (came.lost, came.halves) == (0, 0)
    assert (came.told, came.problems) == (came.of, ())
    assert came.back_s < float("inf")
    if fault in ("read error", "disk full"):
        assert sum(came.refused.values()) > 0
        assert not any("rollback" in words or words.startswith("500") for words in came.refused)
