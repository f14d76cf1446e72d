"""The short form of `./do bench faults-injected`: what was acknowledged is there, whole.

Time and memory are the benchmark's business.
"""

from pathlib import Path

import pytest
from benchmarks.injected import report
from filelock import FileLock


@pytest.fixture(scope="module")
def furnished(tmp_path_factory: pytest.TempPathFactory, worker_id: str) -> Path:
    """A demo house with a keeper, made by whichever worker comes first."""
    base = tmp_path_factory.getbasetemp()
    folder = (base if worker_id == "master" else base.parent) / "faults"
    with FileLock(f"{folder}.lock"):
        if not folder.exists():
            report.furnish(folder.with_name("faults.part")).rename(folder)
    return folder


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
